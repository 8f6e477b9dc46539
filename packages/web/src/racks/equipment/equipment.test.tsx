import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { demoNetwork } from '../../../../core/src/testing/testDemo.ts';
import CablesSection from '../../cabling/CablesSection.tsx';
import SchedulesSection from '../../reports/SchedulesSection.tsx';
import { rowNamed, show, type, withSizes } from '../../testing/testScreen.tsx';
import EquipmentSection from './EquipmentSection.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const grid = (): HTMLElement => screen.getAllByRole('grid')[0] as HTMLElement;
const cell = (name: string): HTMLElement =>
  within(grid()).getAllByRole('gridcell', { name })[0] as HTMLElement;
const editor = (): HTMLElement => within(grid()).getByRole('textbox');
const begin = (at: HTMLElement): void => {
  fireEvent.click(at);
  fireEvent.doubleClick(at);
};
const edit = (was: string, text: string): void => {
  begin(cell(was));
  type(editor(), text);
  fireEvent.keyDown(editor(), { key: 'Enter' });
};
/** The cell that could not be kept: marked, with what was typed still in it. */
const refused = (): HTMLElement => {
  const [wrong] = within(grid())
    .getAllByRole('gridcell')
    .filter((one) => one.getAttribute('aria-invalid') === 'true');
  if (wrong === undefined) throw new Error('no cell is marked');
  return wrong;
};
const mend = (text: string): void => {
  begin(refused());
  type(editor(), text);
  fireEvent.keyDown(editor(), { key: 'Enter' });
};
const room = rowNamed(demo, 'place', 'Data room');

describe('devices as rows', () => {
  test('a filter leaves what contains its text; a press selects the device', async () => {
    const held = await show(<EquipmentSection />, { network: demo, at: `equipment?scope=${room.id}` });
    type(screen.getByRole('searchbox', { name: 'Filter rows' }), 'kq-acc');
    await waitFor(() => expect(within(grid()).queryByRole('gridcell', { name: 'kq-core-1' })).toBeNull());
    fireEvent.click(cell('kq-acc-1'));
    await waitFor(() =>
      expect(held.at().query.get('sel')).toBe(`device:${rowNamed(demo, 'device', 'kq-acc-1').id}`),
    );
  });

  test('a name is changed in its cell; a taken one stays there with the reason', async () => {
    const held = await show(<EquipmentSection />, { network: demo, at: `equipment?scope=${room.id}` });
    edit('kq-acc-1', 'kq-acc-2');
    fireEvent.click(refused());
    await waitFor(() => expect(screen.getByText(/already a device with the name kq-acc-2/)).toBeTruthy());
    expect(refused().textContent).toBe('kq-acc-2');
    mend('kq-first');
    await waitFor(() => expect(held.steps()).toEqual(['Renamed kq-acc-1 to kq-first']));
  });

  test('a status that is none is refused with those there are', async () => {
    const held = await show(<EquipmentSection />, { network: demo, at: `equipment?scope=${room.id}` });
    edit('active', 'broken');
    fireEvent.click(refused());
    await waitFor(() => expect(screen.getByText(/planned, active or retired/)).toBeTruthy());
    expect(held.steps()).toEqual([]);
  });

  test('a reader edits nothing', async () => {
    await show(<EquipmentSection />, { network: demo, at: `equipment?scope=${room.id}`, role: 'reader' });
    fireEvent.doubleClick(cell('kq-acc-1'));
    expect(within(grid()).queryByRole('textbox')).toBeNull();
  });
});

describe('the inventory, and devices from their names', () => {
  const below = (): HTMLElement => screen.getByRole('textbox', { name: 'Below the last row' });
  const enter = (text: string): void => {
    type(below(), text);
    fireEvent.keyDown(below(), { key: 'Enter' });
  };
  const inRow = (name: string, column: number): HTMLElement =>
    within(cell(name).closest('[role="row"]') as HTMLElement).getAllByRole('gridcell')[column] as HTMLElement;

  test('a price is kept with its currency, a day as it is written; what is none is told', async () => {
    const held = await show(<EquipmentSection />, { network: demo, at: `equipment?scope=${room.id}` });
    fireEvent.click(screen.getByRole('button', { name: 'Inventory' }));
    await screen.findByRole('columnheader', { name: /Price paid/ });
    begin(inRow('kq-acc-1', 8));
    type(editor(), '1890,50');
    fireEvent.keyDown(editor(), { key: 'Enter' });
    fireEvent.click(refused());
    await screen.findByText('Say the currency too, as in 1250.00 EUR.');
    mend('1890,50 eur');
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(rowNamed(held.network(), 'device', 'kq-acc-1')).toMatchObject({
      priceMinor: 189050,
      currency: 'EUR',
    });
    expect(inRow('kq-acc-1', 8).textContent).toBe('1 890.50 EUR');
    begin(inRow('kq-acc-1', 9));
    type(editor(), 'soon');
    fireEvent.keyDown(editor(), { key: 'Enter' });
    fireEvent.click(refused());
    await screen.findByText(/Warranty until is not a date such as 2031-06-30/);
  });

  test('a name typed below the last row is a device of the role that it begins with', async () => {
    const held = await show(<EquipmentSection />, { network: demo, at: `equipment?scope=${room.id}` });
    enter('sw-new-1');
    await waitFor(() => expect(held.steps()).toEqual(['Added sw-new-1']));
    expect(rowNamed(held.network(), 'device', 'sw-new-1')).toMatchObject({ role: 'SW', placeId: room.id });
    enter('kq-acc-1');
    await screen.findByText('kq-acc-1 is there already.');
    enter('a:b');
    await screen.findByText(/a:b: Name contains a colon/);
    expect(held.steps()).toHaveLength(1);
  });

  test('a reader is offered none of it', async () => {
    await show(<EquipmentSection />, { network: demo, at: `equipment?scope=${room.id}`, role: 'reader' });
    expect(screen.queryByRole('textbox', { name: 'Below the last row' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Import' })).toBeNull();
  });
});

describe('cables as rows', () => {
  test('a length is typed with comma or point; what is none is told; a taken label as well', async () => {
    const cable = rowNamed(demo, 'cable', 'KQ-00001');
    const held = await show(<CablesSection />, { network: demo, at: 'cables' });
    edit('KQ-00001', 'KQ-00002');
    fireEvent.click(refused());
    await waitFor(() => expect(screen.getByText(/label KQ-00002/)).toBeTruthy());
    mend('KQ-00001');
    const row = cell('KQ-00001').closest('[role="row"]') as HTMLElement;
    const length = within(row).getAllByRole('gridcell')[2] as HTMLElement;
    begin(length);
    type(editor(), 'far');
    fireEvent.keyDown(editor(), { key: 'Enter' });
    fireEvent.click(refused());
    await waitFor(() => expect(screen.getByText('“far” is not a length in metres.')).toBeTruthy());
    mend('7,5');
    await waitFor(() => expect(held.network().get('cable', cable.id)?.lengthM).toBe(7.5));
  });
});

describe('schedules', () => {
  test('each is shown for the scope, with its rows in a grid and what can be saved', async () => {
    await show(<SchedulesSection />, { network: demo, at: `schedules?scope=${room.id}` });
    expect(within(grid()).getAllByRole('row').length).toBeGreaterThan(3);
    for (const name of ['Save CSV', 'Save XLSX']) expect(screen.getByRole('button', { name })).toBeTruthy();
  });
});
