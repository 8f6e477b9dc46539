import { derived } from '../model/network/derived.ts';
import type { Cable } from '../model/kinds/lines/cable.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { placeOfDevice, siteCode, whereIs } from '../model/network/places.ts';
import { portTitle } from '../model/network/ports.ts';
import { cablingRules } from './rules.ts';

const codeOf = (network: Network, port: Port | null): string => {
  const device = network.get('device', port?.deviceId ?? null);
  return (device === null ? null : siteCode(network, placeOfDevice(network, device))) ?? 'C';
};

/** The two halves of a label around its number, by the project's scheme and the ports at the cable's ends. */
function around(network: Network, scheme: string, a: Port | null, b: Port | null): [string, string] {
  const place = (port: Port | null): string => {
    const device = network.get('device', port?.deviceId ?? null);
    return network.get('place', device === null ? null : placeOfDevice(network, device))?.name ?? '';
  };
  const rack = (port: Port | null): string => {
    const device = network.get('device', port?.deviceId ?? null);
    return network.get('rack', device?.rackId ?? null)?.name ?? place(port);
  };
  const parts: Record<string, () => string> = {
    site: () => codeOf(network, a ?? b),
    aPlace: () => place(a),
    bPlace: () => place(b),
    aRack: () => rack(a),
    bRack: () => rack(b),
    aPort: () => portTitle(network, a?.id ?? null),
    bPort: () => portTitle(network, b?.id ?? null),
  };
  const filled = scheme.replace(/\{(\w+)\}/g, (whole, part: string) => parts[part]?.() ?? whole);
  const [before = '', after = ''] = filled.split('{number}');
  return [before, after];
}

const numberOf = (label: string, [before, after]: readonly [string, string]): number | null => {
  const text = label.toLowerCase();
  if (!text.startsWith(before.toLowerCase()) || !text.endsWith(after.toLowerCase())) return null;
  const digits = label.slice(before.length, label.length - after.length);
  return /^\d+$/.test(digits) ? Number(digits) : null;
};

/** The lowest number of a sequence that may be free, by the halves around it. */
interface Sequence {
  halves: readonly [string, string];
  from: number;
}

/** Kept from one network to those made from it: a number is free again when its cable went or was renamed. */
const sequencesOf = derived<Map<string, Sequence>>(
  () => new Map(),
  (before, _network, touched) => {
    const freed = touched.flatMap((row) =>
      row.kind === 'cable' && row.before !== null ? [row.before.label] : [],
    );
    return new Map(
      [...before].map(([key, { halves, from }]) => [
        key,
        { halves, from: Math.min(from, ...freed.map((label) => numberOf(label, halves) ?? from)) },
      ]),
    );
  },
);

const written = ([before, after]: readonly [string, string], number: number, digits: number): string =>
  `${before}${String(number).padStart(digits, '0')}${after}`;

/**
 * The next cable label by the project's scheme: the lowest number that no cable has, so that no gaps are left;
 * retired cables keep theirs. Places without a site code count as C.
 */
export function nextCableLabel(network: Network, a: Port | null, b: Port | null = null): string {
  const digits = [...network.all('project')][0]?.labelDigits ?? 5;
  const halves = around(network, cablingRules(network).labelScheme, a, b);
  const key = `${digits}|${halves.join('|')}`;
  const sequences = sequencesOf(network);
  let number = sequences.get(key)?.from ?? 1;
  while (network.findOne('cableByLabel', written(halves, number, digits).toLowerCase()) !== null) number++;
  sequences.set(key, { halves, from: number });
  return written(halves, number, digits);
}

/**
 * Labels for many new cables at once: each the next of its sequence that neither the network has nor was given before,
 * nor is among those that are spoken for.
 */
export function labelGiver(
  network: Network,
  spokenFor: Iterable<string>,
): (a: Port | null, b: Port | null) => string {
  const digits = [...network.all('project')][0]?.labelDigits ?? 5;
  const { labelScheme } = cablingRules(network);
  const taken = new Set([...spokenFor].map((label) => label.toLowerCase()));
  const next = new Map<string, number>();
  return (a, b) => {
    const halves = around(network, labelScheme, a, b);
    const key = halves.join('|');
    for (let number = next.get(key) ?? 1; ; number++) {
      const label = written(halves, number, digits);
      const low = label.toLowerCase();
      if (taken.has(low) || network.findOne('cableByLabel', low) !== null) continue;
      next.set(key, number + 1);
      taken.add(low);
      return label;
    }
  };
}

const endText = (network: Network, portId: string | null): string => {
  const port = network.get('port', portId);
  const device = network.get('device', port?.deviceId ?? null);
  if (port === null || device === null) return 'open';
  return device.rackId === null
    ? `${whereIs(network, device)} ${device.name}:${port.name}`
    : `${whereIs(network, device).replace(' U', '.')}:${device.name}:${port.name}`;
};

/**
 * What is printed on the label at one end of a cable (TIA-606-C clause 7: identifier, near end, far end), as
 * rack.unit:device:port.
 */
export function endLabel(
  network: Network,
  cable: Cable,
  side: 'a' | 'b',
): { label: string; near: string; far: string } {
  const [near, far] = side === 'a' ? [cable.aPortId, cable.bPortId] : [cable.bPortId, cable.aPortId];
  return { label: cable.label, near: endText(network, near), far: endText(network, far) };
}
