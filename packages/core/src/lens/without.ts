import type { Subject } from '../change/removal.ts';
import type { Rack } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';
import { cutOut } from './cut.ts';
import { devicesIn, placesWithin } from '../model/network/places.ts';

/** What has failed: a device, a cable or circuit, all that stands in a rack or a place, or a power feed of a rack. */
export type Failure =
  | { kind: 'device' | 'cable' | 'circuit' | 'rack' | 'place'; id: string }
  | { kind: 'feed'; rackId: string; feed: string };

/** The rows that fail with one of these. */
function failing(network: Network, failure: Failure): Subject[] {
  const devices = (found: readonly { id: string }[]): Subject[] =>
    found.map(({ id }) => ({ kind: 'device', id }));
  switch (failure.kind) {
    case 'feed':
      return [];
    case 'rack':
      return devices(network.find('devicesByRack', failure.id));
    case 'place':
      return devices(devicesIn(network, placesWithin(network, failure.id)));
    default:
      return [{ kind: failure.kind, id: failure.id }];
  }
}

/** A feed that has failed stays on its rack and carries nothing; one that was never described is named there. */
function withDeadFeed(rack: Rack, name: string): Rack {
  const is = (feed: { name: string }): boolean => feed.name.toLowerCase() === name.toLowerCase();
  const known = rack.feeds.some(is);
  const dead = { volts: 0, amps: 0, phases: 1 as const, derating: 1 };
  return {
    ...rack,
    feeds: known
      ? rack.feeds.map((feed) => (is(feed) ? { ...feed, amps: 0 } : feed))
      : [...rack.feeds, { name, ...dead }],
  };
}

/**
 * The network with some of it failed: a device goes with its ports, addresses and routes, a cable that led to it hangs
 * loose, a feed carries nothing. What is left answers as it would then: reach, routes, runs and power alike.
 */
export function without(network: Network, failures: readonly Failure[]): Network {
  if (failures.length === 0) return network;
  const draft = network.draft();
  cutOut(
    network,
    draft,
    failures.flatMap((failure) => failing(network, failure)),
  );
  for (const failure of failures) {
    if (failure.kind !== 'feed') continue;
    const rack = draft.get('rack', failure.rackId);
    if (rack !== null) draft.put('rack', withDeadFeed(rack, failure.feed));
  }
  return draft.finish();
}
