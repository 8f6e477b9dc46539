import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../../change/apply.ts';
import type { Network } from '../../model/network/network.ts';
import { everyCloud } from '../../testing/testCloud.ts';
import { cloudOfMany } from '../../testing/testCloudOfMany.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { runs } from '../../testing/testRuns.ts';
import { accountDifferences, takeOver } from '../commands/takeOver.ts';
import { differencesOf, thingsOf, type Difference } from './differences.ts';
import { documentedAccount } from './documented.ts';
import { observedAccount, type ObservedAccount } from './observed.ts';

const accountOf = (network: Network): string => {
  const found = [...network.all('place')].find(({ kind }) => kind === 'account');
  if (found === undefined) throw new Error('no account');
  return found.id;
};
const factsOf = (observed: ObservedAccount) =>
  new Map([...thingsOf(observed)].map(([id, { facts }]) => [id, facts]));
const copied = (account: ObservedAccount): ObservedAccount =>
  observedAccount.parse(JSON.parse(JSON.stringify(account)));

/** Takes all of some differences over, and gives what then is documented. */
function after(network: Network, observed: ObservedAccount, differences: readonly Difference[]) {
  const done = takeOver(network, accountOf(network), differences, factsOf(observed));
  if (!done.attempt.ok) throw new Error(done.attempt.why);
  const applied = applyChanges(network, done.attempt.set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return { ...done, network: applied.network };
}

const demo = demoNetwork();
const read = documentedAccount(demo, accountOf(demo));

describe('what is documented of an account', () => {
  test.each([
    ['the demo', demo],
    ['a row of every kind', everyCloud()],
    ['many networks', cloudOfMany({ networks: 4, zones: 2, tiers: 3, instances: 3, rules: 3 })],
  ])('of %s differs in nothing from itself, and says no id of a row', (_name, network) => {
    const account = documentedAccount(network, accountOf(network));
    expect(observedAccount.safeParse(account).success).toBe(true);
    expect(differencesOf(account, account)).toEqual([]);
    expect(JSON.stringify(account)).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-/);
    expect(account.instances.length).toBeGreaterThan(0);
  });

  test('the same account in another order of its lists differs in nothing', () => {
    const turned = copied(read);
    for (const list of Object.values(turned)) list.reverse();
    expect(differencesOf(read, turned)).toEqual([]);
  });
});

describe('differences', () => {
  test('are told with what is documented and what was read', () => {
    const observed = copied(read);
    const web = observed.instances.find(({ name }) => name === 'cl-web-1');
    if (web === undefined) throw new Error('no instance');
    web.running = false;
    observed.routes = observed.routes.filter(
      ({ prefixListId, through }) => prefixListId !== null || through !== 'peering',
    );
    observed.rules.push({
      ...{ id: 'rule-x', ruleSetId: observed.ruleSets.find(({ name }) => name === 'service')?.id ?? '' },
      ...{ position: 990, direction: 'in', verdict: 'allow', protocol: 'TCP', ports: '22', prefix: null },
      ...{ prefixListId: null, peerSetId: null },
    });
    const found = accountDifferences(demo, accountOf(demo), observed);
    expect(found.map(({ sort, key, how, facts }) => [sort, key, how, facts])).toEqual([
      ['instance', 'cl-web-1', 'different', [{ name: 'running', documented: 'yes', observed: 'no' }]],
      ...found
        .filter(({ sort }) => sort === 'route')
        .map(({ sort, key, how, facts }) => [sort, key, how, facts]),
      ['rule', 'booking/service in allow TCP 22 everybody', 'not documented', []],
    ]);
    const routes = found.filter(({ sort }) => sort === 'route');
    expect(routes.length).toBeGreaterThan(0);
    expect(routes.every(({ how }) => how === 'not there')).toBe(true);
    // Half of them taken over: the other half is what differs then.
    const half = found.filter((_, at) => at % 2 === 0);
    const done = after(demo, observed, half);
    expect(done.left).toEqual([]);
    const rest = accountDifferences(done.network, accountOf(demo), observed).map(({ id }) => id);
    expect(rest).toEqual(found.filter((one) => !half.includes(one)).map(({ id }) => id));
  });

  test('what needs another thing first says so, and goes with it', () => {
    const observed = copied(read);
    observed.networks.push({ id: 'net-x', name: 'fresh', region: 'north-1', blocks: ['10.90.0.0/16'] });
    observed.subnets.push({
      ...{ id: 'subnet-x', name: 'a', networkId: 'net-x', zone: 'n1a', routeTableId: null },
      ...{ prefix: '10.90.0.0/24', v6Prefix: null },
    });
    observed.instances.push({
      ...{ id: 'vm-x', name: 'cl-new', networkId: 'net-x', region: 'north-1', role: 'VM', size: 'm1' },
      running: true,
    });
    observed.interfaces.push({
      ...{ id: 'nic-x', instanceId: 'vm-x', name: 'eth0', networkId: 'net-x' },
      ...{ addresses: ['10.90.0.9/24'], ruleSetIds: [] },
    });
    const found = accountDifferences(demo, accountOf(demo), observed);
    expect(found.map(({ sort }) => sort)).toEqual(['network', 'subnet', 'instance', 'interface']);
    const alone = takeOver(demo, accountOf(demo), found.slice(1, 2), factsOf(observed));
    expect(alone.attempt.ok).toBe(false);
    expect(alone.left.map(({ why }) => why)).toEqual([
      'The network fresh is not documented. Take that over first.',
    ]);
    const done = after(demo, observed, found);
    expect([done.taken.length, done.left]).toEqual([4, []]);
    expect(accountDifferences(done.network, accountOf(demo), observed)).toEqual([]);
  });

  test('an instance that is gone is retired, with all that is known of it', () => {
    const observed = copied(read);
    const gone = observed.instances.find(({ name }) => name === 'cl-web-2');
    observed.instances = observed.instances.filter((one) => one !== gone);
    observed.interfaces = observed.interfaces.filter(({ instanceId }) => instanceId !== gone?.id);
    observed.targets = observed.targets.filter(({ instanceId }) => instanceId !== gone?.id);
    observed.labels = observed.labels.filter(({ ofId }) => ofId !== gone?.id);
    const found = accountDifferences(demo, accountOf(demo), observed).filter(
      ({ sort }) => sort === 'instance',
    );
    const done = after(demo, observed, found);
    expect(done.network.findOne('deviceByName', 'cl-web-2')?.status).toBe('retired');
    expect(accountDifferences(done.network, accountOf(demo), observed)).toEqual([]);
  });
});

