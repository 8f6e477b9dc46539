import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../../change/apply.ts';
import { create, remove } from '../../change/change.ts';
import { newId } from '../../model/values/ids.ts';
import {
  blankRuleSet,
  blankTrafficRule,
  type RuleSet,
  type TrafficRule,
} from '../../model/kinds/cloud/ruleSet.ts';
import { portsText, readPorts } from '../../model/kinds/cloud/ports.ts';
import { Network } from '../../model/network/network.ts';
import { newProject } from '../../model/kinds/sites/project.ts';
import { formatIp, formatPrefix, parseIp, prefixAround, type IpAddress } from '../../model/values/ip.ts';
import { testCloud, testGateway, testInstance } from '../../testing/testCloud.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { deviceNamed, portId } from '../../testing/testNetwork.ts';
import { runs } from '../../testing/testRuns.ts';
import { exposuresOf } from './exposure.ts';
import { atomOf, portsOf, verdictOf, type Flow } from './flow.ts';
import { letsPass } from './letsPass.ts';
import { outsideAt, passageOf, type FlowEnd, type Passage } from './passage.ts';
import { shadowedRules } from './shadows.ts';
import { holdsPeer, peersAt } from './traffic.ts';

const ip = (text: string): IpAddress => {
  const read = parseIp(text);
  if (read === null) throw new Error(text);
  return read;
};

/** A packet on a small stage, on which the edges of rules meet often. */
const addresses = ['10.0.0.0', '10.0.0.1', '10.0.0.2', '10.0.0.3', '10.0.0.5', '2001:db8::', '2001:db8::1'];
const peers = fc.constantFrom(
  null,
  '0.0.0.0/0',
  '::/0',
  '10.0.0.0/30',
  '10.0.0.0/31',
  '10.0.0.2/31',
  '10.0.0.3/32',
  '2001:db8::/127',
);
const portTexts = fc.constantFrom(null, '1', '2', '1-2', '1, 3', '0-65535', '3-65535', '1024-65535', '0-2');
interface Wish {
  verdict: 'allow' | 'deny';
  protocol: TrafficRule['protocol'];
  ports: string | null;
  prefix: string | null;
}
const wish: fc.Arbitrary<Wish> = fc
  .record({
    verdict: fc.constantFrom('allow' as const, 'deny' as const),
    protocol: fc.constantFrom(
      'any' as const,
      'TCP' as const,
      'UDP' as const,
      'ICMP' as const,
      'GRE' as const,
    ),
    ports: portTexts,
    prefix: peers,
  })
  .map((one) => ({
    ...one,
    ports: one.protocol === 'TCP' || one.protocol === 'UDP' ? one.ports : null,
    prefix: one.protocol === 'ICMP' && one.prefix?.includes(':') === true ? null : one.prefix,
  }));
const setting = fc.record({
  ordered: fc.boolean(),
  otherwiseIn: fc.constantFrom('allow' as const, 'deny' as const),
});

function withRules(wishes: readonly Wish[], of: Partial<RuleSet>): { network: Network; set: RuleSet } {
  const set: RuleSet = { ...blankRuleSet, ...of, id: newId(), name: 'tested' };
  const applied = applyChanges(Network.of({ project: [newProject('Test')] }), [
    create('ruleSet', set),
    ...wishes.map((one, at) =>
      create('trafficRule', { ...blankTrafficRule, ...one, id: newId(), setId: set.id, position: at + 1 }),
    ),
  ]);
  if (!applied.ok) throw new Error(applied.problems.map(({ message }) => message).join('\n'));
  return { network: applied.network, set };
}

