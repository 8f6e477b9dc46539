/** An IPv4 or IPv6 address as a number. */
export interface IpAddress {
  family: 4 | 6;
  value: bigint;
}
/** A block of addresses (RFC 4632 section 3.1): `value` is its first, all bits after `length` are 0. */
export interface IpPrefix extends IpAddress {
  length: number;
}

export const bitsOf = (family: 4 | 6): 32 | 128 => (family === 4 ? 32 : 128);

const octet = /^(0|[1-9][0-9]{0,2})$/;

function parseV4(text: string): bigint | null {
  const parts = text.split('.');
  if (parts.length !== 4) return null;
  let value = 0;
  for (const part of parts) {
    const number = octet.test(part) ? Number(part) : 256;
    if (number > 255) return null;
    value = value * 256 + number;
  }
  return BigInt(value);
}

const group = /^[0-9a-f]{1,4}$/i;

/** The 16-bit groups of one side of a `::`, an embedded IPv4 address at the end included (RFC 4291 section 2.2). */
function groupsOf(text: string): number[] | null {
  if (text === '') return [];
  const groups: number[] = [];
  const parts = text.split(':');
  for (const [at, part] of parts.entries()) {
    if (at === parts.length - 1 && part.includes('.')) {
      const v4 = parseV4(part);
      if (v4 === null) return null;
      groups.push(Number(v4 >> 16n), Number(v4 & 0xffffn));
    } else if (group.test(part)) groups.push(Number.parseInt(part, 16));
    else return null;
  }
  return groups;
}

function parseV6(text: string): bigint | null {
  const halves = text.split('::');
  if (halves.length > 2) return null;
  const head = groupsOf(halves[0] ?? '');
  const tail = halves[1] === undefined ? [] : groupsOf(halves[1]);
  if (head === null || tail === null) return null;
  const missing = 8 - head.length - tail.length;
  if (halves.length === 1 ? missing !== 0 : missing < 1) return null;
  const groups = [...head, ...Array.from({ length: missing }, () => 0), ...tail];
  return groups.reduce((value, one) => (value << 16n) | BigInt(one), 0n);
}

/** An address from its text: four decimal numbers, or IPv6 in any form of RFC 4291. Null: it is none. */
export function parseIp(text: string): IpAddress | null {
  if (!text.includes(':')) {
    const value = parseV4(text);
    return value === null ? null : { family: 4, value };
  }
  const value = parseV6(text);
  return value === null ? null : { family: 6, value };
}

/** Start and end of the longest run of at least two zero groups; the first of equals (RFC 5952 section 4.2.3). */
function longestZeros(groups: readonly number[]): [from: number, to: number] {
  let best: [number, number] = [0, 0];
  for (let from = 0; from < groups.length; from++) {
    let to = from;
    while (groups[to] === 0) to++;
    if (to - from >= 2 && to - from > best[1] - best[0]) best = [from, to];
    from = Math.max(from, to - 1);
  }
  return best;
}

/** The one text of an address: dotted decimals, or IPv6 after RFC 5952. */
export function formatIp({ family, value }: IpAddress): string {
  if (family === 4) {
    const number = Number(value);
    return `${number >>> 24}.${(number >>> 16) & 255}.${(number >>> 8) & 255}.${number & 255}`;
  }
  const groups = Array.from({ length: 8 }, (_, at) => Number((value >> BigInt(112 - at * 16)) & 0xffffn));
  const hex = (part: readonly number[]): string => part.map((one) => one.toString(16)).join(':');
  const [from, to] = longestZeros(groups);
  return to === from ? hex(groups) : `${hex(groups.slice(0, from))}::${hex(groups.slice(to))}`;
}

const widths = { 4: 32n, 6: 128n } as const;

/** The bits of an address that a prefix of this length keeps. */
export const maskOf = (family: 4 | 6, length: number): bigint =>
  ((1n << BigInt(length)) - 1n) << (widths[family] - BigInt(length));

export const prefixAround = ({ family, value }: IpAddress, length: number): IpPrefix => ({
  family,
  value: value & maskOf(family, length),
  length,
});

export const formatPrefix = (prefix: IpPrefix): string => `${formatIp(prefix)}/${prefix.length}`;

