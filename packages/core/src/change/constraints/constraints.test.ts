import { describe, expect, test } from '@jest/globals';
import { portsFromModel } from '../../catalogue/modelPorts.ts';
import { blankCable } from '../../model/kinds/lines/cable.ts';
import { isKind, type Kind } from '../../model/kinds.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { deviceNamed, networkOf, portId, smallRoom } from '../../testing/testNetwork.ts';
import { switched } from '../../testing/testSwitching.ts';
import { applyChanges } from '../apply.ts';
import { create, updateHeld, type Change } from '../change.ts';
import { constraints } from './index.ts';

/** What is said of a change that cannot be made: the field, and the sentence. */
function refused(network: Network, change: Change | null): [field: string | null, message: string][] {
  const applied = applyChanges(network, change === null ? [] : [change]);
  return applied.ok ? [] : applied.problems.map(({ field, message }) => [field, message]);
}
function setting(network: Network, kind: Kind, id: string, fields: Record<string, unknown>) {
  const row = network.get(kind, id);
  if (row === null) throw new Error(`no ${kind} ${id}`);
  return refused(network, updateHeld(kind, row, fields));
}
const port = (network: Network, title: string, fields: Record<string, unknown>) =>
  setting(network, 'port', portId(network, title), fields);
const modelNamed = (network: Network, title: string): string =>
  network.findOne('modelByTitle', title.toLowerCase())?.id ?? '';

test('every rule names fields of its kind', () => {
  const network = smallRoom();
  const known: Partial<Record<Kind, object>> = {
    device: deviceNamed(network, 'kq-core-1'),
    port: network.get('port', portId(network, 'kq-core-1:te1/1')) ?? {},
    cable: [...network.all('cable')][0] ?? {},
  };
  for (const [kind, row] of Object.entries(known))
    for (const { fields } of (isKind(kind) ? constraints[kind] : []) ?? [])
      for (const field of fields)
        expect([kind, Object.keys(row)]).toEqual([kind, expect.arrayContaining([field])]);
});

describe('what a port leads to', () => {
  const panel = networkOf({
    devices: [
      {
        name: 'X',
        role: 'PP',
        ports: [
          { name: 'F1', connector: 'LC', role: 'panel', leadsTo: 'R1', strand: 1 },
          { name: 'F2', connector: 'LC', role: 'panel', leadsTo: 'R1', strand: 3 },
          { name: 'R1', connector: 'MPO', role: 'panel', face: 'rear' },
          { name: 'F9', connector: 'LC', role: 'panel', leadsTo: 'R9' },
          { name: 'R9', connector: 'LC', role: 'panel', face: 'rear', leadsTo: 'F9' },
        ],
      },
      { name: 'Y', role: 'PP', ports: [{ name: 'R1', connector: 'MPO', role: 'panel' }] },
    ],
  });

  test('a port that is passed through stays a panel port, from whichever side it is looked at', () => {
    const sentence = (title: string): string =>
      `${title} is passed through inside its device, as the ports of panels are. Leave its role at panel, or take the way through out first.`;
    expect(port(panel, 'X:F1', { role: 'network' })).toEqual([['role', sentence('X:F1')]]);
    expect(port(panel, 'X:R1', { role: 'network' })).toEqual([['role', sentence('X:R1')]]);
    expect(port(panel, 'X:R9', { role: 'network' })).toEqual([['role', sentence('X:R9')]]);
    expect(port(panel, 'Y:R1', { role: 'network' })).toEqual([]);
  });

  test('both name each other, and strands belong to one port alone', () => {
    expect(port(panel, 'X:F9', { leadsToId: portId(panel, 'Y:R1') })).toEqual([
      [
        'leadsToId',
        'X:F9 passes through to Y:R1, which does not pass back to it. Make both name each other.',
      ],
    ]);
    // Judged from the side that is changed too: one-sided, a run would not be the same from both of its ends.
    expect(port(panel, 'X:F9', { leadsToId: null })).toEqual([
      ['leadsToId', 'X:R9 passes through to X:F9, which would not pass back to it. Change both.'],
    ]);
    expect(port(panel, 'X:F2', { leadsToStrand: 2 })).toEqual([
      ['leadsToId', 'X:F2 takes strands 2 to 3 of X:R1, which F1 uses as well. Give it strands of its own.'],
    ]);
    expect(port(panel, 'X:F2', { leadsToId: portId(panel, 'Y:R1') })).toEqual([
      ['leadsToId', 'X:F2 shares strands of Y:R1, which is no common port of the same device.'],
    ]);
    expect(port(panel, 'X:F2', { leadsToId: null })).toEqual([
      ['leadsToId', 'X:F2 states a strand but no port that it passes through to. Name the common port.'],
    ]);
  });

  test('ports of a model with others behind them are those of a panel, whatever the group says', () => {
    const group = {
      pattern: 'f1-2',
      connector: 'LC' as const,
      speedBps: null,
      role: 'network' as const,
      face: 'front' as const,
      rearPattern: 'r1-2',
      rearConnector: null,
    };
    const room = smallRoom();
    const model = room.get('model', modelNamed(room, 'Lumenroot LP-24LC'));
    if (model === null) throw new Error('no panel');
    const ports = portsFromModel(
      { ...model, portGroups: model.portGroups.slice(0, 1).map((one) => ({ ...one, ...group })) },
      newId(),
    );
    expect(ports.map(({ name, role }) => `${name} ${role}`)).toEqual([
      'f1 panel',
      'r1 panel',
      'f2 panel',
      'r2 panel',
    ]);
  });
});

