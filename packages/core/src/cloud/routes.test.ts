import { describe, expect, test } from '@jest/globals';
import { parseIp, type IpAddress } from '../model/values/ip.ts';
import type { Network } from '../model/network/network.ts';
import { subnetNamed, testCloud, testGateway, testInstance } from '../testing/testCloud.ts';
import { demoNetwork } from '../testing/testDemo.ts';
import { deviceNamed, portId } from '../testing/testNetwork.ts';
import { effectiveRoutes } from './effectiveRoutes.ts';
import { follow } from './follow.ts';
import { hubRoutes } from './hubs.ts';
import { blocksOf, instancesOf, networksIn, subnetsOf, zonesOf } from './inventory.ts';
import { learnedBy } from './learned.ts';
import { natureOf } from './nature.ts';
import { wayOut } from './wayOut.ts';

const ip = (text: string): IpAddress => {
  const read = parseIp(text);
  if (read === null) throw new Error(text);
  return read;
};
/** A route as text: prefix, how it came there, and through what. */
const routesText = (network: Network, place: string, name: string): string[] =>
  effectiveRoutes(network, subnetNamed(network, place, name)).routes.map(({ text, source, way }) => {
    const through =
      way.by === 'gateway'
        ? network.get('device', way.deviceId)?.name
        : way.by === 'peering'
          ? network.get('peering', way.peeringId)?.name
          : way.by;
    return `${text} ${source} ${through ?? ''}`;
  });
const arrivalText = (network: Network, place: string, name: string, to: string): string => {
  const { arrival, hubs } = follow(network, subnetNamed(network, place, name), ip(to));
  const passed = hubs.map((id) => network.get('device', id)?.name ?? '').join('>');
  const end =
    arrival.at === 'subnet'
      ? `${network.get('place', arrival.subnet.placeId)?.name ?? ''}/${arrival.subnet.name}`
      : arrival.at === 'nowhere'
        ? `lost: ${arrival.why}`
        : arrival.at === 'interface'
          ? 'interface'
          : `${arrival.at} ${network.get('device', arrival.deviceId)?.name ?? ''}`;
  return passed === '' ? end : `${end} by ${passed}`;
};

