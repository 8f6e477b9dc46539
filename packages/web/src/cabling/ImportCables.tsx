import { cableFieldLabels, cableFields, type CableColumns, type CableField } from '@visograph/core/cabling';
import { useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { ApiError } from '../data/api.ts';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { Button } from '../kit/controls.tsx';
import { FileInput } from '../kit/FileInput.tsx';
import { Grid } from '../kit/grid/Grid.tsx';
import { ActPanel } from '../kit/panel/ActPanel.tsx';
import { sendCableList, type CableListResult, type Progress } from './cableList.ts';

const Columns = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
  gap: 8px;
`;
const Rows = styled.div`
  height: 280px;
  display: flex;
  border: 1px solid ${({ theme }) => theme.rule};
`;
const does = { new: 'new', same: 'the same', changes: 'changes', cannot: 'cannot' };
const columns = [
  { key: 'row', label: 'Row', width: 52, numeric: true },
  { key: 'label', label: 'Label', width: 104 },
  { key: 'does', label: 'Comes to', width: 78, text: true },
  { key: 'detail', label: 'Ends, or why not', width: 372, text: true },
];

type Busy = { progress: Progress | null; stop: AbortController };

/**
 * A cable list from a spreadsheet: columns found by name and content and chosen by hand where they are wrong, every
 * row told, then all rows or the good ones made at once. Long lists show progress and can be stopped.
 */
export function ImportCables({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}): ReactNode {
  const { project, plan, sync } = useProject();
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<{ name: string; bytes: Uint8Array } | null>(null);
  const [read, setRead] = useState<CableListResult | null>(null);
  const [busy, setBusy] = useState<Busy | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const count = (what: keyof typeof does): number =>
    read?.results.filter((row) => row.does === what).length ?? 0;
  const good = count('new') + count('changes');
  const wrong = count('cannot');

  const send = async (
    bytes: Uint8Array,
    name: string,
    wish: { columns: CableColumns | null; write: boolean; all?: boolean },
  ): Promise<void> => {
    const stop = new AbortController();
    setBusy({ progress: null, stop });
    setTrouble(null);
    try {
      const result = await sendCableList({
        projectId: project.id,
        plan,
        bytes,
        columns: wish.columns,
        write: wish.write,
        all: wish.all ?? false,
        signal: stop.signal,
        onProgress: (progress) => setBusy({ progress, stop }),
      });
      setRead(result);
      if (result.written) {
        const made = result.results.filter((row) => row.does === 'new' || row.does === 'changes').length;
        sync.announce({
          tone: 'ok',
          text: `${name}: ${made} ${made === 1 ? 'cable' : 'cables'} made or changed.`,
        });
        onOpenChange(false);
        setRead(null);
        setFile(null);
      }
    } catch (error) {
      const stopped = stop.signal.aborted;
      setTrouble(
        stopped
          ? 'Stopped: nothing was written.'
          : `${name}: ${error instanceof ApiError ? error.detail : String(error)}`,
      );
    } finally {
      setBusy(null);
    }
  };
  const take = async (chosen: File): Promise<void> => {
    const bytes = new Uint8Array(await chosen.arrayBuffer());
    setFile({ name: chosen.name, bytes });
    setRead(null);
    await send(bytes, chosen.name, { columns: null, write: false });
  };
  const width = Math.max(0, ...(read?.first ?? []).map((row) => row.length));
  const columnOptions = [
    { id: 'none', text: 'not in the file' },
    ...Array.from({ length: width }, (_, at) => ({
      id: String(at),
      text: (read?.headed === true ? read.first[0]?.[at] : undefined) || `Column ${at + 1}`,
      detail: read?.first[read.headed ? 1 : 0]?.[at]?.slice(0, 22) ?? '',
    })),
  ];
  const choose = (field: CableField, column: string | null): void => {
    if (read === null || file === null) return;
    const next: CableColumns = { ...read.columns };
    if (column === null || column === 'none') delete next[field];
    else next[field] = Number(column);
    void send(file.bytes, file.name, { columns: next, write: false });
  };
  return (
    <ActPanel
      title="Import cables"
      open={open}
      onOpenChange={(next) => {
        busy?.stop.abort();
        setRead(null);
        setFile(null);
        setTrouble(null);
        onOpenChange(next);
      }}
      note="A spreadsheet (.xlsx or .csv), one cable a row. An end is device:port, a panel and its position, or rack, unit and port, in one column or two. Label, type, length, status and notes are taken where there are columns for them."
      trouble={trouble ?? read?.problem ?? null}
      action={
        read === null
          ? 'Import'
          : wrong === 0
            ? `Import ${good} ${good === 1 ? 'cable' : 'cables'}`
            : `Import ${good} good ${good === 1 ? 'row' : 'rows'}, leave out ${wrong}`
      }
      onAct={
        file === null || read === null || good === 0 || busy !== null
          ? null
          : () => {
              // Closes by itself once it is written.
              void send(file.bytes, file.name, { columns: read.columns, write: true, all: wrong === 0 });
              return false;
            }
      }
      fields={
        <>
          <Button onPress={() => input.current?.click()} isDisabled={busy !== null}>
            Choose a file
          </Button>
          <FileInput
            input={input}
            label="Cable list"
            accept=".xlsx,.csv,text/csv"
            onFile={(chosen) => void take(chosen)}
          />
          {file !== null && <span>{file.name}</span>}
          {busy !== null && (
            <>
              <span role="status">
                {busy.progress === null
                  ? 'Reading …'
                  : busy.progress.writing === true
                    ? `Writing ${busy.progress.of} rows …`
                    : `Row ${busy.progress.done} of ${busy.progress.of}`}
              </span>
              <Button onPress={() => busy.stop.abort()}>Stop</Button>
            </>
          )}
        </>
      }
    >
      {read !== null && width > 0 && (
        <Columns role="group" aria-label="Columns of the file">
          {cableFields.map((field) => (
            <Choice
              key={field}
              label={cableFieldLabels[field]}
              value={read.columns[field] === undefined ? 'none' : String(read.columns[field])}
              options={columnOptions}
              onChange={(column) => choose(field, column)}
            />
          ))}
        </Columns>
      )}
      {read !== null && read.results.length > 0 && (
        <>
          <p>{`${count('new')} new, ${count('changes')} changed, ${count('same')} the same, ${wrong} that cannot be taken`}</p>
          <Rows>
            <Grid
              label="Rows of the file"
              columns={columns}
              rows={[...read.results]
                .sort((a, b) => Number(b.does === 'cannot') - Number(a.does === 'cannot') || a.row - b.row)
                .map((row) => ({
                  id: String(row.row),
                  cells: { row: row.row, label: row.label, does: does[row.does], detail: row.detail },
                }))}
              selectedId={null}
              onSelect={() => undefined}
            />
          </Rows>
        </>
      )}
    </ActPanel>
  );
}
