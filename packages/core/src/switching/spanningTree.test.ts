import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Network } from '../model/network/network.ts';
import { spanningTreeSchema } from '../model/kinds/logical/spanningTree.ts';
import { macOf } from '../model/values/mac.ts';
import { runs } from '../testing/testRuns.ts';
import { access, switched, trunk } from '../testing/testSwitching.ts';
import { layer2Of } from './layer2.ts';
import { spanningTree, type SpanningTree } from './spanningTree.ts';
import { readTreeParts, treePartsText } from './treeParts.ts';

type Devices = Parameters<typeof switched>[0];
type Links = Parameters<typeof switched>[1];

function treeFrom(network: Network, name: string, vid = 20): SpanningTree | null {
  const device = network.findOne('deviceByName', name);
  const layer2 = layer2Of(network);
  const start = [...layer2.bridging.bridges.values()].find((one) =>
    one.devices.some((other) => other.id === device?.id),
  );
  return start === undefined ? null : spanningTree(layer2, start, vid);
}
const blocked = (tree: SpanningTree | null): string[] =>
  [...(tree?.blocked.values() ?? [])].map((port) => port.title).sort();

const at = (speedBps: number, name: string): object => ({ ...trunk(name, [20]), speedBps });

describe('cost', () => {
  test('is by the speed that both ends agree on, from whichever end the link is read', () => {
    // a and b could do 10 Gbit/s; b:1 holds the link at 1. The way over c costs 2 x 2,000, the straight one 20,000.
    const devices = (order: string[]): Devices => {
      const all: Devices = {
        a: { bridgePriority: 4096, ports: [at(1e10, '1'), at(1e10, '2')] as never },
        b: { ports: [at(1e9, '1'), at(1e10, '2')] as never },
        c: { ports: [at(1e10, '1'), at(1e10, '2')] as never },
      };
      return Object.fromEntries(order.map((name) => [name, all[name]])) as Devices;
    };
    const links: Links = [
      ['a:1', 'b:1'],
      ['a:2', 'c:1'],
      ['c:2', 'b:2'],
    ];
    for (const order of [
      ['a', 'b', 'c'],
      ['c', 'b', 'a'],
    ]) {
      const tree = treeFrom(switched(devices(order), links), 'b');
      expect(blocked(tree)).toEqual(['b 1']);
      const b = [...(tree?.costs ?? [])].map(([, cost]) => cost).sort((x, y) => x - y);
      expect(b).toEqual([0, 2000, 4000]);
    }
  });

  test('as set on a port, and the priority of the port at the far end, decide', () => {
    const ring = (one: object, two: object): Network =>
      switched(
        {
          a: { bridgePriority: 4096, ports: [{ ...at(1e9, '1') }, { ...at(1e9, '2'), ...two }] as never },
          b: { ports: [{ ...at(1e9, '1'), ...one }, at(1e9, '2')] as never },
        },
        [
          ['a:1', 'b:1'],
          ['a:2', 'b:2'],
        ],
      );
    expect(blocked(treeFrom(ring({}, {}), 'a'))).toEqual(['b 2']);
    expect(blocked(treeFrom(ring({ spanningTree: { cost: 30000 } }, {}), 'a'))).toEqual(['b 1']);
    expect(blocked(treeFrom(ring({}, { spanningTree: { priority: 64 } }), 'a'))).toEqual(['b 1']);
  });
});

