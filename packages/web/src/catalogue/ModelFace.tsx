import { modelFaces } from '@visograph/core/catalogue';
import { type CatalogueModel } from '@visograph/core/model';
import { FacePlateShape } from '@visograph/drawing';
import { useMemo, type ReactNode } from 'react';
import { useTheme } from '../theme/theme.tsx';

/** A face of a model, drawn from its port groups and slots. */
export function ModelFace({
  model,
  face,
  width,
  maxHeight = 400,
}: {
  model: CatalogueModel;
  face: 'front' | 'rear';
  width: number;
  maxHeight?: number;
}): ReactNode {
  const { tokens } = useTheme();
  const faces = useMemo(() => modelFaces(model), [model]);
  const scale = Math.min(width / 332, maxHeight / (faces.height + 2));
  return (
    <svg
      width={(faces.width + 2) * scale}
      height={(faces.height + 2) * scale}
      viewBox={`-1 -1 ${faces.width + 2} ${faces.height + 2}`}
      role="img"
      aria-label={`${model.name}, ${face}`}
    >
      <FacePlateShape plate={faces[face]} tokens={tokens} />
    </svg>
  );
}
