/**
 * npm run abuse: attacks and heavy work against a server of its own, with what others notice meanwhile. Ends with 1 where
 * the server fails, dies or stops answering; `--short` leaves out what takes long.
 */
import type { Change } from '@visograph/core/change';
import { blankMark, blankPlace, newId, type Mark, type Sheet } from '@visograph/core/model';
import { connect } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { strToU8, zipSync } from 'fflate';
import { WebSocket } from 'ws';
import { ownServer } from './ownServer.ts';

const short = process.argv.includes('--short');
const { base, child, port, stop } = await ownServer('abuse', {
  VISOGRAPH_DEMO: process.env['VISOGRAPH_DEMO'] ?? '',
});
let alive = true;
child.once('exit', () => (alive = false));

interface Reply {
  status: number;
  text: string;
}
class Person {
  cookie = '';
  async call(method: string, path: string, body?: unknown, prefer = 'wait=110'): Promise<Reply> {
    const raw = body instanceof Uint8Array || typeof body === 'string';
    const response = await fetch(`${base}${path}`, {
      method,
      headers: { Cookie: this.cookie, Prefer: prefer, 'Content-Type': 'application/json' },
      ...(body === undefined ? {} : { body: raw ? (body as BodyInit) : JSON.stringify(body) }),
    });
    this.cookie = response.headers.get('set-cookie')?.split(';')[0] ?? this.cookie;
    return { status: response.status, text: await response.text() };
  }
  async signIn(email: string): Promise<this> {
    await this.call('POST', '/session', { email, password: 'ferry-lamp-seven' });
    return this;
  }
}
const [ben, rita, stranger] = [
  await new Person().signIn('ben@marrow.example'),
  await new Person().signIn('rita@marrow.example'),
  new Person(),
];
const project = (JSON.parse((await ben.call('GET', '/projects')).text) as { id: string }[])[0]?.id ?? '';
const at = (path: string): string => `/projects/${project}/${path}`;
interface Rows {
  rows: { sheet: Sheet[] };
}
const sheet = (JSON.parse((await ben.call('GET', at('network'))).text) as Rows).rows.sheet.find(
  ({ name }) => name === 'Kelder Quay · cabling',
);
if (sheet === undefined) throw new Error('the demo is not there');
const change = (changes: Partial<Change>[]): Promise<Reply> =>
  ben.call('POST', at('changes'), { id: newId(), sentence: 'Abuse', changes });
const mark = (fields: Partial<Mark>): Partial<Change> => {
  const id = newId();
  return {
    op: 'create',
    kind: 'mark',
    id,
    after: { ...blankMark, form: 'note', ...fields, id, sheetId: sheet.id },
  };
};
const spreadsheet = (rows: string, after = '', more: Record<string, Uint8Array> = {}): Uint8Array =>
  zipSync({
    'xl/worksheets/sheet1.xml': strToU8(`<worksheet><sheetData>${rows}</sheetData>${after}</worksheet>`),
    ...more,
  });
