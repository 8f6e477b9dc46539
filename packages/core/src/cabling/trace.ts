import { inForce } from '../lens/inForce.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Cable } from '../model/kinds/lines/cable.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { cableAt, circuitAt, endsOf, placeOnCable, portTitle } from '../model/network/ports.ts';
import { fannedFrom, farStrand, portStrands, strandsPerLeg } from '../model/network/strands.ts';

export type Hop = { port: string } | { cable: string } | { circuit: string };

export interface Run {
  /** Ids of the ports, cables and circuits passed, in order, beginning with a port. */
  hops: Hop[];
  from: string;
  /** The port the run arrives at; null when it ends open or returns to itself. */
  to: string | null;
  ends: 'port' | 'open' | 'loop';
  /** Sum of the known lengths in metres. */
  lengthM: number;
  /** Cables on the run whose length is not known. */
  unknownLengths: number;
  /** Why it ends open where it might be expected to go on; null where nothing is plugged in or it ends otherwise. */
  stop: RunStop | null;
  /** Where a cassette or a breakout splits the run: what else goes on after that hop. */
  branches: { after: number; run: Run }[];
}

/** Why strands lead nowhere: the cable has not as many, no port behind takes them up, or the optic lights others. */
export type RunStop =
  | { because: 'no strand'; cableId: string; strands: readonly number[]; has: number }
  | { because: 'no port' | 'dark'; portId: string; strands: readonly number[] };

/** The strands followed at a port, by number; null: all of them. */
type Strands = readonly number[] | null;
interface At {
  port: string;
  strands: Strands;
}

/**
 * Strands of an array plug that a leg of a fan-out takes: the next few in order; of a harness of four lanes the outer
 * ones, one each way (transmit 1 to 4, receive 12 to 9: IEEE 802.3-2022 clause 86).
 */
function legStrands(type: CatalogueModel | null, legs: number, leg: number): number[] {
  if (legs === 4 && type?.strands === 8) return [leg + 1, 12 - leg];
  const each = Math.max(1, Math.floor((type?.strands ?? legs) / legs));
  return range(leg * each + 1, each);
}

const range = (first: number, count: number): number[] =>
  Array.from({ length: count }, (_, step) => first + step);

/** Splits beyond this number end a run: nobody reads more, and no cable has them. */
const mostBranches = 288;

/** The strands that what sits in a port lights; null: all of its plug, or nobody wrote it down. */
const litBy = (network: Network, portId: string): Strands =>
  network.get('model', network.get('port', portId)?.transceiverId ?? null)?.opticStrands ?? null;

/** Why strands that have come to a port end there although it is no end; null: it is one. */
function stopAt(network: Network, { port: portId, strands }: At): RunStop | null {
  const port = network.get('port', portId);
  if (port === null || strands === null) return null;
  if (fannedFrom(network, port).length > 0) return { because: 'no port', portId, strands };
  const lit = litBy(network, portId);
  return lit !== null && !strands.some((one) => lit.includes(one))
    ? { because: 'dark', portId, strands }
    : null;
}

/** Where a run goes on inside a device; none where the port passes nothing on. */
function inward(network: Network, { port: portId, strands }: At): At[] {
  const port = network.get('port', portId);
  if (port === null) return [];
  if (port.leadsToId !== null) {
    if (port.leadsToStrand === null) return [{ port: port.leadsToId, strands }];
    return [{ port: port.leadsToId, strands: range(port.leadsToStrand, portStrands(port)) }];
  }
  return fannedFrom(network, port)
    .filter((one) => {
      const own = range(one.leadsToStrand ?? 1, portStrands(one));
      return strands === null || own.some((strand) => strands.includes(strand));
    })
    .map((one) => ({ port: one.id, strands: null }));
}

