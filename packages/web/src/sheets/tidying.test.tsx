import { beforeAll, describe, expect, test } from '@jest/globals';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { update } from '@visograph/core/change';
import type { Sheet } from '@visograph/core/model';
import { addDevice } from '@visograph/core/racks';
import { placeOnSheet, sceneOf, setItems, setSheet, type Plate, type Scene } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import type { ReactNode } from 'react';
import { DialogTrigger, Button as AriaButton } from 'react-aria-components';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { useProject } from '../data/project.tsx';
import { drawnHere } from '../testing/drawnHere.ts';
import { press, pressNamed, rowNamed, show, withSizes } from '../testing/testScreen.tsx';
import { Floating } from '../kit/controls.tsx';
import { hasMoved } from './surface/acts/useMovement.ts';
import { changeTold, ProposedTools } from './tools/ProposedTools.tsx';
import { TidyPanel } from './tools/TidyPanel.tsx';
import { useProposal } from './useProposal.ts';
import { heldFrom, planFor, useScene } from './useScene.ts';
import { useTidying } from './useTidying.ts';

beforeAll(() => {
  withSizes();
  drawnHere();
});
const demo = demoNetwork();
const room = rowNamed(demo, 'sheet', 'Data room · cabling');
const quay = rowNamed(demo, 'sheet', 'Kelder Quay · cabling');

let project: ReturnType<typeof useProject>;
let seen: Scene | null;
let isHeld: boolean;
const at = (name: string): { x: number; y: number } => {
  const box = seen?.plates.find((plate) => plate.name === name)?.box;
  if (box === undefined) throw new Error(`no plate ${name}`);
  return { x: box.x, y: box.y };
};
const standing = (): string => JSON.stringify(seen?.plates.map(({ name, box }) => [name, box.x, box.y]));

/** A sheet as its view draws it, with what tidies it; what is proposed is drawn in its place. */
function Bench({ of = room, chosen = [] }: { of?: Sheet; chosen?: readonly string[] }): ReactNode {
  project = useProject();
  const { view, commit } = project;
  const proposing = useProposal(view.network);
  const network = proposing.network ?? view.network;
  const sheet = network.get('sheet', of.id) ?? of;
  const plan = planFor(network, sheet);
  const drawn = useScene(plan, sheet, proposing.network === null);
  seen = drawn.scene;
  isHeld = drawn.held;
  return drawn.scene === null ? null : (
    <Tidied
      {...{ sheet, plan, drawn, proposing, commit }}
      scene={drawn.scene}
      plates={drawn.scene.plates.filter(({ name }) => chosen.includes(name))}
    />
  );
}
function Tidied({
  sheet,
  plan,
  scene,
  drawn,
  plates,
  proposing: { proposal, propose },
  commit,
}: {
  sheet: Sheet;
  plan: ReturnType<typeof planFor>;
  scene: Scene;
  drawn: ReturnType<typeof useScene>;
  plates: readonly Plate[];
  proposing: ReturnType<typeof useProposal>;
  commit: ReturnType<typeof useProject>['commit'];
}): ReactNode {
  const tidying = useTidying(sheet, plan, scene, propose, drawn.afresh);
  return (
    <>
      <p>{drawn.pending ? 'drawing' : 'drawn'}</p>
      <DialogTrigger>
        <AriaButton>Open Tidy</AriaButton>
        <Floating>
          <TidyPanel
            {...{ sheet, plan, scene, plates, tidying }}
            arranged={plan.arranged}
            held={drawn.held}
          />
        </Floating>
      </DialogTrigger>
      {proposal !== null && (
        <ProposedTools
          proposal={proposal}
          scene={scene}
          pending={drawn.pending}
          onTake={() => {
            commit(proposal.set);
            propose(null);
          }}
          onBack={() => propose(null)}
        />
      )}
    </>
  );
}
async function open(props: { of?: Sheet; chosen?: readonly string[] } = {}) {
  const held = await show(<Bench {...props} />, { network: demo, at: `sheets/${room.id}` });
  await screen.findByText('drawn', {}, { timeout: 20_000 });
  return held;
}
const drawn = () => waitFor(() => expect(screen.queryByText('drawn')).not.toBeNull(), { timeout: 20_000 });
async function tidy(what: string | RegExp): Promise<void> {
  pressNamed('Open Tidy');
  pressNamed(what, await screen.findByRole('dialog', { name: 'Tidy' }));
}
/** A switch more in the data room, cabled to nothing. */
async function more(name: string): Promise<void> {
  const set = addDevice(project.view.network, {
    ...{ name, rackId: null, unit: null, placeId: room.scopeId },
    modelId: rowNamed(demo, 'device', 'kq-acc-4').modelId ?? '',
  });
  if (set === null) throw new Error('no model');
  await act(async () => {
    project.commit(set);
    await Promise.resolve();
  });
  await waitFor(() => expect(at(name)).toBeTruthy(), { timeout: 20_000 });
  await drawn();
}

