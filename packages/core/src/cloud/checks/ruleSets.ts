import { defineRule, type Rule } from '../../check/finding.ts';
import { nameOf } from '../../check/names.ts';
import { remove, update } from '../../change/change.ts';
import { removal } from '../../change/removal.ts';
import { judged } from '../../commands/attempt.ts';
import { hasPorts, highestPort, portsText } from '../../model/kinds/cloud/ports.ts';
import type { RuleSet, TrafficRule } from '../../model/kinds/cloud/ruleSet.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { allOf } from '../../model/network/reads.ts';
import { byName } from '../../model/values/order.ts';
import type { Network } from '../../model/network/network.ts';
import { bothOf, rowParts } from '../../check/rowParts.ts';
import type { Touched } from '../../model/network/network.ts';
import { reachReads, ruleReads } from '../reads.ts';
import { exposuresOf } from '../rules/exposure.ts';
import { callingPorts } from '../rules/flow.ts';
import { letsPass, rulesOf } from '../rules/letsPass.ts';
import { everybody, peersOf, rangesOf } from '../rules/ruleTraffic.ts';
import { shadowedRules } from '../rules/shadows.ts';
import { peersAt, spansWithout, type Peers } from '../rules/traffic.ts';
import { adminPorts } from '../services.ts';
import { networkParts } from './networkParts.ts';
import { seatsIn, subnetsOf } from '../inventory.ts';
import { natureOf } from '../nature.ts';

const setTitle = (network: Network, id: string | null | undefined): string => {
  const set = network.get('ruleSet', id ?? null);
  const place = network.get('place', set?.placeId ?? null);
  return set === null ? '' : place === null ? set.name : `${place.name}/${set.name}`;
};
const ruleText = (network: Network, id: string): string => {
  const rule = network.get('trafficRule', id);
  return rule === null ? '' : `${rule.direction === 'in' ? 'inward' : 'outward'} ${rule.position}`;
};

/** What says what a rule set does, and whether anything is tied to it. */
const setReads = allOf(ruleReads, { cloudSubnet: ['ruleSetId'] });

/** The rule sets that a touched row can concern by its rules, its uses and its subnets. */
function setsTouched(_network: Network, touched: Touched): string[] | null {
  const sets = [
    ...bothOf(touched, 'trafficRule').map(({ setId }) => setId),
    ...bothOf(touched, 'ruleSetUse').map(({ setId }) => setId),
    ...bothOf(touched, 'cloudSubnet').flatMap(({ ruleSetId }) => ruleSetId ?? []),
  ];
  return ['trafficRule', 'ruleSetUse', 'cloudSubnet'].includes(touched.kind) ? sets : null;
}

/** Whether a set is tied to anything. */
const isUsed = (network: Network, set: RuleSet): boolean =>
  network.countOf('ruleSetUsesBySet', set.id) + network.countOf('cloudSubnetsByRuleSet', set.id) > 0;

const unused = defineRule({
  key: 'cloud-rule-set-unused',
  title: 'Rule sets that nothing is tied to',
  why: 'A rule set that nobody uses looks like protection and is none.',
  reads: {
    ruleSet: ['ties'],
    ruleSetUse: 'all',
    cloudSubnet: ['ruleSetId'],
    trafficRule: ['peerSetId', 'setId'],
  },
  find: rowParts('ruleSet', (network, set) =>
    isUsed(network, set) || network.countOf('rulesByPeerSet', set.id) > 0
      ? null
      : { severity: 'warn', subjects: [{ kind: 'ruleSet', id: set.id }], facts: { ties: set.ties } },
  ),
  says: ({ ties }, network, [set]) =>
    `The rule set ${setTitle(network, set?.id)} is tied to no ${ties === 'subnets' ? 'subnet' : 'interface'}. Tie it to what it is meant for, or take it out.`,
  mends: (_facts, network, [set]) => [
    {
      wish: 'Take the rule set out',
      way: 'Take such rule sets out',
      attempt: judged(
        network,
        removal(network, [{ kind: 'ruleSet', id: set?.id ?? '' }]).changes,
        `Took out the rule set ${setTitle(network, set?.id)}`,
      ),
    },
  ],
});

