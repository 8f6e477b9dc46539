import { expect, test } from '@jest/globals';
import { testCloud, testGateway, testInstance } from '../testing/testCloud.ts';
import { demoNetwork } from '../testing/testDemo.ts';
import { cloudCost, costsBy, listOn } from './cost.ts';

const euro = (millionths: number | null): string =>
  millionths === null ? '?' : (millionths / 1e6).toFixed(2);

test('the month of the demo, line by line, from its own figures', () => {
  const demo = demoNetwork();
  const [profile] = demo.all('providerProfile');
  const list = listOn(demo, profile?.id ?? null, '2026-11-30');
  if (list === null) throw new Error('no list');
  const cost = cloudCost(demo, null, list);
  const lines = Object.fromEntries(cost.lines.map((one) => [`${one.name} ${one.of}`, euro(one.millionths)]));
  // 730 h x 0.268 = 195.64; 400 GB x 0.094 = 37.60; 730 x 0.052 = 37.96.
  expect(lines).toMatchObject({
    'cl-db-1 instance': '195.64',
    'cl-db-1 storage': '37.60',
    'cl-nat-1 gateway': '37.96',
    'cl-gw-1 gateway': '0.00',
    '203.0.113.40 keptAddress': '3.65',
    // Web in the second zone asks the database in the first: 140 GB x 0.01; in its own zone it costs nothing.
    'cl-web-2 to cl-db-1 acrossZones': '1.40',
    'cl-db-1 to cl-db-2 acrossZones': '0.90',
    // 35 GB x 0.086 outbound, and x 0.048 through the translation.
    'cl-web-1 to the internet outbound': '3.01',
    'cl-web-1 to the internet gatewayTraffic': '1.68',
    'cl-lb-1 to the internet outbound': '53.32',
  });
  expect(Object.keys(lines)).not.toContain('cl-web-1 to cl-db-1 acrossZones');
  expect(cost.unpriced).toBe(0);
  // The sum of what is listed, and the same by any division of it.
  const total = cost.lines.reduce((sum, { millionths }) => sum + (millionths ?? 0), 0);
  expect(cost.total).toBe(total);
  for (const by of ['network', 'zone', 'kind', { label: 'cost-centre' }] as const)
    expect(costsBy(cost, by).reduce((sum, { millionths }) => sum + millionths, 0)).toBe(total);
  expect(costsBy(cost, { label: 'cost-centre' }).map(({ key }) => key)).toEqual(['4410', null]);
});

test('what has no price is named, what is stopped costs its storage alone, and a list holds from its day on', () => {
  const cloud = testCloud({
    devices: [testInstance('vm', 'one', '10.1.0.9/24'), testGateway('gw', { place: 'acct/north/one' })],
    gateways: [{ device: 'gw', network: 'acct/north/one' }],
    instances: [{ device: 'vm', size: 'm', running: false, storageGb: 10 }],
    providerProfiles: [{ name: 'P' }],
    cloudPriceLists: [
      { name: 'old', profile: 'P', currency: 'EUR', validFrom: '2026-01-01' },
      { name: 'new', profile: 'P', currency: 'EUR', validFrom: '2026-07-01' },
    ],
    cloudPrices: [
      { list: 'new', of: 'instance', which: 'm', millionths: 100000 },
      { list: 'new', of: 'storage', millionths: 50000 },
    ],
  });
  const [profile] = cloud.all('providerProfile');
  const on = (day: string) => listOn(cloud, profile?.id ?? null, day)?.name ?? null;
  expect([on('2025-12-31'), on('2026-06-30'), on('2026-07-01')]).toEqual([null, 'old', 'new']);
  const list = listOn(cloud, profile?.id ?? null, '2026-08-01');
  if (list === null) throw new Error('no list');
  const cost = cloudCost(cloud, null, list);
  expect(cost.lines.map(({ name, of, millionths }) => `${name} ${of} ${euro(millionths)}`)).toEqual([
    'gw gateway ?',
    'vm instance 0.00',
    'vm storage 0.50',
  ]);
  expect([cost.total, cost.unpriced]).toEqual([500000, 1]);
});
