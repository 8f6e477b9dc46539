import { parentPort } from 'node:worker_threads';
import type { PrintOrder } from './order.ts';
import { print } from './print.ts';

/** The other side of `Press`: draws one order after the other. */
parentPort?.on('message', ({ id, order }: { id: number; order: PrintOrder }) => {
  print(order).then(
    (bytes) => {
      const copy = new Uint8Array(bytes);
      parentPort?.postMessage({ id, bytes: copy }, [copy.buffer]);
    },
    (error: unknown) =>
      parentPort?.postMessage({ id, error: error instanceof Error ? error.message : String(error) }),
  );
});
