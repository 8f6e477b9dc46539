import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { findAddress, nextFreeAddress, useOf } from '../plan.ts';
import { applyChanges } from '../../change/apply.ts';
import { ladderOf } from '../projection/ladder.ts';
import { readExchange } from '../../exchange/read.ts';
import { formatIp, formatPrefix, parseIp, parsePrefix, type IpPrefix } from '../../model/values/ip.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import { newProject } from '../../model/kinds/sites/project.ts';
import { Network } from '../../model/network/network.ts';
import { foundIn } from '../../testing/testFindings.ts';
import { switched } from '../../testing/testSwitching.ts';
import { lengthForHosts } from '../sizeWish.ts';
import { addPrefix, gatewayBy } from './allocate.ts';
import {
  deletePrefix,
  giveAddress,
  mergePrefix,
  nextFreePrefix,
  offersIn,
  splitPrefix,
} from './addressing.ts';
import type { Attempt } from '../../commands/attempt.ts';

const file: unknown = JSON.parse(
  readFileSync(new URL('../../../../../demo/marrow-sound-ferries.json', import.meta.url), 'utf8'),
);
const read = readExchange(Network.of({ project: [newProject('Demo')] }), file);
if (!read.ok) throw new Error(read.problems[0]?.message);
const demo = read.network;
const ops = demo.findOne('vrfByName', 'ops')?.id ?? '';
const row = (network: Network, text: string): Prefix => {
  const found = network.find('prefixesByVrf', ops).find((one) => one.prefix === text);
  if (found === undefined) throw new Error(text);
  return found;
};
const done = (network: Network, attempt: Attempt): Network => {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};
const why = (attempt: Attempt): string => (attempt.ok ? `done: ${attempt.set.sentence}` : attempt.why);
const said = (prefix: IpPrefix | null): string => (prefix === null ? 'none' : formatPrefix(prefix));
const at = (text: string): IpPrefix => {
  const prefix = parsePrefix(text);
  if (prefix === null) throw new Error(text);
  return prefix;
};

describe('room in the plan of the ferries', () => {
  test('the next /24 and /19 of Kelder Quay and the mainland', () => {
    expect(said(nextFreePrefix(demo, row(demo, '10.40.0.0/19'), 24))).toBe('10.40.1.0/24');
    expect(said(nextFreePrefix(demo, row(demo, '10.40.0.0/16'), 19))).toBe('10.40.64.0/19');
    expect(said(nextFreePrefix(demo, row(demo, '10.40.0.0/19'), 22))).toBe('10.40.12.0/22');
    expect(said(nextFreePrefix(demo, row(demo, '10.40.0.0/19'), 18))).toBe('none');
  });

  test('with room to grow the neighbour is free too', () => {
    const grown = nextFreePrefix(demo, row(demo, '10.40.0.0/19'), 24, { growth: true });
    expect(said(grown)).toBe('10.40.6.0/24');
    const after = done(demo, addPrefix(demo, { prefix: '10.40.6.0/24', vrfId: ops }));
    expect(said(nextFreePrefix(after, row(after, '10.40.0.0/19'), 24, { growth: true }))).toBe(
      '10.40.12.0/24',
    );
  });

  test('500 hosts need a /23, 510 too, 511 a /22', () => {
    expect([500, 510, 511, 2, 1].map((hosts) => lengthForHosts(4, hosts))).toEqual([23, 23, 22, 30, 30]);
  });

  test('a free /22 offers one of 1,022 hosts, two of 510, four of 254', () => {
    expect(
      offersIn(at('10.40.36.0/22'), 3).map((offer) => [offer.count, offer.length, Number(offer.hosts)]),
    ).toEqual([
      [1, 22, 1022],
      [2, 23, 510],
      [4, 24, 254],
    ]);
  });

  test('gateway by convention', () => {
    expect([
      gatewayBy('first', at('10.1.0.0/24')),
      gatewayBy('last', at('10.1.0.0/24')),
      gatewayBy('first', at('2001:db8::/64')),
    ]).toEqual(['10.1.0.1', '10.1.0.254', '2001:db8::1']);
  });
});

describe('addresses', () => {
  test('the next free one passes the gateway, what is given, and the DHCP range', () => {
    const next = (text: string): string => {
      const found = nextFreeAddress(demo, row(demo, text));
      return found === null ? 'none' : formatIp(found);
    };
    expect(next('10.40.8.0/22')).toBe('10.40.8.4');
    expect(next('10.43.0.0/31')).toBe('none');
    expect(next('10.43.255.0/24')).toBe('10.43.255.11');
    expect(next('10.40.3.0/24')).toBe('10.40.3.4');
  });

  test('giving the forgotten camera its address mends fault 11', () => {
    const camera = demo.findOne('deviceByName', 'kq-cam-14');
    const port = demo.findOne('portByName', `${camera?.id ?? ''}:eth0`);
    if (port === null) throw new Error('no port');
    const after = done(demo, giveAddress(demo, row(demo, '10.40.3.0/24'), port));
    expect(foundIn(after).map((one) => one.rule)).not.toContain('no-management-address');
    expect(why(giveAddress(demo, row(demo, '10.40.0.0/19'), port))).toContain('is a pool');
    expect(why(giveAddress(demo, row(demo, '10.43.0.0/31'), port))).toContain('is full');
  });

  test('an address is found with its prefix, in every VRF that knows it', () => {
    const ip = parseIp('10.40.8.11');
    const found = ip === null ? [] : findAddress(demo, ip);
    expect(found.map((one) => [one.prefix?.prefix, one.addresses.length])).toEqual([['10.40.8.0/22', 1]]);
  });

  test('how full: Kelder Quay is a quarter taken; a /31 with both ends is full', () => {
    expect(useOf(demo, row(demo, '10.40.0.0/19'))).toEqual({ taken: 5, share: 0.25 });
    expect(useOf(demo, row(demo, '10.43.0.0/31')).share).toBe(1);
  });
});

