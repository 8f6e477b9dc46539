import { beforeAll, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { cablingRules } from '@visograph/core/cabling';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { Record } from '../record/Record.tsx';
import { press, pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { Circuits } from './Circuits.tsx';
import { FreePorts } from './FreePorts.tsx';
import { Relabel } from './Relabel.tsx';
import { RulesForm } from './RulesForm.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const field = (name: string | RegExp, part?: HTMLElement): HTMLInputElement =>
  (part === undefined ? screen : within(part)).getByRole<HTMLInputElement>('textbox', { name });

describe('circuits', () => {
  test('one is added by its number, which is there once, and opened', async () => {
    const held = await show(<Circuits filter="" />, { network: demo });
    pressNamed('Add circuit');
    await screen.findByText('Circuit number is empty.');
    type(field('Circuit number'), 'HC-20417');
    pressNamed('Add circuit');
    await screen.findByText(/already a circuit with the/);
    type(field('Circuit number'), ' HC-9001 ');
    type(field('Provider'), 'Holm Carrier');
    pressNamed('Add circuit');
    await waitFor(() => expect(held.steps()).toEqual(['Added circuit HC-9001']));
    const made = rowNamed(held.network(), 'circuit', 'HC-9001');
    expect(made.provider).toBe('Holm Carrier');
    await waitFor(() => expect(held.at().query.get('sel')).toBe(`circuit:${made.id}`));
    await waitFor(() => expect([field('Circuit number').value, field('Provider').value]).toEqual(['', '']));
  });

  test('the list says what each joins, and is filtered', async () => {
    await show(<Circuits filter="sn-0093" />, { network: demo });
    const grid = screen.getByRole('grid', { name: 'Circuits' });
    expect(within(grid).getAllByRole('row')).toHaveLength(2);
    expect(within(grid).getByRole('gridcell', { name: 'SN-0093-A' })).toBeTruthy();
  });

  test('a reader adds none', async () => {
    await show(<Circuits filter="" />, { network: demo, role: 'reader' });
    expect(screen.queryByRole('form')).toBeNull();
  });
});

describe('what lengths and losses are worked out with', () => {
  const keep = (): HTMLButtonElement => screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' });

  test('a figure is kept for the project; one that is none or out of range is told', async () => {
    const held = await show(<RulesForm />, { network: demo });
    expect(keep().disabled).toBe(true);
    type(field('Slack per end, m'), '-1');
    press(keep());
    await screen.findByText('Slack per end, m is negative.');
    type(field('Slack per end, m'), 'some');
    await screen.findByText('Slack per end, m is not a number.');
    type(field('Slack per end, m'), '0,75');
    press(keep());
    await waitFor(() => expect(cablingRules(held.network()).slackM).toBe(0.75));
    await waitFor(() => expect(keep().disabled).toBe(true));
    expect(cablingRules(held.network()).labelScheme).toBe(cablingRules(demo).labelScheme);
  });

  test('a reader sees them', async () => {
    await show(<RulesForm />, { network: demo, role: 'reader' });
    expect(field('Splice, dB').readOnly).toBe(true);
    expect(keep().disabled).toBe(true);
  });
});

describe('labels', () => {
  test('a scheme with an unknown part is told; new labels are shown before they are given', async () => {
    const ashholm = rowNamed(demo, 'place', 'Ashholm');
    const held = await show(<Relabel open onClose={() => undefined} />, {
      network: demo,
      at: `cables?scope=${ashholm.id}`,
    });
    type(field('Scheme of the project'), '{site}-{nr}');
    await screen.findByText(/holds \{nr\}, which is not one of/);
    expect(screen.queryByRole('list', { name: 'New labels' })).toBeNull();
    type(field('Scheme of the project'), '{site}-{number}');
    const list = await screen.findByRole('list', { name: 'New labels' });
    expect(list.textContent).toContain('AH-00018→AH-00017');
    press(screen.getByRole('button', { name: /^Relabel \d+ cables?$/ }));
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect([...held.network().all('cable')].some(({ label }) => label === 'AH-00017')).toBe(true);
  });
});

describe('free ports', () => {
  test('those of a sort near a place, with where they are', async () => {
    await show(<FreePorts />, { network: demo, at: 'cables' });
    const grid = await screen.findByRole('grid');
    expect(Number(grid.getAttribute('aria-rowcount'))).toBeGreaterThan(10);
  });
});

describe('the record of a cable', () => {
  const open = (label: string, role: 'owner' | 'reader' = 'owner') =>
    show(<Record />, { network: demo, at: `cables?sel=cable:${rowNamed(demo, 'cable', label).id}`, role });

  test('disconnecting asks with what is cut off, then the cable is gone', async () => {
    const held = await open('KQ-00019');
    pressNamed('Disconnect …');
    const ask = screen.getByRole('alertdialog', { name: 'Disconnect' });
    expect(ask.textContent).toMatch(/^(Nothing is cut off|Cuts off \d+ device)/);
    expect(held.steps()).toEqual([]);
    pressNamed('Disconnect KQ-00019', ask);
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    expect([...held.network().all('cable')].some((cable) => cable.label === 'KQ-00019')).toBe(false);
  });

  test('a label that is taken stays as it was typed, with the reason', async () => {
    const held = await open('KQ-00019');
    const label = field('Label');
    type(label, 'kq-00020');
    label.focus();
    label.blur();
    await screen.findByText(/already a cable with the label kq-00020/i);
    expect(held.steps()).toEqual([]);
  });
});
