import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../../change/apply.ts';
import { invert } from '../../change/invert.ts';
import type { Network } from '../../model/network/network.ts';
import { portsOf } from '../../model/network/ports.ts';
import { cablesOf, called, changed, drawn } from '../../testing/testDrawn.ts';
import { interpretLine } from '../../commands/line.ts';
import { connectPairs } from './cables.ts';
import { joinAll, joinDevices, joinOtherwise, takeLineBack, type JoinWish } from './join.ts';

const wish = (network: Network, a: string, b: string, rest: Partial<JoinWish> = {}): JoinWish => ({
  aDeviceId: called(network, a).id,
  bDeviceId: called(network, b).id,
  ...rest,
});
function joined(network: Network, a: string, b: string, rest: Partial<JoinWish> = {}): Network {
  const made = joinDevices(network, wish(network, a, b, rest));
  if (!made.ok) throw new Error(made.why);
  return changed(network, made.changes);
}
const why = (network: Network, a: string, b: string, rest: Partial<JoinWish> = {}): string => {
  const made = joinDevices(network, wish(network, a, b, rest));
  return made.ok ? 'joined' : made.why;
};
const portNamed = (network: Network, device: string, name: string): string =>
  network.findOne('portByName', `${called(network, device).id}:${name}`)?.id ?? '';

describe('what a line is plugged into', () => {
  test('router and switch: copper of one gigabit on both, no optic bought for an uplink', () => {
    const network = drawn({ 'rt-1': 'Generic router', 'sw-1': 'AX-2424P' });
    expect(cablesOf(joined(network, 'rt-1', 'sw-1'))[0]).toMatch(/^rt-1 eth0 – sw-1 gi1\/1 · Cat 6/);
  });

  test('two switches: their uplinks at 10 Gbit/s, the next ones for a second line', () => {
    const network = drawn({ 'sw-1': 'AX-2448P', 'sw-2': 'AX-2448P' });
    const twice = joined(joined(network, 'sw-1', 'sw-2'), 'sw-1', 'sw-2');
    expect(cablesOf(twice).map((text) => text.split(' · ')[0])).toEqual([
      'sw-1 te1/49 – sw-2 te1/49',
      'sw-1 te1/50 – sw-2 te1/50',
    ]);
    const ports = ['sw-1', 'sw-2'].map((name) => twice.get('port', portNamed(twice, name, 'te1/49')));
    const types = [...twice.all('cable')].map((cable) => twice.get('model', cable.typeId));
    // Either a direct-attach cable or fibre with an optic at both ends.
    if (types[0]?.ends?.includes('LC') === true)
      expect(ports.every((port) => port?.transceiverId !== null)).toBe(true);
    else expect(types[0]?.ends).toEqual(['SFP+', 'SFP+']);
  });

  test('what takes PoE gets a port that gives it, and no uplink', () => {
    const network = drawn({ 'ap-1': 'Generic access point', 'sw-1': 'AX-2448P' });
    expect(cablesOf(joined(network, 'ap-1', 'sw-1'))[0]).toMatch(/^ap-1 eth0 – sw-1 gi1\/1 /);
  });

  test('a UPS and whatever takes power: from outlet to inlet, whichever was first', () => {
    const network = drawn({ 'up-1': 'Generic UPS', 'sw-1': 'AX-2424P', 'pd-1': 'PS-16' });
    expect(cablesOf(joined(network, 'sw-1', 'up-1'))[0]).toMatch(/^sw-1 psu1 – up-1 out1/);
    const strip = cablesOf(joined(network, 'pd-1', 'sw-1'))[0] ?? '';
    expect(strip).toMatch(/^pd-1 \S+ – sw-1 psu1/);
  });

  test('management ports are left alone while there is another', () => {
    const network = drawn({ 'core-1': 'CR-6032', 'core-2': 'CR-6032' });
    expect(cablesOf(joined(network, 'core-1', 'core-2'))[0]).not.toContain('mgmt');
  });

  test('ports and cable that are named are used; their device has no say', () => {
    const network = drawn({ 'rt-1': 'Generic router', 'sw-1': 'AX-2424P' });
    const made = joined(network, 'rt-1', 'sw-1', { bPortId: portNamed(network, 'sw-1', 'gi1/7') });
    expect(cablesOf(made)[0]).toMatch(/^rt-1 eth0 – sw-1 gi1\/7/);
  });

  test('four in parallel take four ports of each side in order', () => {
    const network = drawn({ 'lb-1': 'Generic load balancer', 'sw-1': 'AX-2424P' });
    const made = joined(network, 'lb-1', 'sw-1', { count: 4 });
    expect(cablesOf(made).map((text) => text.split(' · ')[0])).toEqual(
      [0, 1, 2, 3].map((at) => `lb-1 eth${at} – sw-1 gi1/${at + 1}`),
    );
  });
});

