import { grouped } from '../model/values/numbers.ts';
import type { Network } from '../model/network/network.ts';

/** A limit of a rack that is passed, with the figures in kg or W; `redundancy` only once a feed has failed. */
export type OverLimit =
  | { limit: 'mass'; rackId: string; massKg: number; limitKg: number }
  | { limit: 'feed' | 'redundancy' | 'phase'; rackId: string; feed: string; loadW: number; limitW: number }
  | { limit: 'strip'; deviceId: string; loadW: number; limitW: number };

/** A limit that is passed, in words with the numbers. */
export function overText(network: Network, over: OverLimit): string {
  const rack = 'rackId' in over ? (network.get('rack', over.rackId)?.name ?? '') : '';
  switch (over.limit) {
    case 'mass':
      return `${rack} holds ${grouped(over.massKg)} kg, above its limit of ${grouped(over.limitKg)} kg`;
    case 'feed':
      return `Feed ${over.feed} of ${rack} carries up to ${grouped(over.loadW)} W, above its usable ${grouped(over.limitW)} W`;
    case 'redundancy':
      return `Feed ${over.feed} of ${rack} would carry ${grouped(over.loadW)} W alone, above its usable ${grouped(over.limitW)} W: no redundancy`;
    case 'phase':
      return `A phase of feed ${over.feed} of ${rack} carries up to ${grouped(over.loadW)} W, above its usable ${grouped(over.limitW)} W`;
    case 'strip':
      return `${network.get('device', over.deviceId)?.name ?? ''} passes on up to ${grouped(over.loadW)} W, above its ${grouped(over.limitW)} W`;
  }
}
