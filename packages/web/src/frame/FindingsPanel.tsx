import { mendsOf, toldInOrder } from '@visograph/core/check';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import type { Judged } from '../data/findings.ts';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Button } from '../kit/controls.tsx';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';
import { Hint, StateMark } from '../kit/panel/panels.tsx';

const List = styled.ul`
  width: 660px;
  max-width: 100%;
  margin: 8px 0;
  > li {
    display: grid;
    grid-template-columns: 14px 1fr auto;
    gap: 2px 8px;
    align-items: start;
    padding: 7px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
  > li > svg {
    margin-top: 4px;
  }
  p {
    margin: 0;
    max-width: 62ch;
  }
  menu {
    grid-column: 2 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin: 4px 0 2px;
    padding: 0;
  }
`;
const About = styled.button`
  font: inherit;
  font-weight: 600;
  color: inherit;
  border: 0;
  padding: 0;
  background: none;
  text-align: left;
  &:hover,
  &:focus-visible {
    text-decoration: underline;
  }
`;
/** More than this are counted, not listed. */
const mostListed = 300;

/** What the checks found, the bad ones first: each leads to its thing, and offers what would set it right. */
export default function FindingsPanel({
  judged: { findings, network: judgedIn },
  onClose,
}: {
  judged: NonNullable<Judged>;
  onClose: () => void;
}): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { select } = useWhereabouts();
  const [open, setOpen] = useState<number | null>(null);
  const all = useMemo(() => toldInOrder(judgedIn, findings), [judgedIn, findings]);
  const mends = useMemo(() => {
    const chosen = open === null ? undefined : all[open];
    return chosen === undefined ? [] : mendsOf(view.network, chosen.finding);
  }, [view.network, all, open]);
  const title =
    all.length === 0
      ? 'Nothing is found any more'
      : all.length === 1
        ? '1 finding'
        : `${all.length} findings`;
  return (
    <PanelDialog title={title} open onOpenChange={(stays) => !stays && onClose()}>
      <List aria-label="Findings">
        {all.slice(0, mostListed).map(({ told, mendable }, at) => (
          <li key={`${told.rule} ${told.about.join(' ')} ${told.message}`}>
            <StateMark state={told.severity} />
            <div>
              <About
                type="button"
                onClick={() => {
                  const [first] = told.rows;
                  if (first !== undefined) select(first);
                  onClose();
                }}
              >
                {told.about[0]}
              </About>
              <p>{told.message}</p>
            </div>
            {canEdit && mendable && (
              <Button aria-expanded={open === at} onPress={() => setOpen(open === at ? null : at)}>
                Mend …
              </Button>
            )}
            {open === at && (
              <menu aria-label={`Mend ${told.about[0] ?? ''}`}>
                {mends.map(({ wish, set }) => (
                  <Button
                    key={wish}
                    onPress={() => {
                      if (commit(set).ok) setOpen(null);
                    }}
                  >
                    {wish}
                  </Button>
                ))}
                {mends.length === 0 && <Hint>Nothing can be done here without you: see what it says.</Hint>}
              </menu>
            )}
          </li>
        ))}
      </List>
      {all.length > mostListed && <Hint>{`and ${all.length - mostListed} more`}</Hint>}
    </PanelDialog>
  );
}
