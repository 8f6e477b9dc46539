import type { RowsRead } from '@visograph/core/places';
import { useRef, useState, type ReactNode } from 'react';
import { ApiError } from '../data/api.ts';
import { callJob } from '../data/jobs.ts';
import { useProject } from '../data/project.tsx';
import { Button } from './controls.tsx';
import { FileInput } from './FileInput.tsx';
import { ActPanel } from './panel/ActPanel.tsx';
import { StateMark } from './panel/panels.tsx';
import { Preview } from './panel/Preview.tsx';

const does = { adds: 'is added', changes: 'is changed', nothing: 'is there already', wrong: 'is left out' };

interface Props {
  title: string;
  /** Which headings are understood. */
  help: string;
  read: (rows: string[][]) => RowsRead;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** A list from a spreadsheet: every row is told what it comes to before anything is written. */
export function ImportRows({ title, help, read: readRows, open, onOpenChange }: Props): ReactNode {
  const { project, commit } = useProject();
  const input = useRef<HTMLInputElement>(null);
  const [rows, setRows] = useState<string[][] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const read: RowsRead | null = rows === null ? null : readRows(rows);
  const good = read?.results.filter((row) => row.does === 'adds' || row.does === 'changes').length ?? 0;
  const wrong = read?.results.filter((row) => row.does === 'wrong').length ?? 0;
  const take = async (file: File): Promise<void> => {
    setTrouble(null);
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      const answer = await callJob('POST /projects/:project/spreadsheet', {
        params: { project: project.id },
        body: bytes,
      });
      setRows(answer.rows);
    } catch (error) {
      setRows(null);
      setTrouble(`${file.name}: ${error instanceof ApiError ? error.detail : String(error)}`);
    }
  };
  return (
    <ActPanel
      title={title}
      open={open}
      onOpenChange={(next) => {
        setRows(null);
        setTrouble(null);
        onOpenChange(next);
      }}
      note={help}
      trouble={trouble ?? read?.problem ?? null}
      action={
        read === null
          ? 'Import'
          : wrong === 0
            ? `Import ${good} ${good === 1 ? 'row' : 'rows'}`
            : `Import the ${good} good ${good === 1 ? 'row' : 'rows'}, leave out ${wrong}`
      }
      onAct={
        read === null || good === 0
          ? null
          : () => commit({ changes: read.changes, sentence: read.sentence }).ok
      }
      fields={
        <>
          <Button onPress={() => input.current?.click()}>Choose a file</Button>
          <FileInput
            input={input}
            label="Spreadsheet"
            accept=".xlsx,.csv,text/csv"
            onFile={(file) => void take(file)}
          />
        </>
      }
    >
      {read !== null && read.results.length > 0 && (
        <Preview>
          <table aria-label="Rows of the file">
            <thead>
              <tr>
                <th scope="col">Row</th>
                <th scope="col">What</th>
                <th scope="col">Comes to</th>
              </tr>
            </thead>
            <tbody>
              {read.results.map((row) => (
                <tr key={row.row}>
                  <td>{row.row}</td>
                  <td>{row.what}</td>
                  <td>
                    <StateMark state={row.does === 'wrong' ? 'bad' : 'ok'} />{' '}
                    {row.problem === null ? does[row.does] : `${does.wrong}: ${row.problem}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Preview>
      )}
    </ActPanel>
  );
}
