import { type Attempt } from '@visograph/core/commands';
import { placePath, placesWithin, type Place } from '@visograph/core/model';
import {
  contentsOf,
  contentsText,
  deletePlace,
  deletePlaceMovingContents,
  mergePlaces,
  movePlace,
} from '@visograph/core/places';
import { useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { Picker } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';

type Asking = 'move' | 'merge' | 'delete';
const top = 'top';

/** Moving a place with all in it, making two places one, and deleting: what is inside is said in numbers and kept. */
export function PlaceActions({ place }: { place: Place }): ReactNode {
  const { view, commit, sync } = useProject();
  const { network } = view;
  const { go } = useWhereabouts();
  const [asking, setAsking] = useState<Asking | null>(null);
  const [targetId, setTarget] = useState<string | null>(null);
  const contents = contentsOf(network, place);
  const text = contentsText(contents);
  const within = placesWithin(network, place.id);
  const others = [...network.all('place')]
    .filter((one) => !within.has(one.id))
    .map((one) => ({
      id: one.id,
      text: placePath(network, one.id).replaceAll('/', ' › '),
      detail: one.kind,
    }));
  const target = network.get('place', targetId);
  const ask = (next: Asking): void => {
    setTarget(next === 'delete' ? place.parentId : null);
    setAsking(asking === next ? null : next);
  };
  const finish = (attempt: Attempt, goTo: string | null): void => {
    if (!attempt.ok) return sync.announce({ tone: 'bad', text: attempt.why });
    if (!commit(attempt.set).ok) return;
    setAsking(null);
    go({ scopeId: goTo, selection: goTo === null ? null : { kind: 'place', id: goTo } });
  };
  const parent = place.parentId;
  return (
    <>
      <Button onPress={() => ask('move')}>Move …</Button>
      <Button onPress={() => ask('merge')}>Merge …</Button>
      <Button onPress={() => ask('delete')}>Delete …</Button>
      {asking === 'move' && (
        <div role="group" aria-label="Move place">
          <Picker
            label="Into"
            options={[{ id: top, text: 'All sites' }, ...others]}
            value={targetId}
            onChange={setTarget}
            autoFocus
          />
          <Button
            $tone="primary"
            isDisabled={targetId === null}
            onPress={() => finish(movePlace(network, place, targetId === top ? null : targetId), place.id)}
          >
            {`Move ${place.name}${text === 'nothing' ? '' : ` with ${text}`}`}
          </Button>
        </div>
      )}
      {asking === 'merge' && (
        <div role="group" aria-label="Merge place">
          <Picker label="Into" options={others} value={targetId} onChange={setTarget} autoFocus />
          <Hint>{`What is in ${place.name} (${text}) goes there; places of the same name become one.`}</Hint>
          <Button
            $tone="primary"
            isDisabled={target === null}
            onPress={() => target !== null && finish(mergePlaces(network, place, target), target.id)}
          >
            {target === null ? 'Merge' : `Merge into ${target.name}`}
          </Button>
        </div>
      )}
      {asking === 'delete' && (
        <div role="alertdialog" aria-label="Delete place">
          {text === 'nothing' ? (
            <>
              <span>Nothing is inside. Ctrl+Z brings it back.</span>
              <Button
                $tone="primary"
                onPress={() => finish({ ok: true, set: deletePlace(network, place) }, parent)}
              >
                {`Delete ${place.name}`}
              </Button>
            </>
          ) : (
            <>
              <span>{`Inside are ${text}. They are kept: choose where they go.`}</span>
              <Picker label="Move them to" options={others} value={targetId} onChange={setTarget} />
              <Button
                $tone="primary"
                isDisabled={target === null}
                onPress={() =>
                  target !== null && finish(deletePlaceMovingContents(network, place, target), target.id)
                }
              >
                {`Delete ${place.name}`}
              </Button>
            </>
          )}
        </div>
      )}
    </>
  );
}
