import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { emptyProject } from '../../../core/src/testing/testDrawn.ts';
import { drawnNowhere } from '../testing/drawnNowhere.ts';
import { pressNamed, show, withSizes } from '../testing/testScreen.tsx';
import SheetsSection from '../sheets/SheetsSection.tsx';
import { listed, sheetPlace, usesText } from '../sheets/list/useSheetList.ts';
import { inSheetOrder, addMark } from '@visograph/core/sheets';
import { applyChanges } from '@visograph/core/change';
import StartSection from './StartSection.tsx';

beforeAll(() => {
  withSizes();
  drawnNowhere();
});
const demo = demoNetwork();
const names = [...demo.all('sheet')].map(({ name }) => name);

describe('the start of a project', () => {
  test('tells it in figures, each leading to its section', async () => {
    const held = await show(<StartSection />, { network: demo, at: 'start' });
    const figures = screen.getByRole('group', { name: 'The project in figures' });
    expect(within(figures).getByRole('button', { name: /^106 devices/ })).toBeTruthy();
    pressNamed(/^231 cables/, figures);
    await waitFor(() => expect(held.at().path).toBe('cables'));
  });

  test('its sheets, what is found, and what others did', async () => {
    await show(<StartSection />, { network: demo, at: 'start' });
    const sheets = screen.getByRole('region', { name: /^Sheets/ });
    for (const name of names.slice(0, 3)) expect(within(sheets).getByText(name)).toBeTruthy();
    await screen.findByRole('region', { name: /^Findings · \d+$/ });
    expect(screen.getByRole('region', { name: /Since you were last here|Newest changes/ })).toBeTruthy();
  });

  test('an empty one offers the ways to begin: a blank sheet is made in one press', async () => {
    const held = await show(<StartSection />, { network: emptyProject(), at: 'start' });
    const ways = screen.getByRole('list', { name: 'Ways to begin' });
    expect(within(ways).getAllByRole('listitem')).toHaveLength(4);
    pressNamed('Begin with a blank sheet');
    await waitFor(() => expect(held.at().path).toMatch(/^sheets\/./));
    expect(held.steps()).toEqual(['Added sheet All sites · cabling']);
  });

  test('lists are imported where they belong', async () => {
    const held = await show(<StartSection />, { network: emptyProject(), at: 'start' });
    pressNamed('Equipment list');
    await waitFor(() => expect(held.at().path).toBe('equipment'));
  });

  test('who only reads is told who begins it', async () => {
    await show(<StartSection />, { network: emptyProject(), at: 'start', role: 'reader' });
    expect(screen.queryByRole('list', { name: 'Ways to begin' })).toBeNull();
    expect(screen.getByText(/begin it/)).toBeTruthy();
  });
});

describe('sheets as pictures', () => {
  const open = () => show(<SheetsSection />, { network: demo, at: 'sheets' });
  const cards = (): string[] =>
    within(screen.getByRole('grid', { name: 'Sheets' }))
      .getAllByRole('row')
      .map((row) => row.querySelector('strong')?.textContent ?? '');
  const first = (): string => cards()[0] ?? '';

  test('are found by name, place and projection; nothing found is said', async () => {
    await open();
    expect(cards()).toHaveLength(names.length);
    const field = screen.getByRole('searchbox', { name: 'Find a sheet' });
    fireEvent.change(field, { target: { value: 'data room cabling' } });
    await waitFor(() => expect(cards()).toEqual(['Data room · cabling']));
    fireEvent.change(field, { target: { value: 'nothing such' } });
    await screen.findByText('No sheet is called so');
    pressNamed('Show all');
    await waitFor(() => expect(cards()).toHaveLength(names.length));
  });

  test('are moved and copied from their menu, as steps of their own', async () => {
    const held = await open();
    const [one = '', two = ''] = cards();
    pressNamed(`More of ${one}`);
    fireEvent.click(await screen.findByRole('menuitem', { name: 'One place later' }));
    await waitFor(() => expect(cards().slice(0, 2)).toEqual([two, one]));
    pressNamed(`More of ${two}`);
    fireEvent.click(await screen.findByRole('menuitem', { name: 'Copy' }));
    await waitFor(() => expect(cards()).toContain(`${two} (2)`));
    expect(held.steps()).toEqual(['Put sheets in order', `Copied sheet ${two} to ${two} (2)`]);
  });

  test('one that is opened has its drawing', async () => {
    const held = await open();
    const sheet = first();
    pressNamed(new RegExp(`^${sheet}`));
    await waitFor(() => expect(held.at().path).toMatch(/^sheets\/./));
  });

  test('sorted by the last change, and with what leads to them', () => {
    const sheets = inSheetOrder(demo.all('sheet'));
    const [a, b, c] = sheets;
    if (a === undefined || b === undefined || c === undefined) throw new Error('no sheets');
    const change = (id: string, revision: number) => ({
      id,
      revision,
      author: 'Ben Adair',
      at: '2026-11-29T08:00:00Z',
    });
    const changes = new Map([a, b, c].map((sheet, at) => [sheet.id, change(sheet.id, [2, 9, 5][at] ?? 0)]));
    const sorted = listed(demo, [a, b, c], { text: '', projection: null, sort: 'last change' }, changes);
    expect(sorted.map(({ id }) => id)).toEqual([b.id, c.id, a.id]);
    expect(
      listed(demo, sheets, { text: '', projection: 'routing', sort: 'name' }, changes).every(
        (one) => one.projection === 'routing',
      ),
    ).toBe(true);
    const led = applyChanges(demo, addMark(b, 'note', { linkSheetId: a.id }).changes);
    if (!led.ok) throw new Error('no mark');
    expect(usesText(led.network, a)).toBe(`from ${b.name}`);
    expect(usesText(demo, a)).toBe('');
    expect(sheetPlace(demo, { ...a, picked: true })).toBe('picked devices');
  });
});
