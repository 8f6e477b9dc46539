import { kindNames, type Network } from '@visograph/core/model';
import type { Response } from 'express';
import { once } from 'node:events';
import { setImmediate as nextTurn } from 'node:timers/promises';

/** So many rows are written as JSON between two turns. */
const stride = 2000;

function* pieces(network: Network, head: object): Generator<string> {
  yield `${JSON.stringify(head).slice(0, -1)},"rows":{`;
  for (const [at, kind] of kindNames.entries()) {
    yield `${at === 0 ? '' : ','}${JSON.stringify(kind)}:[`;
    let rows: object[] = [];
    let begun = false;
    for (const row of network.all(kind)) {
      rows.push(row);
      if (rows.length < stride) continue;
      yield `${begun ? ',' : ''}${JSON.stringify(rows).slice(1, -1)}`;
      begun = true;
      rows = [];
    }
    if (rows.length > 0) yield `${begun ? ',' : ''}${JSON.stringify(rows).slice(1, -1)}`;
    yield ']';
  }
  yield '}}';
}

/** Until there is room for more, or nobody is there to read it. */
async function room(response: Response): Promise<void> {
  const over = new AbortController();
  const { signal } = over;
  await Promise.race([once(response, 'drain', { signal }), once(response, 'close', { signal })]).finally(() =>
    over.abort(),
  );
}

/** Answers with all rows of a network, in pieces, so that others are served between them. */
export async function sendNetwork(response: Response, network: Network, head: object): Promise<void> {
  response.type('application/json');
  let waiting = '';
  for (const piece of pieces(network, head)) {
    waiting += piece;
    if (waiting.length < 64 * 1024) continue;
    if (response.closed) return;
    if (!response.write(waiting)) await room(response);
    else await nextTurn();
    waiting = '';
  }
  response.end(waiting);
}
