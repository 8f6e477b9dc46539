import type { Line } from '@visograph/api';
import type { EquipmentWish } from '@visograph/core/racks';
import { callLines } from '../../data/api.ts';
import { lastOf } from '../../kit/list/lastOf.ts';
import type { ListCall } from '../../kit/list/useList.ts';

type Told = Line<'POST /projects/:project/equipment-list'>;
/** What the server says of an equipment list. */
export type EquipmentListResult = Extract<Told, { result: unknown }>['result'];

/** Bytes in base64 (RFC 4648), as the browser makes it. */
const base64 = (bytes: Uint8Array): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(new Error('The file cannot be read.'));
    reader.readAsDataURL(new Blob([new Uint8Array(bytes)]));
  });

/** Sends an equipment list to be read, or read and made; the answer comes line by line with progress. */
export async function sendEquipmentList({
  projectId,
  plan,
  ...call
}: ListCall<EquipmentWish> & { projectId: string; plan: string | null }): Promise<EquipmentListResult> {
  const { wish, write, all } = call;
  const file = await base64(call.bytes);
  return lastOf<EquipmentListResult>(call.onProgress, (onLine) =>
    callLines(
      'POST /projects/:project/equipment-list',
      {
        params: { project: projectId },
        query: { plan: plan ?? undefined },
        body: { file, wish, write, all },
      },
      call.signal,
      onLine,
    ),
  );
}
