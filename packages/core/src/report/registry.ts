import type { Kind } from '../model/kinds.ts';
import type { Network } from '../model/network.ts';
import { cableSchedule } from './cables.ts';
import { capacitySchedule, placeCapacitySchedule } from './capacity.ts';
import { hardwareSchedule } from './catalogue.ts';
import { deviceSchedule } from './devices.ts';
import type { Table } from './table.ts';

export interface Report {
  key: string;
  title: string;
  what: string;
  /** The kind of the rows, so that a row leads to its record. */
  kind: Kind;
  make: (network: Network, scopeId: string | null) => Table;
}

/** Every schedule there is; a new one is one file and one line here. */
export const reports: readonly Report[] = [
  {
    key: 'cables',
    title: 'Cable schedule',
    what: 'Every cable with both ends',
    kind: 'cable',
    make: cableSchedule,
  },
  {
    key: 'devices',
    title: 'Device schedule',
    what: 'Every device, where it is, ports used',
    kind: 'device',
    make: deviceSchedule,
  },
  {
    key: 'capacity',
    title: 'Rack capacity',
    what: 'Units, mass, power, heat and free ports of every rack',
    kind: 'rack',
    make: capacitySchedule,
  },
  {
    key: 'place-capacity',
    title: 'Place capacity',
    what: 'The same, summed over every site, building, floor, room and row',
    kind: 'place',
    make: placeCapacitySchedule,
  },
  {
    key: 'hardware',
    title: 'Hardware in use',
    what: 'Every model with its count and figures',
    kind: 'model',
    make: hardwareSchedule,
  },
];

export const findReport = (key: string): Report | null =>
  reports.find((report) => report.key === key) ?? null;