/** One thing that somebody did in the account and told nobody. */
type Drift = (account: ObservedAccount, roll: number) => void;
const at = <T>(list: readonly T[], roll: number): T | undefined => list[roll % Math.max(1, list.length)];
const drifts: Record<string, Drift> = {
  stopped: ({ instances }, roll) => void Object.assign(at(instances, roll) ?? {}, { running: false }),
  resized: ({ instances }, roll) => void Object.assign(at(instances, roll) ?? {}, { size: `s${roll}` }),
  'rule opened': ({ rules, ruleSets }, roll) => {
    const set = at(ruleSets, roll);
    if (set === undefined) return;
    rules.push({
      ...{ id: `r${roll}`, ruleSetId: set.id, position: 50_000 + roll, direction: 'in', verdict: 'allow' },
      ...{ protocol: 'UDP', ports: String(3000 + roll), prefix: null, prefixListId: null, peerSetId: null },
    });
  },
  'rule closed': (account, roll) => void account.rules.splice(roll % Math.max(1, account.rules.length), 1),
  'route gone': (account, roll) => void account.routes.splice(roll % Math.max(1, account.routes.length), 1),
  'route added': ({ routes, routeTables }, roll) => {
    const table = at(routeTables, roll);
    if (table === undefined) return;
    routes.push({
      ...{ id: `x${roll}`, routeTableId: table.id, prefix: `172.20.${roll}.0/24`, prefixListId: null },
      ...{ through: 'nowhere', throughId: null },
    });
  },
  'table untied': ({ subnets }, roll) => void Object.assign(at(subnets, roll) ?? {}, { routeTableId: null }),
  'set forgets': ({ ruleSets }, roll) => {
    const set = at(ruleSets, roll);
    if (set !== undefined) set.remembers = !set.remembers;
  },
  'address kept': ({ publicAddresses, networks }, roll) =>
    void publicAddresses.push({
      ...{ id: `p${roll}`, address: `198.51.100.${100 + roll}`, region: networks[0]?.region ?? null },
      ...{ stays: 'kept', interfaceId: null, gatewayId: null },
    }),
  'address turned': ({ publicAddresses, interfaces, gateways }, roll) => {
    const [nic, gateway] = [at(interfaces, roll), at(gateways, roll)];
    const to =
      roll % 3 === 0
        ? { interfaceId: null, gatewayId: null }
        : roll % 3 === 1
          ? { interfaceId: nic?.id ?? null, gatewayId: null }
          : { interfaceId: null, gatewayId: gateway?.id ?? null };
    Object.assign(at(publicAddresses, roll) ?? {}, to);
  },
  'address given back': ({ publicAddresses, labels }, roll) => {
    const gone = at(publicAddresses, roll);
    if (gone === undefined) return;
    publicAddresses.splice(publicAddresses.indexOf(gone), 1);
    for (const label of labels.filter(({ ofId }) => ofId === gone.id))
      labels.splice(labels.indexOf(label), 1);
  },
  'target turned': ({ targets }, roll) => void Object.assign(at(targets, roll) ?? {}, { port: 1000 + roll }),
  'target gone': ({ targets }, roll) => void targets.splice(roll % Math.max(1, targets.length), 1),
  'name added': ({ records, zones }, roll) => {
    const zone = at(zones, roll);
    if (zone === undefined) return;
    records.push({
      ...{ id: `d${roll}`, zoneId: zone.id, name: `drift-${roll}`, type: 'TXT' },
      ...{ value: `"said ${roll}"`, ttlS: roll % 2 === 0 ? null : 60 },
    });
  },
  'name gone': ({ records }, roll) => void records.splice(roll % Math.max(1, records.length), 1),
  'zone untied': ({ zones }, roll) => {
    const zone = at(
      zones.filter(({ isPrivate }) => !isPrivate),
      roll,
    );
    if (zone !== undefined) zone.networkIds = [];
  },
  'label set': ({ labels, instances, subnets }, roll) => {
    const of = roll % 2 === 0 ? ('instances' as const) : ('subnets' as const);
    const ids = (of === 'instances' ? instances : subnets).map(({ id }) => ({ id }));
    const thing = at(ids, roll);
    if (thing === undefined || labels.some(({ ofId, key }) => ofId === thing.id && key === 'drift')) return;
    labels.push({ id: `l${roll}`, of, ofId: thing.id, key: 'drift', value: String(roll) });
  },
  'label gone': ({ labels }, roll) => void labels.splice(roll % Math.max(1, labels.length), 1),
  'network added': ({ networks }, roll) =>
    void networks.push({
      ...{ id: `n${roll}`, name: `drift-${roll}`, region: networks[0]?.region ?? '' },
      blocks: [`10.${100 + roll}.0.0/16`],
    }),
};

