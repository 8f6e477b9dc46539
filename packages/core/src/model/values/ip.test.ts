import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import ipaddr from 'ipaddr.js';
import {
  compareIp,
  formatIp,
  formatPrefix,
  holds,
  lastOf,
  parseInterface,
  parseIp,
  prefixAround,
  readPrefix,
  sizeOf,
  usable,
  type IpAddress,
  type IpPrefix,
} from './ip.ts';
import { runs } from '../../testing/testRuns.ts';

const v4 = fc.bigInt({ min: 0n, max: 2n ** 32n - 1n }).map((value): IpAddress => ({ family: 4, value }));
/** Addresses with many zero groups, where the short forms differ most. */
const v6 = fc
  .array(fc.oneof(fc.constant(0), fc.integer({ min: 0, max: 0xffff })), { minLength: 8, maxLength: 8 })
  .map((groups): IpAddress => ({
    family: 6,
    value: groups.reduce((value, one) => (value << 16n) | BigInt(one), 0n),
  }));
const any = fc.oneof(v4, v6);

const bytes = ({ family, value }: IpAddress): number[] =>
  Array.from({ length: family === 4 ? 4 : 16 }, (_, at, count = family === 4 ? 4 : 16) =>
    Number((value >> BigInt((count - 1 - at) * 8)) & 255n),
  );
const must = (text: string): IpPrefix => {
  const read = readPrefix(text);
  if (!read.ok) throw new Error(read.reason);
  return read.prefix;
};

describe('text of addresses, against a second library', () => {
  test('property: what we write, the other reads as the same bytes, and writes the same', () => {
    fc.assert(
      fc.property(any, (address) => {
        const text = formatIp(address);
        const theirs = ipaddr.parse(text);
        expect(theirs.toByteArray()).toEqual(bytes(address));
        if (address.family === 4) expect(theirs.toString()).toBe(text);
        else expect((theirs as ipaddr.IPv6).toRFC5952String()).toBe(text);
      }),
      { numRuns: runs(500) },
    );
  });

  test('property: every form the other writes is read as the same address', () => {
    fc.assert(
      fc.property(any, (address) => {
        const theirs = ipaddr.fromByteArray(bytes(address));
        for (const text of [theirs.toString(), theirs.toNormalizedString()])
          expect(parseIp(text)).toEqual(address);
      }),
      { numRuns: runs(500) },
    );
  });

  test.each([
    ['2001:0db8:0:0:0:0:2:1', '2001:db8::2:1'],
    ['2001:db8:0:1:1:1:1:1', '2001:db8:0:1:1:1:1:1'],
    ['2001:0:0:1:0:0:0:1', '2001:0:0:1::1'],
    ['2001:DB8::AbC', '2001:db8::abc'],
    ['::', '::'],
    ['::ffff:192.0.2.1', '::ffff:c000:201'],
  ])('%s is written %s (RFC 5952 section 4)', (given, canonical) => {
    const address = parseIp(given);
    expect(address === null ? null : formatIp(address)).toBe(canonical);
  });

  test.each([
    '10.40.8',
    '10.40.8.256',
    '010.1.1.1',
    '1.2.3.4.5',
    ' 10.0.0.1',
    '1:2:3:4:5:6:7',
    '1::2::3',
    '12345::',
    'fe80::1%eth0',
    '1:2:3:4:5:6:7:8::',
    '::1.2.3',
    '',
  ])('“%s” is no address', (text) => {
    expect(parseIp(text)).toBeNull();
  });
});

describe('prefixes', () => {
  test('an address given as a prefix is told with what was meant', () => {
    expect(readPrefix('10.40.8.1/22')).toEqual({
      ok: false,
      reason:
        'is an address inside 10.40.8.0/22, not a prefix: its bits after /22 are not 0. Write 10.40.8.0/22',
    });
    expect(readPrefix('10.40.8.0/33').ok).toBe(false);
    expect(readPrefix('10.40.8.0').ok).toBe(false);
  });

  test('a /22 has 1,024 addresses, 1,022 for hosts; a /31 two, a /127 two, a /64 all but the first', () => {
    expect(sizeOf(must('10.40.8.0/22'))).toBe(1024n);
    expect(usable(must('10.40.8.0/22')).count).toBe(1022n);
    expect(usable(must('10.43.0.0/31')).count).toBe(2n);
    expect(usable(must('10.43.255.1/32')).count).toBe(1n);
    expect(usable(must('2001:db8::/127')).count).toBe(2n);
    expect(usable(must('2001:db8::/64')).count).toBe(2n ** 64n - 1n);
  });

  test('property: a prefix holds its first and last address, and not those beside it', () => {
    fc.assert(
      fc.property(any, fc.nat({ max: 128 }), (address, wish) => {
        const prefix = prefixAround(address, address.family === 4 ? wish % 33 : wish);
        const last = lastOf(prefix);
        expect(holds(prefix, address)).toBe(true);
        expect(holds(prefix, last)).toBe(true);
        if (prefix.length > 0) expect(holds(prefix, { ...last, value: last.value + 1n })).toBe(false);
        if (prefix.value > 0n) expect(holds(prefix, { ...prefix, value: prefix.value - 1n })).toBe(false);
        expect(must(formatPrefix(prefix))).toEqual(prefix);
      }),
    );
  });

  test('order: IPv4 first, then by address, the larger block before those inside it', () => {
    const texts = ['2001:db8::/32', '10.0.0.0/8', '10.0.0.0/16', '9.0.0.0/8'];
    expect(texts.map(must).sort(compareIp).map(formatPrefix)).toEqual([
      '9.0.0.0/8',
      '10.0.0.0/8',
      '10.0.0.0/16',
      '2001:db8::/32',
    ]);
  });

  test('an interface carries an address and a length; without one it is a host', () => {
    expect(parseInterface('10.40.8.1/22')).toMatchObject({ length: 22 });
    expect(parseInterface('10.40.8.1')).toMatchObject({ length: 32 });
    expect(parseInterface('10.40.8.1/-1')).toBeNull();
    expect(parseInterface('2001:db8::1/129')).toBeNull();
  });
});
