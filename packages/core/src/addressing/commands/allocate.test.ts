import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bordersOf, candidates, freeBlocks } from '../blocks.ts';
import { summarise } from '../prefixTree.ts';
import { readSizeWish } from '../sizeWish.ts';
import { applyChanges } from '../../change/apply.ts';
import { foundIn } from '../../testing/testFindings.ts';
import { hostsFile, reverseName, zoneFile, zoneNames } from '../exchange/zones.ts';
import { readAddressRows } from '../exchange/addressRows.ts';
import {
  formatPrefix,
  holds,
  overlaps,
  parseIp,
  parsePrefix,
  sizeOf,
  type IpPrefix,
} from '../../model/values/ip.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import type { Network } from '../../model/network/network.ts';
import { dhcpSchedule } from '../reports/dhcp.ts';
import { switched } from '../../testing/testSwitching.ts';
import type { ExchangeFile } from '../../exchange/format.ts';
import { addPrefixes, dhcpRange, gatewayBy } from './allocate.ts';
import type { Attempt } from '../../commands/attempt.ts';
import {
  addBgpSession,
  addInterface,
  addRedundancy,
  addRoute,
  deleteInterface,
  giveAddressText,
  reserveAddress,
} from './interfaces.ts';
import { ipv6ForVlan, planIpv6, planSite } from './planSite.ts';
import { renumber, retirePrefix } from './renumber.ts';
import { numberLinks, numberLoopbacks, routedLinks, withoutLoopback } from './transit.ts';
import { runs } from '../../testing/testRuns.ts';

const at = (text: string): IpPrefix => {
  const prefix = parsePrefix(text);
  if (prefix === null) throw new Error(text);
  return prefix;
};
const rowOf = (network: Network, prefix: string): Prefix => {
  const row = [...network.all('prefix')].find((one) => one.prefix === prefix);
  if (row === undefined) throw new Error(prefix);
  return row;
};
const made = (network: Network, attempt: Attempt): Network => {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};
const why = (attempt: { ok: true } | { ok: false; why: string }): string =>
  attempt.ok ? 'fine' : attempt.why;
const portOf = (network: Network, device: string, name: string) => {
  const port = network.findOne('portByName', `${network.findOne('deviceByName', device)?.id ?? ''}:${name}`);
  if (port === null) throw new Error(name);
  return port;
};
const deviceOf = (network: Network, name: string) => {
  const device = network.findOne('deviceByName', name);
  if (device === null) throw new Error(name);
  return device;
};

const pools = [
  { prefix: '10.40.0.0/14', vrf: 'ops', role: 'pool' },
  { prefix: '10.41.0.0/16', vrf: 'ops', role: 'pool', name: 'Islands' },
  { prefix: '10.41.0.0/19', vrf: 'ops', role: 'pool', name: 'Brinsay', place: 'Quay' },
  { prefix: '10.41.0.0/24', vrf: 'ops', role: 'subnet', place: 'Quay' },
  { prefix: '10.43.0.0/18', vrf: 'ops', role: 'pool', name: 'Transit' },
  { prefix: '10.43.255.0/24', vrf: 'ops', role: 'loopback' },
  { prefix: '172.28.0.0/14', vrf: 'guest', role: 'pool', name: 'Guests' },
  { prefix: '2001:db8:40::/48', vrf: 'ops', role: 'pool', place: 'Quay' },
];
const network = (
  more: object = {},
  devices: Parameters<typeof switched>[0] = {},
  links: [string, string][] = [],
) => switched(devices, links, { prefixes: pools, ...more } as Partial<ExchangeFile>);

