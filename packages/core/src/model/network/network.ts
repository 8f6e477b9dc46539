import type { IndexKey, OnRemove } from '../fields/kind.ts';
import {
  anyKind,
  held,
  isKind,
  keyRulesOf,
  kindNames,
  kinds,
  refsOf,
  type IndexKind,
  type IndexName,
  type Kind,
  type Row,
  type Rows,
} from '../kinds.ts';
import { LayeredMap, type LayeredDraft } from './layeredMap.ts';
import { RowIndex, type RowIndexDraft } from './rowIndex.ts';

interface IndexDefinition {
  kind: Kind;
  key: (row: Row) => IndexKey;
}

/** The key of a reference: the ids in its fields, or what stands for none. Read for every row there is: kept lean. */
function byReferences(fields: readonly string[], none: string | null): (row: Row) => IndexKey {
  const [first = '', second] = fields;
  const idIn = (row: Row, field: string): string | null => {
    const id = held(row)[field];
    return typeof id === 'string' ? id : null;
  };
  if (second === undefined) return (row) => idIn(row, first) ?? none;
  if (fields.length > 2) return (row) => fields.flatMap((field) => idIn(row, field) ?? []);
  return (row) => {
    const [a, b] = [idIn(row, first), idIn(row, second)];
    return a === null ? b : b === null ? a : [a, b];
  };
}

/** A way from a row to those that refer to it: by which fields, and what becomes of them when it goes. */
export interface Referrer {
  kind: Kind;
  fields: readonly string[];
  refersTo: Kind;
  index: IndexName;
  onRemove: OnRemove;
}

/** Every way from a row to those that refer to it, in the order of the kinds. */
export const referrers: readonly Referrer[] = kindNames.flatMap((kind) => {
  const found = new Map<string, Referrer & { fields: string[] }>();
  for (const [field, { to, index, onRemove }] of refsOf(kind)) {
    const key = `${index} ${to}`;
    const known = found.get(key);
    if (known === undefined)
      found.set(key, { kind, fields: [field], refersTo: to, index: index as IndexName, onRemove });
    else known.fields.push(field);
  }
  return [...found.values()];
});

/** Ways to find rows other than by id. Built when first asked for, then kept up to date with every change. */
const indexDefinitions: ReadonlyMap<string, IndexDefinition> = new Map(
  kindNames.flatMap((kind): [string, IndexDefinition][] => {
    const fields = new Map<string, { fields: string[]; none: string | undefined }>();
    for (const [field, { index, none }] of refsOf(kind)) {
      const entry = fields.get(index) ?? { fields: [], none };
      if (!entry.fields.includes(field)) entry.fields.push(field);
      fields.set(index, entry);
    }
    return [
      ...[...fields].map(([name, one]): [string, IndexDefinition] => [
        name,
        { kind, key: byReferences(one.fields, one.none ?? null) },
      ]),
      ...Object.entries(anyKind(kind).indexes).map(([name, key]): [string, IndexDefinition] => [
        name,
        { kind, key },
      ]),
    ];
  }),
);
const indexNamesOf = (kind: Kind): string[] =>
  [...indexDefinitions].filter(([, definition]) => definition.kind === kind).map(([name]) => name);

function definitionOf(name: string): IndexDefinition {
  const found = indexDefinitions.get(name);
  if (found === undefined) throw new Error(`There is no index ${name}.`);
  return found;
}
const kindBehind = <N extends IndexName>(name: N): IndexKind<N> => definitionOf(name).kind as IndexKind<N>;

const uniqueName = (kind: Kind, rule: number): string => `${kind}.unique.${rule}`;
const uniqueKey =
  (kind: Kind, rule: number): ((row: Row) => IndexKey) =>
  (row) => {
    const text = keyRulesOf(kind)[rule]?.key(row) ?? '';
    return text === '' ? null : text.toLowerCase();
  };

/** Each kind in a table of its own: whoever puts rows in sees to that. */
type Tables = Readonly<Record<Kind, LayeredMap<Row>>>;
type AnyIndex = RowIndex<Row>;

const tablesOf = (make: (kind: Kind) => LayeredMap<Row>): Tables =>
  Object.fromEntries(kindNames.map((kind) => [kind, make(kind)])) as Tables;

/** A row as it was and as it is: null where it was made or removed. */
export type Touched = {
  [K in Kind]: { kind: K; before: Rows[K] | null; after: Rows[K] | null };
}[Kind];
/** The same, the other way round. */
export const turnedRound = ({ kind, before, after }: Touched): Touched =>
  ({ kind, before: after, after: before }) as Touched;