/** Written apart from what is tested: one packet, one rule, bit by bit. */
function ruleFits({ protocol, ports, prefix }: Wish, flow: Flow, port: number, peer: IpAddress): boolean {
  if (protocol !== 'any' && protocol !== flow.protocol) return false;
  if (protocol === 'ICMP' && peer.family !== 4) return false;
  if (ports !== null) {
    const hit = ports.split(', ').some((part) => {
      const [from = 0, to = from] = part.split('-').map(Number);
      return from <= port && port <= to;
    });
    if (!hit) return false;
  }
  if (prefix === null) return true;
  const [host = '', length = '0'] = prefix.split('/');
  return (
    ip(host).family === peer.family &&
    formatPrefix(prefixAround(peer, Number(length))) === `${formatIp(ip(host))}/${length}`
  );
}
function oracle(
  wishes: readonly Wish[],
  of: { ordered: boolean; otherwiseIn: string },
  flow: Flow,
  peer: IpAddress,
): string {
  const fitting = wishes.filter((one) => ruleFits(one, flow, flow.port ?? 0, peer));
  const [first] = fitting;
  if (of.ordered) return first?.verdict ?? of.otherwiseIn;
  if (fitting.some(({ verdict }) => verdict === 'deny')) return 'deny';
  return fitting.length > 0 ? 'allow' : of.otherwiseIn;
}
const flows: Flow[] = [
  ...(['TCP', 'UDP'] as const).flatMap((protocol) =>
    [0, 1, 2, 3, 1024, 65535].map((port) => ({ protocol, port })),
  ),
  ...(['ICMP', 'GRE', 'other'] as const).map((protocol) => ({ protocol, port: null })),
];
const packets = flows.flatMap((flow) => addresses.map((text) => ({ flow, peer: ip(text) })));
const passes = (network: Network, setId: string, flow: Flow, peer: IpAddress): boolean =>
  holdsPeer(
    peersAt(letsPass(network, setId, 'in'), atomOf(flow), portsOf(flow, false)),
    String(peer.family),
    peer.value,
  );

describe('rule sets', () => {
  test('every packet fares as it does when the rules are read one by one', () => {
    fc.assert(
      fc.property(fc.array(wish, { maxLength: 7 }), setting, (wishes, of) => {
        const { network, set } = withRules(wishes, of);
        for (const { flow, peer } of packets) {
          const expected = oracle(wishes, of, flow, peer);
          expect(passes(network, set.id, flow, peer)).toBe(expected === 'allow');
          // Decided rule by rule the same packet has the same verdict, and a rule that says it.
          expect(verdictOf(network, set, 'in', flow, peer).verdict).toBe(expected);
        }
      }),
      { numRuns: runs(60) },
    );
  });

  test('a shadowed rule can go without any packet faring otherwise', () => {
    let shadowed = 0;
    fc.assert(
      fc.property(fc.array(wish, { minLength: 2, maxLength: 7 }), setting, (wishes, of) => {
        const { network, set } = withRules(wishes, of);
        const told = shadowedRules(network, set, 'in');
        shadowed += told.length;
        const gone = applyChanges(
          network,
          told.map(({ rule }) => remove('trafficRule', rule)),
        );
        if (!gone.ok) throw new Error('rules cannot be taken out');
        for (const { flow, peer } of packets)
          expect(passes(gone.network, set.id, flow, peer)).toBe(passes(network, set.id, flow, peer));
        for (const { rule, by } of told) {
          expect(by.length).toBeGreaterThan(0);
          expect(by).not.toContainEqual(rule);
        }
      }),
      { numRuns: runs(60) },
    );
    expect(shadowed).toBeGreaterThan(20);
  });

  test('what is shadowed, by what, and how', () => {
    const rule = (verdict: 'allow' | 'deny', ports: string | null, prefix: string | null): Wish => ({
      ...{ verdict, protocol: 'TCP', ports, prefix },
    });
    const told = (wishes: Wish[], ordered: boolean) => {
      const { network, set } = withRules(wishes, { ordered });
      return shadowedRules(network, set, 'in').map(
        ({ rule: { position }, how, by }) =>
          `${position} ${how} by ${by.map((one) => one.position).join(' and ')}`,
      );
    };
    // 10.0.0.0/8 is the two halves together; neither of them alone.
    const halves = [
      rule('deny', null, '10.0.0.0/9'),
      rule('allow', '22', '10.128.0.0/9'),
      rule('allow', '22', '10.0.0.0/8'),
    ];
    expect(told(halves, true)).toEqual(['3 decided before by 1 and 2']);
    expect(told([rule('allow', '443', '10.0.0.0/8'), rule('allow', '443', null)], false)).toEqual([
      '1 said already by 2',
    ]);
    expect(told([rule('allow', '443', null), rule('allow', '443', null)], false)).toEqual([
      '2 said already by 1',
    ]);
    expect(told([rule('allow', '22', '10.1.0.0/16'), rule('deny', '1-1023', null)], false)).toEqual([
      '1 denied by 2',
    ]);
    expect(told([rule('allow', '80', null), rule('allow', '443', null)], true)).toEqual([]);
  });
});

