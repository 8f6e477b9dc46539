import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render } from '@testing-library/react';
import { paper } from '@visograph/drawing';
import { ThemeProvider } from 'styled-components';
import { HeadEdge, widerBy } from './HeadEdge.tsx';

afterEach(cleanup);
// jsdom keeps no pointer.
Element.prototype.setPointerCapture = () => undefined;

/** The edge of a column of 100 that is drawn so wide, and the widths that were asked for. */
function edge(drawn: number): { at: HTMLElement; asked: number[] } {
  const asked: number[] = [];
  const { container } = render(
    <ThemeProvider theme={paper}>
      <div data-head>
        <HeadEdge width={100} onWidth={(width) => asked.push(width)} />
      </div>
    </ThemeProvider>,
  );
  const head = container.querySelector('[data-head]');
  const at = head?.firstElementChild;
  if (!(head instanceof HTMLElement) || !(at instanceof HTMLElement)) throw new Error('no edge');
  const box = { x: 0, y: 0, left: 0, top: 0, right: drawn, bottom: 26, width: drawn, height: 26 };
  head.getBoundingClientRect = () => ({ ...box, toJSON: () => box });
  return { at, asked };
}
const drag = (at: HTMLElement, ...steps: number[]): void => {
  fireEvent(at, new MouseEvent('pointerdown', { bubbles: true, clientX: 500 }));
  for (const by of steps) fireEvent(at, new MouseEvent('pointermove', { bubbles: true, clientX: 500 + by }));
};
const end = (at: HTMLElement, how: 'pointerup' | 'pointercancel'): void =>
  void fireEvent(at, new MouseEvent(how, { bubbles: true }));

describe('the edge of a column', () => {
  test.each([
    [100, 30, 130],
    // Drawn twice as wide as asked for: half of the way is its own.
    [200, 30, 115],
    [100, -95, 30],
    [100, 5000, 1200],
  ])('drawn %i wide and dragged by %i it is %i', (drawn, by, width) => {
    const { at, asked } = edge(drawn);
    drag(at, by / 2, by);
    expect(asked).toEqual([]);
    end(at, 'pointerup');
    expect(asked).toEqual([width]);
  });

  test('let go where it was, or given up, nothing changes', () => {
    const { at, asked } = edge(100);
    drag(at, 40, 0);
    end(at, 'pointerup');
    drag(at, 40);
    end(at, 'pointercancel');
    end(at, 'pointerup');
    expect(asked).toEqual([]);
  });

  test('by keys it stays within what a column may be', () => {
    expect([widerBy(40, -16), widerBy(1195, 16), widerBy(100, 16)]).toEqual([30, 1200, 116]);
  });
});