test('property: whatever drifts in an account, taking all of it over leaves no difference', () => {
  const networks = [demo, cloudOfMany({ networks: 2, zones: 2, tiers: 3, instances: 2, rules: 2 })];
  const step = fc.record({
    what: fc.constantFrom(...Object.keys(drifts)),
    roll: fc.integer({ min: 0, max: 40 }),
  });
  fc.assert(
    fc.property(
      fc.nat({ max: networks.length - 1 }).map((which) => networks[which] ?? demo),
      fc.uniqueArray(step, { minLength: 1, maxLength: 8, selector: ({ what, roll }) => `${what} ${roll}` }),
      (network, steps) => {
        const observed = copied(documentedAccount(network, accountOf(network)));
        for (const { what, roll } of steps) drifts[what]?.(observed, roll);
        const found = accountDifferences(network, accountOf(network), observed);
        if (found.length === 0) return;
        const done = after(network, observed, found);
        expect([done.left, accountDifferences(done.network, accountOf(network), observed)]).toEqual([[], []]);
      },
    ),
    { numRuns: runs(25) },
  );
});

describe('addresses, targets, names and labels', () => {
  const told = (change: (account: ObservedAccount) => void) => {
    const observed = copied(read);
    change(observed);
    const found = accountDifferences(demo, accountOf(demo), observed);
    const done = after(demo, observed, found);
    expect([done.left, accountDifferences(done.network, accountOf(demo), observed)]).toEqual([[], []]);
    return { found, network: done.network };
  };

  test('are all told of the demo', () => {
    const counts = [read.publicAddresses, read.targets, read.zones, read.records, read.labels].map(
      ({ length }) => length > 0,
    );
    expect(counts).toEqual([true, true, true, true, true]);
    expect(read.publicAddresses.find(({ address }) => address === '203.0.113.30')?.gatewayId).not.toBeNull();
  });

  test('an address that somebody gave to a gateway stands for it from then on', () => {
    const { found, network } = told(({ publicAddresses, gateways }) => {
      const kept = publicAddresses.find(({ address }) => address === '203.0.113.40');
      Object.assign(kept ?? {}, { gatewayId: gateways.find(({ name }) => name === 'cl-gw-1')?.id });
    });
    expect(found).toMatchObject([
      {
        ...{ sort: 'public address', key: '203.0.113.40', how: 'different' },
        facts: [{ name: 'stands for', documented: '', observed: 'gateway cl-gw-1' }],
      },
    ]);
    const port = network.get('port', network.findOne('publicAddressByText', '203.0.113.40')?.portId ?? null);
    expect(network.get('device', port?.deviceId ?? null)?.name).toBe('cl-gw-1');
  });

  test('a label is told by what carries it, and is set and taken off alone', () => {
    const { found, network } = told(({ labels, instances }) => {
      const web = instances.find(({ name }) => name === 'cl-web-1');
      for (const label of labels.filter(({ ofId }) => ofId === web?.id)) label.value = '9999';
    });
    expect(found.map(({ sort, key }) => `${sort} ${key}`)).toEqual(['label instance cl-web-1 # cost-centre']);
    expect(network.findOne('deviceByName', 'cl-web-1')?.extra).toMatchObject({ 'cost-centre': '9999' });
  });

  test('what an instance leaves behind goes with it, and the retired one keeps its labels', () => {
    const { found, network } = told((observed) => {
      const web = observed.instances.find(({ name }) => name === 'cl-web-2');
      const of = (id: string | null): boolean => id === web?.id;
      observed.instances = observed.instances.filter((one) => one !== web);
      observed.interfaces = observed.interfaces.filter(({ instanceId }) => !of(instanceId));
      observed.targets = observed.targets.filter(({ instanceId }) => !of(instanceId));
      observed.labels = observed.labels.filter(({ ofId }) => !of(ofId));
    });
    expect(found.map(({ sort }) => sort)).toEqual(['instance', 'interface']);
    const retired = network.findOne('deviceByName', 'cl-web-2');
    expect([retired?.status, retired?.extra]).toEqual(['retired', { 'cost-centre': '4410' }]);
  });

  test('a private zone of a new name, with its records', () => {
    const { found, network } = told(({ zones, records, networks }) => {
      zones.push({ id: 'z', name: 'yard.example', isPrivate: true, networkIds: [networks[0]?.id ?? ''] });
      records.push({ id: 'r', zoneId: 'z', name: 'app', type: 'A', value: '10.64.1.9', ttlS: 60 });
    });
    expect(found.map(({ sort, key }) => `${sort} ${key}`)).toEqual([
      'zone yard.example (private)',
      'record yard.example (private) app A 10.64.1.9',
    ]);
    const zone = [...network.all('dnsZone')].find(({ name }) => name === 'yard.example');
    expect(network.find('zoneUsesByZone', zone?.id ?? '')).toHaveLength(1);
  });
});

