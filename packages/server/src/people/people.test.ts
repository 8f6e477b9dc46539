/** Accounts, invitations, passwords, sessions. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { newId } from '@visograph/core/model';
import { WebSocket } from 'ws';
import { mailServer } from '../testing/mailServer.ts';
import { accept, begin, placeIn, projectsOf, type Sent, type Told } from '../testing/membership.ts';
import { atHand, Caller, testServer, type AtHand, type TestServer } from '../testServer.ts';

const password = 'ferry-lamp-seven';
let mail: Awaited<ReturnType<typeof mailServer>>;
let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  mail = await mailServer();
  server = await testServer({
    mail: { server: mail.url, from: 'visograph@marrow.example', address: 'https://nets.marrow.example/' },
  });
  hand = await atHand(server);
}, 60_000);
afterAll(async () => {
  await server.end();
  await mail.end();
});

const invite = async (who: Caller, project: string, email: string, role = 'editor') => {
  const reply = await who.call<Sent>('POST', `/projects/${project}/invitations`, { email, role });
  if (reply.status === 200) await mail.next();
  return reply;
};
/** Somebody new, in a project of Anna's that nobody else is in. */
async function newcomer(name: string): Promise<{ who: Caller; email: string; id: string }> {
  const project = await begin(hand.anna, `For ${name}`);
  const email = `${name.toLowerCase()}@marrow.example`;
  const { body } = await invite(hand.anna, project, email, 'reader');
  const who = await server.caller();
  const reply = await accept(who, body.key, { name, email, password });
  if (reply.status !== 200) throw new Error(reply.text);
  return { who, email, id: reply.body.account.id };
}
/** An open window of somebody, and with what it is closed. */
async function windowOf(who: Caller, project: string): Promise<[WebSocket, Promise<unknown>]> {
  const socket = new WebSocket(`${server.url.replace('http', 'ws')}/api/v1/projects/${project}/live`, {
    headers: { Cookie: who.cookies },
  });
  await new Promise((open) => socket.once('open', open));
  return [socket, new Promise((resolve) => socket.once('close', resolve))];
}

