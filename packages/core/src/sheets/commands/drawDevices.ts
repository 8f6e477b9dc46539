import { applyChanges } from '../../change/apply.ts';
import { create, update, type Change } from '../../change/change.ts';
import { joinAll } from '../../cabling/commands/join.ts';
import { refuse, type Attempt } from '../../commands/attempt.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import { facets } from '../../model/kinds/drawings/sheet.ts';
import { blankSheetItem } from '../../model/kinds/drawings/sheetItem.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Projection } from '../../model/kinds/drawings/projections.ts';
import type { Network } from '../../model/network/network.ts';
import { roles, type Role } from '../../model/values/roles.ts';
import { newId } from '../../model/values/ids.ts';
import { standIn } from '../../racks/commands/placeDevices.ts';
import { addDevice } from '../../racks/commands/devices.ts';
import { nextDeviceName } from '../../racks/deviceNames.ts';
import { formed, joinedIn, type Formation } from '../layout/formations.ts';
import { nearestFree } from '../layout/nearestFree.ts';
import type { Box, Container, Point } from '../scene/scene.ts';
import { placeOnSheet } from './sheets.ts';

export interface DrawWish {
  modelId: string;
  /** Where their middle is put, in sheet units. */
  at: Point;
  /** Null: they are not placed yet. */
  placeId: string | null;
  /** A rack that they are mounted in, each in its highest free units; what is not for racks stays in the room. */
  rackId?: string | null;
  count?: number;
  formation?: Formation;
  /** Whether they are cabled to each other as the formation says. */
  joined?: boolean;
}

/** What stands on the sheet already. */
export interface Standing {
  /** Boxes that nothing may be put on. */
  taken: readonly Box[];
  /** Where things stand that nobody has placed by hand yet: from now on they stay there. */
  fixed: ReadonlyMap<string, Point>;
  /** How large the new plates will be. */
  size: { width: number; height: number };
}

/** Whether a sheet of a projection draws a device of a role as soon as it is put there: one of routing only what routes. */
export const drawnAs = (projection: Projection, role: Role): boolean =>
  projection === 'cabling' || (projection === 'routing' && (role === 'RT' || role === 'FW'));

/** More at once are not drawn one by one by anybody. */
export const mostDrawn = 60;

/** The innermost container around a spot of a drawing: the id of a place or a rack. */
export function containerAt(
  containers: readonly Pick<Container, 'id' | 'box'>[],
  { x, y }: Point,
): string | null {
  const inside = containers.filter(
    ({ box }) => x >= box.x && y >= box.y && x <= box.x + box.width && y <= box.y + box.height,
  );
  const area = ({ box }: Pick<Container, 'box'>): number => box.width * box.height;
  const innermost = inside.sort((a, b) => area(a) - area(b))[0];
  return innermost?.id ?? null;
}

/** The place that a spot of a drawing belongs to: that of the innermost container there, else that of the sheet. */
export function placeAt(
  network: Network,
  sheet: Pick<Sheet, 'scopeId'>,
  containers: readonly Pick<Container, 'id' | 'box'>[],
  spot: Point,
): string | null {
  const id = containerAt(containers, spot);
  return network.get('rack', id)?.placeId ?? network.get('place', id)?.id ?? sheet.scopeId;
}

/**
 * Puts devices of a model on a sheet: with the next names, on free ground nearest to where they were let go, and
 * cabled to each other if wished. Power gear makes its sheet show power.
 */
export function drawDevices(
  network: Network,
  sheet: Sheet,
  wish: DrawWish,
  { taken, fixed, size }: Standing,
): { attempt: Attempt; deviceIds: string[] } {
  const none = (why: string): { attempt: Attempt; deviceIds: string[] } => ({
    attempt: refuse(why),
    deviceIds: [],
  });
  const model = network.get('model', wish.modelId);
  if (model === null) return none('This model is no longer in the catalogue.');
  if (model.role === null)
    return none(`${modelTitle(model)} has no role: it is a part, which goes into a rack.`);
  if (!drawnAs(sheet.projection, model.role))
    return none(
      `A sheet of ${sheet.projection} does not draw a new ${roles[model.role].label}: draw it on the sheet of cabling.`,
    );
  const count = wish.count ?? 1;
  if (!Number.isInteger(count) || count < 1 || count > mostDrawn)
    return none(`${count} at once are not possible: say 1 to ${mostDrawn}.`);
  const formation = wish.formation ?? 'row';
  const changes: Change[] = [...placeOnSheet(network, sheet, fixed).changes];
  const names: string[] = [];
  const deviceIds: string[] = [];
  const boxes = [...taken];
  let staged = network;
  for (const spot of formed(formation, count, wish.at, size)) {
    const name = nextDeviceName(staged, wish.placeId, model.role, model.id);
    const made = addDevice(staged, {
      name,
      modelId: model.id,
      rackId: null,
      placeId: wish.placeId,
      unit: null,
    });
    const applied = made === null ? null : applyChanges(staged, made.changes);
    if (made === null || applied === null) return none(`${modelTitle(model)} cannot be drawn.`);
    if (!applied.ok) return none(applied.problems[0]?.message ?? 'It cannot be drawn.');
    staged = applied.network;
    const at = nearestFree(size, spot, boxes);
    boxes.push({ ...at, ...size });
    names.push(name);
    deviceIds.push(made.deviceId);
    changes.push(
      ...made.changes,
      create('sheetItem', {
        ...blankSheetItem,
        id: newId(),
        sheetId: sheet.id,
        subjectKind: 'device',
        subjectId: made.deviceId,
        ...at,
      }),
    );
  }
  const rack = network.get('rack', wish.rackId ?? null);
  const mounts = rack !== null && (model.units > 0 || model.role === 'PD');
  if (mounts) {
    const devices = deviceIds.flatMap((id) => staged.get('device', id) ?? []);
    const mounted = standIn(staged, devices, rack.id);
    const applied = mounted.ok ? applyChanges(staged, mounted.set.changes) : null;
    if (!mounted.ok) return none(mounted.why);
    if (applied?.ok !== true) return none(`${modelTitle(model)} cannot be mounted in ${rack.name}.`);
    staged = applied.network;
    changes.push(...mounted.set.changes);
  }
  if (wish.joined === true && count > 1) {
    const pairs = joinedIn(formation, count);
    const joined = joinAll(
      staged,
      pairs.map(([a, b]) => ({ aDeviceId: deviceIds[a] ?? '', bDeviceId: deviceIds[b] ?? '' })),
    );
    if (!joined.ok) return none(joined.why);
    changes.push(...joined.changes);
  }
  if ((model.role === 'PD' || model.role === 'UP') && !sheet.show.includes('power')) {
    const show = facets.filter((facet) => facet === 'power' || sheet.show.includes(facet));
    const shown = update('sheet', sheet, { show });
    if (shown !== null) changes.push(shown);
  }
  const what = names.length === 1 ? (names[0] ?? '') : `${names[0] ?? ''} to ${names.at(-1) ?? ''}`;
  const where = mounts ? ` in ${rack.name}` : '';
  const sentence = `Drew ${what} (${modelTitle(model)})${where} on sheet ${sheet.name}`;
  return { attempt: { ok: true, set: { changes, sentence } }, deviceIds };
}
