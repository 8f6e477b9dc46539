import { readPlaceRows, type RowsRead } from '@visograph/core';
import { useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { ApiError, call } from '../data/api.ts';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { PanelDialog } from '../kit/panelDialog.tsx';
import { Hint, StateMark } from '../kit/panels.tsx';
import { FileInput } from '../kit/FileInput.tsx';

const Body = styled.div`
  width: 620px;
  max-width: 80vw;
  margin: 10px 0;
  display: flex;
  flex-direction: column;
  gap: 10px;
  table {
    border-collapse: collapse;
    width: 100%;
  }
  td,
  th {
    text-align: left;
    font-weight: 400;
    padding: 3px 10px 3px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    vertical-align: top;
  }
  th {
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const Rows = styled.div`
  max-height: 320px;
  overflow: auto;
`;
const Why = styled.p`
  color: ${({ theme }) => theme.bad};
`;
const does = { adds: 'is added', changes: 'is changed', nothing: 'is there already', wrong: 'is left out' };

/** A list of places and racks from a spreadsheet: every row is told what it comes to before anything is written. */
export function ImportPlaces({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}): ReactNode {
  const { view, project, commit } = useProject();
  const input = useRef<HTMLInputElement>(null);
  const [rows, setRows] = useState<string[][] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const read: RowsRead | null = rows === null ? null : readPlaceRows(view.network, rows);
  const good = read?.results.filter((row) => row.does === 'adds' || row.does === 'changes').length ?? 0;
  const wrong = read?.results.filter((row) => row.does === 'wrong').length ?? 0;
  const take = async (file: File): Promise<void> => {
    setTrouble(null);
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      const answer = await call<{ rows: string[][] }>('POST', `/projects/${project.id}/spreadsheet`, bytes);
      setRows(answer.rows);
    } catch (error) {
      setRows(null);
      setTrouble(`${file.name}: ${error instanceof ApiError ? error.detail : String(error)}`);
    }
  };
  return (
    <PanelDialog
      title="Import places and racks"
      open={open}
      onOpenChange={(next) => {
        setRows(null);
        setTrouble(null);
        onOpenChange(next);
      }}
    >
      <Body>
        <Hint>
          A spreadsheet (.xlsx or .csv) with headings in its first row: Path, and as far as known Kind, Code,
          Address, Latitude, Longitude, Contacts, Rack, Units, Position, Mass limit, Notes. A row with a rack
          puts it into the place of its path.
        </Hint>
        <div>
          <Button onPress={() => input.current?.click()}>Choose a file</Button>
          <FileInput
            input={input}
            label="Spreadsheet"
            accept=".xlsx,.csv,text/csv"
            onFile={(file) => void take(file)}
          />
        </div>
        {trouble !== null && <Why role="alert">{trouble}</Why>}
        {read?.problem != null && <Why role="alert">{read.problem}</Why>}
        {read !== null && read.results.length > 0 && (
          <>
            <Rows>
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
            </Rows>
            <div>
              <Button
                $tone="primary"
                isDisabled={good === 0}
                onPress={() => {
                  if (commit({ changes: read.changes, sentence: read.sentence }).ok) {
                    setRows(null);
                    onOpenChange(false);
                  }
                }}
              >
                {wrong === 0 ? `Import ${good} rows` : `Import the ${good} good rows, leave out ${wrong}`}
              </Button>
            </div>
          </>
        )}
      </Body>
    </PanelDialog>
  );
}
