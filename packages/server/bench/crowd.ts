/**
 * Part of npm run bench, by name: 50 people who edit and 200 who look, over HTTP and sockets, for five minutes on a
 * network of 10,000 devices; how long edits take, how late others see them, and how the server fares.
 */
import { writeExchange } from '@visograph/core/exchange';
import { Network, newId } from '@visograph/core/model';
import { editRow } from '@visograph/core/commands';
import { setTimeout as wait } from 'node:timers/promises';
import { WebSocket } from 'ws';
import { at, median, Report } from './figures.ts';
import { generate } from './generate.ts';
import { ownServer } from './ownServer.ts';

const [editors, readers] = [50, 200];
const minutes = Number(process.env['CROWD_MINUTES'] ?? 5);
/** Between two edits of one person: somebody who works without a pause. */
const betweenEdits = 4000;
/** A person has 30 windows at most, so the crowd is of more than nine. */
const windowsEach = 25;
const metricsPort = 19_464;

const report = new Report();
const { base, stop } = await ownServer('crowd', {
  VISOGRAPH_METRICS_PORT: String(metricsPort),
  VISOGRAPH_SIGNIN_TRIES: '1000',
  VISOGRAPH_JOB_MB: '4000',
});

/** While all is made ready, lines say nothing for longer than a server keeps them open. */
let keepAlive = false;
async function call<T>(cookie: string, method: string, path: string, body?: unknown): Promise<[T, string]> {
  const response = await fetch(`${base}${path}`, {
    method,
    headers: {
      ...(cookie === '' ? {} : { Cookie: cookie }),
      'Content-Type': 'application/json',
      Prefer: 'wait=110',
      ...(keepAlive ? {} : { Connection: 'close' }),
    },
    ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  });
  const text = await response.text();
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${text.slice(0, 300)}`);
  const fresh = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
  return [(text === '' ? null : JSON.parse(text)) as T, fresh];
}

const password = 'a long password';
const [, owner] = await call('', 'POST', '/first-account', {
  name: 'Owner',
  email: 'owner@bench.example',
  password,
});
const [{ id: projectId }] = await call<{ id: string }>(owner, 'POST', '/projects', { name: 'Crowd' });
const made = Network.of(generate(10_000, 100_000));
// In several files: one holds 40 MB at most.
const { cables = [], devices: boxes = [], ...rest } = writeExchange(made);
const bring = (part: object): Promise<unknown> =>
  call(
    owner,
    'POST',
    `/projects/${projectId}/exchange`,
    JSON.stringify({ format: rest.format, version: rest.version, ...part }),
  );
await bring(rest);
for (let from = 0; from < boxes.length; from += 2500)
  await bring({ devices: boxes.slice(from, from + 2500) });
for (let from = 0; from < cables.length; from += 50_000)
  await bring({ cables: cables.slice(from, from + 50_000) });
const [{ rows }] = await call<{ rows: Parameters<typeof Network.of>[0] }>(
  owner,
  'GET',
  `/projects/${projectId}/network`,
);
const network = Network.of(rows);
const devices = [...network.all('device')];
console.log(`${devices.length} devices, ${network.count('port')} ports, ${network.count('cable')} cables`);

const people = await Promise.all(
  Array.from({ length: Math.ceil((editors + readers) / windowsEach) }, async (_, who) => {
    const email = `p${who}@bench.example`;
    const [{ key }] = await call<{ key: string }>(owner, 'POST', `/projects/${projectId}/invitations`, {
      ...{ email, role: 'editor' },
    });
    const account = { name: `Person ${who}`, email, password };
    return (await call('', 'POST', '/invitations/accept', { key, account }))[1];
  }),
);
const cookieOf = (window: number): string => people[window % people.length] ?? owner;

/** When each edit was sent, by its id; what each window saw of it, and how late. */
const sent = new Map<string, number>();
const late: number[] = [];
const open = (window: number): Promise<WebSocket> =>
  new Promise((resolve, reject) => {
    const socket = new WebSocket(`${base.replace('http', 'ws')}/projects/${projectId}/live`, {
      headers: { Cookie: cookieOf(window) },
    });
    socket.on('message', (data: Buffer) => {
      const message = JSON.parse(String(data)) as { type: string; entry?: { id: string } };
      const started = sent.get(message.entry?.id ?? '');
      if (message.type === 'entry' && started !== undefined) late.push(performance.now() - started);
    });
    socket.once('open', () => resolve(socket));
    socket.once('error', reject);
  });
const sockets: WebSocket[] = [];
for (let window = 0; window < editors + readers; window++) sockets.push(await open(window));
console.log(`${sockets.length} windows of ${people.length} people`);

async function scraped(): Promise<Map<string, number>> {
  const text = await (await fetch(`http://127.0.0.1:${metricsPort}/metrics`)).text();
  return new Map(
    text.split('\n').flatMap((line): [string, number][] => {
      const [, name = '', value = ''] = /^(\w+) ([\d.e+-]+)$/i.exec(line) ?? [];
      return name === '' ? [] : [[name, Number(value)]];
    }),
  );
}

