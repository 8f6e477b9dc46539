import { describe, expect, jest, test } from '@jest/globals';
import {
  blankCable,
  blankDevice,
  blankModel,
  blankPlace,
  blankPort,
  blankRack,
  blankSheet,
  blankSheetItem,
  kindNames,
  portGroupSchema,
  kinds,
  newId,
  newProject,
  type Kind,
  type Network,
} from '@visograph/core/model';
import type { Knex } from 'knex';
import { ProjectStore } from '../store/projectStore.ts';
import { testDatabase } from '../testServer.ts';
import { connect } from './connect.ts';
import { jsonFieldsOf, snake } from './rows.ts';
import { migrate, stepCount } from './schema.ts';

jest.setTimeout(120_000);

type Fields = Record<string, unknown> & { id: string };

/** The step before which things were called otherwise. */
const renamed = 10;
/** A row as it was called before that: the names are written out here once more, so that they cannot change along. */
const before10: Partial<Record<Kind, (row: Fields) => Fields>> = {
  place: ({ vlanNumberingId, ...row }) => ({ ...row, vlanGroupId: vlanNumberingId }),
  rack: ({ widthMm: _width, ...row }) => ({ ...row, widthIn: 19 }),
  model: ({ fillsBothFaces, portGroups, ...row }) => ({
    ...row,
    fullDepth: fillsBothFaces,
    portGroups: row['form'] === 'device' ? oldGroups : portGroups,
  }),
  device: ({ fillsBothFaces, ...row }) => ({ ...row, fullDepth: fillsBothFaces }),
  port: ({ leadsToId, leadsToStrand, vlanNumberingId, role, ...row }) => ({
    ...row,
    role: role === 'panel' ? 'passThrough' : role,
    passThroughId: leadsToId,
    passThroughStrand: leadsToStrand,
    vlanGroupId: vlanNumberingId,
  }),
  sheet: (row) => ({ ...row, templates: { all: '{place.code} [1-2]' } }),
  sheetItem: ({ subjectKind: _kind, subjectId, ...row }) => ({
    ...row,
    deviceId: subjectId,
    placeId: null,
    circuitId: null,
    prefixId: null,
  }),
};
const oldNames: Readonly<Record<string, string>> = {
  fillsBothFaces: 'fullDepth',
  widthMm: 'widthIn',
  leadsToId: 'passThroughId',
  leadsToStrand: 'passThroughStrand',
  subjectKind: 'deviceId',
  subjectId: 'deviceId',
};
const newGroups = [
  portGroupSchema.parse({ pattern: 'F1-12', connector: 'LC', role: 'panel', rearPattern: 'R1-12' }),
  portGroupSchema.parse({ pattern: 'eth1--2', connector: 'RJ45' }),
];
const oldGroups = newGroups.map((group, at) =>
  at === 0
    ? { ...group, role: 'passThrough', pattern: 'F[1-12]', rearPattern: 'R[1-12]' }
    : { ...group, pattern: 'eth1-2' },
);

/** Two switches in a rack, cabled and drawn: kinds that have been there from the first step on. */
function rowsOf(): { kind: Kind; row: Fields }[] {
  const [place, rack, sw, cord, a, b, a1, b1, f1, r1, cable, sheet] = Array.from({ length: 12 }, () =>
    newId(),
  ) as [string, string, string, string, string, string, string, string, string, string, string, string];
  const device = { ...blankDevice, role: 'SW', modelId: sw, rackId: rack };
  return [
    {
      kind: 'place',
      row: { ...blankPlace, id: place, name: 'Kelder Quay', kind: 'site', parentId: null, code: 'kq' },
    },
    {
      kind: 'rack',
      row: { ...blankRack, id: rack, name: 'KQ-1', placeId: place, units: 42, numbering: 'up', position: 0 },
    },
    {
      kind: 'model',
      row: {
        ...{ ...blankModel, id: sw, name: 'Switch 2', maker: 'Norvane', form: 'device', role: 'SW' },
        portGroups: newGroups,
      },
    },
    {
      kind: 'model',
      row: { ...blankModel, id: cord, name: 'Cord', form: 'cable', medium: 'Cat 6', ends: ['RJ45', 'RJ45'] },
    },
    { kind: 'device', row: { ...device, id: a, name: 'kq-1', unit: 1 } },
    { kind: 'device', row: { ...device, id: b, name: 'kq-2', unit: 2 } },
    { kind: 'port', row: { ...blankPort, id: a1, deviceId: a, name: 'gi1', connector: 'RJ45', ordinal: 0 } },
    { kind: 'port', row: { ...blankPort, id: b1, deviceId: b, name: 'gi1', connector: 'RJ45', ordinal: 0 } },
    {
      kind: 'port',
      row: { ...blankPort, id: f1, deviceId: a, name: 'F1', role: 'panel', leadsToId: r1, ordinal: 1 },
    },
    {
      kind: 'port',
      row: { ...blankPort, id: r1, deviceId: a, name: 'R1', role: 'panel', leadsToId: f1, ordinal: 2 },
    },
    {
      kind: 'cable',
      row: { ...blankCable, id: cable, label: 'K-00001', typeId: cord, aPortId: a1, bPortId: b1 },
    },
    {
      kind: 'sheet',
      row: {
        ...blankSheet,
        id: sheet,
        name: 'Quay',
        projection: 'cabling',
        scopeId: place,
        templates: { all: '{site code} [1-2]' },
      },
    },
    {
      kind: 'sheetItem',
      row: {
        ...blankSheetItem,
        id: newId(),
        sheetId: sheet,
        subjectKind: 'device',
        subjectId: a,
        x: 0,
        y: 0,
      },
    },
  ];
}

