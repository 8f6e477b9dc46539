import { beforeAll, describe, expect, jest, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { draftModel } from '@visograph/core/catalogue';
import type { CatalogueModel } from '@visograph/core/model';
import { demoNetwork } from '../../../../core/src/testing/testDemo.ts';
import { pressNamed, rowNamed, show, type, withSizes } from '../../testing/testScreen.tsx';
import { ModelEditor } from './ModelEditor.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const onDone = jest.fn<(id: string | null) => void>();
const open = async (start: CatalogueModel) => {
  onDone.mockClear();
  return show(<ModelEditor start={start} onDone={onDone} />, { network: demo, at: 'catalogue' });
};
const field = (name: string | RegExp, part?: HTMLElement): HTMLInputElement =>
  (part === undefined ? screen : within(part)).getByRole<HTMLInputElement>('textbox', { name });
const group = (name: string): HTMLElement => screen.getByRole('group', { name });

describe('a hardware model', () => {
  const variant = () => draftModel(demo, 'device', rowNamed(demo, 'model', 'AX-2448P'));

  test('a variant begins with all of its model and a name of its own, and is added', async () => {
    const held = await open(variant());
    expect(field('Name').value).toBe('AX-2448P variant');
    expect(field('Maker').value).toBe('Norvane');
    type(field('Name'), 'AX-2448P quay');
    type(field('Mass (kg)'), '7,25');
    pressNamed('Add model');
    await waitFor(() => expect(held.steps()).toEqual(['Added the model Norvane AX-2448P quay']));
    expect(rowNamed(held.network(), 'model', 'AX-2448P quay')).toMatchObject({
      massKg: 7.25,
      sharing: 'draft',
    });
    expect(onDone).toHaveBeenCalledTimes(1);
  });

  test('faults stand at their fields, and nothing is added while there is one', async () => {
    const held = await open(variant());
    type(field('Mass (kg)'), '-2');
    type(field('Height (U)'), '1.3');
    type(field('Typical power (W)'), '9000');
    pressNamed('Add model');
    await screen.findByText('Mass is negative.');
    expect(screen.getByText('Height is not a whole or half number of units.')).toBeTruthy();
    type(field('Mass (kg)'), '2');
    type(field('Height (U)'), '1');
    pressNamed('Add model');
    await screen.findByText(/^Typical power 9 000 W is above the maximum/);
    expect(held.steps()).toEqual([]);
  });

  test('a name that the catalogue has is told by the model, at the name', async () => {
    const held = await open(variant());
    type(field('Name'), 'AX-2448P');
    pressNamed('Add model');
    await screen.findByText(/already a model with the name/);
    expect(held.steps()).toEqual([]);
  });

  test('port groups are told of as they stand, above all, and seen on the face', async () => {
    await open(variant());
    const first = group('Port group 1');
    type(field('Names', first), 'gi1/1-5000');
    await waitFor(() =>
      expect(screen.getByRole('alert').textContent).toContain('yields more than 1024 names'),
    );
    type(field('Names', first), 'gi1/1-12');
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    expect(first.textContent).toContain('12 ports');
    pressNamed('Add ports');
    const groups = screen.getAllByRole('group', { name: /^Port group/ });
    pressNamed('Remove', groups.at(-1));
    expect(screen.getAllByRole('group', { name: /^Port group/ })).toHaveLength(groups.length - 1);
  });

  test('slots are added under the next number and taken away', async () => {
    await open(variant());
    pressNamed('Add slot');
    pressNamed('Add slot');
    expect(field('Slot', group('Slot 2')).value).toBe('slot 2');
    type(field('Slot', group('Slot 2')), 'slot 1');
    await waitFor(() =>
      expect(screen.getByRole('alert').textContent).toContain('hold the name slot 1 twice'),
    );
    pressNamed('Remove', group('Slot 2'));
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
  });

  test('a price is kept in minor units, with a currency from the first figure on', async () => {
    const held = await open({ ...variant(), priceMinor: null, currency: null });
    type(field('List price'), 'dear');
    pressNamed('Add model');
    await screen.findByText(/^List price is not a/);
    type(field('List price'), '1250,5');
    pressNamed('Add model');
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(rowNamed(held.network(), 'model', 'AX-2448P variant')).toMatchObject({
      priceMinor: 125050,
      currency: 'EUR',
    });
  });

  test('Cancel leaves all as it was', async () => {
    const held = await open(variant());
    type(field('Name'), 'another');
    pressNamed('Cancel');
    expect(onDone).toHaveBeenCalledWith(null);
    expect(held.steps()).toEqual([]);
  });
});

describe('other models', () => {
  test('one that is there is changed: its sentence says so', async () => {
    const model = rowNamed(demo, 'model', 'AX-2424P');
    const held = await open(model);
    type(field('Notes'), 'quiet fans');
    pressNamed('Keep changes');
    await waitFor(() => expect(held.steps()).toEqual(['Changed the model Norvane AX-2424P']));
    expect(held.network().get('model', model.id)?.notes).toBe('quiet fans');
  });

  test('a cable type: plugs, strands and the lengths it is sold in', async () => {
    const held = await open(draftModel(demo, 'cable', null));
    type(field('Name'), 'Quay lead');
    type(field('Stock lengths, m'), '0,5; 1; 2');
    type(field('Their prices'), '3; 4');
    await waitFor(() =>
      expect(screen.getByRole('alert').textContent).toContain('are not as many as the stock lengths'),
    );
    type(field('Their prices'), '3; 4; 5,5');
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    pressNamed('Add model');
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(rowNamed(held.network(), 'model', 'Quay lead')).toMatchObject({
      form: 'cable',
      stockLengthsM: [0.5, 1, 2],
      stockPricesMinor: [300, 400, 550],
    });
  });

  test('a transceiver: what cannot be read stays with what it should be', async () => {
    const held = await open(draftModel(demo, 'transceiver', null));
    type(field('Reach, m'), 'far');
    expect(screen.getByText('“far” cannot be read: at most')).toBeTruthy();
    type(field('Reach, m'), '550');
    type(field('Sent at least'), '-8,2');
    type(field('Strands it lights'), '1-2');
    type(field('Name'), 'Quay optic');
    pressNamed('Add model');
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(rowNamed(held.network(), 'model', 'Quay optic')).toMatchObject({
      optics: { reachM: 550, launchMinDbm: -8.2 },
      opticStrands: [1, 2],
    });
  });

  test('licences are listed, each for a device or for each that it manages', async () => {
    const held = await open(draftModel(demo, 'device', rowNamed(demo, 'model', 'AX-2424P')));
    pressNamed('Add licence');
    type(field('Licence', group('Licence 1')), 'Routing');
    pressNamed('Add licence');
    pressNamed('Remove', group('Licence 2'));
    pressNamed('Add model');
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(rowNamed(held.network(), 'model', 'AX-2424P variant').licences.map(({ name }) => name)).toEqual([
      'Routing',
    ]);
  });
});
