import { beforeAll, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { addKit, kitContents, removeKit } from '@visograph/core/catalogue';
import { applyChanges } from '@visograph/core/change';
import type { Network } from '@visograph/core/model';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { Record } from '../record/Record.tsx';
import { press, pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import CatalogueSection from './CatalogueSection.tsx';
import { KitList } from './KitList.tsx';

beforeAll(withSizes);
const demo = demoNetwork();

describe('the catalogue', () => {
  test('words narrow the list, whatever their order', async () => {
    await show(<CatalogueSection />, { network: demo, at: 'catalogue' });
    const models = (): HTMLElement[] =>
      within(screen.getByRole('listbox', { name: 'Models' })).getAllByRole('option');
    const setSize = (): number => Number(models()[0]?.getAttribute('aria-setsize'));
    const all = setSize();
    type(screen.getByRole('searchbox'), '48 norvane');
    await waitFor(() => expect(setSize()).toBeLessThan(all));
    for (const row of models()) expect(row.textContent).toMatch(/Norvane/);
    type(screen.getByRole('searchbox'), 'no such thing');
    await screen.findByText('Nothing has “no such thing” in its name, number, role or ports.');
  });

  test('editing asked for by a record opens the editor here, a variant as a draft of its own', async () => {
    const model = rowNamed(demo, 'model', 'CR-6032');
    const both = (
      <>
        <CatalogueSection />
        <Record />
      </>
    );
    await show(both, { network: demo, at: `catalogue?sel=model:${model.id}` });
    pressNamed('Make a variant');
    const editor = await screen.findByRole('region', { name: 'Model editor' });
    expect(within(editor).getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value).toBe(
      'CR-6032 variant',
    );
    pressNamed('Cancel', editor);
    await waitFor(() => expect(screen.queryByRole('region', { name: 'Model editor' })).toBeNull());
    pressNamed('Edit …');
    const again = await screen.findByRole('region', { name: 'Model editor' });
    expect(within(again).getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value).toBe('CR-6032');
    expect(within(again).getByRole('button', { name: 'Keep changes' })).toBeTruthy();
  });

  test('a reader opens no editor', async () => {
    await show(<CatalogueSection />, { network: demo, at: 'catalogue', role: 'reader' });
    expect(screen.queryByRole('button', { name: /^(New|Add)/ })).toBeNull();
  });
});

describe('kits', () => {
  const withKit = (): Network => {
    const set = addKit('Quay rack', kitContents(demo, [rowNamed(demo, 'rack', 'KQ-A1')], []));
    // Alone: without the kit of the demo, which a parts list counts.
    const gone = removeKit(demo, rowNamed(demo, 'kit', 'Slipway radio hop'));
    const applied = applyChanges(demo, [...(gone.ok ? gone.set.changes : []), ...set.changes]);
    if (!applied.ok || !gone.ok) throw new Error('the kit could not be kept');
    return applied.network;
  };

  test('one is placed again in new racks, where it is asked for', async () => {
    const network = withKit();
    const held = await show(<KitList />, { network, at: 'catalogue' });
    pressNamed('Place …');
    const form = screen.getByRole('form', { name: 'Place Quay rack' });
    // The list of places is open at once, which hides what is around it from its roles.
    press(within(form).getByRole('button', { name: 'Place kit', hidden: true }));
    await screen.findByText('In is not chosen.');
    const place = within(form).getByLabelText<HTMLInputElement>('In', { selector: 'input' });
    type(place, 'slipway');
    press(await screen.findByRole('option', { name: /Slipway/ }));
    press(within(form).getByRole('button', { name: 'Place kit', hidden: true }));
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(held.network().count('rack')).toBe(network.count('rack') + 1);
    await waitFor(() => expect(held.at().path).toMatch(/^places/));
  });

  test('Cancel closes the form; a kit is deleted', async () => {
    const held = await show(<KitList />, { network: withKit(), at: 'catalogue' });
    pressNamed('Place …');
    press(screen.getByRole('button', { name: 'Cancel', hidden: true }));
    expect(screen.queryByRole('form')).toBeNull();
    pressNamed('Delete');
    await screen.findByText('No kits yet');
    expect(held.steps()).toEqual(['Deleted the kit Quay rack']);
  });
});

describe('own fields of a device', () => {
  test('one is added with its value; without one it is told; emptied it is gone', async () => {
    const device = rowNamed(demo, 'device', 'kq-acc-1');
    const held = await show(<Record />, { network: demo, at: `equipment?sel=device:${device.id}` });
    const form = screen.getByRole('form', { name: 'Add a field' });
    const name = within(form).getByRole('textbox', { name: 'New field' });
    type(name, 'Contract');
    pressNamed('Add field', form);
    await screen.findByText('Value is empty.');
    type(within(form).getByRole('textbox', { name: 'Value' }), 'Q-17');
    pressNamed('Add field', form);
    await waitFor(() => expect(held.steps()).toEqual(['Set Contract of kq-acc-1 to Q-17']));
    const kept = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Contract' });
    expect(kept.value).toBe('Q-17');
    type(kept, '');
    kept.focus();
    kept.blur();
    await waitFor(() =>
      expect(held.network().get('device', device.id)?.extra).not.toHaveProperty('Contract'),
    );
  });
});
