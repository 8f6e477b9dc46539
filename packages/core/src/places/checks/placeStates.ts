import { inForce } from '../../lens/inForce.ts';
import type { Network } from '../../model/network/network.ts';
import { placeOfDevice } from '../../model/network/places.ts';
import { placeOfRow } from '../../check/placeOf.ts';
import type { Severity } from '../../check/finding.ts';
import type { Reviewed } from '../../check/review.ts';

/** What a place holds in force, all the way down, and the worst that was found in it. */
export interface PlaceState {
  devices: number;
  racks: number;
  findings: number;
  worst: Severity | null;
}

/** The state of every place, by its id; counts and findings of inner places belong to the outer ones too. */
export function placeStates(network: Network, findings: readonly Reviewed[]): Map<string, PlaceState> {
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
  for (const { finding, severity } of findings) {
    const [row] = finding.subjects;
    if (row === undefined) continue;
    outwards(placeOfRow(network, row), (state) => {
      state.findings++;
      if (state.worst !== 'bad') state.worst = severity;
    });
  }
  return states;
}