describe('what is plugged in', () => {
  const room = smallRoom();
  const cable = (a: string, b: string, fields: Record<string, unknown> = {}) =>
    refused(
      room,
      create('cable', {
        ...blankCable,
        id: newId(),
        label: 'KQ-00009',
        aPortId: portId(room, a),
        bPortId: portId(room, b),
        ...fields,
      }),
    );

  test('no cable joins power to data, or two outlets', () => {
    expect(cable('KQ-A1-PDA:o1', 'kq-acc-1:gi1/2')).toEqual([
      [
        'aPortId',
        'KQ-A1-PDA:o1 carries power and kq-acc-1:gi1/2 does not, so no cable joins them. Choose two ports of one kind.',
      ],
    ]);
    expect(cable('KQ-A1-PDA:o1', 'KQ-A1-PDA:o2')).toEqual([
      [
        'bPortId',
        'KQ-A1-PDA:o1 and KQ-A1-PDA:o2 both give power, so no cable joins them. Choose an outlet and an inlet.',
      ],
    ]);
  });

  test('a transceiver sits in a cage that takes its form', () => {
    const room = networkOf({
      devices: [
        { name: 'kq-core-1', model: 'Norvane CR-6032' },
        { name: 'kq-acc-1', model: 'Norvane AX-2448P' },
        {
          name: 'other',
          role: 'SW',
          ports: [
            { name: '1', connector: 'SFP+', transceiver: 'Lumenroot LR-10' },
            { name: '2', connector: 'QSFP+', transceiver: 'Lumenroot SR4-40' },
          ],
        },
      ],
    });
    const optic = (title: string): string => modelNamed(room, title);
    expect(port(room, 'kq-core-1:te1/1', { transceiverId: modelNamed(room, 'Norvane CR-6032') })).toEqual([
      ['transceiverId', 'Norvane CR-6032 is not a transceiver, so kq-core-1:te1/1 cannot hold it.'],
    ]);
    expect(port(room, 'kq-acc-1:gi1/1', { transceiverId: optic('Lumenroot LR-10') })).toEqual([
      [
        'transceiverId',
        'kq-acc-1:gi1/1 has the connector RJ45, not a cage, so it cannot hold Lumenroot LR-10.',
      ],
    ]);
    expect(port(room, 'kq-core-1:te1/2', { transceiverId: optic('Lumenroot SR4-40') })).toEqual([
      [
        'transceiverId',
        'Lumenroot SR4-40 is made for cages of the form QSFP+; that of kq-core-1:te1/2 is SFP28. Choose one that fits.',
      ],
    ]);
    expect(port(room, 'kq-core-1:te1/2', { transceiverId: optic('Lumenroot LR-10') })).toEqual([]);
  });
});

