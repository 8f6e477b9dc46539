import { limitedNames, type Limited } from '../model/kinds/cloud/providerProfile.ts';
import type { Kind } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { profileAround } from '../model/network/cloudPlaces.ts';
import { childPlaces } from '../model/network/places.ts';
import { blocksOf, subnetsOf } from './inventory.ts';

/** How much of what a provider limits there is at one thing, and how much there may be. */
export interface LimitUse {
  of: Limited;
  kind: Kind;
  id: string;
  used: number;
  most: number;
}

interface Counted {
  kind: Kind;
  id: string;
  /** The place by which the profile is found. */
  placeId: string | null;
  used: number;
}

const networkPlaces = (network: Network) =>
  [...network.all('place')].filter(({ kind }) => kind === 'network');
const regionPlaces = (network: Network) => [...network.all('place')].filter(({ kind }) => kind === 'region');

const counters: Record<Limited, (network: Network) => Counted[]> = {
  networks: (network) =>
    regionPlaces(network).map(({ id }) => ({
      ...{ kind: 'place', id, placeId: id },
      used: childPlaces(network, id).filter(({ kind }) => kind === 'network').length,
    })),
  blocks: (network) =>
    networkPlaces(network).map(({ id }) => ({
      ...{ kind: 'place', id, placeId: id },
      used: blocksOf(network, id).length,
    })),
  subnets: (network) =>
    networkPlaces(network).map(({ id }) => ({
      ...{ kind: 'place', id, placeId: id },
      used: subnetsOf(network, id).length,
    })),
  peerings: (network) =>
    networkPlaces(network).map(({ id }) => ({
      ...{ kind: 'place', id, placeId: id },
      used: network.countOf('peeringsByNetwork', id),
    })),
  routes: (network) =>
    [...network.all('routeTable')].map(({ id, placeId }) => ({
      ...{ kind: 'routeTable', id, placeId },
      used: network.countOf('cloudRoutesByTable', id),
    })),
  rules: (network) =>
    [...network.all('ruleSet')].map(({ id, placeId }) => ({
      ...{ kind: 'ruleSet', id, placeId },
      used: network.countOf('rulesBySet', id),
    })),
  ruleSetsPerInterface: (network) =>
    [...new Set([...network.all('ruleSetUse')].map(({ portId }) => portId))].map((id) => ({
      ...{
        kind: 'port',
        id,
        placeId: network.get('device', network.get('port', id)?.deviceId ?? null)?.placeId ?? null,
      },
      used: network.countOf('ruleSetUsesByPort', id),
    })),
  publicAddresses: (network) =>
    regionPlaces(network).map(({ id }) => ({
      ...{ kind: 'place', id, placeId: id },
      used: network.countOf('publicAddressesByPlace', id),
    })),
  attachments: (network) =>
    [...new Set([...network.all('hubAttachment')].map(({ hubId }) => hubId))].map((id) => ({
      ...{ kind: 'device', id, placeId: network.get('device', id)?.placeId ?? null },
      used: network.countOf('hubAttachmentsByHub', id),
    })),
};

/** All that the profiles limit, with how much of it there is. */
export const limitUses = (network: Network): LimitUse[] =>
  limitedNames.flatMap((of) =>
    counters[of](network).flatMap(({ kind, id, placeId, used }) => {
      const most = profileAround(network, placeId)?.limits[of];
      return most === undefined ? [] : [{ of, kind, id, used, most }];
    }),
  );
