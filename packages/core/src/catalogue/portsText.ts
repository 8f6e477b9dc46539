import { portGroupSchema, type PortGroup } from '../model/kinds/equipment/portGroup.ts';
import { connectorNames, connectors, type Connector } from '../model/values/connectors.ts';

/** Ports that a text names, or why it names none. */
export type PortsRead = { ok: true; groups: PortGroup[] } | { ok: false; why: string };

const item = /^(\d{1,3})\s*[x×]?\s*(.*?)(?:\s+(\d+(?:[.,]\d+)?)\s*([MG])(?:bit\/s|bps)?)?$/i;
/** A comma or semicolon before the next count; a comma within a figure parts nothing. */
const between = /;|,(?=\s*\d+(?:\s+|\s*[x×]\s*)[A-Za-z])/;
const most = 512;

/** The longest connector that a text is, compared without regard to case, spaces and hyphens. */
function connectorOf(text: string): Connector | null {
  const plain = (one: string): string => one.toLowerCase().replace(/[\s-]|cage$|ports?$/g, '');
  return connectorNames.find((name) => plain(name) === plain(text)) ?? null;
}

/** Inlets take power in, outlets give it (IEC 60320-1: C13 and C19 are the outlets of their pairs). */
const roleOf = (connector: Connector): PortGroup['role'] => {
  if (connectors[connector].family === 'power')
    return connector === 'C13' || connector === 'C19' ? 'powerOut' : 'powerIn';
  return connectors[connector].family === 'serial' ? 'console' : 'network';
};
const stems: Partial<Record<PortGroup['role'], string>> = { powerIn: 'psu', powerOut: 'out', console: 'con' };

/**
 * Reads "24 RJ45 1G, 4 SFP+ 10G, 2 C14" as the ports of a model. Ports that carry data are numbered on from 1 through
 * all of them, power and console are named by what they are. An empty text is a model without ports.
 */
export function readPorts(text: string): PortsRead {
  const refuse = (why: string): PortsRead => ({ ok: false, why });
  const groups: PortGroup[] = [];
  const last = new Map<string, number>();
  for (const part of text.split(between).map((one) => one.trim())) {
    if (part === '') continue;
    const [, count = '', word = '', speed, unit] = item.exec(part) ?? [];
    const connector = connectorOf(word);
    if (connector === null)
      return refuse(`“${part}” does not say how many of which connector: write 24 RJ45 1G, 4 SFP+ 10G`);
    const number = Number(count);
    const role = roleOf(connector);
    const stem = stems[role] ?? '';
    const from = (last.get(stem) ?? 0) + 1;
    const to = from + number - 1;
    if (number === 0 || to > most) return refuse(`“${part}” is not 1 to ${most} ports`);
    last.set(stem, to);
    groups.push(
      portGroupSchema.parse({
        pattern: number === 1 ? `${stem}${from}` : `${stem}${from}-${to}`,
        connector,
        speedBps:
          speed === undefined
            ? null
            : Number(speed.replace(',', '.')) * (unit?.toUpperCase() === 'M' ? 1e6 : 1e9),
        role,
        face: role === 'network' ? 'front' : 'rear',
        rows: number >= 12 && role === 'network' ? 2 : 1,
      }),
    );
  }
  return { ok: true, groups };
}
