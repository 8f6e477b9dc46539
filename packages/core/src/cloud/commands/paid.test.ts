import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../../change/apply.ts';
import type { Network } from '../../model/network/network.ts';
import {
  doneIn as done,
  placeNamed,
  whyNot as why,
  everyCloud,
  subnetNamed,
  testCloud,
  testGateway,
  testInstance,
} from '../../testing/testCloud.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { deviceNamed, portId } from '../../testing/testNetwork.ts';
import { runs } from '../../testing/testRuns.ts';
import { translationCosts } from '../alternatives.ts';
import { cloudCost, hoursPerMonth, listOn } from '../cost.ts';
import { effectiveRoutes } from '../effectiveRoutes.ts';
import { readCloudPriceRows } from '../exchange/priceRows.ts';
import { cloudPriceSchedule, publicAddressSchedule } from '../reports/paid.ts';
import { internetReachSchedule, zoneLossSchedule } from '../reports/reach.ts';
import { addHub, attachToHub, blocksBehind, hubsIn } from './hubs.ts';
import { addInstance, addTarget, describeInstance } from './instances.ts';
import { addPriceList, estimateFlow, priceText, pricesIn, readPrice, setPrice } from './prices.ts';
import { addPublicAddress, publicAddressesIn, standFor } from './publicAddresses.ts';

const portOf = (network: Network, name: string) => network.get('port', portId(network, name));

describe('public addresses', () => {
  const cloud = testCloud({ devices: [testInstance('web', 'one', '10.1.0.10/24')] });
  const one = placeNamed(cloud, 'one');
  const kept = { address: '203.0.113.7', hold: 'kept' as const };

  test('kept for nothing, given to an interface, taken off it, given again by its text', () => {
    const there = done(cloud, addPublicAddress(cloud, one, { ...kept, port: null }));
    const [row] = publicAddressesIn(there, placeNamed(there, 'north').id);
    expect(row).toMatchObject({ address: '203.0.113.7', portId: null, hold: 'kept' });
    // It belongs to the region, wherever it was asked for.
    expect(row?.placeId).toBe(placeNamed(there, 'north').id);
    const port = portOf(there, 'web:eth0');
    const given = done(there, addPublicAddress(there, one, { ...kept, port }));
    expect(publicAddressesIn(given, one.parentId ?? '').map(({ portId: at }) => at)).toEqual([port?.id]);
    const table = publicAddressSchedule(given, null);
    expect(table.rows[0]).toMatchObject({ address: '203.0.113.7', device: 'web', interface: 'eth0' });
    expect(why(addPublicAddress(given, one, { ...kept, port }))).toBe(
      '203.0.113.7 stands for web eth0 already. Take it off there first.',
    );
    const [taken] = publicAddressesIn(given, one.parentId ?? '');
    if (taken === undefined) throw new Error('no address');
    const off = done(given, standFor(given, taken, null));
    expect(publicAddressesIn(off, one.parentId ?? '')[0]?.portId).toBeNull();
  });

  test('what is none, or of private space, is refused', () => {
    expect(why(addPublicAddress(cloud, one, { ...kept, address: '203.0.113', port: null }))).toBe(
      '“203.0.113” is not an address such as 203.0.113.40.',
    );
    expect(why(addPublicAddress(cloud, one, { ...kept, address: '10.1.0.9', port: null }))).toContain(
      'is private',
    );
  });
});

