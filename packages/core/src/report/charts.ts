import { useOf } from '../addressing/plan.ts';
import { inForce } from '../lens/inForce.ts';
import type { Network } from '../model/network/network.ts';
import { devicesInScope, placePath, placesWithin, racksIn } from '../model/network/places.ts';
import { compareNames } from '../model/values/order.ts';
import { freePortsBySpeed } from '../racks/capacity.ts';
import { rackUse } from '../racks/occupancy.ts';
import { prefixesInScope } from '../addressing/reports/addresses.ts';
import type { Table, TableRow } from './table.ts';

/** One figure of a chart for each of its bars: several stand in one bar, one after the other. */
export interface ChartSeries {
  key: string;
  label: string;
}
/** A question that is answered better by bars than by rows; its rows are there as well. */
export interface Chart {
  key: string;
  title: string;
  /** What it answers. */
  what: string;
  /** The column that names a bar. */
  name: string;
  series: readonly ChartSeries[];
  unit: string;
  table: Table;
}

/** Sites of a scope, or the scope itself where there is none in it. */
function sitesOf(network: Network, scopeId: string | null): { id: string; name: string }[] {
  const within = [...placesWithin(network, scopeId)].flatMap((id) => network.get('place', id) ?? []);
  const sites = within.filter(({ kind }) => kind === 'site');
  const own = sites.length > 0 ? sites : within.filter(({ id }) => id === scopeId);
  return own.map(({ id, name }) => ({ id, name })).sort((a, b) => compareNames(a.name, b.name));
}

const sum = (values: Iterable<number>): number => [...values].reduce((all, one) => all + one, 0);

function portsBySite(network: Network, scopeId: string | null): Table {
  const rows = sitesOf(network, scopeId).map(({ id, name }) => {
    const devices = devicesInScope(network, id).filter(({ status }) => status !== 'retired');
    const ports = devices.flatMap((device) =>
      network.find('portsByDevice', device.id).filter(({ role }) => role === 'network' || role === 'uplink'),
    ).length;
    const free = sum(freePortsBySpeed(network, devices).values());
    return { id, cells: { site: name, used: ports - free, free } };
  });
  return {
    columns: [
      { key: 'site', label: 'Site' },
      { key: 'used', label: 'Ports in use', numeric: true },
      { key: 'free', label: 'Ports free', numeric: true },
    ],
    rows: rows.map(({ cells }) => cells),
    ids: rows.map(({ id }) => id),
  };
}

function unitsBySite(network: Network, scopeId: string | null): Table {
  const rows = sitesOf(network, scopeId).flatMap(({ id, name }) => {
    const uses = racksIn(network, placesWithin(network, id)).map((rack) => rackUse(network, rack));
    if (uses.length === 0) return [];
    const used = sum(uses.map((use) => use.used));
    return [{ id, cells: { site: name, used, free: sum(uses.map(({ units }) => units)) - used } }];
  });
  return {
    columns: [
      { key: 'site', label: 'Site' },
      { key: 'used', label: 'Used', numeric: true, unit: 'U' },
      { key: 'free', label: 'Free', numeric: true, unit: 'U' },
    ],
    rows: rows.map(({ cells }) => cells),
    ids: rows.map(({ id }) => id),
  };
}

const notKnown = 'not known';

/** By the year in which devices were bought, or else installed; every year between, and those of which nobody knows. */
function ageByYear(network: Network, scopeId: string | null): Table {
  const byYear = new Map<string, number>();
  for (const { status, boughtOn, installedOn, role } of devicesInScope(network, scopeId)) {
    if (status !== 'active' || role === 'EX' || role === 'VM') continue;
    const year = (boughtOn ?? installedOn)?.slice(0, 4) ?? notKnown;
    byYear.set(year, (byYear.get(year) ?? 0) + 1);
  }
  const years = [...byYear.keys()].filter((year) => year !== notKnown).map(Number);
  const rows: TableRow[] = [];
  if (years.length > 0)
    for (let year = Math.min(...years); year <= Math.max(...years); year++)
      rows.push({ year: String(year), devices: byYear.get(String(year)) ?? 0 });
  const unknown = byYear.get(notKnown);
  if (unknown !== undefined) rows.push({ year: notKnown, devices: unknown });
  return {
    columns: [
      { key: 'year', label: 'Year' },
      { key: 'devices', label: 'Devices', numeric: true },
    ],
    rows,
    ids: rows.map(({ year }) => String(year)),
  };
}

/** More bars than these are not read. */
const mostPrefixes = 20;

/** The fullest prefixes in which hosts stand, at most twenty: what is taken in per cent, and what is left. */
function addressUse(network: Network, scopeId: string | null): Table {
  const rows = prefixesInScope(network, scopeId)
    .filter(({ role, status }) => role === 'subnet' && status !== 'retired')
    .map((prefix) => {
      const used = Math.round(useOf(network, prefix).share * 1000) / 10;
      const name = prefix.name === null ? prefix.prefix : `${prefix.prefix} ${prefix.name}`;
      return {
        id: prefix.id,
        cells: {
          prefix: name,
          place: placePath(network, prefix.placeId),
          used,
          free: Math.round((100 - used) * 10) / 10,
        },
      };
    })
    .sort((a, b) => b.cells.used - a.cells.used || compareNames(a.cells.prefix, b.cells.prefix))
    .slice(0, mostPrefixes);
  return {
    columns: [
      { key: 'prefix', label: 'Prefix' },
      { key: 'place', label: 'Place' },
      { key: 'used', label: 'In use', numeric: true, unit: '%' },
      { key: 'free', label: 'Left', numeric: true, unit: '%' },
    ],
    rows: rows.map(({ cells }) => cells),
    ids: rows.map(({ id }) => id),
  };
}

const used = { key: 'used', label: 'in use' };
const free = { key: 'free', label: 'free' };

/** The charts of a scope, of what is in force. One without rows has nothing to say there. */
export function chartsOf(whole: Network, scopeId: string | null): Chart[] {
  const network = inForce(whole);
  return [
    {
      ...{ key: 'ports', title: 'Ports by site', what: 'Where is room for more cables?' },
      ...{ name: 'site', series: [used, free], unit: 'ports', table: portsBySite(network, scopeId) },
    },
    {
      ...{ key: 'units', title: 'Rack units by site', what: 'Where is room for more gear?' },
      ...{ name: 'site', series: [used, free], unit: 'U', table: unitsBySite(network, scopeId) },
    },
    {
      ...{ key: 'age', title: 'Equipment by year', what: 'What is due to be replaced?' },
      ...{ name: 'year', series: [{ key: 'devices', label: 'devices' }], unit: 'devices' },
      table: ageByYear(network, scopeId),
    },
    {
      ...{ key: 'addresses', title: 'Fullest prefixes', what: 'Where do addresses run out?' },
      ...{ name: 'prefix', series: [used, free], unit: '%', table: addressUse(network, scopeId) },
    },
  ];
}
