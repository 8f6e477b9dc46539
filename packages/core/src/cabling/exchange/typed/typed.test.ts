import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Network } from '../../../model/network/network.ts';
import { devicesNotPlaced, placeOfDevice, placePath } from '../../../model/network/places.ts';
import { modelTitle } from '../../../model/kinds.ts';
import { cablesOf, called, changed, drawn, emptyProject } from '../../../testing/testDrawn.ts';
import { demoNetwork } from '../../../testing/testDemo.ts';
import { readTyped } from './grammar.ts';
import { roleOfName } from '../../../model/values/roleWords.ts';
import { takeOverTyped, typing } from './takeOver.ts';
import { writeTyped } from './written.ts';

const typed = (text: string, start: Network = emptyProject()): Network => {
  const result = takeOverTyped(start, text, null);
  const wrong = result.lines.find((line) => line.problem !== null);
  if (wrong !== undefined) throw new Error(`${wrong.text}: ${wrong.problem ?? ''}`);
  return changed(start, result.set.changes);
};
const problems = (text: string, start: Network = emptyProject()): (string | null)[] =>
  takeOverTyped(start, text, null).lines.map((line) => line.problem);
const names = (network: Network): string[] => [...network.all('device')].map((device) => device.name).sort();
/** Which devices are joined, each pair in its order, as often as there are cables. */
const pairs = (network: Network): string[] =>
  [...network.all('cable')]
    .map((cable) =>
      [cable.aPortId, cable.bPortId]
        .map((id) => network.get('device', network.get('port', id)?.deviceId ?? null)?.name ?? '?')
        .sort()
        .join(' '),
    )
    .sort();

describe('what a line makes', () => {
  test('two names are a link, x2 two of them; a role from the beginning of a name', () => {
    const network = typed('core-1 core-2 x2\ncore-1 rt-1   # to the provider');
    expect(pairs(network)).toEqual(['core-1 core-2', 'core-1 core-2', 'core-1 rt-1']);
    expect(['core-1', 'rt-1'].map((name) => called(network, name).role)).toEqual(['SW', 'RT']);
    expect(devicesNotPlaced(network)).toHaveLength(3);
  });

  test('ports and a speed: what has no maker grows them as they are written', () => {
    const network = typed('edge-1 ge0/1 -- core-1 te1/1 10G\nedge-1:ge0/2 -- core-2:te1/1');
    expect(cablesOf(network).map((text) => text.split(' · ')[0])).toEqual([
      'edge-1 ge0/1 – core-1 te1/1',
      'edge-1 ge0/2 – core-2 te1/1',
    ]);
    const port = network.findOne('portByName', `${called(network, 'core-1').id}:te1/1`);
    expect(port).toMatchObject({ speedBps: 10e9, connector: 'SFP+' });
  });

  test('a speed without ports: what can do it and little more', () => {
    const network = typed('sw-1 sw-2 10G', drawn({ 'sw-1': 'AX-2448P', 'sw-2': 'CR-6032' }));
    expect(cablesOf(network)[0]).toMatch(/^sw-1 te1\/49 – sw-2 te1\/1 /);
    expect(problems('sw-1 sw-3 40G', drawn({ 'sw-1': 'AX-2448P', 'sw-3': 'AX-2448P' }))[0]).toMatch(
      /^sw-1 \(Norvane AX-2448P\) has no port of 40G\./,
    );
  });

  test('three of them, each to two', () => {
    const network = typed('3 access each to core-1 core-2');
    expect(names(network)).toEqual(['access-1', 'access-2', 'access-3', 'core-1', 'core-2']);
    expect(pairs(network)).toHaveLength(6);
    const more = typed('2 phones each on access-1', network);
    expect(names(more)).toContain('ph-2');
    expect(called(more, 'ph-1').role).toBe('PH');
  });

  test('ring, row and mesh, of names or of so many', () => {
    expect(pairs(typed('ring a b c'))).toEqual(['a b', 'a c', 'b c']);
    expect(pairs(typed('row a b c'))).toEqual(['a b', 'b c']);
    expect(pairs(typed('mesh a b c d'))).toHaveLength(6);
    const ring = typed('ring of 5 routers');
    expect(names(ring)).toEqual(['rt-1', 'rt-2', 'rt-3', 'rt-4', 'rt-5']);
    expect(pairs(ring)).toHaveLength(5);
    expect(pairs(typed('a -- b -- c -- a'))).toEqual(['a b', 'a c', 'b c']);
  });

  test('what they are and where they stand; places on the way are made', () => {
    const network = typed(
      'sw-1 sw-2: AX-2424P\nin "Harbour/Data room": sw-1 sw-2\nin Harbour: rt-1\nsw-1 sw-2',
    );
    expect(network.get('model', called(network, 'sw-1').modelId)?.name).toBe('AX-2424P');
    expect(placePath(network, called(network, 'sw-2').placeId)).toBe('Harbour/Data room');
    expect([...network.all('place')].map((place) => [place.name, place.kind]).sort()).toEqual([
      ['Data room', 'room'],
      ['Harbour', 'site'],
    ]);
  });

  test('a switch becomes another model as long as nothing is plugged in', () => {
    const network = typed('sw-1: switch');
    expect(network.get('model', called(typed('sw-1: AX-2424P', network), 'sw-1').modelId)?.name).toBe(
      'AX-2424P',
    );
    expect(problems('sw-1: AX-2424P', typed('sw-1 rt-1'))[0]).toBe(
      'sw-1 is a Generic 24-port switch with cables in it. Change its model in its record.',
    );
  });

  test('typed a second time it makes nothing; three where there are two makes one', () => {
    const text = 'core-1 core-2 x2\nedge-1 ge0/1 -- core-1 te1/1 10G\nin "Harbour": core-1\nring a b c';
    const network = typed(text);
    expect(takeOverTyped(network, text, null).set.changes).toEqual([]);
    expect(pairs(typed('core-1 core-2 x3', network)).filter((pair) => pair === 'core-1 core-2')).toHaveLength(
      3,
    );
  });
});

