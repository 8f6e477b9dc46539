import { update } from '../../change/change.ts';
import type { Subject } from '../../change/removal.ts';
import { judged } from '../../commands/attempt.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { cableAt } from '../../model/network/ports.ts';
import { disagree, settingsOf, votes } from '../bridgeRank.ts';
import { bridgeName, vlanText, bridgePortText, type Bridge, type BridgePort } from '../bridges.ts';
import { layer2Of, layer2Reads, type BridgeLink, type Layer2 } from '../layer2.ts';
import { linksOfVlan, spanningTree } from '../spanningTree.ts';
import { defineRule, type Evidence, type Rule } from '../../check/finding.ts';

const plugged = ({ members, port }: BridgePort): Subject => ({ kind: 'port', id: (members[0] ?? port).id });
const subjects = ({ a, b }: BridgeLink): Subject[] => [plugged(a), plugged(b)];
/** The ports that the ends of a link are set on, and one that is plugged. */
const ends = ({ a, b, memberId }: BridgeLink): { a: string; b: string; memberId: string } => ({
  a: a.port.id,
  b: b.port.id,
  memberId,
});
const byCable = (network: Network, memberId: string): string => {
  const cable = cableAt(network, memberId);
  return cable === null ? '' : ` by ${cable.label}`;
};
const firstOf = (bridge: Bridge): string | null => bridge.devices[0]?.id ?? null;

/** A cable from a switch back to itself, through panels as well. */
export const switchToItself = defineRule({
  key: 'switch-to-itself',
  title: 'Switches that are joined to themselves',
  why: 'A frame that leaves by one port and comes in by another goes round for ever where no spanning tree blocks it.',
  standard: 'IEEE 802.1Q, 13',
  reads: layer2Reads,
  find: (network) => {
    const layer2 = layer2Of(network);
    return layer2.links
      .filter(({ a, b }) => a.bridge === b.bridge && a.bridge.form === 'switch')
      .map((link) => {
        const held = votes(link.a.bridge);
        const blocked = held ? spanningTree(layer2, link.a.bridge, 0)?.blocked.get(link.key) : undefined;
        return {
          severity: held ? ('warn' as const) : ('bad' as const),
          subjects: subjects(link),
          facts: { ...ends(link), held, blocks: (blocked ?? link.b).port.id },
        };
      });
  },
  says: ({ a, b, memberId, held, blocks }, network) => {
    const then = held
      ? `${bridgePortText(network, blocks)} blocks as the backup port, and the link carries nothing`
      : 'nothing blocks it, since its spanning tree is off: frames go round for ever';
    return `${bridgePortText(network, a)} is joined to ${bridgePortText(network, b)}${byCable(network, memberId)}, a port of the same switch: ${then}. Take the cable out, or plug it into the switch that was meant.`;
  },
});

const modeText = (settings: Device['spanningTree']): string => {
  if (settings === null) return 'does not say which trees it keeps';
  if (settings.mode === 'one') return 'keeps one tree for all VLANs';
  if (settings.mode === 'per VLAN') return 'keeps a tree for each VLAN';
  return `keeps instances${settings.region === null ? '' : ` of region ${settings.region}`}`;
};
/** Which trees a bridge keeps, in words: of the device that says so. */
const keepsText = (network: Network, deviceId: string | null): string => {
  const device = network.get('device', deviceId);
  return device === null ? '' : `${bridgeName(device)} ${modeText(device.spanningTree)}`;
};
const saying = (bridge: Bridge): string | null =>
  (bridge.devices.find((device) => device.spanningTree !== null) ?? bridge.devices[0])?.id ?? null;

/** Neighbours that keep different kinds of trees understand the common tree alone (IEEE 802.1Q-2022 clause 13.5). */
export const treesDisagree = defineRule({
  key: 'spanning-tree-mixed',
  title: 'Neighbours whose spanning trees are of different kinds',
  why: 'Neighbours of different kinds see each other as one instance, or not at all: what blocks is then not what was planned.',
  standard: 'IEEE 802.1Q, 13',
  reads: layer2Reads,
  find: (network) =>
    layer2Of(network)
      .links.filter(
        ({ a, b }) =>
          votes(a.bridge) &&
          votes(b.bridge) &&
          settingsOf(a.bridge) !== null &&
          settingsOf(b.bridge) !== null &&
          disagree([a.bridge, b.bridge]),
      )
      .map((link) => ({
        severity: 'warn' as const,
        subjects: subjects(link),
        facts: { ...ends(link), aDeviceId: saying(link.a.bridge), bDeviceId: saying(link.b.bridge) },
      })),
  says: ({ a, b, aDeviceId, bDeviceId }, network) =>
    `${keepsText(network, aDeviceId)}, ${keepsText(network, bDeviceId)}: between ${bridgePortText(network, a)} and ${bridgePortText(network, b)} they agree on the common tree alone. Set both alike, instances with the same region and VLANs.`,
});

