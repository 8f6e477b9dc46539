import { origin, type Sought } from '@visograph/core/check';
import type { Meant } from '../http/meant.ts';
import { asBuilt, type HistoryLine, type ProjectStore } from '../store/projectStore.ts';

/** So many entries are read at once, and so many are gone through before it is said that it is older. */
const stride = 200;
const mostEntries = 10_000;

export interface FoundOrigin {
  /** The entry that brought it; null: it is older than all that were gone through. */
  entry: HistoryLine | null;
  searchedFrom: number;
}

/** The lines of history that made a network, the newest first, and the revision at which each stands in it. */
const linesOf = ({ line, revision, base }: Meant): { line: string | null; revision: number }[] =>
  line === asBuilt
    ? [{ line, revision }]
    : [
        { line, revision },
        { line: asBuilt, revision: base ?? 0 },
      ];

/** Goes back from a network in which a finding is there to the step that brought it. */
export async function findOrigin(
  store: ProjectStore,
  projectId: string,
  meant: Meant,
  sought: Sought,
  tell: (done: number, of: number) => void,
): Promise<FoundOrigin> {
  let { network } = meant;
  let gone = 0;
  for (const { line, revision } of linesOf(meant)) {
    for (let to = revision; to > 0; to -= stride) {
      if (gone >= mostEntries) return { entry: null, searchedFrom: to };
      const from = Math.max(0, to - stride);
      const entries = (await store.changes(projectId, line, from, to)).reverse();
      const search = origin(network, sought, entries);
      if (search.broughtBy !== null) {
        const at = to - search.broughtBy;
        const [entry] = await store.history(projectId, line, { before: at + 1, rowId: null, most: 1 });
        return { entry: entry ?? null, searchedFrom: at };
      }
      ({ network } = search);
      gone += to - from;
      tell(gone, Math.min(mostEntries, meant.revision));
    }
  }
  return { entry: null, searchedFrom: 0 };
}