describe('what is typed into the calculator', () => {
  const base = network({
    places: [
      { path: 'Quay', kind: 'site', vlanNumbering: 'shore' },
      { path: 'Quay/House', kind: 'building' },
      { path: 'Quay/House/Ground', kind: 'floor' },
      { path: 'Quay/House/First', kind: 'floor' },
      { path: 'Boat', kind: 'site' },
    ],
  });
  const read = (text: string): string => {
    const wish = readSizeWish(base, text, 4);
    if (!wish.ok) return wish.why;
    if (wish.form === 'prefix') return formatPrefix(wish.prefix);
    return `${wish.count} × /${wish.length}${wish.places.length === 0 ? '' : ` for ${wish.places.map((place) => place.name).join(', ')}`}`;
  };

  test('a prefix, a size, many of a size, hosts, one for each place of a kind', () => {
    expect(read('10.40.8.0/22')).toBe('10.40.8.0/22');
    expect(read('/29')).toBe('1 × /29');
    expect(read('/29 x 12')).toBe('12 × /29');
    expect(read('12 × /29')).toBe('12 × /29');
    expect(read('500 hosts')).toBe('1 × /23');
    expect(read('room for 510 hosts')).toBe('1 × /23');
    expect(read('room for 511 hosts')).toBe('1 × /22');
    expect(read('one /24 per floor of Quay')).toBe('2 × /24 for First, Ground');
  });

  test('what cannot be is told with the numbers', () => {
    expect(read('10.40.8.1/22')).toBe(
      '“10.40.8.1/22” is an address inside 10.40.8.0/22, not a prefix: its bits after /22 are not 0. Write 10.40.8.0/22.',
    );
    expect(read('/33')).toBe('/33 is no length of IPv4: they go from /1 to /32.');
    expect(read('/24 per deck of Quay')).toBe('Quay has no deck.');
    expect(read('/24 per floor of Nowhere')).toBe('There is no place Nowhere.');
    expect(read('plenty')).toContain('is not understood');
  });
});

describe('free blocks', () => {
  test('the first ones, with room to grow, and together under one route', () => {
    const base = network();
    const said = (options: object): string[] =>
      freeBlocks(base, rowOf(base, '10.41.0.0/19'), 26, 3, options)?.prefixes.map(formatPrefix) ?? [];
    expect(said({})).toEqual(['10.41.1.0/26', '10.41.1.64/26', '10.41.1.128/26']);
    expect(said({ growth: true })).toEqual(['10.41.1.0/26', '10.41.1.128/26', '10.41.2.0/26']);
    const aligned = freeBlocks(base, rowOf(base, '10.41.0.0/19'), 26, 3, { aligned: true });
    expect(aligned?.summary === null || aligned === null ? '' : formatPrefix(aligned.summary)).toBe(
      '10.41.1.0/24',
    );
    expect(freeBlocks(base, rowOf(base, '10.41.0.0/19'), 24, 32)).toBeNull();
  });

  test('candidates, the tightest gap after the first; and what a prefix would border', () => {
    const base = network();
    expect(candidates(base, rowOf(base, '10.41.0.0/16'), 24).map(formatPrefix)).toEqual([
      '10.41.32.0/24',
      '10.41.64.0/24',
      '10.41.128.0/24',
    ]);
    const { before, after } = bordersOf(base, rowOf(base, '10.41.0.0/19').vrfId, at('10.41.32.0/24'));
    expect([before?.prefix, after?.prefix]).toEqual(['10.41.0.0/19', undefined]);
  });

  test('properties: blocks never overlap anything, lie in their pool, and the summary covers exactly the aligned ones', () => {
    const base = network();
    const pool = rowOf(base, '10.41.0.0/16');
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 30 }),
        fc.integer({ min: 1, max: 20 }),
        fc.boolean(),
        fc.boolean(),
        (length, count, growth, aligned) => {
          const blocks = freeBlocks(base, pool, length, count, { growth, aligned });
          if (blocks === null) return;
          expect(blocks.prefixes).toHaveLength(count);
          blocks.prefixes.forEach((one, index) => {
            expect(holds(at(pool.prefix), one)).toBe(true);
            expect(overlaps(one, at('10.41.0.0/19'))).toBe(false);
            for (const other of blocks.prefixes.slice(index + 1)) expect(overlaps(one, other)).toBe(false);
          });
          const { summary } = blocks;
          if (summary === null) return;
          expect(blocks.prefixes.every((one) => holds(summary, one))).toBe(true);
          // One bit longer would not hold them all.
          const needed = blocks.prefixes.reduce((sum, one) => sum + sizeOf(one) * (growth ? 2n : 1n), 0n);
          expect(sizeOf(summary) < 2n * needed || summary.length === length).toBe(true);
          expect(summarise([summary, ...blocks.prefixes]).map(formatPrefix)).toEqual([formatPrefix(summary)]);
        },
      ),
      { numRuns: runs(60) },
    );
  });

  test('many at once are refused where two of them overlap', () => {
    const base = network();
    const vrfId = rowOf(base, '10.41.0.0/16').vrfId;
    expect(
      why(
        addPrefixes(base, [
          { prefix: '10.41.64.0/22', vrfId },
          { prefix: '10.41.65.0/24', vrfId },
        ]),
      ),
    ).toBe('10.41.65.0/24 would overlap 10.41.64.0/22, which is asked for at the same time.');
  });

  test('gateway and DHCP range keep off each other', () => {
    const prefix = at('10.41.64.0/24');
    expect([gatewayBy('first', prefix), gatewayBy('last', prefix)]).toEqual(['10.41.64.1', '10.41.64.254']);
    expect(dhcpRange(prefix, 50, '10.41.64.1')).toEqual([
      { use: 'DHCP', from: '10.41.64.128', to: '10.41.64.254', note: '' },
    ]);
    expect(dhcpRange(prefix, 50, '10.41.64.254')[0]?.to).toBe('10.41.64.253');
    expect(dhcpRange(at('10.0.0.0/31'), 50, null)).toEqual([]);
  });
});

