import { expect, test } from '@jest/globals';
import { portGroupSchema } from '../../model/kinds/equipment/portGroup.ts';
import { networkOf } from '../../testing/testNetwork.ts';
import { foundIn } from '../../testing/testFindings.ts';

const panel = (name: string) => ({
  name,
  role: 'PP' as const,
  ports: [
    { name: 'F1', leadsTo: 'R1' },
    { name: 'R1', leadsTo: 'F1' },
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
  expect(foundIn(network)).toEqual([
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
  expect(foundIn(network).map((finding) => [finding.rule, finding.about.at(-1)])).toEqual([
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
  expect(foundIn(network)).toEqual([]);
});

test('link-poe: a camera of class 3 on a port that feeds class 2 runs with less', () => {
  const network = networkOf({
    models: [
      {
        name: 'Small',
        role: 'SW',
        poeBudgetW: 60,
        portGroups: [
          portGroupSchema.parse({
            pattern: 'gi1/1-4',
            connector: 'RJ45',
            speedBps: 1e9,
            role: 'network',
            poeClass: 2,
          }),
        ],
      },
    ],
    devices: [
      { name: 'sw', model: 'Small' },
      { name: 'cam', model: 'Pellane Domus 4' },
    ],
    cables: [{ label: 'C-1', type: 'Cat 6A RJ45', lengthM: 10, a: 'cam:eth0', b: 'sw:gi1/1' }],
  });
  expect(foundIn(network).filter(({ rule }) => rule === 'link-poe')).toMatchObject([
    {
      severity: 'warn',
      about: ['device cam', 'device sw', 'cable C-1'],
      message:
        'cam eth0 to sw gi1/1: cam eth0 asks for PoE class 3 (13 W), sw gi1/1 gives class 2 (6.49 W): it runs with less.',
    },
  ]);
});
