import type { Network } from '../model/network.ts';
import { cableAt, otherEnd } from '../model/ports.ts';

export type Hop = { port: string } | { cable: string };

export interface Run {
  /** Ids of the ports and cables passed, in order, beginning with a port. */
  hops: Hop[];
  from: string;
  /** The port the run arrives at; null when it ends open or returns to itself. */
  to: string | null;
  ends: 'port' | 'open' | 'loop';
  /** Sum of the known cable lengths in metres. */
  lengthM: number;
  /** Cables on the run whose length is not known. */
  unknownLengths: number;
}

/**
 * Follows the physical path from a port: out through its cable, and at every pass-through port in at one side
 * and out at the other, until a port that passes nothing on. Each cable is taken once: a run that comes back to
 * one it has taken ends as a loop. A pass-through port without a cable of its own is followed by its partner.
 */
export function traceRun(network: Network, portId: string): Run {
  const hops: Hop[] = [{ port: portId }];
  const taken = new Set<string>();
  let lengthM = 0;
  let unknownLengths = 0;
  const done = (ends: Run['ends'], to: string | null): Run => ({
    hops,
    from: portId,
    to,
    ends,
    lengthM,
    unknownLengths,
  });

  let at = portId;
  if (cableAt(network, at) === null) {
    const partner = network.get('port', at)?.passThroughId ?? null;
    if (partner === null) return done('open', null);
    hops.push({ port: partner });
    at = partner;
  }
  for (;;) {
    const cable = cableAt(network, at);
    if (cable === null) return done('open', null);
    if (taken.has(cable.id)) return done('loop', null);
    taken.add(cable.id);
    hops.push({ cable: cable.id });
    if (cable.lengthM === null) unknownLengths++;
    else lengthM += cable.lengthM;
    const far = otherEnd(cable, at);
    if (far === null) return done('open', null);
    hops.push({ port: far });
    const partner = network.get('port', far)?.passThroughId ?? null;
    if (partner === null) return done('port', far);
    hops.push({ port: partner });
    at = partner;
  }
}

/** The whole run that a port lies on, from one end to the other, also when the port is in its middle. */
export function wholeRun(network: Network, portId: string): Run {
  const partner = network.get('port', portId)?.passThroughId ?? null;
  if (partner === null) return traceRun(network, portId);
  if (cableAt(network, partner) === null) return traceRun(network, partner);
  const back = traceRun(network, partner);
  const last = back.hops.at(-1);
  if (back.ends === 'loop' || last === undefined) return traceRun(network, portId);
  if ('port' in last) return traceRun(network, last.port);
  const onward = traceRun(network, portId);
  return {
    ...onward,
    from: back.from,
    hops: [...back.hops.slice().reverse(), ...onward.hops],
    lengthM: back.lengthM + onward.lengthM,
    unknownLengths: back.unknownLengths + onward.unknownLengths,
  };
}
