import { keepPriceList, readPrices } from '@visograph/core/purchase';
import { useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { ApiError } from '../../data/api.ts';
import { callJob } from '../../data/jobs.ts';
import { useProject } from '../../data/project.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { DateEntry, dateOf } from '../../kit/DateEntry.tsx';
import { FileInput } from '../../kit/FileInput.tsx';
import { ActPanel } from '../../kit/panel/ActPanel.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { today } from '../../data/today.ts';
import { useKeep } from '../../data/useDo.ts';

const Wrong = styled.ul`
  margin: 0;
  padding: 0;
  max-height: 240px;
  overflow: auto;
  list-style: none;
  font-size: 12.5px;
  li {
    padding: 1px 0;
    overflow-wrap: anywhere;
  }
`;
const mostTold = 300;

/** A price list of a supplier from a spreadsheet: every row that cannot be read is told before anything is kept. */
export function TakeInPrices({
  onClose,
  onDone,
}: {
  onClose: () => void;
  onDone: (id: string) => void;
}): ReactNode {
  const { project, view } = useProject();
  const keep = useKeep();
  const input = useRef<HTMLInputElement>(null);
  const [rows, setRows] = useState<string[][] | null>(null);
  const [name, setName] = useState('');
  const [supplier, setSupplier] = useState('');
  const [currency, setCurrency] = useState('EUR');
  const [validFrom, setValidFrom] = useState<string | null>(today());
  const [validUntil, setValidUntil] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const read = rows === null ? null : readPrices(view.network, rows, currency.trim().toUpperCase());
  const take = async (file: File): Promise<void> => {
    setWhy(null);
    try {
      const body = new Uint8Array(await file.arrayBuffer());
      const answer = await callJob('POST /projects/:project/spreadsheet', {
        params: { project: project.id },
        body,
      });
      setRows(answer.rows);
      setName((before) => (before === '' ? file.name.replace(/\.[a-z]+$/i, '').slice(0, 80) : before));
    } catch (error) {
      setRows(null);
      setWhy(`${file.name}: ${error instanceof ApiError ? error.detail : String(error)}`);
    }
  };
  const act = (): boolean => {
    if (read === null) return false;
    if (validFrom === null) {
      setWhy('Valid from is missing: say from which day the prices hold.');
      return false;
    }
    const attempt = keepPriceList(
      view.network,
      {
        ...{ name, supplier: supplier.trim(), currency: currency.trim().toUpperCase() },
        ...{ validFrom, validUntil, notes: null },
      },
      read.prices,
    );
    const problem = keep(attempt);
    setWhy(problem);
    if (problem === null) onDone(attempt.id);
    return problem === null;
  };
  return (
    <ActPanel
      title="Take in prices"
      wide
      open
      onOpenChange={(stays) => !stays && onClose()}
      fields={
        <>
          <Button onPress={() => input.current?.click()}>
            {rows === null ? 'Choose the file …' : 'Another file …'}
          </Button>
          <FileInput
            input={input}
            label="File of prices"
            accept=".csv,.xlsx,text/csv"
            onFile={(file) => void take(file)}
          />
          <Field label="Name" width={180} value={name} onChange={setName} />
          <Field label="Supplier" width={180} value={supplier} onChange={setSupplier} />
          <Field label="Currency" width={72} value={currency} onChange={setCurrency} />
          <DateEntry
            label="Valid from"
            value={dateOf(validFrom)}
            onChange={(date) => setValidFrom(date?.toString() ?? null)}
          />
          <DateEntry
            label="Valid until"
            value={dateOf(validUntil)}
            onChange={(date) => setValidUntil(date?.toString() ?? null)}
          />
        </>
      }
      note={
        rows === null
          ? 'A spreadsheet (.xlsx or .csv) with headings in its first row: Part number or Model, Price, and as far as known Length, Licence, Pack, Currency.'
          : null
      }
      trouble={why}
      action={
        read === null
          ? 'Take in'
          : `Take in ${read.prices.length} ${read.prices.length === 1 ? 'price' : 'prices'}`
      }
      onAct={read === null || read.prices.length === 0 ? null : act}
    >
      {read !== null && (
        <>
          <Hint role="status">
            {read.problems.length === 0
              ? `All ${read.rows} rows can be read.`
              : `${read.prices.length} of ${read.rows} rows can be read. The others are left out:`}
          </Hint>
          {read.problems.length > 0 && (
            <Wrong aria-label="Rows that cannot be read">
              {read.problems.slice(0, mostTold).map(({ row, column, message }) => (
                <li key={row}>{`Row ${row}, ${column}: ${message}`}</li>
              ))}
              {read.problems.length > mostTold && <li>{`and ${read.problems.length - mostTold} more`}</li>}
            </Wrong>
          )}
        </>
      )}
    </ActPanel>
  );
}
