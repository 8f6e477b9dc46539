import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWorkspace } from '../data/workspace.tsx';
import { Button } from '../kit/controls.tsx';
import { Head } from '../record/parts.tsx';
import { useHistory, whenText } from './useHistory.ts';

const Lines = styled.ol`
  li {
    padding: 8px 14px;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
  small {
    display: block;
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
  p {
    overflow-wrap: anywhere;
  }
`;

/** Who did what, newest first. */
export function HistoryPanel(): ReactNode {
  const history = useHistory(null);
  const { setHistoryOpen } = useWorkspace();
  return (
    <>
      <Head>
        <h2>History</h2>
        <p>Every step by everybody, newest first</p>
        <div>
          <Button onPress={() => setHistoryOpen(false)}>Back to the record</Button>
        </div>
      </Head>
      <Lines aria-label="Steps">
        {history.data?.map((line) => (
          <li key={line.id}>
            <small>{`r${line.revision} · ${whenText(line.at)} · ${line.author}`}</small>
            <p>{line.sentence}</p>
          </li>
        ))}
      </Lines>
    </>
  );
}
