import { addressesIn, prefixOf, prefixTree, useOf } from '../plan.ts';
import { interfacesOf } from '../../routing/interfaces.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import { compareIp, parseInterface, parsePrefix, type IpPrefix } from '../../model/values/ip.ts';
import { derivedBy, keptOnPaper } from '../../model/network/derived.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { placePath, placesWithin, placeOfDevice } from '../../model/network/places.ts';
import { portTitle } from '../../model/network/ports.ts';
import { table, type ForDevice } from '../../report/parts.ts';
import type { Column, Table } from '../../report/table.ts';

const vrfName = (network: Network, id: string | null): string => network.get('vrf', id)?.name ?? '';

/** Prefixes by VRF and address. With a scope: those of its places, and pools and links that are of none. */
export function prefixesInScope(network: Network, scopeId: string | null): Prefix[] {
  const within = scopeId === null ? null : placesWithin(network, scopeId);
  return [...network.all('prefix')]
    .filter((row) => within === null || (row.placeId !== null && within.has(row.placeId)))
    .map((row) => ({ row, at: parsePrefix(row.prefix) }))
    .sort(
      (a, b) =>
        compareNames(vrfName(network, a.row.vrfId), vrfName(network, b.row.vrfId)) ||
        (a.at === null || b.at === null ? 0 : compareIp(a.at, b.at)),
    )
    .map(({ row }) => row);
}

const prefixColumns: Column[] = [
  { key: 'vrf', label: 'VRF' },
  { key: 'prefix', label: 'Prefix' },
  { key: 'name', label: 'Name' },
  { key: 'role', label: 'Role' },
  { key: 'status', label: 'Status' },
  { key: 'vlan', label: 'VLAN' },
  { key: 'place', label: 'Place' },
  { key: 'gateway', label: 'Gateway' },
  { key: 'taken', label: 'Taken', numeric: true },
  { key: 'use', label: 'In use', numeric: true, unit: '%' },
];

/** Prefixes that a device has an address in. */
const prefixesOfDevice = (network: Network, device: Device): Set<string> =>
  new Set(
    interfacesOf(network, device.id).flatMap((one) =>
      one.addresses.flatMap(({ address }) => prefixOf(network, one.vrfId, address)?.id ?? []),
    ),
  );

/** Every prefix with its VLAN, its gateway, and how full it is; or those that a device has an address in. */
export function prefixSchedule(network: Network, scopeId: string | null, { device }: ForDevice = {}): Table {
  const own = device === undefined ? null : prefixesOfDevice(network, device);
  return prefixTable(
    network,
    prefixesInScope(network, scopeId).filter((row) => own?.has(row.id) !== false),
  );
}

/** These prefixes as rows, in the order given. */
export function prefixTable(network: Network, prefixes: readonly Prefix[]): Table {
  const rows = prefixes.map((row) => {
    const vlan = network.get('vlan', row.vlanId);
    const use = useOf(network, row);
    return {
      id: row.id,
      cells: {
        vrf: vrfName(network, row.vrfId) || null,
        prefix: row.prefix,
        name: row.name,
        role: row.role,
        status: row.status,
        vlan:
          vlan === null ? null : `${network.get('vlanNumbering', vlan.numberingId)?.name ?? ''}/${vlan.vid}`,
        place: placePath(network, row.placeId) || null,
        gateway: row.gateway,
        taken: use.taken,
        use: Math.round(use.share * 1000) / 10,
      },
    };
  });
  return table(prefixColumns, rows);
}

/** More rows of a plan than this are not worked out at once. */
const mostPlanRows = 2000;

export interface PlanWish {
  scopeId: string | null;
  /** The space that is open, whose prefixes come where not all fit. */
  within: IpPrefix | null;
  filter: string;
}

/** The rows of a VRF in the order of their tree, retired ones last, and what all of them say in one text, in lower case. */
interface PlanText {
  rows: readonly Prefix[];
  text: string;
  /** Where what each row says begins in it, and where the last ends. */
  starts: Int32Array;
}

function textOf(network: Network, vrf: string): PlanText {
  const tree = prefixTree(network, vrf === 'global' ? null : vrf);
  const rows: Prefix[] = [];
  const take = (ids: readonly string[]): void => {
    for (const id of ids) {
      const row = network.get('prefix', id);
      if (row !== null) rows.push(row);
    }
  };
  for (const top of tree.children(null)) {
    take(top.ids);
    for (const entry of tree.inside(top.prefix)) take(entry.ids);
  }
  for (const row of network.find('prefixesByVrf', vrf)) if (row.status === 'retired') rows.push(row);
  const starts = new Int32Array(rows.length + 1);
  const parts: string[] = [];
  let at = 0;
  rows.forEach(({ prefix, name, role, gateway }, index) => {
    starts[index] = at;
    const said = `${prefix} ${name ?? ''} ${role} ${gateway ?? ''}\n`.toLowerCase();
    parts.push(said);
    at += said.length;
  });
  starts[rows.length] = at;
  return { rows, text: parts.join(''), starts };
}
const planText = derivedBy(textOf, keptOnPaper);