describe('a new terminal from a template', () => {
  const template = {
    name: 'Terminal',
    parts: [
      { name: 'Cameras', length: 25, vid: 40, role: 'subnet', gateway: 'first', dhcpShare: 0, growth: false },
      {
        name: 'Operations',
        length: 24,
        vid: 20,
        role: 'subnet',
        gateway: 'last',
        dhcpShare: 50,
        growth: true,
      },
      {
        name: 'Management',
        length: 24,
        vid: 10,
        role: 'subnet',
        gateway: 'first',
        dhcpShare: 0,
        growth: false,
      },
    ],
  };
  const base = network({
    places: [
      { path: 'Quay', kind: 'site', vlanNumbering: 'shore' },
      { path: 'Skerry', kind: 'site', vlanNumbering: 'shore' },
      { path: 'Boat', kind: 'site', vlanNumbering: 'vessels' },
    ],
    vlanNumberings: [
      {
        name: 'shore',
        vlans: [
          { vid: 10, name: 'Management', vrf: 'ops' },
          { vid: 20, name: 'Operations', vrf: 'ops' },
          { vid: 40, name: 'Cameras', vrf: 'ops' },
        ],
      },
      { name: 'vessels', vlans: [] },
    ],
    siteTemplates: [template],
  });
  const plan = (site: string, pool = '10.41.0.0/16') => {
    const place = [...base.all('place')].find((one) => one.name === site);
    const [kept] = [...base.all('siteTemplate')];
    if (place === undefined || kept === undefined) throw new Error('not there');
    return planSite(base, { template: kept, place, pools: [rowOf(base, pool)] });
  };

  test('a block as its neighbours have it, the prefixes in it with VLAN, gateway and range, one route for all', () => {
    const planned = plan('Skerry');
    if (!planned.ok) throw new Error(planned.why);
    const [block] = planned.blocks;
    expect(formatPrefix(block?.block ?? at('0.0.0.0/0'))).toBe('10.41.32.0/19');
    expect(block?.summary.map(formatPrefix)).toEqual(['10.41.32.0/19']);
    expect(block?.parts.map(({ part, prefix }) => `${part.name} ${formatPrefix(prefix)}`)).toEqual([
      'Operations 10.41.32.0/24',
      'Management 10.41.34.0/24',
      'Cameras 10.41.35.0/25',
    ]);
    const after = made(base, planned.attempt);
    const operations = rowOf(after, '10.41.32.0/24');
    expect(operations).toMatchObject({
      gateway: '10.41.32.254',
      status: 'planned',
      name: 'Operations, Skerry',
    });
    expect(after.get('vlan', operations.vlanId)?.vid).toBe(20);
    expect(operations.ranges[0]?.to).toBe('10.41.32.253');
    expect(foundIn(after).filter((finding) => finding.rule.startsWith('prefix'))).toHaveLength(
      foundIn(base).filter((finding) => finding.rule.startsWith('prefix')).length,
    );
  });

  test('a VLAN that the numbering lacks, a pool of another VRF, a pool that is full: told', () => {
    const said = (site: string, pool?: string): string => {
      const planned = plan(site, pool);
      return planned.ok ? 'fine' : planned.why;
    };
    expect(said('Boat')).toContain('there is no VLAN 40 in the numbering of Boat');
    expect(said('Skerry', '172.28.0.0/14')).toBe('Cameras is of ops. Choose a pool of ops too.');
    expect(said('Skerry', '10.41.0.0/19')).toBe('fine');
  });

  test('IPv6 of the same VLANs, their number as it is written', () => {
    expect(formatPrefix(ipv6ForVlan(at('2001:db8:40::/48'), 20) ?? at('::/0'))).toBe('2001:db8:40:20::/64');
    expect(formatPrefix(ipv6ForVlan(at('2001:db8:40::/48'), 4094) ?? at('::/0'))).toBe(
      '2001:db8:40:4094::/64',
    );
    expect(ipv6ForVlan(at('2001:db8:40::/56'), 4094)).toBeNull();
    const withVlan = made(
      base,
      addPrefixes(base, [
        {
          prefix: '10.41.1.0/24',
          vrfId: rowOf(base, '10.41.0.0/19').vrfId,
          placeId: rowOf(base, '10.41.0.0/19').placeId,
          vlanId: [...base.all('vlan')].find((vlan) => vlan.vid === 20)?.id ?? null,
        },
      ]),
    );
    const six = made(withVlan, planIpv6(withVlan, rowOf(withVlan, '2001:db8:40::/48')));
    expect(rowOf(six, '2001:db8:40:20::/64').gateway).toBe('2001:db8:40:20::1');
    expect(why(planIpv6(six, rowOf(six, '2001:db8:40::/48')))).toContain('already');
  });
});

