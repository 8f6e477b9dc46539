import { describe, expect, test } from '@jest/globals';
import { mendsOf, findingsOf } from '../../check/registry.ts';
import { applyChanges } from '../../change/apply.ts';
import { foundIn } from '../../testing/testFindings.ts';
import { switched } from '../../testing/testSwitching.ts';

const pool = (prefix: string, more: object = {}) => ({ prefix, vrf: 'ops', role: 'pool', ...more });
const network = (
  devices: Parameters<typeof switched>[0],
  prefixes: object[],
  links: [string, string][] = [],
) => switched(devices, links, { prefixes: prefixes as never });
const told = (rule: string, one: ReturnType<typeof switched>): string[] =>
  foundIn(one)
    .filter((finding) => finding.rule === rule)
    .map(({ message }) => message);
const host = (address: string, role = 'SV') => ({
  role,
  ports: [{ name: 'eth0', vrf: 'ops', addresses: [address] }],
});

test('prefix-without-purpose: silent before the first pool says what it is for', () => {
  const [bare, named] = [pool('10.8.0.0/16'), pool('10.9.0.0/16', { name: 'Boats' })];
  expect(told('prefix-without-purpose', network({}, [bare]))).toEqual([]);
  expect(told('prefix-without-purpose', network({}, [bare, named]))).toEqual([
    '10.8.0.0/16 is a pool without a name, a place or a note. Say what it is kept for.',
  ]);
  expect(told('prefix-without-purpose', network({}, [{ ...bare, notes: 'kept' }, named]))).toEqual([]);
});

describe('dhcp-over-fixed', () => {
  const subnet = (from: string, to: string, use = 'DHCP') => ({
    prefix: '10.1.0.0/24',
    vrf: 'ops',
    vlan: 'shore/20',
    ranges: [{ use, from, to, note: 'desks' }],
  });
  const hosts = { a: host('10.1.0.20/24'), b: host('10.1.0.100/24'), c: host('10.1.0.199/24') };

  test('those inside are named, those at its very ends too, those outside not', () => {
    const one = network(hosts, [subnet('10.1.0.100', '10.1.0.199')]);
    expect(told('dhcp-over-fixed', one)).toEqual([
      'DHCP hands out 10.1.0.100 to 10.1.0.199 in 10.1.0.0/24; 10.1.0.100 on b:eth0, 10.1.0.199 on c:eth0 are fixed there. Move them out, or cut the range around them.',
    ]);
    expect(told('dhcp-over-fixed', network(hosts, [subnet('10.1.0.101', '10.1.0.198')]))).toEqual([]);
    expect(told('dhcp-over-fixed', network(hosts, [subnet('10.1.0.1', '10.1.0.250', 'reserved')]))).toEqual(
      [],
    );
  });

  test('cut around them the ranges hold all other addresses and none of these', () => {
    const one = network(hosts, [subnet('10.1.0.20', '10.1.0.199')]);
    const [finding] = findingsOf(one).filter(({ rule }) => rule === 'dhcp-over-fixed');
    if (finding === undefined) throw new Error('nothing is found');
    const [mend] = mendsOf(one, finding);
    const applied = applyChanges(one, mend?.set.changes ?? []);
    if (!applied.ok) throw new Error('it cannot be cut');
    expect(
      [...applied.network.all('prefix')][0]?.ranges.map(({ from, to, note }) => [from, to, note]),
    ).toEqual([
      ['10.1.0.21', '10.1.0.99', 'desks'],
      ['10.1.0.101', '10.1.0.198', 'desks'],
    ]);
    expect(told('dhcp-over-fixed', applied.network)).toEqual([]);
  });

  test('more than three are counted', () => {
    const many = Object.fromEntries([1, 2, 3, 4, 5].map((at) => [`h${at}`, host(`10.1.0.${at + 10}/24`)]));
    expect(told('dhcp-over-fixed', network(many, [subnet('10.1.0.10', '10.1.0.99')]))[0]).toContain(
      'and 2 more are fixed',
    );
  });
});

test('address-no-link: an addressed host without a cable, once there are cables; what runs inside another needs none', () => {
  const pair = { sw: { ports: [{ name: '1' }] }, pc: host('10.1.0.9/24') };
  const cabled: [string, string][] = [['sw:1', 'pc:eth0']];
  expect(told('address-no-link', network({ ...pair, x: host('10.1.0.8/24') }, []))).toEqual([]);
  expect(told('address-no-link', network({ ...pair, x: host('10.1.0.8/24') }, [], cabled))).toEqual([
    'x has 1 address and no cable. Plug it in, or free the address.',
  ]);
  expect(told('address-no-link', network({ ...pair, x: host('10.1.0.8/24', 'VM') }, [], cabled))).toEqual([]);
});
