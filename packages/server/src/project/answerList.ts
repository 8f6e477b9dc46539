import type { ChangeSet } from '@visograph/core/change';
import type { ListRow } from '@visograph/core/exchange';
import { newId, type Network } from '@visograph/core/model';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { sent, type Caller } from '../http/route.ts';

/** Rows of one file; more are taken in parts. */
export const mostListRows = 150_000;

/** What every list is read to, whatever its rows are about. */
interface Read {
  results: ListRow[];
  set: ChangeSet;
  problem: string | null;
}
interface List<R extends Read> {
  rows: readonly (readonly string[])[];
  read: (network: Network) => Generator<number, R>;
  /** Whether the good rows are written, and whether only when all rows are good. */
  write: boolean;
  all: boolean;
}

/** Reads the rows in turns, so that others are served meanwhile; null: the caller has gone. */
async function inTurns<R>(
  steps: Generator<number, R>,
  told: (done: number) => void,
  gone: () => boolean,
): Promise<R | null> {
  for (;;) {
    const step = steps.next();
    if (step.done === true) return step.value;
    told(step.value);
    await nextTurn();
    if (gone()) return null;
  }
}

/**
 * Answers a call with what a list comes to: lines of how far the reading has come, then the result; what is written is
 * one entry of the journal. Who calls may go away at any time: then nothing is written.
 */
export async function answerList<R extends Read>(
  { response, network, pen }: Pick<Caller, 'response' | 'network' | 'pen'>,
  { rows, read, write, all }: List<R>,
): Promise<typeof sent> {
  let gone = false;
  response.on('close', () => {
    gone = true;
  });
  response.status(200).type('application/x-ndjson');
  const line = (value: object): void => void response.write(`${JSON.stringify(value)}\n`);
  const of = rows.length;
  const meant = await network();
  const made = await inTurns(
    read(meant.network),
    (done) => line({ done, of }),
    () => gone,
  );
  if (made === null) return sent;
  const { set, ...told } = made;
  const result = (outcome: { written: boolean; problem?: string }): void =>
    line({ result: { ...told, first: rows.slice(0, 3), rows: of, ...outcome } });
  if (!write || made.problem !== null || set.changes.length === 0) result({ written: false });
  else if (all && made.results.some((one) => one.does === 'cannot'))
    result({ written: false, problem: 'Some rows cannot be taken.' });
  else {
    line({ done: of, of, writing: true });
    await nextTurn();
    if (gone) return sent;
    const written = await pen().write({ id: newId(), changes: set.changes, sentence: set.sentence });
    if (written.ok) result({ written: true });
    else {
      const why = written.problems[0]?.message ?? 'the rows contradict each other.';
      result({ written: false, problem: `Nothing was written: ${why}` });
    }
  }
  response.end();
  return sent;
}