describe('a drawing that nobody arranged', () => {
  test('stands while a switch is added; laid out afresh it stands otherwise, and is not held any more', async () => {
    await open();
    const before = at('kq-core-1');
    expect(isHeld).toBe(false);
    await more('kq-new-1');
    expect(at('kq-core-1')).toEqual(before);
    expect(isHeld).toBe(true);
    const stood = standing();
    await tidy('The whole sheet');
    await waitFor(() => expect(isHeld).toBe(false), { timeout: 20_000 });
    await drawn();
    expect(standing()).not.toBe(stood);
  });

  test('kept as it stands it is one step, for all plates', async () => {
    const held = await open();
    await more('kq-new-1');
    const stood = standing();
    await tidy('Keep it as it stands');
    await waitFor(() => expect(held.steps()).toContain('Kept sheet Data room · cabling as it stands'));
    await drawn();
    expect(standing()).toBe(stood);
    expect(isHeld).toBe(false);
    const kept = held.network().find('sheetItemsBySheet', room.id);
    expect(kept.filter(({ x }) => x !== null)).toHaveLength(seen?.plates.length ?? 0);
  });

  test('is not held by a change that it does not show', async () => {
    await open();
    const serial = update('device', rowNamed(demo, 'device', 'kq-acc-1'), { serial: 'ZX-1' });
    if (serial === null) throw new Error('no change');
    await act(async () => {
      project.commit({ changes: [serial], sentence: 'A serial' });
      await Promise.resolve();
    });
    await drawn();
    expect(isHeld).toBe(false);
  });
});

describe('where plates are held to', () => {
  const plan = planFor(demo, room);
  const scene = sceneOf(plan, { measure: measureText, quick: true });
  const before = { plan, sheet: room, scene };

  test('to where they stood, on the same sheet, unless it was arranged or is laid out for another shape', () => {
    expect(heldFrom(before, plan, room).size).toBe(scene.plates.length);
    expect(heldFrom(null, plan, room).size).toBe(0);
    expect(heldFrom(before, planFor(demo, quay), quay).size).toBe(0);
    expect(heldFrom(before, { ...plan, arranged: true }, room).size).toBe(0);
    expect(heldFrom({ ...before, plan: { ...plan, arranged: true } }, plan, room).size).toBe(0);
    expect(heldFrom(before, { ...plan, aspect: 1.41 }, room).size).toBe(0);
  });

  test('where the sheet is told to show more of the same plates, but not where it reads other plates', () => {
    const shown = { ...room, show: room.show.slice(1) };
    expect(heldFrom(before, plan, shown).size).toBe(scene.plates.length);
    const fewer = { ...plan, graph: { ...plan.graph, nodes: plan.graph.nodes.slice(1) } };
    expect(heldFrom(before, fewer, room).size).toBe(scene.plates.length);
    expect(heldFrom(before, fewer, shown).size).toBe(0);
  });
});

