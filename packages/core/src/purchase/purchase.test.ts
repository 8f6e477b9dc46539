import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../change/apply.ts';
import { create, update } from '../change/change.ts';
import { reviewOf } from '../check/review.ts';
import type { Attempt } from '../commands/attempt.ts';
import { blankDevice } from '../model/kinds/equipment/device.ts';
import { blankPartsList, type PartsList } from '../model/kinds/purchase/partsList.ts';
import type { Network } from '../model/network/network.ts';
import { newId } from '../model/values/ids.ts';
import { reportRows, testLines } from '../testing/testPurchase.ts';
import { deviceNamed, networkOf, smallRoom } from '../testing/testNetwork.ts';
import { beginPartsList, chooseForList, removePartsList, unchooseAll } from './commands/partsLists.ts';
import { keepPriceList } from './commands/priceLists.ts';
import {
  countStock,
  giveBack,
  issueStock,
  receiveStock,
  reserveInStock,
  stockLineOf,
} from './commands/stock.ts';
import { inPacks, partsOf, wholeUp } from './partsOf.ts';
import { partGroupsOf, partsTable } from './table.ts';
import { toOrder as concernsOf } from './toOrder.ts';

const day = '2026-11-30';
const toOrder = (network: Network, list: PartsList) =>
  concernsOf(network, list, partsOf(network, list, day), day, reviewOf(network, day).open);

const done = (network: Network, attempt: Attempt): Network => {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) throw new Error(applied.problems.map(({ message }) => message).join('\n'));
  return applied.network;
};

const list = (network: Network, fields: Partial<PartsList> = {}): PartsList => ({
  ...blankPartsList,
  id: newId(),
  name: 'test',
  ...fields,
});

/** A room with an access switch that stands and another that is planned, with cords and uplinks of its own. */
const growing = (): Network =>
  networkOf({
    places: [
      { path: 'Quay', kind: 'site', code: 'QY' },
      { path: 'Quay/Room', kind: 'room' },
      { path: 'Quay/Store', kind: 'room' },
    ],
    racks: [{ name: 'R1', place: 'Quay/Room', units: 42 }],
    devices: [
      { name: 'core', model: 'Norvane CR-6032', rack: 'R1', unit: 30 },
      { name: 'acc-1', model: 'Norvane AX-2448', rack: 'R1', unit: 20 },
      { name: 'acc-2', model: 'Norvane AX-2448', rack: 'R1', unit: 18, status: 'planned' },
      { name: 'strip', model: 'Brackwater PS-16', rack: 'R1' },
      { name: 'ap-1', model: 'Norvane WA-52', place: 'Quay/Room', status: 'planned' },
      { name: 'old', model: 'Norvane WA-31', place: 'Quay/Room', status: 'retired' },
      { name: 'vm', role: 'VM', place: 'Quay/Room', status: 'planned' },
      { name: 'box', role: 'SV', place: 'Quay/Room', status: 'planned' },
    ],
    cables: [
      { label: 'K-1', type: 'OS2 duplex LC', lengthM: 2.5, status: 'planned' },
      { label: 'K-2', type: 'OS2 duplex LC', lengthM: 3, status: 'planned' },
      { label: 'K-3', type: 'OS2 duplex LC', status: 'planned' },
      { label: 'K-4', type: 'Cat 6A RJ45', lengthM: 400, status: 'planned' },
      { label: 'K-5', status: 'planned' },
      { label: 'K-6', type: 'OS2 outdoor 24 strands', lengthM: 120.4, status: 'planned' },
      { label: 'K-7', type: 'OS2 outdoor 24 strands', lengthM: 30.3, status: 'planned' },
      { label: 'K-9', type: 'power C13–C14', lengthM: 1, a: 'core:psu1', b: 'strip:o1' },
      { label: 'K-8', type: 'Cat 6A RJ45', lengthM: 2, a: 'core:mgmt0', b: 'acc-1:gi1/1' },
    ],
  });

