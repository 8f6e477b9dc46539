import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { portTitle } from '../model/ports.ts';
import type { Network } from '../model/network.ts';
import { networkOf, portId, smallRoom } from '../testNetwork.ts';
import { traceRun, wholeRun, type Run } from './trace.ts';

const words = (network: Network, run: Run): string[] =>
  run.hops.map((hop) =>
    'port' in hop ? portTitle(network, hop.port) : (network.get('cable', hop.cable)?.label ?? ''),
  );

const throughTwoPanels = [
  'kq-core-1:te1/1',
  'KQ-00001',
  'KQ-A1-PP1:F1',
  'KQ-A1-PP1:R1',
  'KQ-00002',
  'KQ-A2-PP1:R1',
  'KQ-A2-PP1:F1',
  'KQ-00003',
  'kq-acc-1:te1/49',
];

describe('tracing', () => {
  test('through two panels: every port and cable, and the sum of the lengths', () => {
    const network = smallRoom();
    const run = traceRun(network, portId(network, 'kq-core-1:te1/1'));
    expect(words(network, run)).toEqual(throughTwoPanels);
    expect(run).toMatchObject({
      ends: 'port',
      to: portId(network, 'kq-acc-1:te1/49'),
      lengthM: 18,
      unknownLengths: 0,
    });
  });

  test('from the far end it is the same run reversed', () => {
    const network = smallRoom();
    const back = traceRun(network, portId(network, 'kq-acc-1:te1/49'));
    expect(words(network, back)).toEqual([...throughTwoPanels].reverse());
  });

  test.each(['KQ-A1-PP1:F1', 'KQ-A1-PP1:R1', 'KQ-A2-PP1:R1', 'KQ-A2-PP1:F1'])(
    'from the middle at %s the whole run is found',
    (title) => {
      const network = smallRoom();
      const found = words(network, wholeRun(network, portId(network, title)));
      expect([throughTwoPanels, [...throughTwoPanels].reverse()]).toContainEqual(found);
    },
  );

  test('an unconnected port is a run of itself that ends open', () => {
    const network = smallRoom();
    const port = portId(network, 'kq-acc-1:gi1/14');
    expect(traceRun(network, port)).toMatchObject({ hops: [{ port }], ends: 'open', to: null, lengthM: 0 });
  });

  test('a cable with one end, and a panel with nothing behind, end open', () => {
    const network = networkOf({
      devices: [
        { name: 'a', role: 'SW', ports: [{ name: '1' }, { name: '2' }] },
        {
          name: 'p',
          role: 'PP',
          ports: [
            { name: 'F1', passThrough: 'R1' },
            { name: 'R1', passThrough: 'F1' },
          ],
        },
      ],
      cables: [
        { label: 'C-1', a: 'a:1' },
        { label: 'C-2', a: 'a:2', b: 'p:F1', lengthM: 3 },
      ],
    });
    expect(words(network, traceRun(network, portId(network, 'a:1')))).toEqual(['a:1', 'C-1']);
    const run = traceRun(network, portId(network, 'a:2'));
    expect(words(network, run)).toEqual(['a:2', 'C-2', 'p:F1', 'p:R1']);
    expect(run).toMatchObject({ ends: 'open', to: null, lengthM: 3 });
  });

  test('a run that comes back to itself ends with the word loop', () => {
    const network = networkOf({
      devices: ['p', 'q'].map((name) => ({
        name,
        role: 'PP' as const,
        ports: [
          { name: 'F1', passThrough: 'R1' },
          { name: 'R1', passThrough: 'F1' },
        ],
      })),
      cables: [
        { label: 'C-1', a: 'p:F1', b: 'q:F1' },
        { label: 'C-2', a: 'p:R1', b: 'q:R1' },
      ],
    });
    expect(traceRun(network, portId(network, 'p:F1'))).toMatchObject({
      ends: 'loop',
      to: null,
      unknownLengths: 2,
    });
    expect(wholeRun(network, portId(network, 'q:R1')).ends).toBe('loop');
  });

  test('property: over any chain of panels, A to B is B to A reversed', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 12 }),
        fc.array(fc.boolean(), { minLength: 13, maxLength: 13 }),
        (count, turned) => {
          const panels = Array.from({ length: count }, (_, at) => ({
            name: `p${at}`,
            role: 'PP' as const,
            ports: [
              { name: 'F', passThrough: 'R' },
              { name: 'R', passThrough: 'F' },
            ],
          }));
          const side = (at: number, far: boolean): string => (turned[at] === far ? 'F' : 'R');
          const stops = [
            'a:1',
            ...panels.flatMap((panel, at) => [
              `${panel.name}:${side(at, false)}`,
              `${panel.name}:${side(at, true)}`,
            ]),
            'b:1',
          ];
          const cables = Array.from({ length: count + 1 }, (_, at) => ({
            label: `C-${at}`,
            a: stops[2 * at] ?? '',
            b: stops[2 * at + 1] ?? '',
            lengthM: at + 0.5,
          }));
          const network = networkOf({
            devices: [
              { name: 'a', role: 'SW', ports: [{ name: '1' }] },
              { name: 'b', role: 'SW', ports: [{ name: '1' }] },
              ...panels,
            ],
            cables,
          });
          const there = traceRun(network, portId(network, 'a:1'));
          const back = traceRun(network, portId(network, 'b:1'));
          expect(words(network, back)).toEqual(words(network, there).reverse());
          expect(there.lengthM).toBeCloseTo(back.lengthM);
        },
      ),
      { numRuns: 40 },
    );
  });
});
