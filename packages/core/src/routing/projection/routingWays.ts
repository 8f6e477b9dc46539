import type { Circuit } from '../../model/kinds/lines/circuit.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { byName } from '../../model/values/order.ts';
import { cableAt, circuitAt } from '../../model/network/ports.ts';
import { formatPrefix } from '../../model/values/ip.ts';
import type { RoutedSubnet } from '../subnets.ts';
import { traceRun } from '../../cabling/trace.ts';
import { drawnMedium, type Medium } from '../../sheets/graph/medium.ts';
import type { Kept } from '../../sheets/graph/reading.ts';
import type { Line } from '../../sheets/graph/sheetGraph.ts';
import type { ToldLink } from '../../sheets/graph/told.ts';

/** What is read, for which sheet. */
export interface Reader {
  network: Network;
  sheet: Sheet;
  kept: Kept;
}

/** The plugged port that an interface sends by, if it is one: itself, what it runs over, a member. */
function pluggedOf(network: Network, port: Port): Port | null {
  if (port.form === 'subinterface' || port.form === 'tunnel') {
    const parent = network.get('port', port.parentId);
    return parent === null ? null : pluggedOf(network, parent);
  }
  if (port.form === 'aggregate') return network.find('portsByAggregate', port.id).sort(byName)[0] ?? null;
  return port.form === 'physical' ? port : null;
}

/** The circuit that the run from an interface crosses first, and the medium at its start. */
export function wayOf(
  network: Network,
  port: Port,
): { circuit: Circuit | null; medium: Medium; cable: Line | null } {
  const plugged = pluggedOf(network, port);
  if (plugged === null) return { circuit: null, medium: 'copper', cable: null };
  const own = circuitAt(network, plugged.id);
  const hops = traceRun(network, plugged.id).hops;
  const circuits = hops.flatMap((hop) =>
    'circuit' in hop ? (network.get('circuit', hop.circuit) ?? []) : [],
  );
  const circuit = own ?? circuits[0] ?? null;
  const cable = cableAt(network, plugged.id);
  const medium =
    circuit === null
      ? drawnMedium(network.get('model', cable?.typeId ?? null))
      : circuit.kind === 'radio hop'
        ? 'radio'
        : 'circuit';
  return {
    circuit,
    medium: port.form === 'tunnel' ? 'circuit' : medium,
    cable: cable === null ? null : { kind: 'cable', id: cable.id, label: cable.label },
  };
}

/** What a subnet is on a sheet: its row; without one the circuit, cable or port that it runs over. */
export function lineOf(network: Network, subnet: RoutedSubnet): Line {
  if (subnet.row !== null) return { kind: 'prefix', id: subnet.row.id, label: subnet.row.prefix };
  const member = subnet.members[0];
  const way = member === undefined ? null : wayOf(network, member.port);
  if (way?.circuit != null) return { kind: 'circuit', id: way.circuit.id, label: way.circuit.number };
  return way?.cable ?? { kind: 'port', id: member?.port.id ?? '', label: formatPrefix(subnet.prefix) };
}

/** The colour of its VRF; null in the global table. */
export const shadeOf = (network: Network, vrfId: string | null): ToldLink['shade'] => {
  const vrf = network.get('vrf', vrfId);
  return vrf === null ? null : { scale: 'set', index: vrf.colour };
};
