import { beforeAll, expect, test } from '@jest/globals';
import { fireEvent, screen, within } from '@testing-library/react';
import type { ModelAnswer, UnknownModel } from '@visograph/core/racks';
import { networkOf } from '../../../../core/src/testing/testNetwork.ts';
import { pressNamed, show, type, withSizes } from '../../testing/testScreen.tsx';
import { AskModels } from './AskModels.tsx';

beforeAll(withSizes);
const asked = (title: string, role: UnknownModel['role'] = 'SW'): UnknownModel => ({
  ...{ key: title.toLowerCase(), title, rows: 3, likely: ['Norvane AX-2448P'], role, units: 2 },
});
const q12 = asked('Orlo Q-12');
const s40 = asked('Orlo S-40', 'SV');

async function opened(unknown: UnknownModel[], answers: Record<string, ModelAnswer> = {}) {
  const sent: Record<string, ModelAnswer>[] = [];
  await show(<AskModels unknown={unknown} answers={answers} onAnswer={(next) => sent.push(next)} />, {
    network: networkOf({}),
  });
  const field = (title: string, name: string): HTMLInputElement =>
    within(screen.getByRole('listitem', { name: title })).getByRole<HTMLInputElement>('textbox', { name });
  const leave = (at: HTMLInputElement, text: string): void => {
    fireEvent.focus(at);
    type(at, text);
    fireEvent.blur(at);
  };
  return { sent, field, leave };
}

test('all that are not said yet are our own at one press, as their rows say; what is said stays', async () => {
  const said: ModelAnswer = { as: 'Norvane AX-2448P' };
  const { sent } = await opened([q12, s40, asked('Orlo F-1', 'FW')], { 'orlo q-12': said });
  pressNamed('All 2 are our own');
  expect(sent).toEqual([
    {
      'orlo q-12': said,
      'orlo s-40': { role: 'SV', units: 2, ports: '' },
      'orlo f-1': { role: 'FW', units: 2, ports: '' },
    },
  ]);
});

test('height and ports are sent when they are left; what is none is told and not sent', async () => {
  const own: ModelAnswer = { role: 'SW', units: 2, ports: '' };
  const { sent, field, leave } = await opened([q12], { 'orlo q-12': own });
  leave(field('Orlo Q-12', 'Ports'), 'lots of them');
  expect(sent).toEqual([]);
  await screen.findByText(/“lots of them” does not say how many of which connector/);
  leave(field('Orlo Q-12', 'Ports'), '24 RJ45 1G');
  expect(sent.at(-1)).toEqual({ 'orlo q-12': { role: 'SW', units: 2, ports: '24 RJ45 1G' } });
  leave(field('Orlo Q-12', 'Units'), '1.3');
  await screen.findByText('Whole or half units');
  expect(sent).toHaveLength(1);
  leave(field('Orlo Q-12', 'Units'), '1,5');
  expect(sent.at(-1)).toEqual({ 'orlo q-12': { role: 'SW', units: 1.5, ports: '24 RJ45 1G' } });
});

test('where every model is known nothing is asked', async () => {
  await opened([]);
  expect(screen.queryByRole('region')).toBeNull();
});
