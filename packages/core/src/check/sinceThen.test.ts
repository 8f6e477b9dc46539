import { expect, test } from '@jest/globals';
import type { Network } from '../model/network/network.ts';
import { networkOf } from '../testing/testNetwork.ts';
import { foundIn, testDay } from '../testing/testFindings.ts';
import { sinceThen } from './sinceThen.ts';

const ports = Array.from({ length: 12 }, (_, at) => ({ name: `${at + 1}` }));
const withCables = (...cables: { label: string; a?: string; b?: string }[]) =>
  networkOf({ devices: [{ name: 'ah-acc-1', role: 'SW', ports }], cables });
const open = (label: string, port: number) => ({ label, a: `ah-acc-1:${port}` });
const whole = (label: string, port: number) => ({ ...open(label, port), b: `ah-acc-1:${port + 1}` });
const against = (before: Network, now: Network) => sinceThen(before, now, testDay);
const told = (findings: readonly { rule: string; about: string[] }[]): string[] =>
  findings.map(({ rule, about }) => `${rule} ${about[0] ?? ''}`);

test('what came, what stayed and what went, by name: the two documents share no ids', () => {
  const before = withCables(open('AH-00016', 1), open('AH-00017', 3));
  const now = withCables(open('AH-00017', 5), open('AH-00018', 7), whole('AH-00016', 1));
  const { fresh, stayed, gone } = against(before, now);
  expect(told(fresh)).toEqual(['cable-one-end cable AH-00018']);
  expect(told(gone)).toEqual(['cable-one-end cable AH-00016']);
  // It is plugged in elsewhere and says so, about the same things: it is the same finding.
  expect(told(stayed)).toEqual(['cable-one-end cable AH-00017']);
  expect(stayed[0]?.message).toContain('ah-acc-1:5');
});

test('against itself and against nothing', () => {
  const one = withCables(open('AH-00016', 1), whole('AH-00018', 3));
  const same = against(one, withCables(open('AH-00016', 1), whole('AH-00018', 3)));
  expect([same.fresh, same.gone]).toEqual([[], []]);
  expect(same.stayed).toEqual(foundIn(one).map((finding) => expect.objectContaining({ rule: finding.rule })));
  expect(same.stayed).toHaveLength(2);
  const empty = networkOf({});
  expect(told(against(empty, one).fresh)).toEqual(told(foundIn(one)));
  expect(told(against(one, empty).gone)).toEqual(told(foundIn(one)));
});

test('of two findings about one thing the one that says the same is known again; one that became worse is fresh', () => {
  // Two servers of 750 W with two inlets each, on two feeds of 230 V x 6 A x 0.8 = 1,104 W.
  const rack = (massLimitKg: number | undefined, amps = 6) =>
    networkOf({
      places: [{ path: 'KQ' }],
      racks: [
        {
          ...{ name: 'R1', place: 'KQ', units: 10, ...(massLimitKg === undefined ? {} : { massLimitKg }) },
          feeds: ['A', 'B'].map((name) => ({ name, volts: 230, amps, phases: 1 as const, derating: 0.8 })),
        },
      ],
      devices: [
        { name: 'pda', model: 'Brackwater PS-16', rack: 'R1', feed: 'A' },
        { name: 'pdb', model: 'Brackwater PS-16', rack: 'R1', feed: 'B' },
        { name: 's1', model: 'Tessmark T2-Rack', rack: 'R1', unit: 1 },
        { name: 's2', model: 'Tessmark T2-Rack', rack: 'R1', unit: 3 },
      ],
      cables: ['s1', 's2'].flatMap((name, at) => [
        { label: `A-${at}`, a: `pda:o${at + 1}`, b: `${name}:psu1` },
        { label: `B-${at}`, a: `pdb:o${at + 1}`, b: `${name}:psu2` },
      ]),
    });
  const only = (network: ReturnType<typeof rack>) =>
    foundIn(network)
      .filter(({ rule }) => rule === 'rack-over-limit')
      .map(({ severity }) => severity);
  expect(only(rack(undefined))).toEqual(['warn', 'warn']);
  expect(only(rack(1))).toEqual(['bad', 'warn', 'warn']);
  const heavier = against(rack(undefined), rack(1));
  expect(heavier.fresh.map(({ severity, message }) => [severity, /kg/.test(message)])).toEqual([
    ['bad', true],
  ]);
  expect(heavier.stayed.filter(({ rule }) => rule === 'rack-over-limit')).toHaveLength(2);
  // 230 V x 4 A x 0.8 = 736 W, less than the 755 W that each carries while both are there.
  const weaker = against(rack(undefined), rack(undefined, 4));
  expect(weaker.fresh.map(({ severity }) => severity)).toEqual(['bad', 'bad']);
  expect(weaker.gone).toEqual([]);
  // The other way round it has become less bad: nothing is fresh.
  expect(against(rack(undefined, 4), rack(undefined)).fresh).toEqual([]);
});
