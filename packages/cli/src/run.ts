import { inForce } from '@visograph/core/lens';
import { projections } from '@visograph/core/model';
import { parseArgs } from 'node:util';
import type { Output } from './command.ts';
import { commands } from './commands.ts';
import { openFile } from './openFile.ts';

const usage = `visograph check FILE [--since FILE] [--fail-on bad|warn|none] [--on DAY] [--waived]
                 [--format text|json|junit]   findings in an exchange file; those alone that an earlier one had not
visograph run FILE DEVICE:PORT                trace the physical run from a port
visograph report FILE REPORT [--scope PATH] [--device NAME] [--format csv]
visograph report FILE --schedule NAME [--scope PATH] [--on DAY]  a schedule that is kept in the file
visograph parts FILE [--list NAME | --scope PATH] [--by section|supplier|place] [--on DAY]
                                              a parts list, and what keeps it from being ordered
visograph labels FILE [cables|devices|ports|racks|outlets] [--scope PATH] [--fresh]  texts in walking order
visograph draw FILE --projection ${projections.join('|')} --out FILE.svg [--scope PATH | --sheet NAME]
visograph draw FILE --projection elevation --rack NAME --out FILE.svg [--colour power]
visograph zone FILE [ZONE]                    a DNS zone file (RFC 1035), or the names of the zones
visograph hosts FILE                          a hosts file
visograph backup --to FILE                    the whole installation: accounts, projects, history
visograph restore --from FILE                 the same out of it, into an empty database

All take --json, and --built: what is built today, without what is only planned. Exit: 0 fine, 1 findings, 2 unusable input.
`;

const options = {
  json: { type: 'boolean' },
  format: { type: 'string' },
  scope: { type: 'string' },
  sheet: { type: 'string' },
  rack: { type: 'string' },
  colour: { type: 'string' },
  projection: { type: 'string' },
  device: { type: 'string' },
  out: { type: 'string' },
  since: { type: 'string' },
  'fail-on': { type: 'string' },
  on: { type: 'string' },
  schedule: { type: 'string' },
  list: { type: 'string' },
  by: { type: 'string' },
  fresh: { type: 'boolean' },
  waived: { type: 'boolean' },
  built: { type: 'boolean' },
  help: { type: 'boolean' },
} as const;

/** Runs one command line; gives the exit code. Answers go to `out`, everything else to `err`. */
export async function run(args: readonly string[], out: Output, err: Output): Promise<number> {
  let parsed;
  try {
    parsed = parseArgs({ args: [...args], options, allowPositionals: true });
  } catch (error) {
    err(`${error instanceof Error ? error.message : String(error)}\n\n${usage}`);
    return 2;
  }
  const { values, positionals } = parsed;
  const [name = '', path, ...rest] = positionals;
  const command = commands[name];
  if (values.help === true) {
    out(usage);
    return 0;
  }
  if (command === undefined || path === undefined) {
    err(command === undefined && name !== '' ? `There is no command ${name}.\n\n${usage}` : usage);
    return 2;
  }
  const file = await openFile(path);
  if (!file.ok) {
    const { problems } = file;
    if (values.json === true)
      out(`${JSON.stringify(name === 'check' ? { problems, findings: [] } : { problems }, null, 2)}\n`);
    else for (const problem of problems) err(`${problem.path}: ${problem.message}\n`);
    return 2;
  }
  const network = values.built === true ? inForce(file.network, { planned: false }) : file.network;
  return command({ network, rest, values, out, err });
}
