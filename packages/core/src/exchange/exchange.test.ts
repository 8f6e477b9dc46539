import { newProject } from '../model/kinds/sites/project.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { applyChanges } from '../change/apply.ts';
import { Network } from '../model/network/network.ts';
import { portsOf } from '../model/network/ports.ts';
import { deviceNamed, networkOf, smallRoom } from '../testing/testNetwork.ts';
import { exchangeJsonSchema } from './format.ts';
import { parseExchange, readExchange } from './read.ts';
import { writeExchange } from './write.ts';
import { runs } from '../testing/testRuns.ts';

const head = { format: 'visograph-exchange', version: 1 };
const empty = (): Network => Network.of({ project: [newProject('Test')] });
const root = new URL('../../../../', import.meta.url);
const problemsOf = (file: unknown): { path: string; message: string }[] => {
  const read = readExchange(empty(), file);
  if (read.ok) throw new Error('was read');
  return read.problems;
};

describe('reading', () => {
  test('the demo file: 106 devices, 231 cables, nothing dropped', () => {
    const file: unknown = JSON.parse(readFileSync(new URL('demo/marrow-sound-ferries.json', root), 'utf8'));
    const read = readExchange(empty(), file);
    if (!read.ok) throw new Error(JSON.stringify(read.problems[0]));
    expect([read.network.count('device'), read.network.count('cable'), read.network.count('rack')]).toEqual([
      106, 231, 10,
    ]);
    expect(writeExchange(read.network)).toEqual(file);
  });

  test('places on the way to a place are made', () => {
    const network = networkOf({
      places: [
        { path: 'Kelder Quay', kind: 'site' },
        { path: 'Kelder Quay/Harbour House/Ground/Data room', kind: 'room' },
      ],
    });
    expect([...network.all('place')].map((place) => `${place.kind} ${place.name}`)).toEqual(
      expect.arrayContaining(['building Harbour House', 'floor Ground', 'room Data room']),
    );
  });

  test('ports listed beside those of the model change or add to them', () => {
    const network = networkOf({
      devices: [
        {
          name: 'sw',
          model: 'Norvane AX-2448P',
          ports: [
            { name: 'te1/49', notes: 'to core' },
            { name: 'usb0', connector: 'serial' },
          ],
        },
      ],
    });
    const ports = portsOf(network, deviceNamed(network, 'sw').id);
    expect(ports).toHaveLength(54);
    expect(ports.find((port) => port.name === 'te1/49')).toMatchObject({
      connector: 'SFP+',
      notes: 'to core',
    });
  });

  test('a second reading of the same file changes nothing', () => {
    const network = smallRoom();
    const read = readExchange(network, writeExchange(network));
    expect(read).toMatchObject({ ok: true, changes: [] });
  });

  test('a file updates by name what it mentions and leaves the rest', () => {
    const network = smallRoom();
    const read = readExchange(network, { ...head, devices: [{ name: 'KQ-CORE-1', serial: 'NV-77' }] });
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expect(read.changes).toHaveLength(1);
    expect(deviceNamed(read.network, 'kq-core-1')).toMatchObject({ serial: 'NV-77', unit: 38 });
  });
});