/** Where a cable leads from a port: null stands for a plug that hangs loose, a stop for strands it does not have. */
function alongCable(network: Network, cable: Cable, { port, strands }: At): (At | null)[] | RunStop {
  const at = placeOnCable(network, cable, port);
  const own = endsOf(network, cable, at.side);
  const far = endsOf(network, cable, at.side === 'a' ? 'b' : 'a');
  const type = network.get('model', cable.typeId);
  const reached = (id: string | null | undefined, then: Strands): At | null =>
    id === null || id === undefined ? null : { port: id, strands: then };
  if (own.length === far.length) {
    const count = type === null ? null : strandsPerLeg(type, own.length);
    const polarity = type?.polarity ?? 'straight';
    const within = strands?.filter((strand) => count === null || strand <= count) ?? null;
    if (strands !== null && within?.length === 0)
      return { because: 'no strand', cableId: cable.id, strands, has: count ?? 0 };
    const then = within?.map((strand) => farStrand(strand, count ?? 12, polarity)) ?? null;
    return [reached(far[at.leg], then)];
  }
  if (far.length === 1) {
    return [reached(far[0], legStrands(type, own.length, at.leg))];
  }
  const lanes = far.map((_, leg) => legStrands(type, far.length, leg));
  if (type?.strands != null && strands !== null && !lanes.flat().some((strand) => strands.includes(strand)))
    return { because: 'no strand', cableId: cable.id, strands, has: type.strands };
  return far.flatMap((id, leg) => {
    const lane = lanes[leg] ?? [];
    return strands === null || lane.some((strand) => strands.includes(strand)) ? [reached(id, null)] : [];
  });
}

/** What a run takes of a cable: nearly always all of its only plug, which the cable alone stands for. */
const takenAt = (cableId: string, leg: number, strands: Strands): string =>
  strands !== null ? `${cableId}/s${strands[0] ?? ''}` : leg === 0 ? cableId : `${cableId}/${leg}`;

/** Follows one path; every split but its first way becomes a branch. */
class Follower {
  private splits = 0;
  private readonly taken: Set<string>;

  constructor(
    private readonly network: Network,
    taken: Iterable<string> = [],
  ) {
    this.taken = new Set(taken);
  }

  /** From a port outward through its cable or circuit. `entered` says that the run came to it from inside. */
  outward(start: At): Run {
    const { network } = this;
    const run: Run = {
      hops: [{ port: start.port }],
      from: start.port,
      to: null,
      ends: 'open',
      lengthM: 0,
      unknownLengths: 0,
      stop: null,
      branches: [],
    };
    const add = (lengthM: number | null): void => {
      if (lengthM === null) run.unknownLengths++;
      else run.lengthM += lengthM;
    };
    let at = start;
    for (;;) {
      const cable = cableAt(network, at.port);
      const circuit = cable === null ? circuitAt(network, at.port) : null;
      let ways: (At | null)[];
      if (cable !== null) {
        const { leg } = placeOnCable(network, cable, at.port);
        const key = takenAt(cable.id, leg, at.strands);
        if (this.taken.has(key)) return { ...run, ends: 'loop' };
        this.taken.add(key);
        run.hops.push({ cable: cable.id });
        add(cable.lengthM);
        const along = alongCable(network, cable, at);
        if (!Array.isArray(along)) return { ...run, stop: along };
        ways = along;
        // The far end is noted as well: coming back over the same strands is a loop.
        for (const way of ways) {
          if (way === null) continue;
          const far = placeOnCable(network, cable, way.port).leg;
          this.taken.add(takenAt(cable.id, far, way.strands));
        }
      } else if (circuit !== null) {
        if (this.taken.has(circuit.id)) return { ...run, ends: 'loop' };
        this.taken.add(circuit.id);
        run.hops.push({ circuit: circuit.id });
        add(circuit.lengthM);
        const far = circuit.aPortId === at.port ? circuit.bPortId : circuit.aPortId;
        ways = [far === null ? null : { port: far, strands: null }];
      } else return run;
      const next = this.split(run, ways);
      if (next === null) return run;
      run.hops.push({ port: next.port });
      const inside = inward(network, next);
      const stop = inside.length === 0 ? stopAt(network, next) : null;
      if (stop !== null) return { ...run, stop };
      if (inside.length === 0) return { ...run, ends: 'port', to: next.port };
      const onward = this.split(run, inside);
      if (onward === null) return run;
      run.hops.push({ port: onward.port });
      at = onward;
    }
  }

  /** Takes the first way that leads somewhere and keeps the others as branches. */
  private split(run: Run, ways: readonly (At | null)[]): At | null {
    const open = ways.filter((way) => way !== null);
    const [first = null, ...others] = open;
    const after = run.hops.length - 1;
    for (const way of others) {
      if (++this.splits > mostBranches) break;
      run.branches.push({ after, run: this.arriving(way) });
    }
    return first;
  }