describe('routers of a region', () => {
  test('made with a table that takes in what is attached; the second attached leads to the first', () => {
    const cloud = testCloud();
    const north = placeNamed(cloud, 'north');
    const made = addHub(cloud, north, 'hub-1');
    const hubbed = done(cloud, made);
    expect(hubsIn(hubbed, north.id).map(({ name }) => name)).toEqual(['hub-1']);
    const hub = deviceNamed(hubbed, 'hub-1');
    const first = done(hubbed, attachToHub(hubbed, placeNamed(hubbed, 'one'), hub, []));
    expect(blocksBehind(first, hub.id, placeNamed(first, 'two').id)).toEqual(['10.1.0.0/16']);
    const second = done(
      first,
      attachToHub(first, placeNamed(first, 'two'), hub, blocksBehind(first, hub.id, '')),
    );
    const { routes } = effectiveRoutes(second, subnetNamed(second, 'two', 'a'));
    expect(routes.find(({ text }) => text === '10.1.0.0/16')?.way).toEqual({
      by: 'gateway',
      deviceId: hub.id,
    });
    // A gateway that is attached to a network is none.
    const other = testCloud({
      devices: [testGateway('vpn')],
      gateways: [{ device: 'vpn', direction: 'between', network: 'acct/north/one' }],
    });
    expect(hubsIn(other, placeNamed(other, 'north').id)).toEqual([]);
  });
});

describe('instances', () => {
  test('one that is added can be given a size at once; an older one is described first', () => {
    const cloud = testCloud({ devices: [testInstance('old', 'one', '10.1.0.10/24')] });
    const subnet = subnetNamed(cloud, 'one', 'a');
    const with2 = done(cloud, addInstance(cloud, subnet, { name: 'new', role: 'VM', setIds: [] }));
    expect(with2.findOne('instanceByDevice', deviceNamed(with2, 'new').id)).toMatchObject({ running: true });
    const old = deviceNamed(with2, 'old');
    expect(with2.findOne('instanceByDevice', old.id)).toBeNull();
    const described = done(with2, describeInstance(with2, old));
    expect(described.findOne('instanceByDevice', old.id)).toMatchObject({ size: null, running: true });
    expect(why(describeInstance(described, old))).not.toBe('it can');
  });

  test('a load balancer sends to another, once, and not to itself', () => {
    const cloud = testCloud({
      devices: [testInstance('lb', 'one', '10.1.0.10/24'), testInstance('web', 'one', '10.1.0.11/24')],
    });
    const [lb, web] = [deviceNamed(cloud, 'lb'), deviceNamed(cloud, 'web')];
    const to = { protocol: 'TCP', listens: 443, port: 8443 } as const;
    const sent = done(cloud, addTarget(cloud, lb, web, to));
    expect(sent.find('targetsByBalancer', lb.id)).toMatchObject([{ deviceId: web.id, port: 8443 }]);
    expect(why(addTarget(sent, lb, web, to))).toContain('lb sends TCP 443 to web already');
    expect(why(addTarget(sent, lb, lb, to))).toContain('cannot send to itself');
    expect(why(addTarget(sent, lb, web, { ...to, listens: 70_000 }))).toContain('65');
  });
});

