import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { findingsOf } from '../../check/registry.ts';
import type { Network } from '../../model/network/network.ts';
import { subnetNamed, testCloud, testGateway, testInstance } from '../../testing/testCloud.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { deviceNamed } from '../../testing/testNetwork.ts';
import { effectiveRoutes } from '../effectiveRoutes.ts';
import { natureOf } from '../nature.ts';
import { seatsOfDevice } from '../inventory.ts';
import { pulledInCloud, type CloudEnd, type CloudPull } from './pulled.ts';

const cloud = testCloud({
  devices: [
    testInstance('web', 'one', '10.1.0.10/24'),
    testInstance('app', 'one', '10.1.0.11/24'),
    { ...testInstance('lb', 'one', '10.1.0.12/24'), role: 'LB' },
    testInstance('far', 'two', '10.2.0.10/24'),
    ...['door', 'nat', 'vpn', 'loose', 'hub', 'hub-2'].map((name) => testGateway(name)),
    { name: 'fw', role: 'FW', place: 'house', units: 0 },
    { name: 'sw', role: 'SW', place: 'house', units: 0 },
  ],
  places: [{ path: 'house', kind: 'site' }],
  gateways: [
    { device: 'door', network: 'acct/north/one' },
    { device: 'nat', direction: 'out', translates: true, network: 'acct/north/one' },
    { device: 'vpn', direction: 'between', network: 'acct/north/one' },
    { device: 'loose' },
    { device: 'hub', direction: 'between' },
    { device: 'hub-2', direction: 'between' },
  ],
  routeTables: ['hub', 'hub-2'].map((hub) => ({ hub, name: 'all', learns: true })),
});

const end = (network: Network, name: string): CloudEnd => {
  const [place, subnet] = name.split('/');
  return subnet === undefined
    ? { deviceId: deviceNamed(network, name).id }
    : { subnetId: subnetNamed(network, place ?? '', subnet).id };
};
const pull = (network: Network, a: string, b: string): CloudPull =>
  pulledInCloud(network, end(network, a), end(network, b));
