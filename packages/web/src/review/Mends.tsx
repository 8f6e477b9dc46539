import { changesInWords, type ChangeSet } from '@visograph/core/change';
import { mendAll, mendsOf, waysOf, type Finding } from '@visograph/core/check';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { Preview } from '../kit/panel/Preview.tsx';
import { Hint } from '../kit/panel/panels.tsx';

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  display: flex;
  flex-direction: column;
  gap: 6px;
  > li {
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  /* What is offered names things: it may be longer than a line. */
  button {
    height: auto;
    min-height: 28px;
    padding-block: 3px;
    white-space: normal;
    text-align: left;
  }
  td.mono {
    white-space: normal;
    overflow-wrap: anywhere;
  }
  menu {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin: 0;
    padding: 0;
  }
`;
/** More lines than this are counted, not listed. */
const mostLines = 200;

/** What a step would change, row by row. */
function Changes({ set }: { set: ChangeSet }): ReactNode {
  const { view } = useProject();
  const lines = useMemo(() => changesInWords(view.network, set.changes), [view.network, set]);
  return (
    <Preview>
      <table>
        <thead>
          <tr>
            <th>What</th>
            <th>Field</th>
            <th>Now</th>
            <th>Then</th>
          </tr>
        </thead>
        <tbody>
          {lines.slice(0, mostLines).map((line, at) => (
            // Lines have no name of their own, and their order is that of the changes.
            <tr key={at}>
              <td>{line.what}</td>
              <td>{line.field ?? ''}</td>
              <td className="mono">{line.from}</td>
              <td className="mono">{line.to}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {lines.length > mostLines && <Hint>{`and ${lines.length - mostLines} more`}</Hint>}
    </Preview>
  );
}

interface Way {
  key: string;
  label: string;
  set: ChangeSet | null;
  note: string | null;
}

/** A way to mend that shows what it would change before it is done. */
function Offer({
  way,
  first,
  onDone,
}: {
  way: Way;
  /** What is usually meant. */
  first: boolean;
  onDone: () => void;
}): ReactNode {
  const { commit } = useProject();
  const [open, setOpen] = useState(false);
  const { set } = way;
  return (
    <li>
      <menu>
        <Button
          $tone={first ? 'primary' : undefined}
          isDisabled={set === null}
          onPress={() => {
            if (set !== null && commit(set).ok) onDone();
          }}
        >
          {way.label}
        </Button>
        {set !== null && (
          <Button $tone="quiet" aria-expanded={open} onPress={() => setOpen(!open)}>
            {open ? 'Hide the changes' : `Show the changes (${set.changes.length})`}
          </Button>
        )}
      </menu>
      {way.note !== null && <Hint>{way.note}</Hint>}
      {open && set !== null && <Changes set={set} />}
    </li>
  );
}

/** What would set a finding right, by itself and with those like it; worked out on the network as it is now. */
export function Mends({
  finding,
  alike,
  onDone,
}: {
  finding: Finding;
  /** All findings of its rule in view, it among them. */
  alike: readonly Finding[];
  onDone: () => void;
}): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const [all, setAll] = useState(false);
  const own = useMemo(
    () =>
      mendsOf(network, finding).map(({ wish, set }): Way => ({ key: wish, label: wish, set, note: null })),
    [network, finding],
  );
  const together = useMemo(() => {
    if (!all) return [];
    return [...waysOf(network, alike)]
      .filter(([, those]) => those.length > 1)
      .map(([way, those]): Way => {
        const { attempt, mended, left } = mendAll(network, those, way);
        const note = !attempt.ok ? attempt.why : left.length === 0 ? null : `${left.length} of them stay.`;
        return {
          key: way,
          label: `${way}: all ${mended.length}`,
          set: attempt.ok ? attempt.set : null,
          note,
        };
      });
  }, [network, alike, all]);
  return (
    <>
      <List aria-label="Ways to mend">
        {own.map((way, at) => (
          <Offer key={way.key} way={way} first={at === 0} onDone={onDone} />
        ))}
        {together.map((way) => (
          <Offer key={`all ${way.key}`} way={way} first={false} onDone={onDone} />
        ))}
      </List>
      {own.length === 0 && <Hint>Only you can know what is right here: see what it says.</Hint>}
      {own.length > 0 && alike.length > 1 && !all && (
        <Button $tone="quiet" onPress={() => setAll(true)}>
          {`Mend all ${alike.length} alike …`}
        </Button>
      )}
      {all && together.length === 0 && <Hint>No way is offered for several of them.</Hint>}
    </>
  );
}
