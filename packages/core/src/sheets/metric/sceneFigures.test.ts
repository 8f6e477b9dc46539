import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { demoNetwork } from '../../testing/testDemo.ts';
import { drawingFigures } from '../../testing/testDrawing.ts';
import { sheetScene } from '../../report/sheetPlan.ts';
import {
  boxAround,
  type Box,
  type Container,
  type Plate,
  type Point,
  type Scene,
  type SceneLink,
} from '../scene/scene.ts';
import { sceneFigures } from './sceneFigures.ts';

const plate = (id: string, x: number, y: number, rest: Partial<Plate> = {}): Plate =>
  ({
    id,
    form: 'device',
    role: 'SW',
    name: id,
    deviceIds: [],
    box: { x, y, width: 80, height: 40 },
    ...rest,
  }) as Plate;
const label = (x: number, y: number, turned = false): SceneLink['label'] => ({
  text: 'te1/1',
  box: { x, y, width: 30, height: 12 },
  turned,
});
const link = (
  a: string,
  b: string,
  points: readonly (readonly [number, number])[],
  rest: object = {},
): SceneLink =>
  ({
    id: `${a}-${b}`,
    a: { plateId: a, label: null },
    b: { plateId: b, label: null },
    label: null,
    bundleId: null,
    points: points.map(([x, y]) => ({ x, y })),
    ...rest,
  }) as SceneLink;
const scene = (plates: Plate[], links: SceneLink[], containers: Container[] = []): Scene =>
  ({ plates, links, containers, box: boxAround(plates.map(({ box }) => box)) }) as Scene;