describe('who votes', () => {
  const pair = (a: object, b: object): Network =>
    switched(
      {
        a: { ...a, ports: [trunk('1', [20]), trunk('2', [20])] },
        b: { ...b, ports: [trunk('1', [20]), trunk('2', [20])] },
      },
      [
        ['a:1', 'b:1'],
        ['a:2', 'b:2'],
      ],
    );

  test('of equal priorities the lower recorded address; without addresses the answer says so', () => {
    const low = { bridgeAddress: '02:00:5e:00:53:01' };
    const high = { bridgeAddress: '02:00:5e:00:53:02' };
    const said = (network: Network): string => {
      const tree = treeFrom(network, 'a');
      return `${tree?.root.name ?? ''} by ${tree?.rootBy ?? ''}`;
    };
    expect(said(pair(high, low))).toBe('b by address');
    expect(said(pair(high, {}))).toBe('a by name');
    expect(said(pair({}, {}))).toBe('a by name');
    expect(said(pair({ ...low, bridgePriority: 8192 }, { bridgePriority: 4096 }))).toBe('b by priority');
  });

  test('converters and radio bridges do not: the real bridges at both ends of them are judged', () => {
    const network = switched(
      {
        a: { bridgePriority: 4096, ports: [trunk('1', [20]), trunk('2', [20])] },
        mc1: { role: 'MC', ports: [{ name: 'c' }, { name: 'f' }] },
        mc2: { role: 'MC', ports: [{ name: 'c' }, { name: 'f' }] },
        b: { ports: [trunk('1', [20]), { ...trunk('2', [20]), speedBps: 1e10 }] },
      },
      [
        ['a:1', 'mc1:c'],
        ['mc1:f', 'mc2:f'],
        ['mc2:c', 'b:1'],
        ['a:2', 'b:2'],
      ],
    );
    const tree = treeFrom(network, 'b');
    expect([tree?.root.name, tree?.rootBy]).toEqual(['a', 'priority']);
    expect(blocked(tree)).toEqual(['b 1']);
    const alone = switched({ wb: { role: 'WB', ports: [{ name: 'e' }, { name: 'r' }] } }, []);
    expect(treeFrom(alone, 'wb')).toBeNull();
  });

  test('of a cable from a switch to itself the backup port blocks', () => {
    const network = switched({ a: { ports: [trunk('1', [20]), trunk('2', [20])] } }, [['a:1', 'a:2']]);
    expect(blocked(treeFrom(network, 'a'))).toEqual(['a 2']);
  });

  test('a switch without spanning tree blocks nothing: its neighbours see each other through it', () => {
    const off = { spanningTree: { mode: 'off' } };
    const network = switched(
      {
        a: { bridgePriority: 4096, ports: [trunk('1', [20]), trunk('2', [20])] },
        b: { ...off, ports: [trunk('1', [20]), trunk('2', [20])] },
        c: { ports: [trunk('1', [20]), trunk('2', [20])] },
      },
      [
        ['a:1', 'b:1'],
        ['b:2', 'c:1'],
        ['c:2', 'a:2'],
      ],
    );
    expect(blocked(treeFrom(network, 'b'))).toEqual(['c 2']);
  });
});

describe('kinds of tree', () => {
  /** Two switches over two links, of which only the second carries VLAN 40. */
  const two = (a: object, b: object): Network =>
    switched(
      {
        a: { bridgePriority: 4096, ...a, ports: [trunk('1', [20]), trunk('2', [20, 40])] },
        b: { ...b, ports: [trunk('1', [20]), trunk('2', [20, 40])] },
      },
      [
        ['a:1', 'b:1'],
        ['a:2', 'b:2'],
      ],
    );
  const mode = (text: string, parts: object[] = []): object => ({
    spanningTree: { mode: text, ...(text === 'instances' ? { region: 'quay' } : {}), parts },
  });

  test('one tree blocks a link also for a VLAN that nothing else carries; trees per VLAN do not', () => {
    expect(blocked(treeFrom(two(mode('one'), mode('one')), 'a', 40))).toEqual(['b 2']);
    expect(blocked(treeFrom(two(mode('per VLAN'), {}), 'a', 40))).toEqual([]);
    expect(blocked(treeFrom(two({}, {}), 'a', 20))).toEqual(['b 2']);
  });

  test('an instance has a root of its own, for the VLANs mapped to it', () => {
    const parts = (priority: number): object => mode('instances', [{ instance: 1, vids: [40], priority }]);
    const network = two(parts(32768), parts(4096));
    expect([treeFrom(network, 'a', 20)?.root.name, treeFrom(network, 'a', 40)?.root.name]).toEqual([
      'a',
      'b',
    ]);
    expect(blocked(treeFrom(network, 'a', 40))).toEqual(['a 2']);
  });

  test('switches set in different ways agree on the common tree alone', () => {
    const mixed = treeFrom(two(mode('one'), mode('per VLAN')), 'a', 40);
    expect([mixed?.of, blocked(mixed)]).toEqual([{ form: 'all' }, ['b 2']]);
    const regions = two(
      mode('instances', [{ instance: 1, vids: [40] }]),
      mode('instances', [{ instance: 2, vids: [40] }]),
    );
    expect(treeFrom(regions, 'a', 40)?.of).toEqual({ form: 'all' });
  });

  test('per VLAN a priority of its own moves the root of that VLAN', () => {
    const network = two({}, mode('per VLAN', [{ vids: [20], priority: 0 }]));
    expect([treeFrom(network, 'a', 20)?.root.name, treeFrom(network, 'a', 40)?.root.name]).toEqual([
      'b',
      'a',
    ]);
  });
});

