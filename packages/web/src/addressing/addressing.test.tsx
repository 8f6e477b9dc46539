import { beforeAll, describe, expect, jest, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Prefix } from '@visograph/core/model';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { NumberLinks, NumberLoopbacks } from './NumberLinks.tsx';
import { PlanSite } from './PlanSite.tsx';
import { PrefixActs } from './record/PrefixActs.tsx';
import { TemplatesView } from './TemplatesView.tsx';
import { VrfsView } from './VrfsView.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const prefix = (text: string): Prefix => rowNamed(demo, 'prefix', text);
const button = (name: string | RegExp): HTMLButtonElement =>
  screen.getByRole<HTMLButtonElement>('button', { name });
/** Chooses in a picker by typing a part of the text. */
const choose = (label: string, part: string): void => {
  const picker = screen.getByLabelText(label, { selector: 'input' });
  fireEvent.focus(picker);
  type(picker, part);
  fireEvent.keyDown(picker, { key: 'ArrowDown' });
  fireEvent.keyDown(picker, { key: 'Enter' });
};

describe('VRFs', () => {
  test('one is added; no name, a taken name: told at the field, and what was typed stays', async () => {
    const held = await show(<VrfsView />, { network: demo, at: 'addresses' });
    const name = screen.getByRole<HTMLInputElement>('textbox', { name: 'New VRF' });
    pressNamed('Add VRF');
    await waitFor(() => expect(screen.getByText('New VRF is empty.')).toBeTruthy());
    type(name, 'OPS');
    pressNamed('Add VRF');
    await waitFor(() => expect(screen.getByText(/already a VRF with the name OPS/)).toBeTruthy());
    expect(name.value).toBe('OPS');
    type(name, 'guests ');
    pressNamed('Add VRF');
    await waitFor(() => expect(held.steps()).toEqual(['Added VRF guests']));
    expect(rowNamed(held.network(), 'vrf', 'guests').colour).toBeGreaterThanOrEqual(0);
    await waitFor(() => expect(name.value).toBe(''));
  });

  test('one that prefixes are in is not deleted, with the reason', async () => {
    const held = await show(<VrfsView />, { network: demo, at: 'addresses' });
    expect(button('Delete VRF').disabled).toBe(true);
    fireEvent.click(screen.getByRole('gridcell', { name: 'ops' }));
    await waitFor(() => expect(button('Delete VRF').disabled).toBe(false));
    pressNamed('Delete VRF');
    await waitFor(() => expect(screen.getByRole('alert').textContent).toMatch(/\d+ prefixes/));
    expect(held.steps()).toEqual([]);
  });

  test('a reader adds and deletes none', async () => {
    await show(<VrfsView />, { network: demo, at: 'addresses', role: 'reader' });
    expect(screen.queryByRole('form', { name: 'Add a VRF' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Delete VRF' })).toBeNull();
  });
});

describe('site templates', () => {
  test('a part is added and kept with the others, in their order', async () => {
    const held = await show(<TemplatesView />, { network: demo, at: 'addresses' });
    const [template] = [...demo.all('siteTemplate')].sort((a, b) => (a.name < b.name ? -1 : 1));
    const names = template?.parts.map(({ name }) => name) ?? [];
    const list = screen.getByRole('grid', { name: 'Prefixes of the template, in order' });
    expect(within(list).getAllByRole('row')).toHaveLength(names.length);
    for (const name of names) expect(within(list).getByRole('button', { name: `Move ${name}` })).toBeTruthy();
    pressNamed('Add a prefix');
    const last = within(list).getAllByRole('row').at(-1) as HTMLElement;
    type(within(last).getByRole('textbox', { name: 'Name' }), 'Workshop');
    pressNamed('Keep template');
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    const kept = held.network().get('siteTemplate', template?.id ?? null);
    expect(kept?.parts.map(({ name }) => name)).toEqual([...names, 'Workshop']);
  });

  test('a reader sees the order and changes none', async () => {
    await show(<TemplatesView />, { network: demo, at: 'addresses', role: 'reader' });
    expect(screen.queryByRole('button', { name: /^Move / })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Keep template' })).toBeNull();
  });
});

describe('panels that show what they would make', () => {
  test('renumbering lists every fact first; a target that is taken or none is told; Enter does it', async () => {
    const row = prefix('10.40.8.0/22');
    const held = await show(<PrefixActs row={row} />, { network: demo, at: 'addresses' });
    pressNamed('Renumber …');
    const to = await screen.findByRole('textbox', { name: 'To' });
    expect(button('Renumber').disabled).toBe(true);
    type(to, '10.40.8.0/33');
    await waitFor(() => expect(screen.getByRole('alert')).toBeTruthy());
    type(to, '10.41.0.0/24');
    await waitFor(() => expect(screen.getByRole('alert').textContent).not.toBe(''));
    type(to, '10.40.16.0/22');
    const table = await screen.findByRole('table', { name: 'What changes' });
    const facts = within(table).getAllByRole('row').length - 1;
    expect(facts).toBeGreaterThan(5);
    expect(button(`Change ${facts} facts`).disabled).toBe(false);
    fireEvent.submit(to.closest('form') as HTMLFormElement);
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(rowNamed(held.network(), 'prefix', '10.40.16.0/22').id).toBe(row.id);
    await waitFor(() => expect(screen.queryByRole('textbox', { name: 'To' })).toBeNull());
  });

  test('links without a subnet are listed in order of distance; without a pool nothing can be done', async () => {
    await show(<NumberLinks open onOpenChange={() => undefined} />, { network: demo, at: 'addresses' });
    expect(screen.getByText(/routed links/)).toBeTruthy();
    expect(button(/^Number \d+ links?$/).disabled).toBe(true);
  });

  test('loopbacks: which routers have none, and what each would get', async () => {
    const onOpenChange = jest.fn<(open: boolean) => void>();
    const held = await show(<NumberLoopbacks open onOpenChange={onOpenChange} />, {
      network: demo,
      at: 'addresses',
    });
    const act = button(/^Number \d+ routers?$/);
    const none = screen.queryByText('Every router has a loopback in this VRF already.');
    expect(act.disabled).toBe(none !== null);
    if (none !== null) return;
    const table = screen.getByRole('table', { name: 'Routers without a loopback' });
    const rows = within(table).getAllByRole('row');
    expect(rows.map((row) => row.textContent ?? '').every((text) => /\d+\.\d+\.\d+\.\d+/.test(text))).toBe(
      true,
    );
    fireEvent.click(act);
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(onOpenChange).toHaveBeenCalledWith(false);
  });

  test('a site is planned from a template: the pool is asked for, then what comes of it is shown or why not', async () => {
    const held = await show(<PlanSite open onOpenChange={() => undefined} />, {
      network: demo,
      at: 'addresses',
    });
    expect(screen.getByText(/Choose the pool of the region/)).toBeTruthy();
    expect(button(/^Plan /).disabled).toBe(true);
    choose('Region of VRF ops', '10.40.0.0/19');
    // Every site of the demo has prefixes: which one is meant is asked for.
    await waitFor(() => expect(screen.getByText(/Choose the site/)).toBeTruthy());
    choose('Site', 'Otterslip');
    await waitFor(() => expect(screen.queryByText(/Choose the site/)).toBeNull());
    const told = screen.queryByRole('alert', { hidden: true })?.textContent ?? '';
    const tables = screen.queryAllByRole('table', { hidden: true });
    expect(told !== '' || tables.length > 0).toBe(true);
    expect(held.steps()).toEqual([]);
  });
});
