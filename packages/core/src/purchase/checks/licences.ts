import { daysFrom, type Day } from '../../model/values/day.ts';
import { defineRule, type Evidence, type Rule } from '../../check/finding.ts';
import { idsOf } from '../../check/names.ts';
import type { HeldLicence } from '../../model/kinds/purchase/stock.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { licenceNeeds } from '../licences.ts';

/** Told so many days before there are too few, as long as an order takes. */
const aheadDays = 60;

/** The day from which what is held is no longer enough: '' where it never was, null where it always will be. */
export function tooFewFrom(held: readonly HeldLicence[], needed: number): Day | '' | null {
  const ends = held
    .flatMap(({ validUntil, count }) => (validUntil === null ? [] : [{ validUntil, count }]))
    .sort((a, b) => (a.validUntil < b.validUntil ? -1 : 1));
  let left = held.reduce((sum, { count }) => sum + count, 0);
  if (left < needed) return '';
  for (const { validUntil, count } of ends) {
    left -= count;
    if (left < needed) return daysFrom(validUntil, 1);
  }
  return null;
}

type LicenceFacts = { licence: string; needed: number; held: number; from: Day };

const licencesMissing = defineRule<LicenceFacts>({
  key: 'licence-missing',
  title: 'Licences missing, or about to end',
  why: 'Gear that is set up beyond its licences stops with an update or an audit, and always at a bad moment. Looked at in projects that write licences down.',
  reads: {
    device: ['modelId', 'status', 'role', 'stack'],
    model: ['licences', 'maker', 'name'],
    port: ['ospf', 'vrfId', 'deviceId'],
    bgpSession: ['deviceId'],
    heldLicence: ['modelId', 'name', 'count', 'validUntil'],
  },
  find: (network) => {
    // Who writes down no licence at all does not keep them here.
    if (network.count('heldLicence') === 0) return [];
    return licenceNeeds(network, [...network.all('device')]).flatMap(
      ({ model, licence, devices }): Evidence<LicenceFacts>[] => {
        const held = network
          .find('heldLicencesByModel', model.id)
          .filter(({ name }) => name.toLowerCase() === licence.name.toLowerCase());
        const from = tooFewFrom(held, devices.length);
        if (from === null) return [];
        return [
          {
            severity: from === '' ? 'warn' : 'bad',
            subjects: [
              { kind: 'model', id: model.id },
              ...devices.map(({ id }) => ({ kind: 'device' as const, id })),
            ],
            facts: {
              licence: licence.name,
              needed: devices.length,
              held: held.reduce((sum, { count }) => sum + count, 0),
              from,
            },
            ...(from === ''
              ? {}
              : {
                  days: [
                    { from: daysFrom(from, -aheadDays), severity: 'warn' as const },
                    { from, severity: 'bad' as const },
                  ],
                }),
          },
        ];
      },
    );
  },
  says: ({ licence, needed, held, from }, network, [model]) => {
    const row = network.get('model', model?.id ?? null);
    const what = `“${licence}” of ${row === null ? 'a model' : modelTitle(row)}`;
    const count = `${needed} ${needed === 1 ? 'device needs' : 'devices need'} one`;
    return from === ''
      ? `${what}: ${count}, and ${held === 0 ? 'none is' : `${held} ${held === 1 ? 'is' : 'are'}`} written down as held. Write down the certificate, or order what is missing.`
      : `${what}: ${count}, and from ${from} on fewer are held. Extend them.`;
  },
  about: (_facts, network: Network, subjects) =>
    idsOf(subjects, 'device')
      .map((id) => `device ${network.get('device', id)?.name ?? ''}`)
      .sort(compareNames),
});

export const licenceRules: readonly Rule[] = [licencesMissing];