describe('ports that grow', () => {
  test('a device without a maker gets the next port, named on', () => {
    const network = drawn({ 'rt-1': 'Generic router', 'sw-1': 'AX-2424P' });
    const made = joined(network, 'rt-1', 'sw-1', { count: 6 });
    expect(portsOf(made, called(made, 'rt-1').id).map((port) => port.name)).toContain('eth5');
    expect(cablesOf(made)).toHaveLength(6);
  });

  test('two that have none at all: copper of 1 Gbit/s at both', () => {
    const network = drawn({ 'vm-1': 'Generic virtual machine', 'vm-2': 'Generic virtual machine' });
    const made = joined(network, 'vm-1', 'vm-2');
    const [port] = portsOf(made, called(made, 'vm-1').id);
    expect(port).toMatchObject({ name: 'eth0', connector: 'RJ45', speedBps: 1e9, role: 'network' });
    expect(cablesOf(made)[0]).toMatch(/^vm-1 eth0 – vm-2 eth0 · Cat/);
  });

  test('the grown end is like the port it meets', () => {
    const network = drawn({ 'gw-1': 'Generic gateway', 'core-1': 'CR-6132Q' });
    const made = joined(network, 'gw-1', 'core-1');
    expect(portsOf(made, called(made, 'gw-1').id)[0]).toMatchObject({ connector: 'QSFP28', speedBps: 1e11 });
  });
});

describe('what is refused, and what would do', () => {
  test('onto itself', () => {
    const network = drawn({ 'sw-1': 'AX-2424P' });
    expect(why(network, 'sw-1', 'sw-1')).toBe(
      'sw-1 cannot be connected to itself: let go on another device.',
    );
  });

  test('a switch that is full says which model has more ports', () => {
    let network = drawn({ 'rt-1': 'Generic router', 'sw-1': 'AX-1208P' });
    const free = portsOf(network, called(network, 'sw-1').id).filter((port) => port.role !== 'powerIn');
    for (const port of free.filter(({ role }) => role !== 'console' && role !== 'management'))
      network = changed(network, [
        {
          op: 'update',
          kind: 'port',
          id: port.id,
          before: { reserved: null },
          after: { reserved: 'kept' },
        },
      ]);
    const text = why(network, 'rt-1', 'sw-1');
    expect(text).toMatch(/^sw-1 \(.*AX-1208P\) has no free port: all \d+ are taken\. .*AX-/);
    expect(text).toMatch(/would have one\.$/);
  });

  test('a chassis without cards names the module and its slot', () => {
    const network = drawn({ 'core-1': 'CR-9004', 'sw-1': 'AX-2448P' });
    expect(why(network, 'core-1', 'sw-1')).toMatch(/^core-1 \(.*CR-9004\) has no port\. .* in slot 1/);
  });

  test('power to data, and a port that is taken, by their names', () => {
    const network = drawn({ 'sw-1': 'AX-2424P', 'sw-2': 'AX-2424P' });
    const [psu, data] = [portNamed(network, 'sw-1', 'psu1'), portNamed(network, 'sw-2', 'gi1/1')];
    expect(why(network, 'sw-1', 'sw-2', { aPortId: psu, bPortId: data })).toBe(
      'sw-1 psu1 and sw-2 gi1/1 cannot be joined: power to data.',
    );
    const made = joined(network, 'sw-1', 'sw-2', { bPortId: data });
    expect(why(made, 'sw-1', 'sw-2', { bPortId: data })).toMatch(
      /^sw-2 gi1\/1 holds C-00001 already\. Choose a free port\.$/,
    );
  });

  test('more in parallel than there are ports: nothing is made, and how many would fit', () => {
    const network = drawn({ 'sw-1': 'AX-1208P', 'sw-2': 'AX-1208P' });
    const text = why(network, 'sw-1', 'sw-2', { count: 40 });
    expect(text).toMatch(/^Only \d+ of 40 cables fit\. sw-[12] /);
    const fits = Number(/^Only (\d+)/.exec(text)?.[1]);
    expect(why(network, 'sw-1', 'sw-2', { count: fits })).toBe('joined');
    expect(why(network, 'sw-1', 'sw-2', { count: fits + 1 })).not.toBe('joined');
  });
});