test('ports are read, put in order and refused with the reason', () => {
  const read = (text: string) => {
    const found = readPorts(text);
    return found.ok ? portsText(found.ranges) : found.reason;
  };
  expect(read('443')).toBe('443');
  expect(read('8000-8100, 80,81')).toBe('80-81, 8000-8100');
  expect(read('70000')).toBe('hold 70000: ports end at 65535');
  expect(read('90-80')).toBe('hold 90-80, which runs backwards');
  expect(read('https')).toContain('“https”');
});

const endText = ({ end }: Passage): string =>
  end.passes
    ? 'passes'
    : end.because === 'rule'
      ? `${end.look.answering ? 'answer ' : ''}${end.look.direction} at ${end.look.at}`
      : end.because === 'route'
        ? `route: ${end.why}`
        : end.because;
const at = (network: Network, title: string): FlowEnd => ({ portId: portId(network, title) });
const out = (text: string): FlowEnd => outsideAt(text) ?? { portId: '' };
const tcp = (port: number): Flow => ({ protocol: 'TCP', port });

describe('who may talk to whom', () => {
  const demo = demoNetwork();
  const asked = (from: FlowEnd, to: FlowEnd, port: number): string =>
    endText(passageOf(demo, from, to, tcp(port)));

  test('in the demo', () => {
    const [lb, web1, web2, db1, db2, vault] = [
      'cl-lb-1:a',
      'cl-web-1:eth0',
      'cl-web-2:eth0',
      'cl-db-1:eth0',
      'cl-db-2:eth0',
      'cl-vault-1:eth0',
    ].map((title) => at(demo, title));
    if (!lb || !web1 || !web2 || !db1 || !db2 || !vault) throw new Error('not there');
    expect(asked(out('198.51.100.200'), lb, 443)).toBe('passes');
    expect(asked(out('198.51.100.200'), lb, 22)).toBe('in at interface');
    expect(asked(lb, web1, 8080)).toBe('passes');
    expect(asked(web1, db1, 5432)).toBe('passes');
    expect(asked(lb, db1, 5432)).toBe('out at interface');
    expect(asked(db1, vault, 2049)).toBe('passes');
    expect(asked(vault, db1, 2049)).toBe('out at interface');
    expect(asked(out('198.51.100.200'), db1, 5432)).toBe('in at subnet');
    expect(asked(out('10.40.8.9'), web1, 22)).toBe('passes');
    expect(asked(out('10.41.8.9'), web1, 22)).toBe('in at interface');
    expect(asked(web1, out('198.51.100.200'), 443)).toBe('passes');
    expect(asked(out('198.51.100.200'), web1, 8080)).toBe('in at interface');
    // Fault 9: the answers of the second database find no way back over the peering, inside its network they do.
    expect(asked(web2, db2, 5432)).toBe('passes');
    expect(asked(db2, vault, 2049)).toBe('route: no route');
  });

  test('the internet reaches the web servers through the balancer alone, and no database', () => {
    const exposed = (name: string) =>
      exposuresOf(demo, deviceNamed(demo, name)).map(
        ({ address, protocol, ports, anybody, balancerId }) =>
          `${address} ${protocol} ${ports.from}${ports.to === ports.from ? '' : `-${ports.to}`}${anybody ? '' : ' some'}${balancerId === null ? '' : ' handed on'}`,
      );
    expect(exposed('cl-lb-1')).toEqual([
      ...['203.0.113.20', '2001:db8:4f::10', '203.0.113.21', '2001:db8:4f:1::10'].flatMap((address) => [
        `${address} TCP 80`,
        `${address} TCP 443`,
      ]),
    ]);
    expect(exposed('cl-web-1')).toContain('203.0.113.20 TCP 443 handed on');
    expect(exposed('cl-web-1').every((text) => text.endsWith('handed on'))).toBe(true);
    expect(exposed('cl-db-1')).toEqual([]);
  });
});

