import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { findingsOf } from '../../check/registry.ts';
import { newProject } from '../../model/kinds/sites/project.ts';
import { Network } from '../../model/network/network.ts';
import { holds, overlaps, parsePrefix, type IpPrefix } from '../../model/values/ip.ts';
import {
  doneIn as done,
  placeNamed,
  whyNot as why,
  subnetNamed,
  testCloud,
  testGateway,
  testInstance,
} from '../../testing/testCloud.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { deviceNamed, networkOf, portId } from '../../testing/testNetwork.ts';
import { runs } from '../../testing/testRuns.ts';
import { effectiveRoutes } from '../effectiveRoutes.ts';
import { networksIn, subnetsOf } from '../inventory.ts';
import { natureOf } from '../nature.ts';
import { rulesOf } from '../rules/letsPass.ts';
import { blockNeeded, cutBlock, lengthFor, type TierWish } from './cutBlock.ts';
import { freeBlock, poolsForClouds } from './freeBlock.ts';
import { addInstance, moveInstance, tieRuleSets } from './instances.ts';
import { attachToHub } from './hubs.ts';
import { addGateway, connectPremises, peerNetworks, whyNotJoin } from './join.ts';
import { meansOf, proposeNetwork } from './newNetwork.ts';
import { accountsOf, addAccount, addRegion, profilesToChoose } from './places.ts';
import {
  addRule,
  addRuleSet,
  anyRule,
  dropRule,
  moveRule,
  readPeer,
  readTraffic,
  ruleSentence,
} from './rules.ts';
import { addRoute, redirectRoute, tablesOf } from './tables.ts';

const prefixOf = (text: string): IpPrefix => {
  const read = parsePrefix(text);
  if (read === null) throw new Error(text);
  return read;
};

const empty = Network.of({ project: [newProject('Test')] });
const account = addAccount(empty, { name: 'acme', provider: 'Skerrane', region: 'north', zones: ['a', 'b'] });
const begun = done(empty, account);
const tiers: TierWish[] = [
  { name: 'web', nature: 'open', hosts: 20 },
  { name: 'service', nature: 'outward only', hosts: 400 },
  { name: 'data', nature: 'closed', hosts: 11 },
];
const wish = (network: Network, more: object = {}) => ({
  name: 'shop',
  regionId: placeNamed(network, 'north').id,
  zoneIds: ['a', 'b'].map((name) => placeNamed(network, name).id),
  block: '10.64.0.0/16',
  tiers,
  translation: 'in each zone' as const,
  ...more,
});

describe('accounts', () => {
  test('from nothing: the account, its provider, a region with zones', () => {
    expect(accountsOf(begun).map(({ name }) => name)).toEqual(['acme']);
    expect([...begun.all('providerProfile')].map(({ name }) => name)).toEqual(['Skerrane']);
    expect(profilesToChoose(begun).map(({ name }) => name)).toEqual(['Skerrane', 'Tornholt', 'Vellmark']);
    const [acme] = accountsOf(begun);
    if (acme === undefined) throw new Error('no account');
    const more = done(begun, addRegion(begun, acme, { name: 'south', zones: ['s1'] }));
    expect(more.count('place')).toBe(begun.count('place') + 2);
    expect(why(addAccount(begun, { name: 'b', provider: 'Nobody', region: '', zones: [] }))).toBe(
      'There is no provider profile Nobody.',
    );
    expect(why(addAccount(begun, { name: 'acme', provider: null, region: '', zones: [] }))).toContain('acme');
  });
});

