import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { QuotationLine } from '@visograph/core/model';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { networkOf } from '../../../core/src/testing/testNetwork.ts';
import { press, pressNamed, show, withSizes } from '../testing/testScreen.tsx';
import PartsSection from './PartsSection.tsx';
import { ToPartsList } from './ToPartsList.tsx';
import { quotationRows, spotOf, typedInto } from './quotations/quotationRows.ts';

beforeAll(withSizes);
const demo = demoNetwork();
const opened = async (role: 'owner' | 'reader' = 'owner', network = demo) => {
  const held = await show(<PartsSection />, { network, role });
  await screen.findByRole('heading', { name: 'Parts' });
  return held;
};
const cell = (text: string): HTMLElement => screen.getByRole('gridcell', { name: text });

describe('parts lists', () => {
  test('lines in groups with what they come to, what to look at, and the things behind a line', async () => {
    const held = await opened();
    pressNamed('Otterslip second link');
    await screen.findByText('5 898.80 EUR');
    const fit = screen.getByRole('region', { name: 'Fit to order' });
    expect(fit.textContent).toContain('Cat 6A RJ45, 15 m: 5 are ordered for 2');
    expect(cell('Norvane WB-60')).toBeDefined();
    pressNamed('Reserve from stock');
    await waitFor(() =>
      expect(held.steps()).toEqual(['Reserved 1 piece for the parts list Otterslip second link']),
    );
    pressNamed('Give it back');
    await waitFor(() => expect(held.steps()).toHaveLength(2));
  });

  test('a reader sees them and is offered nothing that writes', async () => {
    await opened('reader');
    pressNamed('Otterslip second link');
    await screen.findByText('5 898.80 EUR');
    for (const name of ['Write a quotation', 'Delete', 'What it counts', 'Begin a parts list'])
      expect(screen.queryByRole('button', { name })).toBeNull();
    expect(screen.getByRole('button', { name: 'Save XLSX' })).toBeDefined();
  });

  test('from nothing: begun, told that nothing is counted, services added, wrong input told and nothing lost', async () => {
    const held = await opened('owner', networkOf({}));
    await screen.findByText('No parts list yet');
    pressNamed('Begin a parts list');
    await screen.findByText('Nothing is counted');
    expect(held.steps()).toEqual(['Began the parts list Parts list']);
    pressNamed(
      'What it counts',
      screen.getByRole('heading', { name: 'Nothing is counted' }).parentElement ?? undefined,
    );
    const services = screen.getByRole('region', { name: 'Services' });
    fireEvent.change(within(services).getByLabelText('Service'), { target: { value: 'Mounting' } });
    fireEvent.change(within(services).getByLabelText('Each'), { target: { value: 'a lot' } });
    pressNamed('Add', services);
    await screen.findByRole('alert');
    expect(within(services).getByLabelText<HTMLInputElement>('Service').value).toBe('Mounting');
    fireEvent.change(within(services).getByLabelText('Each'), { target: { value: '90,00' } });
    expect(held.steps()).toHaveLength(1);
    pressNamed('Add', services);
    await waitFor(() => expect(held.steps()).toHaveLength(2));
    const [list] = held.network().all('partsList');
    expect(list?.services).toEqual([{ name: 'Mounting', per: 'device', role: null, unitMinor: 9000 }]);
  });
});

test('devices that are chosen elsewhere begin a list that counts them alone', async () => {
  const ids = ['kq-acc-1', 'kq-acc-2'].map((name) => demo.findOne('deviceByName', name)?.id ?? '');
  const held = await show(<ToPartsList deviceIds={ids} />, { network: demo });
  pressNamed('Parts list');
  await waitFor(() => expect(held.at().path).toBe('parts'));
  const [list] = [...held.network().all('partsList')].filter(({ name }) => name === 'Parts list');
  expect(held.at().query.get('open')).toBe(list?.id);
  expect(held.network().find('listedDevicesByList', list?.id ?? '')).toHaveLength(2);
  expect(list?.counts).toBe('both');
});

