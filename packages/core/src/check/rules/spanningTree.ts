import type { Port } from '../../model/kinds/port.ts';
import type { Network } from '../../model/network.ts';
import { cableAt } from '../../model/ports.ts';
import { disagree, settingsOf, votes } from '../../switching/bridgeRank.ts';
import { vlanText, type Bridge, type BridgePort } from '../../switching/bridges.ts';
import { layer2Of, type BridgeLink, type Layer2 } from '../../switching/layer2.ts';
import { linksOfVlan, spanningTree } from '../../switching/spanningTree.ts';
import type { Finding, Rule } from '../finding.ts';
import { tell } from '../tell.ts';

const plugged = ({ members, port }: BridgePort): Port => members[0] ?? port;
const subjects = ({ a, b }: BridgeLink): { kind: 'port'; row: Port }[] => [
  { kind: 'port', row: plugged(a) },
  { kind: 'port', row: plugged(b) },
];
const byCable = (network: Network, { memberId }: BridgeLink): string => {
  const cable = cableAt(network, memberId);
  return cable === null ? '' : ` by ${cable.label}`;
};

/** A cable from a switch back to itself, through panels as well. */
export const switchToItself: Rule = {
  key: 'switch-to-itself',
  title: 'Switches that are joined to themselves',
  find: (network) =>
    layer2Of(network)
      .links.filter(({ a, b }) => a.bridge === b.bridge && a.bridge.form === 'switch')
      .map((link): Finding => {
        const held = votes(link.a.bridge);
        const [blocked] = held
          ? [...(spanningTree(layer2Of(network), link.a.bridge, 0)?.blocked ?? [])].filter(
              ([key]) => key === link.key,
            )
          : [];
        const then = held
          ? `${blocked?.[1].title ?? link.b.title} blocks as the backup port, and the link carries nothing`
          : 'nothing blocks it, since its spanning tree is off: frames go round for ever';
        return tell(
          network,
          'switch-to-itself',
          held ? 'warn' : 'bad',
          subjects(link),
          `${link.a.title} is joined to ${link.b.title}${byCable(network, link)}, a port of the same switch: ${then}. Take the cable out, or plug it into the switch that was meant.`,
        );
      }),
};

const modeText = (bridge: Bridge): string => {
  const settings = settingsOf(bridge);
  if (settings === null) return 'does not say which trees it keeps';
  if (settings.mode === 'one') return 'keeps one tree for all VLANs';
  if (settings.mode === 'per VLAN') return 'keeps a tree for each VLAN';
  return `keeps instances${settings.region === null ? '' : ` of region ${settings.region}`}`;
};

/** Neighbours that keep different kinds of trees understand the common tree alone (IEEE 802.1Q-2022 clause 13.5). */
export const treesDisagree: Rule = {
  key: 'spanning-tree-mixed',
  title: 'Neighbours whose spanning trees are of different kinds',
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
      .map((link) =>
        tell(
          network,
          'spanning-tree-mixed',
          'warn',
          subjects(link),
          `${link.a.bridge.name} ${modeText(link.a.bridge)}, ${link.b.bridge.name} ${modeText(link.b.bridge)}: between ${link.a.title} and ${link.b.title} they agree on the common tree alone. Set both alike, instances with the same region and VLANs.`,
        ),
      ),
};

/** An edge port forwards at once, which makes a loop for a moment where a switch is behind it. */
export const edgeFacesSwitch: Rule = {
  key: 'edge-port-to-switch',
  title: 'Edge ports with a switch behind them',
  find: (network) =>
    layer2Of(network).links.flatMap((link): Finding[] =>
      [
        { at: link.a, far: link.b },
        { at: link.b, far: link.a },
      ].flatMap(({ at, far }) =>
        at.port.spanningTree?.edge !== true || far.bridge.form !== 'switch'
          ? []
          : [
              tell(
                network,
                'edge-port-to-switch',
                'warn',
                [
                  { kind: 'port', row: plugged(at) },
                  { kind: 'port', row: plugged(far) },
                ],
                `${at.title} is an edge port, but the switch ${far.bridge.name} is behind it at ${far.title}: it forwards before the tree has settled. Take the edge setting off.`,
              ),
            ],
      ),
    ),
};

/** Loops of gear that passes everything on, or has its tree off: no bridge is there to open them. */
export const loopUnbroken: Rule = {
  key: 'loop-unbroken',
  title: 'Loops that nothing blocks',
  find: (network) => {
    const parent = new Map<string, string>();
    const root = (key: string): string => {
      const up = parent.get(key) ?? key;
      return up === key ? key : root(up);
    };
    return layer2Of(network).links.flatMap((link): Finding[] => {
      const { a, b } = link;
      if (votes(a.bridge) || votes(b.bridge) || a.bridge === b.bridge) return [];
      const [x, y] = [root(a.bridge.key), root(b.bridge.key)];
      parent.set(x, y);
      if (x !== y) return [];
      return [
        tell(
          network,
          'loop-unbroken',
          'bad',
          subjects(link),
          `${a.title} – ${b.title}${byCable(network, link)} closes a loop in which nothing keeps a spanning tree: frames go round for ever. Switch the spanning tree on, or take the cable out.`,
        ),
      ];
    });
  },
};

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

/** Where one tree serves several VLANs it may block the only link that carries one of them. */
export const cutByTree: Rule = {
  key: 'vlan-cut-by-tree',
  title: 'VLANs whose only link is blocked',
  find: (network) => {
    const layer2 = layer2Of(network);
    const findings: Finding[] = [];
    for (const { bridges } of layer2.domains()) {
      const first = bridges.find(({ bridge }) => votes(bridge));
      if (first === undefined || bridges.length < 2 || settingsOf(first.bridge) === null) continue;
      const tree = spanningTree(layer2, first.bridge, first.vid);
      if (tree === null || tree.of.form === 'vlan' || tree.blocked.size === 0) continue;
      const keys = new Set(tree.blocked.keys());
      if (partsLeft(layer2, first.bridge, first.vid, keys).size < 2) continue;
      const cut = linksOfVlan(layer2, first.bridge, first.vid).find(({ link }) => keys.has(link.key))?.link;
      if (cut === undefined) continue;
      const kind = tree.of.form === 'all' ? 'the tree for all VLANs' : `instance ${tree.of.instance}`;
      findings.push(
        tell(
          network,
          'vlan-cut-by-tree',
          'bad',
          subjects(cut),
          `${vlanText(network, first.bridge.groupId, first.vid)} is cut: ${kind} blocks ${tree.blocked.get(cut.key)?.title ?? ''}, and no link that forwards carries it. Carry it over the forwarding links too, or map it to an instance of its own.`,
        ),
      );
    }
    return findings;
  },
};

export const spanningTreeRules: readonly Rule[] = [
  switchToItself,
  treesDisagree,
  edgeFacesSwitch,
  loopUnbroken,
  cutByTree,
];