describe('a new network by need', () => {
  test('sizes: hosts beside the five addresses that the provider keeps', () => {
    const [profile = null] = begun.all('providerProfile');
    // 11 + 5 fit into 16; 12 need the next larger; 28 is the smallest there is.
    expect([3, 11, 12, 27, 28, 251, 252].map((hosts) => lengthFor(profile, hosts))).toEqual([
      28, 28, 27, 27, 26, 24, 23,
    ]);
    expect(blockNeeded(profile, tiers, ['a', 'b'])).toBe(21);
  });

  test('three tiers in two zones: blocks aligned, tables tied, natures as wished, nothing found wrong', () => {
    const made = proposeNetwork(begun, wish(begun));
    const network = done(begun, made);
    const [shop] = networksIn(network, null);
    const subnets = subnetsOf(network, shop?.id ?? '');
    const told = subnets.map(
      (one) =>
        `${one.name} ${network.get('prefix', one.prefixId)?.prefix ?? ''} ${natureOf(network, one).nature}`,
    );
    expect(told).toEqual([
      'service-a 10.64.0.0/23 outward only',
      'web-a 10.64.4.0/27 open',
      'data-a 10.64.4.64/28 closed',
      'service-b 10.64.2.0/23 outward only',
      'web-b 10.64.4.32/27 open',
      'data-b 10.64.4.80/28 closed',
    ]);
    expect(subnets.every(({ routeTableId }) => routeTableId !== null)).toBe(true);
    const rules = new Set(findingsOf(network).map(({ rule }) => rule));
    // Until there are hosts nothing uses the rule sets; a new network is otherwise without a fault.
    expect([...rules].filter((rule) => rule !== 'cloud-rule-set-unused')).toEqual([]);
    expect([...network.all('gateway')].map(({ sort }) => sort).sort()).toEqual([
      'open gateway',
      'translating gateway',
      'translating gateway',
    ]);
    const sets = [...network.all('ruleSet')];
    const sentences = sets.flatMap((set) =>
      (['in', 'out'] as const).flatMap((direction) =>
        rulesOf(network, set.id, direction).map((rule) => `${set.name}: ${ruleSentence(network, rule)}`),
      ),
    );
    expect(sentences.sort()).toEqual([
      'data: allow https (TCP 443) from members of service',
      'service: allow https (TCP 443) from members of web',
      'service: allow https (TCP 443) to everybody',
      'web: allow https (TCP 443) from everybody',
      'web: allow https (TCP 443) to members of service',
    ]);
  });

  test('translating once is told with what it costs, and found as a risk', () => {
    const once = wish(begun, { translation: 'once' as const });
    expect(meansOf(begun, once)[0]).toBe(
      'With a lost, b can begin nothing outward; and all that b sends crosses zones, which is charged.',
    );
    const network = done(begun, proposeNetwork(begun, once));
    expect(findingsOf(network).map(({ rule }) => rule)).toContain('cloud-translation-across-zones');
  });

  test('what goes out by itself needs an open tier to stand beside', () => {
    const network = done(begun, proposeNetwork(begun, wish(begun, { tiers: tiers.slice(1, 2) })));
    const [shop] = networksIn(network, null);
    expect(new Set(subnetsOf(network, shop?.id ?? '').map((one) => natureOf(network, one).nature))).toEqual(
      new Set(['open', 'outward only']),
    );
  });

  test('what cannot be is told with the remedy', () => {
    const told = (more: object) => why(proposeNetwork(begun, wish(begun, more)));
    expect(told({ block: '10.64.0.0/24' })).toBe(
      '10.64.0.0/24 is too small: these hosts need a /21. Choose a larger block, or fewer hosts.',
    );
    expect(told({ block: '198.51.0.0/16' })).toContain('outside what private use allows');
    expect(told({ block: '10.0.0.0/8' })).toContain('takes blocks from /16 on');
    expect(told({ block: 'ten' })).toContain('“ten” is not a prefix');
    expect(told({ tiers: [] })).toContain('at least one tier');
    expect(told({ tiers: [tiers[0], tiers[0]] })).toContain('Two tiers have one name');
    const once = done(begun, proposeNetwork(begun, wish(begun)));
    expect(why(proposeNetwork(once, wish(once)))).toContain('shop');
  });

  test('property: whatever is wished, subnets are aligned in the block, apart, and have the room', () => {
    const tier = fc.record({
      name: fc.constantFrom('p', 'q', 'r', 's'),
      nature: fc.constantFrom('open' as const, 'outward only' as const, 'closed' as const),
      hosts: fc.integer({ min: 1, max: 3000 }),
    });
    fc.assert(
      fc.property(
        fc.uniqueArray(tier, { minLength: 1, maxLength: 4, selector: ({ name }) => name }),
        fc.integer({ min: 1, max: 2 }),
        (wished, zones) => {
          const [profile = null] = begun.all('providerProfile');
          const all = wish(begun, { tiers: wished });
          const zoneIds = all.zoneIds.slice(0, zones);
          const length = Math.max(16, blockNeeded(profile, wished, zoneIds));
          const plan = cutBlock(begun, { ...all, zoneIds, block: `10.64.0.0/${length}` });
          if ('why' in plan) return expect(blockNeeded(profile, wished, zoneIds)).toBeLessThan(16);
          const cut = plan.subnets.map(({ prefix }) => prefixOf(prefix));
          const block = prefixOf(`10.64.0.0/${length}`);
          expect(cut.every((one) => holds(block, one))).toBe(true);
          cut.forEach((one, at) =>
            expect(cut.slice(at + 1).some((other) => overlaps(one, other))).toBe(false),
          );
          for (const { prefix, tier: of } of plan.subnets) {
            const read = prefixOf(prefix);
            // A prefix is aligned when nothing is set behind its length.
            expect(read.value % (1n << BigInt(32 - read.length))).toBe(0n);
            expect(2 ** (32 - read.length) - 5).toBeGreaterThanOrEqual(of.hosts);
          }
          return undefined;
        },
      ),
      { numRuns: runs(60) },
    );
  });

  test('its block comes from the address plan, beside all that is there', () => {
    const demo = demoNetwork();
    const [pool] = poolsForClouds(demo);
    expect(pool?.prefix).toBe('10.64.0.0/14');
    if (pool === undefined) throw new Error('no pool');
    // 10.64.0.0/16 and 10.65.0.0/20 are blocks of networks; nothing says so in the plan itself.
    expect(freeBlock(demo, pool, 16)).toBe('10.66.0.0/16');
    expect(freeBlock(demo, pool, 20)).toBe('10.65.16.0/20');
    expect(freeBlock(demo, pool, 13)).toBeNull();
  });
});

