import type { BodyOf } from '@visograph/api';
import { paperNames, type Page, type PaperSize, type Sheet } from '@visograph/core/model';
import { schedulesOf } from '@visograph/core/report';
import { useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { callJobFile, type JobProgress } from '../../data/jobs.ts';
import { useProject } from '../../data/project.tsx';
import { useMeantQuery } from '../../data/shown.ts';
import { Choice } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { waitsText } from '../../kit/jobText.ts';
import { Trouble } from '../../kit/panel/dock.tsx';
import { PanelDialog } from '../../kit/panel/panelDialog.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { MissingGlyphs } from './MissingGlyphs.tsx';
import { saveFile } from '../../kit/saveFile.ts';

const Stack = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin: 8px 0;
  ul {
    max-height: 190px;
    overflow: auto;
    display: flex;
    flex-direction: column;
    gap: 4px;
  }
  progress {
    width: 100%;
    accent-color: ${({ theme }) => theme.accent};
  }
`;
const Heading = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 4px;
  h3 {
    font-size: 13px;
    font-weight: 600;
  }
  button {
    height: 22px;
    padding: 0 8px;
  }
`;
const Line = styled.div`
  display: flex;
  gap: 8px;
  align-items: flex-end;
`;

type PrintWish = BodyOf<'POST /projects/:project/print'>;

/** Things of which some are chosen, a tick each. */
function Ticks({
  title,
  things,
  chosen,
  onChoose,
}: {
  title: string;
  things: readonly { id: string; name: string }[];
  chosen: ReadonlySet<string>;
  onChoose: (chosen: ReadonlySet<string>) => void;
}): ReactNode {
  const all = things.every(({ id }) => chosen.has(id));
  return (
    <div role="group" aria-label={title}>
      <Heading>
        <h3>{title}</h3>
        <Button onPress={() => onChoose(all ? new Set() : new Set(things.map(({ id }) => id)))}>
          {all ? 'None' : 'All'}
        </Button>
      </Heading>
      <ul>
        {things.map(({ id, name }) => (
          <li key={id}>
            <Tick
              isSelected={chosen.has(id)}
              onChange={(on) => {
                const next = new Set(chosen);
                if (on) next.add(id);
                else next.delete(id);
                onChoose(next);
              }}
            >
              {name}
            </Tick>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Several sheets and schedules in one PDF, or a file of each sheet in one go. */
export function PrintMany({ sheets, onClose }: { sheets: readonly Sheet[]; onClose: () => void }): ReactNode {
  const { project, view } = useProject();
  const query = useMeantQuery();
  const params = { project: project.id };
  const [chosen, setChosen] = useState<ReadonlySet<string>>(() => new Set(sheets.map((sheet) => sheet.id)));
  const schedules = schedulesOf(view.network);
  const [listed, setListed] = useState<ReadonlySet<string>>(new Set());
  const [contents, setContents] = useState(sheets.length > 1);
  const [size, setSize] = useState<PaperSize | 'own'>('own');
  const [progress, setProgress] = useState<JobProgress | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const stopper = useRef<AbortController | null>(null);
  const page: Partial<Page> = size === 'own' ? {} : { size };
  const sheetIds = sheets.filter((sheet) => chosen.has(sheet.id)).map((sheet) => sheet.id);
  const scheduleIds = schedules.filter(({ id }) => listed.has(id)).map(({ id }) => id);
  const count = sheetIds.length + scheduleIds.length;
  const print = async (
    call: 'POST /projects/:project/print' | 'POST /projects/:project/print-each',
    body: PrintWish,
    save: (bytes: Uint8Array) => void,
  ): Promise<void> => {
    const of = body.sheetIds.length + (body.scheduleIds?.length ?? 0);
    const controller = new AbortController();
    stopper.current = controller;
    setTrouble(null);
    setProgress({ done: 0, of, ahead: 0, writing: false });
    try {
      const watch = {
        signal: controller.signal,
        onProgress: (told: JobProgress) => setProgress({ ...told, of }),
      };
      save(await callJobFile(call, { params, query, body }, watch));
    } catch (error) {
      if (!controller.signal.aborted)
        setTrouble(error instanceof Error ? error.message : 'It could not be printed.');
    } finally {
      setProgress(null);
    }
  };
  const together = (): Promise<void> =>
    print(
      'POST /projects/:project/print',
      { sheetIds, scheduleIds, contents, page, title: project.name },
      (bytes) => saveFile(`${project.name}.pdf`, bytes as BlobPart, 'application/pdf'),
    );
  const each = (): Promise<void> =>
    print('POST /projects/:project/print-each', { sheetIds, page }, (bytes) =>
      saveFile(`${project.name} sheets.zip`, bytes as BlobPart, 'application/zip'),
    );
  return (
    <PanelDialog
      title="Print several"
      open
      onOpenChange={(open) => {
        if (open) return;
        stopper.current?.abort();
        onClose();
      }}
    >
      <Stack>
        <Ticks title="Sheets" things={sheets} chosen={chosen} onChoose={setChosen} />
        {schedules.length > 0 && (
          <Ticks title="Schedules" things={schedules} chosen={listed} onChoose={setListed} />
        )}
        <Line>
          <Choice
            label="Paper of sheets"
            width={170}
            value={size}
            options={[
              { id: 'own', text: 'Of each sheet' },
              ...paperNames.map((name) => ({ id: name, text: name })),
            ]}
            onChange={setSize}
          />
          <Tick isSelected={contents || listed.size > 0} isDisabled={listed.size > 0} onChange={setContents}>
            Contents page and page numbers
          </Tick>
        </Line>
        <MissingGlyphs sheetIds={sheetIds} />
        {progress === null ? (
          <Line>
            <Button $tone="primary" isDisabled={count === 0} onPress={() => void together()}>
              {`${count} in one PDF`}
            </Button>
            <Button isDisabled={sheetIds.length === 0} onPress={() => void each()}>
              A PDF of each sheet
            </Button>
          </Line>
        ) : (
          <>
            <progress max={progress.of} value={progress.done} aria-label="Printing" />
            <Line>
              <Hint>
                {progress.ahead > 0 ? waitsText(progress) : `${progress.done} of ${progress.of} printed`}
              </Hint>
              <Button onPress={() => stopper.current?.abort()}>Stop</Button>
            </Line>
          </>
        )}
        {trouble !== null && <Trouble role="alert">{trouble}</Trouble>}
      </Stack>
    </PanelDialog>
  );
}
