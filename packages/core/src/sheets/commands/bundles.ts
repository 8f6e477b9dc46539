import type { ChangeSet } from '../../change/change.ts';
import type { BundleManner, Sheet } from '../../model/kinds/drawings/sheet.ts';
import { setSheet } from './sheets.ts';

const words: Record<BundleManner, string> = {
  closed: 'as one line',
  open: 'in lanes',
  never: 'each by itself',
};

const wishesOf = ({ reading }: Sheet): NonNullable<Sheet['reading']['bundles']> =>
  reading.bundles ?? { drawn: 'closed', own: [] };

/** How links of one purpose are drawn on a sheet, where nothing else is wanted of a bundle. */
export function setBundles(sheet: Sheet, drawn: BundleManner): ChangeSet {
  const reading = { ...sheet.reading, bundles: { ...wishesOf(sheet), drawn } };
  return {
    ...setSheet(sheet, { reading }, 'how links are bundled'),
    sentence: `Drew links of one purpose ${words[drawn]} on sheet ${sheet.name}`,
  };
}

/** How the links of one device for one purpose are drawn; what holds for the sheet is not kept again. */
export function setBundle(
  sheet: Sheet,
  { deviceId, purpose, title }: { deviceId: string; purpose: string; title: string },
  drawn: BundleManner,
): ChangeSet {
  const wishes = wishesOf(sheet);
  const others = wishes.own.filter((one) => one.deviceId !== deviceId || one.purpose !== purpose);
  const own = drawn === wishes.drawn ? others : [...others, { deviceId, purpose, drawn }];
  const reading = { ...sheet.reading, bundles: { ...wishes, own } };
  return {
    ...setSheet(sheet, { reading }, 'how links are bundled'),
    sentence: `Drew ${title} ${words[drawn]} on sheet ${sheet.name}`,
  };
}
