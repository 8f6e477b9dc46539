import { say, type ToldNode } from '../../sheets/graph/told.ts';
import type { Wire } from './wires.ts';

/** A plate for each provider into whose network a circuit leads. */
export function addProviders(nodes: Map<string, ToldNode>, wires: readonly Wire[]): void {
  for (const wire of wires) {
    for (const { provider, device } of [wire.a, wire.b]) {
      if (device !== null || provider === null) continue;
      const id = `provider:${provider}`;
      const node: ToldNode = nodes.get(id) ?? {
        id,
        form: 'provider',
        deviceIds: [],
        subjects: [],
        role: 'EX',
        code: say('EX'),
        name: say(provider, 'names'),
        lines: [],
        mostLines: 0,
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
