import { expect, test } from '@jest/globals';
import { readPdf } from '../sheets/printing/testPdf.ts';
import { contentsPages, documentSetPdf } from './documentSet.ts';
import type { PrintedSchedule } from './schedulePdf.ts';

const schedule = (name: string, rows: number): PrintedSchedule => ({
  title: name,
  under: ['Quay · 3 rows'],
  heads: [{ key: 'name', label: 'Name' }],
  lines: Array.from({ length: rows }, (_, at) => ({
    form: 'row' as const,
    level: 0,
    cells: [`${name}-${at}`],
  })),
  notes: null,
});

test('contents take as many pages as they need, and every number in them is true', async () => {
  const schedules = Array.from({ length: 95 }, (_, at) => schedule(`List ${at + 1}`, at % 3 === 0 ? 120 : 2));
  const bytes = await documentSetPdf({ title: 'All of it', under: 'r7', sheets: [], schedules });
  const { pages, links, bookmarks } = await readPdf(bytes);
  const before = contentsPages(schedules.length);
  expect(before).toBe(3);
  expect(bookmarks).toHaveLength(96);
  expect(links).toHaveLength(95);
  expect(new Set(links.map(({ from }) => from))).toEqual(new Set([0, 1, 2]));
  links.forEach(({ to }, at) => expect(pages[to]?.text).toMatch(new RegExp(`^List ${at + 1}\\b`)));
  const contents = pages
    .slice(0, before)
    .map(({ text }) => text)
    .join(' ');
  links.forEach(({ to }, at) =>
    expect(contents).toMatch(new RegExp(`List ${at + 1} Schedule\\s+${to + 1}\\b`)),
  );
});

test.each([
  [0, 1],
  [1, 1],
  [35, 1],
  [200, 6],
])('%i entries take %i contents pages', (entries, pages) => {
  expect(contentsPages(entries)).toBe(pages);
});
