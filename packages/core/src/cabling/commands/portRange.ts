import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Network } from '../../model/network/network.ts';
import { portsOf } from '../../model/network/ports.ts';

export type RangeResult = { ok: true; ports: Port[] } | { ok: false; why: string };

const data = (port: Port): boolean =>
  port.role !== 'powerIn' && port.role !== 'powerOut' && port.role !== 'console';

/** A port by its name, or by the end of it where that says which one: `1/4` for gi1/4. */
function named(network: Network, device: Device, name: string): Port | string {
  const exact = network.findOne('portByName', `${device.id}:${name.toLowerCase()}`);
  if (exact !== null) return exact;
  const ends = portsOf(network, device.id).filter(
    (port) =>
      data(port) &&
      /[^\d/]$/.test(port.name.slice(0, -name.length)) &&
      port.name.toLowerCase().endsWith(name.toLowerCase()),
  );
  const [only] = ends;
  if (only !== undefined && ends.length === 1) return only;
  return ends.length > 1
    ? `${device.name} has ${ends.length} ports that end in ${name}: ${ends
        .slice(0, 3)
        .map((port) => port.name)
        .join(', ')}. Write the whole name.`
    : `${device.name} has no port ${name}.`;
}

/**
 * The ports that a text stands for on a device: `gi1/1`, `gi1/1-24`, `1/1-24` where that says which, `F1-12`, or
 * `front 1-24` and `rear 1-24` for the ports of a panel in their order. In the order written.
 */
export function portRange(network: Network, device: Device, text: string): RangeResult {
  const trimmed = text.trim();
  const face = /^(front|rear)\s+(\d+)(?:\s*-\s*(\d+))?$/i.exec(trimmed);
  const [, side = '', firstText = '', lastText = firstText] = face ?? [];
  if (face !== null) {
    const ports = portsOf(network, device.id).filter(
      (port) => port.face === side.toLowerCase() && data(port),
    );
    const [first, last] = [Number(firstText), Number(lastText)];
    if (last > ports.length || first < 1)
      return {
        ok: false,
        why: `${device.name} has ${ports.length} ports at the ${side.toLowerCase()}; ${first}-${last} was asked for.`,
      };
    const chosen = ports.slice(Math.min(first, last) - 1, Math.max(first, last));
    return { ok: true, ports: first <= last ? chosen : chosen.reverse() };
  }
  const range = /^(.*?)(\d+)\s*-\s*(\d+)$/.exec(trimmed);
  const numbers =
    range === null ? null : { stem: range[1] ?? '', from: Number(range[2]), to: Number(range[3]) };
  if (numbers !== null && Math.abs(numbers.to - numbers.from) >= 1024)
    return { ok: false, why: `${trimmed} stands for more than 1,024 ports.` };
  const names =
    numbers === null
      ? [trimmed]
      : Array.from({ length: Math.abs(numbers.to - numbers.from) + 1 }, (_, step) => {
          const number = numbers.from + Math.sign(numbers.to - numbers.from) * step;
          const width = (range?.[2] ?? '').startsWith('0') ? (range?.[2] ?? '').length : 0;
          return `${numbers.stem}${String(number).padStart(width, '0')}`;
        });
  const ports: Port[] = [];
  for (const name of names) {
    const port = named(network, device, name);
    if (typeof port === 'string') return { ok: false, why: port };
    ports.push(port);
  }
  return { ok: true, ports };
}

/** "kq-acc-1 gi1/1-24" or "kq-acc-1:gi1/1": a device and its ports. */
export function deviceRange(network: Network, text: string): RangeResult {
  const trimmed = text.trim();
  const parts = /^([^\s:]+)(?:\s*:\s*|\s+)(\S.*)$/.exec(trimmed);
  if (parts === null)
    return { ok: false, why: `Write a device and a port, such as kq-acc-1 te1/49, instead of “${trimmed}”.` };
  const [, name = '', ports = ''] = parts;
  const device = network.findOne('deviceByName', name.toLowerCase());
  if (device === null) return { ok: false, why: `There is no device ${name}.` };
  return portRange(network, device, ports);
}
