import { applyChanges } from '../../change/apply.ts';
import { create, update, type Change } from '../../change/change.ts';
import {
  blankPlace,
  placeKinds,
  premisesKinds,
  type Place,
  type PlaceKind,
} from '../../model/kinds/sites/place.ts';
import { blankRack, type Rack } from '../../model/kinds/sites/rack.ts';
import { Wrong } from '../../exchange/listRows.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { isOneOf, keysOf } from '../../model/values/words.ts';

/** One row of a list of places and racks: what it comes to, or why it cannot be taken. */
export interface RowResult {
  /** Number of the row in the sheet, the heading being row 1. */
  row: number;
  what: string;
  does: 'adds' | 'changes' | 'nothing' | 'wrong';
  problem: string | null;
}
export interface RowsRead {
  results: RowResult[];
  /** The changes of the good rows, made together. */
  changes: Change[];
  sentence: string;
  /** Why nothing of the sheet can be read, such as a missing heading. */
  problem: string | null;
}

/** Headings that are understood, by the field they fill; compared without regard to case. */
export const placeHeadings = {
  path: ['path', 'place', 'location'],
  kind: ['kind', 'type'],
  code: ['code', 'site code'],
  address: ['address', 'street address'],
  latitude: ['latitude', 'lat'],
  longitude: ['longitude', 'lon', 'long'],
  contacts: ['contacts', 'contact'],
  rack: ['rack', 'cabinet', 'rack name'],
  units: ['units', 'u', 'height', 'rack units'],
  position: ['position', 'pos'],
  massLimitKg: ['mass limit', 'mass limit (kg)', 'max kg'],
  notes: ['notes', 'remarks'],
} as const;
type Heading = keyof typeof placeHeadings;
const headingNames = keysOf<Heading>(placeHeadings);

function headings(row: readonly string[]): Partial<Record<Heading, number>> {
  const found: Partial<Record<Heading, number>> = {};
  row.forEach((cell, column) => {
    const text = cell.trim().toLowerCase();
    const heading = headingNames.find((name) => isOneOf(placeHeadings[name], text));
    if (heading !== undefined && found[heading] === undefined) found[heading] = column;
  });
  return found;
}

const numberIn = (text: string, label: string): number => {
  const value = Number(text.replace(',', '.'));
  if (!Number.isFinite(value)) throw new Wrong(`${label} “${text}” is not a number`);
  return value;
};

/** Reads rows one by one onto a network; a row that fails leaves no trace. */
class Reader {
  private network: Network;
  readonly changes: Change[] = [];

  constructor(
    base: Network,
    private readonly columns: Partial<Record<Heading, number>>,
  ) {
    this.network = base;
  }

  read(cells: readonly string[]): { what: string; does: RowResult['does'] } {
    const text = (heading: Heading): string => cells[this.columns[heading] ?? -1]?.trim() ?? '';
    const path = text('path');
    if (path === '') throw new Wrong('The path of the place is missing');
    const changes: Change[] = [];
    const isRack = text('rack') !== '';
    const placeId = this.place(path, isRack ? null : text, changes);
    if (isRack) this.rack(text, placeId, changes);
    const made = mergeById(changes);
    const applied = applyChanges(this.network, made);
    if (!applied.ok) throw new Wrong(applied.problems[0]?.message.replace(/\.$/, '') ?? 'It cannot be taken');
    this.network = applied.network;
    this.changes.push(...made);
    const adds = made.some((change) => change.op === 'create');
    return {
      what: isRack ? `rack ${text('rack')} in ${path}` : `place ${path}`,
      does: adds ? 'adds' : made.length > 0 ? 'changes' : 'nothing',
    };
  }

  private place(path: string, text: ((heading: Heading) => string) | null, changes: Change[]): string {
    const names = path.split('/').map((name) => name.trim());
    if (names.includes('')) throw new Wrong(`The path “${path}” has an empty name in it`);
    let parentId: string | null = null;
    let parentRank = -1;
    for (const [depth, name] of names.entries()) {
      const found: Place | undefined = this.network
        .find('placesByParent', parentId ?? 'root')
        .find((place) => place.name.toLowerCase() === name.toLowerCase());
      const given = depth === names.length - 1 && text !== null ? this.facts(text) : {};
      const kind: PlaceKind =
        given.kind ??
        found?.kind ??
        premisesKinds[Math.min(Math.max(parentRank + 1, depth === 0 ? 0 : 1), 3)] ??
        'room';
      if (found === undefined) {
        const row: Place = { ...blankPlace, ...given, id: newId(), name, kind, parentId };
        changes.push(create('place', row));
        parentId = row.id;
      } else {
        const change = update('place', found, given);
        if (change !== null) changes.push(change);
        parentId = found.id;
      }
      parentRank = premisesKinds.findIndex((one) => one === kind);
    }
    return parentId ?? '';
  }

