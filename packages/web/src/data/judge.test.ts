import { beforeAll, expect, test } from '@jest/globals';
import { findingsOf, rules } from '@visograph/core/check';
import { Network, newId, newProject, type Cable } from '@visograph/core/model';
import { judged } from './judge.ts';

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
