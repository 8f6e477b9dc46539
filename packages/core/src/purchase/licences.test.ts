import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../change/apply.ts';
import { create, update } from '../change/change.ts';
import { checkNetwork } from '../check/told.ts';
import type { Licence } from '../model/kinds/equipment/catalogueModel.ts';
import type { HeldLicence } from '../model/kinds/purchase/stock.ts';
import type { Network } from '../model/network/network.ts';
import { newId } from '../model/values/ids.ts';
import { findReport } from '../report/registry.ts';
import { demoNetwork } from '../testing/testDemo.ts';
import { networkOf } from '../testing/testNetwork.ts';
import { tooFewFrom } from './checks/licences.ts';
import { holdsOn, licenceNeeds } from './licences.ts';

const held = (count: number, validUntil: string | null, rest: Partial<HeldLicence> = {}): HeldLicence => ({
  ...{ id: newId(), certificate: newId(), modelId: newId(), name: 'Routing', count },
  ...{ validFrom: null, validUntil, notes: null },
  ...rest,
});

/** Two switches, two firewalls of one maker and one of another, and what manages them. */
const base = networkOf({
  places: [{ path: 'Quay', kind: 'site' }],
  vrfs: [{ name: 'ops' }],
  devices: [
    { name: 'a', model: 'Norvane CR-6032', place: 'Quay', stack: 'core' },
    { name: 'b', model: 'Norvane CR-6032', place: 'Quay' },
    { name: 'fw-1', model: 'Ostrel Bulwark 220', place: 'Quay' },
    { name: 'fw-2', model: 'Ostrel Bulwark 90', place: 'Quay' },
    { name: 'fw-3', model: 'Generic firewall', place: 'Quay' },
    { name: 'warden-1', model: 'Ostrel Warden', place: 'Quay' },
    { name: 'warden-2', model: 'Ostrel Warden', place: 'Quay' },
  ],
});
const needed = (network: Network) =>
  licenceNeeds(
    network,
    [...network.all('device')].sort((a, b) => (a.name < b.name ? -1 : 1)),
  ).map(({ licence, devices }) => [
    licence.name,
    devices
      .map(({ name }) => name)
      .sort()
      .join(' '),
  ]);
const withLicences = (title: string, licences: Licence[]): Network => {
  const model = base.findOne('modelByTitle', title.toLowerCase());
  const change = model === null ? null : update('model', model, { licences });
  const applied = applyChanges(base, change === null ? [] : [change]);
  if (!applied.ok) throw new Error('not applied');
  return applied.network;
};

describe('which licences devices need', () => {
  test('one each; for a manager one for each that it manages of its own maker, once for a pair of managers', () => {
    expect(needed(base)).toEqual([
      ['Routing for cores', 'a b'],
      ['Threat filter, yearly', 'fw-1'],
      ['Managed firewall', 'fw-1 fw-2'],
    ]);
  });

  test('for a feature only where a device is set up so', () => {
    const licence = (feature: Licence['feature']): Licence => ({
      ...{ name: 'Plus', per: 'device', priceMinor: null, feature },
    });
    const of = (feature: Licence['feature']) =>
      needed(withLicences('Norvane CR-6032', [licence(feature)])).filter(([name]) => name === 'Plus');
    expect(of('stack')).toEqual([['Plus', 'a']]);
    expect(of('BGP')).toEqual([]);
    expect(of(null)).toEqual([['Plus', 'a b']]);
  });
});

test('what is held is a schedule of its own', () => {
  const table = findReport('held-licence')?.make(demoNetwork(), null);
  expect(table?.rows.map(({ certificate, count }) => [certificate, count])).toEqual([
    ['NV-RC-24-0118', 2],
    ['NV-RM-24-0117', 10],
    ['OS-TF-26-2204', 2],
  ]);
});

describe('licences that are missing', () => {
  test('from which day on there are too few', () => {
    expect(tooFewFrom([], 1)).toBe('');
    expect(tooFewFrom([held(2, null)], 2)).toBeNull();
    expect(tooFewFrom([held(2, '2027-02-28')], 2)).toBe('2027-03-01');
    // Of five that end one after the other three are needed: after the second end two are left.
    expect(tooFewFrom([held(1, '2027-12-31'), held(2, '2026-12-31'), held(2, null)], 3)).toBe('2028-01-01');
    expect(holdsOn(held(1, '2026-11-30'), '2026-11-30')).toBe(true);
    expect(holdsOn(held(1, null, { validFrom: '2026-12-01' }), '2026-11-30')).toBe(false);
  });

  test('told as long as none are written down, then sixty days before they end, then as a fault', () => {
    const told = (network: Network, day: string) =>
      checkNetwork(network, day)
        .filter(({ rule }) => rule === 'licence-missing')
        .map(({ severity, message }) => [severity, message]);
    // Who keeps no licences here is not asked for them.
    expect(told(base, '2026-11-30')).toEqual([]);
    const other = applyChanges(base, [
      create(
        'heldLicence',
        held(9, null, { modelId: base.findOne('modelByTitle', 'ostrel warden')?.id ?? '' }),
      ),
    ]);
    if (!other.ok) throw new Error('not applied');
    expect(told(other.network, '2026-11-30')).toContainEqual([
      'warn',
      '“Routing for cores” of Norvane CR-6032: 2 devices need one, and none is written down as held. Write down the certificate, or order what is missing.',
    ]);
    const modelId = base.findOne('modelByTitle', 'norvane cr-6032')?.id ?? '';
    const applied = applyChanges(base, [
      create('heldLicence', held(2, '2027-03-31', { modelId, name: 'Routing for cores' })),
    ]);
    if (!applied.ok) throw new Error('not applied');
    const routing = (day: string) =>
      told(applied.network, day).filter(([, message]) => message?.includes('Routing') === true);
    expect(routing('2027-01-30')).toEqual([]);
    expect(routing('2027-01-31').map(([severity]) => severity)).toEqual(['warn']);
    expect(routing('2027-04-01')).toEqual([
      [
        'bad',
        '“Routing for cores” of Norvane CR-6032: 2 devices need one, and from 2027-04-01 on fewer are held. Extend them.',
      ],
    ]);
  });
});
