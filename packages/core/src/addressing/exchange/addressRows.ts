import { applyChanges } from '../../change/apply.ts';
import { create, update, type Change } from '../../change/change.ts';
import { addPrefixes } from '../commands/allocate.ts';
import { giveAddressText, reserveAddress } from '../commands/interfaces.ts';
import { formatIp, parseIp, parseInterface } from '../../model/values/ip.ts';
import { prefixRoles, type PrefixRole } from '../../model/kinds/logical/prefix.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath } from '../../model/network/places.ts';
import { findPort } from '../../model/network/ports.ts';
import { mergeById, type RowResult, type RowsRead } from '../../places/exchange/placeRows.ts';
import { isOneOf, keysOf } from '../../model/values/words.ts';

/** Headings that are understood, by the field they fill; compared without regard to case. */
export const addressHeadings = {
  prefix: ['prefix', 'network', 'subnet', 'cidr'],
  address: ['address', 'ip', 'ip address', 'host address'],
  vrf: ['vrf', 'routing instance'],
  role: ['role', 'kind', 'type'],
  name: ['name', 'description', 'purpose'],
  vlan: ['vlan', 'vlan id', 'vid'],
  place: ['place', 'site', 'location', 'path'],
  gateway: ['gateway', 'default gateway', 'router'],
  device: ['device', 'host'],
  port: ['port', 'interface'],
  dnsName: ['dns name', 'dns', 'fqdn', 'hostname'],
  notes: ['notes', 'remarks', 'comment'],
} as const;
type Heading = keyof typeof addressHeadings;
const headingNames = keysOf<Heading>(addressHeadings);
type Columns = Partial<Record<Heading, number>>;

function columnsOf(row: readonly string[]): Columns {
  const found: Columns = {};
  row.forEach((cell, column) => {
    const text = cell.trim().toLowerCase();
    const heading = headingNames.find((name) => isOneOf(addressHeadings[name], text));
    if (heading !== undefined && found[heading] === undefined) found[heading] = column;
  });
  return found;
}

type Made = { ok: true; what: string; changes: Change[] } | { ok: false; what: string; why: string };
type Text = (heading: Heading) => string;

function vrfIdOf(network: Network, name: string): string | null | undefined {
  if (name === '' || name.toLowerCase() === 'global') return null;
  return network.findOne('vrfByName', name.toLowerCase())?.id;
}

/** `20`, or `shore/20`: the one VLAN of that number. */
function vlanIdOf(network: Network, text: string): string | null | undefined {
  if (text === '') return null;
  const slash = text.lastIndexOf('/');
  const vlans = [...network.all('vlan')].filter(
    (vlan) =>
      String(vlan.vid) === text.slice(slash + 1).trim() &&
      (slash < 0 ||
        network.get('vlanNumbering', vlan.numberingId)?.name.toLowerCase() ===
          text.slice(0, slash).toLowerCase()),
  );
  return vlans.length === 1 ? vlans[0]?.id : undefined;
}

function placeIdOf(network: Network, text: string): string | null | undefined {
  if (text === '') return null;
  const wanted = text.toLowerCase();
  for (const place of network.all('place'))
    if (place.name.toLowerCase() === wanted || placePath(network, place.id).toLowerCase() === wanted)
      return place.id;
  return undefined;
}

function prefixRow(network: Network, text: Text): Made {
  const prefix = text('prefix');
  const what = `prefix ${prefix}`;
  const no = (why: string): Made => ({ ok: false, what, why });
  const vrfId = vrfIdOf(network, text('vrf'));
  const vlanId = vlanIdOf(network, text('vlan'));
  const placeId = placeIdOf(network, text('place'));
  const role = prefixRoles.find((one) => one === text('role').toLowerCase());
  if (vrfId === undefined) return no(`there is no VRF ${text('vrf')}`);
  if (vlanId === undefined) return no(`there is no one VLAN ${text('vlan')}: write numbering/number`);
  if (placeId === undefined) return no(`there is no place ${text('place')}`);
  if (text('role') !== '' && role === undefined)
    return no(`${text('role')} is no role: write ${prefixRoles.join(', ')}`);
  const gateway = parseIp(text('gateway'));
  if (text('gateway') !== '' && gateway === null) return no(`gateway ${text('gateway')} is no address`);
  const fields: {
    role: PrefixRole;
    vlanId: string | null;
    placeId: string | null;
    gateway: string | null;
    name: string | null;
    notes: string | null;
  } = {
    role: role ?? 'subnet',
    vlanId,
    placeId,
    gateway: gateway === null ? null : formatIp(gateway),
    name: text('name') || null,
    notes: text('notes') || null,
  };
  const there = network.find('prefixesByVrf', vrfId ?? 'global').find((row) => row.prefix === prefix);
  if (there !== undefined) {
    const given = Object.fromEntries(
      Object.entries(fields).filter(
        ([key, value]) => value !== null && (key !== 'role' || role !== undefined),
      ),
    );
    const change = update('prefix', there, given);
    return { ok: true, what, changes: change === null ? [] : [change] };
  }
  const attempt = addPrefixes(network, [{ prefix, vrfId, ...fields }]);
  return attempt.ok ? { ok: true, what, changes: attempt.set.changes } : no(attempt.why.replace(/\.$/, ''));
}

