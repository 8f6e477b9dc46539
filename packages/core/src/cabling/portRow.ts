import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { filledBy, portsOf } from '../model/network/ports.ts';
import { connectors } from '../model/values/connectors.ts';
import { speedText } from '../model/values/speed.ts';
import { poeSource } from './poe.ts';

/** A port of a device as it is offered for a line. */
export interface RowPort {
  id: string;
  name: string;
  /** What is plugged in, or what it is kept for; null when it is free. */
  taken: string | null;
  /** What it takes: "1G RJ45 · PoE". */
  what: string;
}

/** "10G SFP+", "1G RJ45 · PoE": speed and connector of a port, and whether it feeds what hangs on it. */
export function portWhat(network: Network, port: Port): string {
  const connector = port.connector === null ? null : connectors[port.connector].label;
  const plug = [port.speedBps === null ? null : speedText(port.speedBps), connector]
    .filter(Boolean)
    .join(' ');
  return [plug, poeSource(network, port) === null ? null : 'PoE', port.role === 'panel' ? port.face : null]
    .filter(Boolean)
    .join(' · ');
}

/** The ports of a device that lines leave from, in their order: those of power only where power is drawn. */
export function portRow(network: Network, device: Device, power: boolean): RowPort[] {
  const isPower = (port: Port): boolean => port.role === 'powerIn' || port.role === 'powerOut';
  const own = device.role === 'PD' || device.role === 'UP';
  return portsOf(network, device.id)
    .filter((port) => port.role !== 'console' && (power || own || !isPower(port)))
    .map((port) => ({
      id: port.id,
      name: port.name,
      taken: filledBy(network, port.id) ?? (port.reserved === null ? null : `kept for ${port.reserved}`),
      what: portWhat(network, port),
    }));
}

const numbered = /^(.*?)(\d+)$/;

/** "gi1/2-24": names that count on are one range, as ports are written on the command line; at most so many ranges. */
export function rangesOf(names: readonly string[], most = 3): string {
  const ranges: { stem: string; from: number; to: number; text: string }[] = [];
  for (const name of names) {
    const [, stem = name, digits] = numbered.exec(name) ?? [];
    const number = digits === undefined ? NaN : Number(digits);
    const last = ranges.at(-1);
    if (last !== undefined && last.stem === stem && number === last.to + 1) last.to = number;
    else ranges.push({ stem, from: number, to: number, text: name });
  }
  const said = ranges.map(({ from, to, text }) => (to > from ? `${text}-${to}` : text));
  return said.length > most ? `${said.slice(0, most).join(', ')} …` : said.join(', ');
}

/** What of a row is free, by what it takes: "gi1/2-24 · 1G RJ45 · PoE". */
export function freeText(row: readonly RowPort[]): string {
  const free = row.filter((port) => port.taken === null);
  const [first] = free;
  if (first === undefined) return 'no port is free';
  const alike = free.filter((port) => port.what === first.what);
  const others = free.length - alike.length;
  return [rangesOf(alike.map((port) => port.name)), first.what, others > 0 ? `${others} more` : '']
    .filter((part) => part !== '')
    .join(' · ');
}
