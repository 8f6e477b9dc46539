import { poeLoad } from '../../cabling/poe.ts';
import type { Rule } from '../finding.ts';

/** A switch promises no more power than its budget: each device fed counts by its class. */
export const poeBudget: Rule = {
  key: 'poe-over-budget',
  title: 'More PoE promised than there is',
  find: (network) => {
    const findings = [];
    for (const model of network.all('model')) {
      if (model.poeBudgetW === null) continue;
      for (const device of network.find('devicesByModel', model.id)) {
        const load = poeLoad(network, device);
        if (load?.leftW == null || load.leftW >= 0) continue;
        findings.push({
          rule: 'poe-over-budget',
          severity: 'bad' as const,
          about: [`device ${device.name}`],
          rows: [{ kind: 'device' as const, id: device.id }],
          message: `${device.name} promises ${load.promisedW.toFixed(1)} W to ${load.ports.length} devices and has ${model.poeBudgetW} W: ${Math.abs(load.leftW).toFixed(1)} W too much. Move devices to another switch, or give it a larger supply.`,
        });
      }
    }
    return findings;
  },
};
