import { inForce } from '../../lens/inForce.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import type { Network } from '../../model/network/network.ts';
import { byName } from '../../model/values/order.ts';
import {
  childPlaces,
  devicesIn,
  placeChain,
  placeOfDevice,
  placesWithin,
  racksIn,
} from '../../model/network/places.ts';
import { isFree } from '../../model/network/ports.ts';
import { bundle } from '../../cabling/projection/bundling.ts';
import { linkShading } from '../../cabling/projection/linkShading.ts';
import { addProviders } from '../../cabling/projection/providers.ts';
import { sheetsByPlace, type Kept, type SheetReading } from '../../sheets/graph/reading.ts';
import { line, say, type ToldNode } from '../../sheets/graph/told.ts';
import { wiresOf, type WireEnd } from '../../cabling/projection/wires.ts';

const counted = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;

/** Devices, racks and ports of a place that are in force, as its plate says them. */
function figures(whole: Network, place: Place): string[] {
  const network = inForce(whole);
  const within = placesWithin(network, place.id);
  const devices = devicesIn(network, within);
  const racks = racksIn(network, within).length;
  let ports = 0;
  let used = 0;
  for (const device of devices) {
    if (device.role === 'PP') continue;
    for (const port of network.find('portsByDevice', device.id)) {
      if (port.role === 'powerIn' || port.role === 'powerOut') continue;
      ports++;
      if (!isFree(network, port.id)) used++;
    }
  }
  return [
    [counted(devices.length, 'device'), ...(racks > 0 ? [counted(racks, 'rack')] : [])].join(' · '),
    `${used} of ${ports} ports used`,
  ];
}

/** What a sites sheet shows: the places directly in its scope as plates, and what joins them. */
export function sitesGraph(network: Network, sheet: Sheet, kept: Kept): SheetReading {
  const away = (place: Place): boolean => kept.items.get(place.id)?.away === true;
  const places = childPlaces(network, sheet.scopeId).sort(byName);
  const shown = places.filter((place) => !away(place));
  const own = sheetsByPlace(network, sheet.id);
  const nodes = new Map<string, ToldNode>();
  const ids = new Set(shown.map((place) => place.id));
  const devices = shown.flatMap((place) => devicesIn(network, placesWithin(network, place.id)));
  for (const place of shown) {
    const inside = devicesIn(network, placesWithin(network, place.id));
    nodes.set(`place:${place.id}`, {
      id: `place:${place.id}`,
      form: 'place',
      deviceIds: inside.map((device) => device.id),
      subjects: [place.id],
      role: 'XX',
      code: say((place.code ?? '').slice(0, 3).toUpperCase(), 'names'),
      name: say(place.name, 'names'),
      lines: figures(network, place).map((text) => line(say(text, 'places'))),
      mostLines: 2,
      containerId: null,
      outside: false,
      planned: false,
      retired: false,
      shade: { scale: 'role', family: 'forwarding' },
      symbol: null,
      sheetId: own.get(place.id) ?? null,
    });
  }
  const siteOf = (end: WireEnd): string | null => {
    if (end.device === null) return end.provider === null ? null : `provider:${end.provider}`;
    const chain = placeChain(network, placeOfDevice(network, end.device));
    const place = chain.find((one) => ids.has(one.id));
    return place === undefined ? null : `place:${place.id}`;
  };
  const wires = wiresOf(network, devices, { power: false, throughPanels: true }).filter((wire) => {
    const [a, b] = [siteOf(wire.a), siteOf(wire.b)];
    return a !== null && b !== null && a !== b;
  });
  addProviders(nodes, wires);
  const shading = linkShading(sheet.colourBy, wires);
  return {
    graph: {
      nodes: [...nodes.values()],
      links: bundle(wires, siteOf, shading.of),
      stubs: [],
      containers: [],
    },
    shades: [],
    linkShades: shading.key,
    waiting: [],
    away: places.filter(away).map(({ id, name }) => ({ id, name, role: 'XX' as const })),
    tooMany: null,
  };
}
