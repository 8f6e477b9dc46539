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
import { replaying } from './replay.ts';
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

test('property: over all kinds, a history that is replayed without judging it comes to the same', () => {
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) => {
      let network = everything;
      let replayed = everything;
      for (const [what, { kind, id }, seed] of steps) {
        const row = network.get(kind, id) as (Row & { notes?: string | null }) | null;
        if (row === null) continue;
        const made =
          what === 'remove' || !('notes' in row)
            ? removal(network, [{ kind, id }]).changes
            : [update(kind, row as never, { notes: `n${seed}` })];
        const applied = applyChanges(
          network,
          made.filter((change) => change !== null),
        );
        if (!applied.ok) continue;
        network = applied.network;
        // As the journal gives it back: the database keeps no order of fields.
        const told = JSON.parse(JSON.stringify(applied.changes)) as Change[];
        const steps = replaying(replayed, told);
        let turn = steps.next();
        while (turn.done !== true) turn = steps.next();
        if (turn.value === null) throw new Error('a row is missing');
        replayed = turn.value;
      }
      expect(content(replayed)).toBe(content(network));
      for (const device of replayed.all('device'))
        expect(replayed.countOf('portsByDevice', device.id)).toBe(
          network.countOf('portsByDevice', device.id),
        );
    }),
    { numRuns: runs(40) },
  );
});

test('a change of a row that is not there is no history of this network', () => {
  const device = [...everything.all('device')][0];
  if (device === undefined) throw new Error('no device');
  const gone = applyChanges(everything, removal(everything, [{ kind: 'device', id: device.id }]).changes);
  if (!gone.ok) throw new Error('not removed');
  const change = update('device', device, { notes: 'x' });
  expect(replaying(gone.network, change === null ? [] : [change]).next()).toEqual({
    done: true,
    value: null,
  });
});
