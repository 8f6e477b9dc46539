/** What jsdom leaves out and our components' libraries expect. */
import { TextDecoder, TextEncoder } from 'node:util';

class NoResize {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
const idle = (work: () => void): unknown => setTimeout(work, 0);
const notIdle = (waiting: ReturnType<typeof setTimeout>): void => clearTimeout(waiting);
Object.assign(globalThis, {
  ...{
    TextEncoder,
    TextDecoder,
    ResizeObserver: NoResize,
    requestIdleCallback: idle,
    cancelIdleCallback: notIdle,
  },
});
globalThis.CSS ??= { escape: (text: string) => text } as typeof CSS;
