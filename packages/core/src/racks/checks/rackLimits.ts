import { overText } from '../overLimit.ts';
import { rackCapacity } from '../capacity.ts';
import { defineRule } from '../../check/finding.ts';

/** A rack carries its mass, and its feeds carry its draw, also when another feed has failed. */
export const rackLimits = defineRule({
  key: 'rack-over-limit',
  title: 'Rack above a limit',
  why: 'A feed above its limit trips, also when the other one fails and all of the load falls on it; a rack above its mass bends.',
  looksAt: 'all',
  reads: { rack: 'all', device: 'all', module: 'all', port: 'all', cable: 'all', model: 'all' },
  find: (network) =>
    [...network.all('rack')].flatMap((rack) =>
      rackCapacity(network, rack).over.map((over) => ({
        severity: over.limit === 'redundancy' ? ('warn' as const) : ('bad' as const),
        subjects: [{ kind: 'rack' as const, id: rack.id }],
        facts: { over },
      })),
    ),
  says: ({ over }, network) => `${overText(network, over)}. Move something out, or correct the figures.`,
});
