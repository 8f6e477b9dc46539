import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../../change/apply.ts';
import { invert } from '../../change/invert.ts';
import { diff } from '../../change/diff.ts';
import type { ChangeSet } from '../../change/change.ts';
import { endLabel, nextCableLabel } from '../labels.ts';
import { missingLabels } from '../labelSeries.ts';
import { findFreePorts } from '../freePorts.ts';
import { readCableList } from '../exchange/cableRows.ts';
import { reports } from '../../report/registry.ts';
import type { Network } from '../../model/network/network.ts';
import { cableAt } from '../../model/network/ports.ts';
import { newId } from '../../model/values/ids.ts';
import { builtInModels } from '../../catalogue/builtIn/index.ts';
import { deviceNamed, networkOf, portId, smallRoom as bareRoom } from '../../testing/testNetwork.ts';
import {
  connectPairs,
  cutOff,
  disconnect,
  moveEnd,
  replaceCable,
  reservePort,
  retireCable,
} from './cables.ts';
import { deleteDevice } from '../../racks/commands/devices.ts';
import { interpretLine } from '../../commands/line.ts';
import { deviceRange } from './portRange.ts';
import { relabel } from './relabel.ts';
import { portWish } from './cablingLines.ts';
import { runs } from '../../testing/testRuns.ts';

/** The small room with a copper cable type in its catalogue. */
function smallRoom(): Network {
  const type = builtInModels().find((model) => model.name === 'Cat 6 RJ45');
  const draft = bareRoom().draft();
  if (type !== undefined) draft.put('model', { ...type, id: newId() });
  return draft.finish();
}
const port = (network: Network, title: string) => {
  const found = network.get('port', portId(network, title));
  if (found === null) throw new Error(title);
  return found;
};
const cable = (network: Network, label: string) => {
  const found = network.findOne('cableByLabel', label.toLowerCase());
  if (found === null) throw new Error(label);
  return found;
};
function made(network: Network, set: ChangeSet): Network {
  const applied = applyChanges(network, set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
}

describe('labels', () => {
  test('the lowest free number: gaps are filled, retired cables keep theirs', () => {
    const network = smallRoom();
    const a = port(network, 'kq-acc-1:gi1/1');
    expect(nextCableLabel(network, a)).toBe('KQ-00004');
    const pulled = made(network, disconnect(network, cable(network, 'KQ-00002')));
    expect(nextCableLabel(pulled, a)).toBe('KQ-00002');
    const retired = made(network, retireCable(network, cable(network, 'KQ-00002')));
    expect(nextCableLabel(retired, a)).toBe('KQ-00004');
    expect(cable(retired, 'KQ-00002')).toMatchObject({ status: 'retired', aPortId: null, bPortId: null });
  });

  test('the scheme of the project makes the label, both ends included', () => {
    const network = smallRoom();
    const draft = network.draft();
    for (const project of network.all('project'))
      draft.put('project', {
        ...project,
        labelDigits: 3,
        cabling: { ...project.cabling, labelScheme: '{aRack}/{bRack}-{number}' },
      });
    const other = draft.finish();
    const label = nextCableLabel(other, port(other, 'kq-core-1:te1/2'), port(other, 'kq-acc-1:te1/50'));
    expect(label).toBe('KQ-A1/KQ-A2-001');
  });

  test('a scheme without its number is refused, by name', () => {
    const network = smallRoom();
    const [project] = [...network.all('project')];
    if (project === undefined) throw new Error('no project');
    const wrong = applyChanges(network, [
      {
        op: 'update',
        kind: 'project',
        id: project.id,
        before: { cabling: project.cabling },
        after: { cabling: { ...project.cabling, labelScheme: '{site}-{nr}' } },
      },
    ]);
    expect(wrong).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining('{nr}') }] });
  });

  test('what is printed at each end names the near end first (TIA-606)', () => {
    const network = smallRoom();
    expect(endLabel(network, cable(network, 'KQ-00002'), 'b')).toEqual({
      label: 'KQ-00002',
      near: 'KQ-A2.42:KQ-A2-PP1:R1',
      far: 'KQ-A1.42:KQ-A1-PP1:R1',
    });
  });

  test('relabelling closes gaps, and the numbers stay unique', () => {
    const network = smallRoom();
    const gap = made(network, disconnect(network, cable(network, 'KQ-00001')));
    const { rows, attempt } = relabel(gap, [...gap.all('cable')]);
    expect(rows.map(({ cable: one, to }) => [one.label, to])).toEqual([
      ['KQ-00002', 'KQ-00001'],
      ['KQ-00003', 'KQ-00002'],
    ]);
    if (!attempt.ok) throw new Error(attempt.why);
    const labels = [...made(gap, attempt.set).all('cable')].map((one) => one.label).sort();
    expect(labels).toEqual(['KQ-00001', 'KQ-00002']);
    expect(missingLabels(labels)).toEqual([]);
  });

  test('through any edits the next label equals the lowest number that is free', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 30 }), { maxLength: 25 }), (steps) => {
        let network = smallRoom();
        for (const step of steps) {
          const cables = [...network.all('cable')];
          const one = cables[step % Math.max(1, cables.length * 2)];
          if (one !== undefined) network = made(network, disconnect(network, one));
          else {
            const free = findFreePorts(network, {
              count: 2,
              connector: 'RJ45',
              speedBps: null,
              withOptic: false,
              poeClass: null,
              differentDevices: false,
              nearPlaceId: null,
              panels: false,
            });
            const [a, b] = free.map((found) => found.port);
            if (a === undefined || b === undefined) continue;
            network = made(network, connectPairs(network, [{ a, b }]).set);
          }
          const used = new Set([...network.all('cable')].map((row) => row.label));
          let lowest = 1;
          while (used.has(`KQ-${String(lowest).padStart(5, '0')}`)) lowest++;
          expect(nextCableLabel(network, port(network, 'kq-acc-1:gi1/1'))).toBe(
            `KQ-${String(lowest).padStart(5, '0')}`,
          );
        }
      }),
      { numRuns: runs(25) },
    );
  });
});