function addressRow(network: Network, text: Text): Made {
  const what = `address ${text('address')}`;
  const no = (why: string): Made => ({ ok: false, what, why });
  const vrfId = vrfIdOf(network, text('vrf'));
  const read = parseInterface(text('address'));
  if (vrfId === undefined) return no(`there is no VRF ${text('vrf')}`);
  if (read === null) return no(`${text('address')} is no address`);
  const dnsName = text('dnsName') || null;
  const notes = text('notes') || null;
  const host = formatIp(read.address);
  const there = network.find('addressesByHost', host).find((row) => row.vrfId === vrfId);
  if (there !== undefined) {
    const change = update('address', there, {
      ...(dnsName === null ? {} : { dnsName }),
      ...(notes === null ? {} : { notes }),
    });
    return { ok: true, what, changes: change === null ? [] : [change] };
  }
  if (text('device') === '') {
    const attempt = reserveAddress(network, host, vrfId, { dnsName, notes });
    return attempt.ok ? { ok: true, what, changes: attempt.set.changes } : no(attempt.why.replace(/\.$/, ''));
  }
  const port = findPort(network, text('device'), text('port'));
  if (port === null) return no(`there is no port ${text('device')} ${text('port')}`);
  const attempt = giveAddressText(network, port, text('address'), vrfId);
  if (!attempt.ok) return no(attempt.why.replace(/\.$/, ''));
  const changes = attempt.set.changes.map((change) =>
    change.kind === 'address' && change.op === 'create'
      ? create('address', { ...change.after, dnsName, notes })
      : change,
  );
  return { ok: true, what, changes };
}

/**
 * Reads a list of prefixes and addresses: a row with an address is one of it, for a port or kept; others are prefixes.
 * Each row is judged with those before it, so that two rows that overlap are told at the second; a row that fails leaves
 * no trace.
 */
export function readAddressRows(base: Network, rows: readonly (readonly string[])[]): RowsRead {
  const columns = columnsOf(rows[0] ?? []);
  const nothing = { results: [], changes: [], sentence: '' };
  if (columns.prefix === undefined && columns.address === undefined)
    return { ...nothing, problem: 'The first row names neither a column Prefix nor a column Address.' };
  let network = base;
  const changes: Change[] = [];
  const results = rows.slice(1).flatMap((cells, at): RowResult[] => {
    const text: Text = (heading) => cells[columns[heading] ?? -1]?.trim() ?? '';
    if (text('prefix') === '' && text('address') === '') return [];
    const made = text('address') === '' ? prefixRow(network, text) : addressRow(network, text);
    const row = at + 2;
    if (!made.ok) return [{ row, what: made.what, does: 'wrong', problem: made.why }];
    const applied = applyChanges(network, made.changes);
    if (!applied.ok) {
      const problem = applied.problems[0]?.message.replace(/\.$/, '') ?? 'It cannot be taken';
      return [{ row, what: made.what, does: 'wrong', problem }];
    }
    network = applied.network;
    changes.push(...made.changes);
    const adds = made.changes.some((change) => change.op === 'create');
    return [
      {
        row,
        what: made.what,
        does: adds ? 'adds' : made.changes.length > 0 ? 'changes' : 'nothing',
        problem: null,
      },
    ];
  });
  const good = results.filter((row) => row.does === 'adds' || row.does === 'changes').length;
  return {
    results,
    changes: mergeById(changes),
    sentence: `Imported ${good} ${good === 1 ? 'row' : 'rows'} of prefixes and addresses`,
    problem: null,
  };
}