const done = (network: Network, a: string, b: string): Network => {
  const found = pull(network, a, b);
  if (!found.ok) throw new Error(found.why);
  if ('premises' in found) throw new Error('it is asked about');
  if (!found.attempt.ok) throw new Error(found.attempt.why);
  const applied = applyChanges(network, found.attempt.set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};
const why = (found: CloudPull): string => (found.ok ? found.says : found.why);
const through = (network: Network, subnet: string, prefix: string): string | undefined => {
  const way = effectiveRoutes(network, subnetNamed(network, 'one', subnet)).routes.find(
    ({ text }) => text === prefix,
  )?.way;
  return way?.by === 'gateway' ? network.get('device', way.deviceId)?.name : way?.by;
};

describe('a line that is pulled in a cloud', () => {
  test.each([
    ['one/a', 'door'],
    ['door', 'one/a'],
  ])('from %s to %s sends the subnet out, with all that share its table', (a, b) => {
    expect(why(pull(cloud, a, b))).toBe(
      'Sent a to the internet through door, and with it b, which share its table main',
    );
    const sent = done(cloud, a, b);
    expect(through(sent, 'a', '0.0.0.0/0')).toBe('door');
    expect(natureOf(sent, subnetNamed(sent, 'one', 'b')).nature).toBe('open');
    // Pulled to another gateway the route is turned, and there is still one.
    expect(through(done(sent, 'one/a', 'nat'), 'a', '0.0.0.0/0')).toBe('nat');
    expect(why(pull(sent, a, b))).toBe('a goes out through door already.');
  });

  test('a subnet without a table gets one: the fault of the demo is mended by a line', () => {
    const demo = demoNetwork();
    const [lost] = findingsOf(demo).filter(({ rule }) => rule === 'cloud-subnet-no-table');
    const subnet = demo.get('cloudSubnet', lost?.subjects[0]?.id ?? null);
    if (subnet === null) throw new Error('no such fault');
    const found = pulledInCloud(
      demo,
      { subnetId: subnet.id },
      { deviceId: deviceNamed(demo, 'cl-nat-2').id },
    );
    const set = found.ok && 'attempt' in found && found.attempt.ok ? found.attempt.set : null;
    const mended = applyChanges(demo, set?.changes ?? []);
    if (!mended.ok) throw new Error(mended.problems[0]?.message);
    expect(set?.sentence).toContain('by a route table of its own');
    expect(findingsOf(mended.network).map(({ rule }) => rule)).not.toContain('cloud-subnet-no-table');
  });

  test('an instance moves into the subnet that it is pulled to', () => {
    const moved = done(cloud, 'web', 'one/b');
    const [seat] = seatsOfDevice(moved, deviceNamed(moved, 'web').id);
    expect(seat?.subnet.name).toBe('b');
    expect(why(pull(cloud, 'web', 'one/a'))).toContain('already');
  });

  test('networks are peered, whatever of them is pulled', () => {
    for (const [a, b] of [
      ['web', 'far'],
      // Subnets of one name in two networks are two.
      ['one/a', 'two/a'],
      ['door', 'far'],
    ] as const) {
      const peered = done(cloud, a, b);
      expect(through(peered, 'a', '10.2.0.0/16')).toBe('peering');
      expect(why(pull(peered, a, b))).toContain('peered by one-two already');
    }
  });

  test('what is pulled to a router of the region is attached, with routes to what is there already', () => {
    const first = done(cloud, 'two/a', 'hub');
    const second = done(first, 'hub', 'web');
    expect(through(second, 'a', '10.2.0.0/16')).toBe('hub');
    expect(why(pull(second, 'hub', 'web'))).toContain('attached to hub already');
    const joined = done(second, 'hub', 'hub-2');
    expect(joined.find('hubAttachmentsByHub', deviceNamed(joined, 'hub-2').id)).toMatchObject([
      { otherHubId: deviceNamed(joined, 'hub').id },
    ]);
    expect(why(pull(joined, 'hub-2', 'hub'))).toBe('hub-2 and hub are joined already.');
  });

  test('a load balancer sends to what it is pulled to; a gateway that is loose is attached', () => {
    const sent = done(cloud, 'web', 'lb');
    expect(sent.find('targetsByBalancer', deviceNamed(sent, 'lb').id)).toMatchObject([
      { deviceId: deviceNamed(sent, 'web').id, protocol: 'TCP', listens: 443, port: 443 },
    ]);
    const attached = done(cloud, 'loose', 'one/a');
    expect(attached.findOne('gatewayByDevice', deviceNamed(attached, 'loose').id)?.networkId).toBe(
      subnetNamed(attached, 'one', 'a').placeId,
    );
  });

  test('a tunnel to the premises is asked about, from whatever of the network', () => {
    for (const [a, b] of [
      ['fw', 'one/a'],
      ['vpn', 'fw'],
      ['web', 'fw'],
    ] as const)
      expect(pull(cloud, a, b)).toMatchObject({
        ok: true,
        premises: {
          deviceId: deviceNamed(cloud, 'fw').id,
          placeId: subnetNamed(cloud, 'one', 'a').placeId,
        },
      });
  });

  test.each([
    ['web', 'app', 'what they may ask of each other is said by rules'],
    ['web', 'web', 'cannot be joined to itself'],
    ['sw', 'web', 'sw ends no tunnel'],
    ['sw', 'fw', 'join them on a sheet of cabling'],
    ['hub', 'fw', 'has no tunnel to fw'],
    ['one/a', 'vpn', 'vpn joins networks and is no way to the internet'],
    ['loose', 'fw', 'loose is in no virtual network'],
  ])('%s to %s is refused with the reason', (a, b, reason) => {
    expect(why(pull(cloud, a, b))).toContain(reason);
  });
});
