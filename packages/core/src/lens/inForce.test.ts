import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { findFreePorts } from '../cabling/freePorts.ts';
import { poeLoad } from '../cabling/poe.ts';
import { traceRun } from '../cabling/trace.ts';
import { applyChanges } from '../change/apply.ts';
import { update } from '../change/change.ts';
import { foundIn } from '../testing/testFindings.ts';
import type { Network } from '../model/network/network.ts';
import { findPort } from '../model/network/ports.ts';
import { feedFailure, powerFlow } from '../racks/power.ts';
import { deviceWatts } from '../catalogue/figures.ts';
import { reports } from '../report/registry.ts';
import { routeTable } from '../routing/routeTable.ts';
import { layer2Of } from '../switching/layer2.ts';
import { treeOfPart } from '../switching/spanningTree.ts';
import { deviceNamed, networkOf, portId, rackNamed } from '../testing/testNetwork.ts';
import { runs } from '../testing/testRuns.ts';
import { access, switched, trunk } from '../testing/testSwitching.ts';
import { inForce } from './inForce.ts';

type Status = 'planned' | 'active' | 'retired';

const devices = {
  core1: {
    bridgePriority: 4096,
    ports: [
      trunk('1', [20]),
      trunk('2', [20]),
      { name: 'e', mode: 'routed' as const, vrf: 'ops', addresses: ['10.43.0.0/31'] },
      { name: 'vlan20', form: 'vlan' as const, vid: 20, vrf: 'ops', addresses: ['10.40.8.1/24'] },
    ],
    routes: [{ vrf: 'ops', prefix: '0.0.0.0/0', via: '10.43.0.1' }],
  },
  core2: { bridgePriority: 8192, ports: [trunk('1', [20]), trunk('2', [20])] },
  acc: { ports: [trunk('1', [20]), trunk('2', [20]), access('g1', 20)] },
  edge: {
    role: 'RT',
    ports: [{ name: 'e', mode: 'routed' as const, vrf: 'ops', addresses: ['10.43.0.1/31'] }],
    routes: [{ vrf: 'ops', prefix: '10.40.0.0/16', via: '10.43.0.0' }],
  },
  host: { role: 'SV', ports: [{ name: 'eth0' }] },
};
type Name = keyof typeof devices;
const names = Object.keys(devices) as Name[];
const cables = [
  { label: 'T-00001', a: 'core1:1', b: 'core2:1' },
  { label: 'T-00002', a: 'core1:2', b: 'acc:1' },
  { label: 'T-00003', a: 'core2:2', b: 'acc:2' },
  { label: 'T-00004', a: 'acc:g1', b: 'host:eth0' },
  { label: 'T-00005', a: 'core1:e', b: 'edge:e' },
];

/** Two cores, of which the first is root and gateway; a switch and a host below both; a router beside. */
const cores = ({ core1 = 'active', cable = 'active' }: { core1?: Status; cable?: Status } = {}): Network =>
  switched({ ...devices, core1: { ...devices.core1, status: core1 } }, [], {
    cables: cables.map((one) => (one.label === 'T-00002' ? { ...one, status: cable } : one)),
  });
/** The same without some devices, as if they had never been: the ends of cables that led to them are loose. */
const coresWithout = (gone: readonly string[]): Network =>
  switched(Object.fromEntries(Object.entries(devices).filter(([name]) => !gone.includes(name))), [], {
    cables: cables.map(({ label, ...ends }) => ({
      label,
      ...Object.fromEntries(
        Object.entries(ends).filter(([, end]) => !gone.includes(end.split(':')[0] ?? '')),
      ),
    })),
  });
const rootOf20 = (network: Network): string => {
  const layer2 = layer2Of(network);
  const acc = [...layer2.bridging.bridges.values()].find((one) => one.name === 'acc');
  return acc === undefined ? '' : (treeOfPart(layer2, layer2.domain(acc, 20))?.root.name ?? '');
};
const routes = (network: Network): string[] => {
  const device = network.findOne('deviceByName', 'core1');
  const vrfId = network.findOne('vrfByName', 'ops')?.id ?? null;
  return routeTable(network, device?.id ?? '', vrfId).routes.map((route) => route.text);
};
const builtAlone = (network: Network): Network => inForce(network, { planned: false });

