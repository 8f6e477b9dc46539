import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import type { Attempt } from '../../commands/attempt.ts';
import type { Network } from '../../model/network/network.ts';
import { deviceNamed, portId } from '../../testing/testNetwork.ts';
import { switched, trunk } from '../../testing/testSwitching.ts';
import { managementAddressOf } from '../management.ts';
import {
  addBgpSession,
  addInterface,
  addRedundancy,
  addRoute,
  deleteInterface,
  deleteVrf,
  giveAddressText,
  interfaceName,
  reserveAddress,
  takeBackAddress,
} from './interfaces.ts';

const start = switched(
  {
    r: {
      role: 'RT',
      ports: [
        { name: 'ge0', connector: 'RJ45', vrf: 'ops', addresses: ['10.1.0.1/24'] },
        { name: 'ge1', connector: 'RJ45' },
        { name: 'lo0', form: 'loopback', vrf: 'ops' },
      ],
    },
    s: { ports: [trunk('1', [10, 20], 999), trunk('2', [10])] },
  },
  [],
  {
    prefixes: [
      { prefix: '10.0.0.0/8', vrf: 'ops', role: 'pool' },
      { prefix: '10.1.0.0/24', vrf: 'ops', vlan: 'shore/20' },
      { prefix: '10.2.0.0/30', vrf: 'ops', vlan: 'shore/10' },
      { prefix: '2001:db8:1::/64', vrf: 'ops', vlan: 'shore/20' },
    ],
  },
);
const ops = start.findOne('vrfByName', 'ops')?.id ?? null;
const why = (attempt: { ok: boolean; why?: string }): string => (attempt.ok ? '' : (attempt.why ?? ''));
const done = (network: Network, attempt: Attempt): { network: Network; sentence: string } => {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return { network: applied.network, sentence: attempt.set.sentence };
};
const port = (network: Network, title: string) => {
  const row = network.get('port', portId(network, title));
  if (row === null) throw new Error(title);
  return row;
};
const addresses = (network: Network, title: string): string[] =>
  network.find('addressesByPort', portId(network, title)).map(({ address, use }) => `${address} ${use}`);

describe('configured ports', () => {
  const r = deviceNamed(start, 'r');
  const s = deviceNamed(start, 's');

  test('are named as such ports are on the device', () => {
    expect(interfaceName(start, r, { form: 'vlan', vid: 20 })).toBe('vlan20');
    expect(interfaceName(start, r, { form: 'subinterface', vid: 90, parent: port(start, 'r:ge1') })).toBe(
      'ge1.90',
    );
    expect(interfaceName(start, r, { form: 'loopback' })).toBe('lo1');
    expect(interfaceName(start, r, { form: 'tunnel' })).toBe('tun0');
    expect(interfaceName(start, s, { form: 'aggregate' })).toBe('lag1');
  });

  test('say what they still need', () => {
    expect(why(addInterface(start, r, { form: 'vlan' }))).toBe('Give the number of its VLAN.');
    expect(why(addInterface(start, r, { form: 'subinterface', vid: 20 }))).toBe(
      'Say which port it runs over.',
    );
    expect(why(addInterface(start, r, { form: 'aggregate' }))).toBe('Choose its members.');
  });

  test('an aggregate takes the setting of its first member, and its members have none of their own', () => {
    const members = [port(start, 's:1'), port(start, 's:2')];
    const { network, sentence } = done(start, addInterface(start, s, { form: 'aggregate', members }));
    expect(sentence).toBe('Added lag1 on s');
    expect(port(network, 's:lag1')).toMatchObject({
      mode: 'trunk',
      taggedVids: [10, 20],
      untaggedVid: 999,
      lacp: 'active',
    });
    for (const title of ['s:1', 's:2'])
      expect(port(network, title)).toMatchObject({
        aggregateId: port(network, 's:lag1').id,
        mode: null,
        taggedVids: null,
      });
    const back = done(network, deleteInterface(network, port(network, 's:lag1')));
    expect(back.sentence).toBe('Took out s lag1');
    expect(port(back.network, 's:1').aggregateId).toBeNull();
  });

  test('go with what is on them, in numbers; a port with a connector does not go', () => {
    const { network } = done(start, giveAddressText(start, port(start, 'r:lo0'), '10.9.0.1', ops));
    expect(done(network, deleteInterface(network, port(network, 'r:lo0'))).sentence).toBe(
      'Took out r lo0 with 1 address',
    );
    expect(why(deleteInterface(start, port(start, 'r:ge1')))).toBe(
      'ge1 has a connector: it comes with its device.',
    );
  });
});

