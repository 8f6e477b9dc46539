import { refuse, type Attempt } from '../../commands/attempt.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { ownFold, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import { pluralOf, roles } from '../../model/values/roles.ts';
import { setSheet } from './sheets.ts';

/** Lists without these devices: what is left of one of fewer than two is none. */
const without = (lists: readonly (readonly string[])[], ids: ReadonlySet<string>): string[][] =>
  lists.map((list) => list.filter((id) => !ids.has(id))).filter((list) => list.length > 1);

/** Draws devices of one role as one plate, "5 phones", on this sheet; they stay devices of their own. */
export function gather(sheet: Sheet, devices: readonly Device[]): Attempt {
  const [first, other] = devices;
  if (first === undefined || other === undefined) return refuse('Choose two devices or more to gather.');
  const stray = devices.find((device) => device.role !== first.role);
  if (stray !== undefined)
    return refuse(
      `${stray.name} is a ${roles[stray.role].label}, ${first.name} a ${roles[first.role].label}: only devices of one role are drawn as one.`,
    );
  const ids = devices.map(({ id }) => id);
  const lists = without(sheet.reading.gathered ?? [], new Set(ids));
  const what = `${devices.length} ${pluralOf(first.role, roles[first.role].label)}`;
  const set = setSheet(
    sheet,
    { reading: { ...sheet.reading, gathered: [...lists, ids] } },
    'what is gathered',
  );
  return { ok: true, set: { ...set, sentence: `Gathered ${what} on sheet ${sheet.name}` } };
}

/** Draws the devices of a plate one by one: what was gathered, or what folded by itself. */
export function scatter(sheet: Sheet, foldId: string, deviceIds: readonly string[]): Attempt {
  const { unfolded, gathered = [] } = sheet.reading;
  const lists = without(gathered, new Set(deviceIds));
  const open = unfolded === true || foldId.startsWith(ownFold) ? unfolded : [...unfolded, foldId];
  const reading = { ...sheet.reading, unfolded: open, ...(gathered.length === 0 ? {} : { gathered: lists }) };
  const set = setSheet(sheet, { reading }, 'what is folded');
  return {
    ok: true,
    set: { ...set, sentence: `Drew ${deviceIds.length} devices one by one on sheet ${sheet.name}` },
  };
}
