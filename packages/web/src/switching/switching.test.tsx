import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import VlansSection from './VlansSection.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const open = (at = 'vlans', role: 'owner' | 'reader' = 'owner') =>
  show(<VlansSection />, { network: demo, at, role });
const cell = (name: string): HTMLElement => screen.getByRole('gridcell', { name });

describe('adding a VLAN', () => {
  const dialog = (): HTMLElement => screen.getByRole('dialog', { name: 'Add VLAN' });
  const field = (name: string): HTMLInputElement =>
    within(dialog()).getByRole<HTMLInputElement>('textbox', { name });

  test('the next number is proposed; one that cannot be and one that is taken are told at the field', async () => {
    const held = await open();
    pressNamed('Add VLAN');
    expect(field('Number').value).toBe('80');
    type(field('Number'), '4095');
    type(field('Name'), 'Workshop');
    pressNamed('Add VLAN', dialog());
    await waitFor(() => expect(dialog().textContent).toContain('Number is above 4094: 4095 is reserved'));
    type(field('Number'), '20');
    pressNamed('Add VLAN', dialog());
    await waitFor(() => expect(dialog().textContent).toMatch(/already a VLAN with the number 20/));
    expect(field('Name').value).toBe('Workshop');
    type(field('Number'), '81');
    pressNamed('Add VLAN', dialog());
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect(rowNamed(held.network(), 'vlan', 'Workshop').vid).toBe(81);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  test('Escape leaves it, a reader is not offered it', async () => {
    await open();
    pressNamed('Add VLAN');
    fireEvent.keyDown(field('Name'), { key: 'Escape' });
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await open('vlans', 'reader');
    expect(screen.queryByRole('button', { name: 'Add VLAN' })).toBeNull();
  });
});

describe('the list of VLANs', () => {
  test('a name is changed in its cell; a taken one is refused there', async () => {
    const held = await open();
    const list = screen.getByRole('grid');
    const rename = (at: HTMLElement, text: string): void => {
      fireEvent.click(at);
      fireEvent.doubleClick(at);
      const editor = within(list).getByRole('textbox');
      type(editor, text);
      fireEvent.keyDown(editor, { key: 'Enter' });
    };
    rename(cell('Cameras'), 'Operations');
    const [refused] = within(list)
      .getAllByRole('gridcell')
      .filter((one) => one.getAttribute('aria-invalid') === 'true');
    fireEvent.click(refused as HTMLElement);
    await waitFor(() => expect(screen.getByText(/already a VLAN with the name/)).toBeTruthy());
    expect(held.steps()).toEqual([]);
    rename(refused as HTMLElement, 'Eyes');
    await waitFor(() => expect(rowNamed(held.network(), 'vlan', 'Eyes').vid).toBe(40));
  });

  test('selecting one puts it into the address', async () => {
    const held = await open();
    fireEvent.click(cell('Cameras'));
    await waitFor(() =>
      expect(held.at().query.get('sel')).toBe(`vlan:${rowNamed(demo, 'vlan', 'Cameras').id}`),
    );
  });
});
