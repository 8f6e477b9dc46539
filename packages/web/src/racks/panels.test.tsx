import { beforeAll, describe, expect, jest, test } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { Record } from '../record/Record.tsx';
import { press, pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { WherePanel } from './WherePanel.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const onClose = jest.fn<() => void>();

describe('where it fits', () => {
  const open = () => show(<WherePanel nearPlaceId={null} onClose={onClose} />, { network: demo });
  const racks = (): HTMLElement[] =>
    within(screen.getByRole('list', { name: 'Racks, best first' })).getAllByRole('listitem');

  test('every rack is ranked with the figure that decides; one is opened by a press', async () => {
    const held = await open();
    expect(racks()).toHaveLength(demo.count('rack'));
    const [best] = racks();
    press(within(best as HTMLElement).getByRole('button'));
    await waitFor(() => expect(held.at().query.get('rack')).not.toBeNull());
    await waitFor(() => expect(held.at().query.get('sel')).toBe(`rack:${held.at().query.get('rack') ?? ''}`));
  });

  test('the more is wanted, the fewer fit; what is no figure is told', async () => {
    await open();
    const fitting = (): number => Number(/fits into (\d+) of/.exec(document.body.textContent ?? '')?.[1]);
    const field = screen.getByRole('textbox', { name: 'Units, mass, power' });
    const before = fitting();
    type(field, '20 units, 500 kg, 9000 W');
    expect(fitting()).toBeLessThan(before);
    type(field, 'much');
    expect(screen.getByText('Write figures such as “4 units, 28 kg, 900 W”.')).toBeTruthy();
    pressNamed('Close dock');
    expect(onClose).toHaveBeenCalledTimes(1);
  });
});

describe('the record of a rack', () => {
  const rack = rowNamed(demo, 'rack', 'KQ-A1');
  const open = (role: 'owner' | 'reader' = 'owner') =>
    show(<Record />, { network: demo, at: `places?sel=rack:${rack.id}`, role });
  const field = (name: string): HTMLInputElement => screen.getByRole<HTMLInputElement>('textbox', { name });

  test('it is made no smaller than what stands in it, with what that is', async () => {
    const held = await open();
    const units = field('Units');
    type(units, '20');
    act(() => units.focus());
    act(() => units.blur());
    await screen.findByText(/KQ-A1 cannot have 20 units: .* stands at U\d+/);
    expect(held.steps()).toEqual([]);
    expect(units.value).toBe('20');
  });

  test('a limit of mass is kept with its unit in the sentence', async () => {
    const held = await open();
    const mass = field('Mass limit');
    type(mass, '850,5');
    act(() => mass.focus());
    act(() => mass.blur());
    await waitFor(() => expect(held.steps()).toEqual(['Set mass limit of KQ-A1 to 850.5 kg']));
  });

  test('it is not deleted while something stands in it', async () => {
    const held = await open();
    for (const button of screen.queryAllByRole('button', { name: /^Delete/ })) press(button);
    await waitFor(() => expect(held.network().get('rack', rack.id)).not.toBeNull());
    expect(held.steps()).toEqual([]);
  });

  test('a reader is offered no change', async () => {
    await open('reader');
    expect(screen.queryByRole('button', { name: /^(Add|Delete|Keep)/ })).toBeNull();
  });
});
