import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../change/apply.ts';
import { readMoney } from '../model/values/money.ts';
import { demoNetwork } from '../testing/testDemo.ts';
import { keepPriceList, removePriceList } from './commands/priceLists.ts';
import { readPrices } from './readPrices.ts';

const demo = demoNetwork();
const model = (title: string): string => demo.findOne('modelByTitle', title.toLowerCase())?.id ?? '';

describe('a price list of a supplier', () => {
  test('by part number or model, with lengths, licences and packs, whatever the columns are called', () => {
    const read = readPrices(
      demo,
      [
        ['Article No.', 'Description', 'Length (m)', 'Licence', 'Unit price', 'Currency', 'Pack size'],
        ['NV-WB60', '', '', '', '684,00', 'EUR', ''],
        ['', 'norvane wa-52', '', '', '478', '', '1'],
        ['', 'Norvane WA-52', '', 'radio manager', '41.00', '', ''],
        ['', 'OS2 duplex LC', '5', '', '1.250,50', 'eur', '10'],
        ['', '', '', '', '', '', ''],
      ],
      'EUR',
    );
    expect(read.problems).toEqual([]);
    expect(read.rows).toBe(4);
    expect(read.prices).toEqual([
      { modelId: model('Norvane WB-60'), lengthM: null, licence: null, unitMinor: 68_400, pack: 1 },
      { modelId: model('Norvane WA-52'), lengthM: null, licence: null, unitMinor: 47_800, pack: 1 },
      { modelId: model('Norvane WA-52'), lengthM: null, licence: 'Radio manager', unitMinor: 4100, pack: 1 },
      { modelId: model('OS2 duplex LC'), lengthM: 5, licence: null, unitMinor: 125_050, pack: 10 },
    ]);
    expect(readMoney('684,00', 'EUR')?.priceMinor).toBe(68_400);
  });

  test('half the rows wrong: each is told with its number, column and remedy, the others are read', () => {
    const read = readPrices(
      demo,
      [
        ['Model', 'Length', 'Price', 'Currency', 'Pack'],
        ['Norvane WB-60', '', '684', '', ''],
        ['Norvane WB-61', '', '684', '', ''],
        ['Norvane WA-52', '', 'ask', '', ''],
        ['Norvane WA-72', '', '', '', ''],
        ['Norvane WA-31', '', '10', 'GBP', ''],
        ['OS2 duplex LC', '4', '10', '', ''],
        ['OS2 duplex LC', '', '10', '', ''],
        ['OS2 duplex LC', '5', '10', '', 'ten'],
        ['Norvane WB-60', '', '700', '', ''],
        ['', '', '7', '', ''],
        ['OS2 duplex LC', '2', '6.80', '', '5'],
      ],
      'EUR',
    );
    expect(read.prices.map(({ unitMinor }) => unitMinor)).toEqual([68_400, 680]);
    expect(read.rows).toBe(11);
    const told = new Map(read.problems.map(({ row, column, message }) => [row, [column, message]]));
    expect(told.get(3)).toEqual([
      'Model',
      'The catalogue has no model “Norvane WB-61”. Is it Norvane WB-60?',
    ]);
    expect(told.get(4)).toEqual(['Price', '“ask” of Norvane WA-52 is no amount such as 1 250.00.']);
    expect(told.get(5)).toEqual(['Price', 'Norvane WA-72 has no price.']);
    expect(told.get(6)?.[1]).toContain('priced in GBP, the list in EUR');
    expect(told.get(7)?.[1]).toContain('not made in 4 m');
    expect(told.get(8)?.[1]).toContain('sold by its length');
    expect(told.get(9)).toEqual(['Pack', '“ten” of OS2 duplex LC is no number of pieces from 1 to 10 000.']);
    expect(told.get(10)?.[1]).toContain('in a row above');
    expect(told.get(11)?.[1]).toContain('Neither a part number nor a model');
    expect(told.size).toBe(9);
  });

  test('a table without the columns that it needs, or without any, is told as one', () => {
    expect(readPrices(demo, [['Model', 'Colour']], 'EUR').problems[0]?.message).toContain('no column Price');
    expect(readPrices(demo, [['Price']], 'EUR').problems[0]?.message).toContain('Part number or Model');
    expect(readPrices(demo, [], 'EUR').problems).toHaveLength(1);
  });

  test('kept as one step, and deleted as one', () => {
    const { prices } = readPrices(
      demo,
      [
        ['Model', 'Price'],
        ['Norvane WB-60', '684'],
      ],
      'EUR',
    );
    const fields = {
      name: 'Ours',
      supplier: 'Us',
      currency: 'EUR',
      validFrom: '2026-01-01',
      validUntil: null,
      notes: null,
    };
    const kept = keepPriceList(demo, fields, prices);
    const made = kept.ok ? applyChanges(demo, kept.set.changes) : null;
    if (made?.ok !== true || !kept.ok) throw new Error('not kept');
    expect(kept.set.sentence).toBe('Took in the price list Ours with 1 price');
    const row = made.network.get('priceList', kept.id);
    const gone = row === null ? null : removePriceList(made.network, row);
    expect(gone?.ok === true && gone.set.changes.length).toBe(2);
    expect(keepPriceList(demo, fields, [])).toMatchObject({
      ok: false,
      why: expect.stringContaining('Nothing was kept'),
    });
    expect(keepPriceList(demo, { ...fields, validUntil: '2025-01-01' }, prices)).toMatchObject({
      ok: false,
      why: expect.stringContaining('before 2026-01-01'),
    });
    expect(keepPriceList(made.network, fields, prices)).toMatchObject({ ok: false });
  });
});