describe('ranges and lines', () => {
  const network = networkOf({
    devices: [
      { name: 'kq-acc-1', model: 'Norvane AX-2448P' },
      { name: 'PP1', model: 'Lumenroot CP-24' },
    ],
    models: [
      { form: 'cable', name: 'Cat 6 RJ45', medium: 'Cat 6', ends: ['RJ45', 'RJ45'], stockLengthsM: [1, 2] },
    ],
  });

  test('ports by range, by the end of their name, and by position on a face', () => {
    const names = (text: string) => {
      const range = deviceRange(network, text);
      return range.ok ? range.ports.map((one) => one.name) : range.why;
    };
    expect(names('kq-acc-1 1/1-3')).toEqual(['gi1/1', 'gi1/2', 'gi1/3']);
    expect(names('kq-acc-1:gi1/24-23')).toEqual(['gi1/24', 'gi1/23']);
    expect(names('PP1 front 2-4')).toEqual(['F2', 'F3', 'F4']);
    expect(names('PP1 R24')).toEqual(['R24']);
    expect(names('PP1 front 20-30')).toBe('PP1 has 24 ports at the front; 20-30 was asked for.');
    expect(names('kq-acc-1 gi1/99')).toBe('kq-acc-1 has no port gi1/99.');
    expect(names('PP1 4')).toContain('PP1 has 2 ports that end in 4: F4, R4');
  });

  test('a whole range at once, in one change set; pairs that cannot are told and leave the others', () => {
    const [option] = interpretLine(network, 'connect kq-acc-1 1/1-24 to PP1 front 1-24');
    if (option?.does !== 'change') throw new Error(JSON.stringify(option));
    expect(option.title).toBe('Connect 24 pairs, C-00001 to C-00024');
    const after = made(network, option.set);
    expect(cableAt(after, portId(after, 'PP1:F24'))?.label).toBe('C-00024');
    const again = interpretLine(after, 'connect kq-acc-1 1/24-25 to PP1 rear 1-2');
    expect(again.map((one) => one.does)).toEqual(['change', 'refuse']);
    expect(again[1]?.detail).toContain('kq-acc-1 gi1/24 holds C-00024');
    expect(diff(network, made(after, { changes: invert(option.set.changes), sentence: '' }))).toEqual([]);
  });

  test('sides of unlike length, unknown devices and free text are refused with what to write', () => {
    expect(interpretLine(network, 'connect kq-acc-1 1/1-3 to PP1 front 1-2')[0]?.detail).toContain(
      '3 ports on one side and 2',
    );
    expect(interpretLine(network, 'connect nobody 1/1 to PP1 F1')[0]?.detail).toBe(
      'There is no device nobody.',
    );
    expect(interpretLine(network, 'reserve kq-acc-1 1/7-8 for lift')[0]).toMatchObject({
      does: 'change',
      title: 'Reserve 2 ports',
    });
  });

  test('free ports in words', () => {
    expect(portWish(network, 'two free SFP+ with 10G optics on different switches')).toMatchObject({
      wish: { count: 2, connector: 'SFP+', speedBps: 1e10, withOptic: true, differentDevices: true },
    });
    const found = interpretLine(network, 'three free RJ45 PoE class 4');
    expect(found.map((one) => one.title)).toEqual(['kq-acc-1 gi1/1', 'kq-acc-1 gi1/2', 'kq-acc-1 gi1/3']);
    expect(interpretLine(network, 'two free SFP+ near Nowhere')[0]?.detail).toBe(
      'There is no place or rack Nowhere.',
    );
  });
});

