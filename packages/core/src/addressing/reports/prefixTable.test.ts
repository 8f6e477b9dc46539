import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { update } from '../../change/change.ts';
import { changed } from '../../testing/testEdits.ts';
import { runs } from '../../testing/testRuns.ts';
import { parsePrefix } from '../../model/values/ip.ts';
import { blankPrefix, type Prefix } from '../../model/kinds/logical/prefix.ts';
import { newProject } from '../../model/kinds/sites/project.ts';
import { newId } from '../../model/values/ids.ts';
import { Network } from '../../model/network/network.ts';
import { planRows, prefixTable } from './addresses.ts';

const row = (prefix: string, fields: Partial<Prefix> = {}): Prefix => ({
  ...blankPrefix,
  id: newId(),
  prefix,
  ...fields,
});
const plan = (prefixes: Prefix[]): Network => Network.of({ project: [newProject('Test')], prefix: prefixes });
const texts = (network: Network, filter = '', open: string | null = null): string[] =>
  planRows(network, null, {
    scopeId: null,
    within: open === null ? null : parsePrefix(open),
    filter,
  }).rows.map((one) => one.prefix);

describe('rows of an address plan', () => {
  test('few are all listed, outer before inner, retired ones last; a filter reads prefix, name and gateway', () => {
    const network = plan([
      row('10.1.0.0/24', { name: 'Hall', gateway: '10.1.0.1' }),
      row('10.0.0.0/8', { role: 'pool' }),
      row('10.1.0.0/16', { role: 'pool' }),
      row('10.9.0.0/24', { status: 'retired' }),
      row('2001:db8::/64'),
    ]);
    expect(texts(network)).toEqual([
      '10.0.0.0/8',
      '10.1.0.0/16',
      '10.1.0.0/24',
      '2001:db8::/64',
      '10.9.0.0/24',
    ]);
    expect(texts(network, 'hall')).toEqual(['10.1.0.0/24']);
    expect(texts(network, '10.1.0.1')).toEqual(['10.1.0.0/24']);
    expect(
      prefixTable(
        network,
        planRows(network, null, { scopeId: null, within: null, filter: '10.0.0.0/8' }).rows,
      ).rows,
    ).toMatchObject([{ prefix: '10.0.0.0/8', taken: 1, use: 0.4 }]);
  });

  test('property: a filter finds the rows that say it, in order, none twice, whichever field says it', () => {
    const said = fc.constantFrom('Hall', 'hall 2', 'Kai İ', 'transit', '10.1', '', 'A\u0130b', 'pool');
    const rows = fc.uniqueArray(
      fc.record({
        at: fc.integer({ min: 0, max: 40 }),
        length: fc.integer({ min: 24, max: 28 }),
        name: fc.option(said, { nil: null }),
        role: fc.constantFrom('pool' as const, 'subnet' as const),
        retired: fc.boolean(),
      }),
      { maxLength: 25, selector: ({ at, length }) => `${at}/${length}` },
    );
    const words = fc.constantFrom('hall', '10.1', '4.0/2', ' ', 'hall pool', 'i', 'x', '0/24', 'İ', 'Pool ');
    fc.assert(
      fc.property(rows, words, (list, filter) => {
        const network = plan(
          list.map(({ at, length, name, role, retired }) =>
            row(`10.${at % 4}.${at}.0/${length}`, { name, role, status: retired ? 'retired' : 'active' }),
          ),
        );
        const wanted = filter.trim().toLowerCase();
        // Read one after the other, as the rows of the unfiltered list stand.
        const slowly = planRows(network, null, { scopeId: null, within: null, filter: '' }).rows.filter(
          (one) =>
            `${one.prefix} ${one.name ?? ''} ${one.role} ${one.gateway ?? ''}`.toLowerCase().includes(wanted),
        );
        expect(texts(network, filter)).toEqual(slowly.map(({ prefix }) => prefix));
      }),
      { numRuns: runs(80) },
    );
  });

  test('after an edit the filter finds what stands there now', () => {
    const hall = row('10.1.0.0/24', { name: 'Hall' });
    const before = plan([hall, row('10.2.0.0/24')]);
    expect(texts(before, 'hall')).toEqual(['10.1.0.0/24']);
    const after = changed(before, [update('prefix', hall, { name: 'Quay' })]);
    expect([texts(after, 'hall'), texts(after, 'quay'), texts(before, 'hall')]).toEqual([
      [],
      ['10.1.0.0/24'],
      ['10.1.0.0/24'],
    ]);
  });

  test('of very many those of the open pool are listed, and how many there are beside them', () => {
    const subnets = Array.from({ length: 5000 }, (_, n) => row(`10.${Math.floor(n / 250)}.${n % 250}.0/24`));
    const network = plan([
      row('10.0.0.0/8', { role: 'pool' }),
      row('10.3.0.0/16', { role: 'pool' }),
      ...subnets,
    ]);
    const found = planRows(network, null, { scopeId: null, within: parsePrefix('10.3.0.0/16'), filter: '' });
    expect(found.rows).toHaveLength(252);
    expect(found.rows.slice(0, 3).map((one) => one.prefix)).toEqual([
      '10.0.0.0/8',
      '10.3.0.0/16',
      '10.3.0.0/24',
    ]);
    expect(found.more).toBe(5002 - 252);
    expect(planRows(network, null, { scopeId: null, within: null, filter: '10.19.24' }).rows).toHaveLength(
      11,
    );
  });
});
