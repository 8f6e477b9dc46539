import type { Rule } from '../finding.ts';
import { portTitle } from '../../model/ports.ts';

/** A cable in service has two ends. */
export const openCables: Rule = {
  key: 'cable-one-end',
  title: 'Cable with an end left open',
  reads: 'all',
  find: (network) => {
    const findings = [];
    for (const cable of network.all('cable')) {
      if (cable.status === 'retired' || (cable.aPortId !== null && cable.bPortId !== null)) continue;
      const plugged = portTitle(network, cable.aPortId ?? cable.bPortId);
      const missing =
        cable.aPortId === null ? (cable.bPortId === null ? 'both ends' : 'the A end') : 'the B end';
      findings.push({
        rule: 'cable-one-end',
        severity: 'bad' as const,
        about: [`cable ${cable.label}`, ...(plugged === '' ? [] : [`device ${plugged.split(':')[0] ?? ''}`])],
        rows: [{ kind: 'cable' as const, id: cable.id }],
        message: `${cable.label} is plugged in ${plugged === '' ? 'nowhere' : `at ${plugged} only`}: ${missing} is open. Connect it or remove the cable.`,
      });
    }
    return findings;
  },
};
