import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { content, edit, edited } from '../../testing/testEdits.ts';
import { everything } from '../../testing/testKinds.ts';
import { runs } from '../../testing/testRuns.ts';
import { stepsBetween, withSteps } from './between.ts';
import { kindNames } from '../kinds.ts';
import { Network } from './network.ts';

const edits = fc.array(edit, { maxLength: 6 });

describe('steps between two networks', () => {
  test('property: from one branch of edits over what both come from to the other, and back', () => {
    fc.assert(
      fc.property(edits, edits, edits, (trunk, left, right) => {
        // All of them are held: what they are made from is forgotten with them.
        const kept: Network[] = [everything];
        const after = (start: Network, some: typeof trunk): Network => {
          let network = start;
          for (const one of some) kept.push((network = edited(network, one)));
          return network;
        };
        const common = after(everything, trunk);
        const [one, other] = [after(common, left), after(common, right)];
        for (const [from, to] of [
          [one, other],
          [other, one],
          [everything, other],
          [one, one],
        ] as const) {
          const steps = stepsBetween(from, to);
          if (steps === null) throw new Error('no way between them');
          expect(content(withSteps(from, steps))).toEqual(content(to));
        }
        expect(kept.length).toBeGreaterThan(0);
      }),
      { numRuns: runs(60) },
    );
  });

  test('there are none between networks that come from nowhere, or where too much was touched', () => {
    const rows = Object.fromEntries(kindNames.map((kind) => [kind, [...everything.all(kind)]]));
    expect(stepsBetween(everything, Network.of(rows))).toBeNull();
    const draft = everything.draft(['place']);
    const [place] = everything.all('place');
    if (place === undefined) throw new Error('no place');
    for (let n = 0; n < 600; n++) draft.put('place', { ...place, notes: String(n) });
    expect(stepsBetween(everything, draft.finish())).toBeNull();
  });
});