/** How a network came about: from which, and what was touched. Forgotten when very much was. */
export interface Origin {
  base: Pick<WeakRef<Network>, 'deref'>;
  touched: readonly Touched[];
}
const mostTouched = 500;

/**
 * A snapshot of the whole network: one table per kind, and indexes. Never changed once made; a changed network
 * shares all that did not change with the one before it.
 */
export class Network {
  private constructor(
    private readonly tables: Tables,
    private readonly indexes: Map<string, AnyIndex>,
  ) {}

  private made: Origin | null = null;
  private passing = false;
  /** Lets what was worked out for the network before be kept where nothing changed. */
  get origin(): Origin | null {
    return this.made;
  }

  static empty(): Network {
    return Network.of({});
  }

  /** A network of these rows, which must already be valid: from the database, or sent by the server. */
  static of(rows: Partial<{ [K in Kind]: Iterable<Rows[K]> }>): Network {
    return new Network(
      tablesOf((kind) => LayeredMap.byId<Row>(rows[kind] ?? [])),
      new Map(),
    );
  }

  get<K extends Kind>(kind: K, id: string | null): Rows[K] | null {
    return id === null ? null : ((this.tables[kind].get(id) as Rows[K] | undefined) ?? null);
  }

  all<K extends Kind>(kind: K): Iterable<Rows[K]> {
    return this.tables[kind].values() as Iterable<Rows[K]>;
  }

  count(kind: Kind): number {
    return this.tables[kind].size;
  }

  /** All of it, as what makes it out of nothing. */
  *steps(): Generator<Touched> {
    for (const kind of kindNames)
      for (const row of this.all(kind)) yield { kind, before: null, after: row } as Touched;
  }

  /** All rows, of whatever kind. */
  get size(): number {
    return kindNames.reduce((sum, kind) => sum + this.count(kind), 0);
  }

  /** The rows an index has under a key, in no particular order. */
  find<N extends IndexName>(name: N, key: string): Rows[IndexKind<N>][] {
    const kind = kindBehind(name);
    const rows: Rows[IndexKind<N>][] = [];
    for (const id of this.named(name).ids(key)) {
      const row = this.get(kind, id);
      if (row !== null) rows.push(row);
    }
    return rows;
  }

  findOne<N extends IndexName>(name: N, key: string): Rows[IndexKind<N>] | null {
    const kind = kindBehind(name);
    return this.get(kind, this.named(name).first(key));
  }

  countOf(name: IndexName, key: string): number {
    return this.named(name).count(key);
  }

  /** The id of another row with the same unique key, or null. */
  sameKey<K extends Kind>(kind: K, row: Rows[K], rule: number): string | null {
    const unique = kinds[kind].unique[rule];
    const key = unique?.key(row) ?? '';
    if (key === '') return null;
    for (const id of this.unique(kind, rule).ids(key.toLowerCase())) if (id !== row.id) return id;
    return null;
  }

  /** The id of a row that has this key by a rule of `keyRulesOf`; null where none has it. */
  holderOf(kind: Kind, rule: number, key: string): string | null {
    return this.unique(kind, rule).first(key.toLowerCase());
  }

  /**
   * The start of a changed network. The indexes of the kinds about to be touched are built here first, so that
   * they are built once and not again in every network made from this one.
   */
  draft(touched: Iterable<Kind> = []): NetworkDraft {
    return this.drafted(touched, (made, touched) =>
      touched === null ? made : made.from({ base: new WeakRef<Network>(this), touched }),
    );
  }

  /**
   * The same where very many are made in one go, each from the one before, and only the last is wanted: each knows the
   * one before it and no other. What a WeakRef refers to stays in memory until the work at hand ends, which would be
   * all of them.
   */
  passingDraft(touched: Iterable<Kind> = []): NetworkDraft {
    return this.drafted(touched, (made, touched) => {
      if (this.passing) this.made = null;
      made.passing = true;
      return touched === null ? made : made.from({ base: { deref: () => this }, touched });
    });
  }

  private drafted(
    touched: Iterable<Kind>,
    descend: (made: Network, touched: readonly Touched[] | null) => Network,
  ): NetworkDraft {
    for (const kind of touched) this.prepare(kind);
    return new NetworkDraft(this.tables, this.indexes, (tables, indexes, touched) =>
      descend(new Network(tables, indexes), touched),
    );
  }

