import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { applyChanges } from '../../change/apply.ts';
import type { ChangeSet } from '../../change/change.ts';
import {
  bringBack,
  collapsePlace,
  leaveOut,
  placeOnSheet,
  setFacet,
  setItems,
} from '../../sheets/commands/sheets.ts';
import { readExchange } from '../../exchange/read.ts';
import { newId } from '../../model/values/ids.ts';
import { newProject } from '../../model/kinds/sites/project.ts';
import { blankSheet, plainReading, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import { Network } from '../../model/network/network.ts';
import { networkOf } from '../../testing/testNetwork.ts';
import { mostDevices } from '../../sheets/graph/containers.ts';
import { planOf } from '../../sheets/projection/plan.ts';
import type { DrawingPlan } from '../../sheets/scene/drawingPlan.ts';
import type { TextMeasure } from '../../sheets/layout/textMeasure.ts';
import { sheetScene } from '../../report/sheetPlan.ts';
import { sceneOf } from '../../sheets/scene/sceneOf.ts';

const measure: TextMeasure = (text, _face, size) => text.length * size * 0.63;
const today = '2026-11-23';

const read = readExchange(
  Network.of({ project: [newProject('x')] }),
  JSON.parse(readFileSync(new URL('../../../../../demo/marrow-sound-ferries.json', import.meta.url), 'utf8')),
);
if (!read.ok) throw new Error('demo');
const demo = read.network;
const place = (name: string): string => [...demo.all('place')].find((one) => one.name === name)?.id ?? '';
const device = (name: string): string => demo.findOne('deviceByName', name)?.id ?? '';
const sheetOf = (fields: Partial<Sheet>): Sheet => ({ ...blankSheet, id: newId(), name: 'Test', ...fields });
const plan = (fields: Partial<Sheet>, network = demo): DrawingPlan =>
  planOf(network, sheetOf(fields), { today });
const done = (network: Network, set: ChangeSet): Network => {
  const applied = applyChanges(network, set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};
/** The demo with a sheet in it. */
const withSheet = (fields: Partial<Sheet>): { network: Network; sheet: Sheet } => {
  const sheet = sheetOf(fields);
  return {
    sheet,
    network: done(demo, {
      changes: [{ op: 'create', kind: 'sheet', id: sheet.id, after: sheet }],
      sentence: '',
    }),
  };
};
const names = (of: DrawingPlan): string[] => of.graph.nodes.map((node) => node.name);

describe('how a sheet reads the model', () => {
  test('through panels: no panel is left, and a run of three cables is one link with all of them', () => {
    const scope = place('Kelder Quay');
    const through = plan({ scopeId: scope, reading: { ...plainReading, throughPanels: true } });
    expect(through.graph.nodes.filter((node) => node.role === 'PP')).toEqual([]);
    const [a, b] = [device('kq-core-1'), device('kq-acc-5')];
    const link = through.graph.links.find((one) => [a, b].includes(one.a) && [a, b].includes(one.b));
    expect(link?.cables.map((cable) => cable.kind)).toEqual(['cable', 'cable', 'cable']);
    expect(link?.text).toMatch(/^KQ-\d+ \+2$/);
  });

  test('end devices fold under their switch; one fold opens alone, or all of them', () => {
    const scopeId = place('Kelder Quay');
    const folded = plan({ scopeId });
    const [fold, ...others] = folded.graph.nodes.filter((node) => node.form === 'fold');
    if (fold === undefined) throw new Error('nothing is folded');
    expect(fold.deviceIds.length).toBeGreaterThan(1);
    const open = plan({ scopeId, reading: { ...plainReading, unfolded: [fold.id] } });
    expect(open.graph.nodes.filter((node) => node.form === 'fold')).toHaveLength(others.length);
    expect(open.graph.nodes).toHaveLength(folded.graph.nodes.length - 1 + fold.deviceIds.length);
    const all = plan({ scopeId, reading: { ...plainReading, unfolded: true } });
    expect(all.graph.nodes.filter((node) => node.form === 'fold')).toEqual([]);
    const drawn = (of: DrawingPlan): number =>
      of.graph.nodes.reduce((sum, node) => sum + node.deviceIds.length, 0);
    expect(drawn(all)).toBe(drawn(folded));
  });

  test('a redundant pair that is cabled to itself is one plate; the cables between are inside it', () => {
    const apart = plan({ scopeId: place('Data room') });
    const paired = plan({ scopeId: place('Data room'), reading: { ...plainReading, pairs: true } });
    expect(names(apart)).toContain('kq-core-1');
    expect(names(paired)).toContain('kq-core-1 / 2');
    expect(names(paired)).toContain('kq-fw-1 / 2');
    // The edge routers have no cable to each other: they are two.
    expect(names(paired)).toEqual(expect.arrayContaining(['kq-edge-1', 'kq-edge-2']));
    expect(paired.graph.links.every((link) => link.a !== link.b)).toBe(true);
  });

  test('racks are containers inside the container of their room', () => {
    const { graph } = plan({ scopeId: place('Data room'), reading: { ...plainReading, racks: true } });
    const rack = graph.containers.find((container) => container.title === 'KQ-A1');
    const room = graph.containers.find((container) => container.id === place('Data room'));
    expect(rack).toMatchObject({ form: 'rack', parentId: room?.id });
    const scene = sheetScene(
      demo,
      sheetOf({ scopeId: place('Data room'), reading: { ...plainReading, racks: true } }),
      {
        measure,
        today,
      },
    );
    const box = (id: string | undefined) => scene.containers.find((one) => one.id === id)?.box;
    const [inner, outer] = [box(rack?.id), box(room?.id)];
    expect(inner && outer && inner.x >= outer.x && inner.y >= outer.y).toBe(true);
    expect(inner && outer && inner.x + inner.width <= outer.x + outer.width).toBe(true);
  });

  test('a closed place is one plate that keeps the links outward', () => {
    const { network, sheet } = withSheet({ scopeId: place('Kelder Quay') });
    const before = planOf(network, sheet, { today });
    const closed = done(network, collapsePlace(network, sheet, place('Data room'), true));
    const after = planOf(closed, sheet, { today });
    const plate = after.graph.nodes.find((node) => node.form === 'place');
    expect(plate).toMatchObject({ name: 'Data room', id: `place:${place('Data room')}` });
    const inside = new Set(plate?.deviceIds);
    const outward = before.graph.links.filter((link) => inside.has(link.a) !== inside.has(link.b));
    const cables = (links: typeof outward): Set<string> =>
      new Set(links.flatMap((link) => link.cables.map((cable) => cable.id)));
    const kept = after.graph.links.filter((link) => link.a === plate?.id || link.b === plate?.id);
    expect(cables(kept)).toEqual(cables(outward));
    const opened = done(closed, collapsePlace(closed, sheet, place('Data room'), false));
    expect(planOf(opened, sheet, { today }).graph).toEqual(before.graph);
  });

  test('what was left out goes with its plate, and what was linked to it shows a stub that names it', () => {
    const { network, sheet } = withSheet({ scopeId: place('Data room') });
    const left = done(network, leaveOut(network, sheet, [device('kq-core-2')]));
    const after = planOf(left, sheet, { today });
    expect(names(after)).not.toContain('kq-core-2');
    expect(after.away.map((one) => one.name)).toEqual(['kq-core-2']);
    const own = after.graph.stubs.filter((stub) => stub.a === device('kq-core-1'));
    expect(own.map((stub) => stub.text)).toEqual(
      expect.arrayContaining([expect.stringMatching(/^kq-core-2 hu1\//)]),
    );
    const scene = sceneOf(after, { measure });
    expect(scene.stubs.length).toBe(after.graph.stubs.length);
    for (const stub of scene.stubs) expect(stub.label?.text).toMatch(/^kq-core-2 /);
    const back = done(left, bringBack(left, sheet, [device('kq-core-2')]));
    expect(names(planOf(back, sheet, { today }))).toContain('kq-core-2');
  });

  test('a picked sheet draws its devices alone', () => {
    const { network, sheet } = withSheet({ picked: true });
    const ids = ['kq-core-1', 'kq-core-2', 'kq-edge-1'].map(device);
    const picked = done(
      network,
      setItems(network, sheet, new Map(ids.map((id) => [id, {}])), () => 'Picked'),
    );
    const { graph } = planOf(picked, sheet, { today });
    expect(graph.nodes.flatMap((node) => node.deviceIds).sort()).toEqual([...ids].sort());
    expect(graph.stubs.length).toBeGreaterThan(5);
  });

  test('new devices wait in the tray where the sheet says so, once it was arranged', () => {
    const waiting = { ...plainReading, newcomers: 'wait' as const };
    const { network, sheet } = withSheet({ scopeId: place('Data room'), reading: waiting });
    expect(planOf(network, sheet, { today }).waiting).toEqual([]);
    const arranged = done(
      network,
      placeOnSheet(network, sheet, new Map([[device('kq-core-1'), { x: 0, y: 0 }]])),
    );
    const after = planOf(arranged, sheet, { today });
    expect(names(after)).toContain('kq-core-1');
    expect(names(after)).not.toContain('kq-core-2');
    expect(after.waiting.map((one) => one.name)).toContain('kq-core-2');
  });

  test('a circuit with one end leads to a plate of its provider', () => {
    const { graph } = plan({ scopeId: place('Kelder Quay') });
    const provider = graph.nodes.find((node) => node.form === 'provider' && node.name === 'Skerrynet');
    expect(provider?.code).toBe('EX');
    expect(graph.links.some((link) => link.b === provider?.id && link.medium === 'circuit')).toBe(true);
  });

  test('the sites and what joins them', () => {
    const { graph } = plan({ projection: 'sites' });
    const sites = graph.nodes.filter((node) => node.form === 'place');
    expect(sites.map((node) => node.name).sort()).toEqual(
      ['Ashholm', 'Brinsay', 'Kelder Quay', 'MV Petrel', 'MV Sandpiper', 'Otterslip', 'msf-booking'].sort(),
    );
    expect(sites.find((node) => node.name === 'Kelder Quay')?.lines).toEqual([
      '62 devices · 4 racks',
      expect.stringMatching(/^\d+ of \d+ ports used$/),
    ]);
    const radio = graph.links.find((link) => link.medium === 'radio');
    const ends = [radio?.a, radio?.b].map((id) => graph.nodes.find((node) => node.id === id)?.name).sort();
    expect(ends).toEqual(['Brinsay', 'Otterslip']);
  });

  test('too many devices are not drawn: their number is told', () => {
    const devices = Array.from({ length: mostDevices + 1 }, (_, at) => ({
      name: `d-${at}`,
      role: 'SV' as const,
      place: 'Hall',
      ports: [{ name: '1' }],
    }));
    const many = networkOf({ places: [{ path: 'Hall' }], devices });
    const refused = planOf(many, sheetOf({}), { today });
    expect(refused.tooMany).toBe(mostDevices + 1);
    expect(refused.graph.nodes).toEqual([]);
  });

  test('a scope without devices is an empty drawing', () => {
    const empty = networkOf({ places: [{ path: 'Hall' }] });
    const scene = sheetScene(empty, sheetOf({}), { measure, today });
    expect([scene.plates, scene.links, scene.containers]).toEqual([[], [], []]);
    expect(Number.isFinite(scene.box.width)).toBe(true);
  });
});

describe('facets', () => {
  const scopeId = place('Data room');
  const text = (sheet: Sheet): string => JSON.stringify(sheetScene(demo, sheet, { measure, today }));
  const hide = (facet: Parameters<typeof setFacet>[1]): Sheet => {
    const sheet = sheetOf({ scopeId });
    const [change] = setFacet(sheet, facet, 'hidden').changes;
    if (change?.op !== 'update') throw new Error('nothing changed');
    return { ...sheet, ...(change.after as Partial<Sheet>) };
  };

  test.each([
    ['names', /kq-core-1|kq-srv-1/],
    ['portNames', /te1\/1\b|hu1\/31|eno1/],
    ['cableLabels', /KQ-000\d\d/],
    ['models', /CR-6032|AX-2448P/],
    ['places', /KQ-A1 U38/],
  ] as const)('hidden %s are not in the scene at all', (facet, fact) => {
    expect(text(sheetOf({ scopeId }))).toMatch(fact);
    // A link keeps the label of its cable for what a click selects: that goes to no file.
    const scene = sheetScene(demo, hide(facet), { measure, today });
    const { links, stubs, ...rest } = scene;
    const seen = links.map(({ line: _line, ...link }) => link);
    expect(JSON.stringify([rest, stubs, seen])).not.toMatch(fact);
  });

  test('faded and locked say so on what they are about', () => {
    const sheet = { ...sheetOf({ scopeId }), faded: ['links' as const], locked: ['containers' as const] };
    const scene = sheetScene(demo, sheet, { measure, today });
    expect(scene.links.every((link) => link.faded)).toBe(true);
    expect(scene.plates.every((plate) => !plate.faded && !plate.locked)).toBe(true);
    expect(scene.containers.every((container) => container.locked)).toBe(true);
  });

  test('a group hides, fades and locks its members, and passes over what is gone', () => {
    const group = {
      id: newId(),
      name: 'Core',
      members: [device('kq-core-1'), newId()],
      state: 'hidden' as const,
    };
    const hidden = plan({ scopeId, groups: [group] });
    expect(names(hidden)).not.toContain('kq-core-1');
    expect(hidden.graph.links.some((link) => [link.a, link.b].includes(device('kq-core-1')))).toBe(false);
    const faded = sceneOf(plan({ scopeId, groups: [{ ...group, state: 'faded' }] }), { measure });
    expect(faded.plates.filter((plate) => plate.faded).map((plate) => plate.name)).toEqual(['kq-core-1']);
    const locked = sceneOf(plan({ scopeId, groups: [{ ...group, state: 'locked' }] }), { measure });
    expect(locked.plates.filter((plate) => plate.locked).map((plate) => plate.name)).toEqual(['kq-core-1']);
  });
});

describe('label templates', () => {
  const lines = (template: string, name: string): string[] | undefined =>
    plan({ scopeId: place('Data room'), templates: { all: template } }).graph.nodes.find(
      (node) => node.name === name,
    )?.lines;

  test('facts are filled in; a line with a missing one is left out', () => {
    expect(lines('{model} · {role}\n{serial}\n{shelf}\nalways', 'kq-core-1')).toEqual([
      'CR-6032 · switch',
      expect.stringMatching(/^NO|^NV|\w/),
      'always',
    ]);
    expect(lines('{rack} {unit}\n{site code}', 'kq-core-1')).toEqual(['KQ-A1 U38', 'KQ']);
  });

  test('a role can have its own', () => {
    const own = plan({ scopeId: place('Data room'), templates: { all: 'all', FW: 'wall {name}' } });
    const of = (name: string) => own.graph.nodes.find((node) => node.name === name)?.lines;
    expect([of('kq-fw-1'), of('kq-core-1')]).toEqual([['wall kq-fw-1'], ['all']]);
  });
});

describe('colours', () => {
  test('the key holds the values that occur, and links take the colour of their medium', () => {
    const byModel = plan({ scopeId: place('Data room'), colourBy: 'model' });
    expect(byModel.key.filter((entry) => entry.form === 'shade').map((entry) => entry.text)).toContain(
      'CR-6032',
    );
    const byMedium = plan({ scopeId: place('Data room'), colourBy: 'medium' });
    const shades = new Map(byMedium.graph.links.map((link) => [link.medium, JSON.stringify(link.shade)]));
    expect(new Set(shades.values()).size).toBe(shades.size);
    expect(plan({ scopeId: place('Data room') }).graph.links.every((link) => link.shade === null)).toBe(true);
  });
});
