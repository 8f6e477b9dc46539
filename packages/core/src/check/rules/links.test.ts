import { expect, test } from '@jest/globals';
import { networkOf } from '../../testNetwork.ts';
import { checkNetwork } from '../registry.ts';

const panel = (name: string) => ({
  name,
  role: 'PP' as const,
  ports: [
    { name: 'F1', passThrough: 'R1' },
    { name: 'R1', passThrough: 'F1' },
  ],
});

test('a run through panels that comes back to itself is told once, with its cables', () => {
  const network = networkOf({
    devices: [panel('p'), panel('q')],
    cables: [
      { label: 'C-1', a: 'p:F1', b: 'q:F1' },
      { label: 'C-2', a: 'p:R1', b: 'q:R1' },
    ],
  });
  expect(checkNetwork(network)).toEqual([
    expect.objectContaining({ rule: 'run-loop', about: ['cable C-1', 'cable C-2'] }),
  ]);
});

test('of many runs alike only those that are wrong are told: category, reach and plug, each by name', () => {
  const ports = Array.from({ length: 40 }, (_, at) => ({
    name: `${at + 1}`,
    connector: 'RJ45' as const,
    speedBps: 1e10,
  }));
  const network = networkOf({
    devices: [
      { name: 'a', role: 'SW', ports },
      { name: 'b', role: 'SW', ports },
    ],
    cables: Array.from({ length: 40 }, (_, at) => ({
      label: `C-${String(at + 1).padStart(2, '0')}`,
      type: at === 7 ? 'Cat 5e RJ45' : at === 9 ? 'OM4 duplex LC' : 'Cat 6A RJ45',
      lengthM: at === 8 ? 120 : 20,
      a: `a:${at + 1}`,
      b: `b:${at + 1}`,
    })),
  });
  expect(checkNetwork(network).map((finding) => [finding.rule, finding.about.at(-1)])).toEqual([
    ['link-plug', 'cable C-10'],
    ['link-reach', 'cable C-09'],
    ['link-speed', 'cable C-08'],
  ]);
});

test('a trunk laid between panels for later is no fault', () => {
  const network = networkOf({
    devices: [panel('p'), panel('q')],
    cables: [{ label: 'C-1', a: 'p:R1', b: 'q:R1' }],
  });
  expect(checkNetwork(network)).toEqual([]);
});
