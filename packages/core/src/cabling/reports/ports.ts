import { firstFault } from '../fault.ts';
import { judgeRun } from '../link.ts';
import { traceRun } from '../trace.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { cableAt, filledBy, otherEnds } from '../../model/network/ports.ts';
import { gigabits, portsInScope, spoken, table, titleOf } from '../../report/parts.ts';
import { tableOf, type Table } from '../../report/table.ts';

/** The port map: every port of every device of the scope, what is in it and what is at the far end. */
export function portSchedule(network: Network, scopeId: string | null): Table {
  const ports = portsInScope(network, scopeId).map((one) => ({ id: one.port.id, ...one }));
  return tableOf(
    [
      { key: 'device', label: 'Device' },
      { key: 'port', label: 'Port' },
      { key: 'where', label: 'Where' },
      { key: 'connector', label: 'Connector' },
      { key: 'speed', label: 'Speed' },
      { key: 'transceiver', label: 'Transceiver' },
      { key: 'cable', label: 'Cable' },
      { key: 'next', label: 'Plugged to' },
      { key: 'far', label: 'Run ends at' },
      { key: 'reserved', label: 'Reserved for' },
      { key: 'mac', label: 'MAC address' },
    ],
    ports,
    ({ port, device, where }) => {
      const cable = cableAt(network, port.id);
      const run = cable === null ? null : traceRun(network, port.id);
      return {
        device,
        port: port.name,
        where,
        connector: port.connector,
        speed: gigabits(port.speedBps),
        transceiver: titleOf(network, port.transceiverId),
        cable: filledBy(network, port.id),
        next:
          cable === null
            ? null
            : otherEnds(network, cable, port.id)
                .map((id) => spoken(network, id))
                .join(', '),
        far: run === null || run.to === null ? null : spoken(network, run.to),
        reserved: port.reserved,
        mac: port.mac,
      };
    },
  );
}

/** Free data ports: neither filled nor reserved. */
export function freePortSchedule(network: Network, scopeId: string | null): Table {
  const rows = portsInScope(network, scopeId)
    .filter(
      ({ port }) =>
        port.role !== 'powerIn' &&
        port.role !== 'powerOut' &&
        port.reserved === null &&
        filledBy(network, port.id) === null,
    )
    .map(({ port, device, where }) => ({
      id: port.id,
      cells: {
        device,
        port: port.name,
        where,
        role: port.role === 'panel' ? 'panel' : port.role,
        connector: port.connector,
        speed: gigabits(port.speedBps),
        transceiver: titleOf(network, port.transceiverId),
      },
    }));
  return table(
    [
      { key: 'device', label: 'Device' },
      { key: 'port', label: 'Port' },
      { key: 'where', label: 'Where' },
      { key: 'role', label: 'Port role' },
      { key: 'connector', label: 'Connector' },
      { key: 'speed', label: 'Speed' },
      { key: 'transceiver', label: 'Transceiver' },
    ],
    rows,
  );
}

/** Transceivers in cages, with what faces them and how much light is left. */
export function transceiverSchedule(network: Network, scopeId: string | null): Table {
  const rows = portsInScope(network, scopeId)
    .filter(({ port }) => port.transceiverId !== null)
    .map(({ port, device, where }) => {
      const run = traceRun(network, port.id);
      const far = network.get('port', run.to);
      const { light, faults } = judgeRun(network, run);
      return {
        id: port.id,
        cells: {
          transceiver: titleOf(network, port.transceiverId),
          serial: port.transceiverSerial,
          device,
          port: port.name,
          where,
          far: spoken(network, run.to),
          faces: titleOf(network, far?.transceiverId ?? null),
          lengthM: run.hops.length > 1 ? Math.round(run.lengthM * 100) / 100 : null,
          marginDb: light === null ? null : Math.round(light.marginDb * 10) / 10,
          fault: firstFault(network, faults),
        },
      };
    })
    .sort((a, b) => compareNames(a.cells.transceiver ?? '', b.cells.transceiver ?? ''));
  return table(
    [
      { key: 'transceiver', label: 'Transceiver' },
      { key: 'serial', label: 'Serial' },
      { key: 'device', label: 'Device' },
      { key: 'port', label: 'Port' },
      { key: 'where', label: 'Where' },
      { key: 'far', label: 'Run ends at' },
      { key: 'faces', label: 'Faces' },
      { key: 'lengthM', label: 'Run', numeric: true, unit: 'm' },
      { key: 'marginDb', label: 'Light left', numeric: true, unit: 'dB' },
      { key: 'fault', label: 'Fault' },
    ],
    rows,
  );
}
