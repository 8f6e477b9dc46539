import { newProject } from '../../model/kinds/sites/project.ts';
import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { readExchange } from '../../exchange/read.ts';
import { usualFacets } from '../../model/kinds/drawings/projections.ts';
import { type Sheet } from '../../model/kinds/drawings/sheet.ts';
import { Network } from '../../model/network/network.ts';
import { applyChanges } from '../../change/apply.ts';
import { placeOnSheet } from '../commands/sheets.ts';
import { atHub, drawnPaths } from '../../testing/testDrawing.ts';
import { networkOf, rackNamed, smallRoom } from '../../testing/testNetwork.ts';
import { sheetScene } from '../../report/sheetPlan.ts';
import { dragScene } from '../route/drag.ts';
import { elevationScene, unitHeight } from '../../racks/projection/elevation.ts';
import { overlap, type Box, type Point, type Scene, type SceneLink } from './scene.ts';
import type { TextMeasure } from '../layout/textMeasure.ts';

/** As wide as the shipped mono font is, for every character. */
const measure: TextMeasure = (text, _face, size) => text.length * size * 0.63;
const today = '2026-11-23';
const show: Sheet['show'] = [...usualFacets];

function demo(): Network {
  const file: unknown = JSON.parse(
    readFileSync(new URL('../../../../../demo/marrow-sound-ferries.json', import.meta.url), 'utf8'),
  );
  const read = readExchange(Network.of({ project: [newProject('x')] }), file);
  if (!read.ok) throw new Error('demo');
  return read.network;
}
const network = demo();
const sheets = [...network.all('sheet')];

const pieces = (link: Pick<SceneLink, 'points'>): Box[] =>
  link.points.slice(1).map((to, at) => {
    const from = link.points[at] ?? to;
    return {
      x: Math.min(from.x, to.x),
      y: Math.min(from.y, to.y),
      width: Math.abs(from.x - to.x),
      height: Math.abs(from.y - to.y),
    };
  });
const shrink = (box: Box, by: number): Box => ({
  x: box.x + by,
  y: box.y + by,
  width: box.width - 2 * by,
  height: box.height - 2 * by,
});
const distance = (a: Point, box: Box): number =>
  Math.hypot(
    Math.max(box.x - a.x, 0, a.x - box.x - box.width),
    Math.max(box.y - a.y, 0, a.y - box.y - box.height),
  );