describe('the figures of a drawing', () => {
  test('two links that cross once, of a known length, with a bend each', () => {
    const drawn = scene(
      [plate('a', 0, 0), plate('b', 200, 0), plate('c', 0, 200), plate('d', 200, 200)],
      [
        link('a', 'd', [
          [40, 40],
          [40, 120],
          [240, 120],
          [240, 200],
        ]),
        link('b', 'c', [
          [220, 40],
          [220, 160],
          [60, 160],
          [60, 200],
        ]),
      ],
    );
    expect(sceneFigures(drawn)).toMatchObject({
      crossings: 1,
      bends: 4,
      length: 360 + 320,
      onEachOther: 0,
      throughPlates: 0,
      overlappingPlates: 0,
    });
  });

  test('a link through a plate and through a room that is not its own; its own rooms are none', () => {
    const room = (id: string, plateIds: string[], x: number, parentId: string | null = null): Container =>
      ({ id, plateIds, parentId, box: { x, y: -20, width: 120, height: 80 } }) as Container;
    const drawn = scene(
      [plate('a', 0, 0), plate('b', 200, 0), plate('c', 400, 0)],
      [
        link('a', 'c', [
          [80, 20],
          [400, 20],
        ]),
      ],
      [
        room('of a', ['a'], -20),
        room('of b', ['b'], 180),
        room('around a', [], -30),
        room('within', ['c'], 380, 'of c'),
        room('of c', [], 380),
      ],
    );
    const figures = sceneFigures(drawn);
    expect([figures.throughPlates, figures.throughContainers]).toEqual([1, 2]);
  });

  test('labels that are turned, and those that something lies on', () => {
    const drawn = scene(
      [plate('a', 0, 0), plate('b', 300, 0), plate('c', 0, 200), plate('d', 300, 200)],
      [
        link(
          'a',
          'b',
          [
            [80, 20],
            [300, 20],
          ],
          { label: label(140, 14), a: { plateId: 'a', label: label(60, 10) } },
        ),
        link(
          'c',
          'd',
          [
            [80, 220],
            [300, 220],
          ],
          { label: label(180, 214, true) },
        ),
        link('a', 'd', [
          [40, 40],
          [40, 120],
          [155, 120],
          [155, 0],
        ]),
      ],
    );
    expect(sceneFigures(drawn)).toMatchObject({ labels: 3, turnedLabels: 1, coveredLabels: 2 });
  });

  test('the shared part of a bundle crosses once, however many links it holds; its own links never cross in it', () => {
    const inBundle = { bundleId: 'mgmt' };
    const drawn = scene(
      [
        plate('hub', 0, 0),
        plate('a', 200, 200),
        plate('b', 300, 200),
        plate('c', 400, 200),
        plate('d', 600, 0),
      ],
      [
        ...[240, 340, 440].map((x, at) =>
          link(
            'hub',
            'abc'.charAt(at),
            [
              [40, 40],
              [40, 100],
              [x, 100],
              [x, 200],
            ],
            inBundle,
          ),
        ),
        link('d', 'a', [
          [120, 0],
          [120, 400],
        ]),
      ],
    );
    expect(sceneFigures(drawn)).toMatchObject({ crossings: 3, seenCrossings: 1, onEachOther: 0 });
  });

  test('redundant pairs are beside each other, or are not; leaves stand below what they hang on', () => {
    const links = [
      link('fw-1', 'fw-2', [
        [80, 20],
        [120, 20],
      ]),
      link('sw-1', 'sw-2', [
        [80, 220],
        [400, 220],
      ]),
      link('fw-1', 'ph-1', [
        [40, 40],
        [40, 100],
      ]),
      link('fw-2', 'ph-2', [
        [160, 40],
        [160, 70],
        [640, 70],
        [640, 100],
      ]),
    ];
    const plates = [
      plate('fw-1', 0, 0, { role: 'FW' }),
      plate('fw-2', 120, 0, { role: 'FW' }),
      plate('sw-1', 0, 200),
      plate('between', 200, 200),
      plate('sw-2', 400, 200),
      plate('ph-1', 0, 100, { role: 'PH' }),
      plate('ph-2', 600, 100, { role: 'PH' }),
    ];
    expect(sceneFigures(scene(plates, links))).toMatchObject({
      pairs: 2,
      pairsBeside: 1,
      leaves: 4,
      leavesBelow: 1,
    });
  });

  test('the zoom is that at which all of it fits the frame', () => {
    const wide = scene([plate('a', 0, 0), plate('b', 2288, 0)], []);
    expect(sceneFigures(wide).zoom).toBeCloseTo((1184 * 0.96) / 2368, 6);
    expect(sceneFigures(wide, { width: 100, height: 100 }).zoom).toBeCloseTo(96 / 2368, 6);
    expect(sceneFigures(scene([plate('a', 0, 0)], [])).zoom).toBe(1.1);
  });

  test('counted another way, piece by piece, it comes to the same on any drawing', () => {
    const spot = fc.record({ x: fc.integer({ min: 0, max: 40 }), y: fc.integer({ min: 0, max: 40 }) });
    fc.assert(
      fc.property(
        fc.array(spot, { minLength: 2, maxLength: 8 }),
        fc.array(fc.tuple(fc.nat(7), fc.nat(7), fc.nat(40)), { maxLength: 14 }),
        (spots, joins) => {
          const plates = spots.map(({ x, y }, at) => plate(`p${at}`, x * 24, y * 24));
          const middle = ({ box }: { box: Box }): Point => ({ x: box.x + 40, y: box.y + 20 });
          const links = joins.flatMap(([a, b, via]) => {
            const [one, other] = [plates[a], plates[b]];
            if (one === undefined || other === undefined || one === other) return [];
            const [from, to] = [middle(one), middle(other)];
            const y = via * 24 + 8;
            return [
              link(one.id, other.id, [
                [from.x, from.y],
                [from.x, y],
                [to.x, y],
                [to.x, to.y],
              ]),
            ];
          });
          const figures = sceneFigures(scene(plates, links));
          const oracle = drawingFigures(
            plates.map(({ box }) => box),
            links.map(({ points }) => points),
          );
          expect(figures.crossings).toBe(oracle.crossings);
          expect(figures.onEachOther).toBe(oracle.onEachOther);
          expect(figures.bends).toBe(oracle.bends);
          expect(figures.overlappingPlates).toBe(oracle.overlappingPlates);
        },
      ),
      { numRuns: 200 },
    );
  });

  test('they are the same for whatever order plates and links are in', () => {
    const network = demoNetwork();
    const sheet = [...network.all('sheet')].find(({ name }) => name === 'Data room · cabling');
    if (sheet === undefined) throw new Error('no sheet');
    const drawn = sheetScene(network, sheet, { measure: (text) => text.length * 6, today: '2026-01-01' });
    const turned = {
      ...drawn,
      plates: [...drawn.plates].reverse(),
      links: [...drawn.links].reverse(),
      containers: [...drawn.containers].reverse(),
    };
    const figures = sceneFigures(drawn);
    expect(sceneFigures(turned)).toEqual(figures);
    expect(figures).toMatchObject({ overlappingPlates: 0, throughPlates: 0 });
    expect(figures.pairs).toBeGreaterThan(1);
  });
});
