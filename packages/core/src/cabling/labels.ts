import type { Network } from '../model/network.ts';
import { placeOfDevice, siteCode } from '../model/places.ts';

const numbered = /^(.*?)-?(\d+)$/;

/**
 * The next cable label of the site a port stands at: `<site code>-<number>`, one above the highest in use,
 * padded to the project's digits. Places without a site code use C.
 */
export function nextCableLabel(network: Network, portId: string, digits: number): string {
  const device = network.get('device', network.get('port', portId)?.deviceId ?? null);
  const placeId = device === null ? null : placeOfDevice(network, device);
  const code = siteCode(network, placeId) ?? 'C';
  let highest = 0;
  for (const cable of network.find('cablesBySite', code.toLowerCase())) {
    highest = Math.max(highest, Number(numbered.exec(cable.label)?.[2] ?? 0));
  }
  return `${code}-${String(highest + 1).padStart(digits, '0')}`;
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
