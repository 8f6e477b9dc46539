import type { Line } from '@visograph/api';
import type { CableColumns } from '@visograph/core/cabling';
import { callLines } from '../data/api.ts';
import { lastOf } from '../kit/list/lastOf.ts';
import type { ListCall } from '../kit/list/useList.ts';

type Told = Line<'POST /projects/:project/cable-list'>;
/** What the server says of a cable list. */
export type CableListResult = Extract<Told, { result: unknown }>['result'];

interface Wish extends Omit<ListCall<unknown>, 'wish'> {
  projectId: string;
  plan: string | null;
  columns: CableColumns | null;
  make: boolean;
  placeId: string | null;
}

/** Sends a cable list to be read, or read and made; the answer comes line by line with progress. */
export const sendCableList = (wish: Wish): Promise<CableListResult> =>
  lastOf<CableListResult>(wish.onProgress, (onLine) =>
    callLines(
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
      wish.signal,
      onLine,
    ),
  );
