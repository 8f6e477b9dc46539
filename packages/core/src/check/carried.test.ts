import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { update } from '../change/change.ts';
import { removal } from '../change/removal.ts';
import { inForce } from '../lens/inForce.ts';
import { kindNames, type Kind, type Row } from '../model/kinds.ts';
import { Network } from '../model/network/network.ts';
import { changed, edit, edited } from '../testing/testEdits.ts';
import { everything } from '../testing/testKinds.ts';
import { networkOf } from '../testing/testNetwork.ts';
import { runs } from '../testing/testRuns.ts';
import { access, switched, trunk } from '../testing/testSwitching.ts';
import { findingKey } from './finding.ts';
import { findingsOf, rules } from './registry.ts';
import { documented } from '../testing/testDocumented.ts';
import { foundIn } from '../testing/testFindings.ts';

const rowsOf = (network: Network, turned = false): Parameters<typeof Network.of>[0] =>
  Object.fromEntries(
    kindNames.map((kind) => [kind, turned ? [...network.all(kind)].reverse() : [...network.all(kind)]]),
  );
/** The same rows in a network that comes from nowhere: nothing can be carried over into it. */
const afresh = (network: Network, turned = false): Network => Network.of(rowsOf(network, turned));
const keys = (network: Network): string[] => findingsOf(network).map(findingKey).sort();
const told = (network: Network): string[] =>
  foundIn(network).map(({ rule, severity, about, message }) =>
    [rule, severity, about.join(), message].join(' | '),
  );

/** Panels in a row, a cassette on a trunk that is too small, a breakout, a loop, optics that do not match, PoE. */
const cabled = networkOf({
  models: [
    { form: 'cable', name: 'trunk', medium: 'OM4', ends: ['MPO', 'MPO'], strands: 6 },
    { form: 'cable', name: 'fan', medium: 'OM4', ends: ['MPO', 'LC'], strands: 8, legsB: 4 },
  ],
  devices: [
    {
      name: 'X',
      role: 'PP',
      ports: [
        ...[1, 2, 3, 4].map((at) => ({
          name: `F${at}`,
          connector: 'LC' as const,
          role: 'panel' as const,
          leadsTo: 'R1',
          strand: 2 * at - 1,
        })),
        { name: 'R1', connector: 'MPO' as const, role: 'panel' as const, face: 'rear' as const },
      ],
    },
    ...['P', 'Q'].map((name) => ({ name, model: 'Lumenroot LP-24LC' })),
    { name: 'core', model: 'Norvane CR-6032' },
    { name: 'acc', model: 'Norvane AX-2424P' },
    { name: 'cam', model: 'Pellane Domus 4' },
    {
      name: 'four',
      role: 'SW' as const,
      ports: [{ name: 'q1', connector: 'QSFP+' as const, transceiver: 'Lumenroot SR4-40' }],
    },
    ...['s', 't', 'u'].map((name, at) => ({
      name,
      role: 'SW' as const,
      ports: [
        {
          name: '1',
          connector: 'SFP+' as const,
          transceiver: at === 0 ? 'Lumenroot LR-10' : 'Lumenroot SR-10',
        },
        { name: '2', connector: 'RJ45' as const, speedBps: 1e9 },
      ],
    })),
  ],
  cables: [
    { label: 'T-1', type: 'trunk', lengthM: 30, a: 'X:R1', b: 'four:q1' },
    { label: 'C-1', type: 'OM4 duplex LC', lengthM: 2, a: 's:1', b: 'X:F1' },
    { label: 'C-2', type: 'OM4 duplex LC', lengthM: 2, a: 't:1', b: 'X:F4' },
    { label: 'C-5', type: 'OS2 duplex LC', lengthM: 2, a: 'core:te1/1', b: 'P:F1' },
    { label: 'C-6', type: 'OM4 duplex LC', lengthM: 400, a: 'P:R1', b: 'Q:R1' },
    { label: 'C-7', type: 'OS2 duplex LC', lengthM: 2, a: 'Q:F1', b: 'u:1' },
    { label: 'L-1', type: 'OS2 duplex LC', lengthM: 2, a: 'P:F9', b: 'Q:F9' },
    { label: 'L-2', type: 'OS2 duplex LC', lengthM: 2, a: 'P:R9', b: 'Q:R9' },
    { label: 'D-1', type: 'Cat 6A RJ45', lengthM: 120, a: 'acc:gi1/1', b: 'cam:eth0' },
    { label: 'D-3', type: 'Cat 6A RJ45', lengthM: 2, a: 's:2', b: 't:2' },
  ],
});