describe.each(sheets.map((sheet) => [sheet.name, sheet] as const))('the demo sheet %s', (_name, sheet) => {
  const scene: Scene = sheetScene(network, sheet, { measure, today });

  test('no two plates overlap', () => {
    scene.plates.forEach((plate, at) =>
      scene.plates.slice(at + 1).forEach((other) => expect(overlap(plate.box, other.box)).toBe(false)),
    );
  });

  test('no link passes through a plate', () => {
    for (const link of scene.links) {
      for (const piece of pieces(link)) {
        for (const plate of scene.plates) {
          expect([link.spoken, plate.name, overlap(shrink(plate.box, 1), piece)]).toEqual([
            link.spoken,
            plate.name,
            false,
          ]);
        }
      }
    }
  });

  test('links are made of horizontal and vertical pieces from end to end', () => {
    for (const link of scene.links) {
      expect(link.points[0]).toEqual(link.a.at);
      expect(link.points.at(-1)).toEqual(link.b.at);
      for (const piece of pieces(link)) expect(Math.min(piece.width, piece.height)).toBe(0);
    }
  });

  test('every port label stands beside its own end and on no plate', () => {
    for (const link of scene.links) {
      for (const which of ['a', 'b'] as const) {
        const end = link[which];
        if (end.plateId.startsWith('provider:')) continue;
        // At the hub of a bundle its count stands; the port is told where the link leaves the others.
        if (atHub(scene, link, which)) continue;
        // A switching or routing sheet says nothing where no VLAN or address is set.
        if (end.label === null && sheet.projection !== 'cabling') continue;
        if (end.label === null) throw new Error('no label');
        expect(distance(end.at, end.label.box)).toBeLessThan(12);
        for (const plate of scene.plates) expect(overlap(plate.box, end.label.box)).toBe(false);
      }
    }
  });

  test('two drawn lines never run over each other for more than a corner', () => {
    const lanes = drawnPaths(scene).flatMap((points, id) =>
      pieces({ points }).map((piece) => ({ id, piece })),
    );
    let shared = 0;
    lanes.forEach((a, at) =>
      lanes.slice(at + 1).forEach((b) => {
        if (a.id === b.id) return;
        const across = a.piece.height === 0 && b.piece.height === 0 && a.piece.y === b.piece.y;
        const upright = a.piece.width === 0 && b.piece.width === 0 && a.piece.x === b.piece.x;
        const from = across ? Math.max(a.piece.x, b.piece.x) : Math.max(a.piece.y, b.piece.y);
        const to = across
          ? Math.min(a.piece.x + a.piece.width, b.piece.x + b.piece.width)
          : Math.min(a.piece.y + a.piece.height, b.piece.y + b.piece.height);
        if ((across || upright) && to - from > 16) shared++;
      }),
    );
    expect(shared).toBe(0);
  });

  test('the aspect is between 1:1.6 and 3:1', () => {
    expect(scene.box.width / scene.box.height).toBeGreaterThan(0.6);
    expect(scene.box.width / scene.box.height).toBeLessThan(3);
  });

  test('each plate lies in the container of its place, and containers do not overlap', () => {
    for (const container of scene.containers) {
      for (const id of container.plateIds) {
        const plate = scene.plates.find((one) => one.id === id);
        expect(plate && overlap(container.box, plate.box)).toBe(true);
      }
    }
    const around = (id: string | null): string[] => {
      const parent = scene.containers.find((one) => one.id === id);
      return parent === undefined ? [] : [parent.id, ...around(parent.parentId)];
    };
    scene.containers.forEach((one, at) =>
      scene.containers
        .slice(at + 1)
        .filter(
          ({ id, parentId }) => !around(parentId).includes(one.id) && !around(one.parentId).includes(id),
        )
        .forEach((other) => expect(overlap(one.box, other.box)).toBe(false)),
    );
  });
});

const pair = (cables: number): { network: Network; sheet: Sheet } => {
  const ports = Array.from({ length: 12 }, (_, at) => ({
    name: `te1/${at + 1}`,
    connector: 'SFP+' as const,
  }));
  const made = networkOf({
    places: [{ path: 'Room' }],
    devices: [
      { name: 'a', role: 'SW', place: 'Room', ports },
      { name: 'b', role: 'SW', place: 'Room', ports },
    ],
    cables: Array.from({ length: cables }, (_, at) => ({
      label: `C-${at + 1}`,
      type: 'twinax 10G',
      a: `a:te1/${at + 1}`,
      b: `b:te1/${at + 1}`,
    })),
    sheets: [{ name: 'One', scope: 'Room', show }],
  });
  const [sheet] = [...made.all('sheet')];
  if (sheet === undefined) throw new Error('no sheet');
  return { network: made, sheet };
};

