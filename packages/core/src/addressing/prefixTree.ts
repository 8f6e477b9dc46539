import {
  bitsOf,
  compareIp,
  holds,
  maskOf,
  prefixAround,
  type IpAddress,
  type IpPrefix,
  sizeOf,
} from '../model/values/ip.ts';

/**
 * A node of a path-compressed binary tree (Patricia): a prefix that rows have, or the place where two branches part.
 * Never changed once made; a changed tree shares all that did not change.
 */
interface Node {
  prefix: IpPrefix;
  /** Rows with exactly this prefix: more than one where a VRF holds a duplicate. None where branches only part. */
  ids: readonly string[];
  left: Node | null;
  right: Node | null;
  /** Rows in this branch. */
  count: number;
  /** Addresses that the rows in this branch cover together. */
  covered: bigint;
  /** Length of the largest block free beneath this node, what its own rows take not counted; 129 when none is. */
  roomiest: number;
}

const none = 129;
const bitAfter = ({ family, value }: IpPrefix, length: number): 0 | 1 =>
  (value >> BigInt(bitsOf(family) - 1 - length)) & 1n ? 1 : 0;

/** The half of a prefix on one side. */
export const half = (prefix: IpPrefix, side: 0 | 1): IpPrefix => {
  const length = prefix.length + 1;
  const bit = side === 0 ? 0n : 1n << BigInt(bitsOf(prefix.family) - length);
  return { family: prefix.family, value: prefix.value | bit, length };
};

/** The largest free block in a slot that begins at `length`, with this branch in it. */
function freeInSlot(length: number, node: Node | null): number {
  if (node === null) return length;
  const beside = node.prefix.length > length ? length + 1 : none;
  return Math.min(beside, node.ids.length > 0 ? none : node.roomiest);
}

function make(prefix: IpPrefix, ids: readonly string[], left: Node | null, right: Node | null): Node | null {
  if (ids.length === 0 && (left === null || right === null)) return left ?? right;
  const full = prefix.length === bitsOf(prefix.family);
  return {
    prefix,
    ids,
    left,
    right,
    count: ids.length + (left?.count ?? 0) + (right?.count ?? 0),
    covered: ids.length > 0 ? sizeOf(prefix) : (left?.covered ?? 0n) + (right?.covered ?? 0n),
    roomiest: full
      ? none
      : Math.min(freeInSlot(prefix.length + 1, left), freeInSlot(prefix.length + 1, right)),
  };
}

/** How many leading bits two prefixes share. */
function shared(a: IpPrefix, b: IpPrefix): number {
  const most = Math.min(a.length, b.length);
  const bits = bitsOf(a.family);
  let differing = (a.value ^ b.value) >> BigInt(bits - most);
  let length = most;
  while (differing !== 0n) {
    differing >>= 1n;
    length--;
  }
  return length;
}

function insert(node: Node | null, prefix: IpPrefix, id: string): Node | null {
  if (node === null) return make(prefix, [id], null, null);
  const common = shared(node.prefix, prefix);
  if (common === node.prefix.length && common === prefix.length)
    return make(prefix, [...node.ids, id], node.left, node.right);
  if (common === node.prefix.length) {
    const side = bitAfter(prefix, common);
    return side === 0
      ? make(node.prefix, node.ids, insert(node.left, prefix, id), node.right)
      : make(node.prefix, node.ids, node.left, insert(node.right, prefix, id));
  }
  const branch = bitAfter(node.prefix, common);
  if (common === prefix.length)
    return branch === 0 ? make(prefix, [id], node, null) : make(prefix, [id], null, node);
  const fresh = make(prefix, [id], null, null);
  const joint = prefixAround(prefix, common);
  return branch === 0 ? make(joint, [], node, fresh) : make(joint, [], fresh, node);
}

function remove(node: Node | null, prefix: IpPrefix, id: string): Node | null {
  if (node === null || !holds(node.prefix, prefix)) return node;
  if (node.prefix.length === prefix.length)
    return make(
      prefix,
      node.ids.filter((one) => one !== id),
      node.left,
      node.right,
    );
  return bitAfter(prefix, node.prefix.length) === 0
    ? make(node.prefix, node.ids, remove(node.left, prefix, id), node.right)
    : make(node.prefix, node.ids, node.left, remove(node.right, prefix, id));
}

/** One prefix of a tree with the rows that have it. */
export interface PrefixEntry {
  prefix: IpPrefix;
  ids: readonly string[];
}

/** A persistent set of prefixes of one VRF: longest match, what is inside, and what is free, each in O(length). */
export class PrefixTree {
  private constructor(
    private readonly v4: Node | null,
    private readonly v6: Node | null,
  ) {}

  static readonly empty = new PrefixTree(null, null);

  static of(entries: Iterable<readonly [IpPrefix, string]>): PrefixTree {
    const sorted = [...entries].sort((a, b) => compareIp(a[0], b[0]));
    const build = (family: 4 | 6): Node | null => {
      const own = sorted.filter(([prefix]) => prefix.family === family);
      return buildSorted(own, 0, own.length);
    };
    return new PrefixTree(build(4), build(6));
  }

