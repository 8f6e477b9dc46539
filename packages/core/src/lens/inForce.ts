import type { Subject } from '../change/removal.ts';
import { derived, type CarryOver } from '../model/network/derived.ts';
import { kindNames, leads, refsOf, type Kind, type Row, held, withFields } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { cutOut } from './cut.ts';

/** Kinds with a status of their own. */
const byStatus = {
  device: 'devicesByStatus',
  cable: 'cablesByStatus',
  circuit: 'circuitsByStatus',
  prefix: 'prefixesByStatus',
} as const;
const withStatus = ['device', 'cable', 'circuit', 'prefix'] as const;

const out = (planned: boolean): readonly string[] => (planned ? ['retired'] : ['retired', 'planned']);

/** The rows that do not count by their own status. */
const goneOf = (network: Network, planned: boolean): Subject[] =>
  withStatus.flatMap((kind) =>
    out(planned).flatMap((status) => network.find(byStatus[kind], status).map(({ id }) => ({ kind, id }))),
  );

function made(network: Network, planned: boolean): Network {
  const gone = goneOf(network, planned);
  if (gone.length === 0) return network;
  const draft = network.draft();
  cutOut(network, draft, gone);
  return draft.finish();
}

/**
 * The lens of an earlier network with what was touched since. Null where something came into force or went out of it:
 * then what hangs on it comes or goes as well.
 */
const carriedBy =
  (planned: boolean): CarryOver<Network> =>
  (before, network, touched, base) => {
    const statuses = out(planned);
    const isOut = (kind: Kind, row: Row | null): boolean =>
      row !== null && kind in byStatus && statuses.includes(String(held(row)['status']));
    if (touched.some(({ kind, before: old, after }) => isOut(kind, old) !== isOut(kind, after))) return null;
    if (before === base) return network;
    const draft = before.draft(new Set(touched.map(({ kind }) => kind)));
    const rank = new Map(kindNames.map((kind, at) => [kind, at]));
    const rows = new Map(touched.map(({ kind, before: old, after }) => [(old ?? after)?.id ?? '', kind]));
    for (const [id, kind] of [...rows].sort(([, a], [, b]) => (rank.get(a) ?? 0) - (rank.get(b) ?? 0))) {
      const row: Row | null = network.get(kind, id);
      if (row === null) {
        draft.drop(kind, id);
        continue;
      }
      if (isOut(kind, row)) continue;
      const lost = refsOf(kind).filter(([field, lead]) => {
        const target = held(row)[field];
        return typeof target === 'string' && leads(row, lead) && draft.get(lead.to, target) === null;
      });
      // What belongs to something that is out is out as well; it must have been so before.
      if (lost.some(([, { onRemove }]) => onRemove === 'goes')) {
        if (draft.get(kind, id) !== null) return null;
        continue;
      }
      const fields = lost
        .filter(([, { onRemove }]) => onRemove === 'cleared')
        .map(([field]) => [field, null]);
      draft.put(kind, fields.length === 0 ? row : withFields(row, Object.fromEntries(fields)));
    }
    return draft.finish();
  };

const lensOf = (planned: boolean): ((network: Network) => Network) =>
  derived((network) => made(network, planned), carriedBy(planned));

const lenses = { planned: lensOf(true), built: lensOf(false) };
/** Networks that are such a lens already: seen through it again they are the same. */
const seen = { planned: new WeakSet<Network>(), built: new WeakSet<Network>() };

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
  const which = planned ? 'planned' : 'built';
  if (seen[which].has(network)) return network;
  const lens = lenses[which](network);
  seen[which].add(lens);
  if (!planned) seen.planned.add(lens);
  return lens;
}
