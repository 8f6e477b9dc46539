import { grouped } from '../../model/values/numbers.ts';
import { poeLoad } from '../poe.ts';
import { runReads } from '../runBook.ts';
import { traceRun } from '../trace.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { isFree } from '../../model/network/ports.ts';
import { defineRule } from '../../check/finding.ts';
import { nameOf } from '../../check/names.ts';

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

/** A switch promises no more power than its budget: each device fed counts by its class. Watts. */
export const poeBudget = defineRule({
  key: 'poe-over-budget',
  title: 'More PoE promised than there is',
  why: 'When all ask for what they may, a switch sheds ports by priority: cameras and telephones go dark one by one.',
  standard: 'IEEE 802.3, clauses 33 and 145',
  reads: runReads,
  find: (network) =>
    [...feeding(network)].flatMap((device) => {
      const load = poeLoad(network, device);
      if (load?.leftW == null || load.leftW >= 0) return [];
      return [
        {
          severity: 'bad' as const,
          subjects: [{ kind: 'device' as const, id: device.id }],
          facts: { promisedW: load.promisedW, fed: load.ports.length, budgetW: load.budgetW ?? 0 },
        },
      ];
    }),
  says: ({ promisedW, fed, budgetW }, network, [device]) =>
    `${nameOf(network, 'device', device?.id ?? null)} promises ${grouped(promisedW, 1)} W to ${fed} devices and has ${grouped(budgetW)} W: ${grouped(promisedW - budgetW, 1)} W too much. Move devices to another switch, or give it a larger supply.`,
});
