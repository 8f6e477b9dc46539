import { beforeAll, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { Record } from '../record/Record.tsx';
import { pressNamed, rowNamed, show, type, withSizes } from '../testing/testScreen.tsx';
import { HistoryPanel } from './HistoryPanel.tsx';
import { whenText } from './useHistory.ts';

beforeAll(withSizes);
const demo = demoNetwork();
const rack = rowNamed(demo, 'rack', 'KQ-A1');

describe('history', () => {
  test('every step stands there at once, newest first, and can be looked at as it was', async () => {
    const both = (
      <>
        <Record />
        <HistoryPanel />
      </>
    );
    const held = await show(both, { network: demo, at: `places?sel=rack:${rack.id}` });
    const name = screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' });
    for (const next of ['KQ-A1b', 'KQ-A1c']) {
      type(name, next);
      name.focus();
      name.blur();
      await waitFor(() => expect(rowNamed(held.network(), 'rack', next).id).toBe(rack.id));
    }
    const steps = (): HTMLElement[] =>
      within(screen.getByRole('list', { name: 'Steps' })).queryAllByRole('listitem');
    await waitFor(() => expect(steps()).toHaveLength(2));
    expect(steps().map((step) => step.querySelector('p')?.textContent)).toEqual([
      'Renamed KQ-A1b to KQ-A1c',
      'Renamed KQ-A1 to KQ-A1b',
    ]);
    pressNamed('Show as it was at r2', steps()[1]);
    await waitFor(() => expect(held.at().query.get('at')).toBe('2'));
  });

  test('a moment is told by its clock, and by its day where that is not today', () => {
    const now = new Date();
    expect(whenText(now.toISOString())).toMatch(/^Today \d\d:\d\d$/);
    expect(whenText('2024-02-29T12:00:00Z')).toMatch(/^29 Feb 2024 \d\d:\d\d$/);
  });
});
