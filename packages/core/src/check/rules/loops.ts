import { traceRun } from '../../cabling/trace.ts';
import { portTitle } from '../../model/ports.ts';
import type { Rule } from '../finding.ts';

/** A run through panels that comes back to itself joins nothing. */
export const loops: Rule = {
  key: 'run-loop',
  title: 'Run that comes back to itself',
  find: (network) => {
    const seen = new Set<string>();
    const findings = [];
    for (const cable of network.all('cable')) {
      const [a, b] = [network.get('port', cable.aPortId), network.get('port', cable.bPortId)];
      if (a?.role !== 'passThrough' || b?.role !== 'passThrough' || seen.has(cable.id)) continue;
      const run = traceRun(network, a.id);
      const cables = run.hops.flatMap((hop) => ('cable' in hop ? [hop.cable] : []));
      for (const id of cables) seen.add(id);
      if (run.ends !== 'loop') continue;
      findings.push({
        rule: 'run-loop',
        severity: 'bad' as const,
        about: cables.map((id) => `cable ${network.get('cable', id)?.label ?? ''}`),
        rows: cables.map((id) => ({ kind: 'cable' as const, id })),
        message: `The run through ${portTitle(network, a.id).replace(':', ' ')} comes back to itself over ${cables.length} cables and joins nothing. Pull one of them.`,
      });
    }
    return findings;
  },
};