describe('arranging by hand', () => {
  test('four parallel links are four, five are a bundle with its ports', () => {
    const four = pair(4);
    expect(sheetScene(four.network, four.sheet, { measure, today }).links).toHaveLength(4);
    const five = pair(5);
    const [bundle, ...rest] = sheetScene(five.network, five.sheet, { measure, today }).links;
    expect(rest).toEqual([]);
    expect(bundle?.cableIds).toHaveLength(5);
    expect(bundle?.a.label?.text).toBe('te1/1–5');
  });

  test('a plate stays where it was put; dragged to the other side, each label keeps its own end', () => {
    const { network: start, sheet } = pair(2);
    const id = (name: string) => start.findOne('deviceByName', name)?.id ?? '';
    for (const [at, side] of [
      [{ x: 400, y: 0 }, 'right'],
      [{ x: -400, y: 0 }, 'left'],
      [{ x: 0, y: 304 }, 'bottom'],
      [{ x: 0, y: -304 }, 'top'],
    ] as const) {
      const set = placeOnSheet(
        start,
        sheet,
        new Map([
          [id('a'), { x: 0, y: 0 }],
          [id('b'), at],
        ]),
      );
      const applied = applyChanges(start, set.changes);
      if (!applied.ok) throw new Error('place');
      const scene = sheetScene(applied.network, sheet, { measure, today });
      expect(scene.plates.find((plate) => plate.id === id('b'))?.box).toMatchObject(at);
      for (const link of scene.links) {
        const own = link.a.plateId === id('a') ? link.a : link.b;
        expect(own.side).toBe(side);
        for (const end of [link.a, link.b]) {
          const box = scene.plates.find((plate) => plate.id === end.plateId)?.box;
          expect(
            box === undefined
              ? 99
              : distance(
                  {
                    x: (end.label?.box.x ?? 0) + (end.label?.box.width ?? 0) / 2,
                    y: (end.label?.box.y ?? 0) + (end.label?.box.height ?? 0) / 2,
                  },
                  box,
                ),
          ).toBeLessThan(40);
        }
      }
    }
  });

  test('a new device is placed near what it connects to; nothing else moves', () => {
    const { network: start, sheet } = pair(1);
    const before = sheetScene(start, sheet, { measure, today });
    const placed = applyChanges(
      start,
      placeOnSheet(start, sheet, new Map(before.plates.map((plate) => [plate.id, plate.box]))).changes,
    );
    if (!placed.ok) throw new Error('place');
    const read = readExchange(placed.network, {
      format: 'visograph-exchange',
      version: 1,
      devices: [{ name: 'c', role: 'SW', place: 'Room', ports: [{ name: '1' }] }],
      cables: [{ label: 'C-9', a: 'c:1', b: 'a:te1/9' }],
    });
    if (!read.ok) throw new Error('read');
    const after = sheetScene(read.network, sheet, { measure, today });
    for (const plate of before.plates)
      expect(after.plates.find((one) => one.id === plate.id)?.box).toMatchObject({
        x: plate.box.x,
        y: plate.box.y,
      });
    const [fresh] = after.plates.filter((plate) => plate.name === 'c');
    const near = after.plates.find((plate) => plate.name === 'a');
    expect(fresh && near && distance(fresh.box, near.box)).toBeLessThan(200);
    for (const plate of before.plates) expect(fresh && overlap(fresh.box, plate.box)).toBe(false);
  });

  test('while dragging, the ends of the links follow the plate', () => {
    const { network: start, sheet } = pair(1);
    const scene = sheetScene(start, sheet, { measure, today });
    const [plate] = scene.plates;
    if (plate === undefined) throw new Error('no plate');
    const moved = dragScene(scene, new Map([[plate.id, { x: plate.box.x + 80, y: plate.box.y + 40 }]]));
    const [link] = moved.links;
    const [was] = scene.links;
    const end = (one: SceneLink | undefined) => (one?.a.plateId === plate.id ? one.a : one?.b);
    expect(end(link)?.at).toEqual({ x: (end(was)?.at.x ?? 0) + 80, y: (end(was)?.at.y ?? 0) + 40 });
  });
});

describe('elevation', () => {
  test('unit 1 is at the bottom; a full-depth device shows its back', () => {
    const room = smallRoom();
    const scene = elevationScene(room, rackNamed(room, 'KQ-A1'));
    const [front, rear] = scene.faces;
    expect(front?.units[0]).toEqual({ unit: 42, y: 0, free: false });
    expect(front?.plates.find((plate) => plate.name === 'kq-core-1')?.box.y).toBe((42 - 38) * unitHeight);
    expect(rear?.plates.map((plate) => [plate.name, plate.form, plate.back])).toEqual([
      ['kq-core-1', 'device', true],
      ['KQ-A1-PDA', 'side', false],
    ]);
    expect(front?.units.filter((unit) => unit.free)).toHaveLength(40);
  });

  test('ports say whether they are used', () => {
    const room = smallRoom();
    const plate = elevationScene(room, rackNamed(room, 'KQ-A1')).faces[0]?.plates.find(
      (one) => one.name === 'KQ-A1-PP1',
    );
    expect(plate?.ports.filter((port) => port.used).map((port) => port.name)).toEqual(['F1']);
    expect(plate?.spoken).toBe('KQ-A1-PP1, patch panel, unit 42, 2 of 48 ports used');
  });
});
