/** What jsdom leaves out and our components' libraries expect. */
import { TextDecoder, TextEncoder } from 'node:util';

class NoResize {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
Object.assign(globalThis, { TextEncoder, TextDecoder, ResizeObserver: NoResize });
globalThis.CSS ??= { escape: (text: string) => text } as typeof CSS;
