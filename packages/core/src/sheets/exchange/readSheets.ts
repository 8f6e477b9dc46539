import { newId } from '../../model/values/ids.ts';
import { blankMark } from '../../model/kinds/drawings/mark.ts';
import { projectionNatures } from '../../model/kinds/drawings/projections.ts';
import { blankSheet, plainPage, plainReading, type SheetGroup } from '../../model/kinds/drawings/sheet.ts';
import { blankSheetItem } from '../../model/kinds/drawings/sheetItem.ts';
import { blankSheetLink } from '../../model/kinds/drawings/sheetLink.ts';
import type { ExchangeFile } from '../../exchange/format.ts';
import { given } from '../../exchange/given.ts';
import { vlanNamed, vrfNamed } from '../../exchange/readLogical.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import { ensurePlace } from '../../places/exchange/readPlace.ts';
import type { Staging } from '../../exchange/staging.ts';
import { keysOf } from '../../model/values/words.ts';

type SheetEntry = NonNullable<ExchangeFile['sheets']>[number];

/** Finds what a name stands for; a problem at the path where there is no such thing. */
class Finder {
  constructor(private readonly staging: Staging) {}

  private told(what: string, name: string, path: string): null {
    this.staging.problem(path, `There is no ${what} “${name}”. Correct the name or leave it out.`);
    return null;
  }
  device(name: string, path: string): string | null {
    return (
      this.staging.network.findOne('deviceByName', name.toLowerCase())?.id ?? this.told('device', name, path)
    );
  }
  cable(label: string, path: string): string | null {
    return (
      this.staging.network.findOne('cableByLabel', label.toLowerCase())?.id ?? this.told('cable', label, path)
    );
  }
  circuit(number: string, path: string): string | null {
    return (
      this.staging.network.findOne('circuitByNumber', number.toLowerCase())?.id ??
      this.told('circuit', number, path)
    );
  }
  prefix(text: string, vrf: string | null | undefined, path: string): string | null {
    const vrfId = vrfNamed(this.staging, vrf, `${path}.vrf`);
    const found = this.staging.network
      .find('prefixesByVrf', vrfId ?? 'global')
      .find((row) => row.prefix === text);
    return found?.id ?? this.told('prefix', text, `${path}.prefix`);
  }
  /** What a plate or a link stands for, by its name in the file. */
  line(
    kind: 'device' | 'cable' | 'circuit' | 'prefix',
    name: string,
    vrf: string | null | undefined,
    path: string,
  ): string | null {
    return kind === 'prefix' ? this.prefix(name, vrf, path) : this[kind](name, `${path}.${kind}`);
  }
  rack(name: string, path: string): string | null {
    return (
      this.staging.network.findOne('rackByName', name.toLowerCase())?.id ?? this.told('rack', name, path)
    );
  }
  schedule(name: string, path: string): string | null {
    const found = [...this.staging.network.all('schedule')].find(
      (schedule) => schedule.name.toLowerCase() === name.toLowerCase(),
    );
    return found?.id ?? this.told('schedule', name, path);
  }
  sheet(name: string, path: string): string | null {
    const found = [...this.staging.network.all('sheet')].find(
      (sheet) => sheet.name.toLowerCase() === name.toLowerCase(),
    );
    return found?.id ?? this.told('sheet', name, path);
  }
}

/** The one thing that an entry names; a problem where it names none, or several. */
function onlyOne<K extends string>(
  staging: Staging,
  names: Readonly<Record<K, string | null | undefined>>,
  path: string,
): { kind: K; name: string } | null {
  const kinds = keysOf<K>(names);
  const given = kinds.flatMap((kind) => {
    const name = names[kind];
    return name === null || name === undefined ? [] : [{ kind, name }];
  });
  const [only] = given;
  if (only !== undefined && given.length === 1) return only;
  const words = `${kinds.slice(0, -1).join(', ')} or ${kinds.at(-1) ?? ''}`;
  staging.problem(
    path,
    given.length === 0
      ? `Nothing is named. Give a ${words}.`
      : `${given.map(({ kind }) => kind).join(' and ')} are both given. Keep one of them.`,
  );
  return null;
}

function readPositions(staging: Staging, find: Finder, entry: SheetEntry, sheetId: string, at: string): void {
  const items = new Map(
    staging.network.find('sheetItemsBySheet', sheetId).map((item) => [item.subjectId, item]),
  );
  (entry.positions ?? []).forEach(({ device, place, circuit, prefix, vrf, ...spot }, which) => {
    const path = `${at}.positions[${which}]`;
    const meant = onlyOne(staging, { device, place, circuit, prefix }, path);
    if (meant === null) return;
    const subjectId =
      meant.kind === 'place'
        ? ensurePlace(staging, meant.name, `${path}.place`)
        : find.line(meant.kind, meant.name, vrf, path);
    if (subjectId === null) return;
    const existing = items.get(subjectId);
    staging.put(
      'sheetItem',
      {
        ...blankSheetItem,
        ...existing,
        ...spot,
        subjectKind: meant.kind,
        subjectId,
        id: existing?.id ?? newId(),
        sheetId,
      },
      path,
    );
  });
}

