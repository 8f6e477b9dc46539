import type { Cable } from '../model/kinds/cable.ts';
import type { Port } from '../model/kinds/port.ts';
import type { Network } from '../model/network.ts';
import { placeOfDevice, siteCode, whereIs } from '../model/places.ts';
import { portTitle } from '../model/ports.ts';
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

/** Lowest free number of each sequence, kept from one network to those made from it. */
const lowest = new WeakMap<Network, Map<string, number>>();
const mostSteps = 50;

/** The lowest number known to be free before, seen through what was changed since; 1 where nothing is known. */
function startAt(network: Network, key: string, halves: readonly [string, string]): number {
  let freed = Infinity;
  let at: Network | undefined = network;
  for (let step = 0; step <= mostSteps && at !== undefined; step++) {
    const known = lowest.get(at)?.get(key);
    if (known !== undefined) return Math.min(known, freed);
    if (at.origin === null) return 1;
    for (const { kind, before } of at.origin.touched) {
      if (kind !== 'cable' || before === null) continue;
      const number = numberOf((before as Cable).label, halves);
      if (number !== null) freed = Math.min(freed, number);
    }
    at = at.origin.base.deref();
  }
  return 1;
}

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
  let number = startAt(network, key, halves);
  while (network.findOne('cableByLabel', written(halves, number, digits).toLowerCase()) !== null) number++;
  const known = lowest.get(network) ?? new Map<string, number>();
  known.set(key, number);
  lowest.set(network, known);
  return written(halves, number, digits);
}

/** Labels missing from a sequence of numbered labels with one prefix, in order. */
export function missingLabels(labels: readonly string[]): string[] {
  const numbers = new Map<number, string>();
  let prefix = '';
  let width = 0;
  for (const label of labels) {
    const match = /^(.*?)(\d+)$/.exec(label);
    if (match === null) continue;
    prefix = match[1] ?? '';
    width = (match[2] ?? '').length;
    numbers.set(Number(match[2]), label);
  }
  const sorted = [...numbers.keys()].sort((a, b) => a - b);
  const missing: string[] = [];
  for (let at = 1; at < sorted.length; at++) {
    for (
      let number = (sorted[at - 1] ?? 0) + 1;
      number < (sorted[at] ?? 0) && missing.length < 1000;
      number++
    ) {
      missing.push(`${prefix}${String(number).padStart(width, '0')}`);
    }
  }
  return missing;
}

/** The prefix of a numbered label; null where it ends in no number. */
export const labelPrefix = (label: string): string | null => /^(.*?)\d+$/.exec(label)?.[1] ?? null;

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