describe('what cannot be read', () => {
  test('not JSON, not an object, another format, another version', () => {
    expect(parseExchange('{"format": ')).toMatchObject({ ok: false, problems: [{ path: '$' }] });
    expect(problemsOf([1, 2])[0]?.message).toContain('one JSON object');
    expect(problemsOf({ format: 'else' })[0]).toMatchObject({ path: '$.format' });
    expect(problemsOf({ ...head, version: 2 })[0]).toEqual({
      path: '$.version',
      message: 'Version 2 cannot be read: this Visograph reads version 1.',
    });
  });

  test('all dangling names at once, each with its path', () => {
    const problems = problemsOf({
      ...head,
      devices: [
        { name: 'a', role: 'SW', rack: 'nowhere' },
        { name: 'b', model: 'Nobody X1' },
        { name: 'c', role: 'SW', ports: [{ name: '1' }] },
      ],
      cables: [
        { label: 'C-1', type: 'string', a: 'c:2', b: 'zz:1' },
        { label: 'C-2', a: 'c1', b: 'c:1' },
      ],
    });
    expect(problems.map((problem) => problem.path)).toEqual([
      '$.devices[0].rack',
      '$.devices[1].model',
      '$.cables[0].type',
      '$.cables[0].a',
      '$.cables[0].b',
      '$.cables[1].a',
    ]);
  });

  test('a name twice, a port cabled twice, a unit taken', () => {
    expect(
      problemsOf({
        ...head,
        devices: [
          { name: 'a', role: 'SW' },
          { name: 'A', role: 'RT' },
        ],
      })[0],
    ).toMatchObject({
      path: '$.devices[1]',
      message: expect.stringContaining('twice, first at $.devices[0]'),
    });
    const ports = [{ name: '1' }, { name: '2' }, { name: '3' }];
    expect(
      problemsOf({
        ...head,
        devices: [{ name: 'a', role: 'SW', ports }],
        cables: [
          { label: 'C-1', a: 'a:1', b: 'a:2' },
          { label: 'C-2', a: 'a:1', b: 'a:3' },
        ],
      }).map((problem) => problem.path),
    ).toContain('$.cables[1].a');
    const racked = {
      places: [{ path: 'A' }],
      racks: [{ name: 'r', place: 'A' }],
      devices: [
        { name: 'x', role: 'SV', rack: 'r', unit: 5 },
        { name: 'y', role: 'SV', rack: 'r', unit: 5 },
      ],
    };
    expect(problemsOf({ ...head, ...racked }).map((problem) => problem.path)).toContain('$.devices[1].unit');
  });

  test('unknown fields and wrong types name their path', () => {
    const problems = problemsOf({
      ...head,
      racks: [{ name: 'r', place: 'A', units: 'many' }],
      cables: [{ label: 'x', colour: 'red' }],
    });
    expect(problems.map((problem) => problem.path)).toEqual(['$.racks[0].units', '$.cables[0]']);
  });
});

describe('round trip', () => {
  const name = fc.stringMatching(/^[a-z][a-z0-9.-]{0,10}$/);
  const anyFile = fc
    .record({
      names: fc.uniqueArray(name, { minLength: 2, maxLength: 8, selector: (text) => text.toLowerCase() }),
      ports: fc.integer({ min: 1, max: 6 }),
      serials: fc.array(fc.option(fc.string({ minLength: 1, maxLength: 8 })), { minLength: 8, maxLength: 8 }),
      lengths: fc.array(fc.option(fc.double({ min: 0.1, max: 90, noNaN: true })), {
        minLength: 8,
        maxLength: 8,
      }),
      panel: fc.boolean(),
    })
    .map(({ names, ports, serials, lengths, panel }) => ({
      places: [
        { path: 'Site', kind: 'site' as const, code: 'S' },
        { path: 'Site/Room', kind: 'room' as const },
      ],
      racks: [{ name: 'R1', place: 'Site/Room', units: 20 }],
      devices: [
        ...names.map((device, at) => ({
          name: device,
          role: 'SW' as const,
          serial: serials[at] ?? null,
          ...(at < 5 ? { rack: 'R1', unit: at * 2 + 1 } : { place: 'Site' }),
          ports: Array.from({ length: ports }, (_, port) => ({ name: `p${port + 1}`, speedBps: 1e9 })),
        })),
        ...(panel ? [{ name: 'panel', model: 'Lumenroot LP-24LC', rack: 'R1', unit: 20 }] : []),
      ],
      cables: Array.from({ length: Math.floor(names.length / 2) }, (_, at) => ({
        label: `S-${at + 1}`,
        type: 'Cat 6A RJ45',
        lengthM: lengths[at] ?? null,
        a: `${names[2 * at] ?? ''}:p1`,
        b: `${names[2 * at + 1] ?? ''}:p1`,
      })),
      sheets: [{ name: 'One', scope: 'Site', positions: [{ device: names[0] ?? '', x: 12, y: 24 }] }],
    }));

  test('property: writing then reading gives the same network', () => {
    fc.assert(
      fc.property(anyFile, (file) => {
        const network = networkOf(file);
        const written = writeExchange(network);
        const read = readExchange(empty(), JSON.parse(JSON.stringify(written)));
        if (!read.ok) throw new Error(read.problems[0]?.message);
        expect(writeExchange(read.network)).toEqual(written);
        expect(applyChanges(empty(), read.changes).ok).toBe(true);
      }),
      { numRuns: runs(40) },
    );
  });
});

test('the published JSON Schema is the one of this code', () => {
  const published: unknown = JSON.parse(
    readFileSync(new URL('docs/visograph-exchange.schema.json', root), 'utf8'),
  );
  expect(published).toEqual(JSON.parse(JSON.stringify(exchangeJsonSchema())));
});
