import { expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { FixedTheme } from '../../theme/theme.tsx';
import { Strip } from './drawn.tsx';

const squares = (used: string): number[] => {
  const { container, unmount } = render(
    <FixedTheme name="paper">
      <Strip used={used} figureWidth={8}>
        figure
      </Strip>
    </FixedTheme>,
  );
  const paths = [...container.querySelectorAll('path')].map(
    (path) => path.getAttribute('d')?.split('Z') ?? [],
  );
  unmount();
  return paths.map((parts) => parts.length - 1);
};

test('ports are squares: as many free and used as there are', () => {
  expect(squares('1010')).toEqual([2, 2]);
  expect(squares('1'.repeat(12) + '0'.repeat(41))).toEqual([41, 12]);
});

test('of very many there is a bar; of none the figure alone', () => {
  expect(squares('1'.repeat(200))).toEqual([]);
  render(
    <FixedTheme name="paper">
      <Strip used="" figureWidth={8}>
        0 of 0
      </Strip>
    </FixedTheme>,
  );
  expect(screen.getByText('0 of 0')).toBeTruthy();
});
