import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../change/apply.ts';
import { update } from '../change/change.ts';
import { invert } from '../change/invert.ts';
import type { Attempt } from '../commands/attempt.ts';
import type { Quotation } from '../model/kinds/purchase/quotation.ts';
import type { Network } from '../model/network/network.ts';
import { demoNetwork } from '../testing/testDemo.ts';
import {
  beginQuotation,
  changeQuotation,
  issueQuotation,
  nextNumber,
  quoteAnew,
  removeQuotation,
  reviseQuotation,
} from './commands/quotations.ts';
import { differencesBetween } from './differences.ts';
import { totalsOf } from './totals.ts';

const day = '2026-11-30';
const demo = demoNetwork();
const listNamed = (name: string) => {
  const list = [...demo.all('partsList')].find((one) => one.name === name);
  if (list === undefined) throw new Error(`no list ${name}`);
  return list;
};
const why = (attempt: Attempt): string => (attempt.ok ? '' : attempt.why);
const after = (network: Network, attempt: Attempt): Network => {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) throw new Error(applied.problems.map(({ message }) => message).join('\n'));
  return applied.network;
};
const rowOf = (network: Network, id: string): Quotation => {
  const row = network.get('quotation', id);
  if (row === null) throw new Error('no quotation');
  return row;
};
const link = listNamed('Otterslip second link');

describe('the quotation of the demo', () => {
  test('Q-0031 by hand: 7 378.80 net, 19 % of it 1 401.97', () => {
    const [row] = demo.find('quotationsByNumber', 'q-0031');
    if (row === undefined) throw new Error('no Q-0031');
    // 2 x 1 299.00 + 2 x 684.00; 5 x 12.90 + 5 x 15.90; 1 480.00; 2 x 84.50 + 2 x 69.90
    const totals = totalsOf(row);
    expect(totals.sections.map(({ netMinor }) => netMinor)).toEqual([396_600, 14_400, 148_000, 30_880]);
    expect([totals.netMinor, totals.taxMinor, totals.totalMinor]).toEqual([589_880, 112_077, 701_957]);
    expect(row.status).toBe('issued');
  });
});