describe('made otherwise', () => {
  test('other ports and three instead of one: the first label stays, nothing is left of before', () => {
    const start = drawn({ 'rt-1': 'Generic router', 'sw-1': 'AX-2424P' });
    const first = joinDevices(start, wish(start, 'rt-1', 'sw-1'));
    if (!first.ok) throw new Error(first.why);
    const network = changed(start, first.changes);
    const more = joinOtherwise(
      network,
      first.changes,
      wish(start, 'rt-1', 'sw-1', { bPortId: portNamed(start, 'sw-1', 'gi1/9'), count: 3 }),
    );
    if (!more.ok) throw new Error(more.why);
    const after = changed(network, more.changes);
    expect(cablesOf(after).map((text) => text.split(' · ')[0])).toEqual([
      'rt-1 eth0 – sw-1 gi1/9',
      'rt-1 eth1 – sw-1 gi1/1',
      'rt-1 eth2 – sw-1 gi1/2',
    ]);
    expect([...after.all('cable')].map((cable) => cable.label).sort()).toEqual([
      'C-00001',
      'C-00002',
      'C-00003',
    ]);
  });

  test('and otherwise again, and taken back: the network is as it was', () => {
    const start = drawn({ 'rt-1': 'Generic router', 'sw-1': 'AX-2424P' });
    const asked = wish(start, 'rt-1', 'sw-1');
    const first = joinDevices(start, asked);
    if (!first.ok) throw new Error(first.why);
    let network = changed(start, first.changes);
    let made = first.made;
    for (const count of [6, 2, 4]) {
      const next = joinOtherwise(network, made, { ...asked, count });
      if (!next.ok) throw new Error(next.why);
      network = changed(network, next.changes);
      made = next.made;
      expect(cablesOf(network)).toHaveLength(count);
    }
    const back = takeLineBack(network, made);
    if (!back.ok) throw new Error(back.why);
    expect(back.set.sentence).toBe('Took 4 lines back');
    const after = changed(network, back.set.changes);
    expect([after.count('cable'), after.count('port')]).toEqual([0, start.count('port')]);
  });

  test('a line that somebody renamed meanwhile is left as it is', () => {
    const start = drawn({ 'rt-1': 'Generic router', 'sw-1': 'AX-2424P' });
    const first = joinDevices(start, wish(start, 'rt-1', 'sw-1'));
    if (!first.ok) throw new Error(first.why);
    const [line] = first.lines;
    const network = changed(changed(start, first.changes), [
      {
        op: 'update',
        kind: 'cable',
        id: line?.lineId ?? '',
        before: { label: 'C-00001' },
        after: { label: 'X' },
      },
    ]);
    expect(joinOtherwise(network, first.changes, wish(start, 'rt-1', 'sw-1'))).toEqual({
      ok: false,
      why: 'This line was changed since. Change it in its record.',
    });
  });
});