/** The rows that say these words, in lower case; all of them for none. One search through one text, whatever there is. */
function* saying({ rows, text, starts }: PlanText, words: string): Generator<Prefix> {
  if (words === '') return yield* rows;
  let row = 0;
  for (let at = text.indexOf(words); at >= 0; at = text.indexOf(words, starts[row])) {
    while ((starts[row + 1] ?? Infinity) <= at) row++;
    const found = rows[row++];
    if (found !== undefined) yield found;
  }
}

/**
 * The prefixes of a VRF in the order of their tree, and how many more there are: all where they are few, otherwise those
 * of the space that is open, or the first that contain what is looked for.
 */
export function planRows(
  network: Network,
  vrfId: string | null,
  { scopeId, within, filter }: PlanWish,
): { rows: Prefix[]; more: number } {
  const places = scopeId === null ? null : placesWithin(network, scopeId);
  const words = filter.trim().toLowerCase();
  const fits = (row: Prefix): boolean => places === null || (row.placeId !== null && places.has(row.placeId));
  const tree = prefixTree(network, vrfId);
  const total = tree.size;
  const rows: Prefix[] = [];
  if (total > mostPlanRows && words === '' && places === null && within !== null) {
    const take = (ids: readonly string[]): void => {
      for (const id of ids) {
        const row = network.get('prefix', id);
        if (row !== null && rows.length < mostPlanRows) rows.push(row);
      }
    };
    for (const entry of tree.around(within)) take(entry.ids);
    for (const entry of tree.inside(within)) {
      take(entry.ids);
      if (rows.length >= mostPlanRows) break;
    }
    return { rows, more: total - rows.length };
  }
  let more = 0;
  for (const row of saying(planText(network, vrfId ?? 'global'), words)) {
    if (!fits(row)) continue;
    if (rows.length < mostPlanRows) rows.push(row);
    else more++;
  }
  return { rows, more };
}

const addressColumns: Column[] = [
  { key: 'vrf', label: 'VRF' },
  { key: 'address', label: 'Address' },
  { key: 'prefix', label: 'Prefix' },
  { key: 'device', label: 'Device' },
  { key: 'port', label: 'Port' },
  { key: 'use', label: 'Use' },
  { key: 'dnsName', label: 'DNS name' },
  { key: 'notes', label: 'Notes' },
];

/** Every address with its prefix and who has it. With a scope: those of its devices, and those kept in its prefixes. */
export function addressSchedule(
  network: Network,
  scopeId: string | null,
  { device: only }: ForDevice = {},
): Table {
  const within = scopeId === null ? null : placesWithin(network, scopeId);
  const kept = new Set<string>();
  if (within !== null)
    for (const row of prefixesInScope(network, scopeId)) {
      const prefix = parsePrefix(row.prefix);
      if (prefix === null || row.role === 'pool') continue;
      for (const one of addressesIn(network, row.vrfId, prefix)) if (one.portId === null) kept.add(one.id);
    }
  const rows = [...network.all('address')]
    .filter((row) => {
      if (only !== undefined) return network.get('port', row.portId)?.deviceId === only.id;
      if (within === null || kept.has(row.id)) return true;
      const device = network.get('device', network.get('port', row.portId)?.deviceId ?? null);
      return device !== null && within.has(placeOfDevice(network, device) ?? '');
    })
    .map((row) => ({ row, at: parseInterface(row.address) }))
    .sort(
      (a, b) =>
        compareNames(vrfName(network, a.row.vrfId), vrfName(network, b.row.vrfId)) ||
        (a.at === null || b.at === null ? 0 : compareIp(a.at.address, b.at.address)) ||
        compareNames(portTitle(network, a.row.portId), portTitle(network, b.row.portId)) ||
        compareNames(a.row.address, b.row.address),
    )
    .map(({ row, at }) => {
      const [device, port] = portTitle(network, row.portId).split(':');
      return {
        id: row.id,
        cells: {
          vrf: vrfName(network, row.vrfId) || null,
          address: row.address,
          prefix: at === null ? null : (prefixOf(network, row.vrfId, at.address)?.prefix ?? null),
          device: device === undefined || device === '' ? null : device,
          port: port ?? null,
          use: row.use,
          dnsName: row.dnsName,
          notes: row.notes,
        },
      };
    });
  return table(addressColumns, rows);
}
