import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { findingsOf, mendsOf, ruleOf } from '../../check/registry.ts';
import type { Network } from '../../model/network/network.ts';
import { testCloud, testGateway, testInstance } from '../../testing/testCloud.ts';
import { demoNetwork } from '../../testing/testDemo.ts';

const found = (network: Network, key: string) => findingsOf(network).filter(({ rule }) => rule === key);
/** What a rule says of a network. */
const says = (network: Network, key: string): string[] =>
  found(network, key)
    .map((finding) => ruleOf(finding).says(finding, network))
    .sort();
/** What the first mend of each finding is called, after carrying it out and seeing that the finding is gone. */
function mended(network: Network, key: string): string[] {
  return found(network, key).flatMap((finding) => {
    const [first] = mendsOf(network, finding);
    if (first === undefined) return [];
    const applied = applyChanges(network, first.set.changes);
    if (!applied.ok) throw new Error(applied.problems[0]?.message);
    const left = found(applied.network, key).length;
    expect([first.wish, left]).toEqual([first.wish, found(network, key).length - 1]);
    // The usual mend brings nothing that was not there before.
    const known = new Set(findingsOf(network).map(({ rule }) => rule));
    expect(findingsOf(applied.network).filter(({ rule }) => !known.has(rule))).toEqual([]);
    return [first.wish];
  });
}

const one = 'acct/north/one';
const two = 'acct/north/two';
const open = {
  devices: [testGateway('gw', { place: one })],
  gateways: [{ device: 'gw', network: one }],
  cloudRoutes: [{ table: `${one}/main`, prefix: '0.0.0.0/0', gateway: 'gw' }],
};
const withSet = (rules: object[], more: Record<string, unknown[]> = {}, set: object = {}) =>
  testCloud({
    ...more,
    ruleSets: [{ name: 'guard', place: one, ...set }],
    trafficRules: rules.map((rule, at) => ({
      set: `${one}/guard`,
      position: at + 1,
      direction: 'in',
      ...rule,
    })),
  });
const used = {
  devices: [testInstance('vm', 'one', '10.1.0.9/24')],
  ruleSetUses: [{ set: `${one}/guard`, port: 'vm:eth0' }],
};

