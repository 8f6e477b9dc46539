import { inForce } from '../lens/inForce.ts';
import type { Network } from '../model/network/network.ts';
import { devicesNotPlaced } from '../model/network/places.ts';
import { isFree } from '../model/network/ports.ts';
import { grouped } from '../model/values/numbers.ts';
import { rackUse } from '../racks/occupancy.ts';

/** One figure of a project, and the section of the application that it is about. */
export interface KeyFigure {
  section: 'places' | 'equipment' | 'cables' | 'vlans' | 'addresses' | 'sheets';
  /** "94 devices". */
  text: string;
  /** What else is to be known of them; empty where nothing is. */
  detail: string;
  /** How much of them is used, 0 to 1; null where nothing is used up. */
  share: number | null;
}

const counted = (count: number, one: string, many = `${one}s`): string =>
  `${grouped(count)} ${count === 1 ? one : many}`;
const some = (parts: readonly (string | false)[]): string =>
  parts.filter((part) => part !== false).join(' · ');

/** A project in figures, of what is in force, in the order of the sections. */
export function keyFigures(whole: Network): KeyFigure[] {
  const network = inForce(whole);
  let units = 0;
  let used = 0;
  for (const rack of network.all('rack')) {
    const use = rackUse(network, rack);
    units += use.units;
    used += use.used;
  }
  let ports = 0;
  let plugged = 0;
  for (const port of network.all('port')) {
    if (port.form !== 'physical') continue;
    ports++;
    if (!isFree(network, port.id)) plugged++;
  }
  const planned = [...network.all('device')].filter(({ status }) => status === 'planned').length;
  const unplaced = devicesNotPlaced(network).length;
  const sites = [...network.all('place')].filter(({ kind }) => kind === 'site').length;
  return [
    {
      section: 'places',
      text: counted(sites, 'site'),
      detail: some([counted(network.count('place') - sites, 'place within', 'places within')]),
      share: null,
    },
    {
      section: 'places',
      text: counted(network.count('rack'), 'rack'),
      detail: units === 0 ? '' : `${grouped(used)} of ${grouped(units)} U used`,
      share: units === 0 ? null : used / units,
    },
    {
      section: 'equipment',
      text: counted(network.count('device'), 'device'),
      detail: some([
        planned > 0 && `${grouped(planned)} planned`,
        unplaced > 0 && `${grouped(unplaced)} not placed yet`,
      ]),
      share: null,
    },
    {
      section: 'cables',
      text: counted(network.count('cable'), 'cable'),
      detail: ports === 0 ? '' : `${grouped(plugged)} of ${grouped(ports)} ports used`,
      share: ports === 0 ? null : plugged / ports,
    },
    { section: 'cables', text: counted(network.count('circuit'), 'circuit'), detail: '', share: null },
    { section: 'vlans', text: counted(network.count('vlan'), 'VLAN'), detail: '', share: null },
    {
      section: 'addresses',
      text: counted(network.count('prefix'), 'prefix', 'prefixes'),
      detail: counted(network.count('address'), 'address', 'addresses'),
      share: null,
    },
    { section: 'sheets', text: counted(network.count('sheet'), 'sheet'), detail: '', share: null },
  ];
}
