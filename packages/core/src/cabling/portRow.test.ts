import { expect, test } from '@jest/globals';
import { portsOf } from '../model/network/ports.ts';
import { called, drawn } from '../testing/testDrawn.ts';
import { joinDevices } from './commands/join.ts';
import { freeText, portRow, rangesOf } from './portRow.ts';

test('a row says what is free and what it takes; power only where it is drawn', () => {
  const start = drawn({ 'sw-1': 'AX-2448P', 'rt-1': 'Generic router' });
  const made = joinDevices(start, {
    aDeviceId: called(start, 'rt-1').id,
    bDeviceId: called(start, 'sw-1').id,
  });
  if (!made.ok) throw new Error(made.why);
  const { network } = made;
  const row = portRow(network, called(network, 'sw-1'), false);
  expect(row[0]).toMatchObject({ name: 'gi1/1', taken: 'C-00001', what: '1G RJ45 · PoE' });
  expect(freeText(row)).toMatch(/^gi1\/2-48 · 1G RJ45 · PoE · \d+ more$/);
  expect(row.some((port) => port.name.startsWith('psu'))).toBe(false);
  expect(portRow(network, called(network, 'sw-1'), true).some((port) => port.name.startsWith('psu'))).toBe(
    true,
  );
});

test('a strip shows its outlets on any sheet; with none free it says so', () => {
  const network = drawn({ 'pd-1': 'Generic power strip', 'vm-1': 'Generic virtual machine' });
  expect(portRow(network, called(network, 'pd-1'), false)).toHaveLength(
    portsOf(network, called(network, 'pd-1').id).length,
  );
  expect(freeText(portRow(network, called(network, 'vm-1'), false))).toBe('no port is free');
});

test.each([
  [['gi1/1', 'gi1/2', 'gi1/3'], 'gi1/1-3'],
  [['a', 'b'], 'a, b'],
  [['eth0', 'eth2', 'eth3'], 'eth0, eth2-3'],
  [['a1', 'b1', 'c1', 'd1'], 'a1, b1, c1 …'],
  [[], ''],
])('%j is %s', (names, text) => expect(rangesOf(names)).toBe(text));
