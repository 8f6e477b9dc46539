import { create, update } from '../../change/change.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import { blankCloudRoute, type CloudRoute } from '../../model/kinds/cloud/routeTable.ts';
import type { RuleSet, TrafficRule } from '../../model/kinds/cloud/ruleSet.ts';
import { newId } from '../../model/values/ids.ts';
import { formatPrefix, readPrefix } from '../../model/values/ip.ts';
import type { Network } from '../../model/network/network.ts';
import { findPort } from '../../model/network/ports.ts';
import { isOneOf } from '../../model/values/words.ts';
import type { RowsRead } from '../../places/exchange/placeRows.ts';
import { Wrong } from '../../exchange/listRows.ts';
import { addRule, readPeer, readTraffic, ruleSentence } from '../commands/rules.ts';
import { rulesOf } from '../rules/letsPass.ts';
import { readRows, type RowDone, type Text } from './headedRows.ts';
import { tablesOf } from '../commands/tables.ts';

/** Headings of a list of rules, by what they say; compared without regard to case. */
export const ruleHeadings = {
  set: ['rule set', 'set'],
  direction: ['direction', 'way'],
  position: ['position', 'number', 'order'],
  verdict: ['verdict', 'action'],
  traffic: ['traffic', 'service'],
  protocol: ['protocol'],
  ports: ['ports', 'port'],
  peer: ['peer', 'from or to', 'source or destination', 'with'],
  notes: ['notes', 'description', 'remarks'],
} as const;
/** Headings of a list of routes. */
export const routeHeadings = {
  table: ['route table', 'table'],
  destination: ['destination', 'prefix'],
  through: ['through', 'target', 'via'],
  notes: ['notes', 'description', 'remarks'],
} as const;

const directionOf = (text: string): TrafficRule['direction'] | null =>
  isOneOf(['in', 'inward', 'inbound', 'ingress'], text)
    ? 'in'
    : isOneOf(['out', 'outward', 'outbound', 'egress'], text)
      ? 'out'
      : null;
const verdictOfText = (text: string): TrafficRule['verdict'] | null =>
  isOneOf(['', 'allow', 'permit', 'accept'], text)
    ? 'allow'
    : isOneOf(['deny', 'drop', 'reject'], text)
      ? 'deny'
      : null;

/** A message of a reader as the end of a sentence. */
const bare = (why: string): string => why.replace(/\.$/, '');

function ruleRow(network: Network, place: Place, text: Text<typeof ruleHeadings>): RowDone {
  const set: RuleSet | undefined = network
    .find('ruleSetsByNetwork', place.id)
    .find(({ name }) => name.toLowerCase() === text('set').toLowerCase());
  if (set === undefined) throw new Wrong(`${place.name} has no rule set “${text('set')}”`);
  const direction = directionOf(text('direction').toLowerCase());
  if (direction === null) throw new Wrong(`Direction “${text('direction')}” is neither in nor out`);
  const verdict = verdictOfText(text('verdict').toLowerCase());
  if (verdict === null) throw new Wrong(`Verdict “${text('verdict')}” is neither allow nor deny`);
  // What a schedule writes, "https (TCP 443)", is read as well.
  const said = /\(([^)]+)\)/.exec(text('traffic'))?.[1] ?? text('traffic').replace(/ to any port$/, '');
  const traffic = readTraffic(said === '' ? `${text('protocol')} ${text('ports')}`.trim() : said);
  if ('why' in traffic) throw new Wrong(bare(traffic.why));
  const peer = readPeer(network, place.id, text('peer'));
  if ('why' in peer) throw new Wrong(bare(peer.why));
  const wish = { direction, verdict, ...traffic, ...peer, notes: text('notes') || null };
  const position = text('position') === '' ? null : Number(text('position'));
  if (position !== null && (!Number.isInteger(position) || position < 1))
    throw new Wrong(`Position “${text('position')}” is not a whole number from 1 on`);
  const what = `${set.name}: ${ruleSentence(network, wish)}`;
  const there = rulesOf(network, set.id, direction);
  const same = there.find((rule) => (position === null ? sameRule(rule, wish) : rule.position === position));
  if (same !== undefined) return { what, changes: [update('trafficRule', same, wish)] };
  const attempt = addRule(network, set, wish);
  if (!attempt.ok) throw new Wrong(bare(attempt.why));
  const made = attempt.set.changes.map((change) =>
    position !== null && change.op === 'create' && change.kind === 'trafficRule'
      ? create('trafficRule', { ...change.after, position })
      : change,
  );
  return { what, changes: made };
}

