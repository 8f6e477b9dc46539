import { describe, expect, test } from '@jest/globals';
import { nextFreeAddress, useOf } from '../plan.ts';
import { formatIp, parseIp } from '../../model/values/ip.ts';
import { access, switched, trunk } from '../../testing/testSwitching.ts';
import { foundIn } from '../../testing/testFindings.ts';
import { isPrivate } from './addresses.ts';

const host = (address: string | string[], more: object = {}) => ({
  role: 'SV',
  ports: [{ name: 'eth0', vrf: 'ops', addresses: [address].flat() }],
  ...more,
});
const subnet = { prefix: '10.1.0.0/24', vrf: 'ops', vlan: 'shore/20', gateway: '10.1.0.1' };
const gateway = { role: 'RT', ports: [{ name: 'eth0', vrf: 'ops', addresses: ['10.1.0.1/24'] }] };
/** What is found about these hosts and prefixes, beside that some things of the example are unused. */
const found = (
  devices: Parameters<typeof switched>[0],
  prefixes: object[] = [subnet],
  links: [string, string][] = [],
  more: object = {},
): [string, string][] =>
  foundIn(switched(devices, links, { prefixes: prefixes as never, ...more })).map((one) => [
    one.rule,
    one.message,
  ]);
const rulesOf = (list: [string, string][]): string[] => list.map(([rule]) => rule);

test('a subnet with its gateway and hosts is clean', () => {
  expect(found({ gw: gateway, a: host('10.1.0.10/24'), b: host('10.1.0.11/24') })).toEqual([]);
});

