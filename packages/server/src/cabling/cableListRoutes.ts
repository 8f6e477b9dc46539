import { schemas, type Line } from '@visograph/api';
import { readCableRows, type CableColumns, type CableRowsRead } from '@visograph/core/cabling';
import { newId, type Network } from '@visograph/core/model';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { Refusal } from '../http/problem.ts';
import { sent, type Call, type Handlers } from '../http/route.ts';
import { sheetRows } from '../sheets/sheetRows.ts';

const rowLimit = 150_000;

function toldColumns(text: string | null): CableColumns | null {
  if (text === null) return null;
  try {
    const parsed = schemas.cableColumns.safeParse(JSON.parse(text));
    if (parsed.success) return parsed.data;
  } catch {
    // Told below, as for any other text that names no columns.
  }
  throw new Refusal(
    422,
    'The columns cannot be read',
    `“${text.slice(0, 80)}” names no columns of a cable list.`,
  );
}

/** Reads the rows in turns, so that others are served meanwhile; stops when the caller has gone. */
async function readInTurns(
  network: Network,
  rows: readonly (readonly string[])[],
  columns: CableColumns | null,
  told: (done: number) => void,
  gone: () => boolean,
): Promise<CableRowsRead | null> {
  const steps = readCableRows(network, rows, columns);
  for (;;) {
    const step = steps.next();
    if (step.done === true) return step.value;
    told(step.value);
    await nextTurn();
    if (gone()) return null;
  }
}

async function handle(call: Call<'POST /projects/:project/cable-list'>): Promise<typeof sent> {
  const { body, response, query } = call;
  const columns = toldColumns(query('columns'));
  const rows = await sheetRows(body, rowLimit);
  let gone = false;
  response.on('close', () => {
    gone = true;
  });
  response.status(200).type('application/x-ndjson');
  const line = (value: Line<'POST /projects/:project/cable-list'>): void =>
    void response.write(`${JSON.stringify(value)}\n`);
  const { network } = await call.network();
  const told = (done: number): void => line({ done, of: rows.length });
  const read = await readInTurns(network, rows, columns, told, () => gone);
  if (read === null) return sent;
  const { set, ...rest } = read;
  const first = rows.slice(0, 3);
  if (query('write') !== '1' || read.problem !== null || set.changes.length === 0) {
    line({ result: { ...rest, first, rows: rows.length, written: false } });
  } else if (query('all') === '1' && read.results.some((one) => one.does === 'cannot')) {
    line({
      result: { ...rest, first, rows: rows.length, written: false, problem: 'Some rows cannot be taken.' },
    });
  } else {
    line({ done: rows.length, of: rows.length, writing: true });
    await nextTurn();
    if (gone) return sent;
    const wish = { id: newId(), changes: set.changes, sentence: set.sentence };
    const written = await call.pen().write(wish);
    if (written.ok) line({ result: { ...rest, first, rows: rows.length, written: true } });
    else
      line({
        result: {
          ...rest,
          first,
          rows: rows.length,
          written: false,
          problem: `Nothing was written: ${written.problems[0]?.message ?? 'the rows contradict each other.'}`,
        },
      });
  }
  response.end();
  return sent;
}

export const cableListHandlers = {
  'POST /projects/:project/cable-list': handle,
} satisfies Partial<Handlers>;
