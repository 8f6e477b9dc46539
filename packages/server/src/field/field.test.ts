import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import { documentedAccount, observedLists, type ObservedAccount } from '@visograph/core/cloud';
import { goodManners, simulateAccount, type SimulatedAccount } from '@visograph/field';
import { randomBytes } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { atHand, testServer, type AtHand, type TestServer } from '../testServer.ts';
import { readAccount } from './accountReader.ts';
import { opened, sealed } from './secrets.ts';

const secret = 'a-secret-of-the-account';
const signIn = { client: 'visograph', secret };

describe('credentials', () => {
  const key = randomBytes(32);

  test('come back with their key and for what they belong to alone', () => {
    const box = sealed(key, secret, 'one');
    expect(opened(key, box, 'one')).toBe(secret);
    expect(opened(key, box, 'other')).toBeNull();
    expect(opened(randomBytes(32), box, 'one')).toBeNull();
    expect(opened(key, box.subarray(0, 20), 'one')).toBeNull();
    expect(box.toString('latin1')).not.toContain(secret);
  });

  test('are never encrypted the same way twice, and one changed bit is noticed', () => {
    const [box, other] = [sealed(key, secret, 'one'), sealed(key, secret, 'one')];
    expect(box.equals(other)).toBe(false);
    for (let at = 0; at < box.length; at++) {
      const changed = Buffer.from(box);
      changed[at] = (changed[at] ?? 0) ^ 1;
      expect(opened(key, changed, 'one')).toBeNull();
    }
  });
});

