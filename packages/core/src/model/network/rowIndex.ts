import { LayeredMap, type LayeredDraft } from './layeredMap.ts';

/** The ids under a key: mostly one, sometimes a few, now and then very many. */
type Bucket = string | readonly string[] | LayeredMap<true>;
const mostFew = 256;
const none: readonly string[] = [];

type KeyOf<R> = (row: R) => string | readonly string[] | null;

/** From a key to the ids of the rows that have it; never changed once made, so that an older network keeps its own view. */
export class RowIndex<R extends { id: string }> {
  constructor(
    private readonly keyOf: KeyOf<R>,
    private readonly buckets: LayeredMap<Bucket>,
  ) {}

  static build<R extends { id: string }>(keyOf: KeyOf<R>, rows: Iterable<R>): RowIndex<R> {
    const building = new Building<R>(keyOf);
    for (const row of rows) building.enter(row);
    return building.finish();
  }

  /** Several indexes in one way over the rows: reading a row that is not at hand costs more than entering it. */
  static buildAll<R extends { id: string }>(keysOf: readonly KeyOf<R>[], rows: Iterable<R>): RowIndex<R>[] {
    const building = keysOf.map((keyOf) => new Building<R>(keyOf));
    for (const row of rows) for (const one of building) one.enter(row);
    return building.map((one) => one.finish());
  }

  draft(): RowIndexDraft<R> {
    return new RowIndexDraft<R>(this.keyOf, this.buckets.draft());
  }

  ids(key: string): Iterable<string> {
    const bucket = this.buckets.get(key);
    if (bucket === undefined) return none;
    if (typeof bucket === 'string') return [bucket];
    return bucket instanceof LayeredMap ? bucket.keys() : bucket;
  }

  first(key: string): string | null {
    const bucket = this.buckets.get(key);
    if (bucket === undefined) return null;
    if (typeof bucket === 'string') return bucket;
    if (!(bucket instanceof LayeredMap)) return bucket[0] ?? null;
    for (const id of bucket.keys()) return id;
    return null;
  }

  count(key: string): number {
    const bucket = this.buckets.get(key);
    if (bucket === undefined) return 0;
    if (typeof bucket === 'string') return 1;
    return bucket instanceof LayeredMap ? bucket.size : bucket.length;
  }
}

/** An index being built from nothing. */
class Building<R extends { id: string }> {
  private readonly found = new Map<string, string | string[]>();

  constructor(private readonly keyOf: KeyOf<R>) {}

  enter(row: R): void {
    const key = this.keyOf(row);
    if (key === null) return;
    if (typeof key === 'string') this.under(key, row.id);
    else for (const one of key) this.under(one, row.id);
  }

  private under(key: string, id: string): void {
    const ids = this.found.get(key);
    if (ids === undefined) this.found.set(key, id);
    else if (typeof ids === 'string') {
      if (ids !== id) this.found.set(key, [ids, id]);
    } else if (ids.at(-1) !== id) ids.push(id);
  }

  finish(): RowIndex<R> {
    const buckets: Map<string, Bucket> = this.found;
    for (const [key, ids] of this.found)
      if (typeof ids !== 'string' && ids.length > mostFew)
        buckets.set(key, LayeredMap.of(ids.map((id) => [id, true])));
    return new RowIndex<R>(this.keyOf, LayeredMap.over(buckets));
  }
}

/** An index being brought up to date with a network that is being changed. */
export class RowIndexDraft<R extends { id: string }> {
  /** Large buckets that were touched, until they are sealed. */
  private readonly open = new Map<string, LayeredDraft<true>>();

  constructor(
    private readonly keyOf: KeyOf<R>,
    private readonly buckets: LayeredDraft<Bucket>,
  ) {}

  private keysOf(row: R): readonly string[] {
    const key = this.keyOf(row);
    if (key === null) return none;
    return typeof key === 'string' ? [key] : key;
  }

  /** The large bucket under a key, opened to be changed; null where it is a small one or none. */
  private opened(key: string, bucket: Bucket | undefined): LayeredDraft<true> | null {
    const known = this.open.get(key);
    if (known !== undefined) return known;
    if (!(bucket instanceof LayeredMap)) return null;
    const draft = bucket.draft();
    this.open.set(key, draft);
    return draft;
  }

  add(row: R): void {
    for (const key of this.keysOf(row)) {
      const bucket = this.buckets.get(key);
      const large = this.opened(key, bucket);
      if (large !== null) large.set(row.id, true);
      else if (bucket === undefined || bucket === row.id) this.buckets.set(key, row.id, bucket === undefined);
      else if (typeof bucket === 'string') this.buckets.set(key, [bucket, row.id], false);
      else if (!(bucket instanceof LayeredMap)) this.addToFew(key, bucket, row.id);
    }
  }

  private addToFew(key: string, few: readonly string[], id: string): void {
    if (few.includes(id)) return;
    if (few.length < mostFew) return this.buckets.set(key, [...few, id], false);
    this.buckets.set(key, LayeredMap.of([...few, id].map((one) => [one, true])), false);
  }

  /** A changed row: touched only where its keys changed, which for most edits is nowhere. */
  replace(before: R, after: R): void {
    const [old, now] = [this.keyOf(before), this.keyOf(after)];
    if (old === now || (Array.isArray(old) && Array.isArray(now) && old.join('|') === now.join('|'))) return;
    this.remove(before);
    this.add(after);
  }

  remove(row: R): void {
    for (const key of this.keysOf(row)) {
      const bucket = this.buckets.get(key);
      const large = this.opened(key, bucket);
      if (large !== null) large.delete(row.id);
      else if (bucket === row.id) this.buckets.delete(key);
      else if (bucket !== undefined && typeof bucket !== 'string' && !(bucket instanceof LayeredMap)) {
        const rest = bucket.filter((id) => id !== row.id);
        const [only = ''] = rest;
        this.buckets.set(key, rest.length === 1 ? only : rest);
      }
    }
  }

  /** The index as it is now. The draft is not to be used any more. */
  seal(): RowIndex<R> {
    for (const [key, draft] of this.open) {
      if (draft.size === 0) this.buckets.delete(key);
      else this.buckets.set(key, draft.finish());
    }
    return new RowIndex<R>(this.keyOf, this.buckets.finish());
  }
}
