import { findAddress } from '../addressing/plan.ts';
import { parseIp } from '../model/values/ip.ts';
import type { Prefix } from '../model/kinds/logical/prefix.ts';
import { kindNames, kinds, modelTitle, type Kind, anyKind } from '../model/kinds.ts';
import { rowTitle } from '../model/fields/titles.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import { placePath, whereIs } from '../model/network/places.ts';
import { everyPortOf, filledBy, portTitle } from '../model/network/ports.ts';

export interface Found {
  kind: Kind;
  id: string;
  title: string;
  detail: string;
}

/** 0 equal, 1 begins with, 2 a word begins with, 3 contains; null: no match. */
function closeness(text: string, words: string): number | null {
  const at = text.toLowerCase().indexOf(words);
  if (at < 0) return null;
  if (text.length === words.length) return 0;
  if (at === 0) return 1;
  return /[\s\-./:]/.test(text[at - 1] ?? '') ? 2 : 3;
}

/** Found in a way of their own, in this order; whatever else has a name follows. */
const ownWay: readonly Kind[] = [
  'place',
  'rack',
  'device',
  'sheet',
  'vlan',
  'prefix',
  'cable',
  'circuit',
  'port',
];
/** Kinds whose rows have a name of their own that people would look for. */
const byName = kindNames.filter(
  (kind) => 'name' in kinds[kind].schema.shape && kind !== 'project' && !ownWay.includes(kind),
);
const kindOrder: readonly Kind[] = [...ownWay, ...byName];

function collectPorts(network: Network, words: string, add: (found: Found, close: number) => void): void {
  const parts = /^(\S+?)[\s:]+(.+)$/.exec(words);
  const device = parts === null ? null : network.findOne('deviceByName', parts[1] ?? '');
  if (device === null) return;
  for (const port of everyPortOf(network, device.id)) {
    const close = closeness(port.name, parts?.[2] ?? '');
    if (close === null) continue;
    add(
      {
        kind: 'port',
        id: port.id,
        title: `${device.name} ${port.name}`,
        detail: filledBy(network, port.id) ?? 'free',
      },
      close,
    );
  }
}

/** An address leads to the port that has it and to its prefix; a prefix is found by its text and its name. */
function collectAddresses(network: Network, words: string, add: (found: Found, close: number) => void): void {
  const address = parseIp(words);
  if (address !== null)
    for (const { vrfId, prefix, addresses } of findAddress(network, address)) {
      const vrf = network.get('vrf', vrfId)?.name;
      for (const row of addresses)
        if (row.portId !== null)
          add(
            {
              kind: 'port',
              id: row.portId,
              title: portTitle(network, row.portId).replace(':', ' '),
              detail: `${row.address}${vrf === undefined ? '' : ` in ${vrf}`}`,
            },
            0,
          );
      if (prefix !== null) add(prefixFound(network, prefix), 1);
    }
  if (!/[\d:a-z]/.test(words)) return;
  for (const row of network.all('prefix')) {
    const close = closeness(row.prefix, words) ?? (row.name === null ? null : closeness(row.name, words));
    if (close !== null && close < 3) add(prefixFound(network, row), close + 1);
  }
}

const prefixFound = (network: Network, row: Prefix): Found => ({
  kind: 'prefix',
  id: row.id,
  title: row.prefix,
  detail: [row.name ?? row.role, network.get('vrf', row.vrfId)?.name].filter(Boolean).join(' · '),
});

/**
 * Finds places, racks, devices (by name, serial or model), cables by label, sheets by name, ports as
 * "device port", and whatever else has a name, best match first.
 */
export function findAnything(network: Network, text: string, limit = 12): Found[] {
  const words = text.trim().toLowerCase();
  if (words === '') return [];
  const found: { found: Found; close: number }[] = [];
  const add = (item: Found, close: number): void => void found.push({ found: item, close });
  const test = (item: Found, ...texts: (string | null)[]): void => {
    let best: number | null = null;
    texts.forEach((candidate, at) => {
      const close = candidate === null ? null : closeness(candidate, words);
      if (close !== null && (best === null || close + at < best)) best = close + at;
    });
    if (best !== null) add(item, best);
  };
  for (const place of network.all('place')) {
    test(
      {
        kind: 'place',
        id: place.id,
        title: place.name,
        detail: placePath(network, place.parentId) || place.kind,
      },
      place.name,
      place.code,
    );
  }
  for (const rack of network.all('rack')) {
    test(
      { kind: 'rack', id: rack.id, title: rack.name, detail: placePath(network, rack.placeId) },
      rack.name,
    );
  }
  for (const device of network.all('device')) {
    const model = network.get('model', device.modelId);
    const serial =
      device.serial !== null && device.serial.toLowerCase().includes(words)
        ? ` · serial ${device.serial}`
        : '';
    const item: Found = {
      kind: 'device',
      id: device.id,
      title: device.name,
      detail: whereIs(network, device) + serial,
    };
    test(item, device.name, device.serial, model === null ? null : modelTitle(model));
  }
  for (const cable of network.all('cable')) {
    if (!cable.label.toLowerCase().includes(words)) continue;
    const ends = [cable.aPortId, cable.bPortId].map((id) => portTitle(network, id) || 'open').join(' – ');
    test({ kind: 'cable', id: cable.id, title: cable.label, detail: ends }, cable.label);
  }
  for (const circuit of network.all('circuit'))
    test(
      { kind: 'circuit', id: circuit.id, title: circuit.number, detail: circuit.provider ?? circuit.kind },
      circuit.number,
      circuit.provider,
    );
  for (const sheet of network.all('sheet'))
    test({ kind: 'sheet', id: sheet.id, title: sheet.name, detail: 'sheet' }, sheet.name);
  for (const vlan of network.all('vlan'))
    test(
      {
        kind: 'vlan',
        id: vlan.id,
        title: `VLAN ${vlan.vid} ${vlan.name}`,
        detail: network.get('vlanNumbering', vlan.numberingId)?.name ?? '',
      },
      String(vlan.vid),
      vlan.name,
      `vlan ${vlan.vid}`,
    );
  for (const kind of byName)
    for (const row of network.all(kind)) {
      const name = anyKind(kind).nameOf(row);
      if (name.toLowerCase().includes(words))
        test({ kind, id: row.id, title: rowTitle(network, kind, row), detail: '' }, name);
    }
  collectAddresses(network, words, add);
  collectPorts(network, words, add);
  return found
    .sort(
      (a, b) =>
        a.close - b.close ||
        kindOrder.indexOf(a.found.kind) - kindOrder.indexOf(b.found.kind) ||
        compareNames(a.found.title, b.found.title),
    )
    .slice(0, limit)
    .map((item) => item.found);
}
