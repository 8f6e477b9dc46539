import { addressesIn, prefixOf } from '../../addressing/plan.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Network } from '../../model/network/network.ts';
import { parseInterface, parsePrefix } from '../../model/values/ip.ts';
import { byName } from '../../model/values/order.ts';
import { circuitAt } from '../../model/network/ports.ts';
import type { Line } from '../../sheets/graph/sheetGraph.ts';
import { say, told, type Told, type ToldLink, type ToldStub } from '../../sheets/graph/told.ts';
import { attachmentsOf } from '../hubs.ts';
import { lineBetween } from './cloudArrows.ts';

/** The other end of what joins a gateway to the premises. */
interface Beyond {
  device: Device;
  port: Port;
}
/** What leads out of a cloud at a port of a gateway: to a device, or to an address or provider that is not drawn. */
export interface Outward {
  port: Port;
  kind: 'tunnel' | 'circuit';
  far: Beyond | null;
  /** Of what is not documented: an address, or whose line it is. */
  name: string;
}

/** The other tunnel in the prefix that the inside of one is in. */
function tunnelEnd(network: Network, port: Port): Beyond | null {
  for (const row of network.find('addressesByPort', port.id)) {
    const at = parseInterface(row.address);
    const around = at === null ? null : prefixOf(network, row.vrfId, at.address);
    const prefix = around === null ? null : parsePrefix(around.prefix);
    if (prefix === null) continue;
    for (const other of addressesIn(network, row.vrfId, prefix)) {
      const far = network.get('port', other.portId);
      const device = network.get('device', far?.deviceId ?? null);
      if (far !== null && device !== null && far.deviceId !== port.deviceId) return { device, port: far };
    }
  }
  return null;
}

/** The tunnels and lines of a gateway, by the names of their ports. */
export function outwardOf(network: Network, device: Device): Outward[] {
  return network
    .find('everyPortByDevice', device.id)
    .sort(byName)
    .flatMap((port): Outward[] => {
      const circuit = circuitAt(network, port.id);
      if (circuit !== null) {
        const far = network.get('port', circuit.aPortId === port.id ? circuit.bPortId : circuit.aPortId);
        const other = network.get('device', far?.deviceId ?? null);
        const end = far === null || other === null ? null : { device: other, port: far };
        return [{ port, kind: 'circuit', far: end, name: circuit.provider ?? circuit.number }];
      }
      if (port.form !== 'tunnel') return [];
      return [{ port, kind: 'tunnel', far: tunnelEnd(network, port), name: port.farAddress ?? '' }];
    });
}

const endText = (network: Network, port: Port): Told =>
  told(
    say(port.name, 'portNames'),
    say((network.find('addressesByPort', port.id)[0]?.address ?? '').replace(/\/\d+$/, ''), 'addresses'),
  );

/** How routes go over a tunnel: by BGP where either side has a session with an address of the other. */
function routedHow(network: Network, { port, far }: Outward): string {
  if (far === null) return '';
  const addresses = (one: Port): string[] =>
    network.find('addressesByPort', one.id).map(({ address }) => address.replace(/\/\d+$/, ''));
  const speaks = (device: string, to: Port): boolean =>
    network.find('bgpSessionsByDevice', device).some(({ neighbour }) => addresses(to).includes(neighbour));
  return speaks(port.deviceId, far.port) || speaks(far.device.id, port) ? 'BGP' : 'static';
}

/** What leads out of a gateway, drawn: a link where its far end has a plate, else a stub. */
export function outwardLines(
  network: Network,
  device: Device,
  drawn: ReadonlySet<string>,
): { links: ToldLink[]; stubs: ToldStub[] } {
  const links: ToldLink[] = [];
  const stubs: ToldStub[] = [];
  outwardOf(network, device).forEach((one, aOrdinal) => {
    const circuit = circuitAt(network, one.port.id);
    const of: Line =
      circuit === null
        ? { kind: 'port', id: one.port.id, label: `${device.name} ${one.port.name}` }
        : { kind: 'circuit', id: circuit.id, label: circuit.number };
    const { far } = one;
    if (far !== null && drawn.has(far.device.id))
      links.push(
        lineBetween(`${one.kind}:${one.port.id}`, of, device.id, far.device.id, {
          ...{ medium: one.kind, aOrdinal },
          aPort: endText(network, one.port),
          bPort: endText(network, far.port),
          text:
            one.kind === 'circuit'
              ? told(say(circuit?.number ?? '', 'cableLabels'))
              : told(say(routedHow(network, one))),
        }),
      );
    else
      stubs.push({
        ...{ id: `${one.kind}:${one.port.id}`, of, cables: [of], a: device.id, aOrdinal, jacket: null },
        medium: one.kind,
        aPort: endText(network, one.port),
        text: told(
          far === null
            ? say(one.name, one.kind === 'tunnel' ? 'addresses' : 'names')
            : say(far.device.name, 'names'),
        ),
      });
  });
  return { links, stubs };
}

/** What a router of the region joins: networks at their borders, and other routers. */
export const hubLines = (network: Network, hub: Device, drawn: ReadonlySet<string>): ToldLink[] =>
  attachmentsOf(network, hub.id).flatMap((attachment) => {
    const of: Line = { kind: 'hubAttachment', id: attachment.id, label: attachment.name };
    const other = attachment.networkId === null ? attachment.otherHubId : `attachment:${attachment.id}`;
    if (other === null || !drawn.has(other)) return [];
    return [lineBetween(`hub:${attachment.id}`, of, hub.id, other, { medium: 'peering' })];
  });
