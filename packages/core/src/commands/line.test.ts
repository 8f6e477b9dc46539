import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../change/apply.ts';
import { editRow } from './edit.ts';
import { deviceNamed, portId, smallRoom } from '../testing/testNetwork.ts';
import { findAnything } from './find.ts';
import { interpretLine } from './line.ts';

describe('finding', () => {
  const network = smallRoom();
  const titles = (text: string) => findAnything(network, text).map((found) => `${found.kind} ${found.title}`);

  test('places, racks, devices, cable labels', () => {
    expect(titles('data room')[0]).toBe('place Data room');
    expect(titles('KQ-A1')[0]).toBe('rack KQ-A1');
    expect(titles('core')).toContain('device kq-core-1');
    expect(titles('00002')).toEqual(['cable KQ-00002']);
  });

  test('ports as device and port, with what is plugged in', () => {
    expect(findAnything(network, 'kq-acc-1 te1/49')[0]).toMatchObject({
      kind: 'port',
      title: 'kq-acc-1 te1/49',
      detail: 'KQ-00003',
    });
  });

  test('serial numbers', () => {
    const applied = applyChanges(
      network,
      editRow(network, 'device', deviceNamed(network, 'kq-acc-1'), { serial: 'NV31-0027714' }).changes,
    );
    if (!applied.ok) throw new Error('edit');
    expect(findAnything(applied.network, '0027714')[0]).toMatchObject({ kind: 'device', title: 'kq-acc-1' });
  });
});

describe('doing', () => {
  const network = smallRoom();

  test('connect A to B previews label, type and length, and its changes fit', () => {
    const [option] = interpretLine(network, 'connect kq-core-1 te1/3 to kq-acc-1 te1/50');
    if (option?.does !== 'change') throw new Error('no change');
    expect(option.title).toBe('Connect with KQ-00004');
    expect(option.set.sentence).toBe('Connected kq-core-1 te1/3 to kq-acc-1 te1/50 with KQ-00004');
    expect(applyChanges(network, option.set.changes).ok).toBe(true);
  });

  test.each([
    ['connect kq-core-1 te1/1 to kq-acc-1 te1/50', 'holds KQ-00001'],
    ['connect kq-core-1 te1/99 to kq-acc-1 te1/50', 'kq-core-1 has no port te1/99'],
    ['connect nobody x to kq-acc-1 te1/50', 'There is no device nobody'],
    ['connect kq-core-1 te1/2 to kq-acc-1 gi1/1', 'cannot be joined'],
    ['trace kq-acc-1', 'Write a device and a port'],
    ['rack ZZ-9', 'No rack contains'],
    ['qqqq', 'No name, label or serial'],
  ])('%s is refused with its reason', (line, why) => {
    expect(interpretLine(network, line)).toMatchObject([
      { does: 'refuse', detail: expect.stringContaining(why) },
    ]);
  });

  test('trace and rack', () => {
    expect(interpretLine(network, 'trace kq-acc-1 te1/49')).toMatchObject([
      { does: 'trace', portId: portId(network, 'kq-acc-1:te1/49') },
    ]);
    expect(interpretLine(network, 'rack kq-a2')[0]).toMatchObject({
      does: 'go',
      found: { kind: 'rack', title: 'KQ-A2' },
    });
  });
});

describe('racks by the line', () => {
  const only = (text: string) => interpretLine(smallRoom(), text)[0];

  test('add: words of the model, the rack, a unit; the name and place it would get are shown', () => {
    expect(only('add norvane ax-2448p to kq-a1 u40')).toMatchObject({
      does: 'change',
      title: 'Add Norvane AX-2448P',
      detail: 'kq-acc-2 at KQ-A1 U40',
    });
    expect(only('add norvane ax-2448p to KQ-A1')).toMatchObject({ detail: 'kq-acc-2 at KQ-A1 U41' });
    expect(only('add norvane ax-2448p to KQ-A1 38')).toMatchObject({
      does: 'refuse',
      detail: 'kq-core-1 fills U38.',
    });
    expect(only('add unicorn to KQ-A1')).toMatchObject({ does: 'refuse' });
    expect(only('add norvane ax-2448p to KQ-Z9')).toMatchObject({
      detail: 'Write a rack, and a unit if you wish: KQ-A1 U40. There is no rack “KQ-Z9”.',
    });
  });

  test('move: to another unit or rack, refused with what is in the way', () => {
    expect(only('move kq-core-1 to KQ-A2 U12')).toMatchObject({
      does: 'change',
      detail: 'Moved kq-core-1 from KQ-A1 U38 to KQ-A2 U12',
    });
    expect(only('move kq-core-1 to KQ-A2 U40')).toMatchObject({
      does: 'refuse',
      detail: 'kq-acc-1 fills U40.',
    });
    expect(only('move kq-nothing to KQ-A2')).toMatchObject({ detail: 'There is no device kq-nothing.' });
  });
});