describe('lines of a parts list', () => {
  const network = growing();
  const rows = testLines(network, list(network), day);

  test('what is planned, and nothing that stands, is retired or is nobody’s to buy', () => {
    const names = rows.map(({ what }) => what);
    expect(names).toEqual(expect.arrayContaining(['Norvane AX-2448', 'Norvane WA-52']));
    expect(names).not.toContain('Norvane CR-6032');
    expect(names).not.toContain('Norvane WA-31');
    expect(rows.find(({ what }) => what === 'Norvane AX-2448')).toMatchObject({
      planned: 1,
      inPlace: 0,
      toBuy: 1,
    });
    expect(names).toContain('server, model not chosen');
    expect(names.some((name) => name.includes('virtual'))).toBe(false);
  });

  test('cables by the stock length that reaches; by the metre from a drum, rounded up in all', () => {
    // 2.5 m and 3 m are both bought as 3 m.
    expect(rows.find(({ what, lengthM }) => what === 'OS2 duplex LC' && lengthM === 3)).toMatchObject({
      planned: 2,
      amount: 2 * (560 + 3 * 60),
    });
    // 120.4 m and 30.3 m are 150.7 m.
    expect(rows.find(({ what }) => what === 'OS2 outdoor 24 strands')).toMatchObject({
      planned: 151,
      unit: 'm',
    });
    expect(rows.find(({ what }) => what === 'OS2 duplex LC, length not known')?.gap).toBe('no length');
    expect(rows.find(({ what }) => what === 'Cat 6A RJ45, longer than it is made')?.gap).toBe(
      'no stock length reaches',
    );
    expect(rows.find(({ what }) => what === 'Cable, type not chosen')?.gap).toBe('no cable type');
  });

  test('a cord of 2 m for each inlet of what is planned in which nothing is drawn, by what the strip has', () => {
    const inlets = network
      .find('portsByDevice', deviceNamed(network, 'acc-2').id)
      .filter(({ role }) => role === 'powerIn').length;
    expect(inlets).toBeGreaterThan(0);
    expect(rows.filter(({ section }) => section === 'Power cords')).toMatchObject([
      { what: 'power C13–C14', lengthM: 2, planned: inlets },
    ]);
  });

  test('a licence for each planned device that needs one; what is held beyond what stands is not bought', () => {
    const needed = (held: number, until: string | null): { held: number; toBuy: number } | undefined => {
      const model = network.findOne('modelByTitle', 'norvane wa-52');
      const with_ = applyChanges(network, [
        create('heldLicence', {
          ...{
            id: newId(),
            certificate: 'C-1',
            modelId: model?.id ?? '',
            name: 'radio MANAGER',
            count: held,
          },
          ...{ validFrom: null, validUntil: until, notes: null },
        }),
      ]);
      if (!with_.ok) throw new Error('not applied');
      return testLines(with_.network, list(network), day).find(({ section }) => section === 'Licences');
    };
    expect(rows.find(({ section }) => section === 'Licences')).toMatchObject({
      what: 'Radio manager for Norvane WA-52',
      planned: 1,
      toBuy: 1,
      amount: 4500,
    });
    expect(needed(1, null)).toMatchObject({ held: 1, toBuy: 0 });
    expect(needed(1, '2026-11-29')).toMatchObject({ held: 0, toBuy: 1 });
    expect(needed(1, '2026-11-30')).toMatchObject({ held: 1, toBuy: 0 });
  });

  test('in place, and both: what stands is counted and never bought', () => {
    const standing = testLines(network, list(network, { counts: 'in place' }), day);
    expect(standing.find(({ what }) => what === 'Norvane CR-6032')).toMatchObject({ inPlace: 1, toBuy: 0 });
    expect(standing.every(({ planned, toBuy }) => planned === 0 && toBuy === 0)).toBe(true);
    const both = testLines(network, list(network, { counts: 'both' }), day);
    expect(both.find(({ what }) => what === 'Norvane AX-2448')).toMatchObject({
      planned: 1,
      inPlace: 1,
      toBuy: 1,
    });
    expect(both.find(({ what }) => what === 'Norvane CR-6032')?.what).toBe('Norvane CR-6032');
  });

  test('spares in per cent, at least so many; services by what they are counted by; further parts', () => {
    const rich = testLines(
      network,
      list(network, {
        counts: 'both',
        spares: [{ of: 'Devices', percent: 10, least: 0 }],
        services: [
          { name: 'Mounting', per: 'device', role: 'SW', unitMinor: 9000 },
          { name: 'Travel', per: 'site', role: null, unitMinor: null },
        ],
        further: [{ name: 'Screws', partNumber: 'M6', count: 40, unitMinor: 15 }],
      }),
      day,
    );
    // 10 % of two switches is 0.2: one.
    expect(rich.find(({ what }) => what === 'Norvane AX-2448')).toMatchObject({ spares: 1, toBuy: 2 });
    expect(rich.find(({ what }) => what === 'Mounting')).toMatchObject({ planned: 3, amount: 27_000 });
    expect(rich.find(({ what }) => what === 'Travel')).toMatchObject({ planned: 1, amount: null });
    expect(rich.find(({ what }) => what === 'Screws')).toMatchObject({ planned: 40, amount: 600 });
  });

  test('the same whatever order the rows came in, and the parts of it add up', () => {
    const mixed = networkOf({}).draft();
    for (const kind of ['place', 'rack', 'model', 'device', 'port', 'cable'] as const)
      for (const row of [...network.all(kind)].reverse()) mixed.put(kind, row);
    expect(testLines(mixed.finish(), list(network), day)).toEqual(rows);
    const answer = partsOf(network, list(network), day);
    for (const { planned, inPlace, bySite, part } of answer.lines)
      if (part.section !== 'Services')
        expect(wholeUp([...bySite.values()].reduce((a, b) => a + b, 0))).toBe(planned + inPlace);
    expect(answer.totalMinor).toBe(
      answer.lines.reduce((sum, { amountMinor }) => sum + (amountMinor ?? 0), 0),
    );
  });

  test('chosen devices alone, with their cables; all of the place again', () => {
    const begun = beginPartsList(network, { name: 'Chosen' }, [deviceNamed(network, 'ap-1').id]);
    const chosen = done(network, begun);
    const row = chosen.get('partsList', begun.id);
    if (row === null) throw new Error('no list');
    expect(partsOf(chosen, row, day).lines.map(({ part }) => part.what)).toEqual([
      'Norvane WA-52',
      'Radio manager for Norvane WA-52',
    ]);
    const more = done(chosen, chooseForList(chosen, row, [deviceNamed(network, 'acc-2').id]));
    expect(partsOf(more, row, day).lines.map(({ part }) => part.what)).toContain('Norvane AX-2448');
    expect(chooseForList(more, row, [deviceNamed(network, 'acc-2').id])).toMatchObject({ ok: false });
    const whole = done(more, unchooseAll(more, row));
    expect(testLines(whole, row, day)).toEqual(rows);
    expect(done(more, removePartsList(more, row)).count('listedDevice')).toBe(0);
  });
});

