import { create, remove, update, type Change } from '../../change/change.ts';
import { judged, type Attempt } from '../../commands/attempt.ts';
import {
  recordTypes,
  valueFault,
  type DnsRecord,
  type DnsZone,
  type RecordType,
} from '../../model/kinds/cloud/dns.ts';
import { newId } from '../../model/values/ids.ts';
import { formatIp, parseIp } from '../../model/values/ip.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { isOneOf } from '../../model/values/words.ts';

/** A record as a file has it: its name within the zone, `@` for the zone itself. */
export type ZoneRecord = Pick<DnsRecord, 'name' | 'type' | 'value' | 'ttlS'>;
export interface ZoneFault {
  line: number;
  why: string;
}
export interface ZoneRead {
  records: ZoneRecord[];
  /** What cannot be taken, by line; the rest can. */
  faults: ZoneFault[];
  /** Kinds of record that are left to the name server itself, such as SOA. */
  left: number;
}

interface Token {
  text: string;
  quoted: boolean;
}
interface Entry {
  line: number;
  /** Whether the line begins with a space: the name is that of the entry before (RFC 1035, 5.1). */
  indented: boolean;
  tokens: Token[];
}

/** The entries of a master file: comments left out, lines in brackets joined (RFC 1035, section 5.1). */
function entriesOf(text: string): { entries: Entry[]; faults: ZoneFault[] } {
  const entries: Entry[] = [];
  const faults: ZoneFault[] = [];
  const unclosed: Entry[] = [];
  let depth = 0;
  text.split(/\r?\n/).forEach((raw, at) => {
    const line = at + 1;
    const entry: Entry = unclosed.pop() ?? { line, indented: /^[ \t]/.test(raw), tokens: [] };
    const pattern = /"((?:[^"\\]|\\.)*)"|(;.*$)|([()])|([^\s;()"]+)|(")/g;
    for (const match of raw.matchAll(pattern)) {
      const [, quoted, comment, bracket, word, stray] = match;
      if (comment !== undefined) break;
      if (stray !== undefined) {
        faults.push({ line, why: 'holds a quotation mark without another' });
        break;
      }
      if (bracket === '(') depth++;
      else if (bracket === ')') depth = Math.max(0, depth - 1);
      else if (quoted !== undefined)
        entry.tokens.push({ text: quoted.replace(/\\(.)/g, '$1'), quoted: true });
      else if (word !== undefined) entry.tokens.push({ text: word, quoted: false });
    }
    if (depth > 0) {
      unclosed.push(entry);
      return;
    }
    if (entry.tokens.length > 0) entries.push(entry);
  });
  for (const { line } of unclosed) faults.push({ line, why: 'opens a bracket that is never closed' });
  return { entries, faults };
}

const units: Readonly<Record<string, number>> = { s: 1, m: 60, h: 3600, d: 86400, w: 604800 };
/** Seconds, also as `1h30m`; null where it is no time. */
function secondsOf(text: string): number | null {
  if (/^\d+$/.test(text)) return Number(text);
  const parts = [...text.toLowerCase().matchAll(/(\d+)([smhdw])/g)];
  if (parts.length === 0 || parts.map(([part]) => part).join('') !== text.toLowerCase()) return null;
  return parts.reduce((sum, [, count, unit]) => sum + Number(count) * (units[unit ?? 's'] ?? 1), 0);
}

/** Types that a name server makes itself, or that say nothing of hosts. */
const leftAlone = ['SOA', 'DNSKEY', 'RRSIG', 'NSEC', 'NSEC3', 'NSEC3PARAM', 'DS', 'CDS', 'CDNSKEY'];

const lower = (text: string): string => text.toLowerCase();
const absolute = (name: string, origin: string): string =>
  name === '@' ? origin : name.endsWith('.') ? lower(name) : lower(`${name}.${origin}`);

/** A name within the zone; null where it lies outside. */
function within(name: string, zone: string): string | null {
  if (name === `${zone}.`) return '@';
  return name.endsWith(`.${zone}.`) ? name.slice(0, -zone.length - 2) : null;
}

/** What a record says, with names written out and addresses in their one text. */
function valueOf(type: RecordType, tokens: readonly Token[], origin: string): string {
  const texts = tokens.map(({ text }) => text);
  if (type === 'TXT') return texts.join('');
  const address = parseIp(texts[0] ?? '');
  if ((type === 'A' || type === 'AAAA') && address !== null) return formatIp(address);
  const last = texts.at(-1);
  if (last === undefined || type === 'A' || type === 'AAAA') return texts.join(' ');
  return [...texts.slice(0, -1), absolute(last, origin)].join(' ');
}

/**
 * Reads a master file of a zone (RFC 1035, section 5): `$ORIGIN` and `$TTL` (RFC 2308), names relative and absolute,
 * those left out, brackets, comments and quoted texts. What cannot be taken is told by line, and the rest is read.
 */
