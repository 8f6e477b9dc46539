import { poeLoad } from '../../cabling/poe.ts';
import { traceRun } from '../../cabling/trace.ts';
import type { Device } from '../../model/kinds/device.ts';
import type { Network } from '../../model/network.ts';
import { isFree } from '../../model/ports.ts';
import type { Rule } from '../finding.ts';

/** The switches that something hangs on which may take power from them. */
function feeding(network: Network): Set<Device> {
  const found = new Set<Device>();
  for (const model of network.all('model')) {
    if (model.poeClass === null) continue;
    for (const device of network.find('devicesByModel', model.id))
      for (const port of network.find('portsByDevice', device.id)) {
        if (port.role === 'powerIn' || isFree(network, port.id)) continue;
        const far = network.get('port', traceRun(network, port.id).to);
        const source = network.get('device', far?.deviceId ?? null);
        if (source !== null) found.add(source);
      }
  }
  return found;
}

/** A switch promises no more power than its budget: each device fed counts by its class. */
export const poeBudget: Rule = {
  key: 'poe-over-budget',
  title: 'More PoE promised than there is',
  find: (network) => {
    const findings = [];
    for (const device of feeding(network)) {
      const load = poeLoad(network, device);
      if (load?.leftW == null || load.leftW >= 0) continue;
      findings.push({
        rule: 'poe-over-budget',
        severity: 'bad' as const,
        about: [`device ${device.name}`],
        rows: [{ kind: 'device' as const, id: device.id }],
        message: `${device.name} promises ${load.promisedW.toFixed(1)} W to ${load.ports.length} devices and has ${load.budgetW ?? 0} W: ${Math.abs(load.leftW).toFixed(1)} W too much. Move devices to another switch, or give it a larger supply.`,
      });
    }
    return findings;
  },
};