describe('lines that are wrong leave the others standing', () => {
  test.each([
    ['a b c', 'Write -- between the two ends'],
    ['"a b', 'A double quote is left open'],
    ['a --', 'An end is missing beside “--”'],
    ['a 1 2 -- b', 'more than a device and a port'],
    ['a -- b 1 -- c', 'a port there would hold two cables'],
    ['a b x99', 'x99: 1 to 64 cables'],
    ['access each to a', 'Write how many and what before “each”'],
    ['3 access each a', 'each to'],
    ['ring a b', 'A ring has at least 3 devices'],
    ['ring of 2 rt', 'A ring has 3 to 200 devices; 2 were asked for.'],
    ['ring a b A', 'named twice'],
    ['900 access each to a', '900: one line makes 1 to 200 devices.'],
    ['a: FT-9999', 'There is no model or role “FT-9999”'],
    ['in Harbour:', 'Write the place, a colon and the devices'],
    ['in "A//B": a', 'has an empty name in it'],
    [': switch', 'Write devices, a colon and what they are'],
    ['a -- a', 'a cannot be connected to itself'],
  ])('%s: %s', (line, reason) => {
    const result = takeOverTyped(emptyProject(), `x y\n${line}\ny z`, null);
    expect(result.lines[1]?.problem).toContain(reason);
    expect(pairs(result.network)).toEqual(['x y', 'y z']);
    // Nothing of the wrong line stays.
    expect(names(result.network)).toEqual(['x', 'y', 'z']);
  });

  test('a port that a real model has not, one that is taken, and one in a rack elsewhere', () => {
    const demo = demoNetwork();
    expect(problems('kq-core-1 te9/9 -- kq-acc-1 te1/50', demo)[0]).toMatch(
      /^kq-core-1 \(Norvane CR-6032\) has no port te9\/9\. Its ports are /,
    );
    expect(problems('kq-core-1 te1/1 -- rt-9 eth0', demo)[0]).toMatch(/^kq-core-1 te1\/1 holds KQ-/);
    expect(problems('in "Elsewhere": kq-core-1', demo)[0]).toMatch(/^kq-core-1 is mounted at KQ-A/);
  });

  test('ten thousand lines: what is read is said', () => {
    const text = Array.from({ length: 10_000 }, (_, at) => (at < 3 ? `a-${at} b-${at}` : '')).join('\n');
    const { lines, network } = takeOverTyped(emptyProject(), text, null);
    expect(lines.at(-1)?.problem).toBe(
      'The text has 10000 lines; 500 are read at a time. Take over the rest after these.',
    );
    expect(names(network)).toHaveLength(6);
  });
});

test.each([
  ['kq-acc-1', 'SW'],
  ['Core-2', 'SW'],
  ['edge1', 'RT'],
  ['dm-fw-1', 'FW'],
  ['isp-b', 'EX'],
  ['thing', 'XX'],
])('%s is taken for %s', (name, role) => expect(roleOfName(name)).toBe(role));