/** An edge port forwards at once, which makes a loop for a moment where a switch is behind it. */
export const edgeFacesSwitch = defineRule({
  key: 'edge-port-to-switch',
  title: 'Edge ports with a switch behind them',
  why: 'An edge port forwards at once: with a switch behind it there is a loop until the tree has found it.',
  standard: 'IEEE 802.1Q, 13',
  reads: layer2Reads,
  find: (network) =>
    layer2Of(network).links.flatMap((link) =>
      [
        { at: link.a, far: link.b },
        { at: link.b, far: link.a },
      ].flatMap(({ at, far }) =>
        at.port.spanningTree?.edge !== true || far.bridge.form !== 'switch'
          ? []
          : [
              {
                severity: 'warn' as const,
                subjects: [plugged(at), plugged(far)],
                facts: { at: at.port.id, far: far.port.id, deviceId: firstOf(far.bridge) },
              },
            ],
      ),
    ),
  says: ({ at, far, deviceId }, network) => {
    const device = network.get('device', deviceId);
    return `${bridgePortText(network, at)} is an edge port, but the switch ${device === null ? '' : bridgeName(device)} is behind it at ${bridgePortText(network, far)}: it forwards before the tree has settled. Take the edge setting off.`;
  },
  mends: ({ at }, network) => {
    const port = network.get('port', at);
    if (port === null || port.spanningTree === null) return [];
    const { cost, priority } = port.spanningTree;
    const spanningTree = cost === null && priority === null ? null : { cost, priority, edge: false };
    return [
      {
        wish: `Take the edge setting off ${bridgePortText(network, port.id)}`,
        way: 'Take the edge setting off',
        attempt: judged(
          network,
          [update('port', port, { spanningTree })],
          `Took the edge setting off ${bridgePortText(network, port.id)}`,
        ),
      },
    ];
  },
});

/** Loops of gear that passes everything on, or has its tree off: no bridge is there to open them. */
export const loopUnbroken = defineRule({
  key: 'loop-unbroken',
  title: 'Loops that nothing blocks',
  why: 'Broadcasts in a loop are multiplied until nothing else gets through.',
  standard: 'IEEE 802.1Q, 13',
  reads: layer2Reads,
  find: (network) => {
    const parent = new Map<string, string>();
    const root = (key: string): string => {
      const up = parent.get(key) ?? key;
      return up === key ? key : root(up);
    };
    return layer2Of(network).links.flatMap((link) => {
      const { a, b } = link;
      if (votes(a.bridge) || votes(b.bridge) || a.bridge === b.bridge) return [];
      const [x, y] = [root(a.bridge.key), root(b.bridge.key)];
      parent.set(x, y);
      if (x !== y) return [];
      return [{ severity: 'bad' as const, subjects: subjects(link), facts: ends(link) }];
    });
  },
  says: ({ a, b, memberId }, network) =>
    `${bridgePortText(network, a)} – ${bridgePortText(network, b)}${byCable(network, memberId)} closes a loop in which nothing keeps a spanning tree: frames go round for ever. Switch the spanning tree on, or take the cable out.`,
});

/** Bridges that a VLAN still joins when what its tree blocks is left out, each under one of them. */
function partsLeft(layer2: Layer2, start: Bridge, vid: number, blocked: ReadonlySet<string>): Set<string> {
  const group = new Map<string, string>();
  const root = (key: string): string => {
    const up = group.get(key) ?? key;
    return up === key ? key : root(up);
  };
  for (const { bridge } of layer2.bridgesOfDomain(layer2.domainId(start, vid)))
    group.set(bridge.key, bridge.key);
  for (const { link } of linksOfVlan(layer2, start, vid))
    if (!blocked.has(link.key)) group.set(root(link.a.bridge.key), root(link.b.bridge.key));
  return new Set([...group.keys()].map(root));
}

function cutsOf(layer2: Layer2) {
  const findings: Evidence<{
    numberingId: string | null;
    vid: number;
    instance: number | null;
    blocks: string;
  }>[] = [];
  for (const { bridges } of layer2.domains()) {
    const first = bridges.find(({ bridge }) => votes(bridge));
    if (first === undefined || bridges.length < 2 || settingsOf(first.bridge) === null) continue;
    const tree = spanningTree(layer2, first.bridge, first.vid);
    if (tree === null || tree.of.form === 'vlan' || tree.blocked.size === 0) continue;
    const keys = new Set(tree.blocked.keys());
    if (partsLeft(layer2, first.bridge, first.vid, keys).size < 2) continue;
    const cut = linksOfVlan(layer2, first.bridge, first.vid).find(({ link }) => keys.has(link.key))?.link;
    if (cut === undefined) continue;
    findings.push({
      severity: 'bad',
      subjects: subjects(cut),
      facts: {
        numberingId: first.bridge.numberingId,
        vid: first.vid,
        instance: tree.of.form === 'instance' ? tree.of.instance : null,
        blocks: tree.blocked.get(cut.key)?.port.id ?? '',
      },
    });
  }
  return findings;
}

/** Where one tree serves several VLANs it may block the only link that carries one of them. */
export const cutByTree = defineRule({
  key: 'vlan-cut-by-tree',
  title: 'VLANs whose only link is blocked',
  why: 'The tree does not know that the one link with this VLAN is the one it blocks: its parts lose each other.',
  standard: 'IEEE 802.1Q, 13',
  reads: layer2Reads,
  find: (network) => cutsOf(layer2Of(network)),
  says: ({ numberingId, vid, instance, blocks }, network) =>
    `${vlanText(network, numberingId, vid)} is cut: ${instance === null ? 'the tree for all VLANs' : `instance ${instance}`} blocks ${bridgePortText(network, blocks)}, and no link that forwards carries it. Carry it over the forwarding links too, or map it to an instance of its own.`,
});

export const spanningTreeRules: readonly Rule[] = [
  switchToItself,
  treesDisagree,
  edgeFacesSwitch,
  loopUnbroken,
  cutByTree,
];
