import { beforeAll, describe, expect, test } from '@jest/globals';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { useRecordShown } from '../data/recordShown.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { CommandLine } from './CommandLine.tsx';
import { ScopePath } from './ScopePath.tsx';
import { StatusLine } from './StatusLine.tsx';
import { useKeys } from './useKeys.ts';

beforeAll(withSizes);
const demo = demoNetwork();
const line = (): HTMLInputElement => screen.getByRole<HTMLInputElement>('combobox', { name: 'Find or do' });
const options = (): string[] => screen.queryAllByRole('option').map((one) => one.textContent ?? '');
const enter = (): void => void fireEvent.keyDown(line(), { key: 'Enter' });

describe('the command line', () => {
  const open = (at?: string) => show(<CommandLine />, { network: demo, ...(at === undefined ? {} : { at }) });

  test('empty it shows what can be written', async () => {
    await open();
    act(() => line().focus());
    expect(options().length).toBeGreaterThan(4);
  });

  test('goes where what was found is best seen', async () => {
    const held = await open();
    const cases = [
      ['KQ-A1', 'places', 'rack'],
      ['KQ-00001', 'cables', 'cable'],
      ['10.40.8.0/22', 'addresses', 'prefix'],
    ] as const;
    for (const [text, section, kind] of cases) {
      act(() => line().focus());
      type(line(), text);
      enter();
      await waitFor(() => expect(held.at().path.startsWith(section)).toBe(true));
      await waitFor(() => expect(held.at().query.get('sel')).toMatch(new RegExp(`^${kind}:`)));
      expect(line().value).toBe('');
    }
    const device = rowNamed(demo, 'device', 'kq-acc-1');
    act(() => line().focus());
    type(line(), 'kq-acc-1');
    enter();
    await waitFor(() => expect(held.at().query.get('sel')).toBe(`device:${device.id}`));
    await waitFor(() => expect(held.at().query.get('rack')).toBe(device.rackId));
  });

  test('does what is written, and says why it cannot', async () => {
    const held = await open();
    act(() => line().focus());
    type(line(), 'connect kq-acc-1 gi1/40 to kq-acc-2 gi1/40');
    await waitFor(() => expect(options()[0]).toMatch(/connect/i));
    enter();
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    act(() => line().focus());
    type(line(), 'connect kq-acc-1 gi1/99 to kq-acc-2 gi1/41');
    await waitFor(() => expect(options().join(' ')).toMatch(/no port gi1\/99/));
    enter();
    expect(held.steps()).toHaveLength(1);
    expect(line().value).not.toBe('');
  });

  test('arrows choose, Escape empties it', async () => {
    await open();
    act(() => line().focus());
    type(line(), 'kq-acc');
    await waitFor(() => expect(options().length).toBeGreaterThan(2));
    const chosen = (): number =>
      screen.getAllByRole('option').findIndex((one) => one.getAttribute('aria-selected') === 'true');
    expect(chosen()).toBe(0);
    fireEvent.keyDown(line(), { key: 'ArrowDown' });
    fireEvent.keyDown(line(), { key: 'ArrowDown' });
    expect(chosen()).toBe(2);
    fireEvent.keyDown(line(), { key: 'ArrowUp' });
    expect(chosen()).toBe(1);
    expect(line().getAttribute('aria-activedescendant')).toBe(screen.getAllByRole('option')[1]?.id);
    fireEvent.keyDown(line(), { key: 'Escape' });
    expect([line().value, options()]).toEqual(['', []]);
  });
});

describe('the status line', () => {
  test('counts what is in the scope, in the singular where there is one; says what is selected', async () => {
    const room = rowNamed(demo, 'place', 'Data room');
    const rack = rowNamed(demo, 'rack', 'KQ-A1');
    await show(<StatusLine />, { network: demo, at: `places?scope=${room.id}&sel=rack:${rack.id}` });
    expect(screen.getByText(/\d+ devices · 3 racks · \d+ ports used of \d+/)).toBeTruthy();
    expect(screen.getByText('selected: KQ-A1')).toBeTruthy();
    await screen.findByText(/12 findings in the project/);
  });
});

describe('the path of the scope', () => {
  test('leads out of a rack step by step', async () => {
    const rack = rowNamed(demo, 'rack', 'KQ-A1');
    const held = await show(<ScopePath projectName="Marrow Sound Ferries" />, {
      network: demo,
      at: `places?scope=${rack.placeId}&rack=${rack.id}`,
    });
    expect(screen.getByRole('navigation').textContent).toMatch(/Kelder Quay.*Data room.*KQ-A1/);
    fireEvent.click(screen.getByRole('button', { name: 'Kelder Quay: open' }));
    fireEvent.click(await screen.findByRole('menuitem', { name: 'Kelder Quay' }));
    await waitFor(() => expect(held.at().query.get('scope')).toBe(rowNamed(demo, 'place', 'Kelder Quay').id));
    await waitFor(() => expect(held.at().query.get('rack')).toBeNull());
  });
});

describe('keys that work everywhere', () => {
  function Keys(): ReactNode {
    useKeys();
    const { dock, stripOpen, keysOpen } = useWorkspace();
    const { shown } = useRecordShown();
    return (
      <>
        <output>{JSON.stringify({ dock: dock?.form ?? null, shown, stripOpen, keysOpen })}</output>
        <input aria-label="typing" />
      </>
    );
  }
  const now = (): Record<string, unknown> =>
    JSON.parse(screen.getByRole('status').textContent ?? '') as Record<string, unknown>;
  const key = (name: string, more: object = {}, target: Element = document.body): void =>
    void fireEvent.keyDown(target, { key: name, ...more });

  test('single letters act on what is selected, not while something is typed', async () => {
    const device = rowNamed(demo, 'device', 'kq-acc-1');
    await show(<Keys />, { network: demo, at: `places?sel=device:${device.id}` });
    key('c', {}, screen.getByRole('textbox', { name: 'typing' }));
    expect(now()['dock']).toBeNull();
    key('c');
    expect(now()['dock']).toBe('connect');
    key('Escape');
    expect(now()['dock']).toBeNull();
    // A device has no one run to trace.
    key('t');
    expect(now()['dock']).toBeNull();
    key('\\');
    key('=');
    key('?');
    expect(now()).toMatchObject({ shown: false, stripOpen: true, keysOpen: true });
  });

  test('T traces the cable that is selected; Alt and a figure, or P, goes to a section', async () => {
    const cable = rowNamed(demo, 'cable', 'KQ-00001');
    const held = await show(<Keys />, { network: demo, at: `cables?sel=cable:${cable.id}` });
    key('t');
    expect(now()['dock']).toBe('trace');
    key('3', { altKey: true });
    await waitFor(() => expect(held.at().path).toBe('equipment'));
    key('P', { altKey: true });
    await waitFor(() => expect(held.at().path).toBe('parts'));
  });

  test('a reader connects nothing', async () => {
    const device = rowNamed(demo, 'device', 'kq-acc-1');
    await show(<Keys />, { network: demo, at: `places?sel=device:${device.id}`, role: 'reader' });
    key('c');
    expect(now()['dock']).toBeNull();
  });
});

test('what is not selected is not told', async () => {
  await show(<StatusLine />, { network: demo });
  expect(within(document.body).queryByText(/^selected:/)).toBeNull();
});