  private facts(text: (heading: Heading) => string): Partial<Omit<Place, 'id' | 'name' | 'parentId'>> {
    const facts: Partial<Omit<Place, 'id' | 'name' | 'parentId'>> = {};
    const kind = text('kind').toLowerCase();
    if (kind !== '') {
      const known = placeKinds.find((one) => one === kind);
      if (known === undefined) throw new Wrong(`Kind “${text('kind')}” is not ${placeKinds.join(', ')}`);
      facts.kind = known;
    }
    if (text('code') !== '') facts.code = text('code');
    if (text('address') !== '') facts.address = text('address');
    if (text('contacts') !== '') facts.contacts = text('contacts');
    if (text('notes') !== '') facts.notes = text('notes');
    if (text('latitude') !== '') facts.latitude = numberIn(text('latitude'), 'Latitude');
    if (text('longitude') !== '') facts.longitude = numberIn(text('longitude'), 'Longitude');
    return facts;
  }

  private rack(text: (heading: Heading) => string, placeId: string, changes: Change[]): void {
    const name = text('rack');
    const existing = this.network.findOne('rackByName', name.toLowerCase());
    const given: Partial<Rack> = {};
    if (text('units') !== '') given.units = numberIn(text('units'), 'Units');
    if (text('position') !== '') given.position = numberIn(text('position'), 'Position');
    if (text('massLimitKg') !== '') given.massLimitKg = numberIn(text('massLimitKg'), 'Mass limit');
    if (text('notes') !== '') given.notes = text('notes');
    if (existing !== null) {
      const change = update('rack', existing, { ...given, placeId });
      if (change !== null) changes.push(change);
      return;
    }
    const neighbours = this.network.find('racksByPlace', placeId);
    const position = Math.max(0, ...neighbours.map((rack) => rack.position)) + 1;
    changes.push(create('rack', { ...blankRack, position, ...given, id: newId(), name, placeId }));
  }
}

/** A place made and then described in one row is one change. */
export function mergeById(changes: Change[]): Change[] {
  return changes.filter((change, at) => changes.findIndex((other) => other.id === change.id) === at);
}

/**
 * Reads a list of places and racks, as from a spreadsheet: the first row holds headings, every other a place, or a
 * rack in a place. Every row is told what it comes to; rows that are wrong leave the good ones standing.
 */
export function readPlaceRows(network: Network, rows: readonly (readonly string[])[]): RowsRead {
  const [first = [], ...rest] = rows;
  const columns = headings(first);
  const nothing = { results: [], changes: [], sentence: '' };
  if (columns.path === undefined)
    return {
      ...nothing,
      problem: `The first row must hold headings, among them “Path”. It holds: ${
        first
          .filter((cell) => cell.trim() !== '')
          .slice(0, 8)
          .join(', ') || 'nothing'
      }.`,
    };
  const reader = new Reader(network, columns);
  const results: RowResult[] = [];
  rest.forEach((cells, at) => {
    if (cells.every((cell) => cell.trim() === '')) return;
    const row = at + 2;
    try {
      results.push({ row, ...reader.read(cells), problem: null });
    } catch (error) {
      if (!(error instanceof Wrong)) throw error;
      const what = cells[columns.rack ?? -1]?.trim() || cells[columns.path ?? -1]?.trim() || 'row';
      results.push({ row, what, does: 'wrong', problem: error.message });
    }
  });
  const added = results.filter((result) => result.does === 'adds').length;
  const changed = results.filter((result) => result.does === 'changes').length;
  return {
    results,
    changes: reader.changes,
    sentence: `Imported places and racks: ${added} added, ${changed} changed`,
    problem: results.length === 0 ? 'There are no rows below the headings.' : null,
  };
}