describe('invitations', () => {
  test('a link makes an account and lets in, once', async () => {
    const project = await begin(hand.anna, 'Link');
    const sent = await hand.anna.call<Sent>('POST', `/projects/${project}/invitations`, {
      email: ' Nora@Marrow.example'.trim(),
      role: 'editor',
    });
    expect(sent.body).toMatchObject({ email: 'nora@marrow.example', role: 'editor', mailed: true });
    const letter = await mail.next();
    expect(letter).toMatchObject({ from: 'visograph@marrow.example', to: ['nora@marrow.example'] });
    // Where it leads to is set, not what a request said of itself.
    expect(letter.text).toContain(`https://nets.marrow.example/join#${sent.body.key}`);
    const nora = await server.caller();
    const look = await nora.call('POST', '/invitations/look', { key: sent.body.key });
    expect(look.body).toMatchObject({ project: 'Link', role: 'editor', by: 'Anna Kerr' });
    const account = { name: 'Nora Lind', email: 'nora@marrow.example', password };
    const short = await accept(nora, sent.body.key, { ...account, password: 'eleven char' });
    expect([short.status, short.body.detail]).toEqual([400, expect.stringContaining('12 characters')]);
    const joined = await accept(nora, sent.body.key, account);
    expect([joined.status, joined.body.projectId]).toEqual([200, project]);
    expect(await projectsOf(nora)).toMatchObject([{ name: 'Link', role: 'editor' }]);
    for (const again of [
      await accept(await server.caller(), sent.body.key, { ...account, email: 'other@marrow.example' }),
      await nora.call<Told>('POST', '/invitations/look', { key: sent.body.key }),
    ])
      expect([again.status, again.body.detail]).toEqual([410, expect.stringContaining('used already')]);
  });

  test('the key is not in the database, and outlives neither its term, nor a newer one, nor being taken back', async () => {
    const project = await begin(hand.anna, 'Terms');
    const at = `/projects/${project}/invitations`;
    const works = async (key: string): Promise<number> =>
      (await hand.rita.call('POST', '/invitations/look', { key })).status;
    const first = (await invite(hand.anna, project, 'kim@marrow.example')).body;
    const dump = JSON.stringify(await server.knex('invitation'));
    expect(dump).not.toContain(first.key);
    const second = (await invite(hand.anna, project, 'KIM@marrow.example', 'reader')).body;
    expect([await works(first.key), await works(second.key)]).toEqual([410, 200]);
    expect((await hand.anna.call('GET', at)).body).toMatchObject([
      { email: 'kim@marrow.example', role: 'reader' },
    ]);
    await server
      .knex('invitation')
      .where({ projectId: project })
      .update({ until: new Date(Date.now() - 1000) });
    expect(await works(second.key)).toBe(410);
    expect((await hand.anna.call('GET', at)).body).toEqual([]);
    const third = (await invite(hand.anna, project, 'kim@marrow.example')).body;
    expect((await hand.anna.call('DELETE', `${at}/${third.id}`)).status).toBe(204);
    expect((await hand.anna.call('DELETE', `${at}/${third.id}`)).status).toBe(404);
    expect(await works(third.key)).toBe(410);
    expect(await works('made up')).toBe(410);
  });

  test('an account that somebody made for the address of another gets nothing by a later invitation', async () => {
    // Mallory owns a project of her own and invites an address that is not hers, to take it.
    const { who: mallory } = await newcomer('Mallory');
    const bait = await begin(mallory, 'Bait');
    const trap = (await invite(mallory, bait, 'vera@marrow.example')).body;
    const squatter = await server.caller();
    await accept(squatter, trap.key, { name: 'Vera', email: 'vera@marrow.example', password });
    // Anna invites the address, knowing nothing of it.
    const real = await begin(hand.anna, 'Real');
    const link = (await invite(hand.anna, real, 'vera@marrow.example', 'owner')).body;
    expect((await projectsOf(squatter)).map(({ name }) => name)).toEqual(['Bait']);
    expect((await squatter.call('GET', `/projects/${real}/members`)).status).toBe(404);
    // Vera holds the link: it opens no account that is there, and lets her in with one of her own.
    const vera = await server.caller();
    const taken = await accept(vera, link.key, {
      name: 'Vera',
      email: 'vera@marrow.example',
      password: 'another-word-12',
    });
    expect([taken.status, taken.body.detail]).toEqual([409, expect.stringContaining('give another address')]);
    expect((await accept(vera, link.key)).status).toBe(401);
    expect(
      (await accept(vera, link.key, { name: 'Vera', email: 'vera.l@marrow.example', password })).status,
    ).toBe(200);
    expect((await squatter.call('POST', '/session', { email: 'vera@marrow.example', password })).status).toBe(
      200,
    );
    expect((await projectsOf(squatter)).map(({ name }) => name)).toEqual(['Bait']);
  });

  test('whoever is signed in comes as who they are; nothing is taken from a member', async () => {
    const project = await begin(hand.anna, 'Members');
    const toReader = (await invite(hand.anna, project, 'someone@marrow.example', 'reader')).body;
    // The owner opens her own link.
    expect((await accept(hand.anna, toReader.key)).status).toBe(200);
    expect(await projectsOf(hand.anna)).toContainEqual(
      expect.objectContaining({ id: project, role: 'owner' }),
    );
    const toEditor = (await invite(hand.anna, project, 'someone@marrow.example', 'editor')).body;
    const two = await Promise.all([accept(hand.ben, toEditor.key), accept(hand.rita, toEditor.key)]);
    expect(two.map(({ status }) => status).sort()).toEqual([200, 410]);
    const known = await hand.anna.call<Told>('POST', `/projects/${project}/invitations`, {
      email: two[0]?.status === 200 ? 'ben@marrow.example' : 'rita@marrow.example',
      role: 'reader',
    });
    expect([known.status, known.body.detail]).toEqual([422, expect.stringContaining('as editor')]);
  });

  test('two who take one address at the same moment: one gets it, the other is told, and may try again', async () => {
    const project = await begin(hand.anna, 'Address');
    const keys = [
      (await invite(hand.anna, project, 'one@marrow.example')).body.key,
      (await invite(hand.anna, project, 'two@marrow.example')).body.key,
    ];
    const account = { name: 'Same', email: 'same@marrow.example', password };
    const replies = await Promise.all(keys.map(async (key) => accept(await server.caller(), key, account)));
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409]);
    // Nothing was used up by the one that was refused.
    const left = keys[replies.findIndex(({ status }) => status === 409)] ?? '';
    const again = await accept(await server.caller(), left, { ...account, email: 'same2@marrow.example' });
    expect(again.status).toBe(200);
  });

  test('are an owner’s, and end with their being one', async () => {
    const project = await begin(hand.anna, 'Owners');
    const link = (await invite(hand.anna, project, 'ben@marrow.example', 'owner')).body;
    await accept(hand.ben, link.key);
    const byBen = (await invite(hand.ben, project, 'late@marrow.example', 'owner')).body;
    const { id } = (await hand.ben.call<{ account: { id: string } }>('GET', '/session')).body.account;
    const at = `/projects/${project}/members`;
    expect((await hand.anna.call('PUT', `${at}/${id}`, { role: 'editor' })).body).toMatchObject({
      role: 'editor',
    });
    expect((await hand.rita.call('POST', '/invitations/look', { key: byBen.key })).status).toBe(410);
    expect((await invite(hand.ben, project, 'late@marrow.example')).status).toBe(403);
    expect((await hand.anna.call('PUT', `${at}/${newId()}`, { role: 'editor' })).status).toBe(404);
  });

  test('are shown without a mail server, and when it does not answer', async () => {
    const without = await server.second({ mail: undefined });
    const deaf = await server.second({
      mail: {
        server: 'smtp://127.0.0.1:1',
        from: 'v@marrow.example',
        address: 'https://nets.marrow.example',
      },
    });
    for (const { url } of [without, deaf]) {
      const anna = await new Caller(url).signIn('anna@marrow.example');
      const project = await begin(anna, 'No mail');
      const reply = await anna.call<Sent>('POST', `/projects/${project}/invitations`, {
        email: 'lou@marrow.example',
        role: 'reader',
      });
      expect(reply.body).toMatchObject({ mailed: false, key: expect.stringMatching(/^[\w-]{43}$/) });
    }
    expect((await new Caller(without.url).call('GET', '/session')).body).toMatchObject({ mail: false });
  });
});

