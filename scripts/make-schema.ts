/** Writes docs/visograph-exchange.schema.json from the format. */
import { exchangeJsonSchema } from '@visograph/core/exchange';
import { writeFileSync } from 'node:fs';

writeFileSync('docs/visograph-exchange.schema.json', `${JSON.stringify(exchangeJsonSchema(), null, 2)}\n`);
