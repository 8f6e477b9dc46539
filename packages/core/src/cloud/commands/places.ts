import { create, type Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { blankCloudAccount } from '../../model/kinds/cloud/cloudAccount.ts';
import { blankProviderProfile, type ProviderProfile } from '../../model/kinds/cloud/providerProfile.ts';
import { blankPlace, type Place, type PlaceKind } from '../../model/kinds/sites/place.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { builtInProfiles } from '../profiles.ts';

export type Made<T extends object> = { ok: false; why: string } | (Extract<Attempt, { ok: true }> & T);

export const newPlace = (name: string, kind: PlaceKind, parentId: string | null): Place => ({
  ...blankPlace,
  id: newId(),
  name: name.trim(),
  kind,
  parentId,
});

/** The profiles of the project, and those that ship and are not in it yet, by name. */
export const profilesToChoose = (network: Network): Omit<ProviderProfile, 'id'>[] => {
  const own = [...network.all('providerProfile')];
  const known = new Set(own.map(({ name }) => name.toLowerCase()));
  return [...own, ...builtInProfiles.filter(({ name }) => !known.has(name.toLowerCase()))].sort((a, b) =>
    compareNames(a.name, b.name),
  );
};

/** The row of a profile by its name, made from what ships where the project has none; null: there is no such profile. */
function profileNamed(network: Network, name: string): { row: ProviderProfile; changes: Change[] } | null {
  const own = [...network.all('providerProfile')].find(
    (one) => one.name.toLowerCase() === name.toLowerCase(),
  );
  if (own !== undefined) return { row: own, changes: [] };
  const shipped = builtInProfiles.find((one) => one.name.toLowerCase() === name.toLowerCase());
  if (shipped === undefined) return null;
  const row = { ...blankProviderProfile, ...shipped, id: newId() };
  return { row, changes: [create('providerProfile', row)] };
}

/** An account of a provider, with a first region and its zones where they are named. */
export function addAccount(
  network: Network,
  wish: { name: string; provider: string | null; region: string; zones: readonly string[] },
): Made<{ accountId: string }> {
  const profile = wish.provider === null ? null : profileNamed(network, wish.provider);
  if (wish.provider !== null && profile === null)
    return refuse(`There is no provider profile ${wish.provider}.`);
  const account = newPlace(wish.name, 'account', null);
  const changes: Change[] = [
    ...(profile?.changes ?? []),
    create('place', account),
    create('cloudAccount', {
      ...blankCloudAccount,
      id: newId(),
      placeId: account.id,
      profileId: profile?.row.id ?? null,
    }),
  ];
  if (wish.region.trim() !== '') {
    const region = newPlace(wish.region, 'region', account.id);
    changes.push(create('place', region));
    for (const zone of wish.zones) changes.push(create('place', newPlace(zone, 'zone', region.id)));
  }
  const attempt = judged(network, changes, `Added the account ${account.name}`);
  return attempt.ok ? { ...attempt, accountId: account.id } : attempt;
}

/** A region of an account, with its zones. */
export function addRegion(
  network: Network,
  account: Place,
  wish: { name: string; zones: readonly string[] },
): Made<{ regionId: string }> {
  const region = newPlace(wish.name, 'region', account.id);
  const attempt = judged(
    network,
    [
      create('place', region),
      ...wish.zones.map((zone) => create('place', newPlace(zone, 'zone', region.id))),
    ],
    `Added the region ${region.name} in ${account.name}`,
  );
  return attempt.ok ? { ...attempt, regionId: region.id } : attempt;
}

/** A zone of a region. */
export const addZoneTo = (network: Network, region: Place, name: string): Attempt =>
  judged(
    network,
    [create('place', newPlace(name, 'zone', region.id))],
    `Added the zone ${name.trim()} to ${region.name}`,
  );

/** The accounts of a project, by name. */
export const accountsOf = (network: Network): Place[] =>
  [...network.all('place')].filter(({ kind }) => kind === 'account').sort(byName);
