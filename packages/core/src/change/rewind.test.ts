import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { kindNames, type Row } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { everything } from '../testing/testKinds.ts';
import { runs } from '../testing/testRuns.ts';
import { applyChanges } from './apply.ts';
import { update, type Change } from './change.ts';
import { invert } from './invert.ts';
import { removal } from './removal.ts';
import { rewound } from './rewind.ts';

const content = (network: Network): string =>
  JSON.stringify(
    kindNames.map((kind) =>
      [...network.all(kind)]
        .sort((a, b) => (a.id < b.id ? -1 : 1))
        .map((row) => Object.entries(row).sort(([a], [b]) => (a < b ? -1 : 1))),
    ),
  );
const subjects = kindNames.flatMap((kind) =>
  kind === 'project' ? [] : [...everything.all(kind)].map(({ id }) => ({ kind, id })),
);

/** Takes a row of any kind out, gives it notes, or takes the step before back. */
const step = fc.tuple(fc.constantFrom('remove', 'edit', 'back'), fc.constantFrom(...subjects), fc.nat());

test('property: over all kinds, every moment of a history comes back as it was', () => {
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) => {
      const moments = [everything];
      const entries: Change[][] = [];
      let network = everything;
      for (const [what, { kind, id }, seed] of steps) {
        const row = network.get(kind, id) as (Row & { notes?: string | null }) | null;
        const last = entries.at(-1);
        const changes =
          what === 'back' && last !== undefined
            ? invert(last)
            : row === null
              ? []
              : what === 'remove'
                ? removal(network, [{ kind, id }]).changes
                : 'notes' in row
                  ? [update(kind, row as never, { notes: `n${seed}` })]
                  : [];
        const made = changes.filter((change) => change !== null);
        const applied = applyChanges(network, made);
        if (!applied.ok || made.length === 0) continue;
        network = applied.network;
        moments.push(network);
        entries.push(applied.changes);
      }
      for (let at = 0; at < moments.length; at++)
        expect(content(rewound(network, entries.slice(at)))).toBe(content(moments[at] ?? everything));
    }),
    { numRuns: runs(60) },
  );
});

test('a row that was deleted before its kind had a field of today comes back with that blank', () => {
  const [device] = everything.all('device');
  if (device === undefined) throw new Error('nothing there');
  const { spanningTree: _new, bridgeAddress: _newer, ...old } = device;
  const changes = [{ op: 'delete', kind: 'device', id: device.id, before: old } as unknown as Change];
  const draft = everything.draft();
  draft.drop('device', device.id);
  expect(rewound(draft.finish(), [changes]).get('device', device.id)).toEqual({
    ...device,
    spanningTree: null,
    bridgeAddress: null,
  });
});
