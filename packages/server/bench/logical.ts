/** Part of npm run bench: VLANs over 1,000 switches, and an address plan of 100,000 prefixes and 1,000,000 addresses. */
import {
  findAddress,
  ladderOf,
  nextFreeAddress,
  nextFreePrefix,
  planRows,
  prefixTable,
  prefixTree,
} from '@visograph/core/addressing';
import { applyChanges, create } from '@visograph/core/change';
import {
  blankAddress,
  blankDevice,
  blankPort,
  blankPrefix,
  formatPrefix,
  Network,
  newId,
  newProject,
  parseIp,
  parsePrefix,
  type Address,
  type Cable,
  type Device,
  type IpPrefix,
  type Port,
  type Prefix,
} from '@visograph/core/model';
import { routeTable } from '@visograph/core/routing';
import { Layer2 } from '@visograph/core/switching';
import { routedNetwork, type TestLink } from '../../core/src/testing/testRouting.ts';
import { blankCable } from '../../core/src/model/kinds/lines/cable.ts';
import { at, lookingUp, Report, time } from './figures.ts';

const report = new Report();
const repeated = async (count: number, work: (step: number) => unknown): Promise<number> => {
  const times: number[] = [];
  for (let step = 0; step < count; step++) times.push((await time(() => work(step)))[1]);
  return at(times, 0.95);
};

/** 1,000 switches in a tree with a second uplink each; every trunk carries all of 4,000 VLANs. */
function switches(): Network {
  const devices: Device[] = [];
  const ports: Port[] = [];
  const cables: Cable[] = [];
  const portOf = (device: Device): Port => {
    const port: Port = {
      ...blankPort,
      id: newId(),
      deviceId: device.id,
      name: String(ports.length),
      mode: 'trunk',
      taggedVids: Array.from({ length: 4000 }, (_, vid) => vid + 1),
      speedBps: 1e10,
    };
    ports.push(port);
    return port;
  };
  for (let n = 0; n < 1000; n++) {
    const device: Device = { ...blankDevice, id: newId(), name: `sw-${n}`, role: 'SW' };
    devices.push(device);
    for (const up of n === 0 ? [] : n < 3 ? [0] : [Math.floor((n - 1) / 2), Math.floor((n - 1) / 2) - 1]) {
      const [far, near] = [devices[Math.max(0, up)], device];
      if (far === undefined) continue;
      cables.push({
        ...blankCable,
        id: newId(),
        label: `B-${cables.length}`,
        aPortId: portOf(far).id,
        bPortId: portOf(near).id,
      });
    }
  }
  return Network.of({ project: [newProject('Bench')], device: devices, port: ports, cable: cables });
}

const layered = switches();
const [layer2, layerMs] = await time(() => new Layer2(layered));
report.note(
  `layer-2 domains of 4,000 VLANs on 1,000 switches, ${layer2.links.length} links`,
  layerMs,
  'ms',
  1000,
);
const [, inViewMs] = await time(() =>
  [...layer2.domainIds()].slice(0, 40).map((id) => layer2.bridgesOfDomain(id).length),
);
report.note('  list the domains, with the switches of the 40 in view', inViewMs, 'ms', 500);
const [count, countMs] = await time(() => [...layer2.domains()].length);
report.note(`  all ${count} domains with their switches`, countMs, 'ms', null);