  private from(origin: Origin): this {
    this.made = origin;
    return this;
  }

  /** Builds the indexes of some kinds now, so that the first edit of them does not wait. */
  warm(wanted: readonly Kind[]): this {
    for (const kind of wanted) this.prepare(kind);
    return this;
  }

  private prepare(kind: Kind): void {
    const wanted = [
      ...indexNamesOf(kind).map((name) => ({ name, key: definitionOf(name).key })),
      ...kinds[kind].unique.map((_rule, rule) => ({
        name: uniqueName(kind, rule),
        key: uniqueKey(kind, rule),
      })),
    ].filter(({ name }) => !this.indexes.has(name));
    const built = RowIndex.buildAll<Row>(
      wanted.map(({ key }) => key),
      wanted.length === 0 ? [] : this.all(kind),
    );
    built.forEach((index, at) => this.indexes.set(wanted[at]?.name ?? '', index));
  }

  private unique(kind: Kind, rule: number): AnyIndex {
    return this.index(uniqueName(kind, rule), kind, uniqueKey(kind, rule));
  }

  private named(name: string): AnyIndex {
    const built = this.indexes.get(name);
    if (built !== undefined) return built;
    const { kind, key } = definitionOf(name);
    return this.index(name, kind, key);
  }

  private index(name: string, kind: Kind, key: (row: Row) => IndexKey): AnyIndex {
    const built = this.indexes.get(name);
    if (built !== undefined) return built;
    const index = RowIndex.build<Row>(key, this.all(kind));
    this.indexes.set(name, index);
    return index;
  }
}

/** The kind of an index by name, or of a key that is there once (`device.unique.0`). */
function kindOfIndex(name: string): Kind {
  const kind = indexDefinitions.get(name)?.kind ?? name.slice(0, name.indexOf('.'));
  if (!isKind(kind)) throw new Error(`There is no index ${name}.`);
  return kind;
}

/** A table being changed, with the indexes of its kind. */
interface OpenTable {
  rows: LayeredDraft<Row>;
  indexes: [name: string, draft: RowIndexDraft<Row>][];
}

/** A network being changed: only what is touched is copied. */
export class NetworkDraft {
  private readonly open = new Map<Kind, OpenTable>();
  private touched: Touched[] | null = [];

  private touch(kind: Kind, before: Row | null, after: Row | null): void {
    if (this.touched === null) return;
    if (this.touched.length >= mostTouched) this.touched = null;
    // Rows of the kind, as `put` and `drop` take them.
    else this.touched.push({ kind, before, after } as Touched);
  }

  constructor(
    private readonly base: Tables,
    private readonly baseIndexes: ReadonlyMap<string, AnyIndex>,
    private readonly make: (
      tables: Tables,
      indexes: Map<string, AnyIndex>,
      touched: readonly Touched[] | null,
    ) => Network,
  ) {}

  get<K extends Kind>(kind: K, id: string): Rows[K] | null {
    const row = (this.open.get(kind)?.rows ?? this.base[kind]).get(id);
    return (row as Rows[K] | undefined) ?? null;
  }

  put<K extends Kind>(kind: K, row: Rows[K]): void {
    const { rows, indexes } = this.opened(kind);
    const before = rows.get(row.id);
    rows.set(row.id, row, before === undefined);
    this.touch(kind, before ?? null, row);
    for (const [, index] of indexes) {
      if (before === undefined) index.add(row);
      else index.replace(before, row);
    }
  }

  drop(kind: Kind, id: string): void {
    const { rows, indexes } = this.opened(kind);
    const before = rows.get(id);
    if (before === undefined) return;
    for (const [, index] of indexes) index.remove(before);
    rows.delete(id);
    this.touch(kind, before, null);
  }

  finish(): Network {
    const tables = { ...this.base };
    const indexes = new Map(this.baseIndexes);
    for (const [kind, open] of this.open) {
      tables[kind] = open.rows.finish();
      for (const [name, index] of open.indexes) indexes.set(name, index.seal());
    }
    return this.make(tables, indexes, this.touched);
  }

  private opened(kind: Kind): OpenTable {
    const known = this.open.get(kind);
    if (known !== undefined) return known;
    const indexes = [...this.baseIndexes]
      .filter(([name]) => kindOfIndex(name) === kind)
      .map(([name, index]): [string, RowIndexDraft<Row>] => [name, index.draft()]);
    const opened = { rows: this.base[kind].draft(), indexes };
    this.open.set(kind, opened);
    return opened;
  }
}