describe('joining', () => {
  test('peering brings the routes of both sides; with oneself, twice or overlapping it is told', () => {
    const cloud = testCloud();
    const [one, two] = [placeNamed(cloud, 'one'), placeNamed(cloud, 'two')];
    const peered = done(cloud, peerNetworks(cloud, one, two));
    for (const [place, to] of [
      ['one', '10.2.0.0/16'],
      ['two', '10.1.0.0/16'],
    ] as const) {
      const routes = effectiveRoutes(peered, subnetNamed(peered, place, 'a')).routes;
      expect(routes.find(({ text }) => text === to)?.way.by).toBe('peering');
    }
    expect(findingsOf(peered).map(({ rule }) => rule)).not.toContain('cloud-peering-one-sided');
    expect(why(peerNetworks(cloud, one, one))).toContain('cannot be peered with itself');
    expect(why(peerNetworks(peered, two, one))).toContain('are peered by one-two already');
    expect(whyNotJoin(cloud, one, two)).toBeNull();
    const beside = testCloud({
      prefixes: [{ prefix: '10.1.128.0/20', vrf: 'two', role: 'pool', place: 'acct/north/two' }],
    });
    expect(whyNotJoin(beside, placeNamed(beside, 'one'), placeNamed(beside, 'two'))).toBe(
      '10.1.0.0/16 and 10.1.128.0/20 overlap: hosts of one would not be reached from the other.',
    );
  });

  test('a router of the region: attached with routes in each table in use', () => {
    const cloud = testCloud({
      devices: [testGateway('hub')],
      gateways: [{ device: 'hub', direction: 'between' }],
      routeTables: [{ hub: 'hub', name: 'all', learns: true }],
    });
    const hub = deviceNamed(cloud, 'hub');
    const attached = ['one', 'two'].reduce(
      (network, name) => done(network, attachToHub(network, placeNamed(network, name), hub, ['10.0.0.0/8'])),
      cloud,
    );
    const { routes } = effectiveRoutes(attached, subnetNamed(attached, 'one', 'a'));
    expect(routes.find(({ text }) => text === '10.0.0.0/8')?.way).toEqual({
      by: 'gateway',
      deviceId: hub.id,
    });
    expect(why(attachToHub(attached, placeNamed(attached, 'one'), hub, []))).toContain('one');
  });

  const premises = () => {
    const both = networkOf({
      vrfs: [{ name: 'ops' }],
      prefixes: [{ prefix: '10.43.0.0/24', vrf: 'ops', role: 'pool', name: 'Transit' }],
      devices: ['fw-1', 'fw-2'].map((name) => ({ name, role: 'FW' as const, ports: [{ name: 'x1' }] })),
    });
    const acct = done(
      both,
      addAccount(both, { name: 'acme', provider: 'Skerrane', region: 'north', zones: ['a', 'b'] }),
    );
    return done(acct, proposeNetwork(acct, wish(acct)));
  };
  const tied = (
    network: Network,
    routing: { by: 'BGP'; cloudAs: number; ownAs: number } | { by: 'static' },
  ) =>
    connectPremises(network, placeNamed(network, 'shop'), {
      ends: ['fw-1', 'fw-2'].map((name, at) => ({
        device: deviceNamed(network, name),
        over: network.get('port', portId(network, `${name}:x1`)),
        outer: `198.51.100.${at + 1}`,
      })),
      vrfId: network.findOne('vrfByName', 'ops')?.id ?? null,
      publicAddresses: ['203.0.113.1', '203.0.113.2'],
      routing,
      premises: ['10.40.0.0/14'],
    });

  test('the premises: two tunnels, addresses inside, BGP on both sides, routes learned in every table', () => {
    const start = premises();
    const network = done(start, tied(start, { by: 'BGP', cloudAs: 64600, ownAs: 64500 }));
    const at = (title: string) =>
      network.find('addressesByPort', portId(network, title)).map(({ address }) => address);
    expect([at('fw-1:tun0'), at('fw-2:tun0'), at('shop-vpn-1:tun1')]).toEqual([
      ['10.43.0.0/31'],
      ['10.43.0.2/31'],
      ['10.43.0.1/31'],
    ]);
    for (const subnet of subnetsOf(network, placeNamed(network, 'shop').id)) {
      const route = effectiveRoutes(network, subnet).routes.find(({ text }) => text === '10.40.0.0/14');
      expect([subnet.name, route?.source, route?.way.by]).toEqual([subnet.name, 'learned', 'gateway']);
    }
    expect(findingsOf(network).map(({ rule }) => rule)).not.toContain('cloud-single-tunnel');
  });

  test('or static routes on both sides; without a pool for the inside it is told', () => {
    const start = premises();
    const network = done(start, tied(start, { by: 'static' }));
    expect(
      network.find('routesByDevice', deviceNamed(network, 'fw-1').id).map(({ prefix, via }) => [prefix, via]),
    ).toEqual([['10.64.0.0/16', '10.43.0.1']]);
    const bare = premises();
    const draft = bare.draft(['prefix']);
    for (const row of bare.all('prefix'))
      if (row.name === 'Transit') draft.put('prefix', { ...row, name: 'Other' });
    expect(why(tied(draft.finish(), { by: 'static' }))).toContain('no pool of transit networks');
  });

  test('a gateway of a sort the provider has, and none that it has not', () => {
    const shop = placeNamed(premises(), 'shop');
    const network = premises();
    const place = placeNamed(network, 'shop');
    const made = done(network, addGateway(network, place, { name: 'shop-line-1', sort: 'line gateway' }));
    expect([...made.all('gateway')].at(-1)).toMatchObject({
      sort: 'line gateway',
      direction: 'between',
      networkId: place.id,
    });
    expect(why(addGateway(network, shop, { name: 'x', sort: 'hatch' }))).toContain(
      'The provider has no hatch',
    );
  });
});

