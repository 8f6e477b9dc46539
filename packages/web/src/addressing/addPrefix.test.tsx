import { beforeAll, describe, expect, jest, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { DialogTrigger, Popover } from 'react-aria-components';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { Button } from '../kit/controls.tsx';
import { press, pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { AddPrefix } from './AddPrefix.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const pool = rowNamed(demo, 'prefix', '10.40.0.0/19');
const onDone = jest.fn<(id: string) => void>();
const open = async () => {
  onDone.mockClear();
  const held = await show(
    <DialogTrigger>
      <Button>Open</Button>
      <Popover>
        <AddPrefix vrfId={pool.vrfId} pool={pool} start={null} onDone={onDone} />
      </Popover>
    </DialogTrigger>,
    { network: demo, at: 'addresses' },
  );
  pressNamed('Open');
  return { held, form: await screen.findByRole('form', { name: 'Add prefix' }) };
};
const wish = (form: HTMLElement): HTMLInputElement =>
  within(form).getByRole<HTMLInputElement>('textbox', { name: 'Prefix or size' });
const add = (form: HTMLElement): void => pressNamed(/^Add (prefix|\d+ prefixes)$/, form);

describe('adding a prefix', () => {
  test('hosts in words are answered with the places that are free, and what they border', async () => {
    const { held, form } = await open();
    type(wish(form), '500 hosts');
    const spots = await within(form).findByRole('radiogroup', { name: 'Where it can stand' });
    const [first, second] = within(spots).getAllByRole('radio');
    expect(first?.closest('label')?.textContent).toContain('10.40.6.0/23first free, 510 hosts');
    press(second as HTMLElement);
    type(within(form).getByRole('textbox', { name: 'Name' }), 'Workshop');
    add(form);
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    const made = rowNamed(held.network(), 'prefix', 'Workshop');
    expect(made.prefix).not.toBe('10.40.6.0/23');
    expect(made).toMatchObject({ role: 'subnet', vrfId: pool.vrfId });
    expect(onDone).toHaveBeenCalledWith(made.id);
  });

  test('several at once, under one route where that is asked for', async () => {
    const { held, form } = await open();
    type(wish(form), '/26 x 3');
    await waitFor(() =>
      expect(within(form).getByRole('status').textContent).toContain('10.40.1.0/26 to 10.40.1.128/26'),
    );
    press(within(form).getByRole('checkbox', { name: 'Together under one route' }));
    await waitFor(() =>
      expect(within(form).getByRole('status').textContent).toContain('one route 10.40.1.0/24'),
    );
    add(form);
    await waitFor(() => expect(held.network().count('prefix')).toBe(demo.count('prefix') + 3));
  });

  test('nothing, what is no prefix, and what is taken are told at the field', async () => {
    const { held, form } = await open();
    add(form);
    await screen.findByText('Prefix or size is empty.');
    type(wish(form), '10.40.14.1/24');
    add(form);
    await screen.findByText(/is an address inside 10\.40\.14\.0\/24/);
    type(wish(form), '10.40.9.0/24');
    add(form);
    await screen.findByText(/10\.40\.9\.0\/24 lies inside 10\.40\.8\.0\/22/);
    type(wish(form), '/16');
    add(form);
    await screen.findByText(/has no room for 1 × \/16/);
    expect(held.steps()).toEqual([]);
    expect(wish(form).value).toBe('/16');
  });
});