describe('read back', () => {
  /** What a topology is, without ids: devices by name, model and place, and which ports are joined. */
  const told = (network: Network, devices: ReadonlySet<string>): unknown => ({
    devices: [...network.all('device')]
      .filter((device) => devices.has(device.name))
      .map((device) => {
        const model = network.get('model', device.modelId);
        return [device.name, model && modelTitle(model), placePath(network, placeOfDevice(network, device))];
      })
      .sort(),
    links: cablesOf(network)
      .map((text) => text.split(' · ')[0]?.split(' – ').sort().join(' – ') ?? '')
      .filter((text) => text.split(' – ').every((end) => devices.has(end.slice(0, end.lastIndexOf(' ')))))
      .sort(),
  });

  test('the quay of the demo: over itself nothing changes, into an empty project the same comes', () => {
    const demo = demoNetwork();
    // Panels have cables of many fibres, of which only the first plugs are told.
    const some = [...demo.all('device')].filter((device) => ['SW', 'RT', 'FW', 'SV'].includes(device.role));
    const text = writeTyped(
      demo,
      some.map((device) => device.id),
    );
    const again = takeOverTyped(demo, text, null);
    expect(again.lines.filter((line) => line.problem !== null)).toEqual([]);
    expect(again.set.changes).toEqual([]);
    const set = new Set(some.map((device) => device.name));
    expect(told(typed(text), set)).toEqual(told(demo, set));
  });

  const name = fc.constantFrom('rt-1', 'sw 2', 'in', 'x2', '10G', 'a.b', 'ring', '7', 'fw-1', 'each');
  test('any topology of these names, typed, written and typed again, is the same', () => {
    const link = fc
      .record({ a: name, b: name, count: fc.integer({ min: 1, max: 3 }) })
      .filter(({ a, b }) => a !== b);
    fc.assert(
      fc.property(fc.array(link, { minLength: 1, maxLength: 8 }), (links) => {
        const text = links.map(({ a, b, count }) => `"${a}" -- "${b}" x${count}`).join('\n');
        const network = typed(text);
        // The oracle: of each pair as many as the most that one line asked for.
        const asked = new Map<string, number>();
        for (const { a, b, count } of links) {
          const pair = [a, b].sort().join(' ');
          asked.set(pair, Math.max(asked.get(pair) ?? 0, count));
        }
        const expected = [...asked]
          .flatMap(([pair, count]) => Array.from({ length: count }, () => pair))
          .sort();
        expect(pairs(network)).toEqual(expected);
        const written = writeTyped(
          network,
          [...network.all('device')].map((device) => device.id),
        );
        const set = new Set(names(network));
        expect(told(typed(written), set)).toEqual(told(network, set));
        expect(takeOverTyped(network, written, null).set.changes).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});

test('any text is read line by line without an error', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom('a', '-', ' ', '"', ':', '#', '\n', '1', 'x', ',', '/') }),
      (text) => {
        const lines = readTyped(text);
        expect(lines).toHaveLength(text.split('\n').length);
        expect(lines.every((line) => line.statement === null || line.problem === null)).toBe(true);
      },
    ),
  );
});

test('typed letter by letter it comes to the same as read at once, and what stands keeps its ids', () => {
  const text = 'core-1 core-2 x2\n2 access each to core-1\nring a b c\ncore-1 -- core-9 10G';
  const start = emptyProject();
  const read = typing(null);
  let ids: string[] = [];
  for (let end = 1; end <= text.length; end++) {
    const { network } = read(start, text.slice(0, end));
    const now = [...network.all('device')].map((device) => device.id);
    if (end > 'core-1 core-2 x2\n'.length) {
      expect(ids.filter((id) => !now.includes(id)).length).toBeLessThanOrEqual(6);
      expect(now.slice(0, 2)).toEqual(ids.slice(0, 2));
    }
    ids = now;
  }
  const [slow, once] = [read(start, text), takeOverTyped(start, text, null)];
  expect(slow.lines).toEqual(once.lines);
  expect(pairs(slow.network)).toEqual(pairs(once.network));
  // A line in the middle is changed: what follows is made anew on it.
  const other = text.replace('ring a b c', 'row a b c');
  expect(pairs(read(start, other).network)).toEqual(pairs(takeOverTyped(start, other, null).network));
});
