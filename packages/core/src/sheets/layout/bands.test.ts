import { describe, expect, test } from '@jest/globals';
import { blankSheet } from '../../model/kinds/drawings/sheet.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { campus, ringNetwork } from '../../testing/testCampus.ts';
import { chain, leafAndSpine, mesh, star, tree } from '../../testing/testGallery.ts';
import { networkOf } from '../../testing/testNetwork.ts';
import { planOf } from '../projection/plan.ts';
import { bandsOf } from './bands.ts';

/** The bands of a network by the names of its devices. */
function bands(network: Network): (name: string) => number {
  const { graph } = planOf(network, { ...blankSheet, id: newId(), name: 'All' }, { today: '2026-11-29' });
  const found = bandsOf(graph);
  const byName = new Map(graph.nodes.map(({ id, name }) => [name, found.get(id)]));
  return (name) => byName.get(name) ?? NaN;
}

describe('bands of a drawing', () => {
  test('router, firewall, core, distribution, access, end devices, each below the other', () => {
    const of = bands(campus(30));
    const order = ['cx-edge-1', 'cx-fw-1', 'cx-core-1', 'cx-dist-1', 'cx-acc-1-1'].map(of);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(new Set(order).size).toBe(5);
    expect(of('cx-core-2')).toBe(of('cx-core-1'));
    // Servers hang on the core, and yet stand in a band of their own below the access switches.
    expect(of('cx-srv-1')).toBeGreaterThan(of('cx-acc-1-1'));
  });

  test('a ring of access switches has no core, nor has a chain or a full mesh', () => {
    for (const network of [ringNetwork(8), chain(6), mesh(6)]) {
      const of = bands(network);
      const all = [...network.all('device')].map(({ name }) => of(name));
      expect(new Set(all).size).toBe(1);
    }
  });

  test('without a router the core is the middle: the spines, the hub of a star, the root of a tree', () => {
    const spine = bands(leafAndSpine(4, 16));
    expect(spine('gx-spine-1')).toBeLessThan(spine('gx-leaf-1'));
    expect(spine('gx-spine-4')).toBe(spine('gx-spine-1'));
    const hub = bands(star(12, 'SW'));
    expect(hub('gx-hub')).toBeLessThan(hub('gx-sw-1'));
    const root = bands(tree(40));
    expect(root('gx-sw-1')).toBeLessThan(root('gx-sw-2'));
    expect(root('gx-sw-2')).toBeLessThan(root('gx-sw-5'));
    expect(root('gx-sw-5')).toBeLessThan(root('gx-sw-14'));
  });

  test('however deep a tree is, every switch stands below the one it hangs on', () => {
    const of = bands(tree(121));
    for (let at = 2; at <= 121; at++)
      expect(of(`gx-sw-${at}`)).toBeGreaterThan(of(`gx-sw-${Math.floor((at - 2) / 3) + 1}`));
  });

  test('in the demo: panels with the access switches, zone boxes below, workstations behind their phones', () => {
    const of = bands(demoNetwork());
    expect(of('KQ-A1-PP1')).toBe(4);
    expect(of('kq-core-1')).toBe(3);
    expect(of('kq-fw-1')).toBeLessThan(of('kq-core-1'));
    expect(of('kq-desk-1')).toBeGreaterThan(of('kq-ph-1'));
    expect(of('KQ-Z3')).toBeGreaterThan(of('KQ-W1-PP2'));
    expect(of('kq-ap-1')).toBeGreaterThan(of('KQ-Z1'));
  });

  test('links for management do not tell who stands above whom', () => {
    const network = networkOf({
      places: [{ path: 'Room' }],
      devices: [
        { name: 'rt', role: 'RT', place: 'Room', ports: [{ name: '1' }, { name: 'm', role: 'management' }] },
        { name: 'core', role: 'SW', place: 'Room', ports: [{ name: '1' }, { name: '2' }] },
        { name: 'mgmt', role: 'SW', place: 'Room', ports: [{ name: '1' }, { name: '2' }] },
      ],
      cables: [
        { label: 'C-1', a: 'rt:1', b: 'core:1' },
        { label: 'C-2', a: 'rt:m', b: 'mgmt:1' },
        { label: 'C-3', a: 'core:2', b: 'mgmt:2' },
      ],
    });
    const of = bands(network);
    expect(of('core')).toBe(3);
    expect(of('mgmt')).toBe(4);
  });

  test('what is linked to nothing stands below all that is; where nothing is linked all is as ever', () => {
    const { graph } = planOf(
      campus(24),
      { ...blankSheet, id: newId(), name: 'All' },
      { today: '2026-11-29' },
    );
    const server = graph.nodes.find(({ name }) => name === 'cx-srv-1')?.id ?? '';
    const links = graph.links.filter(({ a, b }) => a !== server && b !== server);
    const found = bandsOf({ ...graph, links });
    for (const [id, band] of found) if (id !== server) expect(band).toBeLessThan(found.get(server) ?? NaN);
    const alone = bandsOf({ ...graph, links: [] });
    expect(alone.get(server)).toBe(5.5);
  });
});
