/** npm run gallery: draws the gallery and the sheets of the demo to docs/gallery. */
import { runTs } from './run-ts.mjs';

await runTs('scripts/make-gallery.ts');
