/**
 * A simulated cloud account that tells what is documented of the first account of an exchange file, and what somebody
 * did in it since: `main.mjs FILE`, with PORT, VISOGRAPH_FIELD_CLIENT and VISOGRAPH_FIELD_SECRET in the environment.
 */
import { documentedAccount } from '@visograph/core/cloud';
import { applyChanges } from '@visograph/core/change';
import { readExchange } from '@visograph/core/exchange';
import { Network, newProject } from '@visograph/core/model';
import { readFileSync } from 'node:fs';
import { drifted } from './drift.ts';
import { simulateAccount } from './simulatedAccount.ts';

const [file = ''] = process.argv.slice(2);
const start = Network.of({ project: [newProject('Account')] });
const read = readExchange(start, JSON.parse(readFileSync(file, 'utf8')));
const made = read.ok ? applyChanges(start, read.changes) : null;
if (made?.ok !== true) {
  console.error(`${file} cannot be read.`);
  process.exit(2);
}
const account = [...made.network.all('place')].find(({ kind }) => kind === 'account');
if (account === undefined) {
  console.error(`There is no account in ${file}.`);
  process.exit(2);
}
/** So much has happened in it that nobody wrote down. */
const undocumented = 5;
const simulated = await simulateAccount({
  account: drifted(documentedAccount(made.network, account.id), undocumented).account,
  client: process.env['VISOGRAPH_FIELD_CLIENT'] ?? 'visograph',
  secret: process.env['VISOGRAPH_FIELD_SECRET'] ?? 'ferry-lamp-seven',
  port: Number(process.env['PORT'] ?? 0),
});
console.log(`The simulated account ${account.name} is at ${simulated.url}`);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void simulated.stop());