describe('the cloud of the demo', () => {
  const demo = demoNetwork();
  const [backup, booking] = networksIn(demo, null);

  test('networks, blocks, subnets in order of zone, instances and their zones', () => {
    expect([backup?.name, booking?.name]).toEqual(['backup', 'booking']);
    expect(blocksOf(demo, booking?.id ?? '').map(({ row }) => row.prefix)).toEqual([
      '10.64.0.0/16',
      '2001:db8:4f::/56',
    ]);
    expect(subnetsOf(demo, booking?.id ?? '').map(({ name }) => name)).toEqual(
      ['n1a', 'n1b'].flatMap((zone) => [`open-${zone}`, `service-${zone}`, `data-${zone}`]),
    );
    expect(instancesOf(demo, booking?.id ?? '').map(({ name }) => name)).toEqual([
      'cl-db-1',
      'cl-db-2',
      'cl-lb-1',
      'cl-web-1',
      'cl-web-2',
    ]);
    expect(zonesOf(demo, deviceNamed(demo, 'cl-db-2')).map(({ name }) => name)).toEqual(['n1b']);
    expect(zonesOf(demo, deviceNamed(demo, 'cl-lb-1')).map(({ name }) => name)).toEqual(['n1a', 'n1b']);
  });

  test('the nature of each subnet follows from its routes', () => {
    expect(
      subnetsOf(demo, booking?.id ?? '').map((one) => `${one.name}: ${natureOf(demo, one).nature}`),
    ).toEqual([
      'open-n1a: open',
      'service-n1a: outward only',
      'data-n1a: closed',
      'open-n1b: open',
      'service-n1b: outward only',
      // Fault 9: without a table nobody can say.
      'data-n1b: unknown',
    ]);
  });

  test('what the firewalls announce is in tables that take it in', () => {
    expect(learnedBy(demo, deviceNamed(demo, 'cl-vpn-1').id).map(({ text, by }) => `${text} ${by}`)).toEqual([
      '10.40.0.0/14 BGP',
    ]);
    expect(routesText(demo, 'booking', 'data-n1a')).toEqual([
      '10.40.0.0/14 learned cl-vpn-1',
      '10.64.0.0/16 local local',
      '10.65.0.0/20 written booking-backup',
      '2001:db8:4f::/56 local local',
    ]);
    expect(routesText(demo, 'booking', 'open-n1a')).toEqual([
      '0.0.0.0/0 written cl-gw-1',
      '10.64.0.0/16 local local',
      '::/0 written cl-gw-1',
      '2001:db8:4f::/56 local local',
    ]);
  });

  test('where packets go', () => {
    expect(arrivalText(demo, 'booking', 'service-n1a', '10.64.33.21')).toBe('booking/data-n1b');
    expect(arrivalText(demo, 'booking', 'service-n1a', '10.40.8.9')).toBe('beyond cl-vpn-1');
    expect(arrivalText(demo, 'booking', 'service-n1b', '198.51.100.200')).toBe('internet cl-nat-2');
    expect(arrivalText(demo, 'booking', 'data-n1a', '198.51.100.200')).toBe('lost: no route');
    expect(arrivalText(demo, 'booking', 'data-n1a', '10.65.0.20')).toBe('backup/vault-n1a');
    expect(arrivalText(demo, 'booking', 'open-n1a', '10.64.200.1')).toBe('lost: nobody');
    expect(arrivalText(demo, 'booking', 'open-n1a', '10.9.0.1')).toBe('lost: private');
  });

  test('the public address that the other side sees', () => {
    expect(wayOut(demo, portId(demo, 'cl-web-1:eth0'))).toMatchObject({
      by: 'translation',
      seen: ['203.0.113.30'],
    });
    expect(wayOut(demo, portId(demo, 'cl-web-2:eth0'))).toMatchObject({
      by: 'translation',
      seen: ['203.0.113.31'],
    });
    expect(wayOut(demo, portId(demo, 'cl-lb-1:a'))).toMatchObject({
      by: 'own address',
      seen: ['203.0.113.20'],
    });
    expect(wayOut(demo, portId(demo, 'cl-lb-1:a'), 6)).toMatchObject({ seen: ['2001:db8:4f::10'] });
    expect(wayOut(demo, portId(demo, 'cl-db-1:eth0'))).toEqual({ by: 'none' });
  });
});

describe('routes that are written and lead nowhere', () => {
  const cloud = testCloud({
    devices: [testGateway('gw-one'), testGateway('gw-loose'), testGateway('gw-v4')],
    gateways: [
      { device: 'gw-one', network: 'acct/north/one', families: ['IPv4', 'IPv6'] },
      { device: 'gw-loose' },
      { device: 'gw-v4', network: 'acct/north/two' },
    ],
    peerings: [
      { name: 'one-two', aNetwork: 'acct/north/one', bNetwork: 'acct/north/two' },
      { name: 'two-three', aNetwork: 'acct/north/two', bNetwork: 'acct/north/three', bAccepted: false },
    ],
    cloudRoutes: [
      { table: 'acct/north/two/main', prefix: '0.0.0.0/0', gateway: 'gw-one' },
      { table: 'acct/north/two/main', prefix: '198.51.100.0/24', gateway: 'gw-loose' },
      { table: 'acct/north/two/main', prefix: '::/0', gateway: 'gw-v4' },
      { table: 'acct/north/two/main', prefix: '10.3.0.0/16', peering: 'two-three' },
      { table: 'acct/north/two/main', prefix: '10.2.0.0/16', gateway: 'gw-v4' },
      { table: 'acct/north/two/main', prefix: '10.1.0.0/16', peering: 'one-two' },
      { table: 'acct/north/two/main', prefix: '203.0.113.0/24', discard: true },
      { table: 'acct/north/one/main', prefix: '10.3.0.0/16', peering: 'two-three' },
      { table: 'acct/north/three/main', prefix: '10.0.0.0/8', peering: 'one-two' },
      { table: 'acct/north/one/main', prefix: '10.0.0.0/8', peering: 'one-two' },
    ],
  });

  test('each with its reason', () => {
    const idle = (place: string) =>
      effectiveRoutes(cloud, subnetNamed(cloud, place, 'a')).idle.map(
        ({ text, fault }) => `${text} ${fault}`,
      );
    expect(idle('two')).toEqual([
      '0.0.0.0/0 gateway elsewhere',
      '10.2.0.0/16 local',
      '10.3.0.0/16 peering not accepted',
      '198.51.100.0/24 gateway not attached',
      '::/0 family',
    ]);
    expect(idle('one')).toEqual(['10.3.0.0/16 peering of others']);
    expect(idle('three')).toEqual(['10.0.0.0/8 peering of others']);
  });

  test('a peering carries to the network at its other end and no further', () => {
    expect(arrivalText(cloud, 'two', 'a', '10.1.1.7')).toBe('one/b');
    expect(arrivalText(cloud, 'one', 'a', '10.2.1.7')).toBe('two/b');
    expect(arrivalText(cloud, 'one', 'a', '10.3.0.1')).toBe('lost: not transitive');
    expect(arrivalText(cloud, 'two', 'a', '203.0.113.9')).toBe('lost: dropped');
  });
});

