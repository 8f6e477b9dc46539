import type { CableColumns, CableRowResult } from '@visograph/core';
import { ApiError } from '../data/api.ts';
import { callLines } from '../data/lines.ts';

/** What the server says of a cable list. */
export interface CableListResult {
  columns: CableColumns;
  headed: boolean;
  results: CableRowResult[];
  problem: string | null;
  /** The first rows as they are, for choosing columns. */
  first: string[][];
  rows: number;
  written: boolean;
}
export interface Progress {
  done: number;
  of: number;
  writing?: boolean;
}

interface Wish {
  projectId: string;
  bytes: Uint8Array;
  columns: CableColumns | null;
  write: boolean;
  all: boolean;
  signal: AbortSignal;
  onProgress: (progress: Progress) => void;
}

/** Sends a cable list to be read, or read and made; the answer comes line by line with progress. */
export async function sendCableList(wish: Wish): Promise<CableListResult> {
  const query = new URLSearchParams();
  if (wish.columns !== null) query.set('columns', JSON.stringify(wish.columns));
  if (wish.write) query.set('write', '1');
  if (wish.all) query.set('all', '1');
  let result: CableListResult | null = null;
  await callLines<Progress | { result: CableListResult }>(
    `/projects/${wish.projectId}/cable-list?${query.toString()}`,
    wish.bytes as BodyInit,
    'application/octet-stream',
    wish.signal,
    (told) => {
      if ('result' in told) ({ result } = told);
      else wish.onProgress(told);
    },
  );
  if (result === null)
    throw new ApiError(0, 'The answer broke off before the end. Nothing was written; try again.', []);
  return result;
}
