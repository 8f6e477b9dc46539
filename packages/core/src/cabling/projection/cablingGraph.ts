import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import { firstOf } from '../../model/values/firstOf.ts';
import type { Network } from '../../model/network/network.ts';
import { byName } from '../../model/values/order.ts';
import { devicesInScope, placeChain, placeOfDevice, placesWithin } from '../../model/network/places.ts';
import { pluralOf, roles } from '../../model/values/roles.ts';
import { bundle, stubsOf } from './bundling.ts';
import { apartByHand, foldsOf, gatheredIn, pairName, pairsOf } from './folding.ts';
import { linkShading } from './linkShading.ts';
import { addProviders } from './providers.ts';
import { sheetsByPlace, type Kept, type SheetReading } from '../../sheets/graph/reading.ts';
import { isColourBy, shadingOf, type Shade } from '../../sheets/graph/shading.ts';
import { containersOf, mostDevices } from '../../sheets/graph/containers.ts';
import { mostTemplateLines, templateLines } from '../../sheets/graph/templates.ts';
import { line, nothingTold, say, type ToldNode } from '../../sheets/graph/told.ts';
import { wiresOf, type WireEnd } from './wires.ts';

const neutral: Shade = { scale: 'role', family: 'passive' };

/** Devices of a sheet: those of its scope, or those picked for it, without what was left out or waits. */
function chosenDevices(
  network: Network,
  sheet: Sheet,
  { items }: Kept,
): Pick<SheetReading, 'waiting' | 'away'> & { devices: Device[] } {
  const power = sheet.show.includes('power');
  /** What was put on the sheet by hand is there whether or not it has ports yet. */
  const drawn = (device: Device): boolean =>
    (sheet.picked || items.has(device.id) || network.countOf('portsByDevice', device.id) > 0) &&
    (power || (device.role !== 'PD' && device.role !== 'UP'));
  const wanted = sheet.picked
    ? [...items.values()]
        .map((item) => network.get('device', item.subjectId))
        .filter((device) => device !== null)
    : devicesInScope(network, sheet.scopeId).filter(drawn);
  const arranged = [...items.values()].some((item) => item.x !== null);
  const waits = (device: Device): boolean =>
    !sheet.picked && sheet.reading.newcomers === 'wait' && arranged && !items.has(device.id);
  const entry = ({ id, name, role }: Device) => ({ id, name, role });
  const here = wanted.filter((device) => items.get(device.id)?.away !== true);
  return {
    devices: here.filter((device) => !waits(device)),
    waiting: here.filter(waits).sort(byName).map(entry),
    away: wanted
      .filter((device) => items.get(device.id)?.away === true)
      .sort(byName)
      .map(entry),
  };
}

/** What a cabling sheet shows: devices, what joins them, and the containers they stand in. */
export function cablingGraph(network: Network, sheet: Sheet, kept: Kept, today: string): SheetReading {
  const power = sheet.show.includes('power');
  const { devices: inScope, waiting, away } = chosenDevices(network, sheet, kept);
  if (inScope.length > mostDevices)
    return { graph: nothingTold(), shades: [], linkShades: [], waiting, away, tooMany: inScope.length };
  const { reading } = sheet;
  const within = new Set(inScope.map((device) => device.id));
  const left = new Set([...waiting, ...away].map((device) => device.id));
  const wires = wiresOf(network, inScope, { power, throughPanels: reading.throughPanels });
  const devices = new Map(
    inScope
      .filter((device) => !reading.throughPanels || device.role !== 'PP')
      .map((device) => [device.id, device]),
  );
  if (!sheet.picked)
    for (const wire of wires)
      for (const { device } of [wire.a, wire.b])
        if (device !== null && !left.has(device.id) && kept.items.get(device.id)?.away !== true)
          devices.set(device.id, device);

  const collapsed = new Set(
    [...kept.items.values()].flatMap((item) =>
      item.collapsed && item.subjectKind === 'place' ? [item.subjectId] : [],
    ),
  );
  const closedIn = (device: Device): string | null =>
    collapsed.size === 0
      ? null
      : (placeChain(network, placeOfDevice(network, device)).find((place) => collapsed.has(place.id))?.id ??
        null);
  const placeOf = (device: Device): string | null => placeOfDevice(network, device);
  const all = [...devices.values()].sort(byName);
  const shownWires = wires.filter(
    (wire) =>
      (wire.a.device === null || devices.has(wire.a.device.id)) &&
      (wire.b.device === null || devices.has(wire.b.device.id)),
  );
  const pairs = reading.pairs ? pairsOf(all, shownWires, placeOf) : new Map<string, string>();
  const byHand = (id: string): boolean => kept.items.get(id)?.x != null;
  const folds = apartByHand(foldsOf(all, shownWires, placeOf), byHand);
  const gathered = gatheredIn(sheet, all);
  const opened = (fold: string): boolean => reading.unfolded === true || reading.unfolded.includes(fold);
  const idOf = (device: Device): string => {
    const place = closedIn(device);
    if (place !== null) return `place:${place}`;
    const own = gathered.get(device.id);
    if (own !== undefined) return own;
    const fold = folds.get(device.id);
    return pairs.get(device.id) ?? (fold === undefined || opened(fold) ? device.id : fold);
  };
  const shading = shadingOf(network, all, isColourBy(sheet.colourBy) ? sheet.colourBy : 'role', { today });
  const own = sheetsByPlace(network, sheet.id);
  const nodes = new Map<string, ToldNode>();
  const groups = new Map<string, Device[]>();
  for (const device of all) groups.set(idOf(device), [...(groups.get(idOf(device)) ?? []), device]);
  for (const [id, members] of groups)
    nodes.set(id, nodeOf(network, sheet, id, members, { shading, own, within }));
  addProviders(nodes, shownWires);
  const endNode = (end: WireEnd): string | null => {
    if (end.device === null) return end.provider === null ? null : `provider:${end.provider}`;
    return devices.has(end.device.id) ? idOf(end.device) : null;
  };
  const byLink = linkShading(sheet.colourBy, wires);
  const links = bundle(shownWires, endNode, byLink.of);
  const list = [...nodes.values()];
  return {
    graph: {
      nodes: list,
      links,
      stubs: stubsOf(
        wires.filter((wire) => !shownWires.includes(wire)),
        endNode,
      ),
      containers: containersOf(network, sheet, list, own),
    },
    shades: shading.key,
    linkShades: byLink.key,
    waiting,
    away,
    tooMany: null,
  };
}