describe('addresses', () => {
  test('one host address on two devices is told with both and with a free one', () => {
    const list = found({ gw: gateway, a: host('10.1.0.10/24'), b: host('10.1.0.10/24') });
    expect(rulesOf(list)).toEqual(['address-duplicate']);
    expect(list[0]?.[1]).toBe(
      '10.1.0.10 is given 2 times: on a:eth0 and on b:eth0. Give one of them another, such as 10.1.0.2.',
    );
  });

  test("an address that routers share is nobody else's, and is not given to the next", () => {
    const router = (last: number, group = 1, virtual = '10.1.0.1'): object => ({
      role: 'RT',
      ports: [
        {
          name: 'eth0',
          vrf: 'ops',
          addresses: [`10.1.0.${last}/24`],
          redundancy: [{ group, virtual }],
        },
      ],
    });
    const pair = { r1: router(2) as never, r2: router(3) as never };
    expect(found({ ...pair, a: host('10.1.0.10/24') })).toEqual([]);
    const twice = found({ ...pair, a: host('10.1.0.1/24') });
    expect(twice).toEqual([
      [
        'virtual-duplicate',
        '10.1.0.1 is shared by r1:eth0 and r2:eth0 (group 1) and is also on a:eth0. Give the port another address, or make it part of the group.',
      ],
    ]);
    const groups = found({ r1: router(2) as never, r2: router(3, 2) as never });
    expect(groups.map(([, message]) => message)).toEqual([
      '10.1.0.1 is shared in groups 1 and 2 of r1:eth0 and r2:eth0: the groups do not hear each other and both answer. Use one group for it, or another address for the second.',
    ]);
    const network = switched({ r1: router(2, 1, '10.1.0.3') as never }, [], { prefixes: [subnet] as never });
    const [row] = [...network.all('prefix')];
    if (row === undefined) throw new Error('no prefix');
    expect(formatIp(nextFreeAddress(network, row) ?? { family: 4, value: 0n })).toBe('10.1.0.4');
    expect(useOf(network, row).taken).toBe(2);
  });

  test('a gateway that is the network or the broadcast address is told with those that can be', () => {
    const told = (address: string, prefix = '10.1.0.0/24'): string[] =>
      found({}, [{ ...subnet, prefix, gateway: address }])
        .filter(([rule]) => rule === 'gateway-no-host')
        .map(([, message]) => message);
    expect(told('10.1.0.255')).toEqual([
      '10.1.0.255, the gateway of 10.1.0.0/24, is its broadcast address, which no router can have. Choose one from 10.1.0.1 to 10.1.0.254.',
    ]);
    expect(told('10.1.0.0')[0]).toContain('is its network address');
    expect([told('10.1.0.1'), told('10.1.0.0', '10.1.0.0/31'), told('2001:db8::', '2001:db8::/64')]).toEqual([
      [],
      [],
      [],
    ]);
  });

  test('a gateway inside a range counts once, ranges that overlap as well', () => {
    const network = switched({}, [], {
      prefixes: [
        {
          ...subnet,
          prefix: '10.1.0.0/28',
          ranges: [
            { from: '10.1.0.1', to: '10.1.0.4', use: 'reserved' },
            { from: '10.1.0.5', to: '10.1.0.7', use: 'DHCP' },
          ],
        },
      ] as never,
    });
    const [row] = [...network.all('prefix')];
    // 7 of 14 addresses of a /28, of which the gateway is one.
    expect(row === undefined ? -1 : useOf(network, row).share).toBe(0.5);
  });

  test('the same address in two VRFs is two addresses', () => {
    const other = { role: 'SV', ports: [{ name: 'eth0', vrf: 'guest', addresses: ['10.1.0.10/24'] }] };
    const both = [subnet, { prefix: '10.1.0.0/24', vrf: 'guest', role: 'transit' }];
    expect(found({ gw: gateway, a: host('10.1.0.10/24'), b: other }, both)).toEqual([]);
  });

  test('outside every prefix, with another length, network and broadcast address', () => {
    expect(rulesOf(found({ gw: gateway, a: host('10.2.0.10/24') }))).toEqual(['address-outside-prefix']);
    const list = found({ gw: gateway, a: host('10.1.0.10/22') });
    expect(list[0]?.[1]).toBe(
      '10.1.0.10/22 (on a:eth0) says /22, but it is in 10.1.0.0/24. Correct the length to /24.',
    );
    expect(rulesOf(found({ gw: gateway, a: host('10.1.0.0/24') }))).toEqual(['address-not-for-hosts']);
    expect(rulesOf(found({ gw: gateway, a: host('10.1.0.255/24') }))).toEqual(['address-not-for-hosts']);
  });

  test('both addresses of a /31 are for hosts (RFC 3021)', () => {
    const link = { prefix: '10.9.0.0/31', vrf: 'ops', role: 'transit' };
    expect(found({ a: host('10.9.0.0/31'), b: host('10.9.0.1/31') }, [link])).toEqual([]);
  });

  test('a loopback is a /32, here of a pool of loopbacks', () => {
    const loop = (address: string) => ({
      role: 'RT',
      ports: [{ name: 'lo0', form: 'loopback' as const, vrf: 'ops', addresses: [address] }],
    });
    const pool = { prefix: '10.255.0.0/24', vrf: 'ops', role: 'loopback' };
    expect(found({ r: loop('10.255.0.1/32') }, [pool])).toEqual([]);
    expect(rulesOf(found({ r: loop('10.255.0.1/24') }, [pool]))).toEqual(['loopback-length']);
  });

  test('private space on an internet circuit', () => {
    const edge = (address: string) =>
      found(
        { edge: { role: 'RT', ports: [{ name: 'wan', vrf: 'ops', addresses: [address] }] } },
        [
          { prefix: '192.168.7.0/30', vrf: 'ops', role: 'transit' },
          { prefix: '198.51.100.0/30', vrf: 'ops', role: 'transit' },
        ],
        [],
        { circuits: [{ number: 'C-1', kind: 'internet', a: 'edge:wan' }] },
      );
    expect(rulesOf(edge('192.168.7.2/30'))).toEqual(['private-at-internet']);
    expect(edge('198.51.100.2/30')).toEqual([]);
    for (const [text, is] of [
      ['172.31.255.255', true],
      ['172.32.0.0', false],
      ['fd00::1', true],
      ['2001:db8::1', false],
      ['100.64.0.1', true],
    ] as const) {
      const ip = parseIp(text);
      expect(ip !== null && isPrivate(ip)).toBe(is);
    }
  });

  test('the two ends of one cable in different subnets', () => {
    const prefixes = ['10.9.0.0/30', '10.9.0.4/30'].map((prefix) => ({
      prefix,
      vrf: 'ops',
      role: 'transit',
    }));
    const ends = (a: string, b: string) =>
      found({ a: host(a), b: host(b) }, prefixes, [['a:eth0', 'b:eth0']]);
    expect(ends('10.9.0.1/30', '10.9.0.2/30')).toEqual([]);
    expect(rulesOf(ends('10.9.0.1/30', '10.9.0.5/30'))).toEqual(['link-ends-differ']);
  });
});