describe('from a parts list to an issued quotation', () => {
  const begun = beginQuotation(demo, link, day, { tax: 1900 });
  const network = after(demo, begun);
  const row = rowOf(network, begun.id);

  test('numbers follow the year; it holds for thirty days; lines are those that are ordered', () => {
    expect([row.number, row.revision, row.status, row.validUntil]).toEqual([
      'Q-2026-001',
      1,
      'draft',
      '2026-12-30',
    ]);
    expect(nextNumber(network, day)).toBe('Q-2026-002');
    expect(row.sections.map(({ name, lines }) => [name, lines.length])).toEqual([
      ['Devices', 2],
      ['Cables', 2],
      ['Services', 1],
      ['Further parts', 2],
    ]);
    expect(why(beginQuotation(demo, listNamed('Everything in place'), day))).toContain(
      'Nothing of the parts list',
    );
  });

  test('what is missing for issuing is told with its field', () => {
    expect(why(issueQuotation(network, row))).toContain('Customer is missing');
    const named = after(
      network,
      changeQuotation(network, row, { customer: 'The harbour', validUntil: null }),
    );
    expect(why(issueQuotation(named, rowOf(named, row.id)))).toContain('Valid until is missing');
    const [first] = row.sections;
    if (first === undefined) throw new Error('no section');
    const unpriced = [{ ...first, lines: first.lines.map((line) => ({ ...line, unitMinor: null })) }];
    const open = after(
      network,
      changeQuotation(network, row, { customer: 'The harbour', sections: unpriced }),
    );
    expect(why(issueQuotation(open, rowOf(open, row.id)))).toContain('hold 2 without a price');
    const optional = [
      ...unpriced.map((section) => ({
        ...section,
        lines: section.lines.map((line) => ({ ...line, optional: true })),
      })),
    ];
    const beside = after(open, changeQuotation(open, rowOf(open, row.id), { sections: optional }));
    expect(issueQuotation(beside, rowOf(beside, row.id))).toMatchObject({ ok: true });
  });

  test('issued it stays as it is: not changed, not drafted again, not by undo; a revision follows', () => {
    const named = after(network, changeQuotation(network, row, { customer: 'The harbour' }));
    const issue = issueQuotation(named, rowOf(named, row.id));
    const issued = after(named, issue);
    const done = rowOf(issued, row.id);
    const kept = 'is issued and stays as it is. Make a revision of it';
    expect(why(changeQuotation(issued, done, { customer: 'Somebody else' }))).toContain(kept);
    expect(why(quoteAnew(issued, done, day))).toContain(kept);
    expect(why(issueQuotation(issued, done))).toContain('issued already');
    const back = issue.ok ? applyChanges(issued, invert(issue.set.changes)) : null;
    expect(back).toMatchObject({ ok: false });
    // What it was made from may go; what it says stays.
    const alone = applyChanges(
      issued,
      [update('quotation', done, { partsListId: null })].filter((one) => one !== null),
    );
    expect(alone.ok).toBe(true);

    const revised = reviseQuotation(issued, done, '2026-12-01');
    const second = after(issued, revised);
    expect([rowOf(second, revised.id).revision, rowOf(second, revised.id).quotedOn]).toEqual([
      2,
      '2026-12-01',
    ]);
    expect(why(reviseQuotation(second, done, day))).toContain('is a draft already');
    const [devices, ...rest] = rowOf(second, revised.id).sections;
    if (devices === undefined) throw new Error('no section');
    const cheaper = after(
      second,
      changeQuotation(second, rowOf(second, revised.id), {
        sections: [
          { ...devices, discount: 500, lines: devices.lines.slice(1).map((line) => ({ ...line, count: 3 })) },
          ...rest,
        ],
      }),
    );
    expect(differencesBetween(done, rowOf(cheaper, revised.id))).toEqual([
      { what: 'Date', before: '2026-11-30', after: '2026-12-01' },
      { what: 'Valid until', before: '2026-12-30', after: '2026-12-31' },
      {
        what: 'Devices: Norvane IX-812P (NV-IX812P)',
        before: '2 at 1 299.00 EUR, tax 19 %',
        after: null,
      },
      {
        what: 'Devices: Norvane WB-60 (NV-WB60)',
        before: '2 at 684.00 EUR, tax 19 %',
        after: '3 at 684.00 EUR, tax 19 %',
      },
      { what: 'Devices: discount', before: null, after: '5 %' },
      // 3 x 684.00 less 5 % is 1 949.40, beside 1 932.80 of the rest.
      { what: 'Net sum', before: '5 898.80 EUR', after: '3 882.20 EUR' },
      { what: 'Total', before: '7 019.57 EUR', after: '4 619.82 EUR' },
    ]);
    expect(differencesBetween(done, done)).toEqual([]);
    expect(after(cheaper, removeQuotation(cheaper, rowOf(cheaper, revised.id))).count('quotation')).toBe(
      issued.count('quotation'),
    );
  });

  test('the rate of tax is that of the latest quotation, where none is said', () => {
    const attempt = beginQuotation(demo, link, day);
    expect(rowOf(after(demo, attempt), attempt.id).sections[0]?.lines[0]?.tax).toBe(1900);
    const [q31] = demo.find('quotationsByNumber', 'q-0031');
    const none = q31 === undefined ? demo : after(demo, removeQuotation(demo, q31));
    const first = beginQuotation(none, link, day);
    expect(rowOf(after(none, first), first.id).sections[0]?.lines[0]?.tax).toBe(0);
  });

  test('at a fixed rate into another currency; without one the price is not known', () => {
    const pounds = (rates: Quotation['rates']) => {
      const attempt = beginQuotation(demo, link, day, { currency: 'GBP', rates });
      return rowOf(after(demo, attempt), attempt.id).sections[0]?.lines.map(({ unitMinor }) => unitMinor);
    };
    // 1 299.00 and 684.00 at 0.86
    expect(pounds([{ currency: 'EUR', rate: '0.86' }])).toEqual([111_714, 58_824]);
    expect(pounds([])).toEqual([null, null]);
  });

  test('bad input names the field', () => {
    const line = row.sections[0]?.lines[0];
    if (line === undefined) throw new Error('no line');
    const changed = (fields: Partial<Quotation>): string => why(changeQuotation(network, row, fields));
    const withLine = (rest: object) =>
      changed({ sections: [{ name: 'A', discount: 0, lines: [{ ...line, ...rest }] }] });
    expect(withLine({ discount: 10_001 })).toContain('above 100 %');
    expect(withLine({ unitMinor: 1.5 })).toContain('whole number of minor units');
    expect(withLine({ count: 0 })).toContain('below 1');
    expect(changed({ currency: 'euro' })).toContain('not a currency code');
    expect(changed({ rates: [{ currency: 'GBP', rate: '0' }] })).toContain('not a rate');
    expect(changed({ rates: [{ currency: 'EUR', rate: '1.1' }] })).toContain('its own currency EUR');
    expect(changed({ validUntil: '2026-01-01' })).toContain('before its date');
    expect(changed({ number: '' })).toContain('Number is empty');
  });
});
