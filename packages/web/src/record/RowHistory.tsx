import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useHistory, whenText } from '../history/useHistory.ts';
import { Card } from './parts.tsx';

const Lines = styled.ol`
  li {
    margin-bottom: 6px;
    color: ${({ theme }) => theme.inkSoft};
    overflow-wrap: anywhere;
  }
`;

/** What happened to one thing. */
export function RowHistory({ rowId }: { rowId: string }): ReactNode {
  const history = useHistory(rowId);
  return (
    <Card title="History">
      <Lines>
        {history.data?.slice(0, 8).map((line) => (
          <li key={line.id}>{`${whenText(line.at)} · ${line.author}: ${line.sentence}`}</li>
        ))}
      </Lines>
    </Card>
  );
}