  get size(): number {
    return (this.v4?.count ?? 0) + (this.v6?.count ?? 0);
  }

  private root(family: 4 | 6): Node | null {
    return family === 4 ? this.v4 : this.v6;
  }

  with(prefix: IpPrefix, id: string): PrefixTree {
    const root = insert(this.root(prefix.family), prefix, id);
    return prefix.family === 4 ? new PrefixTree(root, this.v6) : new PrefixTree(this.v4, root);
  }

  without(prefix: IpPrefix, id: string): PrefixTree {
    const root = remove(this.root(prefix.family), prefix, id);
    return prefix.family === 4 ? new PrefixTree(root, this.v6) : new PrefixTree(this.v4, root);
  }

  /** All that hold an address or a prefix, from the outermost in; the prefix itself included. */
  around(inner: IpPrefix | IpAddress): PrefixEntry[] {
    const wanted: IpPrefix = { length: bitsOf(inner.family), ...inner };
    const found: PrefixEntry[] = [];
    let node = this.root(inner.family);
    while (node !== null && holds(node.prefix, wanted)) {
      if (node.ids.length > 0) found.push(node);
      if (node.prefix.length === wanted.length) break;
      node = bitAfter(wanted, node.prefix.length) === 0 ? node.left : node.right;
    }
    return found;
  }

  /** The smallest that holds an address. */
  longest(address: IpAddress): PrefixEntry | null {
    return this.around(address).at(-1) ?? null;
  }

  private beneath(outer: IpPrefix): Node | null {
    let node = this.root(outer.family);
    while (node !== null && !holds(outer, node.prefix)) {
      if (!holds(node.prefix, outer)) return null;
      node = bitAfter(outer, node.prefix.length) === 0 ? node.left : node.right;
    }
    return node;
  }

  /** The outermost prefixes inside one, in order; itself not included. `null`: those with nothing around them. */
  children(outer: IpPrefix | null): PrefixEntry[] {
    const found: PrefixEntry[] = [];
    const collect = (node: Node | null): void => {
      if (node === null) return;
      const itself = outer !== null && node.prefix.length === outer.length;
      if (node.ids.length > 0 && !itself) return void found.push(node);
      collect(node.left);
      collect(node.right);
    };
    if (outer === null) {
      collect(this.v4);
      collect(this.v6);
    } else collect(this.beneath(outer));
    return found;
  }

  /** How many addresses the prefixes inside one cover together, itself not counted. */
  coveredInside(outer: IpPrefix): bigint {
    const node = this.beneath(outer);
    if (node === null) return 0n;
    return node.prefix.length === outer.length
      ? (node.left?.covered ?? 0n) + (node.right?.covered ?? 0n)
      : node.covered;
  }

  /** How many prefixes are right inside one. */
  countChildren(outer: IpPrefix): number {
    const count = (node: Node | null): number => {
      if (node === null) return 0;
      if (node.ids.length > 0 && node.prefix.length !== outer.length) return 1;
      return count(node.left) + count(node.right);
    };
    return count(this.beneath(outer));
  }

  /** How many rows are inside a prefix, its own not counted. */
  countInside(outer: IpPrefix): number {
    const node = this.beneath(outer);
    if (node === null) return 0;
    return node.prefix.length === outer.length ? node.count - node.ids.length : node.count;
  }

  at(prefix: IpPrefix): readonly string[] {
    const entry = this.around(prefix).at(-1);
    return entry?.prefix.length === prefix.length ? entry.ids : [];
  }

  /** Everything inside a prefix, in order of address, outer before inner; itself not included. */
  *inside(outer: IpPrefix): Generator<PrefixEntry> {
    yield* walk(this.beneath(outer), outer.length);
  }

  /**
   * The first free block of a length inside a prefix, at or after an address: aligned, on nothing that is taken.
   * Null when there is none. Takes O(length) steps, however much is taken.
   */
  nextFree(outer: IpPrefix, length: number, from: bigint = outer.value): IpPrefix | null {
    if (length < outer.length || length > bitsOf(outer.family)) return null;
    const node = this.beneath(outer);
    return search(outer, node, { length, from, outer });
  }

  /** The largest blocks that are free inside a prefix, in order: together exactly what is not taken. */
  free(outer: IpPrefix): IpPrefix[] {
    const found: IpPrefix[] = [];
    const collect = (slot: IpPrefix, node: Node | null): void => {
      if (node === null) return void found.push(slot);
      const taken = node.ids.length > 0 && !(slot === outer && node.prefix.length === outer.length);
      if (node.prefix.length === slot.length) {
        if (taken || slot.length === bitsOf(slot.family)) return;
        // Nothing is inside: its space is one block, not two halves.
        if (node.left === null && node.right === null) return void found.push(slot);
        collect(half(slot, 0), node.left);
        collect(half(slot, 1), node.right);
        return;
      }
      const side = bitAfter(node.prefix, slot.length);
      collect(half(slot, 0), side === 0 ? node : null);
      collect(half(slot, 1), side === 1 ? node : null);
    };
    collect(outer, this.beneath(outer));
    return found;
  }
}

