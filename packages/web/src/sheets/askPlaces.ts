import type { CarriedOver, DrawingPlan, Scene } from '@visograph/core/sheets';
import type { DrawReply, DrawRequest, PlaceReply, PlaceRequest } from './drawWorker.ts';

/** Asks a worker of its own, which ends with the answer. */
function asked<Reply>(
  request: DrawRequest | PlaceRequest,
  isLast: (reply: Reply) => boolean,
): Promise<Reply> {
  const worker = new Worker(new URL('./drawWorker.ts', import.meta.url), { type: 'module' });
  return new Promise<Reply>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<Reply>) => isLast(data) && resolve(data);
    worker.onerror = ({ message }) => reject(new Error(message || 'It could not be laid out.'));
    worker.postMessage(request);
  }).finally(() => worker.terminate());
}

/** The finished drawing of a sheet that is not on the screen. */
export async function askScene(plan: DrawingPlan): Promise<Scene> {
  const reply = await asked<DrawReply>({ id: 0, plan }, (one) => !('draft' in one) || !one.draft);
  if ('failed' in reply) throw new Error(reply.failed);
  return reply.scene;
}

type Without<Request> = Request extends unknown ? Omit<Request, 'id'> : never;

/** Where plates would stand. */
export async function askPlaces(wish: Without<PlaceRequest>): Promise<CarriedOver> {
  const reply = await asked<PlaceReply>({ id: 0, ...wish }, () => true);
  if ('failed' in reply) throw new Error(reply.failed);
  return reply.carried;
}