/** Whether a rule says the same as is wished, notes left out. */
const sameRule = (rule: TrafficRule, wish: Omit<TrafficRule, 'id' | 'setId' | 'position'>): boolean =>
  (['direction', 'verdict', 'protocol', 'ports', 'prefix', 'listId', 'peerSetId'] as const).every(
    (field) => rule[field] === wish[field],
  );

/** Reads a list of rules of a network, as from a spreadsheet; every row is told what it comes to. */
export const readRuleRows = (
  network: Network,
  place: Place,
  rows: readonly (readonly string[])[],
): RowsRead =>
  readRows(
    network,
    rows,
    ruleHeadings,
    ['set', 'direction'],
    (on, text) => ruleRow(on, place, text),
    (added, changed) => `Imported rules of ${place.name}: ${added} added, ${changed} changed`,
  );

/** Through what somebody means a route to lead: a gateway, a peering, an interface as `device:port`, or nowhere. */
function targetOf(network: Network, text: string): Partial<CloudRoute> | null {
  const word = text.toLowerCase();
  if (isOneOf(['nowhere', 'dropped', 'discard', 'none'], word)) return { discard: true };
  const peering = [...network.all('peering')].find(
    ({ name }) => name.toLowerCase() === word || word.startsWith(`${name.toLowerCase()} to `),
  );
  if (peering !== undefined) return { peeringId: peering.id };
  const [device = '', port] = text.split(':');
  if (port !== undefined) {
    const found = findPort(network, device.trim(), port.trim());
    return found === null ? null : { portId: found.id };
  }
  const gateway = network.findOne('deviceByName', word);
  return gateway === null ? null : { gatewayId: gateway.id };
}

function routeRow(network: Network, place: Place, text: Text<typeof routeHeadings>): RowDone {
  const table = tablesOf(network, place.id).find(
    ({ name }) => name.toLowerCase() === text('table').toLowerCase(),
  );
  if (table === undefined) throw new Wrong(`${place.name} has no route table “${text('table')}”`);
  const what = `${table.name} to ${text('destination')}`;
  const list = [...network.all('prefixList')].find(
    ({ name }) => name.toLowerCase() === text('destination').toLowerCase(),
  );
  const read = readPrefix(text('destination'));
  if (list === undefined && !read.ok)
    throw new Wrong(`“${text('destination')}” ${read.reason}, and no list is called so`);
  // Local routes are there by themselves, and what is learned comes with its gateway.
  if (text('through').toLowerCase() === 'local') return { what, changes: [] };
  const target = targetOf(network, text('through'));
  if (target === null)
    throw new Wrong(`“${text('through')}” is no gateway, peering, interface (device:port), nor nowhere`);
  const leads =
    list === undefined && read.ok ? { prefix: formatPrefix(read.prefix) } : { listId: list?.id ?? null };
  const fresh: CloudRoute = {
    ...{ ...blankCloudRoute, ...leads, ...target },
    ...{ id: newId(), tableId: table.id, notes: text('notes') || null },
  };
  const there = network
    .find('cloudRoutesByTable', table.id)
    .find((one) => one.prefix === fresh.prefix && one.listId === fresh.listId);
  if (there === undefined) return { what, changes: [create('cloudRoute', fresh)] };
  const { id: _id, tableId: _table, ...fields } = fresh;
  return { what, changes: [update('cloudRoute', there, fields)] };
}

/** Reads a list of routes of a network's tables, as from a spreadsheet; every row is told what it comes to. */
export const readRouteRows = (
  network: Network,
  place: Place,
  rows: readonly (readonly string[])[],
): RowsRead =>
  readRows(
    network,
    rows,
    routeHeadings,
    ['table', 'destination', 'through'],
    (on, text) => routeRow(on, place, text),
    (added, changed) => `Imported routes of ${place.name}: ${added} added, ${changed} changed`,
  );