describe('instances', () => {
  const cloud = testCloud({
    devices: [testInstance('vm-1', 'one', '10.1.0.9/24')],
    providerProfiles: [{ name: 'P', keptFirst: 4, keptLast: 1 }],
    cloudAccounts: [{ place: 'acct', profile: 'P' }],
    ruleSets: [
      { name: 'web', place: 'acct/north/one' },
      { name: 'ops', place: 'acct/north/one' },
    ],
    ruleSetUses: [{ set: 'acct/north/one/web', port: 'vm-1:eth0' }],
  });
  const address = (network: Network, title: string) =>
    network.find('addressesByPort', portId(network, title)).map((row) => row.address);

  test('stand in a subnet with its next free address, behind those that are kept', () => {
    const set = [...cloud.all('ruleSet')].find(({ name }) => name === 'web');
    const made = done(
      cloud,
      addInstance(cloud, subnetNamed(cloud, 'one', 'b'), {
        name: 'vm-2',
        role: 'VM',
        setIds: [set?.id ?? ''],
      }),
    );
    expect(address(made, 'vm-2:eth0')).toEqual(['10.1.1.4/24']);
    expect(made.countOf('ruleSetUsesByPort', portId(made, 'vm-2:eth0'))).toBe(1);
    expect(
      why(addInstance(made, subnetNamed(made, 'one', 'b'), { name: 'vm-1', role: 'VM', setIds: [] })),
    ).toContain('vm-1');
  });

  test('move to another subnet: a new address, the same rule sets; to another network without them', () => {
    const port = portId(cloud, 'vm-1:eth0');
    const moved = done(cloud, moveInstance(cloud, port, subnetNamed(cloud, 'one', 'b')));
    expect(address(moved, 'vm-1:eth0')).toEqual(['10.1.1.4/24']);
    expect(moved.countOf('ruleSetUsesByPort', port)).toBe(1);
    const away = done(cloud, moveInstance(cloud, port, subnetNamed(cloud, 'two', 'a')));
    expect(address(away, 'vm-1:eth0')).toEqual(['10.2.0.4/24']);
    expect(away.countOf('ruleSetUsesByPort', port)).toBe(0);
    expect(why(moveInstance(cloud, port, subnetNamed(cloud, 'one', 'a')))).toContain('stands in a already');
  });

  test('are tied to the rule sets that are named, and no others', () => {
    const port = cloud.get('port', portId(cloud, 'vm-1:eth0'));
    const ops = [...cloud.all('ruleSet')].filter(({ name }) => name === 'ops');
    if (port === null) throw new Error('no port');
    const tied = done(cloud, tieRuleSets(cloud, port, ops));
    expect(tied.find('ruleSetUsesByPort', port.id).map(({ setId }) => setId)).toEqual(
      ops.map(({ id }) => id),
    );
  });
});

