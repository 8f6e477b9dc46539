import { create, remove, update, type Change, type ChangeSet } from '../../change/change.ts';
import { removal } from '../../change/removal.ts';
import { newId } from '../../model/values/ids.ts';
import { projectionNatures, type Projection } from '../../model/kinds/drawings/projections.ts';
import {
  blankSheet,
  facets,
  type Facet,
  type FacetState,
  type FacetView,
  type Sheet,
  type SheetGroup,
} from '../../model/kinds/drawings/sheet.ts';
import {
  blankSheetItem,
  plateKinds,
  type PlateKind,
  type SheetItem,
} from '../../model/kinds/drawings/sheetItem.ts';
import { blankSheetLink, type SheetLink } from '../../model/kinds/drawings/sheetLink.ts';
import { titleOf } from '../../model/fields/titles.ts';
import type { Network } from '../../model/network/network.ts';
import { unkeptLines, type Line, type UnkeptLine } from '../graph/sheetGraph.ts';

/** A set of one change to a sheet, or of none. */
const changed = (sheet: Sheet, fields: Partial<Sheet>, sentence: string): ChangeSet => {
  const change = update('sheet', sheet, fields);
  return { changes: change === null ? [] : [change], sentence };
};

export interface NewSheet {
  projection?: Projection;
  /** Null stands for the whole project. */
  scopeId: string | null;
  /** Draws these devices alone, whatever place they are in. */
  deviceIds?: readonly string[];
  name?: string;
}

/** A new sheet of a place, or of devices picked by hand. */
export function addSheet(network: Network, wish: NewSheet): ChangeSet & { sheetId: string } {
  const projection = wish.projection ?? 'cabling';
  const picked = wish.deviceIds !== undefined;
  const of = picked
    ? `${wish.deviceIds?.length ?? 0} picked devices`
    : (network.get('place', wish.scopeId)?.name ?? 'All sites');
  const stem = wish.name?.trim() || `${of} · ${projection}`;
  const taken = new Set([...network.all('sheet')].map((sheet) => sheet.name.toLowerCase()));
  let name = stem;
  for (let number = 2; taken.has(name.toLowerCase()); number++) name = `${stem} ${number}`;
  const sheet: Sheet = {
    ...blankSheet,
    id: newId(),
    name,
    projection,
    scopeId: wish.scopeId,
    picked,
    show: [...projectionNatures[projection].usual],
    locked: [...(projectionNatures[projection].locked ?? [])],
  };
  const items = (wish.deviceIds ?? []).map((deviceId) =>
    create('sheetItem', {
      ...blankSheetItem,
      id: newId(),
      sheetId: sheet.id,
      subjectKind: 'device',
      subjectId: deviceId,
    }),
  );
  return { sheetId: sheet.id, changes: [create('sheet', sheet), ...items], sentence: `Added sheet ${name}` };
}

/**
 * The sheet of the same place, or of the same picked devices, that reads the model in another way: one that is there,
 * or a new one.
 */
export function sisterSheet(
  network: Network,
  sheet: Sheet,
  projection: Projection,
): { sheetId: string; set: ChangeSet | null } {
  const devicesOn = (id: string): string[] =>
    network
      .find('sheetItemsBySheet', id)
      .flatMap((item) => (item.subjectKind === 'device' ? [item.subjectId] : []))
      .sort();
  const own = devicesOn(sheet.id);
  const there = network
    .find('sheetsByScope', sheet.scopeId ?? 'root')
    .find(
      (one) =>
        one.projection === projection &&
        one.picked === sheet.picked &&
        (!sheet.picked || devicesOn(one.id).join() === own.join()),
    );
  if (there !== undefined) return { sheetId: there.id, set: null };
  const made = addSheet(network, {
    projection,
    scopeId: sheet.scopeId,
    ...(sheet.picked ? { deviceIds: own } : {}),
  });
  return { sheetId: made.sheetId, set: made };
}

/** Folds the VLANs at the ends of a link of a switching sheet, or writes all of them. */
export function unfoldTags(sheet: Sheet, lineId: string, open: boolean): ChangeSet {
  const key = `tags:${lineId}`;
  const { unfolded } = sheet.reading;
  const others = (unfolded === true ? [] : unfolded).filter((one) => one !== key);
  return setSheet(
    sheet,
    { reading: { ...sheet.reading, unfolded: open ? [...others, key] : others } },
    'the VLANs written',
  );
}

export const deleteSheet = (network: Network, sheet: Sheet): ChangeSet => ({
  changes: removal(network, [{ kind: 'sheet', id: sheet.id }]).changes,
  sentence: `Deleted sheet ${sheet.name}`,
});

const facetNames: Record<Facet, string> = {
  containers: 'containers',
  devices: 'devices',
  links: 'links',
  names: 'names',
  models: 'models',
  places: 'rack and unit',
  portNames: 'port names',
  speeds: 'speeds',
  cableLabels: 'cable labels',
  addresses: 'addresses',
  subnets: 'subnets',
  costs: 'costs, ports of rules',
  vlanTags: 'VLAN tags',
  lengths: 'lengths',
  media: 'kinds of cable',
  notes: 'notes and marks',
  power: 'power',
  key: 'key',
  titleBlock: 'title block',
};
export const facetName = (facet: Facet): string => facetNames[facet];

