import { isCage, fitsCage } from '../../model/network/plugs.ts';
import { fannedFrom, portStrands, strandsBehind, strandsPerLeg } from '../../model/network/strands.ts';
import { connectors } from '../../model/values/connectors.ts';
import type { Cable } from '../../model/kinds/lines/cable.ts';
import type { Circuit } from '../../model/kinds/lines/circuit.ts';
import type { Leg } from '../../model/kinds/lines/leg.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { kinds, modelTitle, type Kind, type Rows } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { endsOf, portTitle } from '../../model/network/ports.ts';
import type { Problem } from '../../model/fields/problem.ts';

const impossible = <K extends Kind>(kind: K, row: Rows[K], field: string, message: string): Problem => ({
  code: 'impossible',
  kind,
  id: row.id,
  about: `${kinds[kind].one} ${kinds[kind].nameOf(row)}`,
  field,
  message,
});

/** The name of something else than the given row that is plugged into a port. */
function otherUse(network: Network, portId: string, own: string): string | null {
  const cable = network.find('cablesByPort', portId).find((row) => row.id !== own);
  if (cable !== undefined) return `cable ${cable.label}`;
  const leg = network.find('legByPort', portId).find((row) => row.id !== own);
  if (leg !== undefined)
    return `leg ${leg.number} of cable ${network.get('cable', leg.cableId)?.label ?? ''}`.trim();
  const circuit = network.find('circuitByPort', portId).find((row) => row.id !== own);
  return circuit === undefined ? null : `circuit ${circuit.number}`;
}

function taken(network: Network, portId: string, own: string, what: string): string | null {
  const other = otherUse(network, portId, own);
  if (other === null) return null;
  const title = portTitle(network, portId);
  return `${title} already holds ${other}, so ${what} cannot be plugged in there. Choose a free port or disconnect ${other.replace(/^(cable|circuit) /, '')} first.`;
}

/** One cable or circuit per port. */
export function cableTakesFreePorts(network: Network, cable: Cable): Problem[] {
  return (['aPortId', 'bPortId'] as const).flatMap((field) => {
    const portId = cable[field];
    const why = portId === null ? null : taken(network, portId, cable.id, cable.label);
    return why === null ? [] : [impossible('cable', cable, field, why)];
  });
}

export function circuitTakesFreePorts(network: Network, circuit: Circuit): Problem[] {
  return (['aPortId', 'bPortId'] as const).flatMap((field) => {
    const portId = circuit[field];
    const why = portId === null ? null : taken(network, portId, circuit.id, circuit.number);
    return why === null ? [] : [impossible('circuit', circuit, field, why)];
  });
}

export function legTakesFreePort(network: Network, leg: Leg): Problem[] {
  const label = network.get('cable', leg.cableId)?.label ?? '';
  const why = taken(network, leg.portId, leg.id, `leg ${leg.number} of ${label}`);
  return why === null ? [] : [impossible('leg', leg, 'portId', why)];
}

/** A leg is one of those its cable's type has on that side. */
export function legIsThere(network: Network, leg: Leg): Problem[] {
  const cable = network.get('cable', leg.cableId);
  const type = network.get('model', cable?.typeId ?? null);
  if (cable === null || type === null) return [];
  const legs = leg.side === 'a' ? type.legsA : type.legsB;
  if (leg.number <= legs) return [];
  return [
    impossible(
      'leg',
      leg,
      'number',
      `${cable.label} is a ${modelTitle(type)} with ${legs} ${legs === 1 ? 'plug' : 'plugs'} at its ${leg.side.toUpperCase()} end, so it has no leg ${leg.number} there. Choose another type or leave the leg out.`,
    ),
  ];
}

const isPower = (port: Port): boolean => port.role === 'powerIn' || port.role === 'powerOut';

/** What no cable does: join power to data, two outlets or two inlets, or hold more strands than a cassette connects. */
export function cableSuitsPorts(network: Network, cable: Cable): Problem[] {
  const problems: Problem[] = [];
  const type = network.get('model', cable.typeId);
  const a = network.get('port', cable.aPortId);
  const b = network.get('port', cable.bPortId);
  const title = (port: Port): string => portTitle(network, port.id);
  if (a !== null && b !== null && isPower(a) !== isPower(b)) {
    const [power, data] = isPower(a) ? [a, b] : [b, a];
    problems.push(
      impossible(
        'cable',
        cable,
        isPower(a) ? 'aPortId' : 'bPortId',
        `${title(power)} carries power and ${title(data)} does not, so no cable joins them. Choose two ports of one kind.`,
      ),
    );
  } else if (a !== null && b !== null && isPower(a) && a.role === b.role) {
    problems.push(
      impossible(
        'cable',
        cable,
        'bPortId',
        `${title(a)} and ${title(b)} both ${a.role === 'powerIn' ? 'take' : 'give'} power, so no cable joins them. Choose an outlet and an inlet.`,
      ),
    );
  }
  if (type === null) return problems;
  for (const side of ['a', 'b'] as const) {
    const legs = side === 'a' ? type.legsA : type.legsB;
    const strands = strandsPerLeg(type, legs);
    for (const portId of endsOf(network, cable, side)) {
      const port = network.get('port', portId);
      const room = port === null ? null : strandsBehind(network, port);
      if (port === null || room === null || strands === null || strands <= room) continue;
      problems.push(
        impossible(
          'cable',
          cable,
          `${side}PortId`,
          `${modelTitle(type)} brings ${strands} strands to ${title(port)}, which connects ${room}. Choose a trunk of at most ${room} strands or a larger cassette.`,
        ),
      );
    }
  }
  return problems;
}

