/** How it is run: TLS, cookies, metrics, and what happens at its end. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { once } from 'node:events';
import { request } from 'node:https';
import { WebSocket } from 'ws';
import { atHand, Caller, testServer, type AtHand, type TestServer } from './testServer.ts';
import { testTls } from './testing/testTls.ts';

let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

interface Told {
  status: number;
  headers: Readonly<Record<string, string | string[] | undefined>>;
}
/** A call over TLS whose certificate is the test's own. */
const overTls = (url: string, method: string, body?: object): Promise<Told> =>
  new Promise((resolve, reject) => {
    const sent = request(
      url,
      { method, ca: testTls.cert, servername: 'localhost', headers: { 'Content-Type': 'application/json' } },
      (reply) => {
        reply.resume();
        resolve({ status: reply.statusCode ?? 0, headers: reply.headers });
      },
    );
    sent.on('error', reject);
    sent.end(body === undefined ? undefined : JSON.stringify(body));
  });
const credentials = { email: 'ben@marrow.example', password: 'ferry-lamp-seven' };

test('over TLS: cookies go over it alone, and browsers are told to come back over it', async () => {
  const secure = await server.second({ tls: testTls });
  expect(secure.url).toMatch(/^https:/);
  const signedIn = await overTls(`${secure.url}/api/v1/session`, 'POST', credentials);
  expect(signedIn.status).toBe(200);
  expect(String(signedIn.headers['set-cookie'])).toMatch(/; Secure/);
  expect(signedIn.headers['strict-transport-security']).toContain('max-age=31536000');
});

test('behind a proxy that ends TLS: its word is taken where it is trusted, and no cookie goes out without', async () => {
  const behind = await server.second({ trustedProxies: ['loopback'], secureCookies: 'always' });
  const signIn = async (headers: Record<string, string>): Promise<string | null> =>
    (await new Caller(behind.url).call('POST', '/session', credentials, headers)).headers.get('set-cookie');
  expect(await signIn({ 'X-Forwarded-Proto': 'https' })).toMatch(/; Secure/);
  expect(await signIn({})).toBeNull();
  // One that nobody trusts may say what it likes.
  const open = await server.second();
  const cookie = await new Caller(open.url).call('POST', '/session', credentials, {
    'X-Forwarded-Proto': 'https',
  });
  expect(cookie.headers.get('set-cookie')).not.toMatch(/; Secure/);
});

test('metrics are told at an address of their own, by calls and not by ids', async () => {
  const watched = await server.second({ metrics: { host: '127.0.0.1', port: 0 } });
  const ben = await new Caller(watched.url).signIn('ben@marrow.example');
  await ben.call('GET', hand.at('network'));
  await ben.call('GET', hand.at('findings'));
  const text = await (await fetch(watched.metricsUrl ?? '')).text();
  expect(text).toMatch(
    /visograph_request_seconds_count\{call="GET \/projects\/:project\/network",status="200"\} 1/,
  );
  expect(text).toContain('visograph_windows 0');
  expect(text).toMatch(/visograph_rows_in_memory [1-9]\d*/);
  expect(text).toMatch(/nodejs_eventloop_lag_p99_seconds \d/);
  expect(text).not.toContain(hand.projectId);
  expect((await fetch(`${watched.url}/metrics`)).status).toBe(404);
});

test('at its end windows are told, what is under way is answered, and nothing new is taken', async () => {
  const ending = await server.second();
  const ben = await new Caller(ending.url).signIn('ben@marrow.example');
  const socket = new WebSocket(`${ending.url.replace('http', 'ws')}/api/v1${hand.at('live')}`, {
    headers: { Cookie: ben.cookies },
  });
  await once(socket, 'open');
  const closed = once(socket, 'close');
  const calls = Array.from({ length: 20 }, () => ben.call('GET', hand.at('network')));
  const slow = Promise.all(calls);
  // The others are under way once the first is answered.
  await Promise.race(calls);
  const stopped = ending.stop();
  const [code] = (await closed) as [number];
  expect(code).toBe(1001);
  const statuses = (await slow.catch(() => [])).map(({ status }) => status);
  expect(statuses.every((status) => status === 200)).toBe(true);
  await stopped;
  await expect(fetch(`${ending.url}/api/v1/health`)).rejects.toThrow();
});
