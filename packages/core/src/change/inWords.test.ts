import { expect, test } from '@jest/globals';
import { blankDevice } from '../model/kinds/equipment/device.ts';
import { newId } from '../model/values/ids.ts';
import { deviceNamed, portId, rackNamed, smallRoom } from '../testing/testNetwork.ts';
import { create, remove, update, type Change } from './change.ts';
import { changesInWords } from './inWords.ts';

const room = smallRoom();
const lines = (...changes: (Change | null)[]): string[] =>
  changesInWords(
    room,
    changes.filter((change) => change !== null),
  ).map(({ what, field, from, to }) => [what, field ?? '', from, to].join(' | '));

test('a row that comes or goes is one line; one that changes a line for each field', () => {
  const core = deviceNamed(room, 'kq-core-1');
  const cable = room.findOne('cableByLabel', 'kq-00002');
  if (cable === null) throw new Error('no cable');
  expect(
    lines(
      create('device', { ...blankDevice, id: newId(), name: 'kq-new-1', role: 'SW' }),
      remove('cable', cable),
      update('device', core, { serial: 'NV-1', unit: 12 }),
    ),
  ).toEqual([
    'device kq-new-1 |  | – | made',
    'cable KQ-00002 |  | there | deleted',
    'device kq-core-1 | Serial | – | NV-1',
    'device kq-core-1 | Unit | 38 | 12',
  ]);
});

test('ids are told by the name of what they stand for, also where that comes with the same step', () => {
  const acc = deviceNamed(room, 'kq-acc-1');
  const cable = room.findOne('cableByLabel', 'kq-00001');
  if (cable === null) throw new Error('no cable');
  expect(
    lines(
      update('device', acc, { rackId: rackNamed(room, 'KQ-A1').id }),
      update('cable', cable, { aPortId: portId(room, 'kq-core-1:te1/2'), bPortId: newId() }),
    ),
  ).toEqual([
    'device kq-acc-1 | Rack | KQ-A2 | KQ-A1',
    'cable KQ-00001 | A port | kq-core-1:te1/1 | kq-core-1:te1/2',
    'cable KQ-00001 | B port | KQ-A1-PP1:F1 | a new one',
  ]);
});

test('lists, figures and yes or no as they are read; nothing is a dash', () => {
  const port = room.get('port', portId(room, 'kq-acc-1:gi1/1'));
  const rack = rackNamed(room, 'KQ-A1');
  if (port === null) throw new Error('no port');
  const feed = { name: 'A', volts: 230, amps: 16, phases: 1 as const, derating: 0.8 };
  expect(
    lines(
      update('port', port, { mode: 'trunk', taggedVids: [10, 20] }),
      update('rack', rack, { feeds: [feed], massLimitKg: 400 }),
      update('device', deviceNamed(room, 'kq-acc-1'), { fillsBothFaces: false }),
    ),
  ).toEqual([
    'port kq-acc-1:gi1/1 | Mode | – | trunk',
    'port kq-acc-1:gi1/1 | Tagged VLANs | – | 10, 20',
    'rack KQ-A1 | Power feeds | – | A 230 16 1 0.8',
    'rack KQ-A1 | Mass limit | – | 400',
    'device kq-acc-1 | Fills both faces | yes | no',
  ]);
});

test('a row that is gone meanwhile is told by its kind', () => {
  const gone: Change = {
    op: 'update',
    kind: 'device',
    id: newId(),
    before: { serial: null },
    after: { serial: 'x' },
  };
  expect(lines(gone)).toEqual(['device | Serial | – | x']);
});