const models = [
  'Generic router',
  'Generic 24-port switch',
  'AX-2424P',
  'CR-6032',
  'Generic server',
  'AX-1208P',
  'Generic UPS',
];
test('any two devices: what is offered is what the checked connection of ports accepts, and undoes to the byte', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...models),
      fc.constantFrom(...models),
      fc.integer({ min: 1, max: 5 }),
      (one, other, count) => {
        const start = drawn({ 'a-1': one, 'b-1': other });
        const made = joinDevices(start, wish(start, 'a-1', 'b-1', { count }));
        if (!made.ok) return expect(made.why).toMatch(/^(Only|[ab]-1|No free port)/);
        const network = changed(start, made.changes);
        // Each line alone, by the other road: the pairs of ports joined one by one.
        const grown = start.draft();
        for (const port of network.all('port'))
          if (start.get('port', port.id) === null) grown.put('port', port);
        const pairs = made.lines.map(({ aPortId, bPortId }) => ({
          a: network.get('port', aPortId),
          b: network.get('port', bPortId),
        }));
        const { results } = connectPairs(
          grown.finish(),
          pairs.flatMap(({ a, b }) => (a === null || b === null ? [] : [{ a, b }])),
        );
        expect(results.map((result) => result.problem)).toEqual(made.lines.map(() => null));
        expect(new Set(made.lines.flatMap((line) => [line.aPortId, line.bPortId])).size).toBe(2 * count);
        const back = applyChanges(network, invert(made.changes));
        expect(
          back.ok && back.network.count('cable') === 0 && back.network.count('port') === start.count('port'),
        ).toBe(true);
      },
    ),
    { numRuns: 40 },
  );
});

test('several pairs are one step; one that cannot be joined takes all back', () => {
  const network = drawn({
    'sw-1': 'AX-2424P',
    'ph-1': 'Generic phone',
    'ph-2': 'Generic phone',
  });
  const phones = ['ph-1', 'ph-2'].map((name) => wish(network, name, 'sw-1'));
  const made = joinAll(network, phones);
  expect(made.ok && made.sentence).toBe('Connected 2 pairs of devices with 2 cables');
  expect(made.ok && cablesOf(made.network)).toHaveLength(2);
  const wrong = joinAll(network, [...phones, wish(network, 'sw-1', 'sw-1')]);
  expect(wrong.ok).toBe(false);
});

describe('typed into the command line without ports', () => {
  const network = drawn({ 'rt-1': 'Generic router', 'sw-1': 'AX-2448P', 'sw-2': 'AX-2448P' });
  const first = (text: string) => interpretLine(network, text)[0];

  test('two devices, several cables, one end named', () => {
    expect(first('connect rt-1 to sw-1')).toMatchObject({
      does: 'change',
      title: 'Connect rt-1 eth0 to sw-1 gi1/1',
    });
    const two = first('connect sw-1 to sw-2 x2');
    expect(two?.title).toBe('Connect sw-1 te1/49 to sw-2 te1/49 and 1 more');
    expect(two?.does === 'change' ? cablesOf(changed(network, two.set.changes)) : []).toHaveLength(2);
    expect(first('connect rt-1 to sw-1 gi1/5')?.title).toBe('Connect rt-1 eth0 to sw-1 gi1/5');
  });

  test.each([
    ['connect rt-1 to rt-1', 'cannot be connected to itself'],
    ['connect rt-1 to nobody', 'nobody'],
    ['connect sw-1 to sw-2 x900', '900 cables in parallel are not possible: say 1 to 64.'],
  ])('%s is refused: %s', (text, reason) => {
    expect(first(text)).toMatchObject({ does: 'refuse', detail: expect.stringContaining(reason) });
  });
});