describe('quotations', () => {
  test('an issued one is only read; a revision of it is a draft that can be issued', async () => {
    const held = await opened();
    pressNamed('Quotations');
    await screen.findByText('7 019.57 EUR');
    expect(screen.queryByRole('button', { name: 'Issue it' })).toBeNull();
    pressNamed('Make a revision');
    await screen.findByRole('button', { name: 'Issue it' });
    expect(held.steps()).toEqual(['Began Q-0031 revision 2']);
    pressNamed('Against revision 1');
    const told = await screen.findByRole('region', { name: 'Differences' });
    expect(told.textContent).toContain('Date2026-11-16');
    pressNamed('Issue it');
    await waitFor(() => expect(held.steps().at(-1)).toBe('Issued the quotation Q-0031 revision 2'));
  });

  test('lines and sections are put in another order, each as one step; at the end it says so', async () => {
    const held = await opened();
    pressNamed('Quotations');
    await screen.findByText('7 019.57 EUR');
    pressNamed('Make a revision');
    await screen.findByRole('button', { name: 'Issue it' });
    const shown = (): string[] => {
      const rows = within(screen.getByRole('grid', { name: /^Lines of/ }))
        .getAllByRole('row')
        .slice(1);
      return rows.map((row) => within(row).getAllByRole('gridcell')[0]?.textContent ?? '');
    };
    fireEvent.mouseDown(screen.getByRole('gridcell', { name: 'Norvane WB-60' }));
    fireEvent.pointerDown(screen.getByRole('gridcell', { name: 'Norvane WB-60' }));
    press(screen.getByRole('gridcell', { name: 'Norvane WB-60' }));
    pressNamed('Move the line down');
    await waitFor(() =>
      expect(shown().slice(0, 4)).toEqual(['Devices', 'Norvane IX-812P', 'Cables', 'Norvane WB-60']),
    );
    pressNamed('Move Cables up');
    await waitFor(() => expect(shown()[0]).toBe('Cables'));
    pressNamed('Move Cables up');
    await screen.findByText('It is the first section.');
    expect(held.steps()).toHaveLength(3);
  });

  const line: QuotationLine = {
    ...{ what: 'Line card', partNumber: 'LC-1', detail: null, count: 2, unit: 'piece' },
    ...{ unitMinor: 129_900, discount: 0, tax: 1900, optional: false, model: null },
  };

  test('what is typed into a cell means what a person writes, or is told', () => {
    const typed = (key: string, text: string) => typedInto(line, key, text, 'EUR');
    expect(typed('price', '1.250,50')).toMatchObject({ unitMinor: 125_050 });
    expect(typed('price', '')).toMatchObject({ unitMinor: null });
    expect(typed('price', '12 GBP')).toEqual({ why: 'The quotation is in EUR, not GBP.' });
    expect(typed('price', 'ask')).toMatchObject({ why: expect.stringContaining('no amount') });
    expect(typed('discount', '7.5 %')).toMatchObject({ discount: 750 });
    expect(typed('discount', 'half')).toMatchObject({ why: expect.stringContaining('no percentage') });
    expect(typed('count', '12 m')).toMatchObject({ count: 12 });
    expect(typed('count', '1.5')).toMatchObject({ why: expect.stringContaining('no whole number') });
    expect(typed('optional', 'Yes')).toMatchObject({ optional: true });
    expect(typed('optional', 'maybe')).toMatchObject({ why: expect.stringContaining('yes or no') });
    expect(typed('what', ' ')).toEqual({ why: 'Item is empty.' });
    expect(typed('partNumber', '')).toMatchObject({ partNumber: null });
    expect(typed('net', '5')).toMatchObject({ why: expect.stringContaining('worked out') });
  });

  test('rows carry their place, headings their discount and sum', () => {
    const [row] = demo.find('quotationsByNumber', 'q-0031');
    if (row === undefined) throw new Error('no Q-0031');
    const rows = quotationRows(
      {
        ...row,
        sections: [{ name: 'Cards', discount: 500, lines: [line, { ...line, unit: 'm', discount: 1000 }] }],
      },
      [246_810],
    );
    expect(rows.map(({ id, heading }) => [spotOf(id), heading])).toEqual([
      [{ section: 0, line: null }, 0],
      [{ section: 0, line: 0 }, undefined],
      [{ section: 0, line: 1 }, undefined],
    ]);
    expect(rows.map(({ cells }) => [cells['what'], cells['count'], cells['discount'], cells['net']])).toEqual(
      [
        ['Cards, less 5 %', undefined, undefined, '2 468.10'],
        ['Line card', 2, null, '2 468.10'],
        ['Line card', '2 m', '10 %', '2 221.29'],
      ],
    );
  });
});

