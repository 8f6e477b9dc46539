/** What whoever runs the server does by the command line, on the database of DATABASE_URL. */
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { listPeople, passwordLink, removePerson } from './people.ts';
import { archiveProject, CannotDo, restoreProject } from './projectArchive.ts';

const usage = `visograph people                          all accounts, with their projects
visograph new-password ADDRESS            a link for a new password, to hand to its person
visograph remove-account ADDRESS          removes an account; history keeps the name
visograph archive PROJECT --to FILE       a project with members, plans and history into one file
visograph restore-project --from FILE     brings it back, where it is not there`;

/** Where people open it, if that is set. */
const whole = (path: string): string =>
  `${(process.env['VISOGRAPH_ADDRESS'] ?? '').replace(/\/+$/, '')}${path}`;

const url = process.env['DATABASE_URL'] ?? '';
const acts: Record<string, (said: string | undefined, to?: string, from?: string) => Promise<string> | null> =
  {
    people: async () => (await listPeople(url)).join('\n'),
    'new-password': (said) =>
      said === undefined
        ? null
        : passwordLink(url, said).then(
            (path) => `${whole(path)}\nIt works once, within a day, at the address that people open.`,
          ),
    'remove-account': (said) =>
      said === undefined ? null : removePerson(url, said).then((email) => `${email} is removed.`),
    archive: (said, to) =>
      said === undefined || to === undefined
        ? null
        : archiveProject(url, said, resolve(to)).then(({ name, rows }) => `${to}: ${name}, ${rows} rows.`),
    'restore-project': (_said, _to, from) =>
      from === undefined
        ? null
        : restoreProject(url, resolve(from)).then(({ name, rows }) => `${name} is back: ${rows} rows.`),
  };

try {
  const { values, positionals } = parseArgs({
    args: process.argv.slice(2),
    options: { to: { type: 'string' }, from: { type: 'string' } },
    allowPositionals: true,
  });
  const told = acts[positionals[0] ?? '']?.(positionals[1], values.to, values.from) ?? null;
  if (told === null) {
    console.error(usage);
    process.exitCode = 2;
  } else console.log(await told);
} catch (error) {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  const known = error instanceof CannotDo || code.startsWith('ERR_PARSE_ARGS');
  // What a file or the database says of itself is told as it is; a fault of ours with where it happened.
  console.error(error instanceof Error && (known || code !== '') ? error.message : error);
  process.exitCode = known ? 2 : 1;
}
