import { readFileSync } from 'node:fs';
import { applyChanges } from '../change/apply.ts';
import { readExchange } from '../exchange/read.ts';
import { newProject } from '../model/kinds/sites/project.ts';
import { Network } from '../model/network/network.ts';

let known: Network | null = null;

/** The demo network as its file has it; the same value for all tests of a file. */
export function demoNetwork(): Network {
  if (known !== null) return known;
  const file: unknown = JSON.parse(
    readFileSync(new URL('../../../../demo/marrow-sound-ferries.json', import.meta.url), 'utf8'),
  );
  const empty = Network.of({ project: [newProject('Marrow Sound Ferries')] });
  const read = readExchange(empty, file);
  if (!read.ok) throw new Error(read.problems.map(({ message }) => message).join('\n'));
  const made = applyChanges(empty, read.changes);
  if (!made.ok) throw new Error(made.problems.map(({ message }) => message).join('\n'));
  return (known = made.network);
}
