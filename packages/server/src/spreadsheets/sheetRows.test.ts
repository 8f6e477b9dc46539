import { describe, expect, test } from '@jest/globals';
import { strToU8, zipSync, type Zippable } from 'fflate';
import { sheetRows } from './sheetRows.ts';
import { tableToXlsx } from './tableXlsx.ts';

const mostRows = 1000;
const detailOf = (bytes: Uint8Array): Promise<string> =>
  sheetRows(bytes, mostRows).then(
    (rows) => `read ${rows.length} rows`,
    (error: unknown) => (error as { detail?: string }).detail ?? String(error),
  );

const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const officeRelations = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const packageRelations = 'http://schemas.openxmlformats.org/package/2006/relationships';

/** A workbook of one sheet (ISO/IEC 29500-1, 18.3) with this inside it; `more` are further parts of the archive. */
const workbook = (rows: string, after = '', more: Zippable = {}): Uint8Array =>
  zipSync({
    '[Content_Types].xml': strToU8(
      '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>',
    ),
    '_rels/.rels': strToU8(
      `<Relationships xmlns="${packageRelations}"><Relationship Id="r1" Type="${officeRelations}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    ),
    'xl/workbook.xml': strToU8(
      `<workbook xmlns="${main}" xmlns:r="${officeRelations}"><sheets><sheet name="List" sheetId="1" r:id="r1"/></sheets></workbook>`,
    ),
    'xl/_rels/workbook.xml.rels': strToU8(
      `<Relationships xmlns="${packageRelations}"><Relationship Id="r1" Type="${officeRelations}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    ),
    'xl/worksheets/sheet1.xml': strToU8(
      `<?xml version="1.0"?><worksheet xmlns="${main}"><sheetData>${rows}</sheetData>${after}</worksheet>`,
    ),
    ...more,
  });
const cell = (reference: string, value: string | null = 'x'): string =>
  value === null ? `<c r="${reference}" s="0"/>` : `<c r="${reference}" t="str"><v>${value}</v></c>`;
const row = (number: number, ...cells: string[]): string => `<row r="${number}">${cells.join('')}</row>`;

describe('rows of a workbook', () => {
  test('a schedule that we wrote comes back', async () => {
    const table = {
      columns: [
        { key: 'a', label: 'A end' },
        { key: 'm', label: 'Length', numeric: true, unit: 'm' },
      ],
      rows: [{ a: 'kq-1 · gi1/2', m: 12.5 }],
      ids: ['1'],
    };
    expect(await sheetRows(await tableToXlsx('Cables', table), mostRows)).toEqual([
      ['A end', 'Length (m)'],
      ['kq-1 · gi1/2', '12.5'],
    ]);
  });

  test('one that is written by hand is read; empty cells far to the right do no harm', async () => {
    const bytes = workbook(
      row(1, cell('A1', 'name'), cell('C1', 'site')) + row(2, cell('A2', 'kq-1'), cell('XFD2', null)),
    );
    const rows = await sheetRows(bytes, mostRows);
    expect(rows[0]).toEqual(['name', '', 'site']);
    expect(rows[1]?.[0]).toBe('kq-1');
    expect(rows[1]?.every((text, at) => at === 0 || text === '')).toBe(true);
    expect(rows[1]?.length).toBeLessThanOrEqual(200);
  });

  test.each([
    ['a cell in the last column there is', workbook(row(1, cell('XFD1'))), 'XFD1'],
    [
      'hundreds of them',
      workbook(Array.from({ length: 900 }, (_, at) => row(at + 1, cell(`XFD${at + 1}`))).join('')),
      'XFD1',
    ],
    ['a cell in the last row there is', workbook(row(1048576, cell('A1048576'))), 'below row 1 000'],
    [
      'a merged range over everything',
      workbook(row(1, cell('A1')), '<mergeCells count="1"><mergeCell ref="A1:XFD1048576"/></mergeCells>'),
      'A1:XFD1048576',
    ],
    [
      'thirty thousand merged ranges',
      workbook(
        row(1, cell('A1')),
        `<mergeCells>${Array.from({ length: 30_000 }, (_, at) => `<mergeCell ref="A${at + 1}:B${at + 1}"/>`).join('')}</mergeCells>`,
      ),
      '20 000 merged ranges',
    ],
    [
      'a part that unpacks to hundreds of megabytes',
      workbook(row(1, cell('A1')), '', { 'xl/media/zeros.bin': new Uint8Array(300 * 1024 * 1024) }),
      '250 times',
    ],
    [
      'declarations of its own',
      zipSync({
        'xl/worksheets/sheet1.xml': strToU8('<!DOCTYPE a [<!ENTITY b "bb">]><worksheet/>'),
      }),
      'DOCTYPE',
    ],
    [
      'three thousand parts',
      zipSync(Object.fromEntries(Array.from({ length: 3000 }, (_, at) => [`p${at}`, new Uint8Array(1)]))),
      '2 000 parts',
    ],
    ['an archive that is cut off', workbook(row(1, cell('A1'))).slice(0, 700), 'damaged'],
    ['an archive of something else', zipSync({ 'hello.txt': strToU8('hello') }), 'no sheet'],
    [
      'XML that is none',
      zipSync({ 'xl/worksheets/sheet1.xml': strToU8('<worksheet><row></worksheet>') }),
      'damaged',
    ],
  ])('%s: is refused with the reason', async (_what, bytes, reason) => {
    expect(await detailOf(bytes)).toContain(reason);
  });
});

describe('rows of text', () => {
  const text = (content: string): Uint8Array => new TextEncoder().encode(content);
  test.each([
    ['nothing', '', 'empty'],
    ['one row of 300 columns', `${'a,'.repeat(299)}a\n`, 'Row 1 has 300 columns'],
    ['nine million separators', ','.repeat(9_000_000), 'more than 4000000 cells'],
    ['too many rows', 'a\n'.repeat(1001), '1001 rows'],
  ])('%s: is refused with the reason', async (_what, content, reason) => {
    expect(await detailOf(text(content))).toContain(reason);
  });
});
