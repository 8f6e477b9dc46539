import { existsSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import type { PrintOrder } from './order.ts';
import { print } from './print.ts';

interface Waiting {
  resolve: (bytes: Buffer) => void;
  reject: (error: Error) => void;
}
type Reply = { id: number; bytes: Uint8Array } | { id: number; error: string };

/** The bundle of thread.ts, beside the server's own; absent where sources are run as they are. */
const threadFile = new URL('./printThread.mjs', import.meta.url);

/**
 * Prints in a thread of its own, so that a large drawing holds nobody up. The thread starts with the first order
 * and is made anew should it fail; orders that were waiting then fail with the reason.
 */
export class Press {
  private worker: Worker | null = null;
  private next = 0;
  private readonly waiting = new Map<number, Waiting>();

  print(order: PrintOrder): Promise<Buffer> {
    if (!existsSync(threadFile)) return print(order);
    const worker = (this.worker ??= this.start());
    const id = this.next++;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      worker.postMessage({ id, order });
    });
  }

  private start(): Worker {
    const worker = new Worker(threadFile);
    worker.unref();
    worker.on('message', (reply: Reply) => {
      const waiting = this.waiting.get(reply.id);
      this.waiting.delete(reply.id);
      if ('error' in reply) waiting?.reject(new Error(reply.error));
      else waiting?.resolve(Buffer.from(reply.bytes.buffer, reply.bytes.byteOffset, reply.bytes.byteLength));
    });
    const fail = (error: Error): void => {
      if (this.worker === worker) this.worker = null;
      for (const { reject } of this.waiting.values()) reject(error);
      this.waiting.clear();
    };
    worker.on('error', fail);
    worker.on('exit', () => fail(new Error('The printing thread has ended.')));
    return worker;
  }

  async close(): Promise<void> {
    await this.worker?.terminate();
  }
}
