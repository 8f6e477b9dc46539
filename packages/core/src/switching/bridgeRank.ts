import { compareNames } from '../model/values/order.ts';
import type { SpanningTreeMode, SpanningTreeSettings } from '../model/kinds/logical/spanningTree.ts';
import type { Bridge } from './bridges.ts';

const defaultPriority = 32768;

/** How a bridge votes; a stack as its first device that says so. Null: nobody wrote it down. */
export const settingsOf = (bridge: Bridge): SpanningTreeSettings | null =>
  bridge.devices.find((device) => device.spanningTree !== null)?.spanningTree ?? null;

/** Whether a bridge takes part in electing a tree. What passes all frames on, or has it switched off, does not. */
export const votes = (bridge: Bridge): boolean =>
  bridge.form === 'switch' && settingsOf(bridge)?.mode !== 'off';

/** Which tree is meant: the one for all, that of an instance, or that of the VLAN itself. */
export type TreeOf = { form: 'all' } | { form: 'instance'; instance: number } | { form: 'vlan' };

const instanceOf = (settings: SpanningTreeSettings | null, vid: number): number =>
  settings?.parts.find(({ vids }) => vids !== 'all' && vids.includes(vid))?.instance ?? 0;

/** The mode that bridges share; null where they are set in ways that agree on the common tree alone. */
function sharedMode(bridges: readonly Bridge[]): SpanningTreeMode | null {
  const modes = new Set(bridges.flatMap((bridge) => settingsOf(bridge)?.mode ?? []));
  if (modes.size > 1) return null;
  const [mode = 'per VLAN'] = modes;
  return mode;
}

const regionOf = (settings: SpanningTreeSettings | null): string =>
  JSON.stringify([
    settings?.region ?? '',
    (settings?.parts ?? []).map(({ instance, vids }) => [instance, vids]),
  ]);

/** Bridges that are joined but are set to keep different kinds of trees, or instances of different regions. */
export function disagree(bridges: readonly Bridge[]): boolean {
  const mode = sharedMode(bridges);
  if (mode !== 'instances') return mode === null;
  return new Set(bridges.flatMap((bridge) => regionOf(settingsOf(bridge) ?? null))).size > 1;
}

/**
 * The tree that a VLAN goes by among bridges that are joined. Where they are set differently the common tree is what
 * they all understand (IEEE 802.1Q-2022 clause 13.5); where nothing is written down each VLAN has its own.
 */
export function treeOf(bridges: readonly Bridge[], vid: number): TreeOf {
  if (disagree(bridges)) return { form: 'all' };
  const mode = sharedMode(bridges);
  if (mode === 'per VLAN') return { form: 'vlan' };
  const [first] = bridges;
  const instance = mode === 'instances' && first !== undefined ? instanceOf(settingsOf(first), vid) : 0;
  return instance === 0 ? { form: 'all' } : { form: 'instance', instance };
}

/** Priority of a bridge in a tree, the lower the better. */
export function priorityOf(bridge: Bridge, tree: TreeOf, vid: number): number {
  const own = Math.min(...bridge.devices.map((device) => device.bridgePriority ?? defaultPriority));
  const part = settingsOf(bridge)?.parts.find((one) =>
    tree.form === 'instance'
      ? one.instance === tree.instance
      : tree.form === 'vlan' && one.vids !== 'all' && one.vids.includes(vid),
  );
  return part?.priority ?? own;
}

/** The lowest recorded address of a bridge's devices; null where none is. */
export const addressOf = (bridge: Bridge): string | null =>
  bridge.devices
    .flatMap((device) => device.bridgeAddress ?? [])
    .sort()
    .at(0) ?? null;

/**
 * Between bridges of one priority the lower address decides (IEEE 802.1D-2004 clause 17.3.1). Those whose address
 * nobody wrote down stand behind, in order of their names, so that the answer is at least always the same.
 */
export function compareTied(a: Bridge, b: Bridge): number {
  const [x, y] = [addressOf(a), addressOf(b)];
  if (x !== null && y !== null && x !== y) return x < y ? -1 : 1;
  if ((x === null) !== (y === null)) return x === null ? 1 : -1;
  return compareNames(a.name, b.name) || (a.key < b.key ? -1 : a.key > b.key ? 1 : 0);
}