describe('what cannot be is told with the numbers', () => {
  const add = (prefix: string, more: object = {}) => why(addPrefix(demo, { prefix, vrfId: ops, ...more }));
  test.each([
    ['10.40.8.1/22', '“10.40.8.1/22” is an address inside 10.40.8.0/22'],
    ['10.40.8.0/22', '10.40.8.0/22 is in ops already: Operations, Kelder Quay'],
    ['10.40.9.0/24', '10.40.9.0/24 lies inside 10.40.8.0/22 Operations, Kelder Quay, a subnet'],
    ['10.40.0.0/21', '10.40.0.0/21 would overlap 10.40.0.0/24 Management, Kelder Quay and 3 more'],
    ['fe80::/64', 'is link-local'],
    ['ten', '“ten” is not a prefix'],
  ])('%s', (prefix, reason) => {
    expect(add(prefix)).toContain(reason);
  });

  test('the same as a pool around them is welcome, and in the other VRF all is free', () => {
    expect(add('10.40.0.0/21', { role: 'pool' })).toContain('done: Added pool 10.40.0.0/21');
    expect(why(addPrefix(demo, { prefix: '10.40.8.0/22', vrfId: null, role: 'transit' }))).toContain('done');
  });
});

describe('split, join, delete', () => {
  test('a split and joined again is what it was', () => {
    const split = done(demo, splitPrefix(demo, row(demo, '10.40.35.0/25')));
    expect(row(split, '10.40.35.0/26').gateway).toBe('10.40.35.1');
    expect(row(split, '10.40.35.64/26').vlanId).toBe(row(split, '10.40.35.0/26').vlanId);
    const joined = done(split, mergePrefix(split, row(split, '10.40.35.0/26')));
    expect(row(joined, '10.40.35.0/25')).toEqual(row(demo, '10.40.35.0/25'));
    expect(joined.count('prefix')).toBe(demo.count('prefix'));
  });

  test('a range in the second half, an unlike neighbour, a pool too small: refused', () => {
    expect(why(splitPrefix(demo, row(demo, '10.40.8.0/22')))).toContain(
      'The range 10.40.9.0 to 10.40.11.250 reaches',
    );
    expect(why(mergePrefix(demo, row(demo, '10.40.2.0/24')))).toContain(
      '10.40.3.0/24 Cameras, Kelder Quay is a subnet of another use',
    );
    const alone = done(demo, addPrefix(demo, { prefix: '10.44.0.0/24', vrfId: ops, role: 'pool' }));
    const inside = done(alone, addPrefix(alone, { prefix: '10.44.0.0/25', vrfId: ops, role: 'transit' }));
    expect(why(mergePrefix(inside, row(inside, '10.44.0.0/25')))).toBe(
      '10.44.0.0/24 would be larger than its pool 10.44.0.0/24.',
    );
  });

  test('a subnet with addresses stays', () => {
    expect(why(deletePrefix(demo, row(demo, '10.40.8.0/22'), 7))).toContain('7 addresses are given');
    expect(why(deletePrefix(demo, row(demo, '10.40.0.0/19'), 0))).toContain('5 prefixes in it stay');
  });
});

test('the ladder of the mainland: rungs lie where their addresses are, free blocks beside them', () => {
  const ladder = ladderOf(demo, ops, at('10.40.0.0/18'));
  const quay = ladder.rungs.find((rung) => rung.row?.prefix === '10.40.0.0/19');
  expect([quay?.from, quay?.width]).toEqual([0, 0.5]);
  const subnet = ladder.rungs.find((rung) => rung.row?.prefix === '10.40.8.0/22');
  expect([subnet?.from, subnet?.width, subnet?.vid]).toEqual([0.125, 0.0625, 20]);
  for (const block of ladder.free)
    for (const rung of ladder.rungs) {
      if (rung.row?.role === 'pool') continue;
      expect(block.from >= rung.from + rung.width || rung.from >= block.from + block.width).toBe(true);
    }
  expect(ladder.marks.map((mark) => mark.text)).toEqual([
    '10.40.0.0',
    '10.40.16.0',
    '10.40.32.0',
    '10.40.48.0',
  ]);
});

test('what an empty pool has free stands in the row below it, where it can be reached', () => {
  const network = switched({}, [], { prefixes: [{ prefix: '10.40.0.0/14', vrf: 'ops', role: 'pool' }] });
  const vrfId = network.findOne('vrfByName', 'ops')?.id ?? null;
  const outer = parsePrefix('10.40.0.0/14');
  if (outer === null) throw new Error('no prefix');
  const { free, lengths } = ladderOf(network, vrfId, outer);
  expect(free.map((rung) => [formatPrefix(rung.prefix), rung.length, rung.width])).toEqual([
    ['10.40.0.0/14', 15, 1],
  ]);
  expect(lengths).toContain(15);
});
