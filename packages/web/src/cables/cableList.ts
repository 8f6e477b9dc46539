import type { CableColumns, CableRowResult } from '@visograph/core';
import { ApiError } from '../data/api.ts';

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
  const response = await fetch(`/api/v1/projects/${wish.projectId}/cable-list?${query.toString()}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: wish.bytes as BodyInit,
    signal: wish.signal,
  });
  if (!response.ok || response.body === null) {
    const document = (await response.json().catch(() => ({}))) as { detail?: string };
    throw new ApiError(response.status, document.detail ?? `The server answered ${response.status}.`, []);
  }
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  let result: CableListResult | null = null;
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    const lines = (rest + part.value).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) {
      if (line === '') continue;
      const told = JSON.parse(line) as Progress | { result: CableListResult };
      if ('result' in told) ({ result } = told);
      else wish.onProgress(told);
    }
  }
  if (result === null)
    throw new ApiError(0, 'The answer broke off before the end. Nothing was written; try again.', []);
  return result;
}
