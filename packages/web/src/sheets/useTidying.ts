import { update } from '@visograph/core/change';
import type { Sheet } from '@visograph/core/model';
import {
  placeOnSheet,
  tidySheet,
  type DrawingPlan,
  type Plate,
  type Point,
  type Scene,
} from '@visograph/core/sheets';
import { useMemo } from 'react';
import { useProject } from '../data/project.tsx';
import { askPlaces, askScene } from './askPlaces.ts';
import type { Proposal } from './useProposal.ts';
import { planFor } from './useScene.ts';

/** Ways to have plates laid out; each but the last proposes, to be looked at first. */
export interface Tidying {
  all: () => void;
  some: (plates: readonly Plate[], what?: string) => void;
  like: (other: Sheet) => void;
  /** Keeps all plates where they stand now. */
  keep: () => void;
}

/** What a plate stands for on its sheet: its position is kept with that. */
const bySubject = (scene: Scene, at: ReadonlyMap<string, Point>): Map<string, Point> =>
  new Map(
    scene.plates.flatMap((plate) => {
      const spot = at.get(plate.id);
      const [subject] = plate.subjects;
      return spot === undefined || subject === undefined ? [] : [[subject, spot] as const];
    }),
  );

/** @param afresh draws a sheet that nobody arranged without regard to where its plates stood */
export function useTidying(
  sheet: Sheet,
  plan: DrawingPlan,
  scene: Scene,
  propose: (proposal: Proposal) => void,
  afresh: () => void,
): Tidying {
  const { view, commit, sync } = useProject();
  const { network } = view;
  return useMemo(() => {
    const standing = new Map<string, Point>(scene.plates.map(({ id, box: { x, y } }) => [id, { x, y }]));
    const tell = (error: unknown): void =>
      sync.announce({
        tone: 'bad',
        text: `It could not be laid out: ${error instanceof Error ? error.message : String(error)}`,
      });
    /** Positions of all plates, some of them new; bends of links at these are given up. */
    const moved = (at: ReadonlyMap<string, Point>, told: string): void => {
      const all = plan.arranged ? at : new Map([...standing, ...at]);
      const { changes } = placeOnSheet(network, sheet, bySubject(scene, all));
      const led = new Set(
        scene.links
          .filter(({ a, b }) => at.has(a.plateId) || at.has(b.plateId))
          .flatMap(({ line }) => line.id),
      );
      const bends = network
        .find('sheetLinksBySheet', sheet.id)
        .filter((link) => link.bends.length > 0 && led.has(link.subjectId))
        .flatMap((link) => update('sheetLink', link, { bends: [] }) ?? []);
      const stays = [...at].every(([id, { x, y }]) => {
        const stood = standing.get(id);
        return stood?.x === x && stood.y === y;
      });
      if (stays && bends.length === 0) return sync.announce({ tone: 'ok', text: `${told}: nothing moves.` });
      propose({
        set: { changes: [...changes, ...bends], sentence: `${told} on sheet ${sheet.name}` },
        told,
        before: scene,
      });
    };
    return {
      all: () => {
        if (!plan.arranged && ![...plan.links.values()].some((link) => link.bends.length > 0))
          return afresh();
        propose({ set: tidySheet(network, sheet), told: 'All laid out afresh', before: scene });
      },
      some: (plates, what) => {
        const free = plates.filter(({ locked }) => !locked);
        if (free.length === 0)
          return sync.announce({
            tone: 'bad',
            text: 'All of these are locked on this sheet. Unlock them first.',
          });
        const told = what ?? (free.length === 1 ? (free[0]?.name ?? '') : `${free.length} plates`);
        askPlaces({ plan, plates: scene.plates, tidy: new Set(free.map(({ id }) => id)) }).then(
          ({ at }) => moved(at, `${told} laid out afresh`),
          tell,
        );
      },
      like: (other) => {
        const from = planFor(network, other);
        askScene(from)
          .then(({ plates }) => askPlaces({ plan, plates, like: from.graph }))
          .then(({ at, matched }) => {
            const alone = plan.graph.nodes.length - matched;
            const beside = alone === 0 ? '' : `, ${alone} without a counterpart beside what they belong to`;
            moved(at, `${matched} plates arranged like ${other.name}${beside}`);
          })
          .catch(tell);
      },
      keep: () => {
        const { changes } = placeOnSheet(network, sheet, bySubject(scene, standing));
        commit({ changes, sentence: `Kept sheet ${sheet.name} as it stands` });
      },
    };
  }, [network, sheet, plan, scene, propose, afresh, commit, sync]);
}
