import { compareLists, standing } from '../cabling/walk.ts';
import { endLabel } from '../cabling/labels.ts';
import { cablesInScope } from '../cabling/reports/cables.ts';
import type { LabelledKind } from '../model/kinds/reports/printedLabel.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Network } from '../model/network/network.ts';
import { devicesInScope, placePath, placesWithin, whereIs } from '../model/network/places.ts';
import { cableAt, otherEnd, portsOf, portTitle } from '../model/network/ports.ts';
import { byName, compareNames } from '../model/values/order.ts';

/** What labels can be printed of. An outlet is a port of a panel that stands in no rack. */
export const labelSorts = {
  cables: 'Cables, both ends',
  devices: 'Devices',
  ports: 'Ports',
  racks: 'Racks',
  outlets: 'Outlets',
} as const;
export type LabelSort = keyof typeof labelSorts;

/** A label to print: what it is stuck to, and its lines, of which the first names it. */
export interface ThingLabel {
  kind: LabelledKind;
  id: string;
  side: 'a' | 'b' | null;
  lines: readonly string[];
}

/** What a label says, as one text: by that it is known whether it was printed. */
export const labelText = ({ lines }: Pick<ThingLabel, 'lines'>): string => lines.join('\n').slice(0, 1000);

const filled = (...lines: (string | null | undefined)[]): string[] =>
  lines.flatMap((line) => (line == null || line === '' ? [] : [line]));

function cableLabels(network: Network, scopeId: string | null): ThingLabel[] {
  return cablesInScope(network, scopeId)
    .filter(({ status }) => status !== 'retired')
    .flatMap((cable) =>
      (['a', 'b'] as const).map((side) => {
        const { label, near, far } = endLabel(network, cable, side);
        const portId = side === 'a' ? cable.aPortId : cable.bPortId;
        return {
          at: [...standing(network, portId), cable.label, side],
          label: { kind: 'cable' as const, id: cable.id, side, lines: [label, near, `→ ${far}`] },
        };
      }),
    )
    .sort((a, b) => compareLists(a.at, b.at))
    .map(({ label }) => label);
}

/** Where a device is looked for: racks in the order of their row from the top, then what stands elsewhere. */
const deviceAt = (network: Network, device: Device): (string | number)[] => {
  const rack = network.get('rack', device.rackId);
  const placeId = rack?.placeId ?? device.placeId;
  return [
    placeId === null ? '' : placePath(network, placeId),
    rack?.position ?? 0,
    rack?.name ?? '',
    100 - (device.unit ?? 0),
    device.name,
  ];
};
const onWalk = (network: Network, scopeId: string | null): Device[] =>
  devicesInScope(network, scopeId)
    .filter(({ status }) => status !== 'retired')
    .map((device) => ({ device, at: deviceAt(network, device) }))
    .sort((a, b) => compareLists(a.at, b.at))
    .map(({ device }) => device);

function deviceLabels(network: Network, scopeId: string | null): ThingLabel[] {
  return onWalk(network, scopeId).map((device) => {
    const model = network.get('model', device.modelId);
    return {
      kind: 'device',
      id: device.id,
      side: null,
      lines: filled(device.name, model === null ? null : modelTitle(model), whereIs(network, device)),
    };
  });
}

/** Ports of devices, each with what is at the other end of its cable. */
function portLabels(network: Network, devices: readonly Device[]): ThingLabel[] {
  return devices.flatMap((device) =>
    portsOf(network, device.id)
      .filter(({ form, role }) => form === 'physical' && role !== 'powerIn' && role !== 'powerOut')
      .map((port): ThingLabel => {
        const cable = cableAt(network, port.id);
        const far = cable === null ? null : otherEnd(network, cable, port.id);
        return {
          kind: 'port',
          id: port.id,
          side: null,
          lines: filled(
            portTitle(network, port.id).replace(':', ' '),
            far === null ? null : `→ ${portTitle(network, far).replace(':', ' ')}`,
          ),
        };
      }),
  );
}

function rackLabels(network: Network, scopeId: string | null): ThingLabel[] {
  const within = scopeId === null ? null : placesWithin(network, scopeId);
  return [...network.all('rack')]
    .filter(({ placeId }) => within === null || within.has(placeId))
    .map((rack) => ({ rack, path: placePath(network, rack.placeId) }))
    .sort((a, b) => compareNames(a.path, b.path) || byName(a.rack, b.rack))
    .map(({ rack, path }) => ({
      kind: 'rack',
      id: rack.id,
      side: null,
      lines: filled(rack.name, path.split('/').slice(-2).join(' › ')),
    }));
}

/** Labels of everything of a sort in a place, in the order in which one walks past; what is retired has none. */
export function labelsOf(network: Network, sort: LabelSort, scopeId: string | null): ThingLabel[] {
  switch (sort) {
    case 'cables':
      return cableLabels(network, scopeId);
    case 'devices':
      return deviceLabels(network, scopeId);
    case 'ports':
      return portLabels(network, onWalk(network, scopeId));
    case 'racks':
      return rackLabels(network, scopeId);
    case 'outlets':
      return portLabels(
        network,
        onWalk(network, scopeId).filter(({ role, rackId }) => role === 'PP' && rackId === null),
      );
  }
}

/** What was last printed for a thing; null: nothing was. */
const printedText = (network: Network, { id, side }: ThingLabel): string | null =>
  network.find('printedLabelsBySubject', id).find((row) => row.side === side)?.text ?? null;

/** Labels that were never printed, or read otherwise by now. */
export const freshLabels = (network: Network, labels: readonly ThingLabel[]): ThingLabel[] =>
  labels.filter((label) => printedText(network, label) !== labelText(label));