/** A root, two routers behind it, a fourth behind those; one link is numbered, one end is not routed. */
const lines = () =>
  network(
    {},
    {
      root: {
        role: 'RT',
        ports: [
          { name: 'a', mode: 'routed' },
          { name: 'b', mode: 'routed' },
        ],
      },
      r1: {
        role: 'RT',
        ports: [
          { name: 'a', mode: 'routed' },
          { name: 'b', mode: 'routed' },
        ],
      },
      r2: { role: 'RT', ports: [{ name: 'a', mode: 'routed' }, { name: 'b' }] },
      r3: {
        role: 'RT',
        ports: [
          { name: 'a', mode: 'routed' },
          { name: 'b', mode: 'routed' },
          { name: 'c', mode: 'routed', vrf: 'ops', addresses: ['10.43.0.0/31'] },
        ],
      },
      r4: { role: 'RT', ports: [{ name: 'c', mode: 'routed', vrf: 'ops', addresses: ['10.43.0.1/31'] }] },
    },
    [
      ['root:a', 'r1:a'],
      ['root:b', 'r2:a'],
      ['r1:b', 'r3:a'],
      ['r2:b', 'r3:b'],
      ['r3:c', 'r4:c'],
    ],
  );

describe('subnets of links', () => {
  test('in order of distance from the root, the nearer end first; what is forgotten is told before', () => {
    const base = lines();
    const root = deviceOf(base, 'root').id;
    const links = routedLinks(base, root);
    const title = (port: { deviceId: string; name: string }): string =>
      `${base.get('device', port.deviceId)?.name ?? ''}:${port.name}`;
    expect(
      links.map(
        (link) =>
          `${link.distance} ${title(link.near)} ${title(link.far)} ${link.numbered ? 'has' : (link.why ?? 'open')}`,
      ),
    ).toEqual([
      '0 root:a r1:a open',
      '0 root:b r2:a open',
      '1 r1:b r3:a open',
      '1 r2:b r3:b r2 b is not routed: set its mode, or add the subinterface',
      '2 r3:c r4:c has',
    ]);
    const plan = numberLinks(base, rowOf(base, '10.43.0.0/18'), 31, links);
    if (!plan.ok) throw new Error(plan.why);
    expect(plan.links.map(({ prefix, near, far }) => `${formatPrefix(prefix)} ${near} ${far}`)).toEqual([
      '10.43.0.0/31 10.43.0.0/31 10.43.0.1/31',
      '10.43.0.2/31 10.43.0.2/31 10.43.0.3/31',
      '10.43.0.4/31 10.43.0.4/31 10.43.0.5/31',
    ]);
    const thirty = numberLinks(base, rowOf(base, '10.43.0.0/18'), 30, links);
    expect(thirty.ok && thirty.links[1]?.near).toBe('10.43.0.5/30');
    const after = made(base, plan.attempt);
    expect(portOf(after, 'root', 'a').vrfId).toBe(rowOf(base, '10.43.0.0/18').vrfId);
    expect(rowOf(after, '10.43.0.2/31')).toMatchObject({ role: 'transit', name: 'root and r2' });
    expect(routedLinks(after, root).filter((link) => !link.numbered && link.why === null)).toEqual([]);
    expect(why(numberLinks(after, rowOf(after, '10.43.0.0/18'), 31, routedLinks(after, root)))).toContain(
      'has its subnet',
    );
    expect(why(numberLinks(base, rowOf(base, '10.43.0.0/18'), 32, links))).toContain(
      'choose a length from /19 to /31',
    );
  });

  test('loopbacks in order, each also as router id; refused when the prefix is full', () => {
    const base = lines();
    const vrfId = rowOf(base, '10.43.255.0/24').vrfId;
    const devices = withoutLoopback(base, vrfId);
    expect(devices.map((device) => device.name)).toEqual(['r3', 'r4']);
    const after = made(base, numberLoopbacks(base, rowOf(base, '10.43.255.0/24'), devices));
    expect(deviceOf(after, 'r3').routerId).toBe('10.43.255.1');
    expect(after.find('addressesByPort', portOf(after, 'r4', 'lo0').id)[0]?.address).toBe('10.43.255.2/32');
    expect(withoutLoopback(after, vrfId)).toEqual([]);
    expect(why(numberLoopbacks(base, rowOf(base, '10.41.0.0/24'), devices))).toContain(
      'is not for loopbacks',
    );
  });
});