const shadowed = defineRule({
  key: 'cloud-rule-shadowed',
  title: 'Rules that change nothing',
  why: 'Whoever reads the rule believes that it decides something; it does not, whatever it says.',
  reads: setReads,
  find: rowParts(
    'ruleSet',
    (network, set) => {
      const found = (['in', 'out'] as const).flatMap((direction) => shadowedRules(network, set, direction));
      return found.length === 0
        ? null
        : {
            severity: 'warn',
            subjects: [{ kind: 'ruleSet', id: set.id }],
            facts: {
              rules: found.map(({ rule, how, by }) => ({ rule: rule.id, how, by: by.map(({ id }) => id) })),
            },
          };
    },
    // Who has which address does not matter: the members of rule sets count as whoever they will be.
    (network, touched) =>
      touched.kind === 'address' || touched.kind === 'port' || touched.kind === 'ruleSetUse'
        ? []
        : setsTouched(network, touched),
  ),
  says: ({ rules }, network, [set]) => {
    const [first] = rules;
    const words: Record<string, string> = {
      'decided before': 'all it is about has been decided by',
      denied: 'all it allows is denied by',
      'said already': 'it says again what is said by',
    };
    const by = (first?.by ?? []).map((id) => ruleText(network, id)).join(' and ');
    const more = rules.length > 1 ? ` and ${rules.length - 1} more of its rules change nothing` : '';
    return `Rule ${ruleText(network, first?.rule ?? '')} of ${setTitle(network, set?.id)} changes nothing: ${words[first?.how ?? ''] ?? ''} ${by}${more}. Take it out, or move it before.`;
  },
  mends: ({ rules }, network, [set]) => [
    {
      wish: rules.length === 1 ? 'Take the rule out' : `Take the ${rules.length} rules out`,
      way: 'Take rules out that change nothing',
      attempt: judged(
        network,
        rules.flatMap(({ rule: id }) => {
          const rule = network.get('trafficRule', id);
          return rule === null ? [] : [remove('trafficRule', rule)];
        }),
        `Took rules out of ${setTitle(network, set?.id)} that change nothing`,
      ),
    },
  ],
});

const coversAll = (peers: Peers): boolean =>
  [...everybody].some(([space, spans]) => spansWithout(spans, peers.get(space) ?? []).length === 0);

/** Ports by which things are looked after that a rule opens. */
const adminOf = (rule: TrafficRule): number[] =>
  adminPorts
    .filter(({ protocol }) => rule.protocol === 'any' || rule.protocol === protocol)
    .filter(({ port }) => rangesOf(rule).some(({ from, to }) => from <= port && port <= to))
    .map(({ port }) => port);

const openToAll = (network: Network, set: RuleSet): TrafficRule[] =>
  rulesOf(network, set.id, 'in').filter(
    (rule) => rule.verdict === 'allow' && rule.peerSetId === null && coversAll(peersOf(network, rule)),
  );

const adminOpen = defineRule({
  key: 'cloud-admin-port-open',
  title: 'Management open to everybody',
  why: 'What things are looked after by is tried from everywhere, all day. It is for those few who do so.',
  reads: setReads,
  find: rowParts(
    'ruleSet',
    (network, set) => {
      if (!isUsed(network, set)) return null;
      const found = openToAll(network, set).flatMap((rule) => {
        const ports = hasPorts(rule.protocol) && rule.ports !== null ? adminOf(rule) : [];
        return ports.length === 0 ? [] : [{ rule: rule.id, ports }];
      });
      return found.length === 0
        ? null
        : { severity: 'bad', subjects: [{ kind: 'ruleSet', id: set.id }], facts: { rules: found } };
    },
    setsTouched,
  ),
  says: ({ rules }, network, [set]) => {
    const ports = [...new Set(rules.flatMap((one) => one.ports))].sort((a, b) => a - b);
    const named = ports.map((port) => {
      const known = adminPorts.find((one) => one.port === port);
      return known === undefined ? `${port}` : `${port} (${known.title})`;
    });
    return `${setTitle(network, set?.id)} lets everybody to ${named.join(', ')}. Name those who may.`;
  },
});

const tooWide = defineRule({
  key: 'cloud-rule-too-wide',
  title: 'Rules that let everybody to every port',
  why: 'Such a rule makes all others superfluous, and protects nothing.',
  reads: setReads,
  find: rowParts(
    'ruleSet',
    (network, set) => {
      // A forgetful border that lets all pass leaves the work to the interfaces: there it is too wide.
      if (set.ties !== 'interfaces' || !isUsed(network, set)) return null;
      const found = openToAll(network, set).filter(
        ({ protocol, ports }) => ports === null && (protocol === 'any' || hasPorts(protocol)),
      );
      return found.length === 0
        ? null
        : {
            severity: 'bad',
            subjects: [{ kind: 'ruleSet', id: set.id }],
            facts: { rules: found.map(({ id }) => id) },
          };
    },
    setsTouched,
  ),
  says: ({ rules }, network, [set]) =>
    `Rule ${ruleText(network, rules[0] ?? '')} of ${setTitle(network, set?.id)} lets everybody to every port. Name the ports, or those who may.`,
});

/** Rules that are themselves for answers: they reach up to the highest port callers use. */
const isForAnswers = (rule: TrafficRule): boolean =>
  rangesOf(rule).some(({ from, to }) => to === highestPort && from <= 49152);