describe('an account of the demo', () => {
  let server: TestServer;
  let hand: AtHand;
  let account: ObservedAccount;
  let simulated: SimulatedAccount;
  let placeId: string;
  const before = { ...process.env };
  const at = (what = ''): string => hand.at(`account-sources/${placeId}${what}`);

  beforeAll(async () => {
    server = await testServer();
    hand = await atHand(server);
    const network = await hand.network();
    placeId = [...network.all('place')].find(({ kind }) => kind === 'account')?.id ?? '';
    account = documentedAccount(network, placeId);
    simulated = await simulateAccount({ account, ...signIn, manners: { pageSize: 3 } });
    process.env['VISOGRAPH_SECRET_KEY'] = randomBytes(32).toString('hex');
    process.env['VISOGRAPH_FIELD_ORIGINS'] = simulated.url;
  });
  afterEach(() => void Object.assign(simulated.manners, { ...goodManners, pageSize: 3 }));
  afterAll(async () => {
    for (const name of ['VISOGRAPH_SECRET_KEY', 'VISOGRAPH_FIELD_ORIGINS'])
      if (before[name] === undefined) delete process.env[name];
      else process.env[name] = before[name];
    await simulated.stop();
    await server.end();
  });
  const reading = (): Promise<ObservedAccount> => {
    const told: [number, number][] = [];
    return readAccount(
      { url: simulated.url, ...signIn },
      { tell: (done, of) => void told.push([done, of]), patience: 1500, pause: 5 },
    ).then((read) => {
      const count = observedLists.reduce((sum, list) => sum + read[list].length, 0);
      expect(told.at(-1)).toEqual([count, count]);
      expect(told.every(([done], step) => step === 0 || done >= (told[step - 1]?.[0] ?? 0))).toBe(true);
      return read;
    });
  };

  test('is read page by page, whole', async () => {
    expect(await reading()).toEqual(account);
  });

  test('is read whole though a token expires in the middle, again and again', async () => {
    simulated.manners.tokenCalls = 4;
    expect(await reading()).toEqual(account);
  });

  test('is read whole though every third answer is that it is busy', async () => {
    simulated.manners.failEvery = 3;
    expect(await reading()).toEqual(account);
  });

  test('that is busy all the time says so after three tries', async () => {
    simulated.manners.failEvery = 1;
    await expect(reading()).rejects.toThrow(/gave no whole answer to \/counts, asked 3 times/);
  });

  test('that answers half is asked again, then said to', async () => {
    simulated.manners.half = 'subnets';
    await expect(reading()).rejects.toThrow(/gave no whole answer to \/subnets/);
  });

  test('that answers nonsense is told by list, item and field', async () => {
    simulated.manners.nonsense = 'rules';
    await expect(reading()).rejects.toThrow(
      /^Item 1 of rules is not what the account describes: \w+: .+Nothing was changed\.$/,
    );
  });

  test('that is too slow is given up', async () => {
    simulated.manners.slowMs = 4000;
    await expect(reading()).rejects.toThrow(/did not answer \/token within 1.5 s/);
  });

  test('that takes no sign-in says whom it did not take', async () => {
    await expect(
      readAccount({ url: simulated.url, client: 'nobody', secret }, { tell: () => undefined, pause: 1 }),
    ).rejects.toThrow(/does not take the client nobody/);
  });

  test('whose pages lead in a circle, or elsewhere, is not followed', async () => {
    const elsewhere = createServer((request, response) => {
      if (request.url === '/token') return void response.end(JSON.stringify({ token: 'x', seconds: 9 }));
      if (request.url === '/counts') return void response.end('{}');
      if (request.url?.startsWith('/networks') === true)
        return void response.end(JSON.stringify({ items: [], next: 'a' }));
      response.writeHead(302, { Location: simulated.url }).end();
    });
    await new Promise<void>((done) => elsewhere.listen(0, '127.0.0.1', done));
    const url = `http://127.0.0.1:${(elsewhere.address() as AddressInfo).port}`;
    await expect(readAccount({ url, ...signIn }, { tell: () => undefined, pause: 1 })).rejects.toThrow(
      /pages of networks lead in a circle/,
    );
    elsewhere.closeAllConnections();
    elsewhere.close();
  });

  test('an owner says where it is; its secret is kept encrypted and told to nobody', async () => {
    const { anna, ben, rita } = hand;
    expect((await anna.call('GET', at())).body).toEqual({ source: null });
    expect((await ben.call('PUT', at(), { url: simulated.url, ...signIn })).status).toBe(403);
    expect((await anna.call('PUT', at(), { url: simulated.url, ...signIn })).status).toBe(204);
    const told = await ben.call('GET', at());
    expect(told.body).toMatchObject({
      source: { url: simulated.url, client: 'visograph', madeBy: 'Anna Kerr' },
    });
    expect(told.text).not.toContain(secret);
    expect((await rita.call('GET', at())).status).toBe(403);
    const kept = await server.knex('account_source').first('secret');
    expect(Buffer.from(kept.secret).toString('latin1')).not.toContain(secret);
    // Neither the journal nor the exchange file knows of it.
    expect((await anna.call('GET', hand.at('exchange'))).text).not.toContain(secret);
  });

  test('it is read by a job, for editors; a reader may not', async () => {
    const { ben, rita } = hand;
    expect((await rita.call('POST', at('/read'))).status).toBe(403);
    const read = await ben.call('POST', at('/read'));
    expect([read.status, read.body]).toEqual([200, account]);
    simulated.manners.nonsense = 'networks';
    const nonsense = await ben.call<{ detail: string }>('POST', at('/read'));
    expect([nonsense.status, nonsense.body.detail]).toEqual([
      422,
      expect.stringMatching(/^Item 1 of networks is not what the account describes/),
    ]);
  });

  test('what the server may not call is refused before it is called, and so is a place that is no account', async () => {
    const { anna } = hand;
    const calls = simulated.calls();
    const elsewhere = await anna.call<{ detail: string }>('PUT', at(), {
      url: 'http://127.0.0.1:1',
      ...signIn,
    });
    expect([elsewhere.status, elsewhere.body.detail]).toEqual([
      422,
      'This server does not read from http://127.0.0.1:1. Whoever runs it adds that to VISOGRAPH_FIELD_ORIGINS.',
    ]);
    const network = await hand.network();
    const site = [...network.all('place')].find(({ kind }) => kind === 'site')?.id ?? '';
    const other = hand.at(`account-sources/${site}`);
    expect((await anna.call('PUT', other, { url: simulated.url, ...signIn })).status).toBe(404);
    expect((await anna.call('POST', `${other}/read`)).status).toBe(404);
    expect(simulated.calls()).toBe(calls);
  });

  test('without the key nothing is kept, and with another one nothing is read', async () => {
    const { anna } = hand;
    const key = process.env['VISOGRAPH_SECRET_KEY'];
    delete process.env['VISOGRAPH_SECRET_KEY'];
    const none = await anna.call<{ detail: string }>('PUT', at(), { url: simulated.url, ...signIn });
    process.env['VISOGRAPH_SECRET_KEY'] = key;
    expect([none.status, none.body.detail]).toEqual([409, expect.stringContaining('VISOGRAPH_SECRET_KEY')]);
    expect((await anna.call('DELETE', at())).status).toBe(204);
    expect((await anna.call('POST', at('/read'))).status).toBe(404);
  });
});
