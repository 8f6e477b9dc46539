import { faceLayout, faceWidthMm, unitHeightMm } from '../faceplate.ts';
import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import { modelTitle } from '../../model/kinds.ts';
import { roles } from '../../model/values/roles.ts';
import { unitHeight, type ElevationPlate } from '../../racks/projection/elevation.ts';
import type { Box } from '../../sheets/scene/scene.ts';

const fullWidth = 330;

export interface ModelFaces {
  width: number;
  height: number;
  front: ElevationPlate;
  rear: ElevationPlate;
}

/** The faces of a model as they would be drawn on an elevation, all ports free; gear without height as one unit. */
export function modelFaces(model: CatalogueModel): ModelFaces {
  const shown = { ...model, units: model.units === 0 ? 1 : model.units };
  const share = model.halfWidth ? 0.5 : 1;
  const width = fullWidth * share;
  const height = shown.units * unitHeight;
  const place = (spot: Box): Box => ({
    x: (spot.x / (faceWidthMm * share)) * width,
    y: (spot.y / unitHeightMm) * unitHeight,
    width: (spot.width / (faceWidthMm * share)) * width,
    height: (spot.height / unitHeightMm) * unitHeight,
  });
  const role = model.role ?? 'XX';
  const plate = (face: 'front' | 'rear'): ElevationPlate => {
    const layout = faceLayout(shown, face);
    return {
      deviceId: face,
      name: model.name,
      fact: null,
      role,
      shade: { scale: 'role', family: roles[role].family },
      box: { x: 0, y: 0, width, height },
      form: model.part === 'blank' ? 'blank' : 'device',
      back: face === 'rear',
      status: 'active',
      ports: layout.ports.map(({ name, ...spot }) => ({ id: name, name, used: false, box: place(spot) })),
      slots: layout.slots.map(({ name, filled, ...spot }) => ({ name, filled, box: place(spot) })),
      spoken: `${modelTitle(model)}, ${face}`,
    };
  };
  return { width, height, front: plate('front'), rear: plate('rear') };
}
