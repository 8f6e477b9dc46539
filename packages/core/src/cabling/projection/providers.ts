import type { GraphNode } from '../../sheets/graph/sheetGraph.ts';
import type { Wire } from './wires.ts';

/** A plate for each provider into whose network a circuit leads. */
export function addProviders(
  nodes: Map<string, GraphNode>,
  wires: readonly Wire[],
  showNames: boolean,
): void {
  for (const wire of wires) {
    for (const { provider, device } of [wire.a, wire.b]) {
      if (device !== null || provider === null) continue;
      const id = `provider:${provider}`;
      const node: GraphNode = nodes.get(id) ?? {
        id,
        form: 'provider',
        deviceIds: [],
        subjects: [],
        role: 'EX',
        code: 'EX',
        name: showNames ? provider : '',
        lines: [],
        containerId: null,
        outside: true,
        planned: false,
        retired: false,
        shade: { scale: 'role', family: 'outside' },
        symbol: null,
        sheetId: null,
      };
      if (!node.subjects.includes(wire.line.id)) node.subjects.push(wire.line.id);
      nodes.set(id, node);
    }
  }
}