/** The host of an IPv4 interface (`10.40.8.1/22`) as a number below 2^32; null for anything else. */
export function hostNumber(text: string): number | null {
  let value = 0;
  let octet = -1;
  let dots = 0;
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code >= 48 && code <= 57) octet = (octet < 0 ? 0 : octet) * 10 + code - 48;
    else if (code === 46 && octet >= 0 && octet < 256) {
      value = value * 256 + octet;
      octet = -1;
      dots++;
    } else return code === 47 && dots === 3 && octet >= 0 && octet < 256 ? value * 256 + octet : null;
  }
  return dots === 3 && octet >= 0 && octet < 256 ? value * 256 + octet : null;
}

/** An address with the length of the prefix it is in, as interfaces carry it: `10.40.8.1/22`. */
export function parseInterface(text: string): { address: IpAddress; length: number } | null {
  const slash = text.indexOf('/');
  const address = parseIp(slash < 0 ? text : text.slice(0, slash));
  if (address === null) return null;
  if (slash < 0) return { address, length: bitsOf(address.family) };
  const digits = text.slice(slash + 1);
  const length = /^(0|[1-9][0-9]{0,2})$/.test(digits) ? Number(digits) : 999;
  return length > bitsOf(address.family) ? null : { address, length };
}

export type PrefixRead = { ok: true; prefix: IpPrefix } | { ok: false; reason: string };

/** A prefix from its text; where an address inside one was given, the reason says which prefix was meant. */
export function readPrefix(text: string): PrefixRead {
  const read = text.includes('/') ? parseInterface(text) : null;
  if (read === null) return { ok: false, reason: 'is not a prefix such as 10.40.8.0/22 or 2001:db8:40::/48' };
  const prefix = prefixAround(read.address, read.length);
  if (prefix.value === read.address.value) return { ok: true, prefix };
  const meant = formatPrefix(prefix);
  return {
    ok: false,
    reason: `is an address inside ${meant}, not a prefix: its bits after /${read.length} are not 0. Write ${meant}`,
  };
}

/** A prefix whose text is known to be good, such as that of a row; null otherwise. */
export function parsePrefix(text: string): IpPrefix | null {
  const read = readPrefix(text);
  return read.ok ? read.prefix : null;
}

/** Whether the first holds all of the second, or is it. */
export const holds = (outer: IpPrefix, inner: IpPrefix | IpAddress): boolean => {
  const length = 'length' in inner ? inner.length : bitsOf(inner.family);
  return (
    outer.family === inner.family &&
    outer.length <= length &&
    (inner.value & maskOf(outer.family, outer.length)) === outer.value
  );
};
export const overlaps = (a: IpPrefix, b: IpPrefix): boolean => holds(a, b) || holds(b, a);

/** How many addresses a prefix has. */
export const sizeOf = ({ family, length }: IpPrefix): bigint => 1n << (widths[family] - BigInt(length));
export const lastOf = (prefix: IpPrefix): IpAddress => ({
  family: prefix.family,
  value: prefix.value + sizeOf(prefix) - 1n,
});

/**
 * Addresses that hosts can have. IPv4: without the network and the broadcast address (RFC 1122 section 3.2.1.3),
 * except in a /31 (RFC 3021) and a /32. IPv6: all but the subnet-router anycast address, which is the first
 * (RFC 4291 section 2.6.1), except in a /127 (RFC 6164) and a /128.
 */
export function usable(prefix: IpPrefix): { first: bigint; last: bigint; count: bigint } {
  const last = lastOf(prefix).value;
  const whole = prefix.length >= bitsOf(prefix.family) - 1;
  const from = whole ? prefix.value : prefix.value + 1n;
  const to = whole || prefix.family === 6 ? last : last - 1n;
  return { first: from, last: to, count: to - from + 1n };
}

/** Order by family, then by first address, then the larger block first. */
export function compareIp(a: IpAddress & { length?: number }, b: IpAddress & { length?: number }): number {
  if (a.family !== b.family) return a.family - b.family;
  if (a.value !== b.value) return a.value < b.value ? -1 : 1;
  return (a.length ?? 128) - (b.length ?? 128);
}

const space = (text: string): IpPrefix => {
  const prefix = parsePrefix(text);
  if (prefix === null) throw new Error(`${text} is no prefix.`);
  return prefix;
};
/** IPv4 space for use inside a house: RFC 1918, and the shared space of RFC 6598. */
export const privateSpace: readonly IpPrefix[] = [
  '10.0.0.0/8',
  '172.16.0.0/12',
  '192.168.0.0/16',
  '100.64.0.0/10',
].map(space);
/** All addresses of a family. */
export const everywhere = { 4: space('0.0.0.0/0'), 6: space('::/0') } as const;