export function readZoneFile(zone: string, text: string): ZoneRead {
  const { entries, faults } = entriesOf(text);
  const records: ZoneRecord[] = [];
  let origin = `${lower(zone)}.`;
  let owner = origin;
  let ttlS: number | null = null;
  let left = 0;
  for (const { line, indented, tokens } of entries) {
    const fault = (why: string): void => void faults.push({ line, why });
    const words = [...tokens];
    const [first] = words;
    if (first !== undefined && !first.quoted && first.text.startsWith('$')) {
      const name = first.text.toUpperCase();
      const value = words[1]?.text ?? '';
      const seconds = secondsOf(value);
      if (name === '$ORIGIN') origin = absolute(value, origin);
      else if (name === '$TTL' && seconds !== null) ttlS = seconds;
      else fault(`${first.text} ${value} cannot be read`.trim());
      continue;
    }
    if (!indented) owner = absolute(words.shift()?.text ?? '@', origin);
    let own: number | null = ttlS;
    while (words[0] !== undefined && !isType(words[0].text)) {
      const word = words.shift()?.text ?? '';
      const seconds = secondsOf(word);
      if (seconds !== null) own = seconds;
      else if (word.toUpperCase() !== 'IN') {
        fault(`“${word}” is no type of record that is known`);
        words.length = 0;
      }
    }
    const type = words.shift()?.text.toUpperCase();
    if (type === undefined) {
      if (faults.at(-1)?.line !== line) fault('says no type of record');
      continue;
    }
    if (!isOneOf(recordTypes, type)) {
      left++;
      continue;
    }
    const name = within(owner, lower(zone));
    const value = valueOf(type, words, origin);
    const why = valueFault(type, value);
    if (name === null) fault(`${owner} is outside of ${zone}`);
    else if (why !== null) fault(`the ${type} of ${name}, “${value}”, ${why}`);
    else records.push({ name, type, value, ttlS: own });
  }
  return { records, faults: faults.sort((a, b) => a.line - b.line), left };
}
const isType = (text: string): boolean =>
  isOneOf(recordTypes, text.toUpperCase()) || isOneOf(leftAlone, text.toUpperCase());

/** The records of a zone, by name, the zone itself first, then by type and value. */
export const recordsOf = (network: Network, zoneId: string): DnsRecord[] =>
  network
    .find('recordsByZone', zoneId)
    .sort(
      (a, b) =>
        Number(b.name === '@') - Number(a.name === '@') ||
        compareNames(a.name, b.name) ||
        compareNames(a.type, b.type) ||
        compareNames(a.value, b.value),
    );

const quotedText = (value: string): string =>
  // A text of a TXT record holds 255 bytes at most; longer ones are several (RFC 1035, 3.3.14).
  (value.match(/[\s\S]{1,255}/g) ?? ['']).map((part) => `"${part.replace(/(["\\])/g, '\\$1')}"`).join(' ');

/**
 * A zone with its records as a master file that a name server loads. Its servers are its own NS records; where it has
 * none the file names `ns.invalid` (RFC 2606) and says so.
 */
export function zoneAsFile(network: Network, zone: DnsZone, serial: number): string {
  const records = recordsOf(network, zone.id);
  const servers = records.filter(({ name, type }) => name === '@' && type === 'NS');
  const [first] = servers;
  return [
    `$ORIGIN ${zone.name}.`,
    `$TTL ${zone.ttlS}`,
    ...(first === undefined
      ? ['; The zone has no NS record: put the name of its server in place of ns.invalid.']
      : []),
    `@\tIN\tSOA\t${first?.value ?? 'ns.invalid.'} hostmaster.${zone.name}. ${serial} 7200 900 1209600 3600`,
    ...(first === undefined ? ['@\tIN\tNS\tns.invalid.'] : []),
    ...records.map(({ name, type, value, ttlS }) =>
      [
        name,
        ...(ttlS === null ? [] : [String(ttlS)]),
        'IN',
        type,
        type === 'TXT' ? quotedText(value) : value,
      ].join('\t'),
    ),
    '',
  ].join('\n');
}

/** What taking in a file of a zone comes to: records added, changed in their time to live, and gone if that is wished. */
export function takeInZone(
  network: Network,
  zone: DnsZone,
  records: readonly ZoneRecord[],
  { removes }: { removes: boolean },
): Attempt {
  const key = ({ name, type, value }: ZoneRecord): string => `${lower(name)} ${type} ${value}`;
  const there = new Map(recordsOf(network, zone.id).map((row) => [key(row), row]));
  const wanted = new Map(records.map((one) => [key(one), one]));
  const changes: (Change | null)[] = [];
  for (const [at, one] of wanted) {
    // The usual time of the zone need not stand at each record.
    const ttlS = one.ttlS === zone.ttlS ? null : one.ttlS;
    const row = there.get(at);
    changes.push(
      row === undefined
        ? create('dnsRecord', { ...one, ttlS, id: newId(), zoneId: zone.id })
        : update('dnsRecord', row, { ttlS }),
    );
  }
  if (removes) for (const [at, row] of there) if (!wanted.has(at)) changes.push(remove('dnsRecord', row));
  const count = changes.filter((change) => change !== null).length;
  return judged(network, changes, `Took in ${count} ${count === 1 ? 'record' : 'records'} of ${zone.name}`);
}
