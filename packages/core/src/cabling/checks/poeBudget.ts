import { grouped } from '../../model/values/numbers.ts';
import { changeModel } from '../../catalogue/commands/changeModel.ts';
import { update } from '../../change/change.ts';
import { judged } from '../../commands/attempt.ts';
import { modelTitle } from '../../model/kinds.ts';
import { moveEnd } from '../commands/cables.ts';
import { estimateLength } from '../length.ts';
import { findFreePorts } from '../freePorts.ts';
import { poeLoad, type PoweredPort } from '../poe.ts';
import type { Offer } from '../../check/mend.ts';
import { placeOfDevice } from '../../model/network/places.ts';
import { cableAt, otherEnd, portTitle } from '../../model/network/ports.ts';
import { runReads } from '../runBook.ts';
import { traceRun } from '../trace.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { isFree } from '../../model/network/ports.ts';
import { compareNames } from '../../model/values/order.ts';
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

/** So many free ports of other switches are looked at for each device that could move. */
const looked = 8;

/**
 * Moves the patch of one fed device to a free port of another switch that has enough left for it and that the cable
 * reaches; what was set at the old port is set at the new one. Null: there is none.
 */
function movedAway(
  network: Network,
  from: Device,
  { port, device, promisedW, class: needed }: PoweredPort,
): Offer | null {
  const cable = cableAt(network, port.id);
  const end = cable === null ? null : network.get('port', otherEnd(network, cable, port.id));
  const patched = network.get('device', end?.deviceId ?? null);
  if (cable === null || patched === null) return null;
  const side = cable.aPortId === port.id ? ('a' as const) : ('b' as const);
  const wish = {
    ...{ count: looked, connector: port.connector, speedBps: port.speedBps, withOptic: false },
    ...{ poeClass: Math.max(1, needed), differentDevices: true, panels: false },
    nearPlaceId: placeOfDevice(network, from),
  };
  for (const { device: other, port: to } of findFreePorts(network, wish)) {
    if (other.id === from.id || (poeLoad(network, other)?.leftW ?? 0) < promisedW) continue;
    const needsM = estimateLength(network, patched, other)?.metres ?? null;
    if (cable.lengthM !== null && (needsM === null || needsM > cable.lengthM)) continue;
    const moved = moveEnd(network, cable, side, to);
    if (!moved.ok) continue;
    const { mode, untaggedVid, taggedVids, voiceVid } = port;
    const set = update('port', to, { mode, untaggedVid, taggedVids, voiceVid });
    const changes = [...moved.set.changes, ...(set === null ? [] : [set])];
    return {
      wish: `Feed ${device.name} from ${portTitle(network, to.id)}, set as ${port.name} is`,
      attempt: judged(network, changes, moved.set.sentence),
    };
  }
  return null;
}

/** A model of the catalogue with budget enough into which all that is plugged in goes; the least dear that is priced. */
function larger(network: Network, device: Device, promisedW: number): Offer | null {
  const own = network.get('model', device.modelId);
  const models = [...network.all('model')]
    .filter(
      ({ form, role, poeBudgetW, retired }) =>
        form === 'device' && role === device.role && !retired && (poeBudgetW ?? 0) >= promisedW,
    )
    .sort(
      (a, b) =>
        Number(b.maker === own?.maker) - Number(a.maker === own?.maker) ||
        (a.priceMinor ?? Infinity) - (b.priceMinor ?? Infinity) ||
        compareNames(a.name, b.name),
    );
  for (const model of models) {
    const { attempt, lost } = changeModel(network, device, model);
    if (lost.length === 0 && attempt.ok)
      return { wish: `Put ${modelTitle(model)} in its place: ${grouped(model.poeBudgetW ?? 0)} W`, attempt };
  }
  return null;
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
  mends: ({ promisedW, budgetW }, network, [subject]) => {
    const device = network.get('device', subject?.id ?? null);
    const load = device === null ? null : poeLoad(network, device);
    if (device === null || load === null) return [];
    // One device that frees enough, the smallest such first: the least is moved.
    const enough = load.ports
      .filter((one) => one.promisedW >= promisedW - budgetW)
      .sort((a, b) => a.promisedW - b.promisedW || compareNames(a.device.name, b.device.name));
    const moved = enough.reduce<Offer | null>((found, one) => found ?? movedAway(network, device, one), null);
    return [moved, larger(network, device, promisedW)].filter((offer) => offer !== null);
  },
  says: ({ promisedW, fed, budgetW }, network, [device]) =>
    `${nameOf(network, 'device', device?.id ?? null)} promises ${grouped(promisedW, 1)} W to ${fed} devices and has ${grouped(budgetW)} W: ${grouped(promisedW - budgetW, 1)} W too much. Move devices to another switch, or give it a larger supply.`,
});
