import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { pooled } from './align.ts';

const mean = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / values.length;

/**
 * Isotonic regression another way: each value is the greatest of the least means of what ends behind it (the min–max
 * formula of Barlow and others, Statistical Inference under Order Restrictions, 1972).
 */
const minMax = (values: readonly number[]): number[] =>
  values.map((_, at) =>
    Math.max(
      ...values
        .slice(0, at + 1)
        .map((__, from) =>
          Math.min(...values.slice(at).map((___, more) => mean(values.slice(from, at + more + 1)))),
        ),
    ),
  );

describe('things in a row, each as near to its wish as can be', () => {
  test('wishes in order and far enough apart are met', () => {
    expect(pooled([0, 100, 250], [0, 60, 120])).toEqual([0, 100, 250]);
  });

  test('two that want the same place share it', () => {
    expect(pooled([100, 100], [0, 60])).toEqual([70, 130]);
  });

  test('property: the same as by the formula of greatest least means', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ want: fc.integer({ min: -500, max: 500 }), room: fc.integer({ min: 1, max: 90 }) }),
          {
            minLength: 1,
            maxLength: 12,
          },
        ),
        (things) => {
          let at = 0;
          const offsets = things.map(({ room }) => {
            const here = at;
            at += room;
            return here;
          });
          const starts = pooled(
            things.map(({ want }) => want),
            offsets,
          );
          const expected = minMax(things.map(({ want }, which) => want - (offsets[which] ?? 0)));
          starts.forEach((start, which) =>
            expect(start - (offsets[which] ?? 0)).toBeCloseTo(expected[which] ?? NaN, 6),
          );
        },
      ),
    );
  });
});
