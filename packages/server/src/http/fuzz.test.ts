/** Whatever is sent to whatever call, the answer is never a fault of the server. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { kindNames, newId } from '@visograph/core/model';
import { lehmer, Maker, type Json, type Schema } from '../testing/fromSchema.ts';
import { atHand, Caller, testServer, type AtHand, type TestServer } from '../testServer.ts';

const seed = Number(process.env['VISOGRAPH_FUZZ_SEED'] ?? 20261130);
const requests = Number(process.env['VISOGRAPH_FUZZ_REQUESTS'] ?? 3000);
/** Every so many requests one is a job, which takes a process and longer. */
const jobEvery = 12;

interface Operation {
  method: string;
  path: string;
  parameters: { name: string; in: string }[];
  requestBody?: { content: Record<string, { schema?: Schema }> };
  responses: Record<string, unknown>;
}
let server: TestServer;
let hand: AtHand;
let operations: Operation[];
let rows: Record<string, Schema>;
let ids: string[];

beforeAll(async () => {
  server = await testServer({ signInTries: 5, workers: { short: 2, long: 1 } });
  hand = await atHand(server);
  const description = await hand.anna.call<{
    paths: Record<string, Record<string, Omit<Operation, 'method' | 'path'>>>;
    components: { schemas: Record<string, Schema> };
  }>('GET', '/openapi.json');
  rows = description.body.components.schemas;
  operations = Object.entries(description.body.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({
      ...operation,
      method: method.toUpperCase(),
      path,
    })),
  );
  // What ends the project for all, once it is granted, is played where it is meant: people.test.
  operations = operations.filter(({ path }) => !path.endsWith('/standing'));
  const network = await hand.network();
  ids = [
    hand.projectId,
    newId(),
    ...kindNames.flatMap((kind) => [...network.all(kind)].slice(0, 4).map(({ id }) => id)),
  ];
}, 60_000);
afterAll(async () => server.end());

const isJob = ({ method, path, responses }: Operation): boolean =>
  '202' in responses ||
  (method === 'GET' && /\/(svg|png|pdf|pages|graph|exchange|findings|reports)/.test(path));

/** Changes are made of rows as their kinds say; what else a body may hold is said where its call is. */
function bodyOf(make: Maker, { path, requestBody }: Operation): Json | string | Uint8Array | undefined {
  const [[type = '', { schema = {} }] = ['', {}]] = Object.entries(requestBody?.content ?? {});
  if (type === '') return undefined;
  if (type !== 'application/json') {
    const text = make.pick([
      '',
      '{}',
      '{"format":"visograph-exchange"}',
      'a,b\n1,2',
      '[[[[',
      'PK\u0003\u0004zzz',
      '\u0000\u0001',
    ]);
    return type === 'text/plain' ? text : new TextEncoder().encode(text);
  }
  const whole = make.of(schema);
  if (path.endsWith('/changes') && typeof whole === 'object' && whole !== null && !Array.isArray(whole)) {
    const kind = make.pick(kindNames);
    const row = make.of(rows[kind] ?? {});
    const after = make.chance(0.5) ? make.bent(row) : row;
    const op = make.pick(['create', 'update', 'delete']);
    const id =
      make.chance(0.5) && typeof row === 'object' && row !== null && !Array.isArray(row)
        ? (row['id'] ?? '')
        : make.id();
    const change = {
      op,
      kind,
      id,
      ...(op === 'create' ? {} : { before: row }),
      ...(op === 'delete' ? {} : { after }),
    };
    whole['id'] = newId();
    whole['changes'] = [change];
  }
  return make.chance(0.6) ? make.bent(whole) : whole;
}

async function ask(
  make: Maker,
  who: Caller,
  operation: Operation,
): Promise<{ status: number; told: string }> {
  const { method, parameters } = operation;
  const path = operation.path.replace('/api/v1', '').replaceAll(/\{(\w+)\}/g, (_all, name: string) => {
    if (name === 'project') return make.chance(0.9) ? hand.projectId : encodeURIComponent(make.id());
    if (make.chance(0.7)) return name === 'report' ? 'device-list' : make.id();
    return encodeURIComponent(
      make.pick(['x', '1', '%', '..', 'ÿ', '00000000-0000-0000-0000-000000000000', 'constructor']),
    );
  });
  const query = new URLSearchParams();
  for (const { name } of parameters.filter((one) => one.in === 'query'))
    if (make.chance(0.35))
      query.set(
        name,
        make.pick([
          '1',
          '0',
          '1.5',
          '-1',
          '',
          'x',
          '\u0000',
          '\ud800',
          '99999999999999999999',
          make.id(),
          '{"aEnd":2}',
          'null',
          '[]',
        ]),
      );
  const whole = query.size === 0 ? path : `${path}?${query.toString()}`;
  const body = bodyOf(make, operation);
  const prefer = { Prefer: make.chance(0.7) ? 'wait=20' : 'respond-async' };
  const reply = await who.call(method, whole, body === undefined && method !== 'GET' ? {} : body, prefer);
  return {
    status: reply.status,
    told: `${method} ${whole} ${JSON.stringify(body)?.slice(0, 600) ?? ''}\n${reply.text.slice(0, 300)}`,
  };
}

test(`${requests} requests made from the API's own description: none is answered by a fault`, async () => {
  const make = new Maker(lehmer(seed), ids);
  const [jobs, direct] = [operations.filter(isJob), operations.filter((one) => !isJob(one))];
  expect(jobs.length).toBeGreaterThan(10);
  const statuses = new Map<number, number>();
  const faults: string[] = [];
  let left = requests;
  const caller = async (): Promise<void> => {
    // Each has a session of their own: some sign out on the way.
    const own = async (): Promise<Caller> =>
      new Caller(server.url, false).signIn('anna@marrow.example').catch(() => new Caller(server.url, false));
    let who = await own();
    while (left-- > 0) {
      const operation = make.pick(left % jobEvery === 0 ? jobs : direct);
      const { status, told } = await ask(make, who, operation);
      statuses.set(status, (statuses.get(status) ?? 0) + 1);
      if (status >= 500) faults.push(`${status} ${told}`);
      if (/\/(session|sessions)$/.test(operation.path) && operation.method !== 'GET') who = await own();
    }
  };
  await Promise.all([caller(), caller(), caller(), caller()]);
  expect(faults.slice(0, 5)).toEqual([]);
  // They reach the calls: granted, refused for their form, refused for what they say.
  for (const status of [200, 400, 404, 422])
    expect([status, statuses.get(status) ?? 0]).not.toEqual([status, 0]);
}, 300_000);
