import { describe, expect, test } from '@jest/globals';
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