describe('prices', () => {
  const demo = demoNetwork();
  const [list] = [...demo.all('cloudPriceList')];
  if (list === undefined) throw new Error('no list');

  test('a price is written and read without loss, to the sixth decimal', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e12 }), (millionths) => {
        expect(readPrice(priceText(millionths))).toBe(millionths);
      }),
      { numRuns: runs(200) },
    );
    expect(priceText(5200)).toBe('0.0052');
    expect(priceText(1_500_000)).toBe('1.50');
    for (const text of ['', '-1', '1.1234567', 'free', '1 000', '12345678'])
      expect(readPrice(text)).toBeNull();
  });

  test('set, changed, taken out; a list that follows another begins with its prices', () => {
    const size = { of: 'instance' as const, which: 'new-1' };
    const set = done(demo, setPrice(demo, list, size, 42_000));
    expect(pricesIn(set, list.id).find(({ which }) => which === 'new-1')?.millionths).toBe(42_000);
    const cheaper = done(set, setPrice(set, list, size, 41_000));
    expect(pricesIn(cheaper, list.id).filter(({ which }) => which === 'new-1')).toHaveLength(1);
    const gone = done(cheaper, setPrice(cheaper, list, size, null));
    expect(pricesIn(gone, list.id)).toEqual(pricesIn(demo, list.id));
    expect(why(setPrice(gone, list, size, null))).toContain('has no price of instance new-1');
    const profile = demo.get('providerProfile', list.profileId);
    if (profile === null) throw new Error('no profile');
    const wish = { name: 'Next', currency: 'eur', validFrom: '2027-01-01', after: list } as const;
    const next = done(demo, addPriceList(demo, profile, wish));
    expect(listOn(next, profile.id, '2027-02-01')?.name).toBe('Next');
    expect(listOn(next, profile.id, '2026-12-31')?.name).toBe(list.name);
    const [following] = [...next.all('cloudPriceList')].filter(({ name }) => name === 'Next');
    expect(following?.currency).toBe('EUR');
    expect(cloudCost(next, null, following ?? list).total).toBe(cloudCost(demo, null, list).total);
    expect(why(addPriceList(next, profile, wish))).not.toBe('it can');
  });

  test('a schedule of prices is read into a list as it was written', () => {
    const { columns, rows } = cloudPriceSchedule(demo);
    const cells = [
      columns.map(({ label }) => label),
      ...rows.map((row) => columns.map(({ key }) => String(row[key] ?? ''))),
    ];
    const same = readCloudPriceRows(demo, list, cells);
    expect(same.problem).toBeNull();
    expect(new Set(same.results.map(({ does }) => does))).toEqual(new Set(['nothing']));
    const profile = demo.get('providerProfile', list.profileId);
    if (profile === null) throw new Error('no profile');
    const made = addPriceList(demo, profile, {
      ...{ name: 'Empty', currency: 'EUR', validFrom: '2027-01-01', after: null },
    });
    const empty = done(demo, made);
    const target = made.ok ? made.list : list;
    const read = readCloudPriceRows(empty, target, cells);
    const filled = applyChanges(empty, read.changes);
    if (!filled.ok) throw new Error(filled.problems[0]?.message);
    const plain = (id: string) =>
      pricesIn(filled.network, id).map(({ of, which, millionths }) => ({ of, which, millionths }));
    expect(plain(target.id)).toEqual(plain(list.id));
  });

  test('rows that are wrong say what is; the others are taken', () => {
    const read = readCloudPriceRows(demo, list, [
      ['Of', 'Which', 'Price', 'Currency'],
      ['Instance', 'huge', '1,25', 'EUR'],
      ['Lunch', '', '9.00', 'EUR'],
      ['Instance', 'huge-2', 'dear', 'EUR'],
      ['Instance', 'huge-3', '1.00', 'NOK'],
      ['Storage', 'fast', '1.00', 'EUR'],
    ]);
    expect(read.results.map(({ does }) => does)).toEqual(['adds', 'wrong', 'wrong', 'wrong', 'wrong']);
    const problems = read.results.map(({ problem }) => problem ?? '');
    expect(problems[1]).toContain('“Lunch” is nothing that a provider asks money for');
    expect(problems[2]).toContain('“dear” is not an amount');
    expect(problems[3]).toContain('The price is in NOK');
    expect(problems[4]).toContain('there is one price of storage');
    expect(readCloudPriceRows(demo, list, [['Price']]).problem).toContain('“of”');
  });

  test('a flow is reckoned once: said again it is changed', () => {
    const [web, db] = [deviceNamed(demo, 'cl-web-1'), deviceNamed(demo, 'cl-db-1')];
    const before = demo.find('flowsFrom', web.id).length;
    const said = done(demo, estimateFlow(demo, web, db, 900));
    expect(said.find('flowsFrom', web.id)).toHaveLength(before);
    expect(said.find('flowsFrom', web.id).find(({ toId }) => toId === db.id)?.gbPerMonth).toBe(900);
    expect(why(estimateFlow(demo, web, web, 5))).toContain('choose another');
    expect(why(estimateFlow(demo, web, null, -1))).not.toBe('it can');
  });
});

