import { to as copyTo } from 'pg-copy-streams';
import { StringDecoder } from 'node:string_decoder';
import type { ClientBase } from 'pg';

const escapes: Readonly<Record<string, string>> = { b: '\b', f: '\f', n: '\n', r: '\r', t: '\t', v: '\v' };
/** A value in the text format of COPY, as it was. */
export const unescaped = (text: string): string =>
  text.includes('\\') ? text.replaceAll(/\\(.)/g, (_, letter: string) => escapes[letter] ?? letter) : text;

/**
 * What a question answers, by COPY, in lines of its text format, as many at a time as come: the driver's own way costs
 * twice as much for hundreds of thousands of rows, and holds all of them first.
 */
export async function* rawLines(client: ClientBase, question: string): AsyncGenerator<string[]> {
  const decoder = new StringDecoder('utf8');
  let rest = '';
  for await (const chunk of client.query(copyTo(`COPY (${question}) TO STDOUT`))) {
    const lines = (rest + decoder.write(chunk as Buffer)).split('\n');
    rest = lines.pop() ?? '';
    if (lines.length > 0) yield lines;
  }
}

/** The same for a question of one column, each line as it was. */
export async function* copiedLines(client: ClientBase, question: string): AsyncGenerator<string[]> {
  for await (const lines of rawLines(client, question)) yield lines.map(unescaped);
}