describe('stock', () => {
  const base = growing();
  const store = [...base.all('place')].find(({ name }) => name === 'Store')?.id ?? '';
  const room = [...base.all('place')].find(({ name }) => name === 'Room')?.id ?? '';
  const model = (title: string): string => base.findOne('modelByTitle', title.toLowerCase())?.id ?? '';
  const ap = { modelId: model('Norvane WA-52'), placeId: store, lengthM: null };

  test('received, taken out, reserved from the store with most, given back', () => {
    let network = done(base, receiveStock(base, ap, 2));
    network = done(network, receiveStock(network, ap, 1));
    network = done(network, countStock(network, { ...ap, placeId: room }, { count: 1, least: 2 }));
    expect(stockLineOf(network, ap)?.count).toBe(3);
    const begun = beginPartsList(network, {
      name: 'Aps',
      further: [],
      spares: [{ of: 'Devices', percent: 0, least: 3 }],
    });
    network = done(network, begun);
    const row = network.get('partsList', begun.id);
    if (row === null) throw new Error('no list');
    const lineOf = (of: Network) =>
      partsOf(of, row, day).lines.find(({ part }) => part.modelId === ap.modelId);
    // 1 planned and 3 spare.
    expect(lineOf(network)).toMatchObject({ toBuy: 4, inStock: 4, reserved: 0 });
    const lines = partsOf(network, row, day).lines;
    network = done(network, reserveInStock(network, row, lines));
    expect(lineOf(network)).toMatchObject({ toBuy: 0, inStock: 0, reserved: 4 });
    const kept = network.find('reservedPartsByList', row.id).filter(({ modelId }) => modelId === ap.modelId);
    expect(kept.map(({ placeId, count }) => [placeId === store, count])).toEqual([
      [true, 3],
      [false, 1],
    ]);
    // What is reserved cannot be taken out.
    const line = stockLineOf(network, ap);
    if (line === null) throw new Error('no line');
    expect(issueStock(network, line, 1)).toMatchObject({
      ok: false,
      why: expect.stringContaining('at most 0'),
    });
    const back = lineOf(network);
    network = done(network, giveBack(network, row, back ?? null));
    expect(lineOf(network)).toMatchObject({ toBuy: 4, reserved: 0 });
    network = done(network, issueStock(network, line, 3));
    expect(stockLineOf(network, ap)?.count).toBe(0);
    expect(giveBack(network, row, back ?? null)).toMatchObject({ ok: false });
  });

  test('wrong counts and lengths are told with the part and the remedy', () => {
    const cable = { modelId: model('OS2 duplex LC'), placeId: store };
    const why = (attempt: Attempt): string => (attempt.ok ? '' : attempt.why);
    expect(why(receiveStock(base, { ...cable, lengthM: null }, 1))).toContain('kept by its length');
    expect(why(receiveStock(base, { ...cable, lengthM: 4 }, 1))).toContain('not made in 4 m');
    expect(why(receiveStock(base, { ...ap, lengthM: 4 }, 1))).toContain('not made in lengths');
    expect(why(receiveStock(base, ap, 0))).toContain('whole number');
    expect(why(receiveStock(base, ap, 1.5))).toContain('whole number');
    expect(why(countStock(base, ap, { count: -1 }))).toContain('below 0');
    expect(why(reserveInStock(base, list(base), partsOf(base, list(base), day).lines))).toContain('No store');
  });
});

