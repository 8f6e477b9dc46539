import type { Rule } from '../finding.ts';
import { rackCapacity } from '../../racks/capacity.ts';

/** A rack carries its mass, and its feeds carry its draw, also when another feed has failed. */
export const rackLimits: Rule = {
  key: 'rack-over-limit',
  title: 'Rack above a limit',
  reads: 'all',
  find: (network) => {
    const findings = [];
    for (const rack of network.all('rack')) {
      for (const { limit, text } of rackCapacity(network, rack).over) {
        findings.push({
          rule: 'rack-over-limit',
          severity: limit === 'redundancy' ? ('warn' as const) : ('bad' as const),
          about: [`rack ${rack.name}`],
          rows: [{ kind: 'rack' as const, id: rack.id }],
          message: `${text}. Move something out, or correct the figures.`,
        });
      }
    }
    return findings;
  },
};
