import { describe, expect, test } from '@jest/globals';
import type { QuotationSection } from '../model/kinds/purchase/quotation.ts';
import { movedLine, movedSection } from './movedLine.ts';

const line = (what: string) => ({
  ...{ what, partNumber: null, detail: null, model: null, unit: 'piece' as const },
  ...{ count: 1, unitMinor: 100, discount: 0, tax: 1900, optional: false },
});
const sections: QuotationSection[] = [
  { name: 'Devices', discount: 0, lines: [line('a'), line('b')] },
  { name: 'Options', discount: 500, lines: [] },
  { name: 'Cables', discount: 0, lines: [line('c')] },
];
const told = (of: readonly QuotationSection[] | undefined): string =>
  (of ?? []).map(({ name, lines }) => `${name}: ${lines.map(({ what }) => what).join(' ')}`).join('; ');

describe('a line of a quotation', () => {
  test.each<[number, number, -1 | 1, string]>([
    [0, 0, 1, 'Devices: b a; Options: ; Cables: c'],
    [0, 1, -1, 'Devices: b a; Options: ; Cables: c'],
    [0, 1, 1, 'Devices: a; Options: b; Cables: c'],
    [2, 0, -1, 'Devices: a b; Options: c; Cables: '],
  ])('of section %i, place %i, moves by %i', (section, at, by, expected) => {
    expect(told(movedLine(sections, { section, line: at }, by)?.sections)).toBe(expected);
  });

  test('stays where there is nowhere to go, or where it is not', () => {
    expect(movedLine(sections, { section: 0, line: 0 }, -1)).toBeNull();
    expect(movedLine(sections, { section: 2, line: 0 }, 1)).toBeNull();
    expect(movedLine(sections, { section: 1, line: 0 }, 1)).toBeNull();
    expect(movedLine(sections, { section: 9, line: 0 }, 1)).toBeNull();
  });

  test('goes all the way down and back up through every place, and none is lost on the way', () => {
    let [now, spot] = [sections, { section: 0, line: 0 }];
    const seen: string[] = [];
    for (let moved = movedLine(now, spot, 1); moved !== null; moved = movedLine(now, spot, 1)) {
      [now, spot] = [moved.sections, moved.spot];
      seen.push(told(now));
      expect(now[spot.section]?.lines[spot.line]?.what).toBe('a');
    }
    expect(seen).toHaveLength(4);
    for (let moved = movedLine(now, spot, -1); moved !== null; moved = movedLine(now, spot, -1))
      [now, spot] = [moved.sections, moved.spot];
    expect(now).toEqual(sections);
  });
});

test('a section moves with all of it', () => {
  expect(told(movedSection(sections, 0, 1) ?? [])).toBe('Options: ; Devices: a b; Cables: c');
  expect(movedSection(sections, 0, -1)).toBeNull();
  expect(movedSection(sections, 2, 1)).toBeNull();
});