describe('what is retired carries nothing, what is planned does unless it is left out', () => {
  test('roots and routes', () => {
    expect([rootOf20(cores()), routes(cores())]).toEqual([
      'core1',
      ['0.0.0.0/0', '10.40.8.0/24', '10.43.0.0/31'],
    ]);
    const retired = cores({ core1: 'retired' });
    expect([rootOf20(retired), routes(retired)]).toEqual(['core2', []]);
    const planned = cores({ core1: 'planned' });
    expect([rootOf20(planned), routes(planned).length]).toEqual(['core1', 3]);
    expect([rootOf20(builtAlone(planned)), routes(builtAlone(planned))]).toEqual(['core2', []]);
  });

  test('links and runs: a retired cable leads nowhere, a cable to a retired device ends open', () => {
    const links = (network: Network): number => layer2Of(network).links.length;
    expect([links(cores({ cable: 'active' })), links(cores({ cable: 'retired' }))]).toEqual([3, 2]);
    expect(links(builtAlone(cores({ cable: 'planned' })))).toBe(2);
    const network = cores({ core1: 'retired' });
    expect(traceRun(network, portId(network, 'acc:1'))).toMatchObject({ ends: 'open', to: null });
    expect(traceRun(network, portId(network, 'acc:1')).hops).toHaveLength(2);
    const edge = cores({ core1: 'active' });
    expect(traceRun(edge, portId(edge, 'acc:1')).to).toBe(portId(edge, 'core1:2'));
  });

  test('next hops that only a retired device has are nobody; its addresses clash with none', () => {
    const two = (status: Status): string[] =>
      foundIn(
        switched(
          {
            r1: {
              role: 'RT',
              ports: [{ name: 'e', mode: 'routed', addresses: ['10.1.0.1/29'] }],
              routes: [{ prefix: '10.9.0.0/16', via: '10.1.0.2' }],
            },
            r2: {
              role: 'RT',
              status,
              ports: [{ name: 'e', mode: 'routed', addresses: ['10.1.0.2/29', '10.1.0.1/29'] }],
            },
            sw: { ports: [access('1', 20), access('2', 20)] },
          },
          [
            ['r1:e', 'sw:1'],
            ['r2:e', 'sw:2'],
          ],
        ),
      )
        .map(({ rule }) => rule)
        .filter((rule) => rule === 'next-hop-nobody' || rule === 'address-duplicate');
    expect(two('active')).toEqual(['address-duplicate']);
    expect(two('retired')).toEqual(['next-hop-nobody']);
  });

  test('power, PoE and free ports', () => {
    const room = (status: Status): Network =>
      networkOf({
        places: [{ path: 'Kelder Quay', kind: 'site' }],
        racks: [
          {
            name: 'R1',
            place: 'Kelder Quay',
            units: 42,
            feeds: [{ name: 'A', volts: 230, amps: 16, phases: 1, derating: 0.8 }],
          },
        ],
        devices: [
          { name: 'sw', model: 'Norvane AX-2448P', rack: 'R1', unit: 10, feed: 'A' },
          { name: 'old', model: 'Norvane AX-2448P', rack: 'R1', unit: 12, feed: 'A', status },
          { name: 'cam', model: 'Pellane Domus 4', place: 'Kelder Quay', status },
        ],
        cables: [{ label: 'K-00001', a: 'sw:gi1/1', b: 'cam:eth0' }],
      });
    const load = (network: Network): number => {
      const devices = [...network.all('device')].filter(({ rackId }) => rackId !== null);
      return [...powerFlow(network, devices).loads.values()].reduce((sum, one) => sum + one.maxW, 0);
    };
    const active = room('active');
    const retired = room('retired');
    const sw = deviceWatts(active, deviceNamed(active, 'sw')).maxW;
    expect([load(active), load(retired)]).toEqual([2 * sw, sw]);
    expect(load(builtAlone(room('planned')))).toBe(sw);
    expect(feedFailure(retired, [rackNamed(retired, 'R1')], 'A').dark.map(({ name }) => name)).toEqual([
      'sw',
    ]);
    const fed = (network: Network): number =>
      poeLoad(network, deviceNamed(network, 'sw'))?.ports.length ?? -1;
    expect([fed(active), fed(retired), fed(room('planned')), fed(builtAlone(room('planned')))]).toEqual([
      1, 0, 1, 0,
    ]);
    const free = (network: Network): Set<string> =>
      new Set(
        findFreePorts(network, {
          count: 200,
          connector: 'RJ45',
          speedBps: null,
          withOptic: false,
          poeClass: null,
          differentDevices: false,
          nearPlaceId: null,
          panels: false,
        }).map(({ device }) => device.name),
      );
    expect(free(active).has('old')).toBe(true);
    expect(free(retired).has('old')).toBe(false);
  });

  test('nothing to leave out: the same network, and the lens of a lens is itself', () => {
    const network = cores();
    expect(inForce(network)).toBe(network);
    const lens = inForce(cores({ core1: 'retired' }));
    expect(inForce(lens)).toBe(lens);
    expect(findPort(lens, 'core1', '1')).toBeNull();
    expect([...lens.all('route')].map(({ prefix }) => prefix)).toEqual(['10.40.0.0/16']);
  });
});

test('property: with things retired every answer is the one of the network in which they never were', () => {
  // Of a cable whose device is retired the end is known, so that it is not told to be open.
  const told = (network: Network): unknown => ({
    findings: foundIn(network)
      .filter(({ rule }) => rule !== 'cable-one-end')
      .map(({ rule, message }) => `${rule} ${message}`),
    routes: reports.find((one) => one.key === 'routes')?.make(network, null).rows,
    vlans: reports.find((one) => one.key === 'vlans')?.make(network, null).rows,
  });
  fc.assert(
    fc.property(fc.subarray(names), fc.constantFrom<Status>('retired', 'planned'), (gone, status) => {
      const network = cores();
      const changed = applyChanges(
        network,
        gone.flatMap((name) => update('device', deviceNamed(network, name), { status }) ?? []),
      );
      if (!changed.ok) throw new Error('the status cannot be set');
      const seen = status === 'retired' ? changed.network : builtAlone(changed.network);
      expect(told(seen)).toEqual(told(coresWithout(gone)));
    }),
    { numRuns: runs(30) },
  );
});
