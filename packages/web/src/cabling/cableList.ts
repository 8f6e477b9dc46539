import type { Answer } from '@visograph/api';
import type { CableColumns } from '@visograph/core/cabling';
import { callJob } from '../data/jobs.ts';
import type { ListCall } from '../kit/list/useList.ts';

/** What the server says of a cable list. */
export type CableListResult = Answer<'POST /projects/:project/cable-list'>;

interface Wish extends Omit<ListCall<unknown>, 'wish'> {
  projectId: string;
  plan: string | null;
  columns: CableColumns | null;
  make: boolean;
  placeId: string | null;
}

/** Has a cable list read, or read and made. */
export const sendCableList = (wish: Wish): Promise<CableListResult> =>
  callJob(
    'POST /projects/:project/cable-list',
    {
      params: { project: wish.projectId },
      query: {
        plan: wish.plan ?? undefined,
        columns: wish.columns === null ? undefined : JSON.stringify(wish.columns),
        make: wish.make ? '1' : undefined,
        place: wish.make ? (wish.placeId ?? undefined) : undefined,
        write: wish.write ? '1' : undefined,
        all: wish.all ? '1' : undefined,
      },
      body: wish.bytes,
    },
    { signal: wish.signal, onProgress: wish.onProgress },
  );
