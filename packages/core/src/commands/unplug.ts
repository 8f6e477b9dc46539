import { remove, update, type Change } from '../change/change.ts';
import type { Cable } from '../model/kinds/cable.ts';
import type { Network } from '../model/network.ts';
import { offSheets } from './offSheets.ts';

/** Pulls out whatever is plugged into a port: that end of the cable or circuit hangs loose, a leg goes. */
export function unplug(network: Network, portId: string): Change[] {
  const cable = network.findOne('cablesByPort', portId);
  const end = cable?.aPortId === portId ? { aPortId: null } : { bPortId: null };
  const leg = network.findOne('legByPort', portId);
  const circuit = network.findOne('circuitByPort', portId);
  const far = circuit?.aPortId === portId ? { aPortId: null } : { bPortId: null };
  return [
    cable === null ? null : update('cable', cable, end),
    leg === null ? null : remove('leg', leg),
    circuit === null ? null : update('circuit', circuit, far),
  ].filter((change) => change !== null);
}

/** A cable with its further legs and what was done with it on sheets, taken out of the model. */
export const removeCable = (network: Network, cable: Cable): Change[] => [
  ...network.find('legsByCable', cable.id).map((leg) => remove('leg', leg)),
  ...offSheets(network, 'cable', cable.id),
  remove('cable', cable),
];