describe('prefixes', () => {
  test('a subnet inside a subnet overlaps it; inside a pool it is at home', () => {
    const inner = { prefix: '10.1.0.128/25', vrf: 'ops', role: 'transit' };
    const list = found({ gw: gateway }, [subnet, inner]);
    expect(rulesOf(list)).toEqual(['prefix-overlap']);
    expect(list[0]?.[1]).toContain('10.1.0.128/25 lies inside 10.1.0.0/24');
    expect(found({ gw: gateway }, [{ prefix: '10.0.0.0/8', vrf: 'ops', role: 'pool' }, subnet])).toEqual([]);
  });

  test('a pool over 80 % is told; at 80 % it is not', () => {
    const pool = { prefix: '10.9.0.0/24', vrf: 'ops', role: 'pool' };
    const parts = (count: number) =>
      Array.from({ length: count }, (_, at) => ({
        prefix: `10.9.0.${at * 16}/28`,
        vrf: 'ops',
        role: 'transit',
      }));
    expect(found({}, [pool, ...parts(12)])).toEqual([]);
    const list = found({}, [pool, ...parts(13)]);
    expect(rulesOf(list)).toEqual(['pool-full']);
    expect(list[0]?.[1]).toContain('81 %');
  });

  test('no gateway, and a gateway on no router; a redundancy group is one', () => {
    expect(rulesOf(found({ gw: gateway }, [{ ...subnet, gateway: null }]))).toEqual(['gateway-missing']);
    expect(rulesOf(found({ gw: gateway }, [{ ...subnet, gateway: '10.1.0.254' }]))).toEqual([
      'gateway-missing',
    ]);
    const shared = {
      role: 'RT',
      ports: [
        {
          name: 'eth0',
          vrf: 'ops',
          addresses: ['10.1.0.2/24'],
          redundancy: [{ group: 1, virtual: '10.1.0.1' }],
        },
      ],
    };
    expect(found({ gw: shared })).toEqual([]);
  });

  test('a subnet on no VLAN, and a /31 for hosts', () => {
    expect(rulesOf(found({ gw: gateway }, [{ ...subnet, vlan: null }]))).toEqual(['prefix-without-vlan']);
    const pair = { prefix: '10.9.0.0/31', vrf: 'ops', role: 'subnet', vlan: 'shore/40', gateway: '10.9.0.0' };
    expect(rulesOf(found({ a: host('10.9.0.0/31') }, [pair]))).toEqual(['point-to-point-misuse']);
  });

  test('a prefix at the boat inside the pool of the quay would leak into its summary', () => {
    const pool = { prefix: '10.1.0.0/16', vrf: 'ops', role: 'pool', place: 'Quay' };
    expect(found({ gw: gateway }, [pool, { ...subnet, place: 'Quay' }])).toEqual([]);
    expect(rulesOf(found({ gw: gateway }, [pool, { ...subnet, place: 'Boat' }]))).toEqual(['summary-leak']);
  });

  test('one subnet on two VLANs that do not hear each other', () => {
    const list = found(
      { gw: gateway, sw: { ports: [access('1', 20), access('2', 40)] }, b: host('10.1.0.9/24') },
      [subnet],
      [
        ['sw:1', 'gw:eth0'],
        ['sw:2', 'b:eth0'],
      ],
    );
    expect(rulesOf(list)).toContain('prefix-on-two-vlans');
  });
});

describe('VLANs', () => {
  test('islands inside a site are told, the same number at another site is not', () => {
    const sw = (place: string, ...ports: object[]) => ({ place, ports: ports as never });
    const far = found({ a: sw('Quay', access('1', 20)), b: sw('Quay', access('1', 20)) });
    expect(rulesOf(far)).toContain('vlan-island');
    expect(rulesOf(found({ a: sw('Quay', access('1', 20)), b: sw('Boat', access('1', 120)) }))).not.toContain(
      'vlan-island',
    );
  });

  test('carried by trunks and used by nobody; not known to the numbering', () => {
    const network = { a: { ports: [trunk('1', [40, 77])] }, b: { ports: [trunk('1', [40, 77])] } };
    const list = found(network, [], [['a:1', 'b:1']]);
    expect(rulesOf(list)).toEqual(['vlan-undefined', 'vlan-undefined', 'vlan-unused']);
    expect(list[0]?.[1]).toContain('VLAN 77, which is not in the numbering shore');
  });
});