/** Switches in a ring with numbers that do not agree, and addresses that are in each other's way. */
const numbered = switched(
  {
    a: {
      bridgePriority: 4096,
      ports: [
        trunk('1', [10, 20], 999),
        trunk('2', [20]),
        access('3', 40),
        { name: 'vlan20', form: 'vlan', vid: 20, vrf: 'ops', addresses: ['10.1.0.1/24'] },
      ],
      routes: [{ vrf: 'ops', prefix: '0.0.0.0/0', via: '10.1.0.77' }],
    },
    b: { ports: [trunk('1', [10]), trunk('2', [10, 40, 77]), access('3', 20)] },
    c: { place: 'Boat', ports: [trunk('1', 'all'), trunk('2', [20, 40]), access('3', 40)] },
    r: {
      role: 'RT',
      ports: [
        { name: 'e', mode: 'routed', vrf: 'ops', addresses: ['10.1.0.1/24'] },
        { name: 'x', mode: 'routed', vrf: 'ops', addresses: ['10.2.0.0/24'] },
        { name: 'lo', form: 'loopback', vrf: 'ops', addresses: ['10.9.0.1/31'] },
      ],
    },
    z: { role: 'RT', ports: [{ name: 'x', mode: 'routed', vrf: 'ops', addresses: ['10.3.0.1/24'] }] },
  },
  [
    ['a:1', 'b:1'],
    ['b:2', 'c:2'],
    ['c:1', 'a:2'],
    ['a:3', 'r:e'],
    ['r:x', 'z:x'],
  ],
  {
    prefixes: [
      { prefix: '10.0.0.0/8', vrf: 'ops', role: 'pool', place: 'Quay' },
      { prefix: '10.1.0.0/24', vrf: 'ops', gateway: '10.1.0.254', vlan: 'shore/20', place: 'Boat' },
      { prefix: '10.1.0.128/25', vrf: 'ops', gateway: '10.1.0.255' },
      { prefix: '10.3.0.0/31', vrf: 'ops' },
    ],
  },
);

const networks = { everything, cabled, numbered, documented };

