import { prefixTree, useOf } from '../plan.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import { bitsOf, formatIp, sizeOf, type IpPrefix } from '../../model/values/ip.ts';
import type { Network } from '../../model/network/network.ts';

/** One block of the ladder: where it lies in the space shown, as shares of its width from 0 to 1. */
export interface Rung {
  prefix: IpPrefix;
  /** The row it stands in: its own length; of all that an empty pool has, the one below the pool itself. */
  length: number;
  from: number;
  width: number;
  /** The row that has it; null: free. */
  row: Prefix | null;
  /** 0 to 1. */
  use: number;
  vid: number | null;
  colour: number | null;
}

/** Address space as a picture: width is space, rows are prefix lengths. */
export interface Ladder {
  outer: IpPrefix;
  /** Lengths that are drawn, the shortest first. */
  lengths: number[];
  rungs: Rung[];
  free: Rung[];
  marks: { at: number; text: string }[];
}

/** The part of the space that is looked at, as shares of its width. */
export interface LadderWindow {
  from: number;
  width: number;
}

/** More rows than this are not drawn: lengths that nothing has fall out, then the longest. */
const mostRows = 12;
/** Blocks narrower than this share of the picture are not drawn one by one. */
const narrowest = 1 / 4000;

/**
 * The prefixes of a VRF inside a space, and what is free in the pools among them and in the space itself. Free blocks
 * stand in the row of their own length, or in the last one where they are smaller.
 */
export function ladderOf(
  network: Network,
  vrfId: string | null,
  outer: IpPrefix,
  window: LadderWindow = { from: 0, width: 1 },
): Ladder {
  const tree = prefixTree(network, vrfId);
  const whole = sizeOf(outer);
  const share = (value: bigint): number => Number((value * 1_000_000_000n) / whole) / 1e9;
  const rungOf = (prefix: IpPrefix, row: Prefix | null, length = prefix.length): Rung => {
    const vlan = network.get('vlan', row?.vlanId ?? null);
    return {
      prefix,
      length,
      from: share(prefix.value - outer.value),
      width: share(sizeOf(prefix)),
      row,
      use: row === null ? 0 : useOf(network, row).share,
      vid: vlan?.vid ?? null,
      colour: vlan?.colour ?? null,
    };
  };
  const rungs: Rung[] = [];
  const free: { block: IpPrefix; length: number }[] = [];
  let open: IpPrefix[] = [outer];
  while (open.length > 0) {
    const next: IpPrefix[] = [];
    for (const space of open) {
      for (const block of tree.free(space)) {
        const isPool = block.length === space.length && tree.at(space).length > 0;
        free.push({ block, length: isPool ? block.length + 1 : block.length });
      }
      for (const entry of tree.children(space)) {
        const wide = share(sizeOf(entry.prefix));
        if (wide < narrowest * window.width) continue;
        const left = share(entry.prefix.value - outer.value);
        // What lies beyond the neighbouring windows is not drawn.
        if (left > window.from + 2 * window.width || left + wide < window.from - window.width) continue;
        for (const id of entry.ids) {
          const row = network.get('prefix', id);
          if (row === null) continue;
          rungs.push(rungOf(entry.prefix, row));
          if (row.role === 'pool' && entry.prefix.length < bitsOf(outer.family)) next.push(entry.prefix);
        }
      }
    }
    open = next;
  }
  const lengths = [...new Set(rungs.map((rung) => rung.prefix.length))]
    .sort((a, b) => a - b)
    .slice(0, mostRows);
  const longest = Math.max(lengths.at(-1) ?? 0, Math.min(bitsOf(outer.family), outer.length + 2));
  const extra = free
    .map(({ length }) => length)
    .filter((length) => length < longest && share(sizeOf({ ...outer, length })) >= window.width / 64);
  const rows = [...new Set([...lengths, ...extra, ...(lengths.length === 0 ? [longest] : [])])].sort(
    (a, b) => a - b,
  );
  const shown = new Set(rows);
  const steps = 4;
  const inWindow = (rung: Rung): boolean =>
    rung.width >= (narrowest * window.width) / 4 &&
    rung.from <= window.from + 2 * window.width &&
    rung.from + rung.width >= window.from - window.width;
  const markValue = (at: number): bigint =>
    outer.value +
    (whole * BigInt(Math.round((window.from + (at / steps) * window.width) * 1e9))) / 1_000_000_000n;
  return {
    outer,
    lengths: rows,
    rungs: rungs.filter((rung) => shown.has(rung.prefix.length)),
    free: free
      .filter(({ length }) => shown.has(length))
      .map(({ block, length }) => rungOf(block, null, length))
      .filter(inWindow),
    marks: Array.from({ length: steps }, (_, at) => ({
      at: window.from + (at / steps) * window.width,
      text: formatIp({ family: outer.family, value: markValue(at) }),
    })),
  };
}