describe('changing what is cabled', () => {
  test('an end moves to another port and keeps the label; a full port is refused by name', () => {
    const network = smallRoom();
    const moved = moveEnd(network, cable(network, 'KQ-00003'), 'b', port(network, 'kq-acc-1:te1/50'));
    if (!moved.ok) throw new Error(moved.why);
    expect(cableAt(made(network, moved.set), portId(network, 'kq-acc-1:te1/50'))?.label).toBe('KQ-00003');
    expect(moveEnd(network, cable(network, 'KQ-00003'), 'b', port(network, 'kq-core-1:te1/1'))).toMatchObject(
      {
        ok: false,
        why: expect.stringContaining('kq-core-1:te1/1 already holds cable KQ-00001'),
      },
    );
    expect(moveEnd(network, cable(network, 'KQ-00003'), 'b', port(network, 'KQ-A1-PDA:o1'))).toMatchObject({
      ok: false,
      why: expect.stringContaining('power to data'),
    });
  });

  test('another type along the same run takes the next stock length, or says why not', () => {
    const network = networkOf({
      devices: [
        {
          name: 'a',
          role: 'SW',
          ports: [
            { name: '1', connector: 'LC' },
            { name: '2', connector: 'LC' },
          ],
        },
      ],
      models: [
        { form: 'cable', name: 'short', medium: 'OS2', ends: ['LC', 'LC'], stockLengthsM: [1, 2] },
        { form: 'cable', name: 'long', medium: 'OS2', ends: ['LC', 'LC'], stockLengthsM: [10, 20] },
      ],
      cables: [{ label: 'X-1', type: 'long', lengthM: 8, a: 'a:1', b: 'a:2' }],
    });
    const type = (name: string) => network.findOne('modelByTitle', name)?.id ?? '';
    const row = cable(network, 'X-1');
    expect(replaceCable(network, row, type('short'))).toMatchObject({
      ok: false,
      why: expect.stringContaining('up to 2 m'),
    });
    const longer = replaceCable(network, row, type('long'));
    if (!longer.ok) throw new Error(longer.why);
    expect(cable(made(network, longer.set), 'X-1').lengthM).toBe(10);
  });

  test('what a disconnection cuts off: the side that loses every path, unless there is another', () => {
    const ports = (...names: string[]) => names.map((name) => ({ name }));
    const file = {
      devices: [
        { name: 'core', role: 'SW' as const, ports: ports('1', '2', '3') },
        { name: 'acc', role: 'SW' as const, ports: ports('1', '2', '3', '4') },
        { name: 'cam-1', role: 'CM' as const, ports: ports('1') },
        { name: 'cam-2', role: 'CM' as const, ports: ports('1') },
        { name: 'srv', role: 'SV' as const, ports: ports('1') },
        { name: 'srv-2', role: 'SV' as const, ports: ports('1') },
      ],
      cables: [
        { label: 'X-1', a: 'core:1', b: 'acc:1' },
        { label: 'X-2', a: 'acc:2', b: 'cam-1:1' },
        { label: 'X-3', a: 'acc:3', b: 'cam-2:1' },
        { label: 'X-4', a: 'core:2', b: 'srv:1' },
      ],
    };
    const single = networkOf(file);
    const names = (network: Network, label: string) =>
      cutOff(network, cable(network, label))
        .map((id) => network.get('device', id)?.name)
        .sort();
    expect(names(single, 'X-2')).toEqual(['cam-1']);
    expect(names(single, 'X-1')).toHaveLength(2);
    const double = networkOf({
      ...file,
      cables: [...file.cables, { label: 'X-5', a: 'core:3', b: 'acc:4' }],
    });
    expect(names(double, 'X-1')).toEqual([]);
  });

  test('a reservation keeps a port from the steps, ends when it is used, and comes back with undo', () => {
    const network = smallRoom();
    const kept = made(network, reservePort(network, port(network, 'kq-acc-1:gi1/2'), 'lift'));
    const free = findFreePorts(kept, {
      count: 2,
      connector: 'RJ45',
      speedBps: 1e9,
      withOptic: false,
      poeClass: 3,
      differentDevices: false,
      nearPlaceId: null,
      panels: false,
    });
    expect(free.map((found) => found.port.name)).toEqual(['gi1/1', 'gi1/3']);
    const { set } = connectPairs(kept, [
      { a: port(kept, 'kq-acc-1:gi1/2'), b: port(kept, 'kq-acc-1:gi1/9') },
    ]);
    const used = applyChanges(kept, set.changes);
    if (!used.ok) throw new Error(used.problems[0]?.message);
    expect(port(used.network, 'kq-acc-1:gi1/2').reserved).toBeNull();
    expect(
      port(made(used.network, { changes: invert(used.changes), sentence: '' }), 'kq-acc-1:gi1/2').reserved,
    ).toBe('lift');
  });

  test('a deleted switch leaves circuits with an open end and breakouts without its legs', () => {
    const network = networkOf({
      devices: [
        { name: 'core', model: 'Norvane CR-6032' },
        { name: 'leaf', model: 'Norvane CR-6032' },
      ],
      cables: [
        {
          label: 'B-1',
          type: 'breakout 100G to 4 × 25G',
          a: 'core:hu1/31',
          b: 'core:te1/1',
          bLegs: ['leaf:te1/2', 'leaf:te1/3'],
        },
      ],
      circuits: [{ number: 'N-1', kind: 'internet', a: 'leaf:te1/9' }],
    });
    const removal = deleteDevice(network, deviceNamed(network, 'leaf'));
    const after = made(network, removal);
    expect(after.count('leg')).toBe(0);
    expect(cable(after, 'B-1').aPortId).not.toBeNull();
    expect([...after.all('circuit')][0]?.aPortId).toBeNull();
    expect(diff(network, made(after, { changes: invert(removal.changes), sentence: '' }))).toEqual([]);
  });

  test('power to data and two things in one port are refused whoever asks', () => {
    const network = smallRoom();
    const wrong = {
      label: 'X-1',
      typeId: null,
      lengthM: null,
      splices: 0,
      status: 'active' as const,
      notes: null,
    };
    const tryCable = (a: string, b: string) =>
      applyChanges(network, [
        {
          op: 'create',
          kind: 'cable',
          id: '01a20a07-78b4-770d-8d97-a5ceabe0919f',
          after: {
            ...wrong,
            id: '01a20a07-78b4-770d-8d97-a5ceabe0919f',
            aPortId: portId(network, a),
            bPortId: portId(network, b),
          },
        } as never,
      ]);
    expect(tryCable('KQ-A1-PDA:o1', 'kq-acc-1:gi1/1')).toMatchObject({
      ok: false,
      problems: [
        { message: expect.stringContaining('KQ-A1-PDA:o1 carries power and kq-acc-1:gi1/1 does not') },
      ],
    });
    expect(tryCable('kq-acc-1:gi1/1', 'kq-acc-1:te1/49')).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('already holds cable KQ-00003') }],
    });
    expect(tryCable('kq-acc-1:gi1/1', 'kq-acc-1:gi1/1')).toMatchObject({ ok: false });
  });
});