function readLines(staging: Staging, find: Finder, entry: SheetEntry, sheetId: string, at: string): void {
  const there = new Map(
    staging.network.find('sheetLinksBySheet', sheetId).map((link) => [link.subjectId, link]),
  );
  (entry.links ?? []).forEach(({ cable, circuit, prefix, vrf, ...wish }, which) => {
    const path = `${at}.links[${which}]`;
    const meant = onlyOne(staging, { cable, circuit, prefix }, path);
    const subjectId = meant === null ? null : find.line(meant.kind, meant.name, vrf, path);
    if (meant === null || subjectId === null) return;
    const existing = there.get(subjectId);
    staging.put(
      'sheetLink',
      {
        ...blankSheetLink,
        ...existing,
        ...wish,
        subjectKind: meant.kind,
        subjectId,
        id: existing?.id ?? newId(),
        sheetId,
      },
      path,
    );
  });
}

/** The marks of a sheet: those of the file stand in place of those that are there. */
function readMarks(
  staging: Staging,
  find: Finder,
  entry: SheetEntry,
  { id: sheetId, markIds }: { id: string; markIds: readonly string[] },
  at: string,
): void {
  (entry.marks ?? []).forEach(({ device, aRack, bRack, schedule, linkSheet, ...mark }, which) => {
    const path = `${at}.marks[${which}]`;
    staging.put(
      'mark',
      {
        ...blankMark,
        ...mark,
        deviceId: device == null ? null : find.device(device, `${path}.device`),
        aRackId: aRack == null ? null : find.rack(aRack, `${path}.aRack`),
        bRackId: bRack == null ? null : find.rack(bRack, `${path}.bRack`),
        scheduleId: schedule == null ? null : find.schedule(schedule, `${path}.schedule`),
        linkSheetId: linkSheet == null ? null : find.sheet(linkSheet, `${path}.linkSheet`),
        id: markIds[which] ?? newId(),
        sheetId,
      },
      path,
    );
  });
}

function groupsOf(
  find: Finder,
  entry: SheetEntry,
  before: readonly SheetGroup[],
  markIds: readonly string[],
  at: string,
): SheetGroup[] {
  return (entry.groups ?? []).map((group, which) => {
    const path = `${at}.groups[${which}]`;
    const members = [
      ...(group.devices ?? []).map((name, n) => find.device(name, `${path}.devices[${n}]`)),
      ...(group.marks ?? []).map((number) => markIds[number] ?? null),
    ];
    return {
      id: before.find((one) => one.name.toLowerCase() === group.name.toLowerCase())?.id ?? newId(),
      name: group.name,
      state: group.state ?? 'shown',
      members: members.filter((member) => member !== null),
    };
  });
}

/** What is drawn as one plate; nothing where the file does not say it. */
function gatheredOf(find: Finder, entry: SheetEntry, at: string): { gathered?: string[][] } {
  if (entry.gathered === undefined) return {};
  const lists = entry.gathered.map((names, which) =>
    names.flatMap((name, n) => find.device(name, `${at}.gathered[${which}][${n}]`) ?? []),
  );
  return { gathered: lists.filter((list) => list.length > 1) };
}

/** How bundles are drawn; nothing where the file does not say it. */
function bundlesOf(find: Finder, entry: SheetEntry, at: string): { bundles?: Sheet['reading']['bundles'] } {
  if (entry.bundles === undefined) return {};
  const own = (entry.bundles.own ?? []).flatMap(({ device, ...one }, which) => {
    const deviceId = find.device(device, `${at}.bundles.own[${which}].device`);
    return deviceId === null ? [] : [{ deviceId, ...one }];
  });
  return { bundles: { drawn: entry.bundles.drawn ?? 'closed', own } };
}

/** Sheets by name, with what a person did on them. Sheets first, so that marks can lead from one to another. */
export function readSheets(staging: Staging, file: ExchangeFile): void {
  const find = new Finder(staging);
  const made = (file.sheets ?? []).map((entry, index) => {
    const at = `$.sheets[${index}]`;
    const existing = [...staging.network.all('sheet')].find(
      (sheet) => sheet.name.toLowerCase() === entry.name.toLowerCase(),
    );
    const id = existing?.id ?? newId();
    const there = staging.network.find('marksBySheet', id).sort((a, b) => (a.id < b.id ? -1 : 1));
    const markIds = (entry.marks ?? []).map((_mark, which) => there[which]?.id ?? newId());
    const own = given(entry, [
      'scope',
      'vlan',
      'vrf',
      'positions',
      'links',
      'marks',
      'groups',
      'gathered',
      'bundles',
      'reading',
      'page',
    ]);
    staging.put(
      'sheet',
      {
        ...blankSheet,
        ...existing,
        ...own,
        id,
        name: entry.name,
        scopeId: entry.scope ? ensurePlace(staging, entry.scope, `${at}.scope`) : null,
        vlanId: vlanNamed(staging, entry.vlan, `${at}.vlan`)?.id ?? null,
        vrfId: vrfNamed(staging, entry.vrf, `${at}.vrf`),
        show: entry.show ?? existing?.show ?? [...projectionNatures[entry.projection ?? 'cabling'].usual],
        reading: {
          ...(existing?.reading ?? plainReading),
          ...entry.reading,
          ...gatheredOf(find, entry, at),
          ...bundlesOf(find, entry, at),
        },
        page: { ...(existing?.page ?? plainPage), ...entry.page },
        groups:
          entry.groups === undefined
            ? (existing?.groups ?? [])
            : groupsOf(find, entry, existing?.groups ?? [], markIds, at),
      },
      at,
    );
    return { id, markIds };
  });
  (file.sheets ?? []).forEach((entry, index) => {
    const at = `$.sheets[${index}]`;
    const sheet = made[index] ?? { id: '', markIds: [] };
    readPositions(staging, find, entry, sheet.id, at);
    readLines(staging, find, entry, sheet.id, at);
    readMarks(staging, find, entry, sheet, at);
  });
}