const answerBlocked = defineRule({
  key: 'cloud-answer-blocked',
  title: 'Answers that a rule set does not let back',
  why: 'A set that does not remember connections looks at answers too: what it lets in and not back out never works.',
  standard: 'RFC 6056, 3.2',
  reads: setReads,
  find: rowParts(
    'ruleSet',
    (network, set) => {
      if (set.remembers || !isUsed(network, set)) return null;
      const found = (['in', 'out'] as const).flatMap((direction) =>
        rulesOf(network, set.id, direction).flatMap((rule) => {
          if (rule.verdict !== 'allow' || !hasPorts(rule.protocol) || isForAnswers(rule)) return [];
          const atom = rule.protocol === 'any' ? 'other' : rule.protocol;
          const back = peersAt(
            letsPass(network, set.id, direction === 'in' ? 'out' : 'in'),
            atom,
            callingPorts,
          );
          const answered = [...peersOf(network, rule)].every(
            ([space, spans]) => spansWithout(spans, back.get(space) ?? []).length === 0,
          );
          return answered ? [] : [rule.id];
        }),
      );
      return found.length === 0
        ? null
        : { severity: 'bad', subjects: [{ kind: 'ruleSet', id: set.id }], facts: { rules: found } };
    },
    setsTouched,
  ),
  says: ({ rules }, network, [set]) => {
    const [id = ''] = rules;
    const rule = network.get('trafficRule', id);
    return `${setTitle(network, set?.id)} does not remember connections: what rule ${ruleText(network, id)} lets ${rule?.direction === 'in' ? 'in' : 'out'} is not answered. Allow ${rule?.protocol ?? ''} ${portsText([callingPorts])} the other way${rules.length > 1 ? `; ${rules.length - 1} more of its rules are so` : ''}.`;
  },
  mends: (_facts, network, [subject]) => {
    const set = network.get('ruleSet', subject?.id ?? null);
    if (set === null) return [];
    return [
      {
        wish: 'Let it remember connections',
        attempt: judged(
          network,
          [update('ruleSet', set, { remembers: true })],
          `Let ${set.name} remember connections`,
        ),
      },
    ];
  },
});

/** The databases of a network that something may come to: in open subnets, or behind a load balancer; by name. */
function databasesIn(network: Network, networkId: string): Device[] {
  const found = new Set<Device>();
  for (const subnet of network.find('cloudSubnetsByNetwork', networkId)) {
    const isOpen = natureOf(network, subnet).nature === 'open';
    for (const { portId } of seatsIn(network, subnet)) {
      const device = network.get('device', network.get('port', portId)?.deviceId ?? null);
      if (device?.role === 'DB' && (isOpen || network.countOf('targetsByDevice', device.id) > 0))
        found.add(device);
    }
  }
  return [...found].sort(byName);
}

const databaseExposed = defineRule({
  key: 'cloud-database-exposed',
  title: 'Databases that the internet reaches',
  why: 'A database holds what the house lives on; whoever may call it can try to read it.',
  reads: allOf(reachReads, { device: ['role', 'status', 'placeId'] }),
  find: networkParts((network, networkId) =>
    databasesIn(network, networkId).flatMap((device) => {
      const exposed = exposuresOf(network, device);
      const [first] = exposed;
      return first === undefined
        ? []
        : [
            {
              severity: 'bad' as const,
              subjects: [{ kind: 'device' as const, id: device.id }],
              facts: {
                address: first.address,
                protocol: first.protocol,
                ports: portsText([first.ports]),
                anybody: exposed.some(({ anybody }) => anybody),
              },
            },
          ];
    }),
  ),
  says: ({ address, protocol, ports, anybody }, network, [device]) =>
    `${anybody ? 'Everybody' : 'Somebody'} on the internet may call the database ${nameOf(network, 'device', device?.id ?? null)} at ${address}, ${protocol} ${ports}. Move it to a closed subnet, or narrow its rules.`,
});

const withoutRules = defineRule({
  key: 'cloud-interface-without-rules',
  title: 'Interfaces with a public address and no rule set',
  why: 'Nothing looks at what comes in from the internet.',
  reads: reachReads,
  find: networkParts((network, networkId) => {
    const bare = new Map<string, string>();
    for (const subnet of subnetsOf(network, networkId))
      for (const { portId } of subnet.ruleSetId === null ? seatsIn(network, subnet) : []) {
        if (network.countOf('publicAddressesByPort', portId) === 0) continue;
        if (network.countOf('ruleSetUsesByPort', portId) > 0) continue;
        const deviceId = network.get('port', portId)?.deviceId ?? '';
        if (network.findOne('gatewayByDevice', deviceId) === null && !bare.has(deviceId))
          bare.set(deviceId, portId);
      }
    return [...bare].map(([id, portId]) => ({
      severity: 'bad' as const,
      subjects: [{ kind: 'device' as const, id }],
      facts: { portId },
    }));
  }),
  says: ({ portId }, network, [device]) =>
    `${nameOf(network, 'device', device?.id ?? null)} has a public address at ${nameOf(network, 'port', portId)} and no rule set, there or at its subnet. Tie one to it.`,
});

export const ruleSetRules: readonly Rule[] = [
  unused,
  shadowed,
  adminOpen,
  tooWide,
  answerBlocked,
  databaseExposed,
  withoutRules,
];
