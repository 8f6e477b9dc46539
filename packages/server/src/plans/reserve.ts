import { freeValue } from '@visograph/core/change';
import { type Reservation } from '@visograph/core/lens';
import { keyRulesOf, kinds, type Kind, type Network, type Problem } from '@visograph/core/model';
import type { Knex } from 'knex';
import type { LineOf } from '../store/journal.ts';

/** Names that another plan keeps for itself. Thrown inside the transaction that it ends. */
export class KeptElsewhere extends Error {
  constructor(readonly problems: Problem[]) {
    super(problems[0]?.message);
  }
}

const nameOf = ({ kind, what, key }: { kind: string; what: string; key: string }): string =>
  `${kind} ${what} ${key}`;

interface Holder {
  kind: Kind;
  what: string;
  key: string;
  plan: string;
}

/** Who keeps these names, and which others are kept beside them. */
async function holders(
  transaction: Knex.Transaction,
  of: LineOf,
  wanted: readonly Reservation[],
): Promise<Holder[]> {
  return transaction('reservation')
    .join('line', 'line.id', 'reservation.lineId')
    .where('reservation.projectId', of.projectId)
    .whereNot('reservation.lineId', of.line)
    .whereIn('reservation.kind', [...new Set(wanted.map(({ kind }) => kind))])
    .select('reservation.kind', 'reservation.what', 'reservation.key', 'line.name as plan');
}

function problemOf(network: Network, one: Reservation, all: readonly Holder[], plan: string): Problem {
  const at = keyRulesOf(one.kind).findIndex(({ what }) => what === one.what);
  const kept = new Set(
    all.filter(({ kind, what }) => kind === one.kind && what === one.what).map(({ key }) => key),
  );
  const row = network.get(one.kind, one.id);
  const free = row === null ? null : freeValue(network, one.kind, row, at, kept);
  const remedy = free === null ? `Choose another ${one.what}.` : `Choose another: ${free} is free.`;
  return {
    code: 'kept',
    kind: one.kind,
    id: one.id,
    about: `${kinds[one.kind].one} ${one.value}`,
    field: one.what,
    message: `The plan “${plan}” keeps the ${kinds[one.kind].one} ${one.value} for itself. ${remedy}`,
    ...(free === null ? {} : { free }),
  };
}

/**
 * Makes the reservations of a plan exactly these, in the caller's transaction. What another plan keeps is refused; two
 * that want one name at the same moment wait for each other here.
 *
 * @param network the plan's, with the rows that want the names
 * @throws KeptElsewhere
 */
export async function reserve(
  transaction: Knex.Transaction,
  of: LineOf,
  network: Network,
  wanted: readonly Reservation[],
): Promise<void> {
  const had: { kind: string; what: string; key: string }[] = await transaction('reservation')
    .select('kind', 'what', 'key')
    .where({ projectId: of.projectId, lineId: of.line });
  const [before, after] = [new Set(had.map(nameOf)), new Set(wanted.map(nameOf))];
  const released = had
    .filter((one) => !after.has(nameOf(one)))
    .map(({ kind, what, key }) => [kind, what, key]);
  for (let at = 0; at < released.length; at += 1000)
    await transaction('reservation')
      .delete()
      .where({ projectId: of.projectId, lineId: of.line })
      .whereIn(['kind', 'what', 'key'], released.slice(at, at + 1000));
  const added = wanted.filter((one) => !before.has(nameOf(one)));
  const lost: Reservation[] = [];
  for (let at = 0; at < added.length; at += 1000) {
    const block = added.slice(at, at + 1000);
    const taken: { kind: string; what: string; key: string }[] = await transaction('reservation')
      .insert(
        block.map(({ kind, what, key }) => ({ projectId: of.projectId, lineId: of.line, kind, what, key })),
      )
      .onConflict(['project_id', 'kind', 'what', 'key'])
      .ignore()
      .returning(['kind', 'what', 'key']);
    const got = new Set(taken.map(nameOf));
    lost.push(...block.filter((one) => !got.has(nameOf(one))));
  }
  if (lost.length === 0) return;
  const all = await holders(transaction, of, lost);
  const plans = new Map(all.map((one) => [nameOf(one), one.plan]));
  throw new KeptElsewhere(
    lost.map((one) => problemOf(network, one, all, plans.get(nameOf(one)) ?? 'another plan')),
  );
}
