import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../testing/testRuns.ts';
import { addressBlock, blockKey } from './addressBlock.ts';
import { formatIp, hostNumber, parseInterface } from './ip.ts';

const v4 = fc.record({
  family: fc.constant(4 as const),
  value: fc.bigInt({ min: 0n, max: (1n << 32n) - 1n }),
});
const v6 = fc.record({
  family: fc.constant(6 as const),
  value: fc.bigInt({ min: 0n, max: (1n << 128n) - 1n }),
});

test('property: the block that is cut from the text of an address is the one that its number lies in', () => {
  fc.assert(
    fc.property(fc.oneof(v4, v6), fc.nat(32), fc.constantFrom(null, 'ops'), (address, length, vrfId) => {
      const row = { address: `${formatIp(address)}/${length}`, vrfId };
      expect(parseInterface(row.address)?.address).toEqual(address);
      expect(addressBlock(row)).toBe(blockKey(vrfId, address));
    }),
    { numRuns: runs(300) },
  );
});

test('property: a host of IPv4 is the number of its bits', () => {
  fc.assert(
    fc.property(fc.oneof(v4, v6), fc.nat(32), (address, length) => {
      const wanted = address.family === 4 ? Number(address.value) : null;
      expect(hostNumber(`${formatIp(address)}/${length}`)).toBe(wanted);
      expect(hostNumber(formatIp(address))).toBe(wanted);
    }),
    { numRuns: runs(300) },
  );
  for (const text of ['', '10.1.2/8', '10..2.3/8', '10.1.2.256/8', '10.1.2.3.4/8', 'x'])
    expect(hostNumber(text)).toBeNull();
});

test.each(['', '10.1.2', '10.1.2.3.4/24', 'fe80::/x'])('%j is in no block', (address) => {
  expect(addressBlock({ address, vrfId: null })).toBeNull();
});