function buildSorted(
  entries: readonly (readonly [IpPrefix, string])[],
  from: number,
  to: number,
): Node | null {
  const first = entries[from]?.[0];
  const last = entries[to - 1]?.[0];
  if (first === undefined || last === undefined || from >= to) return null;
  // The first is the shortest of those that begin where it does, so that it and the last tell what all share.
  const prefix = prefixAround(first, shared(first, last));
  let start = from;
  const ids: string[] = [];
  while (
    start < to &&
    entries[start]?.[0].length === prefix.length &&
    entries[start]?.[0].value === prefix.value
  )
    ids.push(entries[start++]?.[1] ?? '');
  if (start >= to) return make(prefix, ids, null, null);
  const middle = half(prefix, 1).value;
  let low = start;
  let high = to;
  while (low < high) {
    const at = (low + high) >> 1;
    if ((entries[at]?.[0].value ?? 0n) < middle) low = at + 1;
    else high = at;
  }
  return make(prefix, ids, buildSorted(entries, start, low), buildSorted(entries, low, to));
}

/** In order of address, outer before inner; without a generator within a generator for each level. */
function* walk(top: Node | null, above: number): Generator<PrefixEntry> {
  const open: Node[] = top === null ? [] : [top];
  for (let node = open.pop(); node !== undefined; node = open.pop()) {
    if (node.ids.length > 0 && node.prefix.length > above) yield node;
    if (node.right !== null) open.push(node.right);
    if (node.left !== null) open.push(node.left);
  }
}

interface Wish {
  length: number;
  from: bigint;
  outer: IpPrefix;
}

/** The first free block in a slot; branches without room, or that end before the wish begins, are passed over. */
function search(slot: IpPrefix, node: Node | null, wish: Wish): IpPrefix | null {
  const end = slot.value + (1n << BigInt(bitsOf(slot.family) - slot.length));
  if (end <= wish.from || slot.length > wish.length) return null;
  if (node === null) {
    const step = 1n << BigInt(bitsOf(slot.family) - wish.length);
    const behind = wish.from <= slot.value ? 0n : (wish.from - slot.value + step - 1n) / step;
    const value = slot.value + behind * step;
    return value + step <= end ? { family: slot.family, value, length: wish.length } : null;
  }
  const isOuter = slot === wish.outer;
  const own = node.prefix.length === slot.length;
  if (own && ((node.ids.length > 0 && !isOuter) || node.roomiest > wish.length)) return null;
  if (!own && freeInSlot(slot.length, node) > wish.length) return null;
  const side = own ? null : bitAfter(node.prefix, slot.length);
  const inHalf = (at: 0 | 1): Node | null =>
    own ? (at === 0 ? node.left : node.right) : side === at ? node : null;
  return search(half(slot, 0), inHalf(0), wish) ?? search(half(slot, 1), inHalf(1), wish);
}

/** Neighbour of the same size, with which a prefix makes the one above it. */
export const buddy = (prefix: IpPrefix): IpPrefix => ({
  ...prefix,
  value: prefix.value ^ (1n << BigInt(bitsOf(prefix.family) - prefix.length)),
});

/** The smallest prefix that holds all of these, of one family; null for none. */
export function around(prefixes: readonly IpPrefix[]): IpPrefix | null {
  const [first] = prefixes;
  if (first === undefined) return null;
  return prefixes.reduce((sum, one) => prefixAround(sum, shared(sum, one)), first);
}

/** The fewest prefixes that together hold exactly these: those inside others fall away, buddies are joined. */
export function summarise(prefixes: readonly IpPrefix[]): IpPrefix[] {
  const done: IpPrefix[] = [];
  for (const prefix of [...prefixes].sort(compareIp)) {
    const last = done.at(-1);
    if (last !== undefined && holds(last, prefix)) continue;
    let grown = prefix;
    for (let before = done.at(-1); before !== undefined; before = done.at(-1)) {
      const joins = before.length === grown.length && before.family === grown.family && grown.length > 0;
      if (!joins || buddy(before).value !== grown.value || before.value > grown.value) break;
      done.pop();
      grown = {
        ...before,
        length: before.length - 1,
        value: before.value & maskOf(before.family, before.length - 1),
      };
    }
    done.push(grown);
  }
  return done;
}

/** The fewest prefixes that hold exactly the addresses from the first to the last. */
export function rangeAsPrefixes(first: IpAddress, last: IpAddress): IpPrefix[] {
  const bits = BigInt(bitsOf(first.family));
  const found: IpPrefix[] = [];
  let at = first.value;
  while (at <= last.value) {
    let size = 0n;
    while (
      size < bits &&
      (at & ((1n << (size + 1n)) - 1n)) === 0n &&
      at + (1n << (size + 1n)) - 1n <= last.value
    )
      size++;
    found.push({ family: first.family, value: at, length: Number(bits - size) });
    at += 1n << size;
  }
  return found;
}