describe('passwords', () => {
  test('a changed one ends all other sessions, their windows too', async () => {
    const { who, email } = await newcomer('Pia');
    const project = (await projectsOf(who))[0]?.id ?? '';
    const other = await server
      .caller(email)
      .catch(async () => new Caller(server.url).signIn(email, password));
    const [, closed] = await windowOf(other, project);
    const [, ownClosed] = await windowOf(who, project);
    const wrong = await who.call<Told>('PUT', '/account/password', {
      current: 'no',
      password: 'quay-light-nine',
    });
    expect([wrong.status, wrong.body.detail]).toEqual([
      422,
      expect.stringContaining('current password is not right'),
    ]);
    const before = who.cookies;
    expect(
      (await who.call('PUT', '/account/password', { current: password, password: 'quay-light-nine' })).status,
    ).toBe(204);
    expect(await closed).toBe(4001);
    expect((await other.call('GET', '/projects')).status).toBe(401);
    expect([who.cookies !== before, (await who.call('GET', '/projects')).status]).toEqual([true, 200]);
    // The own window goes on under the new session, and ends with that.
    expect(await ownClosed).toBe(4001);
    const [next, nextClosed] = await windowOf(who, project);
    expect(next.readyState).toBe(WebSocket.OPEN);
    await who.call('DELETE', '/session');
    expect(await nextClosed).toBe(4001);
    expect((await other.call('POST', '/session', { email, password })).status).toBe(401);
    expect((await other.call('POST', '/session', { email, password: 'quay-light-nine' })).status).toBe(200);
  });

  test('guessing the current one is counted as guessing at sign-in is', async () => {
    const { email } = await newcomer('Guess');
    const strict = await server.second({ signInTries: 3 });
    const who = await new Caller(strict.url).signIn(email, password);
    const statuses: number[] = [];
    for (let turn = 0; turn < 5; turn++)
      statuses.push((await who.call('PUT', '/account/password', { current: 'x', password })).status);
    expect(statuses).toEqual([422, 422, 422, 429, 429]);
    await server.knex('sign_in_try').delete();
  });

  test('a new one comes by mail: the same answer for all, a link that works once and ends every session', async () => {
    const { who, email } = await newcomer('Rosa');
    const anyone = await server.caller();
    const asked = async (address: string): Promise<number> =>
      (await anyone.call('POST', '/password-resets', { email: address })).status;
    const before = mail.count();
    expect([
      await asked('nobody.there@marrow.example'),
      await asked(` ${email}`.trim().toUpperCase()),
    ]).toEqual([204, 204]);
    const letter = await mail.next();
    expect([letter.to, mail.count() - before]).toEqual([[email], 1]);
    const key = /https:\/\/nets\.marrow\.example\/reset#([\w-]+)/.exec(letter.text)?.[1] ?? '';
    const set = (word: string) => anyone.call<Told>('PUT', '/password-resets', { key, password: word });
    expect((await set('short')).status).toBe(400);
    expect((await set('tide-bell-three')).body).toMatchObject({ account: { email } });
    expect((await who.call('GET', '/projects')).status).toBe(401);
    expect((await set('tide-bell-four')).status).toBe(410);
    expect(
      (await (await server.caller()).call('POST', '/session', { email, password: 'tide-bell-three' })).status,
    ).toBe(200);
    // A second wish makes the first link worthless; so does the term.
    await asked(email);
    const second = /#([\w-]+)/.exec((await mail.next()).text)?.[1] ?? '';
    await server.knex('password_reset').update({ until: new Date(Date.now() - 1000) });
    expect((await anyone.call('PUT', '/password-resets', { key: second, password })).status).toBe(410);
    // Nobody's letter box is filled.
    expect([await asked(email), await asked(email), await asked(email)]).toEqual([204, 429, 429]);
    await mail.next();
  });
});

