import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { connect } from '../cabling/commands/cables.ts';
import { addDevice, deleteDevice } from '../racks/commands/devices.ts';
import { moveDevice } from '../racks/commands/racking.ts';
import { editRow } from '../commands/edit.ts';
import { writeExchange } from '../exchange/write.ts';
import { newId } from '../model/values/ids.ts';
import { Network } from '../model/network/network.ts';
import { deviceNamed, portId, rackNamed, smallRoom } from '../testing/testNetwork.ts';
import { applyChanges } from './apply.ts';
import { changeSchema, create, remove, update, type Change } from './change.ts';
import { diff } from './diff.ts';
import { invert } from './invert.ts';
import { runs } from '../testing/testRuns.ts';

const after = (network: Network, changes: readonly Change[]): Network => {
  const applied = applyChanges(network, changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};
const refusal = (network: Network, changes: readonly Change[]) => {
  const applied = applyChanges(network, changes);
  if (applied.ok) throw new Error('was not refused');
  return applied.problems;
};
const modelId = (network: Network, title: string): string =>
  network.findOne('modelByTitle', title.toLowerCase())?.id ?? '';

describe('rack space', () => {
  test('two full-depth devices cannot share a unit, and the message names both', () => {
    const network = smallRoom();
    const set = addDevice(network, {
      name: 'kq-x',
      modelId: modelId(network, 'norvane ax-2448p'),
      rackId: rackNamed(network, 'KQ-A1').id,
      placeId: null,
      unit: 38,
    });
    const [problem] = refusal(network, set?.changes ?? []);
    expect(problem).toMatchObject({ code: 'impossible', kind: 'device', field: 'unit' });
    expect(problem?.message).toContain('kq-core-1 fills U38');
  });

  test('half-depth gear at the front and at the rear share a unit', () => {
    const network = smallRoom();
    const wish = {
      modelId: modelId(network, 'lumenroot lp-24lc'),
      rackId: rackNamed(network, 'KQ-A1').id,
      placeId: null,
      unit: 30,
    };
    const front = addDevice(network, { ...wish, name: 'front' });
    const rear = addDevice(network, { ...wish, name: 'rear', face: 'rear' });
    expect(applyChanges(network, [...(front?.changes ?? []), ...(rear?.changes ?? [])]).ok).toBe(true);
  });

  test('a 3 U device does not fit above the top of the rack', () => {
    const network = smallRoom();
    const set = addDevice(network, {
      name: 'ups',
      modelId: modelId(network, 'brackwater up-3000') || modelId(network, 'lumenroot lp-24lc'),
      rackId: rackNamed(network, 'KQ-A1').id,
      placeId: null,
      unit: 41,
    });
    const device = set?.changes[0];
    if (device?.op !== 'create' || device.kind !== 'device') throw new Error('no device');
    const [problem] = refusal(network, [{ ...device, after: { ...device.after, units: 3 } }]);
    expect(problem?.message).toContain('has 42 units');
  });

  test('two devices change places in one step', () => {
    const network = smallRoom();
    const core = deviceNamed(network, 'kq-core-1');
    const panel = deviceNamed(network, 'KQ-A1-PP1');
    const rackId = rackNamed(network, 'KQ-A1').id;
    const swap = [
      ...moveDevice(network, core, { rackId, unit: 42 }).changes,
      ...moveDevice(network, panel, { rackId, unit: 38 }).changes,
    ];
    expect(applyChanges(network, swap).ok).toBe(true);
  });

  test('a rack cannot shrink below its contents', () => {
    const network = smallRoom();
    const [problem] = refusal(
      network,
      editRow(network, 'rack', rackNamed(network, 'KQ-A1'), { units: 20 }).changes,
    );
    expect(problem?.message).toMatch(/cannot have 20 units: .* stands at U/);
  });
});

describe('ports and cables', () => {
  test('a port takes one cable; the message names port and cable', () => {
    const network = smallRoom();
    const set = connect(network, {
      aPortId: portId(network, 'kq-core-1:te1/1'),
      bPortId: portId(network, 'kq-acc-1:te1/50'),
      label: 'KQ-00004',
      typeId: null,
      lengthM: 1,
    });
    const [problem] = refusal(network, set.changes);
    expect(problem?.message).toContain('kq-core-1:te1/1 already holds cable KQ-00001');
  });

  test('both ends in one port are refused', () => {
    const network = smallRoom();
    const end = portId(network, 'kq-core-1:te1/9');
    const [problem] = refusal(
      network,
      connect(network, { aPortId: end, bPortId: end, label: 'KQ-00009', typeId: null, lengthM: 1 }).changes,
    );
    expect(problem).toMatchObject({ code: 'schema', field: 'bPortId' });
  });

  test('labels are unique without regard to case', () => {
    const network = smallRoom();
    const set = connect(network, {
      aPortId: portId(network, 'kq-core-1:te1/2'),
      bPortId: portId(network, 'kq-acc-1:te1/50'),
      label: 'kq-00001',
      typeId: null,
      lengthM: 1,
    });
    expect(refusal(network, set.changes)[0]).toMatchObject({ code: 'duplicate', field: 'label' });
  });

  test('a length below zero is refused by the schema', () => {
    const network = smallRoom();
    const cable = network.findOne('cableByLabel', 'kq-00001');
    if (cable === null) throw new Error('no cable');
    expect(refusal(network, editRow(network, 'cable', cable, { lengthM: -1 }).changes)[0]?.message).toContain(
      'is negative',
    );
  });
});

describe('names, references, deleting', () => {
  test('a taken device name is refused with the remedy', () => {
    const network = smallRoom();
    const [problem] = refusal(
      network,
      editRow(network, 'device', deviceNamed(network, 'kq-acc-1'), { name: 'KQ-CORE-1' }).changes,
    );
    expect(problem).toMatchObject({ code: 'duplicate', field: 'name' });
    expect(problem?.message).toContain('Choose another name');
  });

  test('a colon in a device name is refused', () => {
    const network = smallRoom();
    expect(
      refusal(
        network,
        editRow(network, 'device', deviceNamed(network, 'kq-acc-1'), { name: 'a:b' }).changes,
      )[0]?.message,
    ).toContain('colon');
  });

  test('a rack with devices in it cannot be deleted', () => {
    const network = smallRoom();
    const rack = rackNamed(network, 'KQ-A1');
    expect(
      refusal(network, [{ op: 'delete', kind: 'rack', id: rack.id, before: rack }])[0]?.message,
    ).toContain('3 devices still refer to it');
  });

  test('deleting a device takes its ports and cables along and says how many', () => {
    const network = smallRoom();
    const removal = deleteDevice(network, deviceNamed(network, 'kq-core-1'));
    expect(removal.alsoGone).toBe('35 ports and 1 cable');
    const rest = after(network, removal.changes);
    expect(rest.findOne('cableByLabel', 'kq-00001')).toBeNull();
    expect(rest.count('port')).toBe(network.count('port') - 35);
  });

  test('a place cannot lie inside itself', () => {
    const network = smallRoom();
    const site = [...network.all('place')].find((place) => place.name === 'Kelder Quay');
    const room = [...network.all('place')].find((place) => place.name === 'Data room');
    if (site === undefined || room === undefined) throw new Error('no places');
    expect(
      refusal(network, editRow(network, 'place', site, { parentId: room.id }).changes)[0]?.message,
    ).toContain('would lie inside itself');
  });

  test('all problems of a set are told at once, and nothing is changed', () => {
    const network = smallRoom();
    const device = deviceNamed(network, 'kq-acc-1');
    const problems = refusal(network, [
      update('device', device, { name: '' }) as Change,
      { op: 'delete', kind: 'cable', id: newId(), before: {} as never },
    ]);
    expect(problems.map((problem) => problem.code)).toEqual(['schema', 'absent']);
    expect(deviceNamed(network, 'kq-acc-1').name).toBe('kq-acc-1');
  });
});

describe('two people at one row', () => {
  test('different fields both succeed', () => {
    const network = smallRoom();
    const device = deviceNamed(network, 'kq-acc-1');
    const renamed = after(network, editRow(network, 'device', device, { name: 'kq-acc-9' }).changes);
    const both = after(renamed, editRow(network, 'device', device, { serial: 'NV-1' }).changes);
    expect(both.get('device', device.id)).toMatchObject({ name: 'kq-acc-9', serial: 'NV-1' });
  });

  test('the same field is a conflict with both values', () => {
    const network = smallRoom();
    const device = deviceNamed(network, 'kq-acc-1');
    const first = after(network, editRow(network, 'device', device, { serial: 'one' }).changes);
    expect(refusal(first, editRow(network, 'device', device, { serial: 'two' }).changes)[0]).toMatchObject({
      code: 'conflict',
      field: 'serial',
      mine: 'two',
      theirs: 'one',
    });
  });
});

describe('properties', () => {
  const network = smallRoom();
  const devices = [...network.all('device')];
  const anyChange = fc.oneof(
    fc
      .record({ at: fc.nat(devices.length - 1), serial: fc.string({ maxLength: 12 }) })
      .map(({ at, serial }): Change[] => {
        const device = devices[at];
        return device === undefined ? [] : editRow(network, 'device', device, { serial }).changes;
      }),
    fc.nat(devices.length - 1).map((at): Change[] => {
      const device = devices[at];
      return device === undefined ? [] : deleteDevice(network, device).changes;
    }),
    fc.integer({ min: 1, max: 42 }).map(
      (unit): Change[] =>
        moveDevice(network, deviceNamed(network, 'kq-core-1'), {
          rackId: rackNamed(network, 'KQ-A1').id,
          unit,
        }).changes,
    ),
  );

  test('what is applied and inverted is as before', () => {
    fc.assert(
      fc.property(anyChange, (changes) => {
        const applied = applyChanges(network, changes);
        if (!applied.ok) return;
        const back = after(applied.network, invert(applied.changes));
        expect(diff(network, back)).toEqual([]);
        expect(writeExchange(back)).toEqual(writeExchange(network));
      }),
      { numRuns: runs(60) },
    );
  });

  test('the difference of two networks leads from one to the other', () => {
    fc.assert(
      fc.property(anyChange, (changes) => {
        const applied = applyChanges(network, changes);
        if (!applied.ok) return;
        expect(diff(after(network, diff(network, applied.network)), applied.network)).toEqual([]);
      }),
      { numRuns: runs(60) },
    );
  });

  test('indexes agree with the tables after any change', () => {
    fc.assert(
      fc.property(anyChange, (changes) => {
        const applied = applyChanges(network, changes);
        if (!applied.ok) return;
        for (const device of applied.network.all('device')) {
          const ports = [...applied.network.all('port')].filter((port) => port.deviceId === device.id);
          expect(applied.network.countOf('portsByDevice', device.id)).toBe(ports.length);
          expect(applied.network.findOne('deviceByName', device.name.toLowerCase())?.id).toBe(device.id);
        }
      }),
      { numRuns: runs(40) },
    );
  });
});

describe('the id of a row', () => {
  const network = smallRoom();
  const device = deviceNamed(network, 'kq-core-1');
  const renamed = (after: Record<string, unknown>) => [
    {
      op: 'update' as const,
      kind: 'device' as const,
      id: device.id,
      before: { id: device.id, name: device.name },
      after,
    },
  ];

  test('is not changed by an update, to another one or to other letters; nothing else of the set is done', () => {
    for (const id of [newId(), device.id.toUpperCase(), '', 7, null]) {
      const applied = applyChanges(network, renamed({ id, name: 'kq-core-9' }));
      expect(applied).toMatchObject({
        ok: false,
        problems: [
          {
            code: 'schema',
            kind: 'device',
            field: 'id',
            message:
              'device kq-core-1: the id of a row cannot be changed. Leave it out, or make a new device.',
          },
        ],
      });
    }
    expect(network.get('device', device.id)?.name).toBe('kq-core-1');
  });

  test('may be named as it is', () => {
    const applied = applyChanges(network, renamed({ id: device.id, name: 'kq-core-9' }));
    expect(applied.ok && applied.network.get('device', device.id)?.name).toBe('kq-core-9');
  });

  test('is not deleted and made again in one set, in whatever order it comes', () => {
    const place = [...network.all('place')].find(({ id }) => network.countOf('racksByPlace', id) > 0);
    if (place === undefined) throw new Error('no place');
    const fresh = { ...place, id: newId(), name: 'Shed', code: null };
    const [made, gone] = [create('place', fresh), remove('place', fresh)];
    expect(applyChanges(network, [made, gone]).ok).toBe(true);
    const applied = applyChanges(network, [made, gone, made]);
    expect(applied).toMatchObject({
      ok: false,
      problems: [{ code: 'duplicate', kind: 'place', field: 'id' }],
    });
    expect(!applied.ok && applied.problems[0]?.message).toContain('deleted and made again');
  });

  test('and the ids that it refers to have one spelling, however a change writes them', () => {
    const rack = [...network.all('rack')][0];
    if (rack === undefined) throw new Error('no rack');
    const upper = (id: string): string => id.toUpperCase();
    const row = { ...rack, id: newId(), name: 'kq-z9', position: 900 };
    const read = changeSchema.parse({
      ...{ op: 'create', kind: 'rack', id: upper(row.id) },
      after: { ...row, id: upper(row.id), placeId: upper(row.placeId) },
    });
    expect(read).toEqual(create('rack', row));
    const moved = changeSchema.parse({
      ...{ op: 'update', kind: 'rack', id: upper(rack.id) },
      before: { placeId: upper(rack.placeId), name: 'KQ-A1' },
      after: { placeId: null, name: 'KQ-A2' },
    });
    // Names keep their letters.
    expect(moved).toEqual({
      ...{ op: 'update', kind: 'rack', id: rack.id },
      before: { placeId: rack.placeId, name: 'KQ-A1' },
      after: { placeId: null, name: 'KQ-A2' },
    });
  });

  test('of a project is made with its network alone, and never deleted', () => {
    const project = [...network.all('project')][0];
    if (project === undefined) throw new Error('no project');
    for (const change of [create('project', { ...project, id: newId() }), remove('project', project)])
      expect(applyChanges(network, [change])).toMatchObject({
        ok: false,
        problems: [{ code: 'impossible', kind: 'project' }],
      });
    expect(applyChanges(Network.empty(), [create('project', project)]).ok).toBe(true);
  });
});