/** A cable's legs are among those its type has. */
export function typeHasLegs(network: Network, cable: Cable): Problem[] {
  return network
    .find('legsByCable', cable.id)
    .flatMap((leg) =>
      legIsThere(network, leg).map((problem) => impossible('cable', cable, 'typeId', problem.message)),
    );
}

/** A transceiver sits in a cage that takes its form. */
export function transceiverFitsCage(network: Network, port: Port): Problem[] {
  const model = network.get('model', port.transceiverId);
  if (model === null) return [];
  const title = portTitle(network, port.id);
  if (model.form !== 'transceiver' || model.optics === null)
    return [
      impossible(
        'port',
        port,
        'transceiverId',
        `${modelTitle(model)} is not a transceiver, so ${title} cannot hold it.`,
      ),
    ];
  if (!isCage(port.connector))
    return [
      impossible(
        'port',
        port,
        'transceiverId',
        `${title} has ${port.connector === null ? 'no known connector' : `the connector ${connectors[port.connector].label}`}, not a cage, so it cannot hold ${modelTitle(model)}.`,
      ),
    ];
  if (fitsCage(model.optics.formFactor, port.connector)) return [];
  return [
    impossible(
      'port',
      port,
      'transceiverId',
      `${modelTitle(model)} is made for cages of the form ${model.optics.formFactor}; that of ${title} is ${port.connector ?? ''}. Choose one that fits.`,
    ),
  ];
}

/** Front and rear of a panel port name each other, on one device; those of a cassette share a common port. */
export function leadsToHolds(network: Network, port: Port): Problem[] {
  const partner = network.get('port', port.leadsToId);
  const title = portTitle(network, port.id);
  // What a run goes through ends none: it must look the same from both of its sides.
  if (port.role !== 'panel' && (port.leadsToId !== null || network.countOf('portsByLeadsTo', port.id) > 0)) {
    const message = `${title} is passed through inside its device, as the ports of panels are. Leave its role at panel, or take the way through out first.`;
    return [impossible('port', port, 'role', message)];
  }
  const fault = (message: string): Problem[] => [impossible('port', port, 'leadsToId', message)];
  /** Of two that name each other, this one alone may be what is changed. */
  const leftAlone = (): Problem[] => {
    const other = network
      .find('portsByLeadsTo', port.id)
      .find(({ id, leadsToStrand }) => leadsToStrand === null && id !== port.leadsToId);
    return other === undefined
      ? []
      : fault(
          `${portTitle(network, other.id)} passes through to ${title}, which would not pass back to it. Change both.`,
        );
  };
  if (port.leadsToId === null) {
    return port.leadsToStrand === null
      ? leftAlone()
      : fault(`${title} states a strand but no port that it passes through to. Name the common port.`);
  }
  const there = portTitle(network, port.leadsToId) || 'a port that is not there';
  if (port.leadsToStrand === null) {
    if (partner?.leadsToId === port.id && partner.deviceId === port.deviceId) return leftAlone();
    return fault(
      `${title} passes through to ${there}, which does not pass back to it. Make both name each other.`,
    );
  }
  if (partner === null || partner.deviceId !== port.deviceId || partner.leadsToId !== null)
    return fault(`${title} shares strands of ${there}, which is no common port of the same device.`);
  const last = port.leadsToStrand + portStrands(port) - 1;
  const clash = fannedFrom(network, partner).find(
    (other) =>
      other.id !== port.id &&
      (other.leadsToStrand ?? 0) <= last &&
      (other.leadsToStrand ?? 0) + portStrands(other) > (port.leadsToStrand ?? 0),
  );
  return clash === undefined
    ? []
    : fault(
        `${title} takes strands ${port.leadsToStrand} to ${last} of ${there}, which ${clash.name} uses as well. Give it strands of its own.`,
      );
}