describe('stock, licences and prices', () => {
  const row = (text: string): HTMLElement => {
    const found = screen
      .getAllByRole('row')
      .find(({ textContent }) => textContent?.startsWith(text) === true);
    if (found === undefined) throw new Error(`no row ${text}`);
    return found;
  };

  test('what is taken out is no more than what nobody reserved; the reason stands at the count', async () => {
    const held = await opened();
    pressNamed('Stock');
    fireEvent.click(
      within(await waitFor(() => row('Norvane WB-60'))).getAllByRole('gridcell')[0] ?? document.body,
    );
    pressNamed('Take out …');
    const dialog = await screen.findByRole('dialog');
    pressNamed('Take out', dialog);
    await within(dialog).findByText(/Take at most 0, or give reservations back first/);
    expect(held.steps()).toEqual([]);
    fireEvent.change(within(dialog).getByLabelText('Count'), { target: { value: 'one' } });
    pressNamed('Take out', dialog);
    await within(dialog).findByText('“one” is no whole number of pieces.');
    fireEvent.keyDown(dialog, { key: 'Escape' });
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    fireEvent.click(within(row('Norvane WA-52')).getAllByRole('gridcell')[0] ?? document.body);
    pressNamed('Take out …');
    pressNamed('Take out', await screen.findByRole('dialog'));
    await waitFor(() =>
      expect(held.steps()).toEqual(['Took 1 of Norvane WA-52 in Kelder Quay/Harbour House/Ground/Chandlery']),
    );
  });

  test('a certificate without a number is told at its field; a price list goes with its prices', async () => {
    const held = await opened();
    pressNamed('Licences');
    pressNamed('Write down a certificate …');
    const dialog = await screen.findByRole('dialog');
    const part = within(dialog).getByRole('combobox', { name: 'Part' });
    fireEvent.change(part, { target: { value: 'Bulwark 640' } });
    press(await screen.findByRole('option', { name: /Bulwark 640/ }));
    pressNamed('Write it down', dialog);
    await within(dialog).findByText(/Certificate is empty/);
    expect(held.steps()).toEqual([]);
    fireEvent.keyDown(dialog, { key: 'Escape' });
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    pressNamed('Prices');
    await screen.findByText(/Harrow Marine Supplies/);
    pressNamed('Delete the list');
    await waitFor(() => expect(held.steps()).toEqual(['Deleted the price list Harrow 2026-09']));
    expect(held.network().count('price')).toBe(0);
    await screen.findByText('No price list yet');
  });

  test('what is short is said; a licence with too few certificates too', async () => {
    await opened();
    pressNamed('Stock');
    await screen.findByText('1 too few');
    pressNamed('Licences');
    expect(await screen.findByText('Radio manager of Norvane WA-52: 6 needed, 10 held')).toBeDefined();
    pressNamed('Prices');
    expect(await screen.findByText(/Harrow Marine Supplies · EUR · from 2026-09-01/)).toBeDefined();
  });
});