describe('translation', () => {
  /** Two zones; `a` sends 100 GB and `b` 40 to the internet, through one gateway in `a`. */
  const cloud = testCloud({
    providerProfiles: [{ name: 'P' }],
    cloudAccounts: [{ place: 'acct', profile: 'P' }],
    devices: [
      testInstance('in-a', 'one', '10.1.0.10/24'),
      testInstance('in-b', 'one', '10.1.1.10/24'),
      { ...testGateway('nat'), place: 'acct/north/a' },
      testGateway('door'),
    ],
    gateways: [
      { device: 'nat', direction: 'out', translates: true, reach: 'zonal', network: 'acct/north/one' },
      { device: 'door', network: 'acct/north/one' },
    ],
    cloudRoutes: [{ table: 'acct/north/one/main', prefix: '0.0.0.0/0', gateway: 'nat' }],
    cloudPriceLists: [{ name: 'L', profile: 'P', currency: 'EUR', validFrom: '2026-01-01' }],
    cloudPrices: [
      { list: 'L', of: 'gateway', millionths: 50_000 },
      { list: 'L', of: 'acrossZones', millionths: 10_000 },
    ],
    flowEstimates: [
      { from: 'in-a', gbPerMonth: 100 },
      { from: 'in-b', gbPerMonth: 40 },
    ],
  });
  const [list] = [...cloud.all('cloudPriceList')];
  const one = placeNamed(cloud, 'one');

  test('once or in each zone, by the hour and by what crosses', () => {
    if (list === undefined) throw new Error('no list');
    const hours = 50_000 * hoursPerMonth;
    const costs = translationCosts(cloud, one.id, list);
    expect(costs?.now).toEqual({
      ...{ gateways: 1, hours, crossingGb: 40, crossing: 400_000, total: hours + 400_000 },
    });
    expect(costs?.once).toEqual(costs?.now);
    expect(costs?.each).toEqual({
      ...{ gateways: 2, hours: 2 * hours, crossingGb: 0, crossing: 0, total: 2 * hours },
    });
    expect(translationCosts(cloud, placeNamed(cloud, 'two').id, list)).toBeNull();
    // With the zone of the gateway the other one loses its way out.
    const lost = zoneLossSchedule(cloud, one.id).rows.filter(({ zone }) => zone === 'a');
    expect(lost.map(({ name, comes }) => `${name ?? ''} ${comes ?? ''}`)).toEqual([
      'in-a gone, and nothing else does it',
      'b loses its way out',
    ]);
  });

  test('what crosses to the gateway is on the bill as well', () => {
    if (list === undefined) throw new Error('no list');
    const lines = cloudCost(cloud, null, list).lines.filter(({ of }) => of === 'acrossZones');
    expect(lines.map(({ name, amount, millionths }) => ({ name, amount, millionths }))).toEqual([
      { name: 'in-b to the internet', amount: 40, millionths: 400_000 },
    ]);
  });

  test('without a price nothing is guessed', () => {
    if (list === undefined) throw new Error('no list');
    const [, across] = pricesIn(cloud, list.id);
    if (across === undefined) throw new Error('no price');
    const less = done(cloud, setPrice(cloud, list, across, null));
    expect(translationCosts(less, one.id, list)?.now.total).toBeNull();
    expect(translationCosts(less, one.id, list)?.each.total).toBe(100_000 * hoursPerMonth);
  });
});

test('what the internet may call, and what fails with a zone, as tables', () => {
  const demo = demoNetwork();
  const reach = internetReachSchedule(demo, null);
  const called = reach.rows.map(({ instance, ports, who, through }) => ({ instance, ports, who, through }));
  expect(called).toContainEqual({ instance: 'cl-lb-1', ports: '443', who: 'everybody', through: null });
  expect(called).toContainEqual({ instance: 'cl-web-1', ports: '443', who: 'everybody', through: 'cl-lb-1' });
  expect(called.map(({ instance }) => instance)).not.toContain('cl-db-1');
  const losses = zoneLossSchedule(demo, null);
  expect(losses.rows.find(({ name }) => name === 'cl-web-1')?.['comes']).toBe(
    'gone, done by another elsewhere',
  );
  // Every row leads to something that is there.
  for (const { ids } of [reach, losses])
    for (const id of ids) expect(demo.get('device', id ?? '')).not.toBeNull();
  const everything = everyCloud();
  expect(internetReachSchedule(everything, null).rows.length).toBeGreaterThan(0);
});