  /** A run that begins by arriving at a port: over a cable, or from inside its device. */
  private arriving(at: At): Run {
    const here = this.network.get('port', at.port);
    const last: Run = {
      hops: [{ port: at.port }],
      from: at.port,
      to: at.port,
      ends: 'port',
      lengthM: 0,
      unknownLengths: 0,
      stop: null,
      branches: [],
    };
    const branch = new Follower(this.network, this.taken);
    branch.splits = this.splits;
    if (here?.leadsToStrand !== null && here?.leadsToStrand !== undefined) return branch.outward(at);
    const [inside] = inward(this.network, at);
    if (inside === undefined) return last;
    const onward = branch.outward(inside);
    return {
      ...onward,
      from: at.port,
      hops: [{ port: at.port }, ...onward.hops],
      branches: later(onward, 1),
    };
  }
}

const later = (run: Run, by: number): Run['branches'] =>
  run.branches.map(({ after, run: branch }) => ({ after: after + by, run: branch }));

/**
 * Follows the physical path from a port: out through its cable or circuit, and at every pass-through port in at
 * one side and out at the other, until a port that passes nothing on. In cassettes and trunks the strands are
 * followed. A run that comes back over strands it has taken ends as a loop. A pass-through port without a cable of
 * its own is followed by its partner. Whatever its status: for drawings, which show all and say which is which.
 */
export function followRun(network: Network, portId: string): Run {
  const start: At = { port: portId, strands: litBy(network, portId) };
  if (cableAt(network, portId) !== null || circuitAt(network, portId) !== null)
    return new Follower(network).outward(start);
  const [partner] = inward(network, start);
  const run = new Follower(network).outward(partner ?? start);
  if (partner === undefined) return run;
  return { ...run, from: portId, hops: [{ port: portId }, ...run.hops], branches: later(run, 1) };
}

/** The run from a port over what is in force: at retired gear and cables it ends. */
export const traceRun = (network: Network, portId: string): Run => followRun(inForce(network), portId);

/** The whole run that a port lies on, from one end to the other, also when the port is in its middle; of what is in force. */
export function wholeRun(whole: Network, portId: string): Run {
  const network = inForce(whole);
  const start: At = { port: portId, strands: null };
  const inside = inward(network, start);
  const [partner, ...others] = inside;
  if (partner === undefined) return traceRun(network, portId);
  const onward = new Follower(network).outward(start);
  if (onward.ends === 'loop') return onward;
  const back = new Follower(network).outward(partner);
  if (back.ends === 'loop') return back;
  const hops = [...back.hops.slice().reverse(), ...onward.hops];
  const turn = back.hops.length;
  const port: Port | null = network.get('port', portId);
  const beside =
    others.length === 0 || port === null
      ? []
      : others.map((way) => ({ after: turn, run: new Follower(network).outward(way) }));
  const first = hops[0];
  return {
    hops,
    from: back.to ?? (first !== undefined && 'port' in first ? first.port : partner.port),
    to: onward.to,
    ends: onward.ends,
    lengthM: back.lengthM + onward.lengthM,
    unknownLengths: back.unknownLengths + onward.unknownLengths,
    stop: onward.stop ?? back.stop,
    branches: [
      ...back.branches.map(({ after, run }) => ({ after: turn - 1 - after, run })),
      ...beside,
      ...later(onward, turn),
    ],
  };
}

/** Why a run ends open, in words: "TR-1 has 12 strands, 13 and 14 are not among them". */
export function stopText(network: Network, stop: RunStop): string {
  const strands =
    stop.strands.length > 1 ? `strands ${stop.strands.join(', ')}` : `strand ${stop.strands[0] ?? ''}`;
  if (stop.because === 'no strand')
    return `${network.get('cable', stop.cableId)?.label ?? ''} has ${stop.has} strands, ${strands} not among them`;
  const title = portTitle(network, stop.portId).replace(':', ' ');
  return stop.because === 'dark'
    ? `the optic in ${title} does not light ${strands}`
    : `no port behind ${title} takes up ${strands}`;
}

/** Every port, cable and circuit of a run, its branches included: what a drawing lights up. */
export function idsOfRun(run: Run): Set<string> {
  const ids = new Set<string>();
  const add = (part: Run): void => {
    for (const hop of part.hops) ids.add('port' in hop ? hop.port : 'cable' in hop ? hop.cable : hop.circuit);
    for (const { run: branch } of part.branches) add(branch);
  };
  add(run);
  return ids;
}
