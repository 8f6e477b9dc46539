import { parseExchange, readExchange, type FileProblem } from '@visograph/core/exchange';
import { Network, newProject } from '@visograph/core/model';
import { readFile } from 'node:fs/promises';
import { resolve } from 'node:path';

export type OpenedFile = { ok: true; network: Network } | { ok: false; problems: FileProblem[] };

/** The network of an exchange file on its own; `-` reads standard input. */
export async function openFile(path: string): Promise<OpenedFile> {
  let text: string;
  try {
    text = await readFile(
      path === '-' ? '/dev/stdin' : resolve(process.env['INIT_CWD'] ?? '.', path),
      'utf8',
    );
  } catch (error) {
    const { code } = error as { code?: string };
    const why = code === 'ENOENT' ? 'there is no such file' : (code ?? String(error));
    return { ok: false, problems: [{ path: '$', message: `${path} cannot be opened: ${why}.` }] };
  }
  const parsed = parseExchange(text);
  if (!parsed.ok) return parsed;
  const start = Network.of({ project: [newProject('Project')] });
  const read = readExchange(start, parsed.data);
  return read.ok ? { ok: true, network: read.network } : read;
}
