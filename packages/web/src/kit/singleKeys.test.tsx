import { expect, test } from '@jest/globals';
import { fireEvent, render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { ClosedBy } from './panel/ClosedBy.tsx';
import { setSingleKeys, singleKeysOn } from './singleKeys.ts';
import { useKeysHere } from './useKeysHere.ts';

test('keys alone act until they are switched off; those with Ctrl and those with a name stay', () => {
  localStorage.clear();
  const pressed: string[] = [];
  const keys = {
    c: () => pressed.push('c'),
    Delete: () => pressed.push('Delete'),
    'Ctrl+c': () => pressed.push('Ctrl+c'),
  };
  function Held(): ReactNode {
    useKeysHere(keys);
    return null;
  }
  render(<Held />);
  const all = (): void => {
    fireEvent.keyDown(document.body, { key: 'c' });
    fireEvent.keyDown(document.body, { key: 'Delete' });
    fireEvent.keyDown(document.body, { key: 'c', ctrlKey: true });
  };
  expect(singleKeysOn()).toBe(true);
  all();
  setSingleKeys(false);
  expect(singleKeysOn()).toBe(false);
  all();
  setSingleKeys(true);
  expect(pressed).toEqual(['c', 'Delete', 'Ctrl+c', 'Delete', 'Ctrl+c']);
});

test('the key that opened a panel closes it, unless it is typed into a field of it', () => {
  let closed = 0;
  const { getByRole } = render(
    <ClosedBy keyOf="." onClose={() => closed++}>
      <button>One</button>
      <input aria-label="text" />
    </ClosedBy>,
  );
  fireEvent.keyDown(getByRole('textbox'), { key: '.' });
  fireEvent.keyDown(getByRole('button'), { key: 'x' });
  expect(closed).toBe(0);
  fireEvent.keyDown(getByRole('button'), { key: '.' });
  expect(closed).toBe(1);
});
