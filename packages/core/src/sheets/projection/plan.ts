import { rackDistanceM } from '../../cabling/length.ts';
import type { Mark } from '../../model/kinds/drawings/mark.ts';
import { facetState, type FacetState, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath } from '../../model/network/places.ts';
import { roles } from '../../model/values/roles.ts';
import type { Manners } from '../graph/manners.ts';
import type { DrawingPlan, PlateWish } from '../scene/drawingPlan.ts';
import type { SheetTable } from '../scene/table.ts';
import { mediumNames } from '../graph/medium.ts';
import { keptOn } from '../graph/reading.ts';
import { aspectOf } from '../scene/pages.ts';
import type { KeyEntry } from '../scene/scene.ts';
import type { ShadeKey } from '../graph/shading.ts';
import type { SheetGraph } from '../graph/sheetGraph.ts';
import { inDrawnOrder } from '../graph/drawnOrder.ts';
import { shownOf } from '../graph/told.ts';
import { readingsOf } from './registry.ts';
import { metresText } from '../../model/values/numbers.ts';

function keyOf(
  { nodes, links, stubs }: SheetGraph,
  shades: KeyEntry[],
  colours: KeyEntry[],
  colourBy: string,
): KeyEntry[] {
  const media = [...new Set([...links, ...stubs].map((link) => link.medium))].sort();
  const withRole = nodes.filter((node) => node.form !== 'place' && node.form !== 'subnet');
  const present = [...new Set(withRole.map((node) => node.role))].sort();
  return [
    ...media.map((medium): KeyEntry => ({ form: 'link', medium, text: mediumNames[medium] })),
    ...(colourBy === 'role' ? [] : shades),
    ...colours,
    ...present.map((role): KeyEntry => ({ form: 'role', role, text: roles[role].label })),
  ];
}

/** The distance of two racks in metres, as cables count it; null where the model does not know. */
function dimensionText(network: Network, mark: Mark, names: boolean): string {
  const [a, b] = [network.get('rack', mark.aRackId), network.get('rack', mark.bRackId)];
  if (a === null || b === null) return '';
  const metres = rackDistanceM(network, a, b);
  const distance = metres === null ? 'distance not known' : metresText(metres);
  return names ? `${a.name} – ${b.name}: ${distance}` : distance;
}

export interface PlanOptions {
  /** Year-month-day, for colours by age. */
  today: string;
  /** Makes the title block; left out on screen. */
  stamp?: { revision: number; date: string };
  /** What stands in the tables of the sheet, by mark. */
  tables?: ReadonlyMap<string, SheetTable>;
}