type Fields = Record<string, unknown>;
/** What rules look at, beside what is edited all day: settings of ports, plugs, numbers, addresses, types, numberings. */
const settings: readonly [Kind, Fields[]][] = [
  [
    'port',
    [
      { mode: 'trunk', taggedVids: [10, 40], untaggedVid: null, voiceVid: null },
      { mode: 'access', taggedVids: null, untaggedVid: 20 },
      { mode: null, taggedVids: null, untaggedVid: null, voiceVid: null },
      { connector: 'RJ45', transceiverId: null },
      { connector: 'LC' },
      { speedBps: 1e10 },
      { leadsToId: null, leadsToStrand: null },
      { leadsToStrand: 3 },
      { role: 'network' },
      { name: 'renamed' },
      { notes: 'of no matter' },
    ],
  ],
  [
    'cable',
    [
      { typeId: null },
      { lengthM: 5000 },
      { label: 'C-40' },
      { label: 'L-1x' },
      { aPortId: null },
      { bPortId: null },
    ],
  ],
  [
    'device',
    [
      { role: 'RT' },
      { stack: 'one' },
      { modelId: null },
      { bridgePriority: 0 },
      { status: 'active' },
      { feed: 'B' },
      { feed: null },
      { rackId: null, unit: null },
      { placeId: null },
      { face: 'rear' },
      { name: 'elsewhere-1' },
      { supportUntil: null },
      { routerId: '10.0.0.1' },
    ],
  ],
  ['rack', [{ feeds: [] }, { units: 16 }, { posts: 2 }, { facing: 'north' }]],
  ['model', [{ retired: true }, { endOfSupport: null }, { airflow: 'front to rear' }, { part: 'blank' }]],
  [
    'prefix',
    [
      { name: 'Boats' },
      { ranges: [] },
      { role: 'pool' },
      { role: 'transit' },
      { gateway: null },
      { vlanId: null },
      { vrfId: null },
    ],
  ],
  ['address', [{ address: '10.1.0.9/24' }, { address: '10.1.0.1/25' }, { vrfId: null }, { portId: null }]],
  ['vlan', [{ vid: 77 }, { unused: true }, { name: 'other' }]],
  ['place', [{ vlanNumberingId: null }, { parentId: null }]],
  ['leg', [{ portId: null }]],
  ['circuit', [{ kind: 'internet' }, { aPortId: null }]],
  ['redundancy', [{ group: 2 }, { virtual: '10.1.0.1' }]],
  ['route', [{ via: '10.1.0.2' }, { via: '10.1.0.78' }]],
];
/** The same of clouds. */
const cloudSettings: readonly [Kind, Fields[]][] = [
  [
    'cloudSubnet',
    [{ routeTableId: null }, { ruleSetId: null }, { zoneId: null }, { prefixId: null }, { name: 'other' }],
  ],
  [
    'cloudRoute',
    [
      { gatewayId: null, peeringId: null, portId: null, attachmentId: null, discard: true },
      { prefix: '::/0', listId: null },
    ],
  ],
  ['routeTable', [{ learns: true }, { learns: false }, { name: 'renamed' }]],
  [
    'gateway',
    [
      { networkId: null },
      { direction: 'both', translates: false },
      { reach: 'regional' },
      { families: ['IPv6'] },
      { learned: ['10.9.0.0/16'] },
      { sort: 'unheard' },
    ],
  ],
  ['peering', [{ aAccepted: false }, { bAccepted: true }]],
  ['hubAttachment', [{ tableId: null }]],
  [
    'trafficRule',
    [
      { verdict: 'deny' },
      { protocol: 'UDP' },
      { prefix: '0.0.0.0/0', listId: null, peerSetId: null },
      { position: 77 },
      { direction: 'out' },
      { ports: null },
    ],
  ],
  [
    'ruleSet',
    [
      { remembers: false },
      { remembers: true },
      { ordered: true },
      { otherwiseOut: 'allow' },
      { labels: { owner: 'me' } },
    ],
  ],
  ['prefixList', [{ prefixes: [] }, { prefixes: ['0.0.0.0/0', '::/0'] }]],
  ['instance', [{ facing: null }, { standbyForId: null }]],
  ['balancerTarget', [{ port: 5432 }, { listens: 22 }]],
  ['publicAddress', [{ portId: null }, { hold: 'kept' }]],
  ['ruleSetUse', [{}]],
  ['providerProfile', [{ limits: {} }, { longestBlock: 20 }, { subnets: 'regional' }, { gateways: [] }]],
  ['cloudAccount', [{ profileId: null }]],
  ['dnsRecord', [{ value: '10.200.1.12' }, { name: 'new' }]],
  ['demandedLabel', [{ on: 'gateways' }, { key: 'cost' }]],
  ['device', [{ extra: { owner: 'me' } }, { status: 'retired' }, { role: 'DB' }]],
  [
    'address',
    [{ address: '10.200.1.99/24' }, { address: '10.200.0.77/24' }, { portId: null, use: 'reserved' }],
  ],
  ['prefix', [{ prefix: '10.200.9.0/24' }, { status: 'retired' }, { role: 'pool' }]],
  ['port', [{ form: 'virtual', farAddress: null, parentId: null }, { name: 'renamed' }]],
];
const setting = fc.tuple(fc.nat(), fc.nat(), fc.nat());

function set(network: Network, [which, field, row]: [number, number, number], among = settings): Network {
  const [kind, options] = among[which % among.length] ?? ['device', []];
  const rows: Row[] = [...network.all(kind)];
  rows.sort((a, b) => (a.id < b.id ? -1 : 1));
  const found = rows[row % Math.max(1, rows.length)];
  const fields = options[field % options.length];
  if (found === undefined || fields === undefined) return network;
  if (row % 11 === 0) return changed(network, removal(network, [{ kind, id: found.id }]).changes);
  return changed(network, [update(kind, found, fields)]);
}

