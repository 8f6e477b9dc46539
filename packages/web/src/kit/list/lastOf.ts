import { ApiError } from '../../data/api.ts';
import type { ListProgress } from './useList.ts';

/** Hears the lines of an answer: progress as it comes, and the result at their end. */
export async function lastOf<R>(
  onProgress: (progress: ListProgress) => void,
  ask: (onLine: (line: ListProgress | { result: R }) => void) => Promise<void>,
): Promise<R> {
  const results: R[] = [];
  await ask((line) => {
    if ('result' in line) results.push(line.result);
    else onProgress(line);
  });
  const last = results.at(-1);
  if (last === undefined)
    throw new ApiError(0, 'The answer broke off before the end. Nothing was written; try again.', []);
  return last;
}
