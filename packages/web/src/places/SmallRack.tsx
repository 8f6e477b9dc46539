import { type Rack } from '@visograph/core/model';
import { elevationScene, rackUse } from '@visograph/core/racks';
import { FaceFrame, FacePlateShape } from '@visograph/drawing';
import { useMemo, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useTheme } from '../theme/theme.tsx';

interface SmallRackProps {
  rack: Rack;
  picked: boolean;
  onOpen: () => void;
  onPick: () => void;
}

/** The front of a rack, small, with its units used and free. */
export function SmallRack({ rack, picked, onOpen, onPick }: SmallRackProps): ReactNode {
  const { view } = useProject();
  const { tokens } = useTheme();
  const scene = useMemo(() => elevationScene(view.network, rack), [view.network, rack]);
  const front = scene.faces[0];
  const use = rackUse(view.network, rack);
  const scale = 0.42;
  return (
    <button
      type="button"
      aria-pressed={picked}
      title="Ctrl+click picks several to be opened together"
      onClick={(event) => (event.ctrlKey || event.metaKey ? onPick() : onOpen())}
      aria-label={`Rack ${rack.name}, ${use.used} of ${use.units} units used`}
    >
      <svg
        width={scene.width * scale + 2}
        height={scene.height * scale + 2}
        viewBox={`-1 -1 ${scene.width + 2} ${scene.height + 2}`}
        aria-hidden="true"
      >
        {front !== undefined && (
          <FaceFrame scene={scene} face={front} tokens={tokens} detail="names">
            {front.plates.map((plate) => (
              <FacePlateShape key={plate.deviceId} plate={plate} tokens={tokens} detail="names" />
            ))}
          </FaceFrame>
        )}
      </svg>
      <strong>{rack.name}</strong>
      <small>{`${use.used} / ${use.units} U · ${use.free} free`}</small>
    </button>
  );
}
