import { formatIp, type IpAddress, type IpPrefix } from '../../model/values/ip.ts';

/**
 * The part of an address that its prefix leaves open: `.1` in a /24 or longer, `.8.1` in a /22; of IPv6 what stands
 * behind the last whole group of the prefix, `::2`.
 */
export function hostPart(address: IpAddress, prefix: IpPrefix): string {
  if (address.family === 4) {
    const octets = formatIp(address).split('.');
    return `.${octets.slice(Math.min(3, Math.floor(prefix.length / 8))).join('.')}`;
  }
  const open = 128 - Math.min(112, Math.floor(prefix.length / 16) * 16);
  return formatIp({ family: 6, value: address.value & ((1n << BigInt(open)) - 1n) });
}
