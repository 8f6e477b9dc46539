import { derivedBy } from '../model/network/derived.ts';
import { allFactSorts, type FactSort } from '../model/values/facts.ts';
import { kindNames, kinds, refsOf, type Kind, type Row, held, withFields } from '../model/kinds.ts';
import { referrers, type Network } from '../model/network/network.ts';
import { cutOut } from './cut.ts';

/** A class of reader, by the sorts of fact that may leave the house for it. */
export interface Audience {
  sees: ReadonlySet<FactSort>;
}
/** Owners, editors and readers of a project see all there is. */
export const allSeeing: Audience = { sees: new Set(allFactSorts) };

const allows = (kind: Kind, field: string, value: unknown): boolean =>
  kinds[kind].schema.shape[field]?.safeParse(value).success === true;

/** What stands in a field in place of a fact: nothing, or that of a new row. Undefined: there is no such value. */
function emptied(kind: Kind, field: string): unknown {
  if (allows(kind, field, null)) return null;
  const blank = new Map<string, unknown>(Object.entries(kinds[kind].blank)).get(field);
  return blank !== undefined && allows(kind, field, blank) ? blank : undefined;
}

interface Hiding {
  /** Fields with what stands in them instead. */
  empty: readonly [field: string, value: unknown][];
  /** Fields that must have a text: the row is numbered. */
  numbered: readonly string[];
  /** A fact without which there is no such row. */
  gone: boolean;
}

function hidingOf(kind: Kind, sees: ReadonlySet<FactSort>): Hiding {
  const hidden = Object.entries<FactSort>(kinds[kind].facts)
    .filter(([, sort]) => !sees.has(sort))
    .map(([field]) => ({ field, value: emptied(kind, field) }));
  const without = hidden.filter(({ value }) => value === undefined).map(({ field }) => field);
  return {
    empty: hidden.flatMap(({ field, value }) => (value === undefined ? [] : [[field, value]])),
    numbered: without.filter((field) => allows(kind, field, `${kinds[kind].one} 1`)),
    gone: without.some((field) => !allows(kind, field, `${kinds[kind].one} 1`)),
  };
}

/**
 * The order in which rows are numbered: by what is seen of them, then by what is hidden. It tells an audience nothing
 * that it does not see but which of two things that look alike comes first, and depends on no id.
 */
function inSeenOrder(kind: Kind, rows: readonly Row[], { empty, numbered }: Hiding): Row[] {
  const ids = new Set(['id', ...refsOf(kind).map(([field]) => field)]);
  const hidden = new Set([...empty.map(([field]) => field), ...numbered]);
  const textOf = (row: Row, of: (field: string) => boolean): string =>
    JSON.stringify(Object.entries(row).filter(([field]) => !ids.has(field) && of(field)));
  const keyed = rows.map((row) => ({
    row,
    key: `${textOf(row, (field) => !hidden.has(field))} ${textOf(row, (field) => hidden.has(field))}`,
  }));
  return keyed.sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0)).map(({ row }) => row);
}

/** Rows that cannot do without one that is gone, as far as taking it out would not take them along. */
function holding(
  network: Network,
  gone: readonly { kind: Kind; id: string }[],
): { kind: Kind; id: string; field: string }[] {
  return gone.flatMap(({ kind, id }) =>
    referrers
      .filter(({ refersTo, onRemove }) => refersTo === kind && onRemove === 'holds')
      .flatMap(({ kind: other, index, fields }) =>
        network
          .find(index, id)
          .flatMap((row) =>
            fields
              .filter((field) => held(row)[field] === id)
              .map((field) => ({ kind: other, id: row.id, field })),
          ),
      ),
  );
}

function redacted(network: Network, sees: ReadonlySet<FactSort>): Network {
  const hidings = kindNames
    .map((kind) => ({ kind, hiding: hidingOf(kind, sees) }))
    .filter(({ hiding }) => hiding.gone || hiding.empty.length > 0 || hiding.numbered.length > 0);
  const draft = network.draft(hidings.map(({ kind }) => kind));
  const gone: { kind: Kind; id: string }[] = [];
  for (const { kind, hiding } of hidings) {
    const rows: Row[] = [...network.all(kind)];
    if (hiding.gone) {
      gone.push(...rows.map(({ id }) => ({ kind, id })));
      continue;
    }
    const ordered = hiding.numbered.length === 0 ? rows : inSeenOrder(kind, rows, hiding);
    ordered.forEach((row, at) => {
      const stand = hiding.numbered.map((field) => [field, `${kinds[kind].one} ${at + 1}`]);
      const seen = withFields(row, Object.fromEntries([...hiding.empty, ...stand]));
      // Such as a VLAN interface without its number: a row that means nothing without what is hidden.
      if (kinds[kind].schema.safeParse(seen).success) draft.put(kind, seen);
      else gone.push({ kind, id: row.id });
    });
  }
  // What is gone takes along what belongs to it, and is cleared where it was pointed at.
  for (let at = 0; at < gone.length; at++) {
    const one = gone[at];
    if (one === undefined) continue;
    for (const { kind, id, field } of holding(network, [one])) {
      const row: Row | null = draft.get(kind, id);
      if (row !== null && allows(kind, field, null)) draft.put(kind, withFields(row, { [field]: null }));
      else if (row !== null) gone.push({ kind, id });
    }
  }
  cutOut(network, draft, gone);
  return draft.finish();
}

const lens = derivedBy((network, hidden: string) =>
  redacted(network, new Set(allFactSorts.filter((sort) => !hidden.split(' ').includes(sort)))),
);

/**
 * The network as an audience may see it: of what it may not know nothing is left in any row, so that nothing made from
 * it can tell it. A hidden text that must be there is a number in the order of what is seen ("device 12"); a row that
 * is nothing without the hidden fact, such as an address, is not there. The same network for those who see all.
 */
export function seenBy(network: Network, { sees }: Audience): Network {
  const hidden = allFactSorts.filter((sort) => !sees.has(sort));
  return hidden.length === 0 ? network : lens(network, hidden.join(' '));
}
