import type { Subject } from '../../change/removal.ts';
import { inForce } from '../../lens/inForce.ts';
import type { Network } from '../../model/network/network.ts';
import { placeOfDevice } from '../../model/network/places.ts';
import type { Finding } from '../../check/finding.ts';

/** What a place holds in force, all the way down, and the worst that was found in it. */
export interface PlaceState {
  devices: number;
  racks: number;
  findings: number;
  worst: Finding['severity'] | null;
}

function placeOfRow(network: Network, row: Subject): string | null {
  if (row.kind === 'place') return row.id;
  if (row.kind === 'rack') return network.get('rack', row.id)?.placeId ?? null;
  let deviceId: string | null = row.kind === 'device' ? row.id : null;
  if (row.kind === 'port') deviceId = network.get('port', row.id)?.deviceId ?? null;
  if (row.kind === 'cable') {
    const cable = network.get('cable', row.id);
    deviceId = network.get('port', cable?.aPortId ?? cable?.bPortId ?? null)?.deviceId ?? null;
  }
  const device = network.get('device', deviceId);
  return device === null ? null : placeOfDevice(network, device);
}

/** The state of every place, by its id; counts and findings of inner places belong to the outer ones too. */
export function placeStates(network: Network, findings: readonly Finding[]): Map<string, PlaceState> {
  const states = new Map<string, PlaceState>();
  for (const place of network.all('place'))
    states.set(place.id, { devices: 0, racks: 0, findings: 0, worst: null });
  const outwards = (placeId: string | null, visit: (state: PlaceState) => void): void => {
    const seen = new Set<string>();
    for (
      let place = network.get('place', placeId);
      place !== null;
      place = network.get('place', place.parentId)
    ) {
      const state = states.get(place.id);
      if (state === undefined || seen.has(place.id)) return;
      seen.add(place.id);
      visit(state);
    }
  };
  for (const rack of network.all('rack')) outwards(rack.placeId, (state) => state.racks++);
  for (const device of inForce(network).all('device'))
    outwards(placeOfDevice(network, device), (state) => state.devices++);
  for (const finding of findings) {
    const [row] = finding.subjects;
    if (row === undefined) continue;
    outwards(placeOfRow(network, row), (state) => {
      state.findings++;
      if (state.worst !== 'bad') state.worst = finding.severity;
    });
  }
  return states;
}
