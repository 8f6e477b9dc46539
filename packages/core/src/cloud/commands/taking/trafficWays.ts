import { create, remove, update } from '../../../change/change.ts';
import { protocols } from '../../../model/kinds/cloud/ports.ts';
import { verdicts } from '../../../model/kinds/cloud/providerProfile.ts';
import { blankCloudRoute } from '../../../model/kinds/cloud/routeTable.ts';
import { blankTrafficRule, ruleDirections } from '../../../model/kinds/cloud/ruleSet.ts';
import { newId } from '../../../model/values/ids.ts';
import { rulesOf } from '../../rules/letsPass.ts';
import { missing, oneOf, type Taking, type Ways } from './taking.ts';

function targetOf(taking: Taking, text: string) {
  const none = { gatewayId: null, peeringId: null, portId: null, attachmentId: null, discard: false };
  if (text === 'nowhere') return { ...none, discard: true };
  const [by, ...rest] = text.split(' ');
  const name = rest.join(' ');
  if (by === 'gateway') return { ...none, gatewayId: taking.device(name).id };
  if (by === 'interface') return { ...none, portId: taking.nic(name).port.id };
  const peering = [...taking.network.all('peering')].find((one) => one.name === name);
  return { ...none, peeringId: (peering ?? missing('The peering', name)).id };
}

function routeParts(taking: Taking, key: string) {
  const { place, rest } = taking.inNetwork(key);
  const table = taking.network
    .find('routeTablesByNetwork', place.id)
    .filter(({ name }) => rest.startsWith(`${name} `))
    .sort((a, b) => b.name.length - a.name.length)[0];
  if (table === undefined) return missing('The route table', rest.split(' ')[0] ?? '');
  const to = rest.slice(table.name.length + 1);
  const list = to.startsWith('list ') ? taking.list(to.slice(5)) : null;
  return { table, prefix: list === null ? to : null, listId: list?.id ?? null };
}

function routeAt(taking: Taking, key: string) {
  const { table, prefix, listId } = routeParts(taking, key);
  return (
    taking.network
      .find('cloudRoutesByTable', table.id)
      .find((one) => one.prefix === prefix && one.listId === listId) ?? missing('The route', key)
  );
}

function ruleParts(taking: Taking, key: string) {
  const { place, rest } = taking.inNetwork(key.replace(/ \(\d+\)$/, ''));
  const set = taking.network
    .find('ruleSetsByNetwork', place.id)
    .filter(({ name }) => rest.startsWith(`${name} `))
    .sort((a, b) => b.name.length - a.name.length)[0];
  if (set === undefined) return missing('The rule set', rest.split(' ')[0] ?? '');
  const [way = '', says = '', protocol = '', ...more] = rest.slice(set.name.length + 1).split(' ');
  const ported = /^[\d,-]+$/.test(more[0] ?? '');
  const peer = more.slice(ported ? 1 : 0).join(' ');
  return {
    set,
    row: {
      direction: oneOf(ruleDirections, way, 'direction'),
      verdict: oneOf(verdicts, says, 'verdict'),
      protocol: oneOf(protocols, protocol, 'protocol'),
      ports: ported ? (more[0] ?? null) : null,
      prefix: /[.:]/.test(peer) && peer.includes('/') && !peer.startsWith('list ') ? peer : null,
      listId: peer.startsWith('list ') ? taking.list(peer.slice(5)).id : null,
      peerSetId: peer.startsWith('members of ') ? taking.set(place, peer.slice(11)).id : null,
    },
  };
}

/** The rule of a set that says this; of several alike that of the number in the key. */
function ruleLike(taking: Taking, key: string) {
  const { set, row } = ruleParts(taking, key);
  const number = Number(/ \((\d+)\)$/.exec(key)?.[1] ?? 1);
  const alike = rulesOf(taking.network, set.id, row.direction).filter(
    (one) =>
      one.verdict === row.verdict &&
      one.protocol === row.protocol &&
      one.ports === row.ports &&
      one.prefix === row.prefix &&
      one.listId === row.listId &&
      one.peerSetId === row.peerSetId,
  );
  return alike[number - 1] ?? missing('The rule', key);
}

/** What is sent where, and what may pass. */
export const trafficWays = {
  route: {
    added: (taking, key, facts) => {
      const { table, prefix, listId } = routeParts(taking, key);
      return [
        create('cloudRoute', {
          ...blankCloudRoute,
          ...{ id: newId(), tableId: table.id, prefix, listId },
          ...targetOf(taking, facts['through'] ?? ''),
        }),
      ];
    },
    changed: (taking, key, facts) => [
      update('cloudRoute', routeAt(taking, key), targetOf(taking, facts['through'] ?? '')),
    ],
    gone: (taking, key) => [remove('cloudRoute', routeAt(taking, key))],
  },
  rule: {
    added: (taking, key, facts) => {
      const { set, row } = ruleParts(taking, key);
      const last = rulesOf(taking.network, set.id, row.direction).at(-1)?.position ?? 0;
      const position = facts['position'] === undefined ? last + 10 : Number(facts['position']);
      return [
        create('trafficRule', { ...blankTrafficRule, ...row, ...{ id: newId(), setId: set.id, position } }),
      ];
    },
    changed: (taking, key, facts) => [
      update('trafficRule', ruleLike(taking, key), { position: Number(facts['position'] ?? 1) }),
    ],
    gone: (taking, key) => [remove('trafficRule', ruleLike(taking, key))],
  },
} satisfies Record<string, Ways>;