keepAlive = true;
const trips: number[] = [];
const reads: number[] = [];
const [loop, memory]: [number[], number[]] = [[], []];
const end = performance.now() + minutes * 60_000;
const going = (): boolean => performance.now() < end;
const editing = async (who: number): Promise<void> => {
  await wait((who / editors) * betweenEdits);
  for (let turn = 0; going(); turn++) {
    const device = devices[who * 150 + (turn % 150)];
    if (device === undefined) return;
    const { changes, sentence } = editRow(network, 'device', device, { notes: `edit ${turn}` });
    const before = turn < 150 ? changes : [];
    const id = newId();
    const started = performance.now();
    sent.set(id, started);
    await call(cookieOf(who), 'POST', `/projects/${projectId}/changes`, {
      id,
      changes: before.length > 0 ? before : changes,
      sentence,
    });
    trips.push(performance.now() - started);
    await wait(Math.max(0, betweenEdits - (performance.now() - started)));
  }
};
/** What people look at beside what comes by itself: history, members, where they left off. */
const reading = async (who: number): Promise<void> => {
  await wait((who / readers) * 10_000);
  while (going()) {
    const started = performance.now();
    await call(cookieOf(editors + who), 'GET', `/projects/${projectId}/changes`);
    reads.push(performance.now() - started);
    await wait(10_000);
  }
};
const watching = async (): Promise<void> => {
  while (going()) {
    await wait(5000);
    const now = await scraped();
    loop.push((now.get('nodejs_eventloop_lag_p99_seconds') ?? 0) * 1000);
    memory.push((now.get('process_resident_memory_bytes') ?? 0) / 1e6);
  }
};
await Promise.all([
  ...Array.from({ length: editors }, (_, who) => editing(who)),
  ...Array.from({ length: readers }, (_, who) => reading(who)),
  watching(),
]);
await wait(1000);
console.log(
  `${trips.length} edits, ${late.length} of ${trips.length * sockets.length} sights, ${reads.length} reads`,
);
const crowd = `${editors} who edit, ${readers} who look`;
report.note(`${crowd}: an edit, p50`, median(trips), 'ms', null);
report.note('  p95', at(trips, 0.95), 'ms', 100);
report.note('  p99', at(trips, 0.99), 'ms', null);
report.note('  seen by others, p50', median(late), 'ms', null);
report.note('  seen by others, p99', at(late, 0.99), 'ms', 300);
report.note('  a look into the history, p95', at(reads, 0.95), 'ms', null);
report.note('  event-loop delay, p99 of five seconds, the median of them', median(loop), 'ms', 50);
report.note('  event-loop delay, p99 of five seconds, the longest', Math.max(...loop), 'ms', null);
report.note('  memory of the server, at the end', memory.at(-1) ?? 0, 'MB', null);
report.note('  memory of the server, the most', Math.max(...memory), 'MB', null);
for (const socket of sockets) socket.terminate();
report.finish();
await stop();
process.exit(0);
