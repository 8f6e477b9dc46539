import { roles } from '../../model/values/roles.ts';
import type { GraphNode, SheetGraph } from '../graph/sheetGraph.ts';

const xml = (text: string): string =>
  text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')
    // XML 1.0, 2.2: control characters cannot be written at all.
    // eslint-disable-next-line no-control-regex
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, '');

const roleText = (node: GraphNode): string => (node.form === 'place' ? 'place' : roles[node.role].label);

/** What a sheet shows as GraphML (graphml.graphdrawing.org, 1.0): plates as nodes, links as edges with their ports. */
export function sheetToGraphml(name: string, graph: SheetGraph): string {
  const data = (key: string, value: string | number): string =>
    value === '' ? '' : `<data key="${key}">${xml(String(value))}</data>`;
  const key = (id: string, on: 'node' | 'edge', type = 'string'): string =>
    `  <key id="${id}" for="${on}" attr.name="${id}" attr.type="${type}"/>`;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<graphml xmlns="http://graphml.graphdrawing.org/xmlns">',
    key('name', 'node'),
    key('role', 'node'),
    key('place', 'node'),
    key('devices', 'node', 'int'),
    key('label', 'edge'),
    key('medium', 'edge'),
    key('sourcePort', 'edge'),
    key('targetPort', 'edge'),
    key('cables', 'edge', 'int'),
    `  <graph id="${xml(name)}" edgedefault="undirected">`,
    ...graph.nodes.map((node) => {
      const place = graph.containers.find((container) => container.id === node.containerId);
      return `    <node id="${xml(node.id)}">${data('name', node.name)}${data('role', roleText(node))}${data('place', place?.title ?? '')}${data('devices', node.deviceIds.length)}</node>`;
    }),
    ...graph.links.map(
      (link) =>
        `    <edge id="${xml(link.id)}" source="${xml(link.a)}" target="${xml(link.b)}">${data('label', link.text)}${data('medium', link.medium)}${data('sourcePort', link.aPort)}${data('targetPort', link.bPort)}${data('cables', link.cables.length)}</edge>`,
    ),
    '  </graph>',
    '</graphml>',
    '',
  ].join('\n');
}

const quoted = (text: string): string =>
  `"${text.replace(/\\/g, '\\\\').replace(/"/g, '\\"').replace(/\n/g, '\\n')}"`;

/** What a sheet shows in the DOT language: containers as clusters, ports as head and tail labels. */
export function sheetToDot(name: string, graph: SheetGraph): string {
  const lines = [`graph ${quoted(name)} {`, '  node [shape=box];'];
  const nodeLine = (node: GraphNode): string =>
    `${quoted(node.id)} [label=${quoted([node.name, ...node.lines].filter(Boolean).join('\n'))}];`;
  for (const container of graph.containers) {
    const inside = graph.nodes.filter((node) => node.containerId === container.id);
    if (inside.length === 0) continue;
    lines.push(`  subgraph ${quoted(`cluster_${container.id}`)} {`, `    label=${quoted(container.title)};`);
    for (const node of inside) lines.push(`    ${nodeLine(node)}`);
    lines.push('  }');
  }
  const held = new Set(graph.containers.map((container) => container.id));
  for (const node of graph.nodes) if (!held.has(node.containerId ?? '')) lines.push(`  ${nodeLine(node)}`);
  for (const link of graph.links) {
    const facts = [
      link.text === '' ? '' : `label=${quoted(link.text)}`,
      link.aPort === '' ? '' : `taillabel=${quoted(link.aPort)}`,
      link.bPort === '' ? '' : `headlabel=${quoted(link.bPort)}`,
    ].filter(Boolean);
    lines.push(
      `  ${quoted(link.a)} -- ${quoted(link.b)}${facts.length === 0 ? '' : ` [${facts.join(', ')}]`};`,
    );
  }
  return `${[...lines, '}'].join('\n')}\n`;
}