/** What a bridge tells on a LAN (IEEE 802.1D-2004 clause 17.5): root, cost, sender, port of the sender. */
type Vector = [root: string, cost: number, sender: string, port: number];
const compare = (a: Vector, b: Vector): number => {
  for (let at = 0; at < 4; at++) {
    const [x, y] = [a[at] ?? 0, b[at] ?? 0];
    if (x !== y) return x < y ? -1 : 1;
  }
  return 0;
};
interface Plug {
  bridge: number;
  port: number;
  lan: number;
  cost: number;
}

/** The protocol itself, as messages: every bridge tells what it holds best until nobody learns more. */
function simulated(ids: string[], plugs: Plug[]): Set<string> {
  const heard = new Map<number, Vector>();
  let tells: Vector[] = ids.map((id) => [id, 0, id, 0]);
  const own = (bridge: number): Plug[] => plugs.filter((one) => one.bridge === bridge);
  for (let round = 0; round < 3 * ids.length; round++) {
    heard.clear();
    for (const plug of plugs) {
      const [root, cost, sender] = tells[plug.bridge] ?? ['', 0, '', 0];
      const vector: Vector = [root, cost, sender, plug.port];
      const best = heard.get(plug.lan);
      if (best === undefined || compare(vector, best) < 0) heard.set(plug.lan, vector);
    }
    tells = ids.map((id, bridge) => {
      let best: Vector = [id, 0, id, 0];
      for (const plug of own(bridge)) {
        const vector = heard.get(plug.lan);
        if (vector === undefined || vector[2] === id) continue;
        const through: Vector = [vector[0], vector[1] + plug.cost, id, 0];
        if (through[0] < best[0] || (through[0] === best[0] && through[1] < best[1])) best = through;
      }
      return best;
    });
  }
  const blocking = new Set<string>();
  ids.forEach((id, bridge) => {
    const ways = own(bridge).filter((plug) => heard.get(plug.lan)?.[2] !== id);
    const rootPort = ways
      .filter((plug) => heard.get(plug.lan)?.[0] === tells[bridge]?.[0] && tells[bridge]?.[0] !== id)
      .sort((x, y) => {
        const [a, b] = [heard.get(x.lan), heard.get(y.lan)];
        if (a === undefined || b === undefined) return 0;
        const total = a[1] + x.cost - (b[1] + y.cost);
        return total || compare([a[0], 0, a[2], a[3]], [b[0], 0, b[2], b[3]]) || x.port - y.port;
      })[0];
    for (const plug of own(bridge)) {
      const vector = heard.get(plug.lan);
      const designated = vector?.[2] === id && vector[3] === plug.port;
      if (!designated && plug !== rootPort) blocking.add(`s${bridge} ${plug.port}`);
    }
  });
  return blocking;
}

