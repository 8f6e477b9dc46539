import { Wrong } from '../../exchange/listRows.ts';
import type { Network } from '../../model/network/network.ts';
import { portRange } from '../commands/portRange.ts';
import type { CableColumns, CableField } from './cableColumns.ts';

const apart = /^([^:\s]+)(?:\s*:\s*|\s+)(.+)$/;

/** Finds the port an end's text names: `device:port`, `device port`, a panel's position, or `rack U12 port`. */
export class Ends {
  private readonly found = new Map<string, string | Wrong>();

  constructor(private readonly network: Network) {}

  find(text: string): string {
    const key = text.toLowerCase();
    let result = this.found.get(key);
    if (result === undefined) {
      try {
        result = this.search(text);
      } catch (error) {
        if (!(error instanceof Wrong)) throw error;
        result = error;
      }
      this.found.set(key, result);
    }
    if (result instanceof Wrong) throw result;
    return result;
  }

  names(text: string): boolean {
    try {
      return this.find(text) !== '';
    } catch {
      return false;
    }
  }

  private search(text: string): string {
    const { network } = this;
    const racked = /^(\S+)[\s:/,-]+U\s*(\d+(?:\.5)?)[\s:/,-]+(.+)$/i.exec(text);
    const rack = racked === null ? null : network.findOne('rackByName', (racked[1] ?? '').toLowerCase());
    if (rack !== null && racked !== null) {
      const unit = Number(racked[2]);
      const device = network
        .find('devicesByRack', rack.id)
        .find((one) => one.unit !== null && one.unit <= unit && unit < one.unit + one.units);
      if (device === undefined) throw new Wrong(`nothing stands at ${rack.name} U${unit}`);
      return this.portOn(device.name, racked[3] ?? '');
    }
    const parts = partsOfEnd(text);
    if (parts === null) throw new Wrong(`“${text}” names no port: write device:port`);
    return this.portOn(parts.device, parts.port);
  }

  private portOn(deviceName: string, port: string): string {
    const { network } = this;
    const device = network.findOne('deviceByName', deviceName.toLowerCase());
    if (device === null) throw new Wrong(`there is no device ${deviceName}`);
    const exact = network.findOne('portByName', `${device.id}:${port.trim().toLowerCase()}`);
    if (exact !== null) return exact.id;
    // A bare number is a position: of a panel's front, otherwise of a port that ends in it.
    const position = /^\d+$/.test(port.trim()) && device.role === 'PP' ? `front ${port.trim()}` : port;
    const range = portRange(network, device, position);
    if (!range.ok)
      throw new Wrong(range.why.replace(/\.$/, '').replace(/^./, (first) => first.toLowerCase()));
    const [only] = range.ports;
    if (only === undefined || range.ports.length !== 1)
      throw new Wrong(`“${port}” stands for ${range.ports.length} ports of ${device.name}`);
    return only.id;
  }
}

/** A device and a port in one cell; null where it is not written like that. */
export function partsOfEnd(text: string): { device: string; port: string } | null {
  const [, device, port] = apart.exec(text) ?? [];
  return device === undefined || port === undefined ? null : { device, port: port.trim() };
}

/** What a row says of an end: the whole of it in one cell, or device and port in two. Undefined: no column holds it. */
export function endIn(
  columns: CableColumns,
  text: (field: CableField) => string,
  side: 'a' | 'b',
): { whole: string } | { device: string; port: string } | undefined {
  if (columns[`${side}End`] !== undefined) return { whole: text(`${side}End`) };
  if (columns[`${side}Device`] === undefined) return undefined;
  return { device: text(`${side}Device`), port: text(`${side}Port`) };
}
