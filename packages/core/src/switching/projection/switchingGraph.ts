import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import { speedText } from '../../model/values/speed.ts';
import type { Network } from '../../model/network/network.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { devicesInScope, placeOfDevice } from '../../model/network/places.ts';
import { firstOf } from '../../model/values/firstOf.ts';
import { pluralOf, roles } from '../../model/values/roles.ts';
import { bridgeKey } from '../bridges.ts';
import { layer2Of, type Layer2 } from '../layer2.ts';
import { handOffs } from '../reach.ts';
import { vlanChips, vrfChip, type Carried, type ChippedText } from '../../sheets/graph/chips.ts';
import { containersOf, mostDevices } from '../../sheets/graph/containers.ts';
import { foldsOf, gatheredIn, pairName } from '../../cabling/projection/folding.ts';
import { litBy, type Lit } from './lit.ts';
import type { Kept, SheetReading } from '../../sheets/graph/reading.ts';
import { sheetsByPlace } from '../../sheets/graph/reading.ts';
import type { Shade } from '../../sheets/graph/shading.ts';
import {
  line,
  nothingTold,
  say,
  sayChips,
  told,
  type Told,
  type ToldLink,
  type ToldNode,
} from '../../sheets/graph/told.ts';
import { switchedLinks, type SwitchedEnd, type SwitchedLink } from './switchingLinks.ts';

/** Radio bridges and media converters only pass frames on, but a person looks for them. */
const placeholders = new Set(['PP', 'PD', 'UP', 'CA']);

/** Hand-offs of a device: for each VRF the VLANs that it takes over from one to another. */
function handOffLines(network: Network, members: readonly Device[]): ChippedText[] {
  const ids = new Set(members.map((device) => device.id));
  const byVrf = new Map<string | null, Set<number>>();
  for (const { deviceId, vrfId, ports } of handOffs(network))
    if (ids.has(deviceId))
      for (const { vid } of ports)
        if (vid !== null) byVrf.set(vrfId, (byVrf.get(vrfId) ?? new Set()).add(vid));
  const nameOf = (id: string | null): string => network.get('vrf', id)?.name ?? '';
  const inOrder = [...byVrf].sort(([a], [b]) => compareNames(nameOf(a), nameOf(b)));
  return inOrder.map(([vrfId, vids]) =>
    vrfChip(network.get('vrf', vrfId), [...vids].sort((a, b) => a - b).join(' ')),
  );
}

interface Grouping {
  /** The plate a device is on. */
  idOf: (device: Device) => string;
}

/** Stacks and pairs as one, end devices alike on one switch folded. */
function grouped(
  network: Network,
  sheet: Sheet,
  devices: readonly Device[],
  links: readonly SwitchedLink[],
): Grouping {
  const stacks = new Map<string, string[]>();
  for (const device of devices) {
    if (device.stack === null) continue;
    const key = bridgeKey(network, device);
    stacks.set(key, [...(stacks.get(key) ?? []), device.id]);
  }
  const folds = foldsOf(
    devices,
    links.map(({ a, b }) => ({ a: { device: a.device }, b: { device: b.device } })),
    (device) => placeOfDevice(network, device),
  );
  const gathered = gatheredIn(sheet, devices);
  const { unfolded } = sheet.reading;
  return {
    idOf: (device) => {
      const stack = device.stack === null ? undefined : stacks.get(bridgeKey(network, device));
      if (stack !== undefined && stack.length > 1) return `pair:${[...stack].sort()[0] ?? ''}`;
      const own = gathered.get(device.id);
      if (own !== undefined) return own;
      const fold = folds.get(device.id);
      if (fold === undefined || unfolded === true || unfolded.includes(fold)) return device.id;
      return fold;
    },
  };
}

function nodeOf(
  network: Network,
  sheet: Sheet,
  id: string,
  members: readonly Device[],
  { within, lit }: { within: ReadonlySet<string>; lit: Lit | null },
): ToldNode {
  const first = firstOf(members);
  const names = members.map((device) => device.name).sort(compareNames);
  const form = id.startsWith('pair:') ? 'pair' : id.startsWith('fold:') ? 'fold' : 'device';
  const name = {
    pair: pairName(names),
    fold: pluralOf(first.role, roles[first.role].label),
    device: first.name,
  };
  const lines =
    form === 'fold'
      ? [line(say(`${names[0] ?? ''} … ${names.at(-1) ?? ''}`, 'names'))]
      : handOffLines(network, members).map((one) => line(sayChips(one, 'vlanTags')));
  return {
    id,
    form,
    deviceIds: members.map((device) => device.id),
    subjects: members.map((device) => device.id),
    role: first.role,
    code: say(first.role),
    name: say(name[form], 'names'),
    lines,
    mostLines: Infinity,
    dim: lit !== null && !members.some((device) => lit.devices.has(device.id)),
    containerId: placeOfDevice(network, first),
    outside: members.every((device) => !within.has(device.id)),
    planned: members.every((device) => device.status === 'planned'),
    retired: members.every((device) => device.status === 'retired'),
    shade: { scale: 'role', family: roles[first.role].family },
    symbol: network.get('model', first.modelId)?.symbol ?? null,
    sheetId: null,
  };
}

