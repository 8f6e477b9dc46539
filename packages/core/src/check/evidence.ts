import { blankSheet, type Sheet } from '../model/kinds/drawings/sheet.ts';
import { blankSheetItem } from '../model/kinds/drawings/sheetItem.ts';
import type { Projection } from '../model/kinds/drawings/projections.ts';
import type { Network } from '../model/network/network.ts';
import { endsOf } from '../model/network/ports.ts';
import { compareNames } from '../model/values/order.ts';
import type { Finding } from './finding.ts';
import { deviceOf } from './placeOf.ts';

/** What a finding concerns, drawn by itself: a network with a sheet of it that nobody keeps. */
export interface EvidenceDrawing {
  network: Network;
  sheet: Sheet;
  devices: number;
}

/** So many devices are drawn: more tell nothing in a small picture. */
const mostDevices = 24;
/** A device by itself is drawn with what it is joined to, as far as that is few. */
const mostNeighbours = 4;
/** Rules about power: what feeds a device is drawn with it, otherwise what it talks to. */
const ofPower: ReadonlySet<string> = new Set(['single-fed', 'inlets-one-feed']);

/** The ends of a cable or circuit, as devices. */
function devicesOf(network: Network, finding: Finding): Set<string> {
  const found = new Set<string>();
  for (const subject of finding.subjects) {
    const { kind, id } = subject;
    const line = kind === 'cable' || kind === 'circuit' ? network.get(kind, id) : null;
    const ports = line === null ? [] : [line.aPortId, line.bPortId];
    for (const port of ports) {
      const device = network.get('port', port)?.deviceId;
      if (device !== undefined) found.add(device);
    }
    const own = deviceOf(network, subject);
    if (own !== null) found.add(own);
    if (found.size >= mostDevices) break;
  }
  return found;
}

function neighboursOf(network: Network, deviceId: string, power: boolean): string[] {
  const far = new Set<string>();
  const ports = network
    .find('portsByDevice', deviceId)
    .filter(({ role }) => (role === 'powerIn' || role === 'powerOut') === power);
  for (const port of ports)
    for (const cable of network.find('cablesByPort', port.id))
      for (const end of [...endsOf(network, cable, 'a'), ...endsOf(network, cable, 'b')]) {
        const other = network.get('port', end)?.deviceId;
        if (other !== undefined && other !== deviceId) far.add(other);
      }
  return [...far].sort((a, b) =>
    compareNames(network.get('device', a)?.name ?? '', network.get('device', b)?.name ?? ''),
  );
}

const projections: readonly [start: string, projection: Projection][] = [
  ['ospf-', 'routing'],
  ['route-', 'routing'],
  ['next-hop-', 'routing'],
  ['router-id-', 'routing'],
  ['vlan-', 'switching'],
  ['loop-', 'switching'],
  ['spanning-', 'switching'],
  ['edge-port-', 'switching'],
  ['switch-', 'switching'],
];

const id = (at: number): string => `00000000-0000-4000-8000-${String(at).padStart(12, '0')}`;

/** The devices of a finding and what joins them, as one would draw them; null where it concerns none. */
export function evidenceOf(network: Network, finding: Finding): EvidenceDrawing | null {
  const devices = devicesOf(network, finding);
  const [only, ...others] = devices;
  if (only === undefined) return null;
  if (others.length === 0)
    for (const near of neighboursOf(network, only, ofPower.has(finding.rule)).slice(0, mostNeighbours))
      devices.add(near);
  const projection = projections.find(([start]) => finding.rule.startsWith(start))?.[1] ?? 'cabling';
  const show = blankSheet.show.filter((facet) => facet !== 'key' && facet !== 'titleBlock');
  const sheet: Sheet = { ...blankSheet, id: id(0), name: 'Evidence', projection, picked: true, show };
  const draft = network.draft(['sheet', 'sheetItem']);
  draft.put('sheet', sheet);
  [...devices].forEach((subjectId, at) =>
    draft.put('sheetItem', {
      ...blankSheetItem,
      id: id(at + 1),
      sheetId: sheet.id,
      subjectKind: 'device',
      subjectId,
    }),
  );
  return { network: draft.finish(), sheet, devices: devices.size };
}
