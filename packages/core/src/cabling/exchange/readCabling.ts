import { blankCable, type Cable } from '../../model/kinds/lines/cable.ts';
import { blankCircuit, type Circuit } from '../../model/kinds/lines/circuit.ts';
import type { Pathway } from '../../model/kinds/sites/pathway.ts';
import { newId } from '../../model/values/ids.ts';
import type { ExchangeFile } from '../../exchange/format.ts';
import { findModel } from '../../catalogue/exchange/findModel.ts';
import { given } from '../../exchange/given.ts';
import { ensurePlace } from '../../places/exchange/readPlace.ts';
import type { Staging } from '../../exchange/staging.ts';

/** The port an end names, as `device:port`; null where it is left open or cannot be found, which is then told. */
function portOf(staging: Staging, text: string | null | undefined, at: string): string | null {
  if (!text) return null;
  const colon = text.indexOf(':');
  const device = staging.network.findOne('deviceByName', text.slice(0, colon).toLowerCase());
  const name = text.slice(colon + 1);
  const port =
    device === null ? null : staging.network.findOne('portByName', `${device.id}:${name.toLowerCase()}`);
  if (colon < 0) staging.problem(at, `“${text}” is not an end: write device:port.`);
  else if (device === null)
    staging.problem(
      at,
      `There is no device “${text.slice(0, colon)}”. Add it under devices, or correct the name.`,
    );
  else if (port === null)
    staging.problem(at, `${device.name} has no port “${name}”. Add it, or correct the name.`);
  return port?.id ?? null;
}

type Entry = NonNullable<ExchangeFile['cables']>[number];

function readLegs(staging: Staging, cable: Cable, entry: Entry, known: boolean, at: string): void {
  for (const [side, field] of [
    ['a', 'aLegs'],
    ['b', 'bLegs'],
  ] as const) {
    const existing = known && entry[field] !== undefined ? staging.network.find('legsByCable', cable.id) : [];
    entry[field]?.forEach((text, index) => {
      const path = `${at}.${field}[${index}]`;
      const portId = portOf(staging, text, path);
      if (portId === null) return;
      const number = index + 2;
      const leg = existing.find((one) => one.side === side && one.number === number);
      staging.put('leg', { id: leg?.id ?? newId(), cableId: cable.id, side, number, portId }, path);
    });
  }
}

export function readCables(staging: Staging, file: ExchangeFile): void {
  const types = new Map<string, string | null>();
  (file.cables ?? []).forEach((entry, index) => {
    const at = `$.cables[${index}]`;
    const existing = staging.network.findOne('cableByLabel', entry.label.toLowerCase());
    if (entry.type && !types.has(entry.type))
      types.set(entry.type, findModel(staging, entry.type, 'cable', `${at}.type`)?.id ?? null);
    const cable: Cable = {
      ...blankCable,
      ...existing,
      ...given(entry, ['type', 'a', 'b', 'aLegs', 'bLegs']),
      id: existing?.id ?? newId(),
      label: entry.label,
    };
    if (entry.type !== undefined) cable.typeId = entry.type === null ? null : (types.get(entry.type) ?? null);
    if (entry.a !== undefined) cable.aPortId = portOf(staging, entry.a, `${at}.a`);
    if (entry.b !== undefined) cable.bPortId = portOf(staging, entry.b, `${at}.b`);
    staging.put('cable', cable, at);
    if (entry.aLegs !== undefined || entry.bLegs !== undefined)
      readLegs(staging, cable, entry, existing !== null, at);
  });
}

export function readCircuits(staging: Staging, file: ExchangeFile): void {
  (file.circuits ?? []).forEach((entry, index) => {
    const at = `$.circuits[${index}]`;
    const existing = staging.network.findOne('circuitByNumber', entry.number.toLowerCase());
    const circuit: Circuit = {
      ...blankCircuit,
      ...existing,
      ...given(entry, ['a', 'b']),
      id: existing?.id ?? newId(),
      number: entry.number,
    };
    if (entry.a !== undefined) circuit.aPortId = portOf(staging, entry.a, `${at}.a`);
    if (entry.b !== undefined) circuit.bPortId = portOf(staging, entry.b, `${at}.b`);
    staging.put('circuit', circuit, at);
  });
}

export function readPathways(staging: Staging, file: ExchangeFile): void {
  (file.pathways ?? []).forEach((entry, index) => {
    const at = `$.pathways[${index}]`;
    const existing = [...staging.network.all('pathway')].find(
      (one) => one.name.toLowerCase() === entry.name.toLowerCase(),
    );
    const aPlaceId = ensurePlace(staging, entry.from, `${at}.from`);
    const bPlaceId = ensurePlace(staging, entry.to, `${at}.to`);
    if (aPlaceId === null || bPlaceId === null) return;
    const pathway: Pathway = {
      kind: 'tray',
      notes: null,
      ...existing,
      ...given(entry, ['from', 'to']),
      name: entry.name,
      lengthM: entry.lengthM,
      id: existing?.id ?? newId(),
      aPlaceId,
      bPlaceId,
    };
    staging.put('pathway', pathway, at);
  });
}
