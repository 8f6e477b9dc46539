import type { Line } from '@visograph/api';
import type { CableColumns } from '@visograph/core/cabling';
import { ApiError, callLines } from '../data/api.ts';

type Told = Line<'POST /projects/:project/cable-list'>;
/** What the server says of a cable list. */
export type CableListResult = Extract<Told, { result: unknown }>['result'];
export type Progress = Exclude<Told, { result: unknown }>;

interface Wish {
  projectId: string;
  plan: string | null;
  bytes: Uint8Array;
  columns: CableColumns | null;
  write: boolean;
  all: boolean;
  signal: AbortSignal;
  onProgress: (progress: Progress) => void;
}

/** Sends a cable list to be read, or read and made; the answer comes line by line with progress. */
export async function sendCableList(wish: Wish): Promise<CableListResult> {
  let result: CableListResult | null = null;
  await callLines(
    'POST /projects/:project/cable-list',
    {
      params: { project: wish.projectId },
      query: {
        plan: wish.plan ?? undefined,
        columns: wish.columns === null ? undefined : JSON.stringify(wish.columns),
        write: wish.write ? '1' : undefined,
        all: wish.all ? '1' : undefined,
      },
      body: wish.bytes,
    },
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