/** A gateway pair, a host, a route and a session in one prefix. */
const settled = () =>
  network(
    {
      prefixes: [
        ...pools,
        {
          prefix: '10.40.8.0/24',
          vrf: 'ops',
          role: 'subnet',
          gateway: '10.40.8.1',
          ranges: [{ use: 'DHCP', from: '10.40.8.128', to: '10.40.8.200' }],
        },
        { prefix: '10.40.12.0/24', vrf: 'ops', role: 'subnet' },
      ],
    },
    {
      gw: {
        role: 'RT',
        ports: [
          {
            name: 'a',
            mode: 'routed',
            vrf: 'ops',
            addresses: ['10.40.8.2/24'],
            redundancy: [{ group: 1, virtual: '10.40.8.1' }],
          } as never,
        ],
      },
      host: {
        role: 'SV',
        ports: [
          {
            name: 'eth0',
            addresses: [{ address: '10.40.8.20/24', vrf: 'ops', dnsName: 'host.ops.marrow.example' }],
          },
        ],
      },
      far: {
        role: 'RT',
        ports: [{ name: 'a', mode: 'routed', vrf: 'ops', addresses: ['10.40.8.3/24'] }],
        routes: [{ vrf: 'ops', prefix: '0.0.0.0/0', via: '10.40.8.1' }],
        bgp: [{ vrf: 'ops', neighbour: '10.40.8.2', remoteAs: 64500 }],
      },
    },
  );