describe('giving an address', () => {
  test('by its text, by the prefix it lies in, or the next free one of a prefix', () => {
    const give = (title: string, text: string) =>
      addresses(done(start, giveAddressText(start, port(start, title), text, ops)).network, title);
    expect(give('r:ge1', '10.1.0.7/24')).toEqual(['10.1.0.7/24 interface']);
    expect(give('r:ge1', '10.1.0.7')).toEqual(['10.1.0.7/24 interface']);
    expect(give('r:ge1', '10.1.0.0/24')).toEqual(['10.1.0.2/24 interface']);
    expect(give('r:lo0', '10.1.0.7')).toEqual(['10.1.0.7/32 interface']);
    expect(give('r:ge1', '10.77.0.1')).toEqual(['10.77.0.1/32 interface']);
  });

  test('the second of a family is a secondary one, the first of another is not', () => {
    const first = done(start, giveAddressText(start, port(start, 'r:ge0'), '10.1.0.9', ops)).network;
    const both = done(first, giveAddressText(first, port(first, 'r:ge0'), '2001:db8:1::9', ops)).network;
    expect(addresses(both, 'r:ge0').sort()).toEqual([
      '10.1.0.1/24 interface',
      '10.1.0.9/24 secondary',
      '2001:db8:1::9/64 interface',
    ]);
  });

  test('the port joins the VRF of the address', () => {
    expect(
      port(done(start, giveAddressText(start, port(start, 'r:ge1'), '10.1.0.7', ops)).network, 'r:ge1').vrfId,
    ).toBe(ops);
  });

  test('what is no address, what is taken and what is full is told with what to do', () => {
    const give = (network: Network, text: string) =>
      why(giveAddressText(network, port(network, 'r:ge1'), text, ops));
    expect(give(start, '10.1.0.256')).toBe('“10.1.0.256” is not an address such as 10.40.8.5/22.');
    expect(give(start, '10.1.0.1')).toBe(
      '10.1.0.1 is given already to r ge0. The next free one is 10.1.0.2.',
    );
    let network = start;
    for (const host of ['10.2.0.1', '10.2.0.2'])
      network = done(
        network,
        reserveAddress(network, host, ops, { dnsName: `h${host.at(-1)}.example` }),
      ).network;
    expect(give(network, '10.2.0.0/30')).toBe('10.2.0.0/30 is full. Take another prefix, or enlarge it.');
    expect(give(network, '10.2.0.1')).toBe('10.2.0.1 is given already, kept for h1.example. Choose another.');
  });

  test('one is kept without a port, where its subnet is there and nobody has it', () => {
    expect(done(start, reserveAddress(start, '10.1.0.50', ops, { dnsName: 'door.example' })).sentence).toBe(
      'Kept 10.1.0.50/24 for door.example',
    );
    expect(why(reserveAddress(start, 'door', ops, {}))).toBe('“door” is not an address such as 10.40.8.5.');
    expect(why(reserveAddress(start, '10.77.0.1', ops, {}))).toBe(
      '10.77.0.1 is in no subnet. Add its prefix first.',
    );
    expect(why(reserveAddress(start, '10.1.0.1', ops, {}))).toBe('10.1.0.1 is given already.');
  });

  test('one is taken back', () => {
    const [row] = start.find('addressesByPort', portId(start, 'r:ge0'));
    if (row === undefined) throw new Error('no address');
    const { network, sentence } = done(start, takeBackAddress(start, row));
    expect([sentence, addresses(network, 'r:ge0')]).toEqual(['Took back 10.1.0.1/24', []]);
  });
});