test('a list that nothing uses any more is still there on both sides', () => {
  const observed = copied(read);
  expect(observed.prefixLists.length).toBeGreaterThan(0);
  observed.routes = observed.routes.filter(({ prefixListId }) => prefixListId === null);
  observed.rules = observed.rules.filter(({ prefixListId }) => prefixListId === null);
  const found = accountDifferences(demo, accountOf(demo), observed);
  expect(found.map(({ sort }) => sort)).not.toContain('list');
  const done = after(demo, observed, found);
  expect(accountDifferences(done.network, accountOf(demo), observed)).toEqual([]);
});

describe('an account that tells nonsense', () => {
  test('is not taken for one', () => {
    const broken: [string, (account: Record<string, unknown>) => void][] = [
      ['a list is missing', (account) => void delete account['routes']],
      ['a list is none', (account) => void (account['rules'] = 'none')],
      ['something is there that nobody knows', (account) => void (account['extra'] = [])],
    ];
    for (const [what, breakIt] of broken) {
      const account: Record<string, unknown> = { ...copied(read) };
      breakIt(account);
      expect([what, observedAccount.safeParse(account).success]).toEqual([what, false]);
    }
  });

  test('what names something that is not there is unknown, and is not taken over', () => {
    const observed = copied(read);
    const [first] = observed.rules;
    observed.rules.push({
      ...first,
      id: 'rule-y',
      ruleSetId: 'set-of-nobody',
    } as (typeof observed.rules)[number]);
    const found = accountDifferences(demo, accountOf(demo), observed);
    expect(found.map(({ key }) => key.split(' ')[0])).toEqual(['unknown/unknown']);
    const done = takeOver(demo, accountOf(demo), found, factsOf(observed));
    expect(done.left[0]?.why).toMatch(/^The network unknown is not documented/);
  });
});