describe('renumbering', () => {
  test('host parts stay, everything that names an address follows, and every fact is listed', () => {
    const base = settled();
    const moved = renumber(base, rowOf(base, '10.40.8.0/24'), '10.40.16.0/23');
    if (!moved.ok) throw new Error(moved.why);
    expect(moved.list.map(({ what, from, to }) => `${what}: ${from} > ${to}`).sort()).toEqual([
      'BGP neighbour of far: 10.40.8.2 > 10.40.16.2',
      'DHCP of 10.40.16.0/23: 10.40.8.128 – 10.40.8.200 > 10.40.16.128 – 10.40.16.200',
      'far a: 10.40.8.3/24 > 10.40.16.3/23',
      'gateway of 10.40.16.0/23: 10.40.8.1 > 10.40.16.1',
      'gw a: 10.40.8.2/24 > 10.40.16.2/23',
      'host eth0: 10.40.8.20/24 > 10.40.16.20/23',
      'next hop of far to 0.0.0.0/0: 10.40.8.1 > 10.40.16.1',
      'shared address on gw a: 10.40.8.1 > 10.40.16.1',
      'subnet: 10.40.8.0/24 > 10.40.16.0/23',
    ]);
    const after = made(base, moved.attempt);
    expect([...after.all('address')].filter((row) => row.address.startsWith('10.40.8.'))).toEqual([]);
    const back = renumber(after, rowOf(after, '10.40.16.0/23'), '10.40.8.0/24');
    expect(back.ok).toBe(false);
  });

  test('a pool takes what is inside along', () => {
    const base = network();
    const moved = renumber(base, rowOf(base, '10.41.0.0/19'), '10.41.64.0/19');
    const after = made(base, moved.ok ? moved.attempt : moved);
    expect(rowOf(after, '10.41.64.0/24').placeId).not.toBeNull();
  });

  test('occupied, smaller, the same, another family, or itself: told, nothing is done', () => {
    const base = settled();
    const said = (to: string): string => why(renumber(base, rowOf(base, '10.40.8.0/24'), to));
    expect(said('10.40.12.0/24')).toBe(
      '10.40.12.0/24 is not free: 10.40.12.0/24 is there. Choose free space.',
    );
    expect(said('10.40.12.0/22')).toContain('is not free');
    expect(said('10.40.16.0/25')).toContain('is smaller than 10.40.8.0/24');
    expect(said('2001:db8::/64')).toContain('is IPv6');
    expect(said('10.40.8.0/24')).toBe('10.40.8.0/24 is where it stands now.');
    expect(said('10.40.9.1/24')).toContain('Write 10.40.9.0/24');
  });

  test('retiring takes addresses back and frees the space', () => {
    const base = settled();
    const attempt = retirePrefix(base, rowOf(base, '10.40.8.0/24'));
    expect(attempt.ok && attempt.set.sentence).toBe('Retired 10.40.8.0/24 and took back 3 addresses');
    const after = made(base, attempt);
    expect(rowOf(after, '10.40.8.0/24').status).toBe('retired');
    expect(why(retirePrefix(base, rowOf(base, '10.41.0.0/19')))).toContain('holds 1 prefixes');
  });
});

describe('interfaces, addresses and routes by hand', () => {
  test('names and addresses are worked out; what is taken is told with the next free one', () => {
    const base = settled();
    const gw = deviceOf(base, 'gw');
    const port = portOf(base, 'gw', 'a');
    const vlan = addInterface(base, gw, { form: 'vlan', vid: 20 });
    expect(vlan.ok && vlan.port.name).toBe('vlan20');
    const sub = addInterface(base, gw, { form: 'subinterface', vid: 90, parent: port });
    expect(sub.ok && sub.port.name).toBe('a.90');
    expect(why(addInterface(base, gw, { form: 'subinterface', vid: 90 }))).toBe(
      'Say which port it runs over.',
    );
    const { vrfId } = rowOf(base, '10.40.8.0/24');
    const host = portOf(base, 'host', 'eth0');
    expect(why(giveAddressText(base, host, '10.40.8.2', vrfId))).toBe(
      '10.40.8.2 is given already to gw a. The next free one is 10.40.8.4.',
    );
    const next = giveAddressText(base, host, '10.40.8.0/24', vrfId);
    expect(next.ok && next.set.sentence).toBe('Gave host eth0 10.40.8.4/24');
    const bare = giveAddressText(base, host, '10.40.12.9', vrfId);
    expect(bare.ok && bare.set.sentence).toBe('Gave host eth0 10.40.12.9/24');
    expect(why(giveAddressText(base, host, 'ten', vrfId))).toContain('is not an address');
    expect(why(reserveAddress(base, '10.99.0.1', vrfId, {}))).toContain('is in no subnet');
    expect(why(deleteInterface(base, port))).toContain('has a connector');
  });

  test('routes, sessions and shared addresses say which field is wrong', () => {
    const base = settled();
    const gw = deviceOf(base, 'gw');
    const { vrfId } = rowOf(base, '10.40.8.0/24');
    expect(addRoute(base, gw, { vrfId, prefix: 'default', via: '10.40.8.3' }).ok).toBe(true);
    expect(why(addRoute(base, gw, { vrfId, prefix: '10.0.0.1/8', via: 'discard' }))).toContain(
      'Write 10.0.0.0/8',
    );
    expect(why(addRoute(base, gw, { vrfId, prefix: '10.0.0.0/8', via: 'nowhere' }))).toContain(
      'neither an address, nor a port of gw, nor discard',
    );
    expect(why(addBgpSession(base, gw, { vrfId, neighbour: 'x', remoteAs: 1 }))).toContain('Neighbour “x”');
    expect(why(addRedundancy(base, portOf(base, 'gw', 'a'), { group: 2, virtual: '10.40.12.1' }))).toContain(
      'is in no subnet of gw a',
    );
  });
});