describe('routing of a device', () => {
  const r = deviceNamed(start, 'r');

  test('a route leads to an address, out of a port, or nowhere', () => {
    const route = (via: string, prefix = '10.5.0.0/16') => {
      const { network } = done(start, addRoute(start, r, { vrfId: ops, prefix, via }));
      return [...network.all('route')].map(({ via: to, viaPortId, discard, prefix: at }) => [
        at,
        to,
        viaPortId,
        discard,
      ]);
    };
    expect(route('10.1.0.254')).toEqual([['10.5.0.0/16', '10.1.0.254', null, false]]);
    expect(route('GE1')).toEqual([['10.5.0.0/16', null, portId(start, 'r:ge1'), false]]);
    expect(route('Discard')).toEqual([['10.5.0.0/16', null, null, true]]);
    expect(route('10.1.0.254', 'default')).toEqual([['0.0.0.0/0', '10.1.0.254', null, false]]);
    expect(why(addRoute(start, r, { vrfId: ops, prefix: '10.5.0.1/16', via: 'discard' }))).toMatch(
      /^Destination “10\.5\.0\.1\/16” is an address/,
    );
    expect(why(addRoute(start, r, { vrfId: ops, prefix: '10.5.0.0/16', via: 'ge9' }))).toBe(
      'Next hop “ge9” is neither an address, nor a port of r, nor discard.',
    );
  });

  test('a session is of the family of its neighbour', () => {
    const { network, sentence } = done(
      start,
      addBgpSession(start, r, { vrfId: ops, neighbour: '2001:db8::1', remoteAs: 64500 }),
    );
    expect(sentence).toBe('Added the BGP session of r with 2001:db8::1');
    expect([...network.all('bgpSession')]).toMatchObject([{ remoteAs: 64500, families: ['IPv6'] }]);
    expect(why(addBgpSession(start, r, { vrfId: ops, neighbour: 'r2', remoteAs: 1 }))).toBe(
      'Neighbour “r2” is not an address.',
    );
  });

  test('a shared address lies in a subnet of the port', () => {
    const join = (virtual: string) => addRedundancy(start, port(start, 'r:ge0'), { group: 7, virtual });
    expect(done(start, join('10.1.0.254')).sentence).toBe('Added r ge0 to group 7 with 10.1.0.254');
    expect(why(join('10.2.0.1'))).toBe(
      '10.2.0.1 is in no subnet of r ge0. Give the port an address there first.',
    );
    expect(why(join('gate'))).toBe('Virtual address “gate” is not an address.');
  });

  test('a VRF goes once nothing is in it', () => {
    expect(why(deleteVrf(start, ops ?? ''))).toMatch(
      /^VRF ops still has 4 prefixes, 1 address, 2 ports, 2 VLANs\. /,
    );
    const guest = start.findOne('vrfByName', 'guest')?.id ?? '';
    expect(done(start, deleteVrf(start, guest)).sentence).toBe('Deleted VRF guest');
    expect(why(deleteVrf(start, 'gone'))).toBe('It is gone already.');
  });
});

test('a device is managed by its management port, else a loopback, else the lowest VLAN', () => {
  const network = switched(
    {
      a: {
        ports: [
          { name: '1', addresses: ['10.1.0.9/24'] },
          { name: 'vlan40', form: 'vlan', vid: 40, addresses: ['10.4.0.1/24'] },
          { name: 'vlan20', form: 'vlan', vid: 20, addresses: ['10.2.0.1/24'] },
        ],
      },
      b: {
        ports: [
          { name: 'vlan20', form: 'vlan', vid: 20, addresses: ['10.2.0.2/24'] },
          { name: 'lo0', form: 'loopback', addresses: ['10.9.0.2/32'] },
        ],
      },
      c: {
        ports: [
          { name: 'lo0', form: 'loopback', addresses: ['10.9.0.3/32'] },
          { name: 'mgmt0', role: 'management', addresses: ['192.0.2.3/24'] },
        ],
      },
      d: { ports: [{ name: '1' }] },
    },
    [],
  );
  expect(
    ['a', 'b', 'c', 'd'].map((name) => managementAddressOf(network, deviceNamed(network, name))),
  ).toEqual(['10.2.0.1', '10.9.0.2', '192.0.2.3', null]);
});
