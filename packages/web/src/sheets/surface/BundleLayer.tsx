import type { SceneBundle } from '@visograph/core/sheets';
import { BundleShape, roundedPath } from '@visograph/drawing';
import { useStore, ViewportPortal } from '@xyflow/react';
import type { ReactNode } from 'react';
import { useTheme } from '../../theme/theme.tsx';
import { LineLayer } from './lineLayer.ts';
import { steppedZoom } from './sheetNodes.tsx';
import type { Bundles } from './acts/useBundles.ts';

const hitWidth = 14;

interface Props {
  scene: { bundles: readonly SceneBundle[] };
  bundles: Bundles;
  labels: boolean;
  choose: (bundle: SceneBundle) => void;
}

/** The closed bundles of a sheet below its links. Enter or a double press opens one into lanes. */
export function BundleLayer({ scene, bundles, labels, choose }: Props): ReactNode {
  const { tokens } = useTheme();
  const zoom = useStore((state) => steppedZoom(state.transform[2]));
  if (scene.bundles.length === 0) return null;
  return (
    <ViewportPortal>
      <LineLayer width={1} height={1} role="group" aria-label="Bundles of links">
        {scene.bundles.map((bundle) => (
          <g key={bundle.id} data-bundle={bundle.title}>
            <BundleShape
              bundle={bundle}
              tokens={tokens}
              selected={bundles.isLit(bundle)}
              labels={labels}
              zoom={zoom}
            />
            <path
              className="hit nopan"
              role="button"
              tabIndex={0}
              aria-label={bundle.spoken}
              d={bundle.trunk.map(roundedPath).join('')}
              fill="none"
              stroke="transparent"
              strokeWidth={hitWidth}
              onPointerEnter={() => bundles.hover(bundle.id)}
              onPointerLeave={() => bundles.hover(null)}
              onFocus={() => bundles.hover(bundle.id)}
              onBlur={() => bundles.hover(null)}
              onClick={() => choose(bundle)}
              onDoubleClick={(event) => {
                event.stopPropagation();
                bundles.toggle(bundle.id);
              }}
              onKeyDown={(event) => {
                if (event.key === ' ') choose(bundle);
                else if (event.key === 'Enter') {
                  choose(bundle);
                  bundles.toggle(bundle.id);
                } else return;
                event.preventDefault();
                event.stopPropagation();
              }}
            >
              <title>{`${bundle.spoken}. Enter or double-click: in lanes`}</title>
            </path>
          </g>
        ))}
      </LineLayer>
    </ViewportPortal>
  );
}
