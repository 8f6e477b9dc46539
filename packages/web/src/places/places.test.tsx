import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { childPlaces } from '@visograph/core/model';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { networkOf } from '../../../core/src/testing/testNetwork.ts';
import { press, pressNamed, rowNamed, show, withSizes } from '../testing/testScreen.tsx';
import { CapacityTable } from './CapacityTable.tsx';
import PlacesSection from './PlacesSection.tsx';
import { PlaceTree } from './PlaceTree.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const quay = rowNamed(demo, 'place', 'Kelder Quay');
const room = rowNamed(demo, 'place', 'Data room');

describe('the tree of places', () => {
  const row = (name: RegExp): HTMLElement => screen.getByRole('row', { name });

  test('counts what is in each, with the worst that was found there', async () => {
    await show(<PlaceTree />, { network: demo });
    expect(row(/^All sites, 106 devices/)).toBeTruthy();
    await waitFor(() => expect(row(/^Kelder Quay, \d+ devices, \d+ findings$/)).toBeTruthy());
  });

  test('choosing one makes it what everything is about', async () => {
    const held = await show(<PlaceTree />, { network: demo });
    fireEvent.click(row(/^Kelder Quay,/));
    await waitFor(() => expect(held.at().query.get('scope')).toBe(quay.id));
    await waitFor(() => expect(held.at().query.get('sel')).toBe(`place:${quay.id}`));
    fireEvent.click(row(/^All sites,/));
    await waitFor(() => expect(held.at().query.get('scope')).toBeNull());
  });

  test('the way to the chosen place is open', async () => {
    await show(<PlaceTree />, { network: demo, at: `places?scope=${room.id}` });
    expect(row(/^Data room,/).getAttribute('aria-selected')).toBe('true');
  });
});

describe('a place', () => {
  test('of several sites: each as a card, which leads into it', async () => {
    const held = await show(<PlacesSection />, { network: demo });
    for (const { name } of childPlaces(demo, null))
      expect(screen.getAllByText(name).length).toBeGreaterThan(0);
    press(screen.getByRole('button', { name: /^Kelder Quay/ }));
    await waitFor(() => expect(held.at().query.get('scope')).toBe(quay.id));
  });

  test('of racks: each small, which opens it', async () => {
    const held = await show(<PlacesSection />, { network: demo, at: `places?scope=${room.id}` });
    const [rack] = screen.getAllByRole('button', { name: /^Rack KQ-A1/ });
    press(rack as HTMLElement);
    await waitFor(() => expect(held.at().query.get('rack')).toBe(rowNamed(demo, 'rack', 'KQ-A1').id));
  });

  test('with nothing in it says what can be done; to a reader, who can', async () => {
    const empty = networkOf({ places: [{ path: 'Quay', kind: 'site' }] });
    const at = `places?scope=${rowNamed(empty, 'place', 'Quay').id}`;
    await show(<PlacesSection />, { network: empty, at });
    expect(screen.getByText(/^(No|Nothing)/)).toBeTruthy();
    await show(<PlacesSection />, { network: empty, at, role: 'reader' });
    expect(screen.queryByRole('button', { name: /^(Add|Import)/ })).toBeNull();
  });
});

describe('capacity', () => {
  test('a row for each rack or for each place, sorted by any figure', async () => {
    await show(<CapacityTable place={quay} />, { network: demo });
    const grid = (): HTMLElement => screen.getByRole('grid', { name: 'Capacity' });
    const racks = demo.find('racksByPlace', room.id).length;
    expect(within(grid()).getAllByRole('row').length).toBeGreaterThan(racks);
    const heads = within(grid()).getAllByRole('columnheader');
    const at = heads.findIndex((head) => head.textContent?.startsWith('Free'));
    const head = heads[at];
    if (head === undefined) throw new Error('no free units');
    pressNamed(/^Free/, head);
    pressNamed(/^Free/, head);
    expect(head.getAttribute('aria-sort')).toBe('descending');
    const figures = within(grid())
      .getAllByRole('row')
      .slice(1)
      .map((row) => Number(within(row).getAllByRole('gridcell')[at]?.textContent));
    expect(figures).toEqual([...figures].sort((a, b) => b - a));
    pressNamed(/Each rack|Rows/);
    press(await screen.findByRole('option', { name: 'Each place' }));
    await waitFor(() => expect(within(grid()).queryAllByRole('gridcell', { name: 'KQ-A1' })).toEqual([]));
  });
});
