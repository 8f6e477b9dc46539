import { derived } from '../model/network/derived.ts';
import type { Rack } from '../model/kinds/sites/rack.ts';
import type { Network, Touched } from '../model/network/network.ts';
import { held } from '../model/kinds.ts';

/** What was worked out for a rack; `linked` when it hangs on things in other racks, through power cables. */
interface Kept<T> {
  value: T;
  linked: boolean;
}

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
    for (const row of [before, after]) {
      if (row === null) continue;
      const idIn = (field: string): string | null => {
        const id = held(row)[field];
        return typeof id === 'string' ? id : null;
      };
      if (kind === 'device') racks.add(idIn('rackId') ?? 'none');
      else if (kind === 'rack') racks.add(row.id);
      else if (kind === 'module' || kind === 'port') addDevice(idIn('deviceId'));
      else if (kind === 'cable') for (const end of ['aPortId', 'bPortId']) addPowerPort(idIn(end));
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
  const ofNetwork = derived<Map<string, Kept<T>>>(
    () => new Map(),
    (before, network, touched) => {
      const stale = racksTouched(network, touched);
      if (stale === null) return null;
      return new Map([...before].filter(([id, one]) => !stale.has(id) && (!one.linked || stale.size === 0)));
    },
  );
  return (network, rack) => {
    const kept = ofNetwork(network);
    const found = kept.get(rack.id);
    if (found !== undefined) return found.value;
    const made = make(network, rack);
    kept.set(rack.id, made);
    return made.value;
  };
}
