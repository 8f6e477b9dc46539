import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useRevision } from '../data/moment.ts';
import { useProject } from '../data/project.tsx';
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
  li[aria-current] {
    background: ${({ theme }) => theme.accentWash};
    box-shadow: inset 3px 0 ${({ theme }) => theme.accent};
  }
  button {
    margin-left: -12px;
  }
`;

/** Who did what, newest first. */
export function HistoryPanel(): ReactNode {
  const history = useHistory(null);
  const { setHistoryOpen } = useWorkspace();
  const { view } = useProject();
  const [revision, setRevision] = useRevision();
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
          <li key={line.id} aria-current={String(line.revision) === revision ? 'true' : undefined}>
            <small>{`r${line.revision} · ${whenText(line.at)} · ${line.author}`}</small>
            <p>{line.sentence}</p>
            <Button
              $tone="quiet"
              aria-label={`Show as it was at r${line.revision}`}
              isDisabled={String(line.revision) === (revision ?? String(view.revision))}
              onPress={() => setRevision(line.revision === view.revision ? null : line.revision)}
            >
              {String(line.revision) === (revision ?? String(view.revision))
                ? 'Shown'
                : line.revision === view.revision
                  ? 'Show as it is now'
                  : 'Show as it was'}
            </Button>
          </li>
        ))}
      </Lines>
    </>
  );
}
