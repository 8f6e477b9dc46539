import type { Evidence, Facts, Parts } from '../../check/finding.ts';
import { held, type Kind, type Row } from '../../model/kinds.ts';
import type { Network, Touched } from '../../model/network/network.ts';
import { cloudPlaceAround } from '../../model/network/cloudPlaces.ts';
import { keysOf } from '../../model/values/words.ts';
import { networkOfVrf, networksIn, networksOfDevice } from '../inventory.ts';

/** Kinds whose rows name the virtual network that they belong to, with the fields. */
const naming: Partial<Record<Kind, readonly string[]>> = {
  virtualNetwork: ['placeId'],
  cloudSubnet: ['placeId'],
  routeTable: ['placeId'],
  ruleSet: ['placeId'],
  gateway: ['networkId'],
  dnsForward: ['networkId'],
};
/** Kinds whose rows name a device that stands in one. */
const ofDevice: Partial<Record<Kind, readonly string[]>> = {
  gateway: ['deviceId'],
  port: ['deviceId'],
  instance: ['deviceId', 'standbyForId'],
  balancerTarget: ['balancerId', 'deviceId'],
  route: ['deviceId'],
};
/** Kinds whose rows name a port. */
const ofPort: readonly Kind[] = ['address', 'publicAddress', 'ruleSetUse'];

const text = (row: Row, field: string): string | null => {
  const value = held(row)[field];
  return typeof value === 'string' ? value : null;
};

/** The networks that a row belongs to; null: that cannot be said. */
function networksOfRow(network: Network, kind: Kind, row: Row): string[] | null {
  const devices = new Set<string>();
  const found = new Set<string>();
  for (const field of naming[kind] ?? []) found.add(text(row, field) ?? '');
  if (kind === 'routeTable' && text(row, 'placeId') === null) return null;
  if (kind === 'ruleSet' && text(row, 'placeId') === null) return null;
  for (const field of ofDevice[kind] ?? []) devices.add(text(row, field) ?? '');
  if (kind === 'device') devices.add(row.id);
  if (ofPort.includes(kind)) devices.add(network.get('port', text(row, 'portId'))?.deviceId ?? '');
  if (kind === 'address' || kind === 'prefix') found.add(networkOfVrf(network, text(row, 'vrfId')) ?? '');
  if (kind === 'prefix') found.add(cloudPlaceAround(network, text(row, 'placeId'), 'network')?.id ?? '');
  if (kind === 'cloudRoute' || kind === 'trafficRule') {
    const owner =
      kind === 'cloudRoute'
        ? network.get('routeTable', text(row, 'tableId'))
        : network.get('ruleSet', text(row, 'setId'));
    if (owner === null || owner.placeId === null) return null;
    found.add(owner.placeId);
  }
  for (const id of devices) {
    const device = network.get('device', id);
    if (device === null) continue;
    for (const one of networksOfDevice(network, device)) found.add(one);
    // A router of the region may join any; what speaks BGP may tell any what it knows.
    if (network.countOf('hubAttachmentsByHub', id) + network.countOf('bgpSessionsByDevice', id) > 0)
      return null;
  }
  found.delete('');
  return known.has(kind) ? [...found] : null;
}
const known: ReadonlySet<Kind> = new Set<Kind>([
  ...keysOf<Kind>(naming),
  ...keysOf<Kind>(ofDevice),
  ...ofPort,
  'device',
  'prefix',
  'cloudRoute',
  'trafficRule',
]);

/** Networks whose routes may lead into these ones: joined by peerings or by routers of the region. */
function withNeighbours(network: Network, ids: Iterable<string>): Set<string> {
  const all = new Set(ids);
  for (const id of [...all]) {
    for (const { aNetworkId, bNetworkId } of network.find('peeringsByNetwork', id))
      all.add(aNetworkId).add(bNetworkId);
    for (const { hubId } of network.find('hubAttachmentsByNetwork', id))
      for (const other of network.find('hubAttachmentsByHub', hubId))
        if (other.networkId !== null) all.add(other.networkId);
  }
  return all;
}

function networksTouched(
  network: Network,
  { kind, before, after }: Touched,
  base: Network,
): Set<string> | null {
  const ids = new Set<string>();
  for (const row of [before, after]) {
    if (row === null) continue;
    for (const one of [base, network]) {
      const found = networksOfRow(one, kind, row);
      if (found === null) return null;
      for (const id of withNeighbours(one, found)) ids.add(id);
    }
  }
  return ids;
}

/**
 * A rule that judges virtual networks one by one; after an edit those that it can concern. `anywhere`: a row of the
 * premises that can concern any of them.
 */
export const networkParts = <F extends Facts>(
  judge: (network: Network, networkId: string) => readonly Evidence<F>[],
  anywhere: (touched: Touched) => boolean = () => false,
): Parts<F> => ({
  *each(network) {
    if (network.count('virtualNetwork') === 0) return;
    for (const { id } of networksIn(network, null)) yield [id, judge(network, id)];
  },
  judge: (network, id) => (network.get('place', id)?.kind === 'network' ? judge(network, id) : []),
  concerned: (network, touched, base) => (anywhere(touched) ? null : networksTouched(network, touched, base)),
});
