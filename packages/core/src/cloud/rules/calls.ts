import { allPorts, portsText, type PortRange } from '../../model/kinds/cloud/ports.ts';
import type { Network } from '../../model/network/network.ts';
import type { Seat } from '../inventory.ts';
import { trafficText } from '../services.ts';
import type { Exposure } from './exposure.ts';
import { letPassTogether, letsPass, type RuleDirection } from './letsPass.ts';
import { passageOf, setsOfPort } from './passage.ts';
import { atoms, holdsPeer, shared, type Atom, type Traffic } from './traffic.ts';

/** What somebody may ask for: a protocol and, where it has ports, a run of them. */
export interface Call {
  protocol: Atom;
  ports: PortRange;
}

/** What the rule sets at an interface, and those at the border of its subnet, let pass in a direction. */
function letPassAt(
  network: Network,
  { portId, subnet }: Seat,
  direction: RuleDirection,
  crosses: boolean,
): Traffic {
  const own = letPassTogether(
    network,
    setsOfPort(network, portId).map(({ id }) => id),
    direction,
  );
  const border = crosses ? network.get('ruleSet', subnet.ruleSetId) : null;
  return border === null ? own : shared(own, letsPass(network, border.id, direction));
}

/** The ports of a protocol at which some packets go with a peer, in runs as long as they are. */
function portsWith(traffic: Traffic, atom: Atom, { family, value }: Seat['ip']): PortRange[] {
  const runs: PortRange[] = [];
  for (const { from, to, peers } of traffic.get(atom) ?? []) {
    if (!holdsPeer(peers, String(family), value)) continue;
    const last = runs.at(-1);
    if (last !== undefined && last.to + 1 === from) last.to = to;
    else runs.push({ from, to });
  }
  return runs;
}

function inBoth(a: readonly PortRange[], b: readonly PortRange[]): PortRange[] {
  return a.flatMap((one) =>
    b.flatMap((other) => {
      const [from, to] = [Math.max(one.from, other.from), Math.min(one.to, other.to)];
      return from <= to ? [{ from, to }] : [];
    }),
  );
}

const isPorted = (atom: Atom): boolean => atom === 'TCP' || atom === 'UDP' || atom === 'SCTP';

/**
 * What one interface may ask of another: what every rule set on the way lets pass, where routes lead there and the
 * answer gets back. Both seats are of one family.
 */
export function callsBetween(network: Network, from: Seat, to: Seat): Call[] {
  const crosses = from.subnet.id !== to.subnet.id;
  const outward = letPassAt(network, from, 'out', crosses);
  const inward = letPassAt(network, to, 'in', crosses);
  return atoms.flatMap((protocol) => {
    const ranges = inBoth(portsWith(outward, protocol, to.ip), portsWith(inward, protocol, from.ip));
    const [first] = ranges;
    if (first === undefined) return [];
    // Answers and routes are the same for every port of a protocol.
    const flow = { protocol, port: isPorted(protocol) ? first.from : null };
    const { end } = passageOf(network, { portId: from.portId }, { portId: to.portId }, flow);
    return end.passes ? ranges.map((ports) => ({ protocol, ports })) : [];
  });
}

/** More than so many are counted. */
const mostTold = 3;

/** Calls in words: `anything`, or services and ports, the first few of them. */
export function callsText(calls: readonly (Call | Pick<Exposure, 'protocol' | 'ports'>)[]): string {
  const whole = ({ ports }: Pick<Call, 'ports'>): boolean =>
    ports.from === allPorts.from && ports.to === allPorts.to;
  const full = new Set(calls.filter(whole).map(({ protocol }) => protocol));
  if (atoms.every((atom) => full.has(atom))) return 'anything';
  const texts = calls.map(({ protocol, ports }) =>
    protocol === 'other'
      ? 'other protocols'
      : trafficText({
          protocol,
          ports: !isPorted(protocol) || whole({ ports }) ? null : portsText([ports]),
        }),
  );
  const distinct = [...new Set(texts)];
  const rest = distinct.length - mostTold;
  return rest > 0 ? `${distinct.slice(0, mostTold).join(', ')} and ${rest} more` : distinct.join(', ');
}
