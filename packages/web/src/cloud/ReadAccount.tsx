import type { ObservedAccount } from '@visograph/core/cloud';
import type { Place } from '@visograph/core/model';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { ApiError, call } from '../data/api.ts';
import { callJob, type JobProgress } from '../data/jobs.ts';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { waitsText } from '../kit/jobText.ts';
import { Trouble } from '../kit/panel/dock.tsx';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';
import { PanelBody } from '../kit/panel/Preview.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { Differences } from './Differences.tsx';
import { SourceForm } from './SourceForm.tsx';

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  progress {
    flex: 1;
    min-width: 160px;
    accent-color: ${({ theme }) => theme.accent};
  }
`;

/** Reads an account as it is, and shows where that is not what is documented. */
export function ReadAccount({ account, onClose }: { account: Place; onClose: () => void }): ReactNode {
  const { project } = useProject();
  const client = useQueryClient();
  const params = { project: project.id, place: account.id };
  const owner = project.role === 'owner';
  const source = useQuery({
    queryKey: ['account source', account.id],
    queryFn: () => call('GET /projects/:project/account-sources/:place', { params }),
  });
  const known = source.data?.source ?? null;
  const [changing, setChanging] = useState(false);
  const [progress, setProgress] = useState<JobProgress | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [observed, setObserved] = useState<ObservedAccount | null>(null);
  const stopper = useRef<AbortController | null>(null);
  const read = async (): Promise<void> => {
    const stop = new AbortController();
    stopper.current = stop;
    setTrouble(null);
    setProgress({ done: 0, of: 0, ahead: 0, writing: false });
    try {
      setObserved(
        await callJob(
          'POST /projects/:project/account-sources/:place/read',
          { params },
          { signal: stop.signal, onProgress: setProgress },
        ),
      );
    } catch (error) {
      if (stop.signal.aborted) setTrouble('Stopped. Nothing was changed.');
      else setTrouble(error instanceof ApiError ? error.detail : String(error));
    } finally {
      setProgress(null);
    }
  };
  const forget = async (): Promise<void> => {
    setTrouble(null);
    try {
      await call('DELETE /projects/:project/account-sources/:place', { params });
      setObserved(null);
      await client.invalidateQueries({ queryKey: ['account source', account.id] });
    } catch (error) {
      setTrouble(error instanceof ApiError ? error.detail : String(error));
    }
  };
  const asks = !source.isPending && (known === null || changing);
  return (
    <PanelDialog
      title={`Read the account ${account.name}`}
      wide
      open
      onOpenChange={(open) => !open && onClose()}
    >
      <PanelBody $wide>
        {source.isError && <Trouble role="alert">{source.error.message}</Trouble>}
        {asks && !owner && <Hint>An owner of the project says from where it is read.</Hint>}
        {asks && owner && <SourceForm placeId={account.id} now={known} onDone={() => setChanging(false)} />}
        {known !== null && !changing && (
          <Line>
            <span>{`From ${known.url} as ${known.client}`}</span>
            {progress === null && (
              <Button $tone={observed === null ? 'primary' : undefined} onPress={() => void read()}>
                {observed === null ? 'Read it' : 'Read it again'}
              </Button>
            )}
            {progress === null && owner && <Button onPress={() => setChanging(true)}>Change</Button>}
            {progress === null && owner && <Button onPress={() => void forget()}>Forget</Button>}
          </Line>
        )}
        {progress !== null && (
          <Line>
            <progress
              aria-label="Reading"
              {...(progress.of > 0 ? { max: progress.of, value: progress.done } : {})}
            />
            <Hint role="status">
              {progress.ahead > 0
                ? waitsText(progress)
                : progress.of === 0
                  ? 'Signing in …'
                  : `${progress.done} of ${progress.of} things read`}
            </Hint>
            <Button onPress={() => stopper.current?.abort()}>Stop</Button>
          </Line>
        )}
        {trouble !== null && <Trouble role="alert">{trouble}</Trouble>}
        {observed !== null && progress === null && <Differences account={account} observed={observed} />}
      </PanelBody>
    </PanelDialog>
  );
}