describe('rules that do not remember connections', () => {
  /** A client and a server in two subnets, with a forgetful border at the server's, and what it lets in and out. */
  const stage = (rules: object[], remembers: boolean) =>
    testCloud({
      devices: [testInstance('client', 'one', '10.1.0.10/24'), testInstance('server', 'one', '10.1.1.10/24')],
      ruleSets: [{ name: 'border', place: 'acct/north/one', ties: 'subnets', remembers, ordered: true }],
      trafficRules: rules.map((rule, index) => ({
        set: 'acct/north/one/border',
        position: index + 1,
        ...rule,
      })),
      cloudSubnets: [
        {
          ...{ place: 'acct/north/one', name: 'b', zone: 'acct/north/b', prefix: 'one 10.1.1.0/24' },
          ...{ routeTable: 'acct/north/one/main', ruleSet: 'acct/north/one/border' },
        },
      ],
    });
  const asked = (network: Network): string =>
    endText(passageOf(network, at(network, 'client:eth0'), at(network, 'server:eth0'), tcp(443)));
  const inward = { direction: 'in', ports: '443', prefix: '10.1.0.0/24' };
  const back = (ports: string) => ({ direction: 'out', ports, prefix: '10.1.0.0/24' });

  test('both directions are needed, and the answer needs every port it may go to', () => {
    expect(asked(stage([inward], true))).toBe('passes');
    expect(asked(stage([inward], false))).toBe('answer out at subnet');
    expect(asked(stage([inward, back('1024-65535')], false))).toBe('passes');
    // Ports of callers begin at 1024 (RFC 6056): an answer to half of them is no answer.
    expect(asked(stage([inward, back('32768-65535')], false))).toBe('answer out at subnet');
    expect(asked(stage([back('1024-65535')], false))).toBe('in at subnet');
  });

  test('and what the internet may call has to be answered as well', () => {
    const open = (rules: object[]) =>
      testCloud({
        devices: [testGateway('gw'), testInstance('shop', 'one', '10.1.0.10/24')],
        gateways: [{ device: 'gw', network: 'acct/north/one' }],
        cloudRoutes: [{ table: 'acct/north/one/main', prefix: '0.0.0.0/0', gateway: 'gw' }],
        publicAddresses: [{ address: '203.0.113.9', place: 'acct/north', port: 'shop:eth0' }],
        ruleSets: [
          { name: 'border', place: 'acct/north/one', ties: 'subnets', remembers: false, ordered: true },
        ],
        trafficRules: rules.map((rule, index) => ({
          set: 'acct/north/one/border',
          position: index + 1,
          ...rule,
        })),
        cloudSubnets: [
          {
            ...{ place: 'acct/north/one', name: 'a', zone: 'acct/north/a', prefix: 'one 10.1.0.0/24' },
            ...{ routeTable: 'acct/north/one/main', ruleSet: 'acct/north/one/border' },
          },
        ],
      });
    const called = (rules: object[]) => {
      const network = open(rules);
      return exposuresOf(network, deviceNamed(network, 'shop')).map(({ ports, anybody }) => [
        ports.from,
        ports.to,
        anybody,
      ]);
    };
    expect(called([{ direction: 'in', ports: '443' }])).toEqual([]);
    expect(
      called([
        { direction: 'in', ports: '443' },
        { direction: 'out', ports: '1024-65535' },
      ]),
    ).toEqual([[443, 443, true]]);
    expect(
      called([
        { direction: 'in', ports: '22', prefix: '198.51.100.0/24' },
        { direction: 'out', ports: '0-65535' },
      ]),
    ).toEqual([[22, 22, false]]);
    // Only private space is let in: nobody on the internet has such an address.
    expect(
      called([
        { direction: 'in', ports: '22', prefix: '10.0.0.0/8' },
        { direction: 'out', ports: null },
      ]),
    ).toEqual([]);
  });
});
