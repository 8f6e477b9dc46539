import { blankMark } from '../../model/kinds/drawings/mark.ts';
import { blankSheet, plainPage, plainReading, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import { blankSheetItem } from '../../model/kinds/drawings/sheetItem.ts';
import { blankSheetLink } from '../../model/kinds/drawings/sheetLink.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { placePath } from '../../model/network/places.ts';
import type { ExchangeFile } from '../../exchange/format.ts';
import { sparse } from '../../exchange/sparse.ts';

type SheetEntry = NonNullable<ExchangeFile['sheets']>[number];

/** A list as a field of an entry: nothing where it is empty. */
const some = <K extends string, T>(key: K, list: T[]): Partial<Record<K, T[]>> =>
  list.length === 0 ? {} : ({ [key]: list } as Record<K, T[]>);

/** A sheet with what was done on it by hand, by names. */
export function sheetEntryOf(network: Network, sheet: Sheet): SheetEntry {
  const device = (id: string | null): string | null => network.get('device', id)?.name ?? null;
  const circuit = (id: string | null): string | null => network.get('circuit', id)?.number ?? null;
  const rack = (id: string | null): string | null => network.get('rack', id)?.name ?? null;
  const { id: _id, scopeId, vlanId, vrfId, reading: whole, page, groups, ...own } = sheet;
  const { gathered = [], bundles, ...reading } = whole;
  const vlan = network.get('vlan', vlanId);
  const prefix = (id: string | null): { prefix: string | null; vrf: string | null } => {
    const row = network.get('prefix', id);
    return { prefix: row?.prefix ?? null, vrf: network.get('vrf', row?.vrfId ?? null)?.name ?? null };
  };
  const marks = network.find('marksBySheet', sheet.id).sort((a, b) => (a.id < b.id ? -1 : 1));
  const subject = (entry: {
    device?: string | null;
    place?: string | null;
    circuit?: string | null;
    prefix?: string | null;
  }): string => entry.device ?? entry.place ?? entry.circuit ?? entry.prefix ?? '';
  const change = <T extends object>(key: string, now: T, plain: T): object => {
    const differs = sparse<T>(now, plain);
    return Object.keys(differs).length === 0 ? {} : { [key]: differs };
  };
  const entry: SheetEntry = sparse<SheetEntry>(own, { ...blankSheet, show: undefined });
  return {
    ...entry,
    projection: sheet.projection,
    ...(scopeId === null ? {} : { scope: placePath(network, scopeId) }),
    ...(vlan === null
      ? {}
      : { vlan: `${network.get('vlanNumbering', vlan.numberingId)?.name ?? ''}/${vlan.vid}` }),
    ...(vrfId === null ? {} : { vrf: network.get('vrf', vrfId)?.name ?? null }),
    ...change('reading', reading, plainReading),
    ...change('page', page, plainPage),
    ...some(
      'positions',
      network
        .find('sheetItemsBySheet', sheet.id)
        .map(({ id: _item, sheetId: _sheet, subjectKind, subjectId, ...item }) =>
          sparse(
            {
              device: device(subjectId),
              place: subjectKind === 'place' ? placePath(network, subjectId) : null,
              circuit: circuit(subjectId),
              ...prefix(subjectId),
              ...item,
            },
            blankSheetItem,
          ),
        )
        .sort((a, b) => compareNames(subject(a), subject(b))) as NonNullable<SheetEntry['positions']>,
    ),
    ...some(
      'links',
      network
        .find('sheetLinksBySheet', sheet.id)
        .map(({ id: _link, sheetId: _sheet, subjectKind: _kind, subjectId, ...link }) =>
          sparse(
            {
              cable: network.get('cable', subjectId)?.label ?? null,
              circuit: circuit(subjectId),
              ...prefix(subjectId),
              ...link,
            },
            blankSheetLink,
          ),
        )
        .sort((a, b) =>
          compareNames(a.cable ?? a.circuit ?? a.prefix ?? '', b.cable ?? b.circuit ?? b.prefix ?? ''),
        ) as NonNullable<SheetEntry['links']>,
    ),
    ...some(
      'marks',
      marks.map(
        ({ id: _mark, sheetId: _sheet, deviceId, aRackId, bRackId, scheduleId, linkSheetId, ...mark }) =>
          sparse(
            {
              ...mark,
              device: device(deviceId),
              aRack: rack(aRackId),
              bRack: rack(bRackId),
              schedule: network.get('schedule', scheduleId)?.name ?? null,
              linkSheet: network.get('sheet', linkSheetId)?.name ?? null,
            },
            blankMark,
          ),
      ) as NonNullable<SheetEntry['marks']>,
    ),
    ...some(
      'gathered',
      gathered
        .map((ids) => ids.flatMap((id) => device(id) ?? []).sort(compareNames))
        .filter((names) => names.length > 1),
    ),
    ...(bundles === undefined
      ? {}
      : {
          bundles: {
            drawn: bundles.drawn,
            ...some(
              'own',
              bundles.own
                .flatMap(({ deviceId, ...one }) => {
                  const name = device(deviceId);
                  return name === null ? [] : [{ device: name, ...one }];
                })
                .sort((a, b) => compareNames(a.device, b.device) || compareNames(a.purpose, b.purpose)),
            ),
          },
        }),
    ...some(
      'groups',
      groups.map((group) => ({
        name: group.name,
        state: group.state,
        ...some(
          'devices',
          group.members.flatMap((id) => device(id) ?? []),
        ),
        ...some(
          'marks',
          group.members.flatMap((id) => {
            const number = marks.findIndex((mark) => mark.id === id);
            return number < 0 ? [] : [number];
          }),
        ),
      })),
    ),
  };
}
