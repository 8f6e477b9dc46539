import { countOf, type ListRow } from '@visograph/core/exchange';
import { grouped } from '@visograph/core/model';
import { useRef, type ReactNode } from 'react';
import { styled } from 'styled-components';
import type { JobProgress } from '../../data/jobs.ts';
import { Button } from '../controls.tsx';
import { FileInput } from '../FileInput.tsx';
import { Grid } from '../grid/Grid.tsx';
import { waitsText } from '../jobText.ts';
import { ActPanel } from '../panel/ActPanel.tsx';
import type { List, ListRead } from './useList.ts';

const Rows = styled.div`
  height: clamp(140px, 30vh, 300px);
  display: flex;
  flex-direction: column;
  border: 1px solid ${({ theme }) => theme.rule};
`;
const does: Readonly<Record<ListRow['does'], string>> = {
  new: 'new',
  same: 'the same',
  changes: 'changes',
  cannot: 'cannot',
};

function progressText(progress: JobProgress | null): string {
  if (progress === null) return 'Reading …';
  if (progress.ahead > 0) return waitsText(progress);
  if (progress.writing) return `Writing ${grouped(progress.of)} rows …`;
  return progress.of === 0 ? 'Reading …' : `Row ${grouped(progress.done)} of ${grouped(progress.of)}`;
}

/** The cells of the rows of a list, those that cannot be taken first. */
const cellsOf = (results: readonly ListRow[]) =>
  [...results]
    .sort((a, b) => Number(b.does === 'cannot') - Number(a.does === 'cannot') || a.row - b.row)
    .map((row) => ({
      id: String(row.row),
      cells: { row: row.row, label: row.label, does: does[row.does], detail: row.detail },
    }));

interface Props<W> {
  title: string;
  /** What the file is called, such as "Cable list". */
  file: string;
  /** What a file holds and how it is read. */
  note: string;
  /** What the heads of the preview call a row's label and what it comes to. */
  heads: { label: string; detail: string };
  one: string;
  many: string;
  wish: W;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  list: List<ListRead, W>;
  /** What is asked of the list, between the file and its rows. */
  children?: ReactNode;
}

/** A list from a spreadsheet: its file, what is asked of it, every row told, then all rows or the good ones at once. */
export function ListPanel<W>({
  title,
  file: fileLabel,
  note,
  heads,
  one,
  many,
  wish,
  open,
  onOpenChange,
  list,
  children,
}: Props<W>): ReactNode {
  const input = useRef<HTMLInputElement>(null);
  const { file, read, busy, trouble } = list;
  const results = read?.results ?? [];
  const good = countOf(results, 'new') + countOf(results, 'changes');
  const wrong = countOf(results, 'cannot');
  const takeFile = async (chosen: File): Promise<void> =>
    list.take(chosen.name, new Uint8Array(await chosen.arrayBuffer()), wish);
  return (
    <ActPanel
      title={title}
      wide
      open={open}
      onOpenChange={(next) => {
        list.forget();
        onOpenChange(next);
      }}
      note={read === null ? note : null}
      trouble={trouble ?? read?.problem ?? null}
      action={
        read === null
          ? 'Import'
          : wrong === 0
            ? `Import ${grouped(good)} ${good === 1 ? one : many}`
            : `Import ${grouped(good)} good ${good === 1 ? 'row' : 'rows'}, leave out ${grouped(wrong)}`
      }
      onAct={
        read === null || good === 0 || busy !== null
          ? null
          : () => {
              // Closes by itself once it is written.
              list.write(wish);
              return false;
            }
      }
      fields={
        <>
          <Button onPress={() => input.current?.click()} isDisabled={busy !== null}>
            {file === null ? 'Choose a file' : 'Choose another file'}
          </Button>
          <FileInput
            input={input}
            label={fileLabel}
            accept=".xlsx,.csv,.tsv,.txt,text/csv"
            onFile={(chosen) => void takeFile(chosen)}
          />
          {file !== null && <span>{file.name}</span>}
          {busy !== null && (
            <>
              <span role="status">{busy.stopping ? 'Stopping …' : progressText(busy.progress)}</span>
              <Button isDisabled={busy.stopping} onPress={list.stop}>
                Stop
              </Button>
            </>
          )}
        </>
      }
    >
      {read !== null && children}
      {results.length > 0 && (
        <>
          <p>
            {`${grouped(countOf(results, 'new'))} new, ${grouped(countOf(results, 'changes'))} changed, ${grouped(countOf(results, 'same'))} the same, ${grouped(wrong)} that cannot be taken`}
            {read !== null && read.alsoMade !== '' && `; makes ${read.alsoMade}`}
          </p>
          <Rows>
            <Grid
              label="Rows of the file"
              columns={[
                { key: 'row', label: 'Row', width: 52, numeric: true },
                { key: 'label', label: heads.label, width: 116 },
                { key: 'does', label: 'Comes to', width: 78, text: true },
                { key: 'detail', label: heads.detail, width: 720, text: true },
              ]}
              rows={cellsOf(results)}
              selectedId={null}
              onSelect={() => undefined}
            />
          </Rows>
        </>
      )}
    </ActPanel>
  );
}