export function setFacet(sheet: Sheet, facet: Facet, state: FacetState): ChangeSet {
  const list = (now: readonly Facet[], on: boolean): Facet[] =>
    facets.filter((one) => (one === facet ? on : now.includes(one)));
  return changed(
    sheet,
    {
      show: list(sheet.show, state !== 'hidden'),
      faded: list(sheet.faded, state === 'faded'),
      locked: list(sheet.locked, state === 'locked'),
    },
    `Set ${facetNames[facet]} to ${state} on sheet ${sheet.name}`,
  );
}

/** Keeps what is shown now under a name; a view of the same name is replaced. */
export function saveView(sheet: Sheet, name: string): ChangeSet {
  const view: FacetView = {
    name: name.trim(),
    show: sheet.show,
    faded: sheet.faded,
    locked: sheet.locked,
  };
  const others = sheet.views.filter((one) => one.name.toLowerCase() !== view.name.toLowerCase());
  return changed(sheet, { views: [...others, view] }, `Saved view ${view.name} of sheet ${sheet.name}`);
}
export const useView = (sheet: Sheet, view: FacetView): ChangeSet =>
  changed(
    sheet,
    { show: view.show, faded: view.faded, locked: view.locked },
    `Set sheet ${sheet.name} to view ${view.name}`,
  );
export const removeView = (sheet: Sheet, name: string): ChangeSet =>
  changed(
    sheet,
    { views: sheet.views.filter((view) => view.name !== name) },
    `Removed view ${name} of sheet ${sheet.name}`,
  );

/** Changes how a sheet reads the model, its templates, colours, page or groups. */
export const setSheet = (
  sheet: Sheet,
  fields: Partial<
    Pick<Sheet, 'reading' | 'templates' | 'colourBy' | 'page' | 'groups' | 'scopeId' | 'vlanId' | 'vrfId'>
  >,
  what: string,
): ChangeSet => changed(sheet, fields, `Changed ${what} of sheet ${sheet.name}`);

export function groupOnSheet(sheet: Sheet, name: string, members: readonly string[]): ChangeSet {
  const group: SheetGroup = { id: newId(), name: name.trim(), members: [...members], state: 'shown' };
  return changed(
    sheet,
    { groups: [...sheet.groups, group] },
    `Grouped ${members.length} things as ${group.name} on sheet ${sheet.name}`,
  );
}
export const setGroup = (sheet: Sheet, id: string, fields: Partial<SheetGroup>): ChangeSet =>
  changed(
    sheet,
    { groups: sheet.groups.map((group) => (group.id === id ? { ...group, ...fields } : group)) },
    `Changed group ${sheet.groups.find((group) => group.id === id)?.name ?? ''} on sheet ${sheet.name}`,
  );
/** Gives up a group; what is in it stays. */
export const ungroup = (sheet: Sheet, id: string): ChangeSet =>
  changed(
    sheet,
    { groups: sheet.groups.filter((group) => group.id !== id) },
    `Removed group ${sheet.groups.find((group) => group.id === id)?.name ?? ''} from sheet ${sheet.name}; its things stay`,
  );

/** Items of a sheet by the id of what they are about. */
export const itemsOf = (network: Network, sheetId: string): Map<string, SheetItem> =>
  new Map(network.find('sheetItemsBySheet', sheetId).map((item) => [item.subjectId, item]));

/** What kind of thing a plate stands for by this id; a device where there is nothing of the id. */
const plateKindOf = (network: Network, id: string): PlateKind =>
  plateKinds.find((kind) => network.get(kind, id) !== null) ?? 'device';

const nameOf = (network: Network, id: string): string =>
  network.get('circuit', id)?.provider ?? titleOf(network, plateKindOf(network, id), id);
const named = (network: Network, ids: readonly string[]): string =>
  ids.length === 1 ? nameOf(network, ids[0] ?? '') : `${ids.length} plates`;

/** Where plates stand that nobody has placed by hand yet, by what they stand for: from now on they stay there. */
export type StoodAt = ReadonlyMap<string, { x: number; y: number }>;
const nothing: StoodAt = new Map();

/** Changes what a sheet keeps of devices or places: their items are made where there are none yet. */
export function setItems(
  network: Network,
  sheet: Sheet,
  own: ReadonlyMap<string, Partial<SheetItem>>,
  sentence: (what: string) => string,
  standing: StoodAt = nothing,
): ChangeSet {
  const items = itemsOf(network, sheet.id);
  const changes: Change[] = [];
  const touched: string[] = [];
  const wishes = new Map<string, Partial<SheetItem>>(own);
  for (const [id, { x, y }] of standing)
    wishes.set(id, { x: Math.round(x), y: Math.round(y), ...own.get(id) });
  for (const [id, fields] of wishes) {
    const item = items.get(id);
    const change =
      item === undefined
        ? create('sheetItem', {
            ...blankSheetItem,
            subjectKind: plateKindOf(network, id),
            subjectId: id,
            ...fields,
            id: newId(),
            sheetId: sheet.id,
          })
        : update('sheetItem', item, fields);
    if (change === null) continue;
    changes.push(change);
    if (own.has(id)) touched.push(id);
  }
  return { changes, sentence: sentence(named(network, touched)) };
}

