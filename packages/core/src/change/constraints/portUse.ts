import type { Cable } from '../../model/kinds/cable.ts';
import type { Port } from '../../model/kinds/port.ts';
import type { Network } from '../../model/network.ts';
import { portTitle } from '../../model/ports.ts';
import type { Problem } from '../../model/problem.ts';

/** One cable per port. */
export function portsTakeOneCable(network: Network, cable: Cable): Problem[] {
  const problems: Problem[] = [];
  for (const field of ['aPortId', 'bPortId'] as const) {
    const portId = cable[field];
    if (portId === null) continue;
    const other = network.find('cablesByPort', portId).find((row) => row.id !== cable.id);
    if (other === undefined) continue;
    const title = portTitle(network, portId);
    problems.push({
      code: 'impossible',
      kind: 'cable',
      id: cable.id,
      about: `cable ${cable.label}`,
      field,
      message: `${title} already holds cable ${other.label}, so ${cable.label} cannot be plugged in there. Choose a free port or disconnect ${other.label} first.`,
    });
  }
  return problems;
}

/** Front and rear of a panel port name each other, on one device. */
export function passThroughIsMutual(network: Network, port: Port): Problem[] {
  if (port.passThroughId === null) return [];
  const partner = network.get('port', port.passThroughId);
  if (partner?.passThroughId === port.id && partner.deviceId === port.deviceId) return [];
  return [
    {
      code: 'impossible',
      kind: 'port',
      id: port.id,
      about: `port ${portTitle(network, port.id)}`,
      field: 'passThroughId',
      message: `${portTitle(network, port.id)} passes through to ${portTitle(network, port.passThroughId) || 'a port that is not there'}, which does not pass back to it. Make both name each other.`,
    },
  ];
}