describe('prices', () => {
  const base = growing();
  const modelId = base.findOne('modelByTitle', 'norvane wa-52')?.id ?? '';
  const priced =
    (name: string, from: string, unitMinor: number, rest: object = {}) =>
    (network: Network) =>
      done(
        network,
        keepPriceList(
          network,
          {
            ...{
              name,
              supplier: `${name} Ltd`,
              currency: 'EUR',
              validFrom: from,
              validUntil: null,
              notes: null,
            },
            ...rest,
          },
          [{ modelId, lengthM: null, licence: null, unitMinor, pack: 4 }],
        ),
      );
  const offer = (network: Network) =>
    partsOf(network, list(network), day).lines.find(({ part }) => part.what === 'Norvane WA-52');

  test('the list that began last of those that hold; whole packs; else the catalogue', () => {
    expect(offer(base)).toMatchObject({ order: 1, amountMinor: 54_000, offer: { supplier: null } });
    const two = priced('New', '2026-06-01', 47_000)(priced('Old', '2026-01-01', 40_000)(base));
    expect(offer(two)).toMatchObject({
      order: 4,
      toBuy: 1,
      amountMinor: 188_000,
      offer: { supplier: 'New Ltd' },
    });
    expect(offer(priced('Later', '2026-12-01', 1)(two))?.offer?.list).toBe('New');
    expect(offer(priced('Ended', '2026-07-01', 1, { validUntil: '2026-11-29' })(two))?.offer?.list).toBe(
      'New',
    );
    // One in another currency comes last, and its amount is not guessed.
    const pounds = priced('Pounds', '2026-07-01', 1, { currency: 'GBP' });
    expect(offer(pounds(two))?.offer?.list).toBe('New');
    expect(offer(pounds(base))).toMatchObject({ amountMinor: null, offer: { currency: 'GBP' } });
    expect(inPacks(0, 5)).toBe(0);
    expect([1, 5, 6].map((count) => inPacks(count, 5))).toEqual([5, 5, 10]);
  });

  test('grouped by section, supplier and place; the same lines as one table', () => {
    const two = priced('New', '2026-06-01', 47_000)(base);
    const answer = partsOf(two, list(two), day);
    const by = (grouping: 'section' | 'supplier' | 'place') => partGroupsOf(two, list(two), answer, grouping);
    expect(by('section').map(({ title }) => title)).toEqual(['Devices', 'Cables', 'Power cords', 'Licences']);
    expect(by('supplier').map(({ title }) => title)).toEqual(['catalogue price', 'New Ltd', 'no price']);
    expect(by('place').map(({ title }) => title)).toEqual(['in no place', 'Quay']);
    for (const grouping of ['section', 'supplier'] as const)
      expect(by(grouping).reduce((sum, { totalMinor }) => sum + (totalMinor ?? 0), 0)).toBe(
        answer.totalMinor,
      );
    expect(partsTable(two, list(two), answer, 'section').rows).toHaveLength(answer.lines.length);
    expect(reportRows(partsTable(two, list(two), answer, 'supplier'))).toContain('New Ltd');
  });
});