/** The rows as a server of that step wrote them: the fields that had a column then. */
async function asOf(
  knex: Knex,
  step: number,
  rows: readonly { kind: Kind; row: Fields }[],
): Promise<{ kind: Kind; row: Fields }[]> {
  const { rows: columns } = await knex.raw<{ rows: { table: string; column: string }[] }>(
    `SELECT table_name AS "table", column_name AS "column" FROM information_schema.columns WHERE table_schema = 'public'`,
  );
  const there = new Set(columns.map(({ table, column }) => `${table}.${column}`));
  return rows.map(({ kind, row: now }) => ({
    kind,
    row: Object.fromEntries(
      Object.entries(step < renamed ? (before10[kind]?.(now) ?? now) : now).filter(([field]) =>
        there.has(`${snake(kind)}.${snake(field)}`),
      ),
    ) as Fields,
  }));
}

const kept = (kind: Kind, row: Fields): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(row).map(([field, value]) => [
      field,
      jsonFieldsOf(kind).includes(field) && value !== null ? JSON.stringify(value) : value,
    ]),
  );

/** What a project was left like: everything made at r1, a cable taken out at r2. */
async function leave(
  knex: Knex,
  step: number,
  accountId: string,
): Promise<{ projectId: string; rows: { kind: Kind; row: Fields }[] }> {
  const project = newProject('Old');
  const made = rowsOf();
  const rows = await asOf(knex, step, made);
  const [own] = await asOf(knex, step, [{ kind: 'project', row: project }]);
  await knex('account').insert({
    id: accountId,
    email: 'old@marrow.example',
    name: 'Old',
    passwordHash: 'x',
  });
  await knex('project').insert({ ...kept('project', own?.row ?? { id: '' }), revision: 2 });
  const cable = rows.find(({ kind }) => kind === 'cable');
  await knex.transaction(async (transaction) => {
    for (const { kind, row } of rows)
      if (kind !== 'cable')
        await transaction(snake(kind)).insert({ ...kept(kind, row), projectId: project.id });
  });
  const entries = [
    {
      sentence: 'Made it',
      changes: rows.map(({ kind, row }) => ({ op: 'create', kind, id: row.id, after: row })),
    },
    {
      sentence: 'Took a cable out',
      changes: [{ op: 'delete', kind: 'cable', id: cable?.row.id, before: cable?.row }],
    },
  ];
  const state = (await knex.schema.hasColumn('change_set', 'state')) ? { state: 'as built' } : {};
  for (const [at, { sentence, changes }] of entries.entries())
    await knex('changeSet').insert({
      ...{
        id: newId(),
        projectId: project.id,
        revision: at + 1,
        authorId: accountId,
        author: 'Old',
        sentence,
      },
      ...{ changes: JSON.stringify(changes), undoes: null, redoes: null, ...state },
    });
  // What is expected: today's rows, with those of their fields that there were.
  const expected = made.map(({ kind, row }, at) => ({
    kind,
    row: Object.fromEntries(
      Object.entries(row).filter(([field]) => {
        const then = rows[at]?.row ?? {};
        return field in then || (oldNames[field] ?? field) in then;
      }),
    ) as Fields,
  }));
  return { projectId: project.id, rows: expected };
}

const broken = (network: Network): string[] =>
  kindNames.flatMap((kind) =>
    [...network.all(kind)].flatMap((row) => {
      const read = kinds[kind].schema.safeParse(row);
      return read.success
        ? []
        : [`${kind}: ${read.error.issues[0]?.path.join('.') ?? ''} ${read.error.issues[0]?.message ?? ''}`];
    }),
  );

describe('what was written before a step of the database', () => {
  test.each(Array.from({ length: stepCount }, (_, at) => at + 1))(
    'after step %i: its rows, its history and what can be undone are there in the newest',
    async (step) => {
      const database = await testDatabase();
      const knex = connect(database.url);
      try {
        await migrate(knex, step);
        const accountId = newId();
        const { projectId, rows } = await leave(knex, step, accountId);
        await migrate(knex);
        const store = new ProjectStore(knex, 'visograph', newId());
        const now = await store.read(projectId);
        expect([now.revision, now.network.count('cable'), now.network.count('device')]).toEqual([2, 0, 2]);
        expect(broken(now.network)).toEqual([]);
        const then = (await store.at(projectId, null, 1)).network;
        expect(broken(then)).toEqual([]);
        // What a sheet shows was put in other words by the fourth step.
        for (const { kind, row } of rows) {
          const { show: _show, ...fields } = row;
          expect(then.get(kind, row.id)).toMatchObject(fields);
        }
        const history = await store.history(projectId, null, { before: null, rowId: null, most: 10 });
        expect(history.map(({ sentence }) => sentence)).toEqual(['Took a cable out', 'Made it']);
        const undone = await store.step(projectId, null, { id: accountId, name: 'Old' }, 'undo');
        expect(undone).toMatchObject({ ok: true, entry: { line: null, base: null, undoes: 2, revision: 3 } });
        expect((await store.read(projectId)).network.count('cable')).toBe(1);
        // All of it taken back and made again: what was left blank then is so now.
        const old = { id: accountId, name: 'Old' };
        expect((await store.step(projectId, null, old, 'undo')).ok).toBe(true);
        expect((await store.read(projectId)).network.count('device')).toBe(0);
        expect((await store.step(projectId, null, old, 'redo')).ok).toBe(true);
        expect(broken((await store.read(projectId)).network)).toEqual([]);
        // And a plan can be begun over it.
        const plan = await store.plans.begin(
          projectId,
          { id: accountId, name: 'Old' },
          { name: 'Next', purpose: null },
        );
        expect(plan.ok && (await store.read(projectId, plan.plan.id)).network.count('device')).toBe(2);
      } finally {
        await knex.destroy();
        await database.end();
      }
    },
  );
});
