import type { ReactNode } from 'react';
import { useNetwork } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { PlaceView } from './PlaceView.tsx';
import { RackView } from './RackView.tsx';

/** Places: a rack when one is open, otherwise the place of the scope. */
export function PlacesSection(): ReactNode {
  const network = useNetwork();
  const { scopeId, rackId } = useWhereabouts();
  const rack = network.get('rack', rackId);
  return rack === null ? (
    <PlaceView place={network.get('place', scopeId)} />
  ) : (
    <RackView key={rack.id} rack={rack} />
  );
}
