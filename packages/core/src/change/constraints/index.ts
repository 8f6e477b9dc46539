import type { Constraints } from './constraint.ts';
import { moduleFitsSlot } from './moduleSlot.ts';
import { placesFormTree, placesNest } from './placeTree.ts';
import { passThroughIsMutual, portsTakeOneCable } from './portUse.ts';
import { deviceFitsRack, rackHoldsContents } from './rackSpace.ts';

/** Every rule that a row must obey beside its schema, its references and its unique names. */
export const constraints: Constraints = {
  place: [
    { fields: ['parentId'], check: placesFormTree },
    { fields: ['parentId', 'kind'], check: placesNest },
  ],
  rack: [{ fields: ['units'], check: rackHoldsContents }],
  device: [{ fields: ['rackId', 'unit', 'units', 'face', 'fullDepth', 'side'], check: deviceFitsRack }],
  module: [{ fields: ['deviceId', 'slot', 'modelId'], check: moduleFitsSlot }],
  port: [{ fields: ['passThroughId', 'deviceId'], check: passThroughIsMutual }],
  cable: [{ fields: ['aPortId', 'bPortId'], check: portsTakeOneCable }],
};