test('property: the ports that block are those of the protocol, whatever is cabled, through hubs as well', () => {
  const bridges = 5;
  const hubs = 2;
  const end = fc.nat({ max: bridges + hubs - 1 });
  fc.assert(
    fc.property(
      fc.array(fc.record({ a: end, b: end, speed: fc.constantFrom(1e8, 1e9, 1e10) }), {
        minLength: 3,
        maxLength: 10,
      }),
      fc.array(fc.constantFrom(4096, 32768), { minLength: bridges, maxLength: bridges }),
      fc.uniqueArray(fc.nat({ max: 255 }), { minLength: bridges, maxLength: bridges }),
      (links, priorities, addresses) => {
        // A hub cabled to itself, or two hubs cabled twice, is a loop that no bridge can open: left out.
        const passing = new Set<string>();
        const cabled = links.filter(({ a, b }) => {
          if (a < bridges || b < bridges) return true;
          const fresh = a !== b && !passing.has('hubs');
          passing.add('hubs');
          return fresh;
        });
        const ports = Array.from({ length: bridges + hubs }, (): object[] => []);
        const lan = Array.from({ length: hubs }, (_, at) => at);
        cabled.forEach(({ a, b }) => {
          if (a >= bridges && b >= bridges) lan.fill(0);
        });
        const plugs: Plug[] = [];
        const wires = cabled.map(({ a, b, speed }, at): [string, string] => {
          const hub = [a, b].find((one) => one >= bridges);
          const segment = hub === undefined ? 10 + at : (lan[hub - bridges] ?? 0);
          const [x, y] = [a, b].map((one) => {
            const number = (ports[one]?.length ?? 0) + 1;
            ports[one]?.push({
              ...(one < bridges ? trunk(String(number), [20]) : { name: String(number) }),
              speedBps: speed,
            });
            if (one < bridges) plugs.push({ bridge: one, port: number, lan: segment, cost: 2e13 / speed });
            return `${one < bridges ? 's' : 'h'}${one}:${number}`;
          });
          return [x ?? '', y ?? ''];
        });
        const bytes = addresses.map((byte) => byte.toString(16).padStart(2, '0'));
        const network = switched(
          Object.fromEntries(
            ports.map((list, at) => [
              `${at < bridges ? 's' : 'h'}${at}`,
              at < bridges
                ? {
                    bridgePriority: priorities[at],
                    bridgeAddress: `02:00:5e:00:53:${bytes[at]}`,
                    ports: [...list, access('x', 20)],
                  }
                : { role: 'MC', ports: [...list, { name: 'x' }] },
            ]),
          ) as Devices,
          wires,
        );
        const ids = priorities.map((priority, at) => `${String(priority).padStart(5, '0')}.${bytes[at]}`);
        const expected = simulated(ids, plugs);
        const found = new Set<string>();
        for (let at = 0; at < bridges; at++)
          for (const title of blocked(treeFrom(network, `s${at}`))) found.add(title);
        expect([...found].sort()).toEqual([...expected].sort());
      },
    ),
    { numRuns: runs(80) },
  );
});

describe('instances and VLANs with a priority of their own, as text', () => {
  test('are read as they are written', () => {
    const text = '1: 10,20 at 4096; 2: 30-34';
    const read = readTreeParts('instances', text);
    expect(read).toEqual({
      ok: true,
      parts: [
        { instance: 1, vids: [10, 20], priority: 4096 },
        { instance: 2, vids: [30, 31, 32, 33, 34], priority: null },
      ],
    });
    expect(treePartsText({ mode: 'instances', region: null, parts: read.ok ? read.parts : [] })).toBe(text);
    expect(readTreeParts('per VLAN', '20 at 0')).toEqual({
      ok: true,
      parts: [{ instance: null, vids: [20], priority: 0 }],
    });
  });

  test('what is none is named', () => {
    expect(readTreeParts('instances', 'one: 10')).toEqual({
      ok: false,
      why: '“one: 10” is not like 1: 10,20 at 4096',
    });
    expect(readTreeParts('per VLAN', '5000 at 0')).toEqual({
      ok: false,
      why: '5000 is not a VLAN number: they go from 1 to 4094',
    });
    const twice = spanningTreeSchema.safeParse({
      mode: 'instances',
      parts: [
        { instance: 1, vids: [10] },
        { instance: 1, vids: [10] },
      ],
    });
    expect(twice.error?.issues.map((issue) => issue.message)).toEqual([
      'has instance 1 twice',
      'has VLAN 10 in two parts',
    ]);
    expect(macOf('0200.5E00.5301')).toBe('02:00:5e:00:53:01');
    expect(macOf('02:00:5e:00:53')).toBeNull();
  });
});
