import type { Constraints } from './constraint.ts';
import { addressIsOne, routeLeavesOwnPort } from './addressUse.ts';
import {
  aggregateAgrees,
  parentHolds,
  pluggable,
  staysWithItsOwn,
  vlanInterfaceIsOne,
} from './configuredPorts.ts';
import {
  accountIsOne,
  attachmentFits,
  blockFits,
  gatewayFits,
  networkIsOne,
  peeringFits,
  publicAddressFits,
  rackStandsOnPremises,
  ruleSetFits,
  ruleSetUseFits,
  subnetFits,
  tableFits,
} from './cloud.ts';
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
  rack: [
    { fields: ['units'], check: rackHoldsContents },
    { fields: ['placeId'], check: rackStandsOnPremises },
  ],
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
  prefix: [{ fields: ['prefix', 'placeId', 'vrfId', 'role'], check: blockFits }],
  cloudAccount: [{ fields: ['placeId'], check: accountIsOne }],
  virtualNetwork: [{ fields: ['placeId'], check: networkIsOne }],
  cloudSubnet: [
    {
      fields: ['placeId', 'zoneId', 'prefixId', 'v6PrefixId', 'routeTableId', 'ruleSetId'],
      check: subnetFits,
    },
  ],
  routeTable: [{ fields: ['placeId'], check: tableFits }],
  gateway: [{ fields: ['networkId'], check: gatewayFits }],
  hubAttachment: [{ fields: ['networkId', 'tableId', 'hubId'], check: attachmentFits }],
  peering: [{ fields: ['aNetworkId', 'bNetworkId'], check: peeringFits }],
  ruleSet: [{ fields: ['placeId'], check: ruleSetFits }],
  ruleSetUse: [{ fields: ['setId'], check: ruleSetUseFits }],
  publicAddress: [{ fields: ['placeId'], check: publicAddressFits }],
  leg: [
    { fields: ['portId'], check: legTakesFreePort },
    { fields: ['cableId', 'side', 'number'], check: legIsThere },
  ],
  circuit: [
    { fields: ['aPortId', 'bPortId'], check: circuitTakesFreePorts },
    { fields: ['aPortId', 'bPortId'], check: pluggable('circuit') },
  ],
};
