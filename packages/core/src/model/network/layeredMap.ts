/** Stands in a layer where a key below it was taken out. */
const gone = Symbol('gone');
type Entry<V> = V | typeof gone;
type Layer<V> = ReadonlyMap<string, Entry<V>>;
const none: ReadonlyMap<string, never> = new Map<string, never>();

/** So many of the newest changes are copied with every further one. */
const mostOnTop = 256;
/** So many changes lie over the rest before all of it is laid out anew: this many, or an eighth of all. */
const mostBetween = (size: number): number => Math.max(4096, size / 8);

/**
 * A map that is never changed once it is made, and from which a changed one is made by sharing: all there is, over it
 * the changes since, over them the newest. All three are plain maps, so that reading costs a look-up or two, without
 * hashing each key anew as persistent tries do; a single change copies only the topmost.
 */
export class LayeredMap<V> {
  private constructor(
    readonly size: number,
    private readonly base: ReadonlyMap<string, V>,
    private readonly middle: Layer<V>,
    private readonly top: Layer<V>,
  ) {}

  static empty<V>(): LayeredMap<V> {
    return LayeredMap.over<V>(none);
  }

  static of<V>(entries: Iterable<readonly [string, V]>): LayeredMap<V> {
    return LayeredMap.over(new Map(entries));
  }

  /** A map taken as it is: whoever made it leaves it alone from then on. */
  static over<V>(base: ReadonlyMap<string, V>): LayeredMap<V> {
    return new LayeredMap<V>(base.size, base, none, none);
  }

  /** Rows under their ids. */
  static byId<R extends { id: string }>(rows: Iterable<R>): LayeredMap<R> {
    const base = new Map<string, R>();
    for (const row of rows) base.set(row.id, row);
    return LayeredMap.over(base);
  }

  get(key: string): V | undefined {
    if (this.top.size > 0) {
      const entry = this.top.get(key);
      if (entry !== undefined) return entry === gone ? undefined : entry;
    }
    if (this.middle.size > 0) {
      const entry = this.middle.get(key);
      if (entry !== undefined) return entry === gone ? undefined : entry;
    }
    return this.base.get(key);
  }

  entries(): Iterable<[string, V]> {
    return this.middle.size + this.top.size === 0 ? this.base : this.layered();
  }
  values(): Iterable<V> {
    return this.middle.size + this.top.size === 0 ? this.base.values() : this.layeredValues();
  }
  keys(): Iterable<string> {
    return this.middle.size + this.top.size === 0 ? this.base.keys() : this.layeredKeys();
  }

  private *layered(): Generator<[string, V]> {
    for (const [key, below] of this.base) {
      const over = this.top.get(key) ?? this.middle.get(key) ?? below;
      if (over !== gone) yield [key, over];
    }
    for (const [key, entry] of this.middle) {
      if (this.base.has(key)) continue;
      const over = this.top.get(key) ?? entry;
      if (over !== gone) yield [key, over];
    }
    for (const [key, entry] of this.top)
      if (entry !== gone && !this.base.has(key) && !this.middle.has(key)) yield [key, entry];
  }
  private *layeredValues(): Generator<V> {
    for (const [, value] of this.layered()) yield value;
  }
  private *layeredKeys(): Generator<string> {
    for (const [key] of this.layered()) yield key;
  }

  draft(): LayeredDraft<V> {
    return new LayeredDraft<V>(this, (staged, size) => this.with(staged, size));
  }

  private with(staged: Map<string, Entry<V>>, size: number): LayeredMap<V> {
    if (staged.size === 0) return this;
    // All of it is new: what was staged becomes the base as it is.
    if (this.base.size + this.middle.size + this.top.size === 0 && staged.size === size)
      return new LayeredMap<V>(size, staged as Map<string, V>, this.middle, this.top);
    if (this.top.size + staged.size <= mostOnTop && this.base.size > 0)
      return new LayeredMap<V>(size, this.base, this.middle, laidOver(this.top, staged));
    const changes = laidOver(laidOver(this.middle, this.top), staged);
    if (changes.size <= mostBetween(this.base.size) && this.base.size > 0)
      return new LayeredMap<V>(size, this.base, changes, new Map());
    const base = new Map(this.base);
    for (const [key, entry] of changes) {
      if (entry === gone) base.delete(key);
      else base.set(key, entry);
    }
    return new LayeredMap<V>(size, base, none, none);
  }
}

function laidOver<V>(below: Layer<V>, above: Layer<V>): Map<string, Entry<V>> {
  const all = new Map(below);
  for (const [key, entry] of above) all.set(key, entry);
  return all;
}

/** A map being changed: what is staged is laid over the map that it is made from. */
export class LayeredDraft<V> {
  private readonly staged = new Map<string, Entry<V>>();
  private count: number;

  constructor(
    private readonly from: LayeredMap<V>,
    private readonly make: (staged: Map<string, Entry<V>>, size: number) => LayeredMap<V>,
  ) {
    this.count = from.size;
  }

  get size(): number {
    return this.count;
  }

  get(key: string): V | undefined {
    const entry = this.staged.get(key);
    if (entry !== undefined) return entry === gone ? undefined : entry;
    return this.from.get(key);
  }

  /** @param isNew whether nothing is there, where the caller has looked already */
  set(key: string, value: V, isNew = this.get(key) === undefined): void {
    if (isNew) this.count++;
    this.staged.set(key, value);
  }

  delete(key: string): void {
    if (this.get(key) === undefined) return;
    this.count--;
    this.staged.set(key, gone);
  }

  /** The changed map. The draft is not to be used any more. */
  finish(): LayeredMap<V> {
    return this.make(this.staged, this.count);
  }
}
