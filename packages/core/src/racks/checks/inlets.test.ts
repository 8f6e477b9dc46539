import { expect, test } from '@jest/globals';
import { networkOf } from '../../testing/testNetwork.ts';
import { findingsOf, mendsOf } from '../../check/registry.ts';
import { foundIn } from '../../testing/testFindings.ts';

const feed = (name: string) => ({ name, volts: 230, amps: 32, phases: 1 as const, derating: 0.8 });
/** A rack with feeds, a strip on each, and servers of two inlets plugged as told. */
const room = (
  feeds: string[],
  cords: [string, string][],
  strips: { name: string; feed?: string }[],
  more: object[] = [],
) =>
  networkOf({
    places: [{ path: 'KQ' }],
    racks: [{ name: 'R1', place: 'KQ', units: 42, feeds: feeds.map(feed) }],
    devices: [
      ...strips.map((strip) => ({ model: 'Brackwater PS-16', rack: 'R1', ...strip })),
      { name: 's1', model: 'Tessmark T2-Rack', rack: 'R1', unit: 1 },
      ...(more as []),
    ],
    cables: cords.map(([a, b], at) => ({ label: `P-${at}`, type: 'power C13–C14', a, b })),
  });
const two = [
  { name: 'pda', feed: 'A' },
  { name: 'pdb', feed: 'B' },
];
const told = (network: ReturnType<typeof room>): string[] =>
  foundIn(network)
    .filter(({ rule }) => rule === 'single-fed' || rule === 'inlets-one-feed')
    .map(({ rule, message }) => `${rule}: ${message}`);

test('two inlets on two feeds are as they should be', () => {
  expect(
    told(
      room(
        ['A', 'B'],
        [
          ['pda:o1', 's1:psu1'],
          ['pdb:o1', 's1:psu2'],
        ],
        two,
      ),
    ),
  ).toEqual([]);
});

test('one inlet without a cord is told; in a rack of one feed there is nothing to plug it into', () => {
  const cord: [string, string][] = [['pda:o1', 's1:psu1']];
  expect(told(room(['A', 'B'], cord, two))).toEqual([
    'single-fed: s1 has 2 power inlets and hangs on one. Plug another into the other feed.',
  ]);
  expect(told(room(['A'], cord, two.slice(0, 1)))).toEqual([]);
  // No cord at all: nothing is recorded, which says nothing.
  expect(told(room(['A', 'B'], [], two))).toEqual([]);
});

test('two strips on one feed, two cords on one strip, and the feed written on the device', () => {
  const cords: [string, string][] = [
    ['pda:o1', 's1:psu1'],
    ['pdb:o1', 's1:psu2'],
  ];
  const sameFeed = [
    { name: 'pda', feed: 'A' },
    { name: 'pdb', feed: 'A' },
  ];
  expect(told(room(['A', 'B'], cords, sameFeed))).toEqual([
    'inlets-one-feed: All 2 inlets in use of s1 hang on feed A of R1 in the end. Move one to another feed.',
  ]);
  expect(told(room(['A'], cords, sameFeed))[0]).toContain('Bring a second feed to the rack.');
  const oneStrip: [string, string][] = [
    ['pda:o1', 's1:psu1'],
    ['pda:o2', 's1:psu2'],
  ];
  expect(told(room([], oneStrip, [{ name: 'pda' }]))).toEqual([
    'inlets-one-feed: All 2 inlets in use of s1 hang on pda in the end. Move one to another feed.',
  ]);
  const written = room(['A', 'B'], [], two, [
    { name: 's2', model: 'Tessmark T2-Rack', rack: 'R1', unit: 4, feed: 'A' },
  ]);
  expect(told(written)[0]).toContain('inlets in use of s2 hang on feed A of R1');
});

test('strips behind a UPS are traced through it; strips that feed each other end nowhere', () => {
  const behind = room(
    ['A', 'B'],
    [
      ['ups:hi1', 'pda:in'],
      ['pda:o1', 's1:psu1'],
      ['pdb:o1', 's1:psu2'],
    ],
    [{ name: 'pda' }, { name: 'pdb', feed: 'A' }],
    [{ name: 'ups', model: 'Brackwater UP-3000', rack: 'R1', unit: 10, feed: 'A' }],
  );
  expect(told(behind)[0]).toContain('feed A of R1');
  const circle = networkOf({
    devices: [
      { name: 'u1', model: 'Brackwater UP-1500' },
      { name: 'u2', model: 'Brackwater UP-1500' },
      { name: 's1', model: 'Tessmark T2-Rack' },
    ],
    cables: [
      { label: 'C-1', a: 'u1:out1', b: 'u2:in' },
      { label: 'C-2', a: 'u2:out1', b: 'u1:in' },
      { label: 'C-3', a: 'u1:out2', b: 's1:psu1' },
      { label: 'C-4', a: 'u2:out2', b: 's1:psu2' },
    ],
  });
  expect(foundIn(circle).map(({ rule }) => rule)).not.toContain('single-fed');
});

test('the idle inlet is offered a free outlet of the other feed, a doubled one is moved there', () => {
  const wishes = (network: ReturnType<typeof room>): string[] =>
    findingsOf(network)
      .filter(({ rule }) => rule === 'single-fed' || rule === 'inlets-one-feed')
      .flatMap((finding) => mendsOf(network, finding).map(({ wish }) => wish));
  expect(wishes(room(['A', 'B'], [['pda:o1', 's1:psu1']], two))).toEqual(['Plug s1 psu2 into pdb o1']);
  const doubled: [string, string][] = [
    ['pda:o1', 's1:psu1'],
    ['pda:o2', 's1:psu2'],
  ];
  expect(wishes(room(['A', 'B'], doubled, two))).toEqual(['Move P-1 of s1 psu2 to pdb o1']);
});