describe('a router of the region', () => {
  const hub = (extra: Record<string, unknown[]> = {}) =>
    testCloud({
      devices: [
        testGateway('hub'),
        testGateway('nat'),
        testGateway('far', { place: 'acct/south' }),
        testInstance('vm-1', 'one', '10.1.0.9/24'),
      ],
      gateways: [
        { device: 'hub', direction: 'between' },
        { device: 'far', direction: 'between', learned: ['10.90.0.0/16'] },
        { device: 'nat', network: 'acct/north/three', direction: 'out', translates: true },
      ],
      routeTables: [
        { hub: 'hub', name: 'spokes', learns: true },
        { hub: 'far', name: 'far', learns: true },
        { place: 'acct/north/three', name: 'egress' },
      ],
      hubAttachments: [
        ...['one', 'two', 'three'].map((name) => ({
          ...{ hub: 'hub', name, network: `acct/north/${name}`, table: 'hub/spokes' },
        })),
        { hub: 'hub', name: 'south', otherHub: 'far', table: 'hub/spokes' },
        { hub: 'far', name: 'north', otherHub: 'hub', table: 'far/far' },
      ],
      cloudRoutes: [
        { table: 'hub/spokes', prefix: '0.0.0.0/0', attachment: 'hub/three' },
        ...['one', 'two'].map((name) => ({
          table: `acct/north/${name}/main`,
          prefix: '0.0.0.0/0',
          gateway: 'hub',
        })),
        { table: 'acct/north/three/main', prefix: '10.0.0.0/8', gateway: 'hub' },
        { table: 'acct/north/three/main', prefix: '0.0.0.0/0', gateway: 'nat' },
        ...(extra['cloudRoutes'] ?? []),
      ],
    });

  test('joins networks, and leads out through the one that translates', () => {
    const cloud = hub();
    expect(
      hubRoutes(cloud, [...cloud.all('routeTable')].find(({ name }) => name === 'spokes')?.id ?? '').map(
        ({ text, source }) => `${text} ${source}`,
      ),
    ).toEqual(['0.0.0.0/0 written', '10.1.0.0/16 learned', '10.2.0.0/16 learned', '10.3.0.0/16 learned']);
    expect(arrivalText(cloud, 'one', 'a', '10.2.1.1')).toBe('two/b by hub');
    expect(arrivalText(cloud, 'one', 'a', '198.51.100.1')).toBe('internet nat by hub');
    expect(natureOf(cloud, subnetNamed(cloud, 'one', 'a')).nature).toBe('outward only');
  });

  test('two routers that send to each other are a circle, and it is told', () => {
    const cloud = hub({
      cloudRoutes: [
        { table: 'hub/spokes', prefix: '10.80.0.0/16', attachment: 'hub/south' },
        { table: 'far/far', prefix: '10.80.0.0/16', attachment: 'far/north' },
      ],
    });
    expect(arrivalText(cloud, 'one', 'a', '10.80.0.1')).toBe('lost: circle by hub>far>hub');
  });
});