/** Reads the model for a sheet: what is on it, and what was done with it by hand. Its tables are given to it. */
export function planOf(network: Network, sheet: Sheet, { today, stamp, tables }: PlanOptions): DrawingPlan {
  const kept = keptOn(network, sheet);
  const read = readingsOf[sheet.projection](network, sheet, kept, today);
  const said = shownOf(read.graph, sheet, kept.tells);
  // Without their names, plates in the order of these would still tell it.
  const graph = sheet.show.includes('names') ? said : inDrawnOrder(said);
  const states = new Map<string, Set<string>>();
  for (const group of sheet.groups)
    for (const id of group.members) states.set(id, (states.get(id) ?? new Set()).add(group.state));
  const grouped = (ids: readonly string[], state: string): boolean =>
    ids.length > 0 && ids.every((id) => states.get(id)?.has(state) === true);
  const hidden = new Set(
    graph.nodes.filter((node) => grouped(node.subjects, 'hidden')).map((node) => node.id),
  );
  graph.nodes = graph.nodes.filter((node) => !hidden.has(node.id));
  graph.links = graph.links.filter((link) => !hidden.has(link.a) && !hidden.has(link.b));
  // A stub names the device it leads to.
  const devices = facetState(sheet, 'devices') !== 'hidden';
  graph.stubs = graph.stubs.filter((stub) => devices && !hidden.has(stub.a));
  const parents = new Map(graph.containers.map(({ id, parentId }) => [id, parentId]));
  const held = new Set(graph.nodes.flatMap((node) => (node.containerId === null ? [] : [node.containerId])));
  // A set that grows while it is gone through: what is held is held by all that is around it.
  for (const id of held) {
    const parent = parents.get(id) ?? null;
    if (parent !== null) held.add(parent);
  }
  graph.containers = graph.containers.filter((container) => held.has(container.id));

  const plates = new Map<string, PlateWish>();
  const nodeBySubject = new Map<string, string>();
  for (const node of graph.nodes) {
    for (const subject of node.subjects) nodeBySubject.set(subject, node.id);
    const items = node.subjects.flatMap((subject) => kept.items.get(subject) ?? []);
    const placed = items.find((item) => item.x !== null);
    const sized = items.find((item) => item.width !== null || item.height !== null);
    plates.set(node.id, {
      at: placed === undefined ? null : { x: placed.x ?? 0, y: placed.y ?? 0 },
      width: sized?.width ?? null,
      height: sized?.height ?? null,
      locked: items.some((item) => item.locked) || grouped(node.subjects, 'locked'),
    });
  }
  const manner = (facet: keyof Manners): FacetState => facetState(sheet, facet);
  const notes = manner('notes');
  const marks = network
    .find('marksBySheet', sheet.id)
    .filter((mark) => notes !== 'hidden' && !grouped([mark.id], 'hidden'))
    .map((mark) => ({
      mark,
      plateId: nodeBySubject.get(mark.deviceId ?? '') ?? null,
      text:
        mark.form === 'dimension' ? dimensionText(network, mark, sheet.show.includes('names')) : mark.text,
      table: tables?.get(mark.id) ?? null,
      faded: notes === 'faded' || grouped([mark.id], 'faded'),
      locked: mark.locked || notes === 'locked' || grouped([mark.id], 'locked'),
    }))
    .sort((a, b) => a.mark.level - b.mark.level || (a.mark.id < b.mark.id ? -1 : 1));
  const asEntry = ({ label, shade }: ShadeKey): KeyEntry => ({ form: 'shade', shade, text: label });
  const shades = [...read.shades, ...read.linkShades].map(asEntry);
  const colours = (read.colours ?? [])
    .filter(({ label }) => label.needs.every((facet) => sheet.show.includes(facet)))
    .map(({ label, shade }) => asEntry({ label: label.text, shade }));
  const keyed =
    sheet.colourBy === 'medium' || sheet.colourBy === 'speed' ? shades.slice(read.shades.length) : shades;
  return {
    sheetId: sheet.id,
    graph,
    plates,
    links: new Map(network.find('sheetLinksBySheet', sheet.id).map((link) => [link.subjectId, link])),
    marks,
    faded: new Set(graph.nodes.filter((node) => grouped(node.subjects, 'faded')).map((node) => node.id)),
    manners: {
      containers: manner('containers'),
      devices: manner('devices'),
      links: manner('links'),
      notes,
      portNames: manner('portNames'),
      cableLabels: manner('cableLabels'),
    },
    bundles: {
      drawn: sheet.reading.bundles?.drawn ?? 'closed',
      own: new Map(
        (sheet.reading.bundles?.own ?? []).map(({ deviceId, purpose, drawn }) => [
          `${deviceId}|${purpose}`,
          drawn,
        ]),
      ),
    },
    straight: sheet.reading.straight,
    aspect: aspectOf(sheet.page),
    arranged: [...kept.items.values()].some((item) => item.x !== null),
    key: sheet.show.includes('key') ? keyOf(graph, keyed, colours, sheet.colourBy) : [],
    keyShown: sheet.show.includes('key'),
    titleBlock:
      stamp === undefined || !sheet.show.includes('titleBlock')
        ? null
        : {
            title: sheet.name,
            project: [...network.all('project')][0]?.name ?? '',
            scope: placePath(network, sheet.scopeId).replaceAll('/', ' › ') || 'All sites',
            revision: `r${stamp.revision}`,
            date: stamp.date,
          },
    waiting: read.waiting,
    away: read.away,
    tooMany: read.tooMany,
  };
}
