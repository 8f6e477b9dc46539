/** npm run schema: writes docs/visograph-exchange.schema.json from the code. */
import { runTs } from './run-ts.mjs';

await runTs('scripts/make-schema.ts');
