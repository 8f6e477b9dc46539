import { ruleOf, toldInOrder } from '@visograph/core/check';
import type { Kind } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useFindings } from '../data/findings.ts';
import { useWhereabouts } from '../data/location.ts';
import { Button } from '../kit/controls.tsx';
import { Hint, StateMark } from '../kit/panel/panels.tsx';
import { Card } from './parts.tsx';

const List = styled.ul`
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: 12px minmax(0, 1fr);
    gap: 8px;
    padding: 3px 0;
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  svg {
    margin-top: 3px;
  }
`;
const mostListed = 4;

/** What is to be mended about a row, and the way to the review of it. */
export function FoundCard({ kind, id }: { kind: Kind; id: string }): ReactNode {
  const judged = useFindings();
  const { section, go } = useWhereabouts();
  const told = useMemo(() => {
    if (judged === null) return [];
    const about = judged.review.open.filter(({ finding }) =>
      finding.subjects.some((subject) => subject.kind === kind && subject.id === id),
    );
    return toldInOrder(judged.network, about);
  }, [judged, kind, id]);
  // There it is shown already.
  if (told.length === 0 || section === 'review') return null;
  return (
    <Card title={`To mend · ${told.length}`}>
      <List>
        {told.slice(0, mostListed).map((one) => (
          <li key={`${one.finding.rule} ${one.told.message}`}>
            <StateMark state={one.severity} />
            {/* What is wrong in figures stands in the cards above, and in the review. */}
            <span title={one.told.message}>{ruleOf(one.finding).title}</span>
          </li>
        ))}
      </List>
      {told.length > mostListed && <Hint>{`and ${told.length - mostListed} more`}</Hint>}
      <Button onPress={() => go({ section: 'review', selection: { kind, id } })}>Review</Button>
    </Card>
  );
}
