import type { ObservedAccount } from '@visograph/core/cloud';

/** One thing that somebody did in the account and told nobody. Gives what it was, or null where there was nothing to do. */
type Step = (account: ObservedAccount, turn: number) => string | null;

const at = <T>(list: readonly T[], turn: number): T | undefined => list[turn % Math.max(1, list.length)];

const steps: readonly Step[] = [
  ({ instances }, turn) => {
    const one = at(
      instances.filter(({ running, role }) => running && role === 'VM'),
      turn,
    );
    if (one === undefined) return null;
    one.running = false;
    return `stopped ${one.name}`;
  },
  ({ rules, ruleSets }, turn) => {
    const set = at(ruleSets, turn);
    if (set === undefined) return null;
    const position = Math.max(
      0,
      ...rules.filter((one) => one.ruleSetId === set.id).map((one) => one.position),
    );
    rules.push({
      ...{ id: `rule-drift-${turn}`, ruleSetId: set.id, position: position + 1, direction: 'in' },
      ...{
        verdict: 'allow',
        protocol: 'TCP',
        ports: '22',
        prefix: null,
        prefixListId: null,
        peerSetId: null,
      },
    });
    return `opened ssh in ${set.name}`;
  },
  ({ routes }, turn) => {
    const gone = at(routes, turn);
    if (gone === undefined) return null;
    routes.splice(routes.indexOf(gone), 1);
    return `removed the route to ${gone.prefix ?? 'a list'}`;
  },
  (account, turn) => {
    const subnet = at(
      account.subnets.filter(({ prefix }) => prefix !== null),
      turn,
    );
    const region = account.networks.find(({ id }) => id === subnet?.networkId)?.region;
    if (subnet?.prefix == null || region === undefined) return null;
    const [base = '', length = ''] = subnet.prefix.split('/');
    const address = `${base.replace(/\d+$/, String(200 + (turn % 50)))}/${length}`;
    const id = `instance-drift-${turn}`;
    const name = `unannounced-${turn}`;
    account.instances.push({
      ...{ id, name, networkId: subnet.networkId, region, role: 'VM', size: null, running: true },
    });
    account.interfaces.push({
      ...{ id: `nic-drift-${turn}`, instanceId: id, name: 'eth0', networkId: subnet.networkId },
      ...{ addresses: [address], ruleSetIds: [] },
    });
    return `started ${name} in ${subnet.name}`;
  },
  ({ instances }, turn) => {
    const one = at(instances, turn);
    if (one === undefined) return null;
    one.size = `${one.size ?? 'plain'}-large`;
    return `made ${one.name} larger`;
  },
  ({ publicAddresses, networks }, turn) => {
    const address = `198.51.100.${10 + (turn % 200)}`;
    if (networks.length === 0) return null;
    if (publicAddresses.some((one) => one.address === address)) return null;
    publicAddresses.push({
      ...{ id: `public-drift-${turn}`, address, region: networks[0]?.region ?? null, stays: 'kept' },
      ...{ interfaceId: null, gatewayId: null },
    });
    return `kept ${address} for nothing`;
  },
  ({ records, zones }, turn) => {
    const zone = at(zones, turn);
    if (zone === undefined) return null;
    const name = `left-${turn}`;
    records.push({
      ...{ id: `record-drift-${turn}`, zoneId: zone.id, name, type: 'A', value: '10.255.255.254', ttlS: 300 },
    });
    return `named ${name} in ${zone.name}`;
  },
  ({ labels }, turn) => {
    const gone = at(labels, turn);
    if (gone === undefined) return null;
    labels.splice(labels.indexOf(gone), 1);
    return `took the label ${gone.key} off`;
  },
];

/**
 * An account after so many things were done in it that nobody documented: the same for the same account and number.
 *
 * @returns the account as it is then, and what was done in words
 */
export function drifted(
  account: ObservedAccount,
  count: number,
): { account: ObservedAccount; done: string[] } {
  const copy = structuredClone(account);
  const done: string[] = [];
  for (let turn = 0; turn < count; turn++) {
    const said = steps[turn % steps.length]?.(copy, turn);
    if (typeof said === 'string') done.push(said);
  }
  return { account: copy, done };
}
