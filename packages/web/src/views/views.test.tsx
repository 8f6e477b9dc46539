import { beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { viewsOf } from '@visograph/core/report';
import { networkOf } from '../../../core/src/testing/testNetwork.ts';
import CablesSection from '../cabling/CablesSection.tsx';
import { press, pressNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { viewText } from './useView.ts';
import { plainView } from '@visograph/core/model';

const network = networkOf({
  places: [{ path: 'Quay', kind: 'site', code: 'KQ' }],
  devices: ['a', 'b', 'c'].map((name) => ({
    ...{ name, role: 'SW' as const, place: 'Quay' },
    ports: [{ name: '1' }, { name: '2' }],
  })),
  cables: [
    { label: 'K-1', a: 'a:1', b: 'b:1', lengthM: 5 },
    { label: 'K-2', a: 'a:2', b: 'c:1', lengthM: 30 },
    { label: 'K-10', a: 'b:2', b: 'c:2', lengthM: 12 },
  ],
});
const shown = (): string[] =>
  within(screen.getByRole('grid'))
    .getAllByRole('row')
    .slice(1)
    .map((row) => within(row).getAllByRole('gridcell')[0]?.textContent ?? '');
const at = (view: object): string => `cables?rows=${encodeURIComponent(`cables:${JSON.stringify(view)}`)}`;

beforeAll(withSizes);
beforeEach(() => localStorage.clear());

describe('the view of a list', () => {
  test('is in the address: rows, groups, order; and is told with a way back', async () => {
    const held = await show(<CablesSection />, {
      network,
      at: at({
        filters: [{ key: 'lengthM', test: 'at least', value: '10' }],
        group: 'bDevice',
        order: { key: 'label', descending: true },
      }),
    });
    await waitFor(() => expect(shown()).toEqual(['c · 2 rows', 'K-10', 'K-2']));
    screen.getByText('2 of 3 rows');
    screen.getByText('in groups of B device');
    pressNamed('All as it comes');
    await waitFor(() => expect(shown()).toHaveLength(3));
    expect(held.at().query.get('rows')).toBeNull();
  });

  test('a head puts rows in order in the address; columns are left out and come back', async () => {
    const held = await show(<CablesSection />, { network, at: 'cables' });
    pressNamed('Cable');
    await waitFor(() => expect(shown()).toEqual(['K-1', 'K-2', 'K-10']));
    pressNamed('Cable ↑');
    await waitFor(() => expect(shown()).toEqual(['K-10', 'K-2', 'K-1']));
    expect(held.at().query.get('rows')).toContain('"descending":true');
    pressNamed('View of Cables');
    const panel = await screen.findByRole('dialog', { name: 'View of Cables' });
    pressNamed('Leave out Type', panel);
    await waitFor(() =>
      expect(screen.queryByRole('columnheader', { name: 'Type', hidden: true })).toBeNull(),
    );
    pressNamed('As it comes', panel);
    await waitFor(() => screen.getByRole('columnheader', { name: 'Type', hidden: true }));
  });

  test('is kept for all and for oneself, and chosen again', async () => {
    const held = await show(<CablesSection />, { network, at: at({ group: 'aDevice' }) });
    pressNamed('View of Cables');
    const panel = await screen.findByRole('dialog', { name: 'View of Cables' });
    pressNamed('Keep for all', panel);
    await within(panel).findByText('The view has no name. Give it one.');
    const name = within(panel).getByRole('textbox', { name: 'Keep this view as' });
    type(name, 'By switch');
    pressNamed('Keep for all', panel);
    await waitFor(() =>
      expect(viewsOf(held.network(), 'cables')).toMatchObject([{ name: 'By switch', group: 'aDevice' }]),
    );
    type(name, 'My own');
    pressNamed('Keep for me', panel);
    await within(panel).findByText('mine');
    pressNamed('As it comes', panel);
    await waitFor(() => expect(held.at().query.get('rows')).toBeNull());
    pressNamed('My own', panel);
    await waitFor(() => expect(held.at().query.get('rows')).toContain('aDevice'));
    pressNamed('Delete my view My own', panel);
    await waitFor(() => expect(within(panel).queryByText('mine')).toBeNull());
    press(within(panel).getByRole('button', { name: 'Delete the view By switch' }));
    await waitFor(() => expect(viewsOf(held.network(), 'cables')).toEqual([]));
  });

  test('opens as a question of the schedule of the same rows, and says what it cannot take along', async () => {
    const held = await show(<CablesSection />, {
      network,
      at: at({ columns: ['label', 'lengthM'], group: 'aDevice' }),
    });
    type(screen.getByRole('searchbox', { name: 'Filter rows' }), 'K');
    pressNamed('View of Cables');
    pressNamed('Open as a schedule', await screen.findByRole('dialog', { name: 'View of Cables' }));
    await waitFor(() => expect(held.at().path).toBe('schedules'));
    expect(held.at().query.get('schedule')).toBe('cables');
    expect(JSON.parse(held.at().query.get('view') ?? '')).toMatchObject({
      columns: [{ key: 'label' }, { key: 'lengthM' }],
      groups: ['aDevice'],
    });
  });

  test('a column that is no more, and an address that cannot be read, are told; the rows are there', async () => {
    await show(<CablesSection />, { network, at: at({ group: 'room' }) });
    await screen.findByText(/There is no column “room” here/);
    expect(shown()).toHaveLength(3);
    await show(<CablesSection />, { network, at: 'cables?rows=cables:{' });
    await screen.findByText(/What the address says of this list cannot be read/);
    expect(shown()).toHaveLength(3);
    // What was asked of another list says nothing to this one.
    await show(<CablesSection />, { network, at: 'cables?rows=devices:{' });
    expect(shown()).toHaveLength(3);
    expect(screen.queryByRole('alert')).toBeNull();
  });

  test('columns are made wider with the keyboard, and stay within what a column may be', async () => {
    const held = await show(<CablesSection />, { network, at: 'cables' });
    const [cell] = within(screen.getByRole('grid')).getAllByRole('gridcell');
    if (cell === undefined) throw new Error('no cell');
    fireEvent.keyDown(cell, { key: 'ArrowRight', altKey: true, shiftKey: true });
    await waitFor(() => expect(held.at().query.get('rows')).toContain('"widths"'));
    for (let at = 0; at < 12; at++)
      fireEvent.keyDown(cell, { key: 'ArrowLeft', altKey: true, shiftKey: true });
    await waitFor(() => expect(held.at().query.get('rows')).toContain('30'));
  });
});

test('a plain view is no text', () => {
  expect(viewText(plainView)).toBeNull();
  expect(viewText({ ...plainView, group: 'type' })).toBe('{"group":"type"}');
});
