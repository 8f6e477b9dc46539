import { describe, expect, test } from '@jest/globals';
import { contract, type Name } from './contract.ts';
import { isRaw, type Endpoint } from './endpoint.ts';
import { pathTo } from './path.ts';

describe('the path of a call', () => {
  test('has its parts filled in and its query behind it, whatever letters they have', () => {
    expect(
      pathTo('GET /projects/:project/sheets/:sheet/svg', { params: { project: 'a', sheet: 'b/ü' } }),
    ).toBe('/projects/a/sheets/b%2F%C3%BC/svg');
    const query = { plan: undefined, scope: '', format: 'csv & more' };
    expect(
      pathTo('GET /projects/:project/reports/:report', { params: { project: 'p', report: 'ip' }, query }),
    ).toBe('/projects/p/reports/ip?scope=&format=csv+%26+more');
    expect(pathTo('GET /health', {})).toBe('/health');
  });
});

describe('the contract', () => {
  const all = Object.entries(contract as Record<Name, Endpoint>);

  test('says of every call what it answers, and nothing twice', () => {
    for (const [name, { answers, files, job, body, access, network }] of all) {
      expect(name).toMatch(/^(GET|POST|PUT|DELETE) \/[\w/:.-]+$/);
      // Whoever waits for a job is told what came of it.
      if (job !== undefined) expect([name, answers ?? files]).toEqual([name, expect.anything()]);
      if (name.startsWith('GET'))
        expect([name, body, answers ?? files]).toEqual([name, undefined, expect.anything()]);
      if (body !== undefined && isRaw(body)) expect(body.limit).toBeGreaterThan(1024);
      // A network is that of the project in the path; who writes into it is an editor at least.
      if (network !== undefined) expect([name, name.includes('/projects/:project/')]).toEqual([name, true]);
      if (network === 'write') expect(['editor', 'owner']).toContain(access);
    }
    expect(all.length).toBeGreaterThan(30);
  });
});
