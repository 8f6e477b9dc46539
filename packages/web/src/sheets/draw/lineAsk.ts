import { routedLine, type RoutedWish } from '@visograph/core/addressing';
import {
  circuitLine,
  joinDevices,
  type CircuitEnd,
  type CircuitWish,
  type JoinAttempt,
  type JoinedLine,
  type JoinWish,
} from '@visograph/core/cabling';
import { diffOf, type Change } from '@visograph/core/change';
import { compareNames, modelTitle, type Network, type Sheet } from '@visograph/core/model';
import type { Plate } from '@visograph/core/sheets';
import { switchedLine, type SwitchedWish } from '@visograph/core/switching';

/** What is asked of a line: on a sheet of routing it has a subnet, on one of switching VLANs, between places it is a circuit. */
export type LineAsk =
  | { sort: 'cable'; wish: JoinWish }
  | { sort: 'routed'; wish: JoinWish; how: RoutedWish }
  | { sort: 'switched'; wish: JoinWish; how: SwitchedWish }
  | { sort: 'circuit'; wish: CircuitWish };

/** Where subnets of links come from while there is no pool yet. */
const usualPool = '10.0.0.0/24';
/** A provider whose name is said afterwards. */
export const unnamedProvider = 'provider not named yet';

/** Makes one line as it is asked. */
export function makeLine(network: Network, ask: LineAsk): JoinAttempt {
  if (ask.sort === 'routed') return routedLine(network, ask.wish, ask.how);
  if (ask.sort === 'switched') return switchedLine(network, ask.wish, ask.how);
  if (ask.sort === 'circuit') return circuitLine(network, ask.wish);
  return joinDevices(network, ask.wish);
}

/** Several lines as one step, each on what the ones before it left; the first that cannot be made is the reason. */
export function makeLines(network: Network, asks: readonly LineAsk[]): JoinAttempt {
  let last: JoinAttempt = { ok: false, why: 'Choose what is to be joined first.' };
  let staged = network;
  const made: Change[] = [];
  const lines: JoinedLine[] = [];
  for (const ask of asks) {
    last = makeLine(staged, ask);
    if (!last.ok) return last;
    staged = last.network;
    made.push(...last.changes);
    lines.push(...last.lines);
  }
  if (!last.ok) return last;
  const changes = diffOf(network, staged, made);
  const sentence =
    asks.length === 1 ? last.sentence : `Connected ${asks.length} pairs with ${lines.length} lines`;
  return { ...last, changes, made: changes, lines, network: staged, sentence };
}

/** What a plate is to the end of a line; null where none can end there. */
export function endOfPlate({ form, deviceIds, subjects, name }: Plate): CircuitEnd | null {
  const [deviceId] = deviceIds;
  if (form === 'place') return { placeId: subjects[0] ?? '' };
  if (form === 'provider') return { provider: name };
  return deviceId === undefined || form === 'subnet' ? null : { deviceId };
}

/** What was last said of lines on this sheet: it holds for the next one too. */
export interface LineManner {
  routed: RoutedWish | null;
  provider: string | null;
}

/** The line between two ends, as a sheet draws it. */
export function askFor(
  network: Network,
  sheet: Pick<Sheet, 'projection' | 'vrfId'>,
  [a, b]: readonly [CircuitEnd, CircuitEnd],
  aPortId: string | null,
  said: LineManner,
): LineAsk {
  if (!('deviceId' in a && 'deviceId' in b))
    return {
      sort: 'circuit',
      wish: { a, b, aPortId, ...(said.provider === null ? {} : { provider: said.provider }) },
    };
  const wish: JoinWish = { aDeviceId: a.deviceId, bDeviceId: b.deviceId, aPortId };
  if (sheet.projection === 'switching') return { sort: 'switched', wish, how: {} };
  if (sheet.projection !== 'routing') return { sort: 'cable', wish };
  const pools = [...network.all('prefix')]
    .filter((row) => row.role === 'pool' && row.vrfId === sheet.vrfId)
    .map((row) => row.prefix)
    .sort(compareNames);
  const { linksFrom = pools[0] ?? usualPool, length = 31 } = said.routed ?? {};
  return { sort: 'routed', wish, how: { vrfId: sheet.vrfId, linksFrom, length } };
}

/** "gi1/2 to gi1/1, Cat 6A RJ45, C-00003": what joins, as it would be or is. */
export function lineText(network: Network, { lineId }: Pick<JoinedLine, 'lineId'>, count: number): string {
  const port = (id: string | null): string => {
    const [address] = network.find('addressesByPort', id ?? '');
    return [network.get('port', id)?.name, address?.address].filter(Boolean).join(' ');
  };
  const circuit = network.get('circuit', lineId);
  if (circuit !== null) {
    const device = (id: string | null): string =>
      [network.get('device', network.get('port', id)?.deviceId ?? null)?.name, port(id)]
        .filter(Boolean)
        .join(' ');
    const far = circuit.bPortId === null ? (circuit.provider ?? '') : device(circuit.bPortId);
    return [`${device(circuit.aPortId)} to ${far}`, circuit.kind, circuit.number].join(', ');
  }
  const cable = network.get('cable', lineId);
  if (cable === null) return '';
  const type = network.get('model', cable.typeId);
  return [
    `${port(cable.aPortId)} to ${port(cable.bPortId)}`,
    type === null ? 'cable not known yet' : modelTitle(type),
    count > 1 ? `${cable.label} and ${count - 1} more` : cable.label,
  ].join(', ');
}
