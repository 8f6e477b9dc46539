import { describe, expect, test } from '@jest/globals';
import { nothingObserved, observedAccount, observedLists, type ObservedAccount } from '@visograph/core/cloud';
import { z } from 'zod';
import { drifted } from './drift.ts';
import { accountOpenApi } from './openapi.ts';
import { simulateAccount } from './simulatedAccount.ts';

const small: ObservedAccount = {
  ...nothingObserved(),
  networks: [{ id: 'n1', name: 'one', region: 'north', blocks: ['10.1.0.0/16'] }],
  ruleSets: [{ id: 's1', name: 'web', networkId: 'n1', remembers: true, ordered: false }],
  subnets: [
    {
      ...{ id: 'u1', name: 'a', networkId: 'n1', zone: 'a', routeTableId: null },
      ...{ prefix: '10.1.0.0/24', v6Prefix: null },
    },
  ],
  instances: Array.from({ length: 5 }, (_, at) => ({
    ...{ id: `i${at}`, name: `web-${at}`, networkId: 'n1', region: 'north', role: 'VM' as const },
    ...{ size: 'm1', running: true },
  })),
  zones: [{ id: 'z1', name: 'one.example', isPrivate: true, networkIds: ['n1'] }],
  labels: [{ id: 'l1', of: 'instances', ofId: 'i0', key: 'owner', value: 'quay' }],
};

describe('drift', () => {
  test('is the same for the same number, leaves what it was given, and gives a whole account', () => {
    const before = JSON.stringify(small);
    const [one, other] = [drifted(small, 12), drifted(small, 12)];
    expect(one).toEqual(other);
    expect(JSON.stringify(small)).toBe(before);
    expect(observedAccount.safeParse(one.account).success).toBe(true);
    expect(one.done).toContain('stopped web-0');
    expect(one.done.length).toBeGreaterThan(8);
    expect(drifted(small, 0).account).toEqual(small);
  });

  test('of an account with nothing in it does nothing', () => {
    expect(drifted(nothingObserved(), 10)).toEqual({ account: nothingObserved(), done: [] });
  });
});

test('the interface is described: every list with the shape of its items', () => {
  const { paths } = z.object({ paths: z.record(z.string(), z.unknown()) }).parse(accountOpenApi());
  expect(Object.keys(paths)).toEqual(
    expect.arrayContaining(['/token', '/counts', ...observedLists.map((list) => `/${list}`)]),
  );
});

test('a simulated account: sign-in, pages, what is refused, and drift on request', async () => {
  const account = await simulateAccount({
    account: small,
    ...{ client: 'me', secret: 'mine', manners: { pageSize: 2 } },
  });
  const call = async (path: string, init: RequestInit = {}): Promise<[number, unknown]> => {
    const response = await fetch(`${account.url}${path}`, init);
    const text = await response.text();
    return [response.status, text === '' ? null : JSON.parse(text)];
  };
  const post = (body: unknown, token = ''): RequestInit => ({
    method: 'POST',
    headers: token === '' ? {} : { Authorization: `Bearer ${token}` },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });
  try {
    expect((await call('/instances'))[0]).toBe(401);
    expect((await call('/token', post({ client: 'me', secret: 'other' })))[0]).toBe(401);
    expect((await call('/token', post('{')))[0]).toBe(401);
    const [status, signed] = await call('/token', post({ client: 'me', secret: 'mine' }));
    const { token } = z.object({ token: z.string() }).parse(signed);
    expect(status).toBe(200);
    const as = { headers: { Authorization: `Bearer ${token}` } };
    const names: string[] = [];
    const page = z.object({ items: z.array(z.object({ name: z.string() })), next: z.string().nullable() });
    for (let next: string | null = '0'; next !== null;) {
      const read: z.infer<typeof page> = page.parse((await call(`/instances?after=${next}`, as))[1]);
      names.push(...read.items.map(({ name }) => name));
      next = read.next;
    }
    expect(names).toEqual(small.instances.map(({ name }) => name));
    expect(await call('/counts', as)).toEqual([200, expect.objectContaining({ instances: 5, rules: 0 })]);
    expect((await call('/instances?after=x', as))[0]).toBe(400);
    expect((await call('/elsewhere', as))[0]).toBe(404);
    expect((await call('/drift', post({ count: -1 }, token)))[0]).toBe(400);
    expect(await call('/drift', post({ count: 1 }, token))).toEqual([200, { done: ['stopped web-0'] }]);
    expect(account.account().instances[0]?.running).toBe(false);
    expect((await call('/manners', { ...as, method: 'PUT', body: '{"pageSize":0}' }))[0]).toBe(400);
    expect((await call('/manners', { ...as, method: 'PUT', body: '{"failEvery":1}' }))[0]).toBe(204);
    expect((await call('/counts', as))[0]).toBe(503);
  } finally {
    await account.stop();
  }
});
