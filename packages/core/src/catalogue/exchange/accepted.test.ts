import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../../change/apply.ts';
import { sameValue, update } from '../../change/change.ts';
import { kindNames, targetOf, type Row } from '../../model/kinds.ts';
import { newProject } from '../../model/kinds/sites/project.ts';
import { Network } from '../../model/network/network.ts';
import { configured as start } from '../../testing/testKinds.ts';
import { runs } from '../../testing/testRuns.ts';
import { readExchange } from '../../exchange/read.ts';
import { writeExchange } from '../../exchange/write.ts';

const edited = kindNames.filter((kind) => start.count(kind) > 0 && kind !== 'project' && kind !== 'model');
type Fields = Record<string, unknown>;

/** A change of one field of one row to something that a row of its kind, or one it refers to, has. */
const someEdit = fc
  .tuple(fc.constantFrom(...edited), fc.nat(), fc.nat(), fc.nat())
  .map(([kind, which, at, choice]) => {
    const rows = [...start.all(kind)].sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));
    const row = rows[which % rows.length] as Row & Fields;
    const fields = Object.keys(row).filter((field) => field !== 'id');
    const field = fields[at % fields.length] ?? '';
    const target = targetOf(kind, field);
    const values =
      target === null
        ? [null, ...rows.map((one) => (one as Row & Fields)[field]), 'loopback', 'routed', 'new', true, 7]
        : [null, ...[...start.all(target)].map((one) => one.id)];
    return { kind, id: row.id, field, value: values[choice % values.length] };
  });

const counts = (network: Network): Record<string, number> =>
  Object.fromEntries(kindNames.map((kind) => [kind, network.count(kind)]));

test('property: what the model accepts, a file gives back: export and import make the same network', () => {
  let accepted = 0;
  fc.assert(
    fc.property(fc.array(someEdit, { minLength: 1, maxLength: 3 }), (edits) => {
      let network = start;
      for (const { kind, id, field, value } of edits) {
        const row = network.get(kind, id);
        if (row === null || sameValue((row as Row & Fields)[field], value)) continue;
        const change = update(kind, row as never, { [field]: value });
        const applied = change === null ? null : applyChanges(network, [change]);
        if (applied?.ok !== true) continue;
        network = applied.network;
        accepted++;
      }
      const file = writeExchange(network);
      const empty = Network.of({ project: [newProject('Test')] });
      const read = readExchange(empty, JSON.parse(JSON.stringify(file)));
      expect(read.ok ? [] : read.problems).toEqual([]);
      if (!read.ok) return;
      expect(counts(read.network)).toEqual(counts(network));
      expect(JSON.stringify(writeExchange(read.network))).toBe(JSON.stringify(file));
    }),
    { numRuns: runs(400) },
  );
  expect(accepted).toBeGreaterThan(50);
});