describe('ports that are configured', () => {
  const network = switched(
    {
      a: {
        ports: [
          { name: '1', connector: 'SFP+', speedBps: 1e10 },
          { name: '2', connector: 'SFP+', speedBps: 1e9 },
          { name: '3', connector: 'SFP+', speedBps: 1e10 },
          { name: 'lag1', form: 'aggregate', members: ['1'] },
          { name: 'vlan20', form: 'vlan', vid: 20 },
          { name: 'vlan40', form: 'vlan', vid: 40 },
          { name: '3.20', form: 'subinterface', over: '3', vid: 20 },
          { name: '3.40', form: 'subinterface', over: '3', vid: 40 },
        ],
        routes: [{ prefix: '10.0.0.0/8', via: '10.1.0.1' }],
      },
      b: { ports: [{ name: '1', connector: 'SFP+', speedBps: 1e10 }] },
    },
    [['a:2', 'b:1']],
  );
  const id = (title: string): string => portId(network, title);

  test('members of an aggregate have one speed and one device, and it stays an aggregate', () => {
    expect(port(network, 'a:2', { aggregateId: id('a:lag1') })).toEqual([
      [
        'aggregateId',
        'a:lag1 would hold 2 at 1G and 1 at 10G. Members of an aggregate have one speed (IEEE 802.1AX).',
      ],
    ]);
    expect(port(network, 'b:1', { aggregateId: id('a:lag1') })).toEqual([
      [
        'aggregateId',
        'b:1 cannot be a member of a:lag1: that is on another device. For a cross-chassis aggregate make one on each device of the pair and give both the same name.',
      ],
    ]);
    expect(port(network, 'a:3', { aggregateId: id('a:2') })).toContainEqual([
      'aggregateId',
      'a:2 is no aggregate, so 3 cannot be a member of it.',
    ]);
    expect(port(network, 'a:lag1', { form: 'loopback' })).toContainEqual([
      'form',
      'a:lag1 has members, such as 1, so it has to stay an aggregate.',
    ]);
    expect(port(network, 'a:3', { aggregateId: id('a:lag1') })).not.toContainEqual(
      expect.arrayContaining(['aggregateId']),
    );
  });

  test('a VLAN has one interface, and a tag one subinterface', () => {
    expect(port(network, 'a:vlan40', { vid: 20 })).toEqual([
      ['vid', 'vlan20 is the interface of VLAN 20 on this device already.'],
    ]);
    expect(port(network, 'a:3.40', { vid: 20 })).toEqual([
      ['vid', '3.20 takes tag 20 on 3 already. Choose another VLAN.'],
    ]);
    expect(port(network, 'a:3.40', { vid: 20, innerVid: 7 })).toEqual([]);
    expect(port(network, 'a:3.40', { parentId: id('b:1') })).toEqual([
      ['parentId', '3.40 cannot run over b:1: that is on another device.'],
    ]);
    expect(port(network, 'a:3.40', { parentId: id('a:1') })).toEqual([
      ['parentId', '3.40 cannot run over 1: that is a member of an aggregate. Use the aggregate.'],
    ]);
  });

  test('what hangs on a port holds it where it is', () => {
    const b = deviceNamed(network, 'b').id;
    expect(port(network, 'a:3', { deviceId: b, name: '3' })).toContainEqual([
      'deviceId',
      '3 cannot be on another device than a:3.20, which belongs to it. Move both, or part them first.',
    ]);
    expect(port(network, 'a:2', { form: 'loopback', connector: null, speedBps: null })).toContainEqual([
      'form',
      'a:2 holds T-00001, so it has to stay a port with a connector. Unplug T-00001 first.',
    ]);
    const plug = create('cable', {
      ...blankCable,
      id: newId(),
      label: 'T-00009',
      aPortId: id('a:vlan20'),
      bPortId: id('a:3'),
    });
    expect(refused(network, plug)).toEqual([
      [
        'aPortId',
        'a:vlan20 is configured, not built: T-00009 cannot be plugged into a vlan. Choose a port with a connector.',
      ],
    ]);
  });

  test('a route goes out of a port of its own device', () => {
    const [route] = network.all('route');
    expect(setting(network, 'route', route?.id ?? '', { viaPortId: id('b:1') })).toEqual([
      [
        'viaPortId',
        'The route to 10.0.0.0/8 of a cannot go out of b:1: that is on another device. Choose one of its own ports.',
      ],
    ]);
    expect(setting(network, 'route', route?.id ?? '', { viaPortId: id('a:3') })).toEqual([]);
  });
});

