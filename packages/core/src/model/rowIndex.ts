import { Map as PersistentMap, Set as PersistentSet } from 'immutable';

type Bucket = string | PersistentSet<string>;
/** What an index needs of a map: a persistent one, or a plain one where nothing is changed afterwards. */
type Buckets = Pick<PersistentMap<string, Bucket>, 'get'> & {
  set: (key: string, bucket: Bucket) => unknown;
  delete: (key: string) => unknown;
};
const none: readonly string[] = [];

/**
 * From a key to the ids of the rows that have it; persistent, so that an older network keeps its own view.
 * A bucket of one id, by far the most common, is the bare id.
 */
export class RowIndex<R extends { id: string }> {
  private constructor(
    private readonly keyOf: (row: R) => string | readonly string[] | null,
    private buckets: Buckets,
  ) {}

  static build<R extends { id: string }>(
    keyOf: (row: R) => string | readonly string[] | null,
    rows: Iterable<R>,
  ): RowIndex<R> {
    const index = new RowIndex(keyOf, PersistentMap<string, Bucket>().asMutable());
    for (const row of rows) index.add(row);
    return index.seal();
  }

  /** An index on a plain map: several times quicker to read, never to be drafted from. */
  static forReading<R extends { id: string }>(
    keyOf: (row: R) => string | readonly string[] | null,
    rows: Iterable<R>,
  ): RowIndex<R> {
    const index = new RowIndex<R>(keyOf, new Map<string, Bucket>());
    for (const row of rows) index.add(row);
    return index;
  }

  /** A copy that may be changed in place until it is sealed. */
  draft(): RowIndex<R> {
    return new RowIndex(this.keyOf, (this.buckets as PersistentMap<string, Bucket>).asMutable());
  }

  seal(): RowIndex<R> {
    this.buckets = (this.buckets as PersistentMap<string, Bucket>).asImmutable();
    return this;
  }

  private keysOf(row: R): readonly string[] {
    const key = this.keyOf(row);
    if (key === null) return none;
    return typeof key === 'string' ? [key] : key;
  }

  add(row: R): void {
    for (const key of this.keysOf(row)) {
      const bucket = this.buckets.get(key);
      if (bucket === undefined || bucket === row.id) this.buckets.set(key, row.id);
      else if (typeof bucket === 'string') this.buckets.set(key, PersistentSet([bucket, row.id]));
      else this.buckets.set(key, bucket.add(row.id));
    }
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
      if (bucket === row.id) this.buckets.delete(key);
      else if (bucket !== undefined && typeof bucket !== 'string') {
        const rest = bucket.delete(row.id);
        const only = rest.size === 1 ? rest.first() : undefined;
        this.buckets.set(key, only ?? rest);
      }
    }
  }

  ids(key: string): Iterable<string> {
    const bucket = this.buckets.get(key);
    if (bucket === undefined) return none;
    return typeof bucket === 'string' ? [bucket] : bucket;
  }

  first(key: string): string | null {
    const bucket = this.buckets.get(key);
    if (bucket === undefined) return null;
    return typeof bucket === 'string' ? bucket : (bucket.first() ?? null);
  }

  count(key: string): number {
    const bucket = this.buckets.get(key);
    if (bucket === undefined) return 0;
    return typeof bucket === 'string' ? 1 : bucket.size;
  }
}
