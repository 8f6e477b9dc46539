import { expect, test } from '@jest/globals';
import { foundIn } from '../../testing/testFindings.ts';
import { networkOf } from '../../testing/testNetwork.ts';

const told = (file: Parameters<typeof networkOf>[0], rule: string): string[] =>
  foundIn(networkOf(file))
    .filter((one) => one.rule === rule)
    .map(({ message }) => message);

test('vlan-without-name: a name that says no more than the number', () => {
  const numbering = (...names: [number, string, object?][]) => ({
    vlanNumberings: [{ name: 'shore', vlans: names.map(([vid, name, more]) => ({ vid, name, ...more })) }],
  });
  const rule = 'vlan-without-name';
  const found = numbering([40, 'VLAN 40'], [41, '41'], [42, 'vlan0042'], [43, 'Vlan-43']);
  expect(told(found as never, rule)).toHaveLength(4);
  expect(told(found as never, rule)[0]).toContain('VLAN 40 is called “VLAN 40”');
  const fine = numbering([40, 'Cameras'], [41, 'VLAN 42'], [99, 'VLAN 99', { purpose: 'parking' }]);
  expect(told(fine as never, rule)).toEqual([]);
});

test('stack-mixed: units of unlike models; one without a model may be of any', () => {
  const unit = (name: string, model: string | undefined) => ({
    name,
    role: 'SW' as const,
    stack: 'kq-dist',
    ...(model === undefined ? {} : { model }),
  });
  const two = [unit('d-1', 'Norvane AX-2448P'), unit('d-2', 'Norvane AX-2424P')];
  expect(told({ devices: two }, 'stack-mixed')).toEqual([
    'The stack kq-dist is of Norvane AX-2424P and Norvane AX-2448P. Use one model, or make two stacks.',
  ]);
  expect(told({ devices: [unit('d-1', 'Norvane AX-2448P'), unit('d-2', undefined)] }, 'stack-mixed')).toEqual(
    [],
  );
});

test('router-id-twice: two routers with one id; the devices of a stack are one router', () => {
  const router = (name: string, more: object = {}) => ({
    name,
    role: 'RT' as const,
    routerId: '10.43.255.7',
    ...more,
  });
  expect(told({ devices: [router('b'), router('a')] }, 'router-id-twice')).toEqual([
    'a and b have the router id 10.43.255.7. Give each its own, such as an address of its loopback.',
  ]);
  const stacked = [router('a', { stack: 's' }), router('b', { stack: 's' })];
  expect(told({ devices: stacked }, 'router-id-twice')).toEqual([]);
});
