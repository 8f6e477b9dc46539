import { z } from 'zod';
import { fieldNotes } from '../model/fields/field.ts';
import { newId } from '../model/values/ids.ts';
import {
  isKind,
  kindNames,
  kinds,
  refsOf,
  type Kind,
  type Row,
  anyKind,
  withFields,
} from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import { placePath } from '../model/network/places.ts';
import { portTitle } from '../model/network/ports.ts';
import { given } from './given.ts';
import { inSchemaOrder } from '../model/fields/storage.ts';
import { sparse } from './sparse.ts';
import type { Staging } from './staging.ts';

/**
 * Sections of the file that are read and written by what a kind says of itself: rows by their unique name, fields as
 * they are called, references by the name of the row they lead to.
 */
type Entry = Record<string, unknown>;

export const sectionKinds: readonly (readonly [section: string, kind: Kind])[] = kindNames.flatMap((kind) => {
  const { section, refs } = kinds[kind];
  const split = Object.values(refs).some(({ by }) => by !== undefined);
  if (section !== undefined && split)
    throw new Error(
      `${kind} has a section of the file and a reference to one of several kinds, which needs a reader.`,
    );
  return section === undefined ? [] : [[section, kind] as const];
});

/** The field of a reference as a file calls it: `placeId` is `place`. */
const spoken = (field: string): string => field.replace(/Id$/, '');

/** What a row is called in a file, from outside of it. */
export function titleOf(network: Network, kind: Kind, id: string | null): string | null {
  const row = network.get(kind, id);
  if (row === null || id === null) return null;
  if (kind === 'place') return placePath(network, id);
  if (kind === 'port') return portTitle(network, id);
  if (kind === 'vlan') {
    const vlan = network.get('vlan', id);
    return `${network.get('vlanNumbering', vlan?.numberingId ?? null)?.name ?? ''}/${vlan?.vid ?? ''}`;
  }
  if (kind === 'prefix') {
    const prefix = network.get('prefix', id);
    return `${network.get('vrf', prefix?.vrfId ?? null)?.name ?? ''} ${prefix?.prefix ?? ''}`.trim();
  }
  const { nameOf, titled } = anyKind(kind);
  // What is called by a name that is its own within another thing is called by both.
  return titled === undefined
    ? nameOf(row)
    : titled(row, (of, at) => (isKind(of) ? (titleOf(network, of, at) ?? '') : ''));
}

/** The schema of an entry: its unique fields must be there, all others may be left out. */
function entrySchema(kind: Kind): z.ZodType {
  const { schema, unique } = anyKind(kind);
  const references = new Map(refsOf(kind).map(([field, { to }]) => [field, to]));
  const needed = new Set(unique.slice(0, 1).map(({ what }): string => what));
  const shape: Record<string, z.ZodType> = {};
  for (const [field, type] of Object.entries(schema.shape)) {
    const to = references.get(field);
    const label = fieldNotes.get(type)?.label ?? field;
    if (field === 'id') continue;
    if (to !== undefined)
      shape[spoken(field)] = z.string().max(300).nullable().optional().describe(`${label}: ${kinds[to].one}`);
    else shape[field] = needed.has(field) ? type : type.optional();
  }
  return z.strictObject(shape);
}

/** The sections of kinds for the schema of the file. */
export const sectionSchemas = (): Record<string, z.ZodType> =>
  Object.fromEntries(sectionKinds.map(([section, kind]) => [section, z.array(entrySchema(kind)).optional()]));

/** Rows of a kind by what a file calls them; null where two are called alike. */
export function rowsByTitle(network: Network, kind: Kind): Map<string, string | null> {
  const found = new Map<string, string | null>();
  for (const { id } of network.all(kind)) {
    const title = titleOf(network, kind, id)?.toLowerCase() ?? '';
    found.set(title, found.has(title) ? null : id);
  }
  return found;
}

function readSection(staging: Staging, section: string, kind: Kind, entries: readonly Entry[]): void {
  const references = refsOf(kind);
  const named = new Map<Kind, Map<string, string | null>>();
  const idOf = (to: Kind, text: unknown, path: string): string | null => {
    if (typeof text !== 'string') return null;
    const known = named.get(to) ?? rowsByTitle(staging.network, to);
    named.set(to, known);
    const id = known.get(text.toLowerCase());
    if (id === undefined)
      staging.problem(path, `There is no ${kinds[to].one} “${text}”. Add it, or correct the name.`);
    if (id === null) staging.problem(path, `There are two ${kinds[to].many} “${text}”. Rename one of them.`);
    return id ?? null;
  };
  entries.forEach((entry, index) => {
    const path = `$.${section}[${index}]`;
    const led = references.flatMap(([field, { to }]) => {
      const text = entry[spoken(field)];
      return text === undefined ? [] : [[field, idOf(to, text, `${path}.${spoken(field)}`)] as const];
    });
    const said = {
      ...given(
        entry,
        references.map(([field]) => spoken(field)),
      ),
      ...Object.fromEntries(led),
    };
    const nothing = Object.fromEntries(references.map(([field]) => [field, null]));
    const fresh: Row = inSchemaOrder(kind, { ...nothing, ...kinds[kind].blank, ...said, id: newId() });
    const existing: Row | null = staging.network.get(kind, staging.network.sameKey(kind, fresh, 0));
    staging.put(kind, existing === null ? fresh : withFields(existing, said), path);
    // Rows of a kind may refer to others of it.
    named.delete(kind);
  });
}

const isEntries = (value: unknown): value is Entry[] => Array.isArray(value);

/** Reads the sections of kinds, in the order in which their rows can be created. */
export function readSections(staging: Staging, file: Readonly<Record<string, unknown>>): void {
  for (const [section, kind] of sectionKinds) {
    const entries = file[section];
    if (isEntries(entries)) readSection(staging, section, kind, entries);
  }
}

/** The sections of kinds of which there are rows, by name and with what differs from a blank row. */
export function writeSections(network: Network): Record<string, Entry[]> {
  const written: [string, Entry[]][] = [];
  for (const [section, kind] of sectionKinds) {
    if (network.count(kind) === 0) continue;
    const references = new Map(refsOf(kind).map(([field, { to }]) => [field, to]));
    const entryOf = (row: Row): Entry =>
      sparse(
        Object.fromEntries(
          Object.entries(row).flatMap(([field, value]): [string, unknown][] => {
            const to = references.get(field);
            if (field === 'id') return [];
            if (to === undefined) return [[field, value]];
            return [[spoken(field), titleOf(network, to, typeof value === 'string' ? value : null)]];
          }),
        ),
        { ...kinds[kind].blank },
      );
    // What has no name of its own stands in the order of what it says.
    const rows = [...network.all<Kind>(kind)].map((row) => {
      const entry = entryOf(row);
      return { name: anyKind(kind).nameOf(row), entry, text: JSON.stringify(entry) };
    });
    rows.sort((a, b) => compareNames(a.name, b.name) || compareNames(a.text, b.text));
    written.push([section, rows.map(({ entry }) => entry)]);
  }
  return Object.fromEntries(written);
}