function nodeOf(
  network: Network,
  sheet: Sheet,
  id: string,
  members: Device[],
  {
    shading,
    own,
    within,
  }: {
    shading: { of: (device: Device) => Shade };
    own: ReadonlyMap<string, string>;
    within: ReadonlySet<string>;
  },
): ToldNode {
  const first = firstOf(members);
  const placeId = id.startsWith('place:') ? id.slice('place:'.length) : null;
  const model = network.get('model', first.modelId);
  const project = [...network.all('project')][0];
  const base: ToldNode = {
    id,
    form: 'device',
    deviceIds: members.map((device) => device.id),
    subjects: members.map((device) => device.id),
    role: first.role,
    code: say(first.role),
    name: say(first.name, 'names'),
    lines: templateLines(network, sheet, first),
    mostLines: mostTemplateLines,
    containerId: sheet.reading.racks && first.rackId !== null ? first.rackId : placeOfDevice(network, first),
    outside: members.every((device) => !within.has(device.id)),
    planned: members.every((device) => device.status === 'planned'),
    retired: members.every((device) => device.status === 'retired'),
    shade: shading.of(first),
    symbol: model?.symbol ?? project?.symbols[first.role] ?? null,
    sheetId: null,
  };
  if (placeId !== null) {
    const place = network.get('place', placeId);
    return {
      ...base,
      form: 'place',
      subjects: [placeId],
      role: 'XX',
      code: say((place?.code ?? '').slice(0, 3).toUpperCase(), 'names'),
      name: say(place?.name ?? '', 'names'),
      lines: [line(say(`${members.length} ${members.length === 1 ? 'device' : 'devices'}`))],
      containerId: parentShown(network, sheet, place?.parentId ?? null),
      shade: neutral,
      symbol: null,
      sheetId: own.get(placeId) ?? null,
    };
  }
  if (id.startsWith('pair:')) {
    const names = members.map((device) => device.name);
    return {
      ...base,
      form: 'pair',
      name: say(pairName(names), 'names'),
      mostLines: 1,
      lastLine: say(members.length === 2 ? 'pair' : 'stack'),
    };
  }
  if (id.startsWith('fold:'))
    return {
      ...base,
      form: 'fold',
      name: say(pluralOf(first.role, roles[first.role].label)),
      lines: [line(say(`${first.name} … ${members.at(-1)?.name ?? ''}`, 'names'))],
    };
  return base;
}

/** The container a closed place stands in: the place around it, where that is on the sheet too. */
function parentShown(network: Network, sheet: Sheet, parentId: string | null): string | null {
  if (parentId === null || parentId === sheet.scopeId) return null;
  return placesWithin(network, sheet.scopeId).has(parentId) ? parentId : null;
}
