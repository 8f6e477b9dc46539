import { z } from 'zod';
import type { SheetGraph } from '../graph/sheetGraph.ts';
import { formatName, formatVersion, type ExchangeFile } from '../../exchange/format.ts';
import type { FileProblem } from '../../exchange/staging.ts';

/*
 * Network topology after RFC 8345 (modules ietf-network and ietf-network-topology), in JSON after RFC 7951. Links of
 * that model go one way: an undirected cable is written as one link, and of two opposite links read as one cable.
 */
const reference = z.looseObject({ 'node-ref': z.string().optional() });
const endSchema = z.looseObject({
  'source-node': z.string().optional(),
  'source-tp': z.string().optional(),
  'dest-node': z.string().optional(),
  'dest-tp': z.string().optional(),
});
const networkSchema = z.looseObject({
  'network-id': z.string(),
  node: z
    .array(
      z.looseObject({
        'node-id': z.string().min(1),
        'supporting-node': z.array(reference).optional(),
        'ietf-network-topology:termination-point': z
          .array(z.looseObject({ 'tp-id': z.string().min(1) }))
          .optional(),
      }),
    )
    .optional(),
  'ietf-network-topology:link': z
    .array(
      z.looseObject({
        'link-id': z.string().min(1),
        source: endSchema.optional(),
        destination: endSchema.optional(),
      }),
    )
    .optional(),
});
const topologySchema = z.looseObject({
  'ietf-network:networks': z.looseObject({ network: z.array(networkSchema).min(1, 'is empty') }),
});

interface Topology {
  'ietf-network:networks': { network: Record<string, unknown>[] };
}

/** What a sheet shows as a topology: plates as nodes, the ports its links end in as termination points. */
export function sheetToTopology(name: string, graph: SheetGraph): Topology {
  const called = new Map(graph.nodes.map((node) => [node.id, node.name === '' ? node.id : node.name]));
  const points = new Map<string, Set<string>>();
  const point = (node: string, port: string): string => {
    const name = port === '' ? 'unnamed' : port;
    points.set(node, (points.get(node) ?? new Set()).add(name));
    return name;
  };
  const taken = new Set<string>();
  /** By what its label says: what is hidden on the sheet is not told here. */
  const named = (link: SheetGraph['links'][number]): string => {
    const name = link.text === '' || taken.has(link.text) ? link.id : link.text;
    taken.add(name);
    return name;
  };
  const links = graph.links.map((link) => ({
    'link-id': named(link),
    source: { 'source-node': called.get(link.a), 'source-tp': point(link.a, link.aPort) },
    destination: { 'dest-node': called.get(link.b), 'dest-tp': point(link.b, link.bPort) },
  }));
  return {
    'ietf-network:networks': {
      network: [
        {
          'network-id': name,
          node: graph.nodes.map((node) => ({
            'node-id': called.get(node.id),
            'ietf-network-topology:termination-point': [...(points.get(node.id) ?? [])].map((id) => ({
              'tp-id': id,
            })),
          })),
          'ietf-network-topology:link': links,
        },
      ],
    },
  };
}

export type TopologyRead = { ok: true; file: ExchangeFile } | { ok: false; problems: FileProblem[] };

/** Colons separate device and port with us: in names that are read they become dashes. */
const nameOf = (id: string): string => id.trim().replaceAll(':', '-').slice(0, 80) || 'unnamed';

/**
 * Reads a topology as an exchange file: nodes become devices of role XX in the given place, termination points their
 * ports, links their cables. Links to nodes that are not there, and second uses of a termination point, are told.
 */
export function readTopology(text: string, place: string | null): TopologyRead {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, problems: [{ path: '$', message: 'The file is not JSON.' }] };
  }
  const parsed = topologySchema.safeParse(data);
  if (!parsed.success)
    return {
      ok: false,
      problems: parsed.error.issues.map((issue) => ({
        path: `$.${issue.path.join('.')}`,
        message: `${String(issue.path.at(-1) ?? 'The file')} ${issue.message}. A topology after RFC 8345 is expected.`,
      })),
    };
  const problems: FileProblem[] = [];
  const ports = new Map<string, Set<string>>();
  const cables: NonNullable<ExchangeFile['cables']> = [];
  const used = new Map<string, string>();
  const joined = new Set<string>();
  parsed.data['ietf-network:networks'].network.forEach((network, index) => {
    const at = `$.ietf-network:networks.network[${index}]`;
    for (const node of network.node ?? []) {
      const own = ports.get(nameOf(node['node-id'])) ?? new Set<string>();
      for (const tp of node['ietf-network-topology:termination-point'] ?? []) own.add(nameOf(tp['tp-id']));
      ports.set(nameOf(node['node-id']), own);
    }
    (network['ietf-network-topology:link'] ?? []).forEach((link, which) => {
      const path = `${at}.link[${which}]`;
      const ends = [
        [link.source?.['source-node'], link.source?.['source-tp']],
        [link.destination?.['dest-node'], link.destination?.['dest-tp']],
      ].map(([node, tp]) => ({ node: nameOf(node ?? ''), port: nameOf(tp ?? '') }));
      const [a, b] = ends;
      if (a === undefined || b === undefined) return;
      const missing = ends.find((end) => !ports.has(end.node));
      if (missing !== undefined)
        return void problems.push({
          path,
          message: `The link ${link['link-id']} names the node “${missing.node}”, which the file does not have. Add it or leave the link out.`,
        });
      const [from, to] = [`${a.node}:${a.port}`, `${b.node}:${b.port}`];
      if (joined.has(`${to}|${from}`)) return;
      for (const end of [from, to]) {
        const before = used.get(end);
        if (before !== undefined)
          problems.push({
            path,
            message: `The termination point ${end} is used by ${before} already. A port holds one cable.`,
          });
        used.set(end, link['link-id']);
      }
      joined.add(`${from}|${to}`);
      for (const end of ends) ports.get(end.node)?.add(end.port);
      cables.push({ label: nameOf(link['link-id']), a: from, b: to });
    });
  });
  if (problems.length > 0) return { ok: false, problems };
  return {
    ok: true,
    file: {
      format: formatName,
      version: formatVersion,
      devices: [...ports].map(([name, own]) => ({
        name,
        role: 'XX' as const,
        ...(place === null || place === '' ? {} : { place }),
        ports: [...own].map((port) => ({ name: port })),
      })),
      cables,
    },
  };
}
