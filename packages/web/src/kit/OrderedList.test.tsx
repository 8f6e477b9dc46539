import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { reordered } from './OrderedList.tsx';

const items = (text: string): { id: string }[] => [...text].map((id) => ({ id }));
const order = (list: readonly { id: string }[] | null): string | null =>
  list === null ? null : list.map(({ id }) => id).join('');

describe('putting a list in order', () => {
  test('before and after another; several keep their order', () => {
    const move = (moved: string, key: string, dropPosition: 'before' | 'after') =>
      order(reordered(items('abcde'), new Set(moved), { key, dropPosition }));
    expect(move('d', 'b', 'before')).toBe('adbce');
    expect(move('a', 'c', 'after')).toBe('bcade');
    expect(move('ea', 'c', 'before')).toBe('baecd');
    expect(move('a', 'e', 'after')).toBe('bcdea');
  });

  test('let go where it stands, onto itself, or from elsewhere nothing changes', () => {
    const none = (moved: string, key: string, dropPosition: 'before' | 'after') =>
      reordered(items('abc'), new Set(moved), { key, dropPosition });
    expect(none('b', 'a', 'after')).toBeNull();
    expect(none('b', 'c', 'before')).toBeNull();
    expect(none('b', 'b', 'after')).toBeNull();
    expect(none('x', 'a', 'before')).toBeNull();
  });

  test('property: nothing is lost or made, and what was moved lies together beside its target', () => {
    fc.assert(
      fc.property(
        fc.subarray([...'abcdefgh'], { minLength: 1, maxLength: 7 }),
        fc.constantFrom(...'abcdefgh'),
        fc.constantFrom('before' as const, 'after' as const),
        (moved, key, dropPosition) => {
          const next = order(reordered(items('abcdefgh'), new Set(moved), { key, dropPosition }));
          if (next === null) return;
          expect([...next].sort().join('')).toBe('abcdefgh');
          const together = moved.join('');
          expect(next).toContain(dropPosition === 'before' ? `${together}${key}` : `${key}${together}`);
        },
      ),
    );
  });
});