/** The one VRF that all VLANs at both ends are of; undefined where they differ or say none. */
function vrfOf(network: Network, { a, b }: SwitchedLink): string | null {
  const vids = [a, b].flatMap(({ carried, numberingId }) =>
    carried.tagged === 'all' ? [] : carried.tagged.map((vid) => `${numberingId ?? ''}/${vid}`),
  );
  const vrfs = new Set(vids.map((key) => network.findOne('vlanByNumber', key)?.vrfId ?? null));
  const [only] = vrfs;
  return vrfs.size === 1 && only != null ? only : null;
}

/** All that go over some ends of one plate together. */
function together(ends: readonly SwitchedEnd[]): Carried {
  const untagged = new Set(ends.map((end) => end.carried.untagged));
  const all = ends.some((end) => end.carried.tagged === 'all');
  const tagged = new Set(ends.flatMap((end) => (end.carried.tagged === 'all' ? [] : end.carried.tagged)));
  const [one] = untagged;
  if (untagged.size > 1) for (const vid of untagged) if (vid !== null) tagged.add(vid);
  return { untagged: untagged.size === 1 ? (one ?? null) : null, tagged: all ? 'all' : [...tagged] };
}

/** Ports of an end in words: the name of an aggregate, or of its port. */
const portsOf = (ends: readonly SwitchedEnd[]): string => {
  const names = [...new Set(ends.map((end) => end.port.name))].sort(compareNames);
  return names.length <= 2 ? names.join(' ') : `${names.length} ports`;
};

function linkOf(
  network: Network,
  sheet: Sheet,
  id: string,
  group: readonly (SwitchedLink & { ids: [string, string] })[],
  lit: Lit | null,
): ToldLink {
  const first = firstOf(group);
  const [a, b] = first.ids;
  const of = first.lines[0] ?? { kind: 'cable' as const, id, label: '' };
  const { unfolded } = sheet.reading;
  const folded = unfolded === true || !unfolded.includes(`tags:${of.id}`);
  const end = (side: 'a' | 'b'): Told => {
    const ends = group.map((link) => link[side]);
    const tags = vlanChips(network, ends[0]?.numberingId ?? null, together(ends), folded);
    return line(say(portsOf(ends), 'portNames'), sayChips(tags, 'vlanTags'));
  };
  const count = group.reduce((sum, link) => sum + link.members, 0);
  const speed = group.reduce<number | null>(
    (sum, link) => (sum === null || link.speedBps === null ? null : sum + link.speedBps),
    0,
  );
  const blockedAt = group.length === 1 ? (lit?.blocked.get(first.key) ?? null) : null;
  const vrf = network.get('vrf', vrfOf(network, first));
  const speeds =
    speed === null || speed <= 0
      ? ''
      : count > 1
        ? `${count} × ${speedText(speed / count)}`
        : speedText(speed);
  const { untagged, tagged } = together(group.map(({ a: one }) => one));
  const vids =
    tagged === 'all'
      ? ('all' as const)
      : [...new Set([...tagged, ...(untagged === null ? [] : [untagged])])].sort((x, y) => x - y);
  return {
    sums: {
      vids,
      ...(speed === null || speed <= 0 ? {} : { speeds: { count, each: speedText(speed / count) } }),
    },
    id,
    of,
    cables: group.flatMap((link) => link.lines),
    a,
    b,
    aPort: end('a'),
    bPort: end('b'),
    ties: [null, null],
    aOrdinal: first.a.port.ordinal,
    medium: first.medium,
    jacket: first.jacket,
    shade: vrf === null ? null : { scale: 'set', index: vrf.colour },
    text: told(say(speeds, 'speeds'), say(count === 1 ? of.label : '', 'cableLabels')),
    management: group.every((link) => link.a.port.role === 'management' || link.b.port.role === 'management'),
    dim: lit !== null && !group.some((link) => lit.links.has(link.key)),
    blocked: blockedAt === null ? null : blockedAt === first.a.at?.key ? 'a' : 'b',
  };
}