describe('checks of clouds', () => {
  test('fault 9 of the demo: the closed subnet of the second zone has no table, and one press gives it its own', () => {
    const demo = demoNetwork();
    expect(says(demo, 'cloud-subnet-no-table')).toEqual([
      'booking/data-n1b is tied to no route table: nobody can say where its packets go. Tie it to one.',
    ]);
    expect(mended(demo, 'cloud-subnet-no-table')).toEqual(['Tie data-n1b to closed']);
    expect(says(demo, 'cloud-public-address-unused')).toHaveLength(1);
    expect(mended(demo, 'cloud-public-address-unused')).toEqual(['Give 203.0.113.40 back']);
    // Nothing else of the cloud is wrong.
    expect(
      findingsOf(demo)
        .map(({ rule }) => rule)
        .filter((rule) => rule.startsWith('cloud-'))
        .sort(),
    ).toEqual(['cloud-public-address-unused', 'cloud-subnet-no-table']);
  });

  test('cloud-route-nowhere: a gateway of another network, and the one that was meant', () => {
    const cloud = testCloud({
      devices: [testGateway('gw-1', { place: one }), testGateway('gw-2', { place: two })],
      gateways: [
        { device: 'gw-1', network: one },
        { device: 'gw-2', network: two },
      ],
      cloudRoutes: [{ table: `${one}/main`, prefix: '0.0.0.0/0', gateway: 'gw-2' }],
    });
    expect(says(cloud, 'cloud-route-nowhere')).toEqual([
      'The route of main to 0.0.0.0/0 leads nowhere: that gateway is attached to another network. Send it another way, or take it out.',
    ]);
    expect(mended(cloud, 'cloud-route-nowhere')).toEqual(['Send it through gw-1']);
  });

  test('cloud-hub-circle: two routers of regions that send to each other', () => {
    const cloud = testCloud({
      devices: [testGateway('hub'), testGateway('far', { place: 'acct/south' })],
      gateways: ['hub', 'far'].map((device) => ({ device, direction: 'between' })),
      routeTables: [
        { hub: 'hub', name: 'h' },
        { hub: 'far', name: 'f' },
      ],
      hubAttachments: [
        { hub: 'hub', name: 'south', otherHub: 'far', table: 'hub/h' },
        { hub: 'far', name: 'north', otherHub: 'hub', table: 'far/f' },
      ],
      cloudRoutes: [
        { table: 'hub/h', prefix: '10.80.0.0/16', attachment: 'hub/south' },
        { table: 'far/f', prefix: '10.80.0.0/16', attachment: 'far/north' },
      ],
    });
    expect(says(cloud, 'cloud-hub-circle')).toHaveLength(2);
    expect(says(cloud, 'cloud-hub-circle')[0]).toContain('goes in a circle through');
  });

  test('cloud-peering-one-sided: the side that has no route gets it, in each table in use', () => {
    const cloud = testCloud({
      peerings: [{ name: 'one-two', aNetwork: one, bNetwork: two }],
      cloudRoutes: [{ table: `${one}/main`, prefix: '10.2.0.0/16', peering: 'one-two' }],
    });
    expect(says(cloud, 'cloud-peering-one-sided')).toEqual([
      'two has no route over the peering one-two, the other side has: no answer comes back. Add routes there.',
    ]);
    expect(mended(cloud, 'cloud-peering-one-sided')).toEqual(['Add routes in two']);
  });

  test('cloud-joined-overlap: two joined networks, and the premises behind a tunnel', () => {
    const cloud = testCloud({
      vrfs: [{ name: 'ops' }],
      prefixes: [
        { prefix: '10.2.128.0/24', vrf: 'one', place: one, role: 'pool' },
        { prefix: '10.3.40.0/24', vrf: 'ops' },
        { prefix: '10.3.0.0/16', vrf: 'ops', role: 'pool' },
      ],
      peerings: [{ name: 'one-two', aNetwork: one, bNetwork: two }],
      devices: [
        testGateway('vpn', {
          place: 'acct/north/three',
          ports: [{ name: 'tun1', form: 'tunnel', vrf: 'ops', farAddress: '198.51.100.1' }],
        }),
      ],
      gateways: [{ device: 'vpn', direction: 'between', network: 'acct/north/three' }],
    });
    expect(says(cloud, 'cloud-joined-overlap')).toEqual([
      expect.stringContaining('10.2.0.0/16 of two overlaps 10.2.128.0/24 of one'),
      // The pool that keeps the space for the cloud is no use of it; the subnet of the premises is.
      expect.stringContaining('10.3.0.0/16 of three overlaps 10.3.40.0/24'),
    ]);
  });

  test('cloud-translation-across-zones: the other zone loses its way out, and has a gateway of its own', () => {
    const nat = (name: string, address: string) => ({
      ...testGateway(name, { place: one }),
      ports: [{ name: 'out', form: 'virtual', vrf: 'one', addresses: [address] }],
    });
    const cloud = testCloud({
      devices: [nat('nat-a', '10.1.0.5/24'), nat('nat-b', '10.1.1.5/24')],
      gateways: ['nat-a', 'nat-b'].map((device) => ({
        ...{ device, network: one, direction: 'out', translates: true, reach: 'zonal' },
      })),
      routeTables: [{ place: one, name: 'for-b' }],
      cloudRoutes: [{ table: `${one}/for-b`, prefix: '0.0.0.0/0', gateway: 'nat-a' }],
      cloudSubnets: [
        {
          ...{ place: one, name: 'b', zone: 'acct/north/b', prefix: 'one 10.1.1.0/24' },
          routeTable: `${one}/for-b`,
        },
      ],
    });
    expect(says(cloud, 'cloud-translation-across-zones')).toEqual([
      'nat-a stands in a and is the way out of one/b, which stand in other zones. Give those a gateway of their own zone.',
    ]);
    expect(mended(cloud, 'cloud-translation-across-zones')).toEqual(['Send b out through nat-b']);
  });

  test('cloud-single-tunnel: one tunnel, or several that end at one address', () => {
    const cloud = (far: string[]) =>
      testCloud({
        devices: [
          testGateway('vpn', {
            place: one,
            ports: far.map((farAddress, at) => ({ name: `tun${at}`, form: 'tunnel', farAddress })),
          }),
        ],
        gateways: [{ device: 'vpn', direction: 'between', network: one }],
      });
    expect(says(cloud(['198.51.100.1']), 'cloud-single-tunnel')[0]).toContain('has one tunnel');
    expect(says(cloud(['198.51.100.1', '198.51.100.1']), 'cloud-single-tunnel')[0]).toContain(
      'end at one address',
    );
    expect(says(cloud(['198.51.100.1', '198.51.100.2']), 'cloud-single-tunnel')).toEqual([]);
  });

  test('cloud-open-without-public-address, and the reverse', () => {
    const inOpen = testCloud({
      ...open,
      devices: [...open.devices, testInstance('vm', 'one', '10.1.0.9/24')],
    });
    expect(says(inOpen, 'cloud-open-without-public-address')).toEqual([
      'one/a is open to the internet, and none of its 1 interface has a public address. Give one an address, or tie the subnet to a table without that route.',
    ]);
    const inClosed = testCloud({
      devices: [testInstance('vm', 'two', '10.2.0.9/24')],
      publicAddresses: [{ address: '203.0.113.9', place: 'acct/north', port: 'vm:eth0' }],
    });
    expect(says(inClosed, 'cloud-public-address-not-reached')).toEqual([
      '203.0.113.9 stands for an interface in two/a, which is closed. Move the interface to an open subnet, or give the address back.',
    ]);
  });

  test('cloud-no-way-out: rules let out to the internet, and there is no way', () => {
    const cloud = withSet([{ direction: 'out', ports: '443' }], used);
    expect(says(cloud, 'cloud-no-way-out')).toEqual([
      '1 interface of one/a may call the internet by their rules, and have no way out. Add a translating gateway and a route, or narrow the rules.',
    ]);
    expect(
      says(withSet([{ direction: 'out', ports: '443', prefix: '10.0.0.0/8' }], used), 'cloud-no-way-out'),
    ).toEqual([]);
  });

  test('cloud-subnet-outside-blocks: the block was taken from under it', () => {
    const cloud = testCloud();
    const block = [...cloud.all('prefix')].find(({ prefix }) => prefix === '10.1.0.0/16');
    if (block === undefined) throw new Error('no block');
    const without = applyChanges(cloud, [{ op: 'delete', kind: 'prefix', id: block.id, before: block }]);
    if (!without.ok) throw new Error(without.problems[0]?.message);
    expect(says(without.network, 'cloud-subnet-outside-blocks')[0]).toContain(
      '10.1.0.0/24 of one/a is in no block',
    );
  });

  test('cloud-rule-set-unused and cloud-rule-shadowed, each taken out by a press', () => {
    expect(mended(withSet([]), 'cloud-rule-set-unused')).toEqual(['Take the rule set out']);
    const twice = withSet(
      [
        { ports: '443', prefix: '10.0.0.0/8' },
        { ports: '443', prefix: '10.4.0.0/16' },
      ],
      used,
    );
    expect(says(twice, 'cloud-rule-shadowed')).toEqual([
      'Rule inward 2 of one/guard changes nothing: it says again what is said by inward 1. Take it out, or move it before.',
    ]);
    expect(mended(twice, 'cloud-rule-shadowed')).toEqual(['Take the rule out']);
  });

  test('cloud-admin-port-open: a shell to everybody, also as one port of a range', () => {
    expect(says(withSet([{ ports: '22' }], used), 'cloud-admin-port-open')).toEqual([
      'one/guard lets everybody to 22 (secure shell). Name those who may.',
    ]);
    expect(
      says(withSet([{ ports: '20-25', prefix: '0.0.0.0/0' }], used), 'cloud-admin-port-open'),
    ).toHaveLength(1);
    expect(says(withSet([{ ports: '22', prefix: '10.0.0.0/8' }], used), 'cloud-admin-port-open')).toEqual([]);
    expect(says(withSet([{ ports: '443' }], used), 'cloud-admin-port-open')).toEqual([]);
  });

  test('cloud-rule-too-wide: everybody to every port', () => {
    expect(says(withSet([{ protocol: 'any' }], used), 'cloud-rule-too-wide')).toHaveLength(1);
    expect(says(withSet([{ protocol: 'any', prefix: '10.0.0.0/8' }], used), 'cloud-rule-too-wide')).toEqual(
      [],
    );
  });

  test('cloud-answer-blocked: let in, not let back out; remembering mends it', () => {
    const forgetful = withSet([{ ports: '443' }], used, { remembers: false });
    expect(says(forgetful, 'cloud-answer-blocked')).toEqual([
      'one/guard does not remember connections: what rule inward 1 lets in is not answered. Allow TCP 1024-65535 the other way.',
    ]);
    expect(mended(forgetful, 'cloud-answer-blocked')).toEqual(['Let it remember connections']);
    const whole = withSet([{ ports: '443' }, { direction: 'out', ports: '1024-65535' }], used, {
      remembers: false,
    });
    expect(says(whole, 'cloud-answer-blocked')).toEqual([]);
  });

  test('cloud-database-exposed and cloud-interface-without-rules', () => {
    const database = (more: Record<string, unknown[]>) =>
      testCloud({
        ...open,
        devices: [...open.devices, { ...testInstance('base', 'one', '10.1.0.9/24'), role: 'DB' }],
        publicAddresses: [{ address: '203.0.113.9', place: 'acct/north', port: 'base:eth0' }],
        ...more,
      });
    expect(says(database({}), 'cloud-interface-without-rules')).toHaveLength(1);
    expect(says(database({}), 'cloud-database-exposed')).toHaveLength(1);
    const guarded = database({
      ruleSets: [{ name: 'guard', place: one }],
      trafficRules: [{ set: `${one}/guard`, position: 1, direction: 'in', ports: '5432' }],
      ruleSetUses: [{ set: `${one}/guard`, port: 'base:eth0' }],
    });
    expect(says(guarded, 'cloud-database-exposed')).toEqual([
      'Everybody on the internet may call the database base at 203.0.113.9, TCP 5432. Move it to a closed subnet, or narrow its rules.',
    ]);
    expect(says(guarded, 'cloud-interface-without-rules')).toEqual([]);
  });

  test('cloud-standby-in-same-zone and cloud-label-missing', () => {
    const pair = (address: string) =>
      testCloud({
        devices: [testInstance('base', 'one', '10.1.0.9/24'), testInstance('spare', 'one', address)],
        instances: [{ device: 'spare', standbyFor: 'base' }],
        demandedLabels: [{ key: 'cost-centre', on: 'instances' }],
      });
    expect(says(pair('10.1.0.10/24'), 'cloud-standby-in-same-zone')).toEqual([
      'spare stands by for base in the same zone a. Move it to another zone.',
    ]);
    expect(says(pair('10.1.1.10/24'), 'cloud-standby-in-same-zone')).toEqual([]);
    expect(says(pair('10.1.1.10/24'), 'cloud-label-missing')).toEqual([
      'base has no label cost-centre, which is demanded. Give it one.',
      'spare has no label cost-centre, which is demanded. Give it one.',
    ]);
  });

  test('cloud-limit-exceeded and cloud-not-offered: by the profile of the account', () => {
    const cloud = testCloud({
      providerProfiles: [
        {
          ...{ name: 'Provider', limits: { networks: 2 }, subnets: 'regional', longestBlock: 20 },
          gateways: [
            { sort: 'door', direction: 'both', families: ['IPv4'], translates: false, reach: 'regional' },
          ],
        },
      ],
      cloudAccounts: [{ place: 'acct', profile: 'Provider' }],
      devices: [testGateway('gw', { place: one }), testGateway('odd', { place: one })],
      gateways: [
        { device: 'gw', sort: 'door', network: one, direction: 'out' },
        { device: 'odd', sort: 'hatch', network: one },
      ],
    });
    expect(says(cloud, 'cloud-limit-exceeded')).toEqual([
      'place north has 3 virtual networks in a region, the provider allows 2. Have the limit raised, or do with fewer.',
    ]);
    const offered = says(cloud, 'cloud-not-offered');
    expect(offered).toContain(
      'a is a /24, and the smallest subnet of the provider is a /20. Set it as the provider has it, or correct the profile.',
    );
    expect(offered).toContain(
      'odd is a hatch, which Provider does not have. Set it as the provider has it, or correct the profile.',
    );
    expect(offered).toContain(
      'gw is not set as a door of Provider is. Set it as the provider has it, or correct the profile.',
    );
  });

  test('cloud-dns-record-nobody: to nobody, or to an address that the next stop loses', () => {
    const cloud = testCloud({
      devices: [testInstance('vm', 'one', '10.1.0.9/24')],
      publicAddresses: [{ address: '203.0.113.9', place: 'acct/north', port: 'vm:eth0', hold: 'lent' }],
      dnsZones: [{ name: 'shop.example', isPrivate: false }],
      dnsRecords: [
        ['@', '203.0.113.9'],
        ['old', '203.0.113.10'],
        ['vm', '10.1.0.9'],
      ].map(([name, value]) => ({ zone: 'shop.example', name, type: 'A', value })),
    });
    expect(says(cloud, 'cloud-dns-record-nobody')).toEqual([
      'old.shop.example leads to 203.0.113.10, which nobody has. Correct the record, or take it out.',
      'shop.example leads to 203.0.113.9, which is lent: it is lost when the instance stops. Keep an address for it.',
    ]);
    expect(mended(cloud, 'cloud-dns-record-nobody').sort()).toEqual([
      'Keep 203.0.113.9',
      'Take the record out',
    ]);
  });

  test('cloud-list-empty: a rule for nobody', () => {
    const cloud = withSet([{ ports: '443', list: 'partners' }], {
      ...used,
      prefixLists: [{ name: 'partners', prefixes: [] }],
    });
    expect(says(cloud, 'cloud-list-empty')).toEqual([
      'The list partners is used and holds no prefix. Enter those that are meant.',
    ]);
  });
});
