import { expect, test } from '@jest/globals';
import { switched, trunk } from '../../testing/testSwitching.ts';
import { foundIn } from '../../testing/testFindings.ts';

const told = (...network: Parameters<typeof switched>): string[] =>
  foundIn(switched(...network))
    .filter(({ rule }) => /tree|loop|itself|edge-port/.test(rule))
    .map(({ rule, severity, message }) => `${rule} ${severity}: ${message}`);

const two = (vids: number[] = [20]) => [trunk('1', [20]), trunk('2', vids)];
const mode = (text: string, parts: object[] = []) => ({ spanningTree: { mode: text, parts } });

test('a cable from a switch to itself, with and without a spanning tree', () => {
  expect(told({ a: { ports: two() } }, [['a:1', 'a:2']])).toEqual([
    'switch-to-itself warn: a 1 is joined to a 2 by T-00001, a port of the same switch: a 2 blocks as the backup port, and the link carries nothing. Take the cable out, or plug it into the switch that was meant.',
  ]);
  expect(told({ a: { ...mode('off'), ports: two() } }, [['a:1', 'a:2']])[0]).toContain(
    'switch-to-itself bad: a 1 is joined to a 2 by T-00001, a port of the same switch: nothing blocks it',
  );
});

test('neighbours of different kinds, and edge ports with a switch behind them', () => {
  const network = told(
    {
      a: { ...mode('one'), ports: [{ ...trunk('1', [20]), spanningTree: { edge: true } as never }] },
      b: { ...mode('per VLAN'), ports: [trunk('1', [20])] },
    },
    [['a:1', 'b:1']],
  );
  expect(network).toEqual([
    'edge-port-to-switch warn: a 1 is an edge port, but the switch b is behind it at b 1: it forwards before the tree has settled. Take the edge setting off.',
    'spanning-tree-mixed warn: a keeps one tree for all VLANs, b keeps a tree for each VLAN: between a 1 and b 1 they agree on the common tree alone. Set both alike, instances with the same region and VLANs.',
  ]);
});

test('a loop of switches with the tree off is told once, a ring with one that keeps it is not', () => {
  const ring = (c: object): string[] =>
    told(
      { a: { ...mode('off'), ports: two() }, b: { ...mode('off'), ports: two() }, c: { ...c, ports: two() } },
      [
        ['a:1', 'b:2'],
        ['b:1', 'c:2'],
        ['c:1', 'a:2'],
      ],
    );
  expect(ring(mode('off'))).toHaveLength(1);
  expect(ring(mode('off'))[0]).toContain('loop-unbroken bad: b 1 – c 2 by T-00002 closes a loop');
  expect(ring({})).toEqual([]);
});

test('a VLAN whose only link the common tree blocks', () => {
  const devices = (settings: object) => ({
    a: { bridgePriority: 4096, ...settings, ports: two([20, 40]) },
    b: { ...settings, ports: two([20, 40]) },
  });
  const links: [string, string][] = [
    ['a:1', 'b:1'],
    ['a:2', 'b:2'],
  ];
  expect(told(devices(mode('one')), links)).toEqual([
    'vlan-cut-by-tree bad: VLAN 40 Cameras is cut: the tree for all VLANs blocks b 2, and no link that forwards carries it. Carry it over the forwarding links too, or map it to an instance of its own.',
  ]);
  expect(told(devices(mode('per VLAN')), links)).toEqual([]);
});