describe('rules and routes as they are written', () => {
  const start = testCloud({ prefixLists: [{ name: 'sites', prefixes: ['10.40.0.0/14'] }] });
  const place = placeNamed(start, 'one');
  const made = addRuleSet(start, place, { name: 'web', sort: null });
  if (!made.ok) throw new Error(made.why);
  const network = done(start, made);
  const told = (of: Network) =>
    rulesOf(of, made.ruleSet.id, 'in').map((rule) => `${rule.position} ${ruleSentence(of, rule)}`);

  test('services by name, ports, lists and members are read as they are said', () => {
    expect(readTraffic('https')).toEqual({ protocol: 'TCP', ports: '443' });
    expect(readTraffic('udp 5000-5010')).toEqual({ protocol: 'UDP', ports: '5000-5010' });
    expect(readTraffic('8080, 8443')).toEqual({ protocol: 'TCP', ports: '8080, 8443' });
    expect(readTraffic('icmp')).toEqual({ protocol: 'ICMP', ports: null });
    expect(readTraffic('any')).toEqual({ protocol: 'any', ports: null });
    expect(readTraffic('icmp 80')).toEqual({ why: 'ICMP has no ports. Leave them out.' });
    expect(readTraffic('70000')).toEqual({ why: 'The ports hold 70000: ports end at 65535.' });
    expect(readTraffic('gopher')).toHaveProperty('why');
    expect(readPeer(network, place.id, '10.40.8.9')).toMatchObject({ prefix: '10.40.8.9/32' });
    expect(readPeer(network, place.id, 'Sites')).toMatchObject({ listId: expect.any(String) });
    expect(readPeer(network, place.id, 'members of web')).toMatchObject({ peerSetId: made.ruleSet.id });
    expect(readPeer(network, place.id, '10.40.8.0/33')).toHaveProperty('why');
    expect(readPeer(network, place.id, 'nowhere')).toHaveProperty('why');
  });

  test('a rule stands last, or before another, also where there is no number left between', () => {
    const first = done(network, addRule(network, made.ruleSet, { ...anyRule, ports: '443' }));
    const second = done(first, addRule(first, made.ruleSet, { ...anyRule, ports: '80' }));
    expect(told(second)).toEqual([
      '10 allow https (TCP 443) from everybody',
      '20 allow http (TCP 80) from everybody',
    ]);
    const before = (of: Network, ports: string) =>
      done(
        of,
        addRule(
          of,
          made.ruleSet,
          { ...anyRule, ports, verdict: 'deny' },
          rulesOf(of, made.ruleSet.id, 'in')[1] ?? null,
        ),
      );
    let more = second;
    for (const port of ['1', '2', '3', '4', '5']) more = before(more, port);
    expect(told(more).map((text) => text.replace(/^\d+ /, ''))).toEqual([
      'allow https (TCP 443) from everybody',
      ...['5', '4', '3', '2', '1'].map((port) => `deny TCP ${port} from everybody`),
      'allow http (TCP 80) from everybody',
    ]);
    const [top] = rulesOf(more, made.ruleSet.id, 'in');
    if (top === undefined) throw new Error('no rule');
    expect(told(done(more, moveRule(more, top, 1)))[1]).toContain('https');
    expect(why(moveRule(more, top, -1))).toBe('It stands first already.');
    expect(told(done(more, dropRule(more, top)))).toHaveLength(6);
    expect(why(addRule(network, made.ruleSet, { ...anyRule, protocol: 'ICMP', ports: '80' }))).toContain(
      'ICMP has none',
    );
  });

  test('a route is there once, and can be sent another way', () => {
    const cloud = testCloud({
      devices: [testGateway('gw', { place: 'acct/north/one' })],
      gateways: [{ device: 'gw', network: 'acct/north/one' }],
    });
    const [table] = tablesOf(cloud, placeNamed(cloud, 'one').id);
    if (table === undefined) throw new Error('no table');
    const routed = done(
      cloud,
      addRoute(cloud, table, '0.0.0.0/0', { gatewayId: deviceNamed(cloud, 'gw').id }),
    );
    expect(natureOf(routed, subnetNamed(routed, 'one', 'a')).nature).toBe('open');
    expect(why(addRoute(routed, table, '0.0.0.0/0', { discard: true }))).toContain(
      'through gw. Change that one.',
    );
    const [route] = routed.find('cloudRoutesByTable', table.id);
    if (route === undefined) throw new Error('no route');
    const dropped = done(routed, redirectRoute(routed, route, { discard: true }));
    expect(natureOf(dropped, subnetNamed(dropped, 'one', 'a')).nature).toBe('closed');
  });
});
