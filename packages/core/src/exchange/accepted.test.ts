import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../change/apply.ts';
import { sameValue, update } from '../change/change.ts';
import { kindNames, targetOf, type Row } from '../model/kinds.ts';
import { newProject } from '../model/kinds/project.ts';
import { Network } from '../model/network.ts';
import { networkOf } from '../testNetwork.ts';
import { runs } from '../testRuns.ts';
import { readExchange } from './read.ts';
import { writeExchange } from './write.ts';

/** A little of everything that is configured, cabled and numbered. */
const start = networkOf({
  vrfs: [{ name: 'ops' }, { name: 'guest' }],
  vlanGroups: [
    {
      name: 'shore',
      vlans: [
        { vid: 10, name: 'Management' },
        { vid: 20, name: 'Operations', vrf: 'ops' },
      ],
    },
    { name: 'boat', vlans: [{ vid: 10, name: 'Management' }] },
  ],
  places: [
    { path: 'Quay', kind: 'site', code: 'KQ', vlanGroup: 'shore' },
    { path: 'Quay/Room', kind: 'room' },
    { path: 'Boat', kind: 'site', vlanGroup: 'boat' },
  ],
  racks: [
    { name: 'R1', place: 'Quay/Room', units: 20 },
    { name: 'R2', place: 'Boat', units: 12 },
  ],
  prefixes: [
    { prefix: '10.1.0.0/24', vrf: 'ops', vlan: 'shore/20', gateway: '10.1.0.1', place: 'Quay' },
    { prefix: '10.0.0.0/8', vrf: 'ops', role: 'pool' },
  ],
  reserved: [
    { address: '10.1.0.9/24', vrf: 'ops' },
    { address: '10.1.0.8/24', vrf: 'guest' },
  ],
  devices: ['a', 'b'].map((name, at) => ({
    name,
    role: 'SW' as const,
    rack: at === 0 ? 'R1' : 'R2',
    unit: 3,
    ports: [
      { name: '1', mode: 'trunk' as const, tagged: [10, 20], speedBps: 1e9 },
      { name: '2', speedBps: 1e9 },
      { name: '3', speedBps: 1e9 },
      { name: 'lag', form: 'aggregate' as const, members: ['2', '3'] },
      {
        name: 'vlan20',
        form: 'vlan' as const,
        vid: 20,
        vrf: 'ops',
        addresses: [`10.1.0.${at + 1}/24`, `10.1.0.${at + 101}/24`],
      },
      { name: 'lag.10', form: 'subinterface' as const, over: 'lag', vid: 10 },
      { name: 'lo', form: 'loopback' as const, vrf: 'ops', addresses: [`10.9.0.${at}/32`] },
    ],
    routes: [
      { vrf: 'ops', prefix: '10.7.0.0/16', via: '10.1.0.1' },
      { vrf: 'ops', prefix: '10.6.0.0/16', out: 'vlan20' },
    ],
    bgp: [{ vrf: 'ops', neighbour: '10.1.0.7', remoteAs: 64500 }],
  })),
  cables: [
    { label: 'K-1', a: 'a:1', b: 'b:1' },
    { label: 'K-2', a: 'a:2', b: 'b:2' },
  ],
  circuits: [{ number: 'C-1', provider: 'Tidal Link', kind: 'internet', a: 'a:3' }],
});

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
        const change = update(kind, row as never, { [field]: value } as never);
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
