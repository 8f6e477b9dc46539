import { removal } from '../change/removal.ts';
import type { Network } from '../model/network.ts';

/** Kinds with a status of their own. */
const byStatus = {
  device: 'devicesByStatus',
  cable: 'cablesByStatus',
  circuit: 'circuitsByStatus',
  prefix: 'prefixesByStatus',
} as const;
const withStatus = ['device', 'cable', 'circuit', 'prefix'] as const;

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
    for (const change of removal(network, gone).changes) {
      if (change.op === 'delete') draft.drop(change.kind, change.id);
      else if (change.op === 'update') {
        const row = draft.get(change.kind, change.id);
        if (row !== null) draft.put(change.kind, { ...row, ...change.after } as never);
      }
    }
    result = draft.finish();
    known.set(result, result);
    if (!planned) made.planned.set(result, result);
  }
  known.set(network, result);
  return result;
}
