import { describe, expect, test } from '@jest/globals';
import Papa from 'papaparse';
import { stockOf } from '../cabling/stock.ts';
import { networkOf, smallRoom } from '../testing/testNetwork.ts';
import { cableSchedule } from '../cabling/reports/cables.ts';
import { findReport } from './registry.ts';
import { tableToCsv } from './table.ts';

describe('cable schedule', () => {
  test('both ends with device, port and place', () => {
    const table = cableSchedule(smallRoom(), null);
    expect(table.rows[0]).toEqual({
      label: 'KQ-00001',
      type: 'OS2 duplex LC',
      lengthM: 2,
      aDevice: 'kq-core-1',
      aPort: 'te1/1',
      aPlace: 'KQ-A1 U38 · Data room',
      bDevice: 'KQ-A1-PP1',
      bPort: 'F1',
      bPlace: 'KQ-A1 U42 · Data room',
    });
  });

  test('a scope holds the cables with an end in it, once each', () => {
    const network = networkOf({
      places: [{ path: 'A' }, { path: 'B' }],
      devices: [
        { name: 'x', role: 'SW', place: 'A', ports: [{ name: '1' }, { name: '2' }] },
        { name: 'y', role: 'SW', place: 'B', ports: [{ name: '1' }, { name: '2' }, { name: '3' }] },
      ],
      cables: [
        { label: 'C-1', a: 'x:1', b: 'y:1' },
        { label: 'C-2', a: 'y:2', b: 'y:3' },
      ],
    });
    const place = (name: string) => [...network.all('place')].find((one) => one.name === name)?.id ?? null;
    expect(cableSchedule(network, place('A')).rows.map((row) => row['label'])).toEqual(['C-1']);
    expect(cableSchedule(network, place('B')).rows.map((row) => row['label'])).toEqual(['C-1', 'C-2']);
  });
});

describe('CSV', () => {
  test('CRLF lines, quoted commas and quotes, a heading with the unit', () => {
    const csv = tableToCsv({
      columns: [
        { key: 'a', label: 'Name' },
        { key: 'b', label: 'Length', unit: 'm' },
      ],
      rows: [
        { a: 'x, "y"', b: 2.5 },
        { a: null, b: null },
      ],
      ids: [],
    });
    expect(csv).toBe('Name,Length (m)\r\n"x, ""y""",2.5\r\n,\r\n');
  });

  test.each(['=1+1', '+32', '-cmd', '@sum', '\tx'])('the text %j is not left as a formula', (text) => {
    const csv = tableToCsv({ columns: [{ key: 'a', label: 'A' }], rows: [{ a: text }], ids: [] });
    const cell = Papa.parse<string[]>(csv.trim()).data[1]?.[0] ?? '';
    expect(cell.startsWith("'")).toBe(true);
    expect(cell.slice(1)).toBe(text);
  });

  test('a negative number stays a number', () => {
    expect(tableToCsv({ columns: [{ key: 'a', label: 'A' }], rows: [{ a: -3 }], ids: [] })).toBe(
      'A\r\n-3\r\n',
    );
  });
});

test('the device schedule counts used ports', () => {
  const row = findReport('devices')
    ?.make(smallRoom(), null)
    .rows.find((one) => one['name'] === 'KQ-A1-PP1');
  expect(row).toMatchObject({ portsUsed: 2, ports: 48, rack: 'KQ-A1', unit: 42 });
});

test('a length that the type does not come in has no price, and the next one that it does', () => {
  const network = networkOf({
    models: [
      {
        form: 'cable',
        name: 'cord',
        medium: 'OM4',
        ends: ['LC', 'LC'],
        stockLengthsM: [1, 2, 5],
        stockPricesMinor: [400, 500, 900],
        currency: 'EUR',
      },
    ],
    cables: [2, 2, 3.5, 12].map((lengthM, at) => ({ label: `C-${at + 1}`, type: 'cord', lengthM })),
  });
  const [row] = findReport('cable-types')?.make(network, null).rows ?? [];
  expect(row).toMatchObject({
    count: 4,
    price: 10,
    unpriced: 2,
    stock: '3.5 m: not in stock, 5 m next; 12 m: not in stock, 5 m is the longest',
  });
  expect(stockOf({ stockLengthsM: [], stockPricesMinor: [] }, 3)).toBeNull();
  expect(stockOf({ stockLengthsM: [1], stockPricesMinor: [] }, 1)).toEqual({ in: true, priceMinor: null });
});
