import type { Constraints } from './constraint.ts';
import { addressIsOne, routeLeavesOwnPort } from './addressUse.ts';
import {
  aggregateAgrees,
  parentHolds,
  pluggable,
  staysWithItsOwn,
  vlanInterfaceIsOne,
} from './configuredPorts.ts';
import { moduleFitsSlot } from './moduleSlot.ts';
import { placesFormTree, placesNest } from './placeTree.ts';
import {
  cableSuitsPorts,
  cableTakesFreePorts,
  circuitTakesFreePorts,
  legIsThere,
  legTakesFreePort,
  leadsToHolds,
  transceiverFitsCage,
  typeHasLegs,
} from './portUse.ts';
import { deviceFitsRack, rackHoldsContents } from './rackSpace.ts';

/** Every rule that a row must obey beside its schema, its references and its unique names. */
export const constraints: Constraints = {
  place: [
    { fields: ['parentId'], check: placesFormTree },
    { fields: ['parentId', 'kind'], check: placesNest },
  ],
  rack: [{ fields: ['units'], check: rackHoldsContents }],
  device: [{ fields: ['rackId', 'unit', 'units', 'face', 'fillsBothFaces', 'side'], check: deviceFitsRack }],
  module: [{ fields: ['deviceId', 'slot', 'modelId'], check: moduleFitsSlot }],
  port: [
    { fields: ['leadsToId', 'leadsToStrand', 'deviceId', 'role'], check: leadsToHolds },
    { fields: ['transceiverId', 'connector'], check: transceiverFitsCage },
    { fields: ['aggregateId', 'speedBps', 'form', 'deviceId'], check: aggregateAgrees },
    { fields: ['parentId', 'vid', 'innerVid', 'form', 'deviceId', 'aggregateId'], check: parentHolds },
    { fields: ['vid', 'form', 'vlanNumberingId', 'deviceId'], check: vlanInterfaceIsOne },
    { fields: ['deviceId', 'moduleId', 'form'], check: staysWithItsOwn },
  ],
  address: [{ fields: ['address', 'portId', 'vrfId'], check: addressIsOne }],
  route: [{ fields: ['viaPortId', 'deviceId'], check: routeLeavesOwnPort }],
  cable: [
    { fields: ['aPortId', 'bPortId'], check: cableTakesFreePorts },
    { fields: ['aPortId', 'bPortId'], check: pluggable('cable') },
    { fields: ['aPortId', 'bPortId', 'typeId'], check: cableSuitsPorts },
    { fields: ['typeId'], check: typeHasLegs },
  ],
  leg: [
    { fields: ['portId'], check: legTakesFreePort },
    { fields: ['cableId', 'side', 'number'], check: legIsThere },
  ],
  circuit: [
    { fields: ['aPortId', 'bPortId'], check: circuitTakesFreePorts },
    { fields: ['aPortId', 'bPortId'], check: pluggable('circuit') },
  ],
};
