import { describe, expect, test } from '@jest/globals';
import { joinAll, lineOtherwise, takeLineBack } from '../../cabling/commands/join.ts';
import type { Network } from '../../model/network/network.ts';
import { parseInterface } from '../../model/values/ip.ts';
import { called, changed, drawn } from '../../testing/testDrawn.ts';
import { numberDrawn, openLinks, routedLine, type NumberWish } from './numberDrawn.ts';

const wish: NumberWish = {
  vrfId: null,
  linksFrom: '10.0.0.0/24',
  length: 31,
  loopbacksFrom: '10.255.0.0/24',
};
const names = ['rt-1', 'rt-2', 'rt-3', 'rt-4', 'rt-5'];

/** Five routers in a ring with two lines across: seven links. */
function five(): Network {
  const network = drawn(Object.fromEntries(names.map((name) => [name, 'Generic router'])));
  const pairs = [
    [0, 1],
    [1, 2],
    [2, 3],
    [3, 4],
    [4, 0],
    [0, 2],
    [1, 3],
  ] as const;
  const made = joinAll(
    network,
    pairs.map(([a, b]) => ({
      aDeviceId: called(network, names[a] ?? '').id,
      bDeviceId: called(network, names[b] ?? '').id,
    })),
  );
  if (!made.ok) throw new Error(made.why);
  return made.network;
}
const all = (network: Network) => [...network.all('device')];
function numbered(network: Network, how = wish): Network {
  const made = numberDrawn(network, all(network), how);
  if (!made.ok) throw new Error(made.why);
  if (!made.attempt.ok) throw new Error(made.attempt.why);
  return changed(network, made.attempt.set.changes);
}
const why = (network: Network, how: Partial<NumberWish>): string => {
  const made = numberDrawn(network, all(network), { ...wish, ...how });
  return made.ok ? 'numbered' : made.why;
};

describe('five routers and seven links', () => {
  test('a /31 each (RFC 3021), both ends of a link in one, no two in the same', () => {
    const network = numbered(five());
    const subnets = [...network.all('prefix')]
      .filter((row) => row.role === 'transit')
      .map((row) => row.prefix);
    expect(subnets.sort()).toEqual(
      ['0', '10', '12', '2', '4', '6', '8'].map((last) => `10.0.0.${last}/31`).sort(),
    );
    for (const cable of network.all('cable')) {
      const ends = [cable.aPortId, cable.bPortId].map((id) => {
        const [row] = network.find('addressesByPort', id ?? '');
        const read = parseInterface(row?.address ?? '');
        expect([network.get('port', id)?.mode, read?.length]).toEqual(['routed', 31]);
        return read?.address.value ?? 0n;
      });
      expect([...ends].sort((a, b) => Number(a - b)).map((value) => value % 2n)).toEqual([0n, 1n]);
      expect(new Set(ends.map((value) => value / 2n)).size).toBe(1);
    }
  });

  test('loopbacks in order of names, each the router id', () => {
    const network = numbered(five());
    expect(names.map((name) => called(network, name).routerId)).toEqual(
      ['1', '2', '3', '4', '5'].map((last) => `10.255.0.${last}`),
    );
  });

  test('a second time there is nothing left; a line more is numbered alone', () => {
    const network = numbered(five());
    expect(why(network, {})).toBe('Every link and router here has its numbers already.');
    const more = joinAll(network, [
      { aDeviceId: called(network, 'rt-2').id, bDeviceId: called(network, 'rt-5').id },
    ]);
    if (!more.ok) throw new Error(more.why);
    const made = numberDrawn(more.network, all(more.network), wish);
    expect(made.ok && [made.links, made.loopbacks]).toEqual([1, 0]);
    expect(made.ok && made.attempt.ok && made.attempt.set.sentence).toBe('Numbered 1 link from 10.0.0.0/24');
  });
});

test.each([
  [{ linksFrom: '10.0.0.300/24' }, /^Links: “10\.0\.0\.300\/24” /],
  [{ linksFrom: '10.0.0.0/30' }, /^10\.0\.0\.0\/30 has no room for 7 × \/31/],
  [{ length: 32 }, /^\/32 cannot be taken from 10\.0\.0\.0\/24/],
  [{ loopbacksFrom: '10.255.0.0/31' }, /is full after/],
  [{ loopbacksFrom: 'nothing' }, /^Loopbacks: “nothing” /],
])('%j is refused with the figures', (how, text) => expect(why(five(), how)).toMatch(text));

test('a link of which one end is a trunk is no routed link', () => {
  const network = five();
  const [first] = openLinks(network, all(network));
  if (first === undefined) throw new Error('link');
  const after = { mode: 'trunk' as const, untaggedVid: 1, taggedVids: 'all' as const };
  const before = {
    mode: first.near.mode,
    untaggedVid: first.near.untaggedVid,
    taggedVids: first.near.taggedVids,
  };
  const set = changed(network, [{ op: 'update', kind: 'port', id: first.near.id, before, after }]);
  expect(openLinks(set, all(set))).toHaveLength(6);
});

describe('a line pulled between two routers', () => {
  const start = drawn({ 'rt-1': 'Generic router', 'rt-2': 'Generic router' });
  const line = { aDeviceId: called(start, 'rt-2').id, bDeviceId: called(start, 'rt-1').id };
  const addresses = (network: Network): string[] =>
    [...network.all('address')]
      .map((row) => {
        const port = network.get('port', row.portId);
        return `${network.get('device', port?.deviceId ?? null)?.name ?? ''} ${row.address}`;
      })
      .sort();

  test('gets the next subnet; where it was pulled from has the first address', () => {
    const made = routedLine(start, line, { vrfId: null, linksFrom: '10.9.0.0/29', length: 31 });
    if (!made.ok) throw new Error(made.why);
    const network = changed(start, made.changes);
    expect(addresses(network)).toEqual(['rt-1 10.9.0.1/31', 'rt-2 10.9.0.0/31']);
    const second = routedLine(network, line, { vrfId: null, linksFrom: '10.9.0.0/29', length: 31 });
    expect(second.ok && addresses(second.network)).toContain('rt-2 10.9.0.2/31');
  });

  test('otherwise: another pool and length; taken back nothing is left', () => {
    const made = routedLine(start, line, { vrfId: null, linksFrom: '10.9.0.0/29', length: 31 });
    if (!made.ok) throw new Error(made.why);
    const network = changed(start, made.changes);
    const how = { vrfId: null, linksFrom: '192.0.2.0/24', length: 30 };
    const other = lineOtherwise(network, made.made, (without) => routedLine(without, line, how));
    if (!other.ok) throw new Error(other.why);
    const after = changed(network, other.changes);
    expect(addresses(after)).toEqual(['rt-1 192.0.2.2/30', 'rt-2 192.0.2.1/30']);
    expect([...after.all('cable')].map((cable) => cable.label)).toEqual(['C-00001']);
    const back = takeLineBack(after, other.made);
    if (!back.ok) throw new Error(back.why);
    const none = changed(after, back.set.changes);
    expect([none.count('address'), none.count('prefix'), none.count('cable')]).toEqual([0, 0, 0]);
  });

  test('a pool that is full is told, and nothing is joined', () => {
    const full = routedLine(
      start,
      { ...line, count: 3 },
      { vrfId: null, linksFrom: '10.9.0.0/30', length: 31 },
    );
    expect(full).toMatchObject({ ok: false, why: expect.stringMatching(/no room for 3 × \/31/) });
  });
});
