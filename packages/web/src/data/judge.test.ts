import { beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { applyChanges, remove, update, type Change } from '@visograph/core/change';
import { findingsOf, rules, type Finding } from '@visograph/core/check';
import { Network, newId, newProject, type Cable } from '@visograph/core/model';
import { judged } from './judge.ts';
import type { JudgeRequest } from './judgeWorker.ts';

beforeAll(() => {
  globalThis.requestIdleCallback ??= (work) => {
    setTimeout(() => work({ didTimeout: false, timeRemaining: () => 0 }));
    return 0;
  };
});

const cable = (label: string): Cable => ({
  ...{ id: newId(), label, typeId: null, lengthM: null, splices: 0, status: 'active' as const },
  ...{ aPortId: null, bPortId: null, notes: null },
});
const network = (): Network =>
  Network.of({ project: [newProject('Quay')], cable: [cable('K-1'), cable('K-3')] });

test('rule by rule the same is found as all at once', async () => {
  const quay = network();
  const found = await judged(quay, () => true);
  expect(found?.map(({ rule }) => rule).sort()).toEqual(['cable-one-end', 'cable-one-end', 'label-gap']);
  expect(found).toBe(findingsOf(quay));
});

test('what is no longer wanted is left off after the rule that was being asked', async () => {
  let asked = 0;
  expect(await judged(network(), () => ++asked < 3)).toBeNull();
  expect(asked).toBe(3);
  expect(rules.length).toBeGreaterThan(3);
});

describe('a large network', () => {
  const sent: JudgeRequest[] = [];
  let broken = false;
  const copied = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
  /** A worker whose code runs here; what goes over is copied, as it is between threads. */
  class Here {
    onerror: (() => void) | null = null;
    onmessage: ((event: { data: unknown }) => void) | null = null;
    terminate(): void {}
    postMessage(request: JudgeRequest): void {
      sent.push(request);
      if (broken && request.type === 'judge') return void setTimeout(() => this.onerror?.());
      void import('./judgeWorker.ts').then(({ takeIn }) => {
        const reply = takeIn(copied(request));
        if (reply !== null) this.onmessage?.({ data: copied(reply) });
      });
    }
  }
  beforeAll(() => void Object.assign(globalThis, { Worker: Here, self: globalThis.self ?? {} }));
  beforeEach(() => void sent.splice(0));

  const rows = Array.from({ length: 20_100 }, (_, at) => cable(`K-${at + 1}`));
  const large = Network.of({ project: [newProject('Quay')], cable: rows });
  const after = (from: Network, ...changes: (Change | null)[]): Network => {
    const applied = applyChanges(
      from,
      changes.filter((change) => change !== null),
    );
    if (!applied.ok) throw new Error(applied.problems[0]?.message);
    return applied.network;
  };
  /** In which order they are found is nobody's promise: they are put in one where they are told. */
  const told = (findings: readonly Finding[] | null): string[] =>
    (findings ?? []).map((finding) => JSON.stringify(finding)).sort();
  /** As it is found here, by a network that comes from nowhere. */
  const here = (network: Network): string[] =>
    told(findingsOf(Network.of({ project: network.all('project'), cable: network.all('cable') })));
  const kinds = (): string[] => [...new Set(sent.map(({ type }) => type))];
  const row = (at: number): Cable => rows[at] ?? cable('none');

  test('is judged beside the screen, as it is here; after an edit only what was touched goes over', async () => {
    expect(told(await judged(large, () => true))).toEqual(here(large));
    expect([kinds(), sent.length]).toEqual([
      ['begin', 'more', 'judge'],
      2 + Math.ceil((rows.length + 1) / 1000),
    ]);
    sent.splice(0);
    const edited = after(large, remove('cable', row(5)), update('cable', row(7), { label: 'X-1' }));
    const found = await judged(edited, () => true);
    expect(told(found)).toEqual(here(edited));
    expect(found?.some(({ rule }) => rule === 'label-gap')).toBe(true);
    expect(kinds()).toEqual(['judge']);
    // What this window showed gives way to what the server says: another branch of the same network.
    const other = after(large, update('cable', row(9), { label: 'X-2' }));
    expect(told(await judged(other, () => true))).toEqual(here(other));
    expect(kinds()).toEqual(['judge']);
    // Loaded anew.
    const anew = Network.of({ project: [newProject('Quay')], cable: rows.slice(0, 20_050) });
    expect(told(await judged(anew, () => true))).toEqual(here(anew));
    expect(kinds()).toEqual(['judge', 'begin', 'more']);
  });

  test('that is no longer wanted is left off while it goes over; the next is judged all the same', async () => {
    const one = Network.of({ project: [newProject('One')], cable: rows });
    let asked = 0;
    expect(await judged(one, () => ++asked < 5)).toBeNull();
    expect(kinds()).toEqual(['begin', 'more']);
    const two = Network.of({ project: [newProject('Two')], cable: rows.slice(10) });
    expect(told(await judged(two, () => true))).toEqual(here(two));
  });

  test('where the worker ends it is judged here, and by another worker the next time', async () => {
    const one = Network.of({ project: [newProject('One')], cable: rows.slice(20) });
    broken = true;
    expect(told(await judged(one, () => true))).toEqual(here(one));
    broken = false;
    sent.splice(0);
    const two = after(one, remove('cable', row(30)));
    expect(told(await judged(two, () => true))).toEqual(here(two));
    expect(kinds()).toEqual(['begin', 'more', 'judge']);
  });
});