describe('fit to order', () => {
  test('everything known and no finding: nothing is said', () => {
    const network = smallRoom();
    expect(toOrder(network, list(network))).toEqual([]);
  });

  test('what is not known, no longer sold, priced elsewhere; the worst first', () => {
    const network = growing();
    const wa31 = network.findOne('modelByTitle', 'norvane wa-31');
    const planned = applyChanges(network, [
      create('device', {
        ...blankDevice,
        id: newId(),
        name: 'ap-9',
        role: 'AP',
        modelId: wa31?.id ?? null,
        status: 'planned',
      }),
    ]);
    if (!planned.ok) throw new Error('not applied');
    const of = list(planned.network, { counts: 'planned' });
    const told = toOrder(planned.network, of);
    const texts = told.map(({ text }) => text);
    expect(texts).toContain('Norvane WA-31 is no longer sold since 2024-09-30. Norvane WA-52 replaces it.');
    expect(texts).toContain('server, model not chosen: Choose the model.');
    expect(texts).toContain('OS2 duplex LC, length not known: Give the length, or draw the way it takes.');
    const severities = told.map(({ severity }) => severity);
    expect(severities.indexOf('warn')).toBeGreaterThan(severities.lastIndexOf('bad'));
  });

  test('findings that there would be with all of it in place are told before it is ordered', () => {
    const base = networkOf({
      places: [{ path: 'Quay', kind: 'site' }],
      racks: [{ name: 'R1', place: 'Quay', units: 20, massLimitKg: 10 }],
      devices: [
        { name: 'a', model: 'Norvane CR-6032', rack: 'R1', unit: 3 },
        { name: 'b', model: 'Norvane CR-6032', rack: 'R1', unit: 5, status: 'planned' },
      ],
    });
    const told = toOrder(base, list(base));
    expect(
      told.filter(({ line }) => line === null).map(({ severity, text }) => [severity, text]),
    ).toContainEqual(['bad', expect.stringMatching(/R1 holds 20 kg/)]);
    // Without the second switch it carries what it holds.
    const rack = base.findOne('rackByName', 'r1');
    const strong = applyChanges(
      base,
      rack === null ? [] : [update('rack', rack, { massLimitKg: 500 })].filter((one) => one !== null),
    );
    if (!strong.ok) throw new Error('not applied');
    const then = toOrder(strong.network, list(base));
    expect(then.some(({ text }) => text.includes('R1 holds'))).toBe(false);
  });
});
