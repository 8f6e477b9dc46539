import { bridgingOf } from '../../switching/bridges.ts';
import { addressesOf } from '../../addressing/management.ts';
import { addressesIn } from '../../addressing/plan.ts';
import { subnetOf } from '../../addressing/subnet.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Network } from '../../model/network/network.ts';
import { endsOf } from '../../model/network/ports.ts';
import { compareNames } from '../../model/values/order.ts';
import { parsePrefix, type IpPrefix } from '../../model/values/ip.ts';
import type { SceneLink } from '../scene/scene.ts';

/** What a link is drawn for: a cable or circuit, a subnet, or the port that a subnet without a row is known by. */
type Drawn = Pick<SceneLink, 'kind' | 'cableIds'>;

const portsIn = (network: Network, vrfId: string | null, prefix: IpPrefix | null): string[] =>
  prefix === null ? [] : addressesIn(network, vrfId, prefix).flatMap(({ portId }) => portId ?? []);

function everyEnd(network: Network, { kind, cableIds }: Drawn): string[] {
  return cableIds
    .flatMap((id): (string | null)[] => {
      const cable = network.get('cable', id);
      if (cable !== null) return [...endsOf(network, cable, 'a'), ...endsOf(network, cable, 'b')];
      const circuit = network.get('circuit', id);
      if (circuit !== null) return [circuit.aPortId, circuit.bPortId];
      const row = network.get('prefix', id);
      if (row !== null) return portsIn(network, row.vrfId, parsePrefix(row.prefix));
      if (kind !== 'port') return [];
      const [own] = addressesOf(network, id);
      return [id, ...(own === undefined ? [] : portsIn(network, own.vrfId, subnetOf(own)))];
    })
    .filter((id) => id !== null);
}

/**
 * The ports that a drawn link has at one of its plates: those its cables and circuits are plugged into there, or those
 * that have an address in its subnet. By name.
 *
 * @param deviceIds the devices of the plate
 */
export function endPorts(network: Network, link: Drawn, deviceIds: readonly string[]): Port[] {
  const own = new Set(deviceIds);
  const among = (ids: readonly string[]): Map<string, Port> =>
    new Map(
      ids.flatMap((id) => {
        const port = network.get('port', id);
        return port !== null && own.has(port.deviceId) ? [[id, port] as const] : [];
      }),
    );
  const ends = everyEnd(network, link);
  const here = among(ends);
  // A link that goes on through panels is known by its first cable alone.
  const { farOf } = bridgingOf(network);
  const found = here.size > 0 ? here : among(ends.flatMap((id) => farOf(id) ?? []));
  return [...found.values()].sort((a, b) => compareNames(a.name, b.name));
}
