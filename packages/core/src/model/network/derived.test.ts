import { describe, expect, jest, test } from '@jest/globals';
import fc from 'fast-check';
import { prefixTree } from '../../addressing/plan.ts';
import { virtualsOf } from '../../addressing/virtuals.ts';
import { nextCableLabel } from '../../cabling/labels.ts';
import { update } from '../../change/change.ts';
import { inForce } from '../../lens/inForce.ts';
import { rackCapacity } from '../../racks/capacity.ts';
import { rackSummary } from '../../racks/summary.ts';
import { routeTable } from '../../routing/routeTable.ts';
import { layer2Of } from '../../switching/layer2.ts';
import { changed, content, edit, edited } from '../../testing/testEdits.ts';
import { everything } from '../../testing/testKinds.ts';
import { runs } from '../../testing/testRuns.ts';
import { derived, derivedBy, keptOnPaper } from './derived.ts';
import { kindNames } from '../kinds.ts';
import { blankVrf } from '../kinds/logical/vrf.ts';
import { newId } from '../values/ids.ts';
import { Network } from './network.ts';

const rowsOf = (network: Network): Parameters<typeof Network.of>[0] =>
  Object.fromEntries(kindNames.map((kind) => [kind, [...network.all(kind)]]));
/** The same rows in a network that comes from nowhere: nothing can be carried over into it. */
const afresh = (network: Network): Network => Network.of(rowsOf(network));
const read = (network: Network): unknown => {
  const device = network.findOne('deviceByName', 'a') ?? [...network.all('device')][0];
  const vrf = network.findOne('vrfByName', 'ops')?.id ?? null;
  const layer2 = layer2Of(network);
  return {
    lens: content(inForce(network)),
    built: content(inForce(network, { planned: false })),
    links: layer2.links.length,
    bridges: [...layer2.bridging.bridges.values()].map(({ name }) => name),
    routes:
      device === undefined
        ? []
        : routeTable(network, device.id, vrf).routes.map(({ text, why }) => [text, why]),
    prefixes: prefixTree(network, vrf).size,
    virtuals: virtualsOf(network).length,
    label: nextCableLabel(network, null),
    racks: [...network.all('rack')].map((rack) => [rackSummary(network, rack), rackCapacity(network, rack)]),
  };
};

describe('what is worked out for a network', () => {
  test('property: carried over any number of edits it is what is worked out afresh', () => {
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 12 }), fc.array(fc.boolean()), (edits, asked) => {
        let network = everything;
        edits.forEach((one, at) => {
          network = edited(network, one);
          // Now and then somebody asks in between, now and then many edits go by.
          if (asked[at] !== false) read(network);
        });
        expect(read(network)).toEqual(read(afresh(network)));
      }),
      { numRuns: runs(60) },
    );
  });

  test('it is worked out once; kept while only sheets change, and anew when the network does', () => {
    const make = jest.fn((network: Network) => ({ devices: network.count('device') }));
    const counted = derived(make, keptOnPaper);
    const [item] = everything.all('sheetItem');
    const [device] = everything.all('device');
    if (item === undefined || device === undefined) throw new Error('nothing there');
    const first = counted(everything);
    expect(counted(everything)).toBe(first);
    const moved = changed(everything, [update('sheetItem', item, { x: 7 })]);
    expect(counted(moved)).toBe(first);
    const again = changed(moved, [update('sheetItem', item, { x: 7, y: 8 })]);
    expect(counted(again)).toBe(first);
    expect(make).toHaveBeenCalledTimes(1);
    expect(counted(changed(again, [update('device', device, { notes: 'x' })]))).not.toBe(first);
    expect(make).toHaveBeenCalledTimes(2);
    // A lens over it is carried as well, so that what reads through one is kept too.
    expect(layer2Of(moved)).toBe(layer2Of(everything));
  });

  test('by a key: each once for a network', () => {
    const make = jest.fn((network: Network, key: string) => `${key} ${network.count('device')}`);
    const named = derivedBy(make);
    expect([named(everything, 'a'), named(everything, 'b'), named(everything, 'a')]).toEqual([
      `a ${everything.count('device')}`,
      `b ${everything.count('device')}`,
      `a ${everything.count('device')}`,
    ]);
    expect(make).toHaveBeenCalledTimes(2);
  });
});

test('of many made in one go each knows the one before it, and nothing keeps the others', () => {
  let made = 0;
  const counted = derived(
    (network) => ({ count: network.count('vrf'), made: ++made }),
    (before, network) => ({ count: network.count('vrf'), made: before.made }),
  );
  const steps: Network[] = [Network.empty()];
  counted(Network.empty());
  for (let at = 0; at < 5; at++) {
    const [last = Network.empty()] = steps.slice(-1);
    const draft = last.passingDraft();
    draft.put('vrf', { ...blankVrf, id: newId(), name: `ops-${at}` });
    const next = draft.finish();
    counted(next);
    steps.push(next);
  }
  expect(counted(steps.at(-1) ?? Network.empty())).toEqual({
    count: 5,
    made: counted(steps[1] ?? Network.empty()).made,
  });
  expect(steps.map((one) => one.origin?.base.deref() === undefined)).toEqual([
    true,
    true,
    true,
    true,
    true,
    false,
  ]);
  // One that is made from it in the usual way does not cut it off.
  const after = steps.at(-1)?.draft().finish();
  expect(after?.origin?.base.deref()).toBe(steps.at(-1));
  expect(steps.at(-1)?.origin?.base.deref()).toBe(steps.at(-2));
});