describe('an arrangement that is proposed', () => {
  test('of some plates: told in figures, given up by Escape, taken over as one step', async () => {
    const held = await open({ chosen: ['kq-srv-1', 'kq-srv-2', 'kq-srv-3', 'kq-st-1', 'kq-acc-1'] });
    const stood = standing();
    await tidy('The 5 chosen plates');
    const bar = await screen.findByRole('group', { name: 'Proposed arrangement' }, { timeout: 20_000 });
    await waitFor(() => expect(bar.textContent).toMatch(/5 plates laid out afresh: .*move/), {
      timeout: 20_000,
    });
    expect(bar.textContent).toMatch(/crossings \d+ → \d+ · in a window \d+ % → \d+ %/);
    expect(held.steps()).toEqual([]);
    fireEvent.keyDown(document.body, { key: 'Escape' });
    await waitFor(() => expect(screen.queryByRole('group', { name: 'Proposed arrangement' })).toBeNull());
    await drawn();
    expect(standing()).toBe(stood);

    await tidy('The 5 chosen plates');
    press(await screen.findByRole('button', { name: /^Take over/ }, { timeout: 20_000 }));
    await waitFor(() =>
      expect(held.steps()).toEqual(['5 plates laid out afresh on sheet Data room · cabling']),
    );
  });

  test('like another sheet: only sheets with counterparts are offered', async () => {
    await open();
    pressNamed('Open Tidy');
    const panel = await screen.findByRole('dialog', { name: 'Tidy' });
    expect(within(panel).getByText(/^Kelder Quay · cabling · 26 of 26 alike$/)).toBeTruthy();
    expect(within(panel).queryByRole('button', { name: /^Like Data room/ })).toBeNull();
    expect(within(panel).queryByRole('button', { name: /switching/ })).toBeNull();
    pressNamed('Like Kelder Quay · cabling', panel);
    const bar = await screen.findByRole('group', { name: 'Proposed arrangement' }, { timeout: 30_000 });
    expect(bar.textContent).toContain('26 plates arranged like Kelder Quay · cabling');
  }, 60_000);

  test('of a locked plate alone: it is told to unlock it first', async () => {
    await open({ chosen: ['kq-srv-1'] });
    const sheet = project.view.network.get('sheet', room.id) ?? room;
    await act(async () => {
      const id = rowNamed(demo, 'device', 'kq-srv-1').id;
      project.commit(
        setItems(project.view.network, sheet, new Map([[id, { locked: true }]]), () => 'Locked it'),
      );
      await Promise.resolve();
    });
    await waitFor(() => expect(seen?.plates.find(({ name }) => name === 'kq-srv-1')?.locked).toBe(true), {
      timeout: 20_000,
    });
    await tidy('kq-srv-1');
    await waitFor(() => expect(project.view.notice?.text).toMatch(/locked on this sheet/));
    expect(screen.queryByRole('group', { name: 'Proposed arrangement' })).toBeNull();
  });

  test('of all: hand-made positions are given up, as one step', async () => {
    const held = await open();
    const sheet = project.view.network.get('sheet', room.id) ?? room;
    const fresh = standing();
    const places = new Map(
      (seen?.plates ?? []).map(({ subjects, box }) => [subjects[0] ?? '', { x: box.x * 2, y: box.y }]),
    );
    await act(async () => {
      project.commit(placeOnSheet(project.view.network, sheet, places));
      await Promise.resolve();
    });
    await drawn();
    await waitFor(() => expect(standing()).not.toBe(fresh), { timeout: 20_000 });
    await tidy('The whole sheet');
    press(await screen.findByRole('button', { name: /^Take over/ }, { timeout: 20_000 }));
    await waitFor(() => expect(held.steps()).toHaveLength(2));
    await drawn();
    await waitFor(() => expect(standing()).toBe(fresh), { timeout: 20_000 });
  });
});

describe('what a change of the drawing is told as', () => {
  const scene = sceneOf(planFor(demo, room), { measure: measureText, quick: true });
  const moved = (count: number): Scene => ({
    ...scene,
    plates: scene.plates.map((plate, at) =>
      at < count ? { ...plate, box: { ...plate.box, x: plate.box.x + 8 } } : plate,
    ),
  });

  test('nothing, one or many plates that move', () => {
    expect(changeTold(scene, scene)).toBe('nothing moves');
    expect(changeTold(scene, moved(1))).toMatch(/^1 plate moves · crossings /);
    expect(changeTold(scene, moved(3))).toMatch(new RegExp(`^3 of ${scene.plates.length} plates move · `));
  });

  test('movement is drawn only where a plate that was there stands elsewhere', () => {
    expect(hasMoved(scene, scene)).toBe(false);
    expect(hasMoved(scene, moved(1))).toBe(true);
    expect(hasMoved({ ...scene, plates: scene.plates.slice(3) }, scene)).toBe(false);
    expect(hasMoved(scene, { ...scene, plates: scene.plates.slice(3) })).toBe(false);
  });

  test('a sheet laid out for its paper is drawn in another shape', () => {
    const set = setSheet(room, { page: { ...room.page, composed: true, landscape: false } }, 'the paper');
    const [change] = set.changes;
    expect(change).toMatchObject({ op: 'update', kind: 'sheet' });
    const plan = planFor(demo, { ...room, page: { ...room.page, composed: true, landscape: false } });
    const upright = sceneOf(plan, { measure: measureText, quick: true }).box;
    expect(upright.width / upright.height).toBeLessThan(0.8 * (scene.box.width / scene.box.height));
  });
});