describe('findings', () => {
  test('the test networks have something for most rules to find', () => {
    const found = new Set(
      [everything, cabled, numbered, documented].flatMap((one) => findingsOf(one)).map((one) => one.rule),
    );
    expect([...found].sort()).toEqual([
      'address-duplicate',
      'address-no-link',
      'address-not-for-hosts',
      'address-outside-prefix',
      'airflow-against-row',
      'cloud-admin-port-open',
      'cloud-answer-blocked',
      'cloud-dns-record-nobody',
      'cloud-joined-overlap',
      'cloud-label-missing',
      'cloud-limit-exceeded',
      'cloud-peering-one-sided',
      'cloud-public-address-not-reached',
      'cloud-public-address-unused',
      'cloud-rule-set-unused',
      'cloud-rule-shadowed',
      'cloud-rule-too-wide',
      'cloud-single-tunnel',
      'cloud-standby-in-same-zone',
      'cloud-subnet-no-table',
      'cloud-translation-across-zones',
      'device-not-placed',
      'dhcp-over-fixed',
      'gateway-missing',
      'gateway-no-host',
      'inlets-one-feed',
      'label-gap',
      'licence-missing',
      'link-ends-differ',
      'link-light',
      'link-medium',
      'link-optics',
      'link-reach',
      'link-strand',
      'loopback-length',
      'model-retired',
      'model-support-ends',
      'name-otherwise',
      'next-hop-nobody',
      'no-management-address',
      'point-to-point-misuse',
      'prefix-on-two-vlans',
      'prefix-overlap',
      'prefix-without-purpose',
      'prefix-without-vlan',
      'rack-blanks-missing',
      'route-unreachable',
      'router-id-twice',
      'run-loop',
      'single-fed',
      'stack-mixed',
      'strand-missing',
      'summary-leak',
      'support-contract-ends',
      'vlan-island',
      'vlan-leak',
      'vlan-stops',
      'vlan-undefined',
      'vlan-unused',
      'vlan-without-name',
    ]);
  });

  test('property: carried over any edits they are what is found afresh, in any order of the rows', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(networks) as (keyof typeof networks)[])),
        fc.array(fc.oneof({ weight: 1, arbitrary: edit }, { weight: 3, arbitrary: setting }), {
          minLength: 1,
          maxLength: 10,
        }),
        fc.array(fc.boolean()),
        (start, edits, asked) => {
          let network: Network = networks[start];
          findingsOf(network);
          edits.forEach((one, at) => {
            network = typeof one[0] === 'string' ? edited(network, one) : set(network, one);
            if (asked[at] === true) findingsOf(network);
          });
          expect(keys(network)).toEqual(keys(afresh(network)));
          expect(told(network)).toEqual(told(afresh(network, true)));
        },
      ),
      { numRuns: runs(100) },
    );
  });

  test('property: so are those of clouds', () => {
    fc.assert(
      fc.property(
        fc.array(setting, { minLength: 1, maxLength: 8 }),
        fc.array(fc.boolean()),
        (edits, asked) => {
          let network: Network = everything;
          findingsOf(network);
          edits.forEach((one, at) => {
            network = set(network, one, cloudSettings);
            if (asked[at] === true) findingsOf(network);
          });
          expect(keys(network)).toEqual(keys(afresh(network)));
          expect(told(network)).toEqual(told(afresh(network, true)));
        },
      ),
      { numRuns: runs(60) },
    );
  });

  test('the inlet of a strip taken out: what hangs on the strip is judged again', () => {
    findingsOf(documented);
    const strip = documented.findOne('deviceByName', 'q-pdb');
    const inlet = documented
      .find('powerPortsByDevice', strip?.id ?? '')
      .find(({ role }) => role === 'powerIn');
    if (inlet === undefined) throw new Error('inlet of q-pdb');
    const without = changed(documented, removal(documented, [{ kind: 'port', id: inlet.id }]).changes);
    expect(keys(without)).toEqual(keys(afresh(without)));
    expect(keys(without)).not.toEqual(keys(documented));
  });

  test('a name changes what they say, and not what they are', () => {
    const device = cabled.findOne('deviceByName', 'core');
    if (device === null) throw new Error('core');
    const renamed = changed(cabled, [update('device', device, { name: 'kelder' })]);
    expect(keys(renamed)).toEqual(keys(cabled));
    expect(told(renamed).sort()).toEqual(
      told(cabled)
        .map((line) =>
          line.replaceAll('device core', 'device kelder').replaceAll('core te1/1', 'kelder te1/1'),
        )
        .sort(),
    );
  });
});

/** A network that notes of which kinds something was read. */
function watched(network: Network, seen: Set<Kind>): Network {
  return new Proxy(network, {
    get(target, name) {
      const value = Reflect.get(target, name) as unknown;
      if (typeof value !== 'function') return value;
      return (...args: unknown[]) => {
        if (name === 'get' || name === 'all' || name === 'count') seen.add(args[0] as Kind);
        return (value as (...of: unknown[]) => unknown).apply(target, args);
      };
    },
  });
}

test.each(rules.map((rule) => [rule.key, rule] as const))(
  '%s reads no kind that it does not name',
  (_key, rule) => {
    for (const network of [everything, cabled, numbered]) {
      const seen = new Set<Kind>();
      const fresh = afresh(network);
      rule.findings(watched(rule.looksAt === 'all' ? fresh : afresh(inForce(fresh)), seen));
      for (const kind of seen)
        expect([rule.key, kind, kind in rule.reads || byStatusAlone.has(kind)]).toEqual([
          rule.key,
          kind,
          true,
        ]);
    }
  },
);
/** Kinds of which the lens of what is in force reads the status. */
const byStatusAlone = new Set<Kind>(['device', 'cable', 'circuit', 'prefix']);
