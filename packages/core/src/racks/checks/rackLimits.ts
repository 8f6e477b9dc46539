import { overText } from '../overLimit.ts';
import { applyChanges } from '../../change/apply.ts';
import { update } from '../../change/change.ts';
import { defineRule } from '../../check/finding.ts';
import type { Offer } from '../../check/mend.ts';
import { judged, type Attempt } from '../../commands/attempt.ts';
import { kinds } from '../../model/kinds.ts';
import type { Rack } from '../../model/kinds/sites/rack.ts';
import type { Network } from '../../model/network/network.ts';
import { placeChain, placesWithin } from '../../model/network/places.ts';
import { byName } from '../../model/values/order.ts';
import { rackCapacity } from '../capacity.ts';
import { tryMove } from '../commands/racking.ts';
import type { OverLimit } from '../overLimit.ts';
import { deviceMassKg, deviceWatts } from '../../catalogue/figures.ts';
import { whereFits } from '../whereFits.ts';

/** Rated currents of circuit breakers, in amperes (IEC 60898-1, preferred values). */
const ratings = [6, 8, 10, 13, 16, 20, 25, 32, 40, 50, 63] as const;

/** Whether a limit of a rack is still passed, or another one is that was not. */
function holds(attempt: Attempt, network: Network, over: OverLimit, racks: readonly string[]): boolean {
  if (!attempt.ok) return false;
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) return false;
  const passed = (of: Network): OverLimit[] =>
    racks.flatMap((id) => {
      const rack = of.get('rack', id);
      return rack === null ? [] : rackCapacity(of, rack).over;
    });
  const after = passed(applied.network);
  const same = (one: OverLimit): boolean =>
    one.limit === over.limit && ('feed' in one ? one.feed : '') === ('feed' in over ? over.feed : '');
  return !after.some(same) && after.length < passed(network).length;
}

/** One thing less in the rack: the smallest that is enough, into the nearest rack of the site that has room for it. */
function movedOut(network: Network, rack: Rack, over: OverLimit): Offer | null {
  const [site] = placeChain(network, rack.placeId);
  const within = placesWithin(network, site?.id ?? null);
  const others = [...network.all('rack')].filter(({ id, placeId }) => id !== rack.id && within.has(placeId));
  if (others.length === 0) return null;
  const devices = network
    .find('devicesByRack', rack.id)
    .filter(({ unit, units }) => unit !== null && units > 0)
    .map((device) => ({
      device,
      massKg: deviceMassKg(network, device),
      maxW: deviceWatts(network, device).maxW,
    }))
    .sort((a, b) => a.maxW - b.maxW || byName(a.device, b.device));
  for (const { device, massKg, maxW } of devices) {
    const need = { units: device.units, massKg, maxW, nearPlaceId: rack.placeId };
    for (const { rack: other, fits, unit } of whereFits(network, others, need)) {
      if (!fits || unit === null) break;
      const attempt = tryMove(network, device, { rackId: other.id, unit });
      if (holds(attempt, network, over, [rack.id, other.id]))
        return { wish: `Move ${device.name} to ${other.name} U${unit}`, attempt };
    }
  }
  return null;
}

/** A feed with the next larger breaker that carries the load. */
function strongerFeed(network: Network, rack: Rack, over: OverLimit): Offer | null {
  if (!('feed' in over)) return null;
  const feed = rack.feeds.find(({ name }) => name === over.feed);
  if (feed === undefined) return null;
  for (const amps of ratings) {
    if (amps <= feed.amps) continue;
    const feeds = rack.feeds.map((one) => (one === feed ? { ...one, amps } : one));
    if (!kinds.rack.schema.shape.feeds?.safeParse(feeds).success) return null;
    const change = update('rack', rack, { feeds });
    const sentence = `Feed ${feed.name} of ${rack.name} carries ${amps} A instead of ${feed.amps} A`;
    const attempt = judged(network, change === null ? [] : [change], sentence);
    if (holds(attempt, network, over, [rack.id]))
      return {
        wish: `Have feed ${feed.name} of ${rack.name} rated ${amps} A instead of ${feed.amps} A`,
        attempt,
      };
  }
  return null;
}

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
  mends: ({ over }, network) => {
    const rack = 'rackId' in over ? network.get('rack', over.rackId) : null;
    if (rack === null) return [];
    return [movedOut(network, rack, over), strongerFeed(network, rack, over)].filter(
      (offer) => offer !== null,
    );
  },
  says: ({ over }, network) => `${overText(network, over)}. Move something out, or correct the figures.`,
});
