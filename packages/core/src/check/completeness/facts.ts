import { inletsOf } from '../../racks/feedsBehind.ts';
import { notesOf, held, type Rows } from '../../model/kinds.ts';
import type { RequirementKind } from '../../model/kinds/review/requirement.ts';
import { isInCloud, isOfCloudSubnet } from '../../model/network/cloudPlaces.ts';
import type { Network } from '../../model/network/network.ts';
import { endsOf } from '../../model/network/ports.ts';

/** A fact that can be asked for of rows of a kind. */
export interface AskedFact<K extends RequirementKind = RequirementKind> {
  key: string;
  label: string;
  /** The field that holds it, where it can be typed in; null: it follows from others. */
  field: string | null;
  /** Whether it is there; null: this row cannot have it, so it is not asked for. */
  has: (network: Network, row: Rows[K]) => boolean | null;
  /** What is there, as it is read. */
  text: (network: Network, row: Rows[K]) => string;
}

function field<K extends RequirementKind>(kind: K, name: string): AskedFact<K> {
  const value = (row: Rows[K]): unknown => held(row)[name];
  return {
    key: name,
    label: notesOf(kind, name)?.label ?? name,
    field: name,
    has: (_network, row) => value(row) !== null && value(row) !== '',
    text: (_network, row) => String(value(row) ?? ''),
  };
}

function worked<K extends RequirementKind>(
  key: string,
  label: string,
  has: AskedFact<K>['has'],
  text: AskedFact<K>['text'] = () => '',
): AskedFact<K> {
  return { key, label, field: null, has, text };
}

const feedsOf = (network: Network, device: Rows['device']): Set<string> =>
  new Set(inletsOf(network, device).flatMap(({ supplies }) => [...supplies.keys()]));

const addressesOf = (network: Network, { id }: Rows['device']): string[] =>
  network
    .find('everyPortByDevice', id)
    .flatMap((port) => network.find('addressesByPort', port.id))
    .map(({ address }) => address);

/** What is known of a thing that was bought: what runs in a cloud cannot have it. */
function ofHardware(name: string): AskedFact<'device'> {
  const fact = field('device', name);
  return {
    ...fact,
    has: (network, row) => fact.has(network, row) || (isInCloud(network, row) ? null : false),
  };
}

const device: readonly AskedFact<'device'>[] = [
  worked(
    'model',
    'Model',
    (network, row) => row.modelId !== null || (isInCloud(network, row) ? null : false),
    (network, { modelId }) => network.get('model', modelId)?.name ?? '',
  ),
  worked(
    'place',
    'Place',
    (_network, { placeId, rackId }) => placeId !== null || rackId !== null,
    (network, { placeId, rackId }) =>
      network.get('rack', rackId)?.name ?? network.get('place', placeId)?.name ?? '',
  ),
  ...[
    'serial',
    'assetNumber',
    'installedOn',
    'supportUntil',
    'warrantyUntil',
    'contract',
    'supplier',
    'orderNumber',
    'boughtOn',
  ].map(ofHardware),
  ...['responsible', 'softwareVersion'].map((name) => field('device', name)),
  worked(
    'managementAddress',
    'Address',
    (network, row) => addressesOf(network, row).length > 0,
    (network, row) => addressesOf(network, row)[0] ?? '',
  ),
  worked(
    'twoFeeds',
    'Two power feeds',
    // What has one inlet cannot hang on two.
    (network, row) => (inletsOf(network, row).length < 2 ? null : feedsOf(network, row).size >= 2),
    (network, row) => String(feedsOf(network, row).size || ''),
  ),
];
const rack: readonly AskedFact<'rack'>[] = [
  ...['massLimitKg', 'depthMm', 'facing'].map((name) => field('rack', name)),
  worked(
    'feeds',
    'Power feeds',
    (_network, { feeds }) => feeds.length > 0,
    (_network, { feeds }) => feeds.map(({ name }) => name).join(', '),
  ),
  worked(
    'twoFeeds',
    'Two power feeds',
    (_network, { feeds }) => feeds.length >= 2,
    (_network, { feeds }) => feeds.map(({ name }) => name).join(', '),
  ),
];
const cable: readonly AskedFact<'cable'>[] = [
  worked(
    'type',
    'Type',
    (_network, { typeId }) => typeId !== null,
    (network, { typeId }) => network.get('model', typeId)?.name ?? '',
  ),
  field('cable', 'lengthM'),
  worked('bothEnds', 'Both ends', (network, row) =>
    (['a', 'b'] as const).every((side) => endsOf(network, row, side).some((end) => end !== null)),
  ),
];
const circuit: readonly AskedFact<'circuit'>[] = ['provider', 'bandwidthBps', 'handover'].map((name) =>
  field('circuit', name),
);
const prefix: readonly AskedFact<'prefix'>[] = [
  field('prefix', 'name'),
  worked(
    'vlan',
    'VLAN',
    (network, { id, role, vlanId }) =>
      role === 'subnet' && !isOfCloudSubnet(network, id) ? vlanId !== null : null,
    (network, { vlanId }) => network.get('vlan', vlanId)?.name ?? '',
  ),
  worked(
    'place',
    'Place',
    (_network, { placeId }) => placeId !== null,
    (network, { placeId }) => network.get('place', placeId)?.name ?? '',
  ),
];
const place: readonly AskedFact<'place'>[] = [
  field('place', 'code'),
  field('place', 'address'),
  field('place', 'contacts'),
].map((fact) => ({
  ...fact,
  // Rooms are found by their site.
  has: (network: Network, row: Rows['place']) => (row.kind === 'site' ? fact.has(network, row) : null),
}));

/** Every fact that can be asked for, by kind. */
export const askedFacts: { readonly [K in RequirementKind]: readonly AskedFact<K>[] } = {
  device,
  rack,
  cable,
  circuit,
  prefix,
  place,
};

/** A fact of a kind by its key; null: there is none of that name. */
export const factOf = <K extends RequirementKind>(kind: K, key: string): AskedFact<K> | null =>
  askedFacts[kind].find((fact) => fact.key === key) ?? null;
