import { lazy, Suspense, type ReactNode } from 'react';
import { useNetwork } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { PlaceView } from './PlaceView.tsx';

const RackBench = lazy(() =>
  import('../racks/bench/RackBench.tsx').then((file) => ({ default: file.RackBench })),
);

/** Places: a rack when one is open, otherwise the place of the scope. */
export default function PlacesSection(): ReactNode {
  const network = useNetwork();
  const { scopeId, rackId } = useWhereabouts();
  const rack = network.get('rack', rackId);
  return rack === null ? (
    <PlaceView place={network.get('place', scopeId)} />
  ) : (
    <Suspense fallback={null}>
      <RackBench rack={rack} />
    </Suspense>
  );
}
