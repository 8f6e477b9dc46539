import type { ChangeSet } from '@visograph/core/change';
import type { ListRow } from '@visograph/core/exchange';
import type { Network } from '@visograph/core/model';
import type { JobName } from '@visograph/api';
import type { JobCall } from '../http/route.ts';

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
/** What a list comes to, and whether it was written. */
type Told<R extends Read> = Omit<R, 'set'> & { first: string[][]; rows: number; written: boolean };

/** Reads a list, telling how far it has come; what is written is one entry of the journal. */
export async function answerList<R extends Read>(
  {
    network,
    pen,
    jobId,
    tell,
    beginWriting,
  }: Pick<JobCall<JobName>, 'network' | 'pen' | 'jobId' | 'tell' | 'beginWriting'>,
  { rows, read, write, all }: List<R>,
): Promise<Told<R>> {
  const of = rows.length;
  const steps = read((await network()).network);
  let step = steps.next();
  for (; step.done !== true; step = steps.next()) tell(step.value, of);
  const { set, ...told } = step.value;
  const result = (outcome: { written: boolean; problem?: string }): Told<R> => ({
    ...told,
    first: rows.slice(0, 3).map((row) => [...row]),
    rows: of,
    ...outcome,
  });
  if (!write || told.problem !== null || set.changes.length === 0) return result({ written: false });
  if (all && told.results.some((one) => one.does === 'cannot'))
    return result({ written: false, problem: 'Some rows cannot be taken.' });
  await beginWriting();
  const written = await pen().write({ id: jobId, changes: set.changes, sentence: set.sentence });
  if (written.ok) return result({ written: true });
  const why = written.problems[0]?.message ?? 'the rows contradict each other.';
  return result({ written: false, problem: `Nothing was written: ${why}` });
}