describe('cable lists', () => {
  const rows = (text: string): string[][] =>
    text.split('\n').map((line) => line.split('|').map((cell) => cell.trim()));

  test('columns by heading; every row told: new, same, changes, cannot and why', () => {
    const network = smallRoom();
    const read = readCableList(
      network,
      rows(`Cable ID | Type | Length (m) | From | To
KQ-00001 | OS2 duplex LC | 2 | kq-core-1:te1/1 | KQ-A1-PP1:F1
KQ-00003 | OS2 duplex LC | 3 | KQ-A2-PP1:F1 | kq-acc-1:te1/49
KQ-00010 | Cat 6A RJ45 | 1,5 | kq-acc-1 gi1/3 | kq-acc-1 gi1/4
KQ-00011 | Cat 6A RJ45 | -2 | kq-acc-1 gi1/5 | kq-acc-1 gi1/6
KQ-00012 | Cat 9 | 1 | kq-acc-1 gi1/5 | kq-acc-1 gi1/6
KQ-00013 | | | kq-acc-1 gi1/5 | kq-none 1
KQ-00010 | | | kq-acc-1 gi1/7 | kq-acc-1 gi1/8
KQ-00014 | | | kq-acc-1 gi1/3 | kq-acc-1 gi1/9
KQ-00015 | | | KQ-A1-PDA o1 | kq-acc-1 gi1/9
KQ-00016 | | | kq-acc-1 gi1/9 | kq-acc-1 gi1/9
 | | | kq-acc-1 gi1/10 | kq-acc-1 gi1/11`),
    );
    expect(read.problem).toBeNull();
    expect(read.results.map((one) => `${one.row} ${one.does}`)).toEqual([
      '2 same',
      '3 changes',
      '4 new',
      '5 cannot',
      '6 cannot',
      '7 cannot',
      '8 cannot',
      '9 cannot',
      '10 cannot',
      '11 cannot',
      '12 new',
    ]);
    const why = (row: number) => read.results.find((one) => one.row === row)?.detail;
    expect(why(3)).toContain('length');
    expect(why(5)).toBe('the length -2 is negative');
    expect(why(6)).toContain('no cable type “Cat 9”');
    expect(why(7)).toBe('there is no device kq-none');
    expect(why(8)).toBe('row 4 has the same label');
    expect(why(9)).toBe('kq-acc-1:gi1/3 is taken by row 4');
    expect(why(10)).toBe('power to data');
    expect(why(11)).toBe('both ends are kq-acc-1:gi1/9');
    expect(read.results.at(-1)?.label).toBe('KQ-00004');
    const after = made(network, read.set);
    expect(cable(after, 'KQ-00003').lengthM).toBe(3);
    expect(cable(after, 'KQ-00010').lengthM).toBe(1.5);
  });

  test('columns by content, ends by panel position and by rack unit', () => {
    const network = smallRoom();
    const read = readCableList(
      network,
      rows(`KQ-00021 | KQ-A1-PP1 5 | KQ-A2 U40 te1/52 | 7
KQ-00022 | KQ-A1-PP1 rear 6 | KQ-A2-PP1:R6 | 15`),
    );
    expect(read.columns).toEqual({ label: 0, aEnd: 1, bEnd: 2, lengthM: 3 });
    const after = made(network, read.set);
    expect(cableAt(after, portId(after, 'KQ-A1-PP1:F5'))?.label).toBe('KQ-00021');
    expect(cableAt(after, portId(after, 'kq-acc-1:te1/52'))?.label).toBe('KQ-00021');
  });

  test('a row may take the port that another row leaves', () => {
    const network = smallRoom();
    const read = readCableList(
      network,
      rows(`Label | A end | B end
KQ-00003 | KQ-A2-PP1:F1 | kq-acc-1:te1/50
KQ-00030 | KQ-A2-PP1:F2 | kq-acc-1:te1/49`),
    );
    expect(read.results.map((one) => one.does)).toEqual(['changes', 'new']);
    expect(cableAt(made(network, read.set), portId(network, 'kq-acc-1:te1/49'))?.label).toBe('KQ-00030');
  });

  test('a sheet without ends is refused as a whole with what to name', () => {
    expect(readCableList(smallRoom(), rows('Colour | Price\nblue | 3')).problem).toContain('A end');
  });
});