/** Keeps where plates have been put, in sheet units. */
export const placeOnSheet = (
  network: Network,
  sheet: Sheet,
  positions: ReadonlyMap<string, { x: number; y: number }>,
): ChangeSet =>
  setItems(
    network,
    sheet,
    new Map([...positions].map(([id, { x, y }]) => [id, { x: Math.round(x), y: Math.round(y) }])),
    (what) => `Moved ${what} on sheet ${sheet.name}`,
  );

/** Leaves devices out of a sheet; the network keeps them. */
export const leaveOut = (
  network: Network,
  sheet: Sheet,
  ids: readonly string[],
  standing?: StoodAt,
): ChangeSet =>
  setItems(
    network,
    sheet,
    new Map(ids.map((id) => [id, { away: true }])),
    (what) => `Left ${what} out of sheet ${sheet.name}`,
    standing,
  );
export const bringBack = (
  network: Network,
  sheet: Sheet,
  ids: readonly string[],
  standing?: StoodAt,
): ChangeSet =>
  setItems(
    network,
    sheet,
    new Map(ids.map((id) => [id, { away: false }])),
    (what) => `Put ${what} back on sheet ${sheet.name}`,
    standing,
  );

/**
 * Draws a place as one plate on this sheet, or opens it again.
 *
 * @param at where its plate is put
 */
export const collapsePlace = (
  network: Network,
  sheet: Sheet,
  placeId: string,
  collapsed: boolean,
  { standing, at }: { standing?: StoodAt; at?: { x: number; y: number } } = {},
): ChangeSet =>
  setItems(
    network,
    sheet,
    new Map([[placeId, { collapsed, ...at }]]),
    (what) =>
      collapsed
        ? `Drew ${what} as one plate on sheet ${sheet.name}`
        : `Opened ${what} on sheet ${sheet.name}`,
    standing,
  );

/** Draws all of some places as one plate each. */
export const collapsePlaces = (network: Network, sheet: Sheet, placeIds: readonly string[]): ChangeSet => ({
  ...setItems(network, sheet, new Map(placeIds.map((id) => [id, { collapsed: true }])), (what) => what),
  sentence: `Drew ${placeIds.length} places as one plate each on sheet ${sheet.name}`,
});

/**
 * Gives up hand-made positions and sizes, of the whole sheet or of some plates, so that they are laid out afresh;
 * locked plates stay.
 */
export function tidySheet(
  network: Network,
  sheet: Sheet,
  only: ReadonlySet<string> | null = null,
): ChangeSet {
  const changes: (Change | null)[] = [];
  for (const item of network.find('sheetItemsBySheet', sheet.id)) {
    if (item.locked || (only !== null && !only.has(item.subjectId))) continue;
    const bare = !item.away && !item.collapsed && !sheet.picked;
    changes.push(
      bare
        ? remove('sheetItem', item)
        : update('sheetItem', item, { x: null, y: null, width: null, height: null }),
    );
  }
  if (only === null)
    for (const link of network.find('sheetLinksBySheet', sheet.id))
      if (link.bends.length > 0) changes.push(update('sheetLink', link, { bends: [] }));
  return {
    changes: changes.filter((change) => change !== null),
    sentence: `Laid out ${only === null ? `sheet ${sheet.name}` : `${only.size} plates of sheet ${sheet.name}`} afresh`,
  };
}

const isKept = (kind: Line['kind']): kind is Exclude<Line['kind'], UnkeptLine> =>
  !unkeptLines.some((one) => one === kind);

/** Changes what a sheet keeps of one link: slid labels, bends. A link left as it draws itself is forgotten. */
export function setLink(
  network: Network,
  sheet: Sheet,
  line: Pick<Line, 'kind' | 'id' | 'label'>,
  fields: Partial<SheetLink>,
  what: string,
): ChangeSet {
  const existing = network.find('sheetLinksBySubject', line.id).find((link) => link.sheetId === sheet.id);
  const { kind } = line;
  if (!isKept(kind)) return { changes: [], sentence: `${what} ${line.label}` };
  const fresh = {
    ...blankSheetLink,
    subjectKind: kind,
    subjectId: line.id,
    id: newId(),
    sheetId: sheet.id,
  };
  const row: SheetLink = {
    ...(existing ?? fresh),
    ...fields,
  };
  const plain =
    row.aLabel === null &&
    row.bLabel === null &&
    row.middleLabel === null &&
    row.bends.length === 0 &&
    row.show === null &&
    !row.straight;
  const change =
    existing === undefined
      ? plain
        ? null
        : create('sheetLink', row)
      : plain
        ? remove('sheetLink', existing)
        : update('sheetLink', existing, fields);
  return {
    changes: change === null ? [] : [change],
    sentence: `${what} ${line.label} on sheet ${sheet.name}`,
  };
}