describe('the own account', () => {
  test('sessions are listed without what opens them, and ended one by one or all others', async () => {
    const { who, email } = await newcomer('Sven');
    const agent = 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Testzilla/128.0';
    const others = await Promise.all(
      [1, 2].map(async () => {
        const other = await server.caller();
        await other.call('POST', '/session', { email, password }, { 'User-Agent': agent });
        return other;
      }),
    );
    const list = async () =>
      (
        await who.call<{ id: string; own: boolean; program: string | null; since: string }[]>(
          'GET',
          '/account/sessions',
        )
      ).body;
    const all = await list();
    expect([all.length, all.filter(({ own }) => own).length]).toEqual([3, 1]);
    expect(all.filter(({ program }) => program?.includes('Linux') === true)).toHaveLength(2);
    const told = JSON.stringify(all);
    for (const { sid } of await server.knex('session').select('sid')) expect(told).not.toContain(sid);
    // Another person's session is not theirs to end.
    const [annas] = (await hand.anna.call<{ id: string }[]>('GET', '/account/sessions')).body;
    expect((await who.call('DELETE', `/account/sessions/${annas?.id ?? ''}`)).status).toBe(404);
    expect((await hand.anna.call('GET', '/projects')).status).toBe(200);
    const one = all.find(({ own }) => !own)?.id ?? '';
    expect((await who.call('DELETE', `/account/sessions/${one}`)).status).toBe(204);
    const still = await Promise.all(
      others.map(async (other) => (await other.call('GET', '/projects')).status),
    );
    expect(still.sort()).toEqual([200, 401]);
    expect((await who.call('DELETE', '/account/sessions')).status).toBe(204);
    expect((await list()).map(({ own }) => own)).toEqual([true]);
  });

  test('name and address change, the address by the password and to none that is taken', async () => {
    const { who, email } = await newcomer('Tove');
    const put = (body: object) => who.call<Told>('PUT', '/account', body);
    expect((await put({ name: 'Tove Brandt', email })).body).toMatchObject({ name: 'Tove Brandt' });
    expect((await put({ name: 'Tove', email: 'tove.b@marrow.example' })).body.detail).toContain(
      'needs your password',
    );
    expect((await put({ name: 'Tove', email: 'anna@marrow.example', password })).body.detail).toContain(
      'another account',
    );
    expect((await put({ name: 'Tove', email: 'Tove.B@marrow.example', password })).body).toMatchObject({
      email: 'tove.b@marrow.example',
    });
    await new Caller(server.url).signIn('tove.b@marrow.example', password);
  });

  test('is removed when no project is left without an owner; history keeps the name', async () => {
    const { who, id } = await newcomer('Uma');
    const project = await begin(who, 'Mine alone');
    await placeIn(who, project, 'Quay');
    const remove = (word = password) => who.call<Told>('POST', '/account/removal', { password: word });
    expect((await remove('wrong')).status).toBe(422);
    expect(await remove()).toMatchObject({
      status: 409,
      body: { detail: expect.stringContaining('Mine alone would be without an owner') },
    });
    await accept(hand.anna, (await invite(who, project, 'anna.k@marrow.example', 'owner')).body.key);
    expect((await remove()).status).toBe(204);
    expect((await who.call('GET', '/projects')).status).toBe(401);
    expect(await server.knex('account').where({ id })).toEqual([]);
    expect(await server.knex('session').whereRaw(`sess ->> 'accountId' = ?`, [id])).toEqual([]);
    const history = await hand.anna.call<{ author: string; sentence: string }[]>(
      'GET',
      `/projects/${project}/changes`,
    );
    expect(history.body[0]).toMatchObject({ author: 'Uma', sentence: 'Added Quay' });
  });

  test('two owners who leave at once: one stays', async () => {
    const [one, two] = [await newcomer('Vig'), await newcomer('Wim')];
    const project = await begin(one.who, 'Both leave');
    await accept(two.who, (await invite(one.who, project, 'x@marrow.example', 'owner')).body.key);
    const left = await Promise.all(
      [one, two].map(async ({ who }) => (await who.call('POST', '/account/removal', { password })).status),
    );
    expect(left.sort()).toEqual([204, 409]);
    expect(await server.knex('membership').where({ projectId: project, role: 'owner' })).toHaveLength(1);
  });
});
