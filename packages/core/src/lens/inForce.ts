import type { Kind, Row } from '../model/kinds.ts';
import { referrers, type Network, type NetworkDraft } from '../model/network.ts';

/** Kinds with a status of their own. */
const byStatus = {
  device: 'devicesByStatus',
  cable: 'cablesByStatus',
  circuit: 'circuitsByStatus',
  prefix: 'prefixesByStatus',
} as const;
const withStatus = ['device', 'cable', 'circuit', 'prefix'] as const;

/** What is unplugged when the port goes, and what only points at something. All else goes with what it belongs to. */
const staysWithout: ReadonlySet<Kind> = new Set<Kind>(['cable', 'circuit', 'mark', 'prefix']);

type Fields = Record<string, unknown> & { id: string };

/** Takes a row out, with all that belongs to it; what merely leads there ends in nothing. */
function takeOut(network: Network, draft: NetworkDraft, kind: Kind, id: string): void {
  if (draft.get(kind, id) === null) return;
  draft.drop(kind, id);
  for (const { kind: other, field, refersTo, index } of referrers) {
    if (refersTo !== kind) continue;
    for (const found of network.find(index, id)) {
      const row = draft.get(other, found.id) as (Row & Fields) | null;
      if (row === null) continue;
      const fields = staysWithout.has(other)
        ? Object.keys(row).filter((name) => name.endsWith('Id') && row[name] === id)
        : [];
      if (fields.length > 0)
        draft.put(other, { ...row, ...Object.fromEntries(fields.map((one) => [one, null])) });
      else if (row[field] === id) takeOut(network, draft, other, found.id);
    }
  }
}

const made = {
  planned: new WeakMap<Network, Network>(),
  built: new WeakMap<Network, Network>(),
};

/**
 * What counts: the network without what is retired, and, where `planned` is false, without what is only planned, as it
 * stands built today. A design is documented before it is built, so that planned things count unless they are left out
 * on purpose; retired ones never do. A device goes with its ports, addresses and routes; a cable or circuit that led
 * to it stays and hangs loose. The same network where nothing is to be left out; worked out once for a network.
 *
 * Whatever says what a network does (layer 2, routes, runs, power, light, PoE, next hops, free ports) reads it through
 * this lens; drawings and lists of what there is read all and say which is which.
 */
export function inForce(network: Network, { planned }: { planned: boolean } = { planned: true }): Network {
  const known = made[planned ? 'planned' : 'built'];
  const before = known.get(network);
  if (before !== undefined) return before;
  if (network.plainOf !== null) {
    const lens = inForce(network.plainOf, { planned });
    return lens === network.plainOf ? network : lens.forReading();
  }
  const gone = withStatus.flatMap((kind) =>
    (planned ? ['retired'] : ['retired', 'planned']).flatMap((status) =>
      network.find(byStatus[kind], status).map(({ id }) => ({ kind, id })),
    ),
  );
  let result = network;
  if (gone.length > 0) {
    const draft = network.draft();
    for (const { kind, id } of gone) takeOut(network, draft, kind, id);
    result = draft.finish();
    known.set(result, result);
    if (!planned) made.planned.set(result, result);
  }
  known.set(network, result);
  return result;
}
