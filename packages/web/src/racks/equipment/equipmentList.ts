import type { Answer } from '@visograph/api';
import type { EquipmentWish } from '@visograph/core/racks';
import { callJob } from '../../data/jobs.ts';
import type { ListCall } from '../../kit/list/useList.ts';

/** What the server says of an equipment list. */
export type EquipmentListResult = Answer<'POST /projects/:project/equipment-list'>;

/** Bytes in base64 (RFC 4648), as the browser makes it. */
const base64 = (bytes: Uint8Array): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(new Error('The file cannot be read.'));
    reader.readAsDataURL(new Blob([new Uint8Array(bytes)]));
  });

/** Has an equipment list read, or read and made. */
export async function sendEquipmentList({
  projectId,
  plan,
  ...call
}: ListCall<EquipmentWish> & { projectId: string; plan: string | null }): Promise<EquipmentListResult> {
  const { wish, write, all } = call;
  const file = await base64(call.bytes);
  return callJob(
    'POST /projects/:project/equipment-list',
    {
      params: { project: projectId },
      query: { plan: plan ?? undefined },
      body: { file, wish, write, all },
    },
    { signal: call.signal, onProgress: call.onProgress },
  );
}
