import { formatPrefix, parseInterface, prefixAround, type IpAddress } from './ip.ts';

/** Addresses are kept together by blocks of this length: 256 of IPv4, one /64 of IPv6. */
export const blockLength = { 4: 24, 6: 64 } as const;

export const blockKey = (vrfId: string | null, at: IpAddress): string =>
  `${vrfId ?? 'global'} ${formatPrefix(prefixAround(at, blockLength[at.family]))}`;

/** IPv4 as rows have it, with the length of its prefix. */
const plain = /^((?:0|[1-9]\d{0,2})\.(?:0|[1-9]\d{0,2})\.(?:0|[1-9]\d{0,2})\.)(?:0|[1-9]\d{0,2})\//;

/** The block of a VRF that an address is in. */
export function addressBlock(row: { address: string; vrfId: string | null }): string | null {
  // A million of them are cut from their text: only what is odd is read as numbers.
  const start = plain.exec(row.address)?.[1];
  if (start !== undefined) return `${row.vrfId ?? 'global'} ${start}0/24`;
  const read = parseInterface(row.address);
  return read === null ? null : blockKey(row.vrfId, read.address);
}
