import {
  beginRequirements,
  completenessOf,
  factOf,
  askingWithin,
  gapTable,
  type Asking,
  type Share,
} from '@visograph/core/check';
import { editHeld } from '@visograph/core/commands';
import { childPlaces, kinds, requirementKinds, type RequirementKind } from '@visograph/core/model';
import { useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWhereabouts } from '../data/location.ts';
import { useProject } from '../data/project.tsx';
import { useShown } from '../data/shown.ts';
import type { Cell } from '@visograph/core/report';
import { Button } from '../kit/controls.tsx';
import { Grid, type GridColumn } from '../kit/grid/Grid.tsx';
import { Empty, Hint } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';
import { RequirementsPanel } from './RequirementsPanel.tsx';

const Halves = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
`;
const Side = styled.nav`
  flex: none;
  width: 218px;
  overflow: auto;
  padding: 8px 0;
  border-right: 1px solid ${({ theme }) => theme.rule};
  button {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 8px;
    width: 100%;
    padding: 5px 12px;
    border: 0;
    font: inherit;
    text-align: left;
    color: inherit;
    background: none;
  }
  button[aria-current='true'] {
    background: ${({ theme }) => theme.accentWash};
  }
  button:focus-visible {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: -2px;
  }
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    ${mono}
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
  i {
    grid-column: 1 / -1;
    height: 3px;
    background: ${({ theme }) => theme.rule};
  }
  b {
    display: block;
    height: 100%;
    background: ${({ theme }) => theme.ok};
  }
`;
const Main = styled.div`
  flex: 1;
  min-width: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
  > header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px;
    padding: 6px 12px;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    button[aria-pressed='true'] {
      border-color: ${({ theme }) => theme.accent};
      background: ${({ theme }) => theme.accentWash};
    }
    > :last-child {
      margin-left: auto;
    }
  }
`;

const Missing = styled.span`
  color: ${({ theme }) => theme.warn};
  font-size: 12px;