describe('files', () => {
  test('zones forward and reverse, hosts, DHCP ranges', () => {
    const base = settled();
    expect(zoneNames(base)).toEqual(['ops.marrow.example', '8.40.10.in-addr.arpa']);
    expect(zoneFile(base, 'ops.marrow.example', 2026112701)).toBe(
      [
        '$ORIGIN ops.marrow.example.',
        '$TTL 3600',
        '; No address is called ns.ops.marrow.example: put the name of the name server in place of ns.invalid.',
        '@\tIN\tSOA\tns.invalid. hostmaster.ops.marrow.example. 2026112701 7200 900 1209600 3600',
        '@\tIN\tNS\tns.invalid.',
        'host\tIN\tA\t10.40.8.20',
        '',
      ].join('\n'),
    );
    expect(zoneFile(base, '8.40.10.in-addr.arpa', 1)).toContain('20\tIN\tPTR\thost.ops.marrow.example.');
    expect(zoneFile(base, 'nowhere.example', 1)).toBeNull();
    expect(reverseName(parseIp('2001:db8::567:89ab') ?? { family: 6, value: 0n })).toBe(
      'b.a.9.8.7.6.5.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.8.b.d.0.1.0.0.2.ip6.arpa',
    );
    expect(hostsFile(base)).toContain('10.40.8.20\thost.ops.marrow.example host');
    expect(dhcpSchedule(base, null).rows).toMatchObject([
      {
        prefix: '10.40.8.0/24',
        mask: '255.255.255.0',
        from: '10.40.8.128',
        gateway: '10.40.8.1',
        vrf: 'ops',
      },
    ]);
  });

  test('a list of prefixes and addresses: each row told, overlaps at the second, nothing half done', () => {
    const base = settled();
    const read = readAddressRows(base, [
      ['Prefix', 'Address', 'VRF', 'Role', 'Name', 'VLAN', 'Device', 'Port', 'DNS name'],
      ['10.40.20.0/22', '', 'ops', 'subnet', 'Hall', '', '', '', ''],
      ['10.40.21.0/24', '', 'ops', '', '', '', '', '', ''],
      ['10.40.24.1/24', '', 'ops', '', '', '', '', '', ''],
      ['', '10.40.20.9', 'ops', '', '', '', 'host', 'eth0', 'second.ops.marrow.example'],
      ['', '10.40.20.10', 'ops', '', '', '', '', '', 'printer.ops.marrow.example'],
      ['', '10.40.20.11', 'nowhere', '', '', '', '', '', ''],
      ['', '10.40.20.12', 'ops', '', '', '', 'host', 'eth9', ''],
    ]);
    expect(
      read.results.map(({ row, does, problem }) => `${row} ${does}${problem === null ? '' : `: ${problem}`}`),
    ).toEqual([
      '2 adds',
      '3 wrong: 10.40.21.0/24 lies inside 10.40.20.0/22 Hall, a subnet: its addresses are given to hosts there. Choose space in a pool',
      '4 wrong: “10.40.24.1/24” is an address inside 10.40.24.0/24, not a prefix: its bits after /24 are not 0. Write 10.40.24.0/24',
      '5 adds',
      '6 adds',
      '7 wrong: there is no VRF nowhere',
      '8 wrong: there is no port host eth9',
    ]);
    const applied = applyChanges(base, read.changes);
    if (!applied.ok) throw new Error('refused');
    expect(zoneFile(applied.network, 'ops.marrow.example', 1)).toContain('second\tIN\tA\t10.40.20.9');
    expect(
      readAddressRows(applied.network, [
        ['Prefix', 'VRF'],
        ['10.40.20.0/22', 'ops'],
      ]).results[0]?.does,
    ).toBe('nothing');
    expect(readAddressRows(base, [['What']]).problem).toContain('neither a column Prefix');
  });
});
