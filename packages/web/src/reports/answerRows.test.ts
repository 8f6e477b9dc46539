import { describe, expect, test } from '@jest/globals';
import { answerOf, findReport, builtInQuestion } from '@visograph/core/report';
import type { Question } from '@visograph/core/model';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { copiedText, filledDown, pastedEdits } from '../kit/grid/gridEdits.ts';
import { answerColumns, answerRows, rowIdOf } from './answerRows.ts';

const demo = demoNetwork();
const report = findReport('devices');
if (report === null) throw new Error('devices');
const question: Question = {
  ...builtInQuestion(demo, report),
  columns: ['place', 'name', 'serial', 'ports'].map((key) => ({
    ...{ key, title: null, width: null },
    total: key === 'ports' ? ('mean' as const) : null,
  })),
  filters: [{ key: 'role', test: 'is', value: 'switch' }],
  groups: ['place'],
  order: [{ key: 'name', descending: false }],
  blankRepeats: true,
};
const answer = answerOf(demo, question, null, '2026-11-30');
if (answer === null) throw new Error('no answer');
const rows = answerRows(answer, question);
const columns = answerColumns(answer, false);

describe('an answer as rows of a grid', () => {
  test('a heading for each group with its mean, one for all at the foot, rows between', () => {
    const headings = rows.filter(({ heading }) => heading !== undefined);
    expect(rows[0]?.heading).toBe(0);
    expect(rows.at(-1)?.cells['place']).toMatch(/^In all$/);
    expect(headings.every(({ cells }) => String(cells['ports']).startsWith('mean '))).toBe(true);
    expect(rows.filter(({ heading }) => heading === undefined)).toHaveLength(answer.count);
  });

  test('a repeated value is known and shown empty; its row leads to its device', () => {
    const second = rows.findIndex(
      (row, at) => row.heading === undefined && rows[at - 1]?.heading === undefined,
    );
    const row = rows[second];
    expect(row?.cells['place']).toBe(rows[second - 1]?.cells['place']);
    expect(row?.repeats?.has('place')).toBe(true);
    expect(row?.repeats?.has('name')).toBe(false);
    expect(demo.get('device', rowIdOf(row?.id ?? ''))?.name).toBe(row?.cells['name']);
  });

  test('what can be typed in is told from what is worked out', () => {
    expect(columns.map(({ key, editable, worked }) => [key, editable, worked ?? false])).toEqual([
      ['place', false, true],
      ['name', true, false],
      ['serial', true, false],
      ['ports', false, true],
    ]);
    expect(answerColumns(answer, true)[0]?.label).toBe('No.');
  });

  test('nothing is pasted or filled into a heading, and it is copied as it reads', () => {
    const serial = columns.findIndex(({ key }) => key === 'serial');
    const block = (from: number, to: number) => ({
      rows: [from, to] as [number, number],
      columns: [serial, serial] as [number, number],
    });
    expect(pastedEdits(columns, rows, { row: 0, column: serial }, 'X-1\nX-2')).toEqual([
      { id: rows[1]?.id, key: 'serial', text: 'X-2' },
    ]);
    expect(filledDown(columns, rows, block(0, 2))).toEqual([]);
    const next = rows.findIndex((row, at) => at > 1 && row.heading !== undefined);
    const filled = filledDown(columns, rows, block(next - 1, next + 1));
    expect(filled.map(({ id }) => id)).toEqual([rows[next + 1]?.id]);
    expect(copiedText(columns, rows, { rows: [0, 0], columns: [0, 0] })).toBe(rows[0]?.cells['place']);
  });
});