test('schedules: the patch list walks the racks; the port map names far ends; runs, labels and types add up', () => {
  const network = smallRoom();
  const rowsOf = (key: string) =>
    reports.find((report) => report.key === key)?.make(network, null).rows ?? [];
  expect(rowsOf('patch-list').map((row) => [row['from'], row['to'], row['colour']])).toEqual([
    ['KQ-A1-PP1 F1', 'kq-core-1 te1/1', 'yellow'],
    ['KQ-A1-PP1 R1', 'KQ-A2-PP1 R1', 'yellow'],
    ['KQ-A2-PP1 F1', 'kq-acc-1 te1/49', 'yellow'],
  ]);
  expect(
    rowsOf('ports').find((row) => row['device'] === 'kq-core-1' && row['port'] === 'te1/1'),
  ).toMatchObject({
    cable: 'KQ-00001',
    next: 'KQ-A1-PP1 F1',
    far: 'kq-acc-1 te1/49',
  });
  expect(rowsOf('runs')).toEqual([
    expect.objectContaining({
      cables: expect.stringMatching(/KQ-00001, KQ-00002, KQ-00003|KQ-00003, KQ-00002, KQ-00001/),
      lengthM: 18,
    }),
  ]);
  expect(rowsOf('labels')).toHaveLength(2 * network.count('cable'));
  expect(rowsOf('cable-types')).toEqual([expect.objectContaining({ count: 3, lengthM: 18 })]);
  expect(rowsOf('free-ports').some((row) => row['port'] === 'te1/49')).toBe(false);
});
