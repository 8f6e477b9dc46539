import { sceneFigures, type Scene } from '@visograph/core/sheets';
import { useEffect, useMemo, type ReactNode } from 'react';
import { Button, Keycap } from '../../kit/controls.tsx';
import { ToolLine } from '../../kit/tools.tsx';
import type { Proposal } from '../useProposal.ts';

/** Of more links than this the crossings are not counted while one looks. */
const mostCounted = 250;

/** What it changes, in figures: plates that move, crossings, and how large the whole is in a window. */
export function changeTold(before: Scene, after: Scene): string {
  const stood = new Map(before.plates.map(({ id, box }) => [id, box]));
  const count = after.plates.filter(({ id, box }) => {
    const at = stood.get(id);
    return at === undefined || at.x !== box.x || at.y !== box.y;
  }).length;
  if (count === 0) return 'nothing moves';
  const moves = count === 1 ? '1 plate moves' : `${count} of ${after.plates.length} plates move`;
  if (Math.max(before.links.length, after.links.length) > mostCounted) return moves;
  const [old, next] = [sceneFigures(before), sceneFigures(after)];
  const percent = (zoom: number): string => `${Math.round(zoom * 100)} %`;
  return [
    moves,
    `crossings ${old.seenCrossings} → ${next.seenCrossings}`,
    `in a window ${percent(old.zoom)} → ${percent(next.zoom)}`,
  ].join(' · ');
}

interface Props {
  proposal: Proposal;
  scene: Scene;
  pending: boolean;
  onTake: () => void;
  onBack: () => void;
}

/** An arrangement that is looked at: taken over by Enter, given up by Escape. */
export function ProposedTools({ proposal, scene, pending, onTake, onBack }: Props): ReactNode {
  const { told, before } = proposal;
  const change = useMemo(() => (pending ? null : changeTold(before, scene)), [before, scene, pending]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape') return;
      event.preventDefault();
      event.stopPropagation();
      onBack();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [onBack]);
  return (
    <ToolLine role="group" aria-label="Proposed arrangement">
      <span role="status">{`${told}: ${change ?? 'drawing …'}`}</span>
      <Button $tone="primary" autoFocus onPress={onTake}>
        Take over<Keycap>Enter</Keycap>
      </Button>
      <Button onPress={onBack}>
        As it was<Keycap>Esc</Keycap>
      </Button>
    </ToolLine>
  );
}
