/** Part of npm run bench: what others notice while somebody imports: reads and edits beside a list and a large file. */
import { writeExchange } from '@visograph/core/exchange';
import { blankPlace, Network, newId } from '@visograph/core/model';
import { setTimeout as wait } from 'node:timers/promises';
import { percentile, Report } from './figures.ts';
import { generate } from './generate.ts';
import { ownServer } from './ownServer.ts';

const report = new Report();
const { base, stop } = await ownServer('bench');
let cookie = '';
async function call<T>(method: string, path: string, body?: unknown, prefer = ''): Promise<T> {
  const raw = body instanceof Uint8Array || typeof body === 'string';
  const response = await fetch(`${base}${path}`, {
    method,
    headers: {
      // Making a large file takes longer than a server keeps a line open that says nothing.
      Connection: 'close',
      ...(cookie === '' ? {} : { Cookie: cookie }),
      ...(prefer === '' ? {} : { Prefer: prefer }),
      'Content-Type': 'application/json',
    },
    ...(body === undefined ? {} : { body: raw ? (body as BodyInit) : JSON.stringify(body) }),
  });
  cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
  const text = await response.text();
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${text.slice(0, 300)}`);
  return (text === '' ? null : JSON.parse(text)) as T;
}
const project = async (name: string): Promise<string> =>
  (await call<{ id: string }>('POST', '/projects', { name })).id;
const edit = (projectId: string, name: string): Promise<unknown> => {
  const id = newId();
  const after = { ...blankPlace, id, name, kind: 'site', parentId: null };
  return call('POST', `/projects/${projectId}/changes`, {
    ...{ id: newId(), sentence: `Added ${name}`, changes: [{ op: 'create', kind: 'place', id, after }] },
  });
};

interface Job {
  id: string;
  state: string;
}
/** The work of a job, with what its neighbours notice: in their own project, and in the one that is written. */
async function beside(
  title: string,
  projectId: string,
  neighbour: string,
  path: string,
  body: Uint8Array | string,
): Promise<void> {
  const [reads, edits, editsThere]: [number[], number[], number[]] = [[], [], []];
  let going = true;
  const timed = async (into: number[], every: number, work: () => Promise<unknown>): Promise<void> => {
    while (going) {
      const started = performance.now();
      await work();
      into.push(performance.now() - started);
      await wait(Math.max(5, every - (performance.now() - started)));
    }
  };
  const started = performance.now();
  const job = await call<Job>('POST', path, body, 'respond-async');
  let count = 0;
  const loops = [
    timed(reads, 40, () => call('GET', `/projects/${neighbour}/network`)),
    timed(edits, 100, () => edit(neighbour, `${title} ${count++}`)),
    timed(editsThere, 150, () => edit(projectId, `${title} there ${count++}`)),
  ];
  for (;;) {
    const { state } = await call<Job>('GET', `/jobs/${job.id}`);
    if (state === 'done') break;
    if (state === 'failed')
      throw new Error(`${title}: ${JSON.stringify(await call('GET', `/jobs/${job.id}`))}`);
    await wait(200);
  }
  report.note(`${title}: until it is done`, (performance.now() - started) / 1000, 's', null);
  const done = await call<Record<string, unknown>>('GET', `/jobs/${job.id}/result`);
  console.log(JSON.stringify({ ...done, results: undefined }).slice(0, 200));
  // What comes after it, such as the server's own reading of what was written, is part of it.
  await wait(3000);
  going = false;
  await Promise.all(loops);
  console.log(`${reads.length} reads, ${edits.length} edits, ${editsThere.length} in the same project`);
  report.note(`${title}: reads beside it, p99`, percentile(reads, 0.99), 'ms', 250);
  report.note(`${title}: reads beside it, the longest`, Math.max(...reads), 'ms', null);
  report.note(`${title}: edits beside it, p95`, percentile(edits, 0.95), 'ms', 300);
  report.note(`${title}: edits in the same project, p95`, percentile(editsThere, 0.95), 'ms', 300);
  report.note(`${title}: edits in the same project, the longest`, Math.max(...editsThere), 'ms', null);
}

await call('POST', '/first-account', {
  name: 'Bench',
  email: 'bench@example.org',
  password: 'a long password',
});
const neighbour = await project('Neighbour');
const lists = await project('List');
const rows = Array.from(
  { length: 100_000 },
  (_, at) => `sw-${Math.floor(at / 48)},gi1/${(at % 48) + 1},ph-${at},eth0`,
);
await beside(
  'a list of 100,000 cables',
  lists,
  neighbour,
  `/projects/${lists}/cable-list?make=1&write=1&all=1`,
  new TextEncoder().encode(`${rows.join('\n')}\n`),
);
const files = await project('File');
const made = generate(10_000, 20_000);
const network = Network.of(made);
const text = JSON.stringify(writeExchange(network));
console.log(`the file holds ${network.count('port')} ports in ${Math.round(text.length / 1024 / 1024)} MB`);
await beside('a file of 200,000 ports', files, neighbour, `/projects/${files}/exchange`, text);
report.finish();
await stop();
