import { runTs } from './run-ts.mjs';
await runTs('demo/kelderQuay.ts');
