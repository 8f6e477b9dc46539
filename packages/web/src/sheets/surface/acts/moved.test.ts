import { describe, expect, test } from '@jest/globals';
import { blankSheet, newId } from '@visograph/core/model';
import { planOf, sceneOf } from '@visograph/core/sheets';
import { ringNetwork } from '../../../../../core/src/testing/testCampus.ts';
import { movedBy } from './moved.ts';
import { nodesOf } from '../sheetNodes.tsx';

const plan = planOf(ringNetwork(6), { ...blankSheet, id: newId(), name: 'Ring' }, { today: '2026-11-24' });
const scene = sceneOf(plan, { measure: (text, _face, size) => text.length * size * 0.6 });
const nodes = nodesOf(scene, true, new Set());
const plateAt = (at: number): (typeof scene.plates)[number] => {
  const plate = scene.plates[at];
  if (plate === undefined) throw new Error('no such plate');
  return plate;
};
const dragged = (id: string, by: number): typeof nodes =>
  nodes
    .filter((node) => node.id === id)
    .map((node) => ({ ...node, position: { x: node.position.x + by, y: node.position.y } }));

describe('what a drag moves', () => {
  test('one plate of a group carries the others by as much; the rest stays', () => {
    const members = [plateAt(0), plateAt(2), plateAt(3)];
    const groups = [{ members: members.flatMap((plate) => plate.subjects) }];
    const { plates } = movedBy(scene, dragged(plateAt(2).id, 40), groups);
    expect([...plates.keys()].sort()).toEqual(members.map((plate) => plate.id).sort());
    for (const plate of members)
      expect(plates.get(plate.id)).toEqual({ x: plate.box.x + 40, y: plate.box.y });
  });

  test('a locked member stays where it is', () => {
    const still = { ...plateAt(0), locked: true };
    const held = { ...scene, plates: [still, ...scene.plates.slice(1)] };
    const groups = [{ members: [...still.subjects, ...plateAt(1).subjects] }];
    expect([...movedBy(held, dragged(plateAt(1).id, 24), groups).plates.keys()]).toEqual([plateAt(1).id]);
  });

  test('a plate outside every group moves alone; a container takes what is in it', () => {
    const groups = [{ members: plateAt(0).subjects }];
    expect([...movedBy(scene, dragged(plateAt(4).id, 8), groups).plates.keys()]).toEqual([plateAt(4).id]);
    const container = nodes.find((node) => node.type === 'container');
    expect(movedBy(scene, dragged(container?.id ?? '', 8), []).plates.size).toBe(6);
  });
});