/** VLANs whose colours are on the sheet, and the VRFs of links and plates. */
function keyOf(network: Network, layer2: Layer2, links: readonly SwitchedLink[]): SheetReading['colours'] {
  const vlans = new Map<string, { label: string; shade: Shade; order: number }>();
  for (const { a, b } of links)
    for (const { carried, numberingId, at } of [a, b]) {
      const vids =
        carried.tagged === 'all' ? (at === null ? [] : layer2.vidsOf(at.bridge).list()) : carried.tagged;
      for (const vid of [...vids, ...(carried.untagged === null ? [] : [carried.untagged])]) {
        const vlan = network.findOne('vlanByNumber', `${numberingId ?? ''}/${vid}`);
        if (vlan !== null)
          vlans.set(vlan.id, {
            label: `${vlan.vid} ${vlan.name}`,
            shade: { scale: 'set', index: vlan.colour },
            order: vlan.vid,
          });
      }
    }
  return [...vlans.values()]
    .sort((x, y) => x.order - y.order)
    .map(({ label, shade }) => ({ label: say(label, 'vlanTags'), shade }));
}

/**
 * What a switching sheet shows: switches (stacks and pairs as one), what is plugged into them, and the VLANs at each
 * end of what joins them. Panels are passed through; of a VLAN that is chosen its domain is lit, the rest dim.
 */
export function switchingGraph(network: Network, sheet: Sheet, kept: Kept): SheetReading {
  const layer2 = layer2Of(network);
  const away = (id: string): boolean => kept.items.get(id)?.away === true;
  const picked = (): Device[] =>
    [...kept.items.values()].flatMap((item) => network.get('device', item.subjectId) ?? []);
  const wanted = (sheet.picked ? picked() : devicesInScope(network, sheet.scopeId)).filter(
    (device) => !placeholders.has(device.role),
  );
  const inScope = new Set(wanted.filter((device) => !away(device.id)).map((device) => device.id));
  const asEntry = ({ id, name, role }: Device): SheetReading['away'][number] => ({ id, name, role });
  const gone = wanted
    .filter((device) => away(device.id))
    .sort(byName)
    .map(asEntry);
  const none = { shades: [], linkShades: [], waiting: [], away: gone };
  if (inScope.size > mostDevices) return { ...none, graph: nothingTold(), tooMany: inScope.size };
  const links = switchedLinks(network, layer2).filter(
    ({ a, b }) =>
      (inScope.has(a.device.id) || inScope.has(b.device.id)) &&
      !away(a.device.id) &&
      !away(b.device.id) &&
      (!sheet.picked || (inScope.has(a.device.id) && inScope.has(b.device.id))),
  );
  const devices = new Map<string, Device>();
  for (const { a, b } of links)
    for (const { device, at } of [a, b])
      for (const one of at?.bridge.devices ?? [device]) if (!away(one.id)) devices.set(one.id, one);
  // A switch on which nothing is set yet is there to be joined to others.
  for (const device of wanted)
    if (device.role === 'SW' && inScope.has(device.id)) devices.set(device.id, device);
  const all = [...devices.values()].sort(byName);
  const { idOf } = grouped(network, sheet, all, links);
  const lit = litBy(network, layer2, network.get('vlan', sheet.vlanId));
  const members = new Map<string, Device[]>();
  for (const device of all) members.set(idOf(device), [...(members.get(idOf(device)) ?? []), device]);
  const nodes = [...members].map(([id, group]) =>
    nodeOf(network, sheet, id, group, { within: inScope, lit }),
  );
  const bundles = new Map<string, (SwitchedLink & { ids: [string, string] })[]>();
  for (const link of links) {
    const ids: [string, string] = [idOf(link.a.device), idOf(link.b.device)];
    if (ids[0] === ids[1]) continue;
    // What is folded is the B end of all that leads to it.
    const turned: SwitchedLink & { ids: [string, string] } = ids[0].startsWith('fold:')
      ? { ...link, a: link.b, b: link.a, ids: [ids[1], ids[0]] }
      : { ...link, ids };
    const key = ids.some((id) => id.startsWith('fold:')) ? turned.ids.join(' ') : link.key;
    bundles.set(key, [...(bundles.get(key) ?? []), turned]);
  }
  const own = sheetsByPlace(network, sheet.id);
  return {
    ...none,
    graph: {
      nodes,
      links: [...bundles].map(([id, group]) => linkOf(network, sheet, id, group, lit)),
      stubs: [],
      containers: containersOf(network, sheet, nodes, own),
    },
    colours: keyOf(network, layer2, links),
    tooMany: null,
  };
}
