import type { Rack } from '../model/kinds/rack.ts';
import type { Network, Touched } from '../model/network.ts';

/** What was worked out for a rack; `linked` when it hangs on things in other racks, through power cables. */
interface Kept<T> {
  value: T;
  linked: boolean;
}
const mostSteps = 50;

type Fields = Record<string, string | null>;

/** The racks a touched row may concern; null: any of them. */
function racksTouched(network: Network, touched: readonly Touched[]): Set<string> | null {
  const racks = new Set<string>();
  const addDevice = (id: string | null | undefined): void => {
    // What stands in no rack may still feed one: then the racks that share power are concerned.
    racks.add(network.get('device', id ?? null)?.rackId ?? 'none');
  };
  const addPowerPort = (id: string | null | undefined): void => {
    const port = network.get('port', id ?? null);
    if (port?.role === 'powerIn' || port?.role === 'powerOut') addDevice(port.deviceId);
  };
  for (const { kind, before, after } of touched) {
    if (kind === 'model') return null;
    for (const row of [before, after] as (Fields | null)[]) {
      if (row === null) continue;
      if (kind === 'device') racks.add(row['rackId'] ?? 'none');
      else if (kind === 'rack' && row['id'] != null) racks.add(row['id']);
      else if (kind === 'module' || kind === 'port') addDevice(row['deviceId']);
      else if (kind === 'cable') for (const end of ['aPortId', 'bPortId']) addPowerPort(row[end]);
    }
  }
  return racks;
}

/**
 * Keeps what `make` works out for a rack, for a network and for those made from it, until something in the rack, a
 * model, or for linked racks anything that may carry power, was touched.
 */
export function rackMemo<T>(
  make: (network: Network, rack: Rack) => Kept<T>,
): (network: Network, rack: Rack) => T {
  const known = new WeakMap<Network, Map<string, Kept<T>>>();
  const ofNetwork = (network: Network): Map<string, Kept<T>> => {
    const own = known.get(network);
    if (own !== undefined) return own;
    const stale = new Set<string>();
    let kept = new Map<string, Kept<T>>();
    let at: Network | undefined = network;
    for (let step = 0; step < mostSteps && at?.origin != null; step++) {
      const racks = racksTouched(at, at.origin.touched);
      if (racks === null) break;
      for (const id of racks) stale.add(id);
      at = at.origin.base.deref();
      const earlier = at === undefined ? undefined : known.get(at);
      if (earlier === undefined) continue;
      kept = new Map([...earlier].filter(([id, one]) => !stale.has(id) && (!one.linked || stale.size === 0)));
      break;
    }
    known.set(network, kept);
    return kept;
  };
  return (network, rack) => {
    const kept = ofNetwork(network);
    const found = kept.get(rack.id);
    if (found !== undefined) return found.value;
    const made = make(network, rack);
    kept.set(rack.id, made);
    return made.value;
  };
}
