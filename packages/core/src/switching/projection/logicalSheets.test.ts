import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { create, update } from '../../change/change.ts';
import { deletePrefix } from '../../addressing/commands/addressing.ts';
import type { ExchangeFile } from '../../exchange/format.ts';
import { readExchange } from '../../exchange/read.ts';
import { writeExchange } from '../../exchange/write.ts';
import { newProject } from '../../model/kinds/sites/project.ts';
import { blankSheetItem } from '../../model/kinds/drawings/sheetItem.ts';
import { projectionNatures, type Projection } from '../../model/kinds/drawings/projections.ts';
import { blankSheet, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import { newId } from '../../model/values/ids.ts';
import { parseIp, parsePrefix } from '../../model/values/ip.ts';
import { Network } from '../../model/network/network.ts';
import { access, switched, trunk } from '../../testing/testSwitching.ts';
import { vlanChips } from '../../sheets/graph/chips.ts';
import { hostPart } from '../../routing/projection/hostPart.ts';
import { planOf } from '../../sheets/projection/plan.ts';
import type { GraphLink, GraphNode, SheetGraph } from '../../sheets/graph/sheetGraph.ts';

const draw = (network: Network, projection: Projection, fields: Partial<Sheet> = {}): SheetGraph => {
  const sheet: Sheet = {
    ...blankSheet,
    id: newId(),
    name: 'Test',
    projection,
    show: [...projectionNatures[projection].usual],
    ...fields,
  };
  return planOf(network, sheet, { today: '2026-11-27' }).graph;
};
const node = (graph: SheetGraph, name: string): GraphNode | undefined =>
  graph.nodes.find((one) => one.name === name);
const between = (graph: SheetGraph, a: string, b: string): GraphLink[] => {
  const ids = [node(graph, a)?.id, node(graph, b)?.id];
  return graph.links.filter((link) => ids.includes(link.a) && ids.includes(link.b));
};
/** The two ends of a link, that of the first plate first. */
const ends = (graph: SheetGraph, a: string, b: string): string[] =>
  between(graph, a, b)
    .map((link) =>
      link.a === node(graph, a)?.id ? `${link.aPort} | ${link.bPort}` : `${link.bPort} | ${link.aPort}`,
    )
    .sort();

/** A core pair as one switch, an access switch on both of its members, a panel between, cameras and a router. */
function house(more: Partial<ExchangeFile> = {}): Network {
  const uplink = (members: string[]): object => ({
    name: 'lag1',
    form: 'aggregate',
    members,
    mode: 'trunk',
    untagged: 999,
    tagged: [10, 20, 40],
  });
  return switched(
    {
      'core-1': { stack: 'core', ports: [{ name: 't1' }, uplink(['t1']) as never, trunk('t2', [20])] },
      'core-2': { stack: 'core', ports: [{ name: 't1' }, uplink(['t1']) as never] },
      'acc-1': {
        ports: [
          { name: 'u1', speedBps: 1e10 },
          { name: 'u2', speedBps: 1e10 },
          uplink(['u1', 'u2']) as never,
          access('g1', 40),
          access('g2', 40),
          trunk('g3', [20, 40], 10),
        ],
      },
      panel: {
        role: 'PP',
        ports: [
          { name: 'F1', leadsTo: 'R1' },
          { name: 'R1', leadsTo: 'F1' },
        ],
      },
      'cam-1': { role: 'CM', ports: [{ name: 'eth0' }] },
      'cam-2': { role: 'CM', ports: [{ name: 'eth0' }] },
      'edge-1': {
        role: 'RT',
        ports: [
          { name: 'e1' },
          {
            name: 'e1.20',
            form: 'subinterface',
            over: 'e1',
            vid: 20,
            vrf: 'ops',
            addresses: ['10.40.8.1/22'],
          },
          {
            name: 'e1.40',
            form: 'subinterface',
            over: 'e1',
            vid: 40,
            vrf: 'ops',
            addresses: ['10.40.3.1/24'],
          },
        ],
      },
    },
    [
      ['core-1:t1', 'panel:F1'],
      ['panel:R1', 'acc-1:u1'],
      ['core-2:t1', 'acc-1:u2'],
      ['acc-1:g1', 'cam-1:eth0'],
      ['acc-1:g2', 'cam-2:eth0'],
      ['acc-1:g3', 'edge-1:e1'],
    ],
    more,
  );
}

describe('chips', () => {
  const network = switched({ a: { ports: [trunk('t1', [20])] } }, []);
  const group = network.findOne('vlanNumberingByName', 'shore')?.id ?? null;
  const said = (tagged: number[] | 'all', untagged: number | null = null, folded = true): string =>
    vlanChips(network, group, { untagged, tagged }, folded).text;

  test('the untagged VLAN first, few numbers one by one, many folded into ranges and a count', () => {
    expect(said([20, 10], 999)).toBe('999 10 20');
    expect(said([10, 20, 30, 40])).toBe('10 20 30 40');
    expect(said([10, 20, 30, 40, 50, 60, 70], 999)).toBe('999 10 20 30 +4');
    expect(said([10, 11, 12, 13, 14, 20])).toBe('10-14 20');
    expect(said([10, 20, 30, 40, 50, 60, 70], null, false)).toBe('10 20 30 40 50 60 70');
    expect(said('all', 1)).toBe('1 all');
    expect(said([])).toBe('');
  });

  test('pieces lie where their numbers are written; a number that no VLAN has is without colour', () => {
    const { text, chips } = vlanChips(network, group, { untagged: 999, tagged: [20, 33] }, true);
    expect(chips.map(({ from, to }) => text.slice(from, to))).toEqual(['999', '20', '33']);
    expect(chips.map(({ framed }) => framed)).toEqual([true, false, false]);
    expect(chips[2]?.colour).toBeNull();
    expect(chips[1]?.colour).toBe(network.findOne('vlanByNumber', `${group ?? ''}/20`)?.colour);
  });
});

describe('switching sheet', () => {
  test('a stack is one plate, panels are gone, members of an aggregate are one link with VLANs at both ends', () => {
    const graph = draw(house(), 'switching');
    expect(graph.nodes.map((one) => one.name).sort()).toEqual(['acc-1', 'cameras', 'core-1 / 2', 'edge-1']);
    expect(ends(graph, 'core-1 / 2', 'acc-1')).toEqual(['999 10 20 40 | 999 10 20 40']);
    expect(between(graph, 'core-1 / 2', 'acc-1')[0]?.text).toBe('2 × 10G');
    expect(
      between(graph, 'core-1 / 2', 'acc-1')[0]
        ?.cables.map((line) => line.label)
        .sort(),
    ).toEqual(['T-00002', 'T-00003']);
  });

  test('end devices are folded with what their ports carry; a router shows its subinterfaces and the hand-off', () => {
    const graph = draw(house(), 'switching');
    expect(ends(graph, 'acc-1', 'cameras')).toEqual(['40 | ']);
    expect(ends(graph, 'acc-1', 'edge-1')).toEqual(['10 20 40 | 20 40']);
    expect(node(graph, 'edge-1')?.lines).toEqual(['ops 20 40']);
  });

  test('a chosen VLAN lights up its domain, and its spanning tree marks what it blocks', () => {
    const triangle = switched(
      {
        a: { bridgePriority: 4096, ports: [trunk('1', [20, 40]), trunk('2', [20, 40])] },
        b: { ports: [trunk('1', [20, 40]), trunk('2', [20, 40]), access('3', 40)] },
        c: { ports: [trunk('1', [20, 40]), trunk('2', [20]), access('3', 20)] },
        cam: { role: 'CM', ports: [{ name: 'eth0' }] },
        desk: { role: 'PC', ports: [{ name: 'eth0' }] },
      },
      [
        ['a:1', 'b:1'],
        ['a:2', 'c:1'],
        ['b:2', 'c:2'],
        ['b:3', 'cam:eth0'],
        ['c:3', 'desk:eth0'],
      ],
    );
    const vlan = (vid: number): string =>
      [...triangle.all('vlan')].find((one) => one.vid === vid && one.name !== '')?.id ?? '';
    const ops = draw(triangle, 'switching', { vlanId: vlan(20) });
    expect(between(ops, 'a', 'b')[0]).toMatchObject({ dim: false, blocked: null });
    expect(between(ops, 'b', 'c')[0]).toMatchObject({ dim: false });
    expect(between(ops, 'b', 'c')[0]?.blocked).not.toBeNull();
    expect([node(ops, 'cam')?.dim, node(ops, 'desk')?.dim]).toEqual([true, false]);
    const cameras = draw(triangle, 'switching', { vlanId: vlan(40) });
    expect(between(cameras, 'b', 'c')[0]?.dim).toBe(true);
    expect([node(cameras, 'cam')?.dim, node(cameras, 'desk')?.dim]).toEqual([false, true]);
    expect(between(cameras, 'b', 'cam')[0]?.dim).toBe(false);
  });

  test('hidden tags are nowhere in the drawing', () => {
    const graph = draw(house(), 'switching', { show: ['devices', 'links', 'names'] });
    expect(graph.links.every((link) => link.aPort === '' && link.bPort === '')).toBe(true);
    expect(graph.nodes.every((one) => one.lines.length === 0 || one.form === 'fold')).toBe(true);
  });
});

const ospf = (area: string, more: object = {}): object => ({
  area,
  cost: null,
  passive: false,
  network: 'point-to-point',
  ...more,
});
/** Three routers on one transit subnet, one of them with a link into area 1 and a summary of it. */
function routed(): Network {
  const port = (name: string, address: string, how: object | null, more: object = {}): never =>
    ({
      name,
      mode: 'routed',
      vrf: 'ops',
      addresses: [address],
      ...(how === null ? {} : { ospf: how }),
      ...more,
    }) as never;
  const lo = (last: number): never =>
    ({ name: 'lo0', form: 'loopback', vrf: 'ops', addresses: [`10.43.255.${last}/32`] }) as never;
  return switched(
    {
      r1: { role: 'RT', ports: [lo(1), port('e1', '10.43.1.1/29', ospf('0', { network: 'broadcast' }))] },
      r2: { role: 'RT', ports: [lo(2), port('e1', '10.43.1.2/29', ospf('0', { network: 'broadcast' }))] },
      r3: {
        role: 'RT',
        asNumber: 64500,
        ports: [
          lo(3),
          port('e1', '10.43.1.3/29', ospf('0', { network: 'broadcast' })),
          port('e2', '10.43.0.0/31', ospf('1', { cost: 7 })),
          port('e3', '10.40.9.1/24', null),
          port('wan', '198.51.100.2/30', null),
        ],
        routes: [{ vrf: 'ops', prefix: '10.40.32.0/19', discard: true }],
        bgp: [{ vrf: 'ops', neighbour: '198.51.100.1', remoteAs: 64496 }],
      },
      r4: { role: 'RT', ports: [lo(4), port('e2', '10.43.0.1/31', ospf('1'))] },
      sw: { ports: [access('1', 20), access('2', 20), access('3', 20)] },
    },
    [
      ['r1:e1', 'sw:1'],
      ['r2:e1', 'sw:2'],
      ['r3:e1', 'sw:3'],
      ['r3:e2', 'r4:e2'],
    ],
    {
      prefixes: [{ prefix: '10.43.1.0/29', vrf: 'ops', role: 'transit', name: 'Core' }],
      circuits: [{ number: 'C-1', kind: 'internet', provider: 'Holm Carrier', a: 'r3:wan' }],
    } as never,
  );
}

describe('routing sheet', () => {
  test('a subnet of two routers is a link, of three a bar, of a provider a plate with its AS', () => {
    const graph = draw(routed(), 'routing');
    expect(graph.nodes.map((one) => one.name).sort()).toEqual([
      '10.43.1.0/29',
      'Holm Carrier',
      'r1',
      'r2',
      'r3',
      'r4',
    ]);
    expect(between(graph, 'r3', 'r4')[0]?.text).toBe('10.43.0.0/31');
    expect(ends(graph, 'r3', 'r4')).toEqual(['.0 · cost 7 | .1 · cost 100']);
    expect(['r1', 'r2', 'r3'].map((name) => between(graph, name, '10.43.1.0/29').length)).toEqual([1, 1, 1]);
    expect(node(graph, 'Holm Carrier')?.lines).toEqual(['AS 64496']);
    expect(ends(graph, 'r3', 'Holm Carrier')).toEqual(['.2 | 198.51.100.1']);
  });

  test('areas are containers, the border stands in the backbone and tells its area and its summary', () => {
    const graph = draw(routed(), 'routing');
    const title = (name: string): string | undefined =>
      graph.containers.find((one) => one.id === node(graph, name)?.containerId)?.title;
    expect([title('r1'), title('r3'), title('r4')]).toEqual([
      'OSPF area 0 · ops',
      'OSPF area 0 · ops',
      'OSPF area 1 · ops',
    ]);
    expect(node(graph, 'r3')?.lines).toEqual([
      'AS 64500',
      'lo0 10.43.255.3',
      'borders area 1',
      'summary 10.40.32.0/19',
      'ops 10.40.9.0/24',
    ]);
  });

  test('whole addresses where they are wished; one VRF alone; a router left out takes its links along', () => {
    const network = routed();
    const whole = draw(network, 'routing', { reading: { ...blankSheet.reading, wholeAddresses: true } });
    expect(ends(whole, 'r3', 'r4')).toEqual(['10.43.0.0 · cost 7 | 10.43.0.1 · cost 100']);
    const guest = network.findOne('vrfByName', 'guest')?.id ?? null;
    expect(draw(network, 'routing', { vrfId: guest }).links).toEqual([]);
    const r4 = network.findOne('deviceByName', 'r4');
    const retire = r4 === null ? null : update('device', r4, { status: 'retired' });
    const applied = applyChanges(network, retire === null ? [] : [retire]);
    expect(applied.ok && between(draw(applied.network, 'routing'), 'r3', 'r4')).toEqual([]);
  });

  test('the open part of an address', () => {
    const part = (address: string, prefix: string): string =>
      hostPart(
        parseIp(address) ?? { family: 4, value: 0n },
        parsePrefix(prefix) ?? { family: 4, value: 0n, length: 0 },
      );
    expect(part('10.40.8.1', '10.40.8.0/22')).toBe('.8.1');
    expect(part('10.43.0.1', '10.43.0.0/31')).toBe('.1');
    expect(part('10.43.0.1', '10.43.0.0/24')).toBe('.1');
    expect(part('2001:db8:40:10::2', '2001:db8:40:10::/64')).toBe('::2');
    expect(part('2001:db8::1', '2001:db8::/127')).toBe('::1');
  });
});

describe('what was done by hand on a subnet', () => {
  test('is kept by its prefix, goes through a file, and goes with the prefix', () => {
    const network = routed();
    const prefix = [...network.all('prefix')][0];
    const sheet: Sheet = { ...blankSheet, id: newId(), name: 'By hand', projection: 'routing' };
    const made = applyChanges(network, [
      create('sheet', sheet),
      create('sheetItem', {
        ...blankSheetItem,
        id: newId(),
        sheetId: sheet.id,
        subjectKind: 'prefix',
        subjectId: prefix?.id ?? '',
        x: 80,
        y: 160,
      }),
    ]);
    if (!made.ok || prefix === undefined) throw new Error('refused');
    const plan = planOf(made.network, sheet, { today: '2026-11-27' });
    const bar = plan.graph.nodes.find((one) => one.form === 'subnet');
    expect(plan.plates.get(bar?.id ?? '')?.at).toEqual({ x: 80, y: 160 });
    const file = writeExchange(made.network);
    expect(file.sheets?.[0]?.positions).toEqual([{ prefix: '10.43.1.0/29', vrf: 'ops', x: 80, y: 160 }]);
    const again = readExchange(Network.of({ project: [newProject('Test')] }), file);
    expect(again.ok && again.changes.filter((change) => change.kind === 'sheetItem')).toHaveLength(1);
    const gone = deletePrefix(made.network, prefix, 0);
    const after = gone.ok ? applyChanges(made.network, gone.set.changes) : null;
    expect(after?.ok === true && after.network.count('sheetItem')).toBe(0);
  });
});
