import { placePath } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { useNetwork, useProject } from '../../data/project.tsx';
import { Picker } from '../../kit/choice.tsx';

/** The place a rack or a loose device stands in; choosing another moves it there. */
export function PlaceFact({
  placeId,
  onMove,
}: {
  placeId: string | null;
  onMove: (placeId: string) => void;
}): ReactNode {
  const network = useNetwork();
  const { canEdit } = useProject();
  const options = [...network.all('place')].map((place) => ({
    id: place.id,
    text: placePath(network, place.id).replaceAll('/', ' › '),
    detail: place.kind,
  }));
  const here = options.find((option) => option.id === placeId);
  return (
    <>
      <dt>Place</dt>
      <dd>
        {canEdit ? (
          <Picker
            label="Place"
            hideLabel
            options={options}
            value={placeId}
            onChange={(next) => next !== null && next !== placeId && onMove(next)}
          />
        ) : (
          (here?.text ?? '–')
        )}
      </dd>
    </>
  );
}
