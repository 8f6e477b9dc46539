import { create, remove, update } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import {
  pricedThings,
  type CloudPrice,
  type CloudPriceList,
  type FlowEstimate,
  type PricedThing,
} from '../../model/kinds/cloud/cloudPrice.ts';
import type { ProviderProfile } from '../../model/kinds/cloud/providerProfile.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { newId } from '../../model/values/ids.ts';
import type { Day } from '../../model/values/day.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import type { Made } from './places.ts';

/** "instance s-4", "traffic between zones": one thing that has a price. */
export const pricedText = (of: PricedThing, which: string | null): string =>
  which === null ? pricedThings[of].title.toLowerCase() : `${pricedThings[of].title.toLowerCase()} ${which}`;

/** Prices of a provider from a day on; with those of a list that it follows, where one is named. */
export function addPriceList(
  network: Network,
  profile: ProviderProfile,
  wish: { name: string; currency: string; validFrom: Day; after: CloudPriceList | null },
): Made<{ list: CloudPriceList }> {
  const list: CloudPriceList = {
    ...{ id: newId(), profileId: profile.id, name: wish.name.trim(), notes: null },
    ...{ currency: wish.currency.trim().toUpperCase(), validFrom: wish.validFrom },
  };
  const prices =
    wish.after === null
      ? []
      : network
          .find('cloudPricesByList', wish.after.id)
          .map((price) => create('cloudPrice', { ...price, id: newId(), listId: list.id }));
  const attempt = judged(
    network,
    [create('cloudPriceList', list), ...prices],
    wish.after === null
      ? `Added the price list ${list.name} of ${profile.name}`
      : `Added the price list ${list.name} of ${profile.name}, with ${prices.length} prices of ${wish.after.name}`,
  );
  return attempt.ok ? { ...attempt, list } : attempt;
}

/** The prices of a list in the order of what is paid for, then of size and sort. */
export const pricesIn = (network: Network, listId: string): CloudPrice[] => {
  const order = Object.keys(pricedThings);
  return network
    .find('cloudPricesByList', listId)
    .sort((a, b) => order.indexOf(a.of) - order.indexOf(b.of) || compareNames(a.which ?? '', b.which ?? ''));
};

const written = /^\d{1,7}([.,]\d{1,6})?$/;
/** A price as it is typed, up to six decimals, in millionths of the currency; null where it is none. */
export function readPrice(text: string): number | null {
  const plain = text.trim();
  if (!written.test(plain)) return null;
  const [whole = '', decimals = ''] = plain.split(/[.,]/);
  return Number(whole) * 1e6 + Number(decimals.padEnd(6, '0'));
}
/** As it is written: with two decimals at least, and no more than it has. */
export function priceText(millionths: number): string {
  const text = (millionths / 1e6).toFixed(6);
  return text.replace(/0{1,4}$/, '');
}

/** Sets what something costs by a list; null: the list has no price of it. */
export function setPrice(
  network: Network,
  list: CloudPriceList,
  { of, which }: Pick<CloudPrice, 'of' | 'which'>,
  millionths: number | null,
): Attempt {
  const there = network
    .find('cloudPricesByList', list.id)
    .find((price) => price.of === of && price.which === which);
  const what = pricedText(of, which);
  if (millionths === null)
    return there === undefined
      ? refuse(`${list.name} has no price of ${what}.`)
      : judged(network, [remove('cloudPrice', there)], `Took the price of ${what} out of ${list.name}`);
  const said = `Set ${what} in ${list.name} to ${priceText(millionths)} ${list.currency}`;
  return there === undefined
    ? judged(network, [create('cloudPrice', { id: newId(), listId: list.id, of, which, millionths })], said)
    : judged(network, [update('cloudPrice', there, { millionths })], said);
}

/** Reckons what flows from a device each month to another, or to the internet; what is reckoned already is changed. */
export function estimateFlow(network: Network, from: Device, to: Device | null, gbPerMonth: number): Attempt {
  const there = network.find('flowsFrom', from.id).find(({ toId }) => toId === (to?.id ?? null));
  const row: FlowEstimate = {
    ...{ id: newId(), fromId: from.id, toId: to?.id ?? null, gbPerMonth, notes: null },
  };
  return judged(
    network,
    [there === undefined ? create('flowEstimate', row) : update('flowEstimate', there, { gbPerMonth })],
    `Reckoned ${gbPerMonth} GB a month from ${from.name} to ${to?.name ?? 'the internet'}`,
  );
}
