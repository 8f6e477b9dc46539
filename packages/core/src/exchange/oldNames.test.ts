import { describe, expect, test } from '@jest/globals';
import { expandPortPattern } from '../model/values/portPattern.ts';
import { changeNow, namesNow, patternNow } from './oldNames.ts';

/** What a pattern stood for before, worked out by its own rules: ranges in brackets, a slot in braces, all else the name. */
function namesBefore(pattern: string, slot: number): string[] {
  const found = /\[(\d+)-(\d+)\]/.exec(pattern);
  if (found === null) return [pattern.replaceAll('{slot}', String(slot))];
  const [whole, from = '', to = ''] = found;
  const width = from.startsWith('0') ? from.length : 0;
  return Array.from({ length: Number(to) - Number(from) + 1 }, (_, step) => step + Number(from)).flatMap(
    (number) =>
      namesBefore(
        `${pattern.slice(0, found.index)}${String(number).padStart(width, '0')}${pattern.slice(found.index + whole.length)}`,
        slot,
      ),
  );
}

describe('port patterns in brackets and braces', () => {
  test.each([
    ['gi1/[1-48]', 'gi1/1-48'],
    ['te{slot}/[1-8]', 'te slot/1-8'],
    ['{slot}F[1-6]', 'slot F1-6'],
    ['psu{slot}', 'psu slot'],
    ['F[01-24]', 'F01-24'],
    ['node[1-4]/eno[1-2]', 'node1-4/eno1-2'],
    ['eth1-2', 'eth1--2'],
    ['R{slot}[1-2]', 'R slot 1-2'],
    ['gi1[1-4]', 'gi1 1-4'],
    ['[1-2]-[1-3]', '1-2--1-3'],
    ['a1-[1-2]', 'a1--1-2'],
    ['x[1-3]0', 'x1-3 0'],
    ['SFP-[1-4]', 'SFP-1-4'],
  ])('%s is %s, and gives the same names in any slot', (before, now) => {
    expect(patternNow(before)).toBe(now);
    for (const slot of [1, 12])
      expect(expandPortPattern(now, slot)).toEqual({ ok: true, names: namesBefore(before, slot) });
  });
});

describe('files and changes from before names changed', () => {
  test('sections, fields, roles and what stands in braces; own fields and texts stay', () => {
    const file = {
      vlanGroups: [{ name: 'shore', vlans: [{ vid: 20, name: 'Staff' }] }],
      places: [{ path: 'KQ', vlanGroup: 'shore' }],
      racks: [
        { name: 'A', widthIn: 19 },
        { name: 'B', widthIn: 21 },
        { name: 'C', widthIn: 23 },
      ],
      devices: [
        { name: 'p', fullDepth: true, ports: [{ name: 'F1', role: 'passThrough', passThrough: 'R1' }] },
      ],
      sheets: [{ name: 'S', templates: { all: '{place.code} {rack}' } }],
      kept: { extra: { fullDepth: 'mine', passThrough: '{slot}' }, notes: 'passThrough of [1-2]' },
    };
    expect(namesNow(file)).toEqual({
      vlanNumberings: [{ name: 'shore', vlans: [{ vid: 20, name: 'Staff' }] }],
      places: [{ path: 'KQ', vlanNumbering: 'shore' }],
      racks: [
        { name: 'A', widthMm: 482.6 },
        { name: 'B', widthMm: 535 },
        { name: 'C', widthMm: 584.2 },
      ],
      devices: [{ name: 'p', fillsBothFaces: true, ports: [{ name: 'F1', role: 'panel', leadsTo: 'R1' }] }],
      sheets: [{ name: 'S', templates: { all: '{site code} {rack}' } }],
      kept: { extra: { fullDepth: 'mine', passThrough: '{slot}' }, notes: 'passThrough of [1-2]' },
    });
  });

  test('a file of today is left as it is: a range without brackets is no old name', () => {
    const file = { models: [{ portGroups: [{ pattern: 'eth1-2' }] }], places: [{ extra: { groupId: 'x' } }] };
    expect(namesNow(file)).toBe(file);
  });

  test('a change of the journal: its kind, its fields, and one subject for what is on a sheet', () => {
    expect(
      changeNow({ op: 'create', kind: 'vlanGroup', id: '1', after: { id: '1', name: 'shore' } }),
    ).toEqual({ op: 'create', kind: 'vlanNumbering', id: '1', after: { id: '1', name: 'shore' } });
    expect(
      changeNow({
        op: 'update',
        kind: 'vlan',
        id: '2',
        before: { groupId: 'a' },
        after: { groupId: 'b' },
      }),
    ).toMatchObject({ before: { numberingId: 'a' }, after: { numberingId: 'b' } });
    const item = {
      id: '3',
      sheetId: 's',
      deviceId: null,
      placeId: 'p',
      circuitId: null,
      prefixId: null,
      x: 8,
    };
    expect(changeNow({ op: 'create', kind: 'sheetItem', id: '3', after: item })).toMatchObject({
      after: { id: '3', sheetId: 's', subjectKind: 'place', subjectId: 'p', x: 8 },
    });
    const moved = { op: 'update', kind: 'sheetItem', id: '3', before: { x: 8 }, after: { x: 16 } };
    expect(changeNow(moved)).toEqual(moved);
    expect(
      changeNow({ op: 'delete', kind: 'sheetLink', id: '4', before: { id: '4', cableId: 'c', bends: [] } }),
    ).toEqual({
      op: 'delete',
      kind: 'sheetLink',
      id: '4',
      before: { id: '4', subjectKind: 'cable', subjectId: 'c', bends: [] },
    });
  });
});