`;

/** In per cent, never rounded up to all of it. */
const percent = ({ asked, met }: Share): number => (asked === 0 ? 100 : Math.floor((100 * met) / asked));

/** How far each place is documented: the scope, and the places in it. */
function Places({ shares }: { shares: ReadonlyMap<string | null, Share> }): ReactNode {
  const network = useShown();
  const { scopeId, go } = useWhereabouts();
  const here = scopeId === null ? null : network.get('place', scopeId);
  const outer =
    here === null
      ? []
      : [
          {
            id: here.parentId,
            name: here.parentId === null ? 'All sites' : (network.get('place', here.parentId)?.name ?? ''),
          },
        ];
  const inner = childPlaces(network, scopeId).filter(({ id }) => shares.has(id));
  const line = (id: string | null, name: string, share: Share | undefined): ReactNode => (
    <button
      key={id ?? 'all'}
      type="button"
      aria-current={id === scopeId}
      onClick={() => go({ scopeId: id, selection: null })}
    >
      <span>{name}</span>
      {share !== undefined && (
        <>
          <small>{`${percent(share)} %`}</small>
          <i>
            <b style={{ width: `${percent(share)}%` }} />
          </i>
        </>
      )}
    </button>
  );
  return (
    <Side aria-label="How far places are documented">
      {outer.map(({ id, name }) => line(id, name, undefined))}
      {here !== null && line(here.id, here.name, shares.get(here.id))}
      {inner.map(({ id, name }) => line(id, name, shares.get(id)))}
    </Side>
  );
}

const fixed: readonly GridColumn[] = [
  { key: 'name', label: 'Name', width: 130 },
  { key: 'place', label: 'Place', width: 150, text: true },
];

/** What a cell's text is as a value: nothing, a figure where the field takes one, the text. */
function valueOf(now: unknown, field: string, text: string): unknown {
  const trimmed = text.trim();
  if (trimmed === '') return null;
  const isFigure = typeof now === 'number' || /Kg$|Mm$|M$|Bps$/.test(field);
  return isFigure && /^\d+([.,]\d+)?$/.test(trimmed) ? Number(trimmed.replace(',', '.')) : trimmed;
}

interface Held {
  key: string;
  ids: ReadonlySet<string>;
  facts: ReadonlySet<string>;
}

/**
 * What is listed: all that has a gap, and what had one when the list was opened. A row that was completed stays where
 * it is until one goes elsewhere, or the next would slip under the cursor.
 */
function useHeld(key: string, kind: RequirementKind | null, gaps: readonly Asking[]): Held {
  const [held, setHeld] = useState<Held>({ key: '', ids: new Set(), facts: new Set() });
  const own = gaps.filter((gap) => gap.kind === kind);
  const isKnown =
    held.key === key &&
    own.every(({ id, missing }) => held.ids.has(id) && missing.every((fact) => held.facts.has(fact)));
  if (isKnown) return held;
  const before = held.key === key ? held : { ids: [], facts: [] };
  const now = {
    key,
    ids: new Set([...before.ids, ...own.map(({ id }) => id)]),
    facts: new Set([...before.facts, ...own.flatMap(({ missing }) => missing)]),
  };
  setHeld(now);
  return now;
}

/** What the document must say and does not: by place in per cent, and as a work list that is filled in where it stands. */
export function CompletenessView(): ReactNode {
  const { view, canEdit, commit, project, sync } = useProject();
  const network = useDeferredValue(useShown());
  const { scopeId, selection, select } = useWhereabouts();
  const [asking, setAsking] = useState(false);
  const [wanted, setWanted] = useState<RequirementKind | null>(null);
  const whole = useMemo(() => completenessOf(network), [network]);
  const gaps = useMemo(() => askingWithin(network, whole.gaps, scopeId), [network, whole, scopeId]);
  const counts = requirementKinds.map((kind) => ({
    kind,
    count: gaps.filter((gap) => gap.kind === kind).length,
  }));
  const open = counts.filter(({ count }) => count > 0);
  const kind = wanted ?? open[0]?.kind ?? null;
  const held = useHeld(`${kind ?? ''} ${scopeId ?? ''}`, kind, gaps);
  const table = useMemo(() => {
    if (kind === null) return null;
    const listed = whole.rows.filter(({ id }) => held.ids.has(id));
    return gapTable(network, kind, listed, held.facts);
  }, [network, whole, kind, held]);
  const share = scopeId === null ? whole : (whole.places.get(scopeId) ?? { asked: 0, met: 0 });
  const owner = canEdit && project.role === 'owner';
  const panel = asking && <RequirementsPanel onClose={() => setAsking(false)} />;
  const columns = useMemo<GridColumn[]>(
    () => [
      ...fixed,
      ...(table?.columns.map(({ key, label, editable }) => ({
        ...{ key, label, editable, width: 120 },
        draw: (value: Cell) => (value === '' ? <Missing>missing</Missing> : value),
      })) ?? []),
    ],
    [table],
  );
  const rows = useMemo(
    () => table?.rows.map(({ id, name, place, cells }) => ({ id, cells: { name, place, ...cells } })) ?? [],
    [table],
  );
  // Asked for before there is anything: an empty project.
  if (whole.asked === 0 && network.count('requirement') > 0)
    return (
      <>
        <Empty title="Nothing is there yet that facts are asked of">
          {`${network.count('requirement')} facts are asked for. What is missing of them is listed here as things are added.`}
          <Button onPress={() => setAsking(true)}>What must be there …</Button>
        </Empty>
        {panel}
      </>
    );
  if (whole.asked === 0)
    return (
      <>
        <Empty title="Nothing is asked for yet">
          A finished document says certain facts: a serial of every switch, two feeds of every server. What is
          missing is then listed here, and filled in.
          {owner ? (
            <>
              <Button
                $tone="primary"
                onPress={() => {
                  const attempt = beginRequirements(view.network);
                  if (attempt.ok) commit(attempt.set);
                  else sync.announce({ tone: 'bad', text: attempt.why });
                }}
              >
                Ask for the usual facts
              </Button>
              <Button onPress={() => setAsking(true)}>Ask for facts one by one …</Button>
            </>
          ) : (
            <Hint>An owner of the project says what must be documented.</Hint>
          )}
        </Empty>
        {panel}
      </>
    );
  const edit = (id: string, key: string, text: string): string | null => {
    if (kind === null) return null;
    const row = view.network.get(kind, id);
    const field = factOf(kind, key)?.field ?? null;
    if (row === null || field === null) return 'It is no longer there.';
    const now = new Map<string, unknown>(Object.entries(row)).get(field);
    const set = editHeld(view.network, kind, row, { [field]: valueOf(now, field, text) });
    if (set.changes.length === 0) return null;
    const result = commit(set);
    return result.ok ? null : (result.problems[0]?.message ?? 'It cannot be kept.');
  };
  return (
    <Halves>
      <Places shares={whole.places} />
      <Main>
        <header>
          <strong>{`${percent(share)} % complete`}</strong>
          <Hint>{`${share.asked - share.met} of ${share.asked} facts missing`}</Hint>
          {open.map((one) => (
            <Button key={one.kind} aria-pressed={one.kind === kind} onPress={() => setWanted(one.kind)}>
              {`${kinds[one.kind].many} ${one.count}`}
            </Button>
          ))}
          <Button onPress={() => setAsking(true)}>What must be there …</Button>
        </header>
        {kind === null ? (
          <Empty title="Complete">All that is asked for here is there.</Empty>
        ) : (
          <Grid
            key={kind}
            label={`What is missing of ${kinds[kind].many}`}
            columns={columns}
            rows={rows}
            selectedId={selection?.kind === kind ? selection.id : null}
            onSelect={(id) => select({ kind, id })}
            onEdit={canEdit ? edit : undefined}
          />
        )}
      </Main>
      {panel}
    </Halves>
  );
}
