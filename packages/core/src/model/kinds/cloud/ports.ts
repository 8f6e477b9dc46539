import { z } from 'zod';
import { noted } from '../../fields/field.ts';

/** Protocols that rules tell apart, with their numbers (IANA protocol numbers). */
export const protocolNumbers = {
  any: null,
  TCP: 6,
  UDP: 17,
  ICMP: 1,
  ICMPv6: 58,
  SCTP: 132,
  GRE: 47,
  ESP: 50,
  AH: 51,
} as const;
export const protocols = ['any', 'TCP', 'UDP', 'ICMP', 'ICMPv6', 'SCTP', 'GRE', 'ESP', 'AH'] as const;
export type Protocol = (typeof protocols)[number];
/** Those that have ports. */
export const transportProtocols = ['TCP', 'UDP', 'SCTP'] as const;
export const hasPorts = (protocol: Protocol): boolean => transportProtocols.some((one) => one === protocol);

/** A run of ports, both ends included. */
export interface PortRange {
  from: number;
  to: number;
}
export const highestPort = 65535;
export const allPorts: PortRange = { from: 0, to: highestPort };

/** Why a text is no list of ports; the list in order where it is one. */
export type PortsRead = { ok: true; ranges: PortRange[] } | { ok: false; reason: string };

/** Reads `443`, `80, 443` or `8000-8100`. */
export function readPorts(text: string): PortsRead {
  const ranges: PortRange[] = [];
  for (const part of text.split(',').map((one) => one.trim())) {
    const [from, to, more] = part.split('-').map((one) => one.trim());
    if (
      from === undefined ||
      !/^\d+$/.test(from) ||
      (to !== undefined && !/^\d+$/.test(to)) ||
      more !== undefined
    )
      return {
        ok: false,
        reason: `hold “${part}”, which is not a port such as 443 or a range such as 8000-8100`,
      };
    const range = { from: Number(from), to: Number(to ?? from) };
    if (range.to > highestPort) return { ok: false, reason: `hold ${range.to}: ports end at ${highestPort}` };
    if (range.from > range.to) return { ok: false, reason: `hold ${part}, which runs backwards` };
    ranges.push(range);
  }
  return { ok: true, ranges: joined(ranges) };
}

/** In order, with what touches or overlaps made one. */
function joined(ranges: readonly PortRange[]): PortRange[] {
  const found: PortRange[] = [];
  for (const range of [...ranges].sort((a, b) => a.from - b.from)) {
    const last = found.at(-1);
    if (last !== undefined && range.from <= last.to + 1) last.to = Math.max(last.to, range.to);
    else found.push({ ...range });
  }
  return found;
}

export const portsText = (ranges: readonly PortRange[]): string =>
  ranges.map(({ from, to }) => (from === to ? `${from}` : `${from}-${to}`)).join(', ');

/** Ports in their one text, or null for all. */
export const portsField = noted(
  z
    .string()
    .max(200, 'are longer than 200 characters')
    .superRefine((text, context) => {
      const read = readPorts(text);
      if (!read.ok) return context.addIssue({ code: 'custom', message: read.reason });
      const canonical = portsText(read.ranges);
      if (canonical !== text) context.addIssue({ code: 'custom', message: `are to be written ${canonical}` });
    })
    .nullable(),
  { label: 'Ports', help: 'Such as 443, or 8000-8100; empty for all' },
);
