import { overText } from '../overLimit.ts';
import type { Rack } from '../../model/kinds/sites/rack.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { placePath, placesWithin, racksIn } from '../../model/network/places.ts';
import { freePortsBySpeed, rackCapacity, sumCapacity, type RackCapacity } from '../capacity.ts';
import type { Column, Table, TableRow } from '../../report/table.ts';

const speeds: readonly { key: string; label: string; bps: number }[] = [
  { key: 'free1g', label: 'Free 1G', bps: 1e9 },
  { key: 'free10g', label: 'Free 10G', bps: 10e9 },
  { key: 'free25g', label: 'Free 25G', bps: 25e9 },
  { key: 'free100g', label: 'Free 100G', bps: 100e9 },
];

const columns: Column[] = [
  { key: 'rack', label: 'Rack' },
  { key: 'place', label: 'Place' },
  { key: 'units', label: 'Units', numeric: true, unit: 'U' },
  { key: 'usedUnits', label: 'Used', numeric: true, unit: 'U' },
  { key: 'freeUnits', label: 'Free', numeric: true, unit: 'U' },
  { key: 'massKg', label: 'Mass', numeric: true, unit: 'kg' },
  { key: 'massLimitKg', label: 'Mass limit', numeric: true, unit: 'kg' },
  { key: 'typicalW', label: 'Typical', numeric: true, unit: 'W' },
  { key: 'maxW', label: 'Maximum', numeric: true, unit: 'W' },
  { key: 'usableW', label: 'Feeds carry', numeric: true, unit: 'W' },
  { key: 'aloneW', label: 'Worst feed alone', numeric: true, unit: 'W' },
  { key: 'btuPerHour', label: 'Heat', numeric: true, unit: 'BTU/h' },
  ...speeds.map(({ key, label }): Column => ({ key, label, numeric: true })),
  { key: 'over', label: 'Over its limit' },
];

/** The row of a rack; mass, power and heat rounded to whole figures. */
export function capacityRow(network: Network, rack: Rack, capacity: RackCapacity): TableRow {
  const freePorts = freePortsBySpeed(network, network.find('devicesByRack', rack.id));
  const worst = capacity.feeds.reduce((most, feed) => Math.max(most, feed.aloneW), 0);
  return {
    rack: rack.name,
    place: placePath(network, rack.placeId),
    units: capacity.units,
    usedUnits: capacity.usedUnits,
    freeUnits: capacity.freeUnits,
    massKg: Math.round(capacity.massKg * 10) / 10,
    massLimitKg: capacity.massLimitKg,
    typicalW: Math.round(capacity.draw.typicalW),
    maxW: Math.round(capacity.draw.maxW),
    usableW:
      capacity.feeds.length === 0
        ? null
        : Math.round(capacity.feeds.reduce((sum, feed) => sum + feed.usableW, 0)),
    aloneW: capacity.feeds.length === 0 ? null : Math.round(worst),
    btuPerHour: Math.round(capacity.btuPerHour),
    ...Object.fromEntries(speeds.map(({ key, bps }) => [key, freePorts.get(bps) ?? 0])),
    over: capacity.over.map((over) => overText(network, over)).join('; ') || null,
  };
}

/** The sums of every place of the scope that has racks in it, with what is inside counted in the outer ones too. */
export function placeCapacitySchedule(network: Network, scopeId: string | null): Table {
  const places = [...placesWithin(network, scopeId)]
    .flatMap((id) => network.get('place', id) ?? [])
    .map((place) => ({ place, path: placePath(network, place.id) }))
    .sort((a, b) => compareNames(a.path, b.path));
  const rows: TableRow[] = [];
  const ids: string[] = [];
  for (const { place, path } of places) {
    const racks = racksIn(network, placesWithin(network, place.id));
    if (racks.length === 0) continue;
    const sum = sumCapacity(racks.map((rack) => rackCapacity(network, rack)));
    const free = freePortsBySpeed(
      network,
      racks.flatMap((rack) => network.find('devicesByRack', rack.id)),
    );
    ids.push(place.id);
    rows.push({
      place: path,
      kind: place.kind,
      racks: sum.racks,
      units: sum.units,
      usedUnits: sum.usedUnits,
      freeUnits: sum.freeUnits,
      massKg: Math.round(sum.massKg * 10) / 10,
      massLimitKg: sum.massLimitKg,
      typicalW: Math.round(sum.draw.typicalW),
      maxW: Math.round(sum.draw.maxW),
      usableW: sum.usableW === null ? null : Math.round(sum.usableW),
      btuPerHour: Math.round(sum.btuPerHour),
      ...Object.fromEntries(speeds.map(({ key, bps }) => [key, free.get(bps) ?? 0])),
      over: sum.over.map((over) => overText(network, over)).join('; ') || null,
    });
  }
  const shared = columns.filter(({ key }) => key !== 'rack' && key !== 'place' && key !== 'aloneW');
  const own: Column[] = [
    { key: 'place', label: 'Place' },
    { key: 'kind', label: 'Kind' },
    { key: 'racks', label: 'Racks', numeric: true },
  ];
  return { columns: [...own, ...shared], rows, ids };
}

/** The capacity schedule: every rack of the scope with what it holds, what it may hold and what is above a limit. */
export function capacitySchedule(network: Network, scopeId: string | null): Table {
  const racks = racksIn(network, placesWithin(network, scopeId));
  return {
    columns,
    rows: racks.map((rack) => capacityRow(network, rack, rackCapacity(network, rack))),
    ids: racks.map((rack) => rack.id),
  };
}
