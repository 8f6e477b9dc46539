import type { ListRow } from '@visograph/core/exchange';
import { useRef, useState } from 'react';
import { ApiError } from '../../data/api.ts';
import type { JobProgress } from '../../data/jobs.ts';
import { useProject } from '../../data/project.tsx';

/** What a list comes to, as the server tells it. */
export interface ListRead {
  headed: boolean;
  results: ListRow[];
  alsoMade: string;
  problem: string | null;
  first: string[][];
  rows: number;
  written: boolean;
}
/** A list on its way to the server: with what is wished of it, and whether its good rows are written. */
export interface ListCall<W> {
  bytes: Uint8Array;
  wish: W;
  write: boolean;
  all: boolean;
  signal: AbortSignal;
  onProgress: (progress: JobProgress) => void;
}

export interface List<R extends ListRead, W> {
  file: { name: string; bytes: Uint8Array } | null;
  read: R | null;
  /** `stopping`: asked to stop, and not known yet whether it did before it was done. */
  busy: { progress: JobProgress | null; stop: AbortController; stopping: boolean } | null;
  trouble: string | null;
  /** Reads a file as it is wished. */
  take: (name: string, bytes: Uint8Array, wish: W) => Promise<void>;
  /** Reads the same file once more, as it is wished now. */
  again: (wish: W) => void;
  /** Writes its good rows; gives up where all rows are asked to be good and one is not. */
  write: (wish: W) => void;
  /** Stops what is under way: what it came to is told once it is known. */
  stop: () => void;
  /** Stops what is under way and forgets the file. */
  forget: () => void;
}

/**
 * A list that is brought: read by the server, told row by row, written when that is asked. Long lists show how far they
 * are and can be stopped; while one is read it is not read again.
 */
export function useList<R extends ListRead, W>(
  send: (call: ListCall<W>) => Promise<R>,
  { one, many, onWritten }: { one: string; many: string; onWritten: () => void },
): List<R, W> {
  const { sync } = useProject();
  const [file, setFile] = useState<List<R, W>['file']>(null);
  const [read, setRead] = useState<R | null>(null);
  const [busy, setBusy] = useState<List<R, W>['busy']>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  /** What is under way: another reading takes its place, and only the last one tells what it came to. */
  const last = useRef<AbortController | null>(null);
  const forget = (): void => {
    last.current?.abort();
    last.current = null;
    setRead(null);
    setFile(null);
    setTrouble(null);
  };
  const sendIt = async (
    name: string,
    bytes: Uint8Array,
    wish: W,
    how: { write: boolean; all: boolean },
  ): Promise<void> => {
    last.current?.abort();
    const stop = new AbortController();
    last.current = stop;
    setBusy({ progress: null, stop, stopping: false });
    setTrouble(null);
    try {
      const onProgress = (progress: JobProgress): void => {
        if (last.current === stop) setBusy({ progress, stop, stopping: stop.signal.aborted });
      };
      const result = await send({ bytes, wish, ...how, signal: stop.signal, onProgress });
      if (last.current !== stop) return;
      setRead(result);
      if (!result.written) return;
      const made = result.results.filter((row) => row.does === 'new' || row.does === 'changes').length;
      sync.announce({ tone: 'ok', text: `${name}: ${made} ${made === 1 ? one : many} made or changed.` });
      onWritten();
      setRead(null);
      setFile(null);
    } catch (error) {
      if (last.current !== stop) return;
      setTrouble(
        stop.signal.aborted
          ? 'Stopped: nothing was written.'
          : `${name}: ${error instanceof ApiError ? error.detail : String(error)}`,
      );
    } finally {
      setBusy((now) => (now?.stop === stop ? null : now));
    }
  };
  return {
    ...{ file, read, busy, trouble, forget },
    stop: () => {
      last.current?.abort();
      setBusy((now) => (now === null ? null : { ...now, stopping: true }));
    },
    take: async (name, bytes, wish) => {
      setFile({ name, bytes });
      setRead(null);
      await sendIt(name, bytes, wish, { write: false, all: false });
    },
    again: (wish) => {
      if (file !== null) void sendIt(file.name, file.bytes, wish, { write: false, all: false });
    },
    write: (wish) => {
      const all = read?.results.every((row) => row.does !== 'cannot') ?? false;
      if (file !== null) void sendIt(file.name, file.bytes, wish, { write: true, all });
    },
  };
}