const svg = (inside: string): string =>
  `data:image/svg+xml;base64,${Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">${inside}</svg>`).toString('base64')}`;
const uses = Array.from(
  { length: 9 },
  (_, level) => `<g id="g${level + 1}">${`<use href="#g${level}"/>`.repeat(10)}</g>`,
);
const many = <T>(count: number, make: (at: number) => Promise<T>): Promise<T[]> =>
  Promise.all(Array.from({ length: count }, (_, index) => make(index)));
/** How often each answer came. */
const tally = (replies: readonly { status: number }[]): string =>
  [...new Set(replies.map(({ status }) => status))]
    .sort()
    .map((status) => `${status} × ${replies.filter((reply) => reply.status === status).length}`)
    .join(', ');
const told = ({ status, text }: Reply): string => {
  const detail = /"detail":"([^"]{0,70})/.exec(text)?.[1];
  return detail === undefined ? String(status) : `${status} ${detail}`;
};
const list = (rows: number): Uint8Array =>
  strToU8(
    `Label,A end,B end\n${Array.from({ length: rows }, (_, row) => `X-${row},kq-acc-9${row}:1,kq-acc-1:gi1/40`).join('\n')}\n`,
  );

interface Attack {
  what: string;
  long?: boolean;
  run: () => Promise<string>;
}
/** Made before anybody is measured: it takes this process a while. */
const bomb = spreadsheet('', '', { 'xl/zeros.bin': new Uint8Array(300 * 1024 * 1024) });
const brackets = '['.repeat(16 * 1024 * 1024 - 100);
const attacks: Attack[] = [
  {
    what: '6 × 16 MB of [ without a cookie',
    run: async () =>
      tally(
        await many(6, () =>
          stranger.call('POST', at('changes'), brackets).catch(() => ({ status: 401, text: '' })),
        ),
      ),
  },
  {
    what: '6 × 16 MB of [ by an editor',
    run: async () => tally(await many(6, () => ben.call('POST', at('changes'), brackets))),
  },
  {
    what: '100 requests that send their body a byte at a time',
    run: async () => {
      const sockets = Array.from({ length: 100 }, () => {
        const socket = connect(port, '127.0.0.1');
        socket.on('error', () => undefined);
        socket.write(`POST /api/v1${at('changes')} HTTP/1.1\r\nHost: x\r\nContent-Length: 1000000\r\n\r\n[`);
        return socket;
      });
      for (let turn = 0; turn < 20; turn++) {
        await wait(50);
        for (const socket of sockets) if (socket.writable) socket.write('[');
      }
      for (const socket of sockets) socket.destroy();
      return 'sent';
    },
  },
  {
    what: 'a workbook with a cell in column XFD',
    run: async () =>
      told(
        await ben.call(
          'POST',
          at('spreadsheet'),
          spreadsheet('<row r="1"><c r="XFD1" t="str"><v>x</v></c></row>'),
        ),
      ),
  },
  {
    what: 'a merged range over a whole sheet',
    run: async () =>
      told(
        await ben.call(
          'POST',
          at('spreadsheet'),
          spreadsheet('', '<mergeCells><mergeCell ref="A1:XFD1048576"/></mergeCells>'),
        ),
      ),
  },
  {
    what: '300 MB in 300 kB',
    run: async () => told(await ben.call('POST', at('cable-list'), bomb)),
  },
  {
    what: 'a picture that uses itself ten times over, nine deep',
    run: async () =>
      told(await change([mark({ form: 'picture', picture: svg(`<g id="g0"><rect/></g>${uses.join('')}`) })])),
  },
  {
    what: 'a picture that breaks off',
    run: async () =>
      told(
        await change([
          mark({
            form: 'picture',
            picture: `data:image/png;base64,${Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0x7f, 0xff, 0xff, 0xff]).toString('base64')}`,
          }),
        ]),
      ),
  },
  {
    what: 'notes: a word of 4,000 letters, 4,000 quotes, 1,333 lists; printed',
    run: async () => {
      const made = await change(
        ['W'.repeat(4000), '>'.repeat(4000), '1. '.repeat(1333)].map((text) => mark({ text })),
      );
      return `${told(made)}; ${(await ben.call('GET', at(`sheets/${sheet.id}/pdf`))).status}`;
    },
  },
  {
    what: 'one sheet printed 200 times over',
    run: async () =>
      told(
        await ben.call('POST', at('print'), { sheetIds: Array.from({ length: 200 }, () => sheet.id) }),
      ).slice(0, 3),
  },
  {
    what: 'a drawing on paper a hundred times too small',
    run: async () =>
      told(
        await ben.call('POST', at('print'), {
          sheetIds: [sheet.id],
          page: { fit: false, scale: 10, size: 'A4' },
        }),
      ),
  },
  {
    what: '40 prints at once of one person, then one of another',
    run: async () => {
      const body = { sheetIds: [sheet.id] };
      const begun = await many(40, () => ben.call('POST', at('print'), body, 'respond-async'));
      const theirs = await rita.call('GET', at(`sheets/${sheet.id}/svg`));
      for (const { status, text } of begun)
        if (status === 202) await ben.call('DELETE', `/jobs/${(JSON.parse(text) as { id: string }).id}`);
      return `${tally(begun)}; ${theirs.status}`;
    },
  },
  {
    what: 'JSON 200,000 deep in an exchange file',
    run: async () =>
      told(await ben.call('POST', at('exchange'), `${'{"a":'.repeat(200_000)}1${'}'.repeat(200_000)}`)),
  },
  {
    what: '300 passwords tried at 300 accounts',
    run: async () =>
      tally(
        await many(300, (index) =>
          new Person().call('POST', '/session', {
            email: `nobody${index}@marrow.example`,
            password: 'wrong',
          }),
        ),
      ),
  },
  {
    what: '200 windows of one person',
    run: async () => {
      const sockets = Array.from(
        { length: 200 },
        () =>
          new WebSocket(`${base.replace('http', 'ws')}${at('live')}`, { headers: { Cookie: rita.cookie } }),
      );
      const opened = await Promise.all(
        sockets.map(
          (socket) =>
            new Promise<boolean>((resolve) => {
              socket.once('open', () => resolve(true));
              socket.once('error', () => resolve(false));
            }),
        ),
      );
      for (const socket of sockets) socket.terminate();
      return `${opened.filter(Boolean).length} opened`;
    },
  },
  {
    what: '5,000 rows in one edit',
    run: async () =>
      told(
        await change(
          Array.from({ length: 5000 }, (_, index) => {
            const id = newId();
            return {
              op: 'create',
              kind: 'place',
              id,
              after: { ...blankPlace, id, name: `Abuse ${index}`, kind: 'site', parentId: null },
            };
          }),
        ),
      ).slice(0, 3),
  },
  {
    what: 'a cable list of 60,000 rows, none of which fits',
    long: true,
    run: async () => told(await ben.call('POST', at('cable-list'), list(60_000))).slice(0, 3),
  },
];

let bad = false;
console.log(`${'attack'.padEnd(66)} ${'seconds'.padStart(8)} ${'others waited'.padStart(14)}  answer`);
for (const { what, run } of attacks.filter(({ long }) => !short || long !== true)) {
  const waits: number[] = [];
  let going = true;
  const other = (async () => {
    while (going) {
      const started = performance.now();
      const { status } = await rita.call('GET', '/projects').catch(() => ({ status: 0 }));
      waits.push(performance.now() - started);
      if (status !== 200) bad = true;
      await wait(20);
    }
  })();
  const started = performance.now();
  const answer = await run().catch((error: unknown) => `failed: ${String(error)}`);
  going = false;
  await other;
  if (!alive || answer.startsWith('failed') || /\b5\d\d\b/.test(answer.slice(0, 60))) bad = true;
  const seconds = ((performance.now() - started) / 1000).toFixed(1);
  console.log(
    `${what.padEnd(66)} ${seconds.padStart(8)} ${`${Math.max(...waits).toFixed(0)} ms`.padStart(14)}  ${answer}`,
  );
  if (!alive) break;
}
await stop();
console.log(bad ? 'Something of it got through.' : 'Nothing of it stopped the server or anybody else.');
process.exit(bad ? 1 : 0);