const prefixes: Prefix[] = [
  { ...blankPrefix, id: newId(), prefix: '10.0.0.0/8', role: 'pool' },
  { ...blankPrefix, id: newId(), prefix: '172.16.0.0/12', role: 'pool' },
];
for (let n = 0; prefixes.length < 100_000; n++) {
  if (n % 97 === 5) continue;
  const value = (10n << 24n) + BigInt(n) * 128n;
  prefixes.push({
    ...blankPrefix,
    id: newId(),
    prefix: formatPrefix({ family: 4, value, length: 25 }),
    role: 'transit',
  });
}
const addresses: Address[] = [];
for (let n = 0; addresses.length < 1_000_000; n++) {
  const home = prefixes[2 + (n % (prefixes.length - 2))];
  const base = home === undefined ? null : parsePrefix(home.prefix);
  if (base === null) continue;
  const host = base.value + 1n + BigInt(Math.floor(n / (prefixes.length - 2)));
  const text = `${host >> 24n}.${(host >> 16n) & 255n}.${(host >> 8n) & 255n}.${host & 255n}/25`;
  addresses.push({ ...blankAddress, id: newId(), address: text, use: 'reserved' });
}
const plan = Network.of({ project: [newProject('Bench')], prefix: prefixes, address: addresses });
const [, treeMs] = await time(() => prefixTree(plan, null));
report.note('tree of 100,000 prefixes, built once', treeMs, 'ms', null);
const [, indexMs] = await time(() => {
  plan.find('addressesByBlock', '');
  plan.find('addressesByHost', '');
});
report.note('indexes of 1,000,000 addresses, built once', indexMs, 'ms', 5000);
const pool = prefixes[0];
const subnet = prefixes[5000];
if (pool === undefined || subnet === undefined) throw new Error('no prefixes');
report.note(
  'next free prefix, p95',
  await repeated(500, (n) => nextFreePrefix(plan, pool, 24 + (n % 5))),
  'ms',
  1,
  lookingUp,
);
report.note(
  'next free address, p95',
  await repeated(500, () => nextFreeAddress(plan, subnet)),
  'ms',
  1,
  lookingUp,
);
const places = Array.from({ length: 500 }, (_, n) => parseIp(`10.${n % 90}.${n % 250}.${(n * 7) % 120}`));
report.note(
  'find an address: prefix and who has it, p95',
  await repeated(500, (n) => {
    const ip = places[n];
    return ip === null || ip === undefined ? null : findAddress(plan, ip);
  }),
  'ms',
  1,
  lookingUp,
);
const open: IpPrefix = { family: 4, value: 10n << 24n, length: 8 };
const [, rowsMs] = await time(
  () =>
    prefixTable(plan, planRows(plan, null, { scopeId: null, within: open, filter: '' }).rows.slice(0, 60))
      .rows.length,
);
report.note('plan: what the section asks for when it opens, its first 60 rows', rowsMs, 'ms', 300);
const filtered = (filter: string): number =>
  prefixTable(plan, planRows(plan, null, { scopeId: null, within: open, filter }).rows).rows.length;
const [, firstFoundMs] = await time(() => filtered('10.9'));
report.note(
  '  a filter over 100,000 prefixes, 2,000 rows with their use: the first time',
  firstFoundMs,
  'ms',
  null,
);
report.note(
  '  the same with every further letter, p95',
  await repeated(20, (n) => filtered(`10.${n}`)),
  'ms',
  150,
);
const [, ladderMs] = await time(() => ladderOf(plan, null, { family: 4, value: 10n << 24n, length: 16 }));
report.note('  ladder of one /16 of it', ladderMs, 'ms', null);
let edited = plan;
const carriedMs: number[] = [];
for (let n = 0; n < 20; n++) {
  const added = { ...blankPrefix, id: newId(), prefix: `172.16.${n}.0/24`, role: 'transit' as const };
  const applied = applyChanges(edited, [create('prefix', added)]);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  edited = applied.network;
  carriedMs.push((await time(() => prefixTree(edited, null).size))[1]);
}
report.note(
  '  a prefix added: until the tree of the new network is there, p95',
  at(carriedMs, 0.95),
  'ms',
  5,
);

/** 300 routers in a ring, each linked to the next two, and twenty links across it. */
const links: TestLink[] = [];
for (let n = 0; n < 300; n++) {
  links.push({ a: n, b: (n + 1) % 300, cost: 10 });
  links.push({ a: n, b: (n + 2) % 300, cost: 15 });
  if (n % 15 === 0) links.push({ a: n, b: (n + 150) % 300, cost: 40 });
}
const routed = routedNetwork(300, links);
const vrfId = routed.findOne('vrfByName', 'ops')?.id ?? null;
const [routes, routesMs] = await time(() =>
  [...routed.all('device')].reduce(
    (sum, device) => sum + routeTable(routed, device.id, vrfId).routes.length,
    0,
  ),
);
report.note(
  `route tables of 300 OSPF routers, ${links.length} links, ${routes} routes in all`,
  routesMs,
  'ms',
  2000,
);
report.finish();
process.exit(0);
