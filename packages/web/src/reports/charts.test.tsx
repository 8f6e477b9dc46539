import { beforeAll, expect, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { networkOf } from '../../../core/src/testing/testNetwork.ts';
import { press, show, withSizes } from '../testing/testScreen.tsx';
import { ChartsView } from './ChartsView.tsx';

beforeAll(withSizes);

test('each chart says what it answers and has its rows as a table; of one place alone', async () => {
  const demo = demoNetwork();
  const quay = [...demo.all('place')].find(({ name }) => name === 'Kelder Quay')?.id ?? '';
  await show(<ChartsView />, { network: demo, at: `schedules?scope=${quay}` });
  const units = await screen.findByRole('figure', { name: 'Rack units by site' });
  expect(units.textContent).toContain('Where is room for more gear?');
  press(within(units).getByText('As a table of 1 row'));
  const [, row] = within(units).getAllByRole('row');
  expect(row?.textContent).toMatch(/^Kelder Quay\d+\d+$/);
  expect(screen.getAllByRole('figure').map((figure) => figure.getAttribute('aria-label'))).toEqual([
    'Ports by site',
    'Rack units by site',
    'Equipment by year',
    'Fullest prefixes',
  ]);
});

test('where there is nothing to draw it says what is missing', async () => {
  await show(<ChartsView />, { network: networkOf({}) });
  await screen.findByText('Nothing to draw here');
});