describe('modules, places and addresses', () => {
  const network = switched(
    {
      r: { role: 'RT', ports: [{ name: 'lo0', form: 'loopback', addresses: ['10.9.0.1/32'] }] },
    },
    [],
    { reserved: [{ address: '10.9.0.7/24' }] },
  );

  test('an address stands on a port once, and once without one', () => {
    const kept = [...network.all('address')].find((one) => one.portId === null);
    if (kept === undefined) throw new Error('no address is kept');
    expect(
      setting(network, 'address', kept.id, {
        portId: portId(network, 'r:lo0'),
        use: 'interface',
        address: '10.9.0.1/24',
      }),
    ).toEqual([['address', 'r:lo0 has 10.9.0.1 already. Change that address instead.']]);
    const twice = create('address', { ...kept, id: newId() });
    expect(refused(network, twice)).toEqual([
      ['address', '10.9.0.7 is kept in the global table already. Change that entry instead.'],
    ]);
  });

  test('an inner place does not hold an outer one', () => {
    const nested = networkOf({
      places: [
        { path: 'Quay', kind: 'site' },
        { path: 'Quay/Hall', kind: 'room' },
        { path: 'Quay/Tower', kind: 'building' },
      ],
    });
    const place = (name: string) => [...nested.all('place')].find((one) => one.name === name)?.id ?? '';
    expect(setting(nested, 'place', place('Tower'), { parentId: place('Hall') })).toEqual([
      [
        'parentId',
        'Tower is a building, which cannot lie inside the room Hall. Choose a site or building for it.',
      ],
    ]);
    expect(setting(nested, 'place', place('Quay'), { kind: 'room' })).toEqual([
      ['kind', 'Quay cannot be a room: it holds the building Tower. Move that out first.'],
    ]);
  });

  test('a module sits in a slot that the device has, of the family that the slot takes', () => {
    const chassis = networkOf({
      devices: [
        { name: 'c', model: 'Norvane CR-9004' },
        {
          name: 'other',
          model: 'Norvane AX-3448M',
          modules: [{ slot: 'psu1', model: 'Norvane AX supply 715' }],
          ports: [{ name: 'x', connector: 'SFP+', transceiver: 'Lumenroot LR-10' }],
        },
      ],
    });
    const put = (slot: string, model: string) =>
      refused(
        chassis,
        create('module', {
          id: newId(),
          deviceId: deviceNamed(chassis, 'c').id,
          slot,
          modelId: modelNamed(chassis, model),
          serial: null,
          notes: null,
        }),
      );
    expect(put('slot 1', 'Norvane AX supply 715')).toEqual([
      [
        'modelId',
        'slot 1 of c takes modules of the family CR-9000 line card; Norvane AX supply 715 is of AX supply.',
      ],
    ]);
    expect(put('slot 9', 'Norvane AX supply 715').map(([field]) => field)).toEqual(['slot']);
    expect(put('slot 1', 'Lumenroot LR-10')).toEqual([
      ['modelId', 'Lumenroot LR-10 is not a module, so it cannot go into c slot 1.'],
    ]);
  });
});
