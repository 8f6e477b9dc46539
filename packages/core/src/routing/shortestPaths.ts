import { Heap } from '../model/values/heap.ts';
import type { OspfArea, OspfInterface } from './ospfGraph.ts';

/** A first step: out of an interface, to the one of a neighbour. */
export interface FirstHop {
  out: OspfInterface;
  into: OspfInterface | null;
}

export interface ShortestPaths {
  /** Cost to each vertex of the area; Infinity where no way leads. */
  costs: Float64Array;
  /** The first steps of all ways of that cost. */
  hops: (readonly FirstHop[])[];
}

const none: readonly FirstHop[] = [];

/** The steps of both, each once. */
export function merged(a: readonly FirstHop[], b: readonly FirstHop[]): readonly FirstHop[] {
  if (a === b || b.length === 0) return a;
  const more = b.filter(
    (hop) => !a.some((one) => one.out.port.id === hop.out.port.id && one.into?.port.id === hop.into?.port.id),
  );
  return more.length === 0 ? a : [...a, ...more];
}

/**
 * All shortest ways from one router through its area, with every first step of equal cost (Dijkstra as RFC 2328
 * section 16.1 has it). Subnets are taken before routers of the same cost, so that no equal way is missed.
 */
export function shortestPaths({ vertices, byDevice }: OspfArea, deviceId: string): ShortestPaths {
  const costs = new Float64Array(vertices.length).fill(Infinity);
  const hops: (readonly FirstHop[])[] = vertices.map(() => none);
  const start = byDevice.get(deviceId);
  if (start === undefined) return { costs, hops };
  const done = new Uint8Array(vertices.length);
  const heap = new Heap();
  costs[start] = 0;
  heap.push(0, start);
  for (let next = heap.pop(); next !== null; next = heap.pop()) {
    const vertex = vertices[next[1]];
    if (vertex === undefined || done[vertex.at] === 1) continue;
    done[vertex.at] = 1;
    const here = costs[vertex.at] ?? Infinity;
    for (const edge of vertex.edges) {
      if (done[edge.to] === 1) continue;
      const cost = here + edge.cost;
      const known = costs[edge.to] ?? Infinity;
      if (cost > known) continue;
      const via = stepsOver(vertex.at === start, hops[vertex.at] ?? none, edge);
      hops[edge.to] = cost < known ? via : merged(hops[edge.to] ?? none, via);
      if (cost < known) {
        costs[edge.to] = cost;
        heap.push(cost + (vertices[edge.to]?.deviceId === null ? 0 : 0.5), edge.to);
      }
    }
  }
  return { costs, hops };
}

/** The first steps of a way that goes on over an edge: its own where it begins here, those so far otherwise. */
function stepsOver(
  begins: boolean,
  soFar: readonly FirstHop[],
  { out, into }: { out: OspfInterface | null; into: OspfInterface | null },
): readonly FirstHop[] {
  if (begins) return out === null ? none : [{ out, into }];
  if (out === null && into !== null && soFar.some((hop) => hop.into === null))
    return soFar.map((hop) => (hop.into === null ? { out: hop.out, into } : hop));
  return soFar;
}
