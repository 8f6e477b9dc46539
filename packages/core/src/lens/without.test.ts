import { describe, expect, test } from '@jest/globals';
import { traceRun } from '../cabling/trace.ts';
import { applyChanges } from '../change/apply.ts';
import { update } from '../change/change.ts';
import { kindNames } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { rackCapacity } from '../racks/capacity.ts';
import { feedFailure, powerFlow } from '../racks/power.ts';
import { layer2Of } from '../switching/layer2.ts';
import { everything } from '../testing/testKinds.ts';
import { deviceNamed, networkOf, portId, smallRoom } from '../testing/testNetwork.ts';
import { inForce } from './inForce.ts';
import { without } from './without.ts';

const content = (network: Network): string =>
  JSON.stringify(kindNames.map((kind) => [...network.all(kind)].sort((a, b) => (a.id < b.id ? -1 : 1))));

describe('without what has failed', () => {
  test('a device, cable or circuit that failed leaves what a retired one leaves', () => {
    for (const kind of ['device', 'cable', 'circuit'] as const)
      for (const { id } of everything.all(kind)) {
        const row = everything.get(kind, id);
        if (row === null) continue;
        const change = update(kind, row as never, { status: 'retired' } as never);
        const retired = applyChanges(everything, change === null ? [] : [change]);
        if (!retired.ok) throw new Error(retired.problems[0]?.message);
        expect(content(without(everything, [{ kind, id }]))).toBe(content(inForce(retired.network)));
      }
  });

  test('several at once are one after the other, in any order; nothing failed is the same network', () => {
    const failures = [...everything.all('device'), ...everything.all('cable')].map((row) => ({
      kind: 'role' in row ? ('device' as const) : ('cable' as const),
      id: row.id,
    }));
    const one = failures.reduce((network, failure) => without(network, [failure]), everything);
    const other = [...failures]
      .reverse()
      .reduce((network, failure) => without(network, [failure]), everything);
    expect(content(without(everything, failures))).toBe(content(one));
    expect(content(other)).toBe(content(one));
    expect(without(everything, [])).toBe(everything);
  });

  test('what hangs on it answers as it would then: runs end open, links are gone', () => {
    const network = smallRoom();
    const core = deviceNamed(network, 'kq-core-1');
    expect(traceRun(network, portId(network, 'kq-acc-1:te1/49')).to).toBe(portId(network, 'kq-core-1:te1/1'));
    const failed = without(network, [{ kind: 'device', id: core.id }]);
    expect(traceRun(failed, portId(network, 'kq-acc-1:te1/49'))).toMatchObject({ ends: 'open', to: null });
    const [link] = everything.find('cablesByPort', portId(everything, 'a:1'));
    const links = (of: Network): number => layer2Of(of).links.length;
    expect(links(everything) - links(without(everything, [{ kind: 'cable', id: link?.id ?? '' }]))).toBe(1);
  });

  test('a rack or a place takes what stands in it along', () => {
    const network = smallRoom();
    const [a1] = network.find(
      'racksByPlace',
      [...network.all('place')].find(({ kind }) => kind === 'room')?.id ?? '',
    );
    const left = without(network, [{ kind: 'rack', id: a1?.id ?? '' }]);
    expect(left.find('devicesByRack', a1?.id ?? '')).toEqual([]);
    expect(left.count('device')).toBe(2);
    const [site] = network.find('placesByParent', 'root');
    expect(without(network, [{ kind: 'place', id: site?.id ?? '' }]).count('device')).toBe(0);
  });

  test('a network of thousands of ports is seen through lenses as well', () => {
    const feed = (name: string) => ({ name, volts: 230, amps: 16, phases: 1 as const, derating: 0.8 });
    const large = networkOf({
      places: [{ path: 'Quay', kind: 'site' }],
      racks: [{ name: 'R1', place: 'Quay', units: 42, feeds: [feed('A'), feed('B')] }],
      devices: Array.from({ length: 70 }, (_, at) => ({
        name: `sw-${at}`,
        model: 'Norvane AX-2448P',
        ...(at < 40 ? { rack: 'R1', unit: 1 + at, feed: at % 2 === 0 ? 'A' : 'B' } : { place: 'Quay' }),
        status: at === 3 ? ('retired' as const) : ('active' as const),
      })),
    });
    const [rack] = large.all('rack');
    if (rack === undefined) throw new Error('no rack');
    expect(rackCapacity(large, rack).feeds[0]?.aloneW).toBeGreaterThan(0);
    expect(inForce(large).count('device')).toBe(69);
    const failed = without(large, [{ kind: 'device', id: deviceNamed(large, 'sw-7').id }]);
    expect(failed.count('device')).toBe(69);
    const states = feedFailure(large, [rack], 'A');
    expect(states.dark).toHaveLength(20);
  });

  test('a feed that failed carries nothing, whether the rack describes it or not', () => {
    const network = networkOf({
      places: [{ path: 'Quay', kind: 'site' }],
      racks: [
        {
          name: 'R1',
          place: 'Quay',
          units: 20,
          feeds: [
            { name: 'A', volts: 230, amps: 16, phases: 1, derating: 0.8 },
            { name: 'B', volts: 230, amps: 16, phases: 1, derating: 0.8 },
          ],
        },
      ],
      devices: [
        { name: 'one', model: 'Norvane AX-2448P', rack: 'R1', unit: 5, feed: 'A' },
        { name: 'two', model: 'Norvane AX-2448P', rack: 'R1', unit: 7, feed: 'C' },
      ],
    });
    const [rack] = network.all('rack');
    const states = (...feeds: string[]): string[] => {
      const failed = without(
        network,
        feeds.map((feed) => ({ kind: 'feed', rackId: rack?.id ?? '', feed })),
      );
      const devices = ['one', 'two'].map((name) => deviceNamed(failed, name));
      const flow = powerFlow(failed, devices);
      return devices.map((device) => flow.stateOf(device));
    };
    expect(states()).toEqual(['live', 'live']);
    expect(states('B')).toEqual(['live', 'live']);
    expect(states('a')).toEqual(['dark', 'live']);
    expect(states('C')).toEqual(['live', 'dark']);
    expect(states('A', 'c')).toEqual(['dark', 'dark']);
  });
});
