import { expect, test } from '@jest/globals';
import { findReport } from '../report/registry.ts';
import { demoNetwork } from '../testing/testDemo.ts';
import { networkPicture, tierName } from './picture.ts';
import { networksIn } from './inventory.ts';
import {
  cloudGatewaySchedule,
  cloudInstanceSchedule,
  cloudRouteSchedule,
  cloudRuleSchedule,
  cloudSubnetSchedule,
} from './reports/cloud.ts';

const demo = demoNetwork();
const booking = networksIn(demo, null).find(({ name }) => name === 'booking');

test('the picture of the demo: zones side by side, the most open tier on top, gateways at the border', () => {
  const picture = networkPicture(demo, booking?.id ?? '');
  expect(picture.zones.map(({ name }) => name)).toEqual(['n1a', 'n1b']);
  expect(
    picture.tiers.map(({ name, nature, zones }) => [
      name,
      nature,
      zones.map((column) =>
        column.flatMap(({ seated }) => seated.map(({ device }) => device.name)).join(' '),
      ),
    ]),
  ).toEqual([
    ['open', 'open', ['cl-nat-1 cl-lb-1', 'cl-nat-2 cl-lb-1']],
    ['service', 'outward only', ['cl-door-1 cl-web-1', 'cl-web-2']],
    ['data', 'closed', ['cl-db-1', 'cl-db-2']],
  ]);
  expect(picture.outer.map(({ device }) => device.name)).toEqual(['cl-gw-1']);
  expect(picture.between.map(({ device }) => device.name)).toEqual(['cl-vpn-1']);
});

test('a tier is called as its subnets are without their zone', () => {
  const zoneId = [...demo.all('place')].find(({ name }) => name === 'n1a')?.id ?? '';
  const called = (name: string) => tierName(demo, { name, zoneId });
  expect([called('open-n1a'), called('n1a.app'), called('n1a'), called('web')]).toEqual([
    'open',
    'app',
    'n1a',
    'web',
  ]);
});

test('cloud-subnets, cloud-routes, cloud-rules, cloud-instances and cloud-gateways as schedules', () => {
  const row = (made: ReturnType<typeof cloudSubnetSchedule>, by: Record<string, unknown>) =>
    made.rows.filter((one) => Object.entries(by).every(([key, value]) => one[key] === value));
  const subnets = cloudSubnetSchedule(demo, null);
  expect(subnets.rows).toHaveLength(7);
  // 256 addresses, four kept at the start and one at the end, two taken.
  expect(row(subnets, { name: 'open-n1a' })).toEqual([
    expect.objectContaining({
      zone: 'n1a',
      nature: 'open',
      by: 'cl-gw-1',
      table: 'open',
      interfaces: 2,
      free: 249,
    }),
  ]);
  expect(
    row(cloudRouteSchedule(demo, booking?.id ?? null), { table: 'outward-n1b', destination: '0.0.0.0/0' }),
  ).toEqual([
    expect.objectContaining({
      through: 'cl-nat-2',
      source: 'written',
      subnets: 'service-n1b',
      state: 'used',
    }),
  ]);
  expect(row(cloudRuleSchedule(demo, null), { set: 'front', direction: 'in', position: 10 })).toEqual([
    expect.objectContaining({ traffic: 'https (TCP 443)', peer: 'everybody', verdict: 'allow' }),
  ]);
  expect(row(cloudInstanceSchedule(demo, null), { name: 'cl-web-1' })).toEqual([
    expect.objectContaining({
      zone: 'n1a',
      subnet: 'service-n1a',
      seen: '203.0.113.30',
      rules: 'service',
      labels: 'cost-centre: 4410',
    }),
  ]);
  expect(row(cloudGatewaySchedule(demo, null), { name: 'cl-nat-1' })).toEqual([
    expect.objectContaining({ translates: 'yes', stands: 'n1a', public: '203.0.113.30' }),
  ]);
});

test('each kind of a cloud that has a name of its own is a schedule of its own', () => {
  const rowsOf = (key: string): number => findReport(key)?.make(demo, null).rows.length ?? -1;
  expect(
    (
      [
        'cloud-subnets',
        'cloud-routes',
        'cloud-rules',
        'cloud-instances',
        'cloud-gateways',
        'provider-profile',
        'prefix-list',
        'rule-set',
        'hub-attachment',
        'cloud-route',
        'cloud-reach',
        'cloud-zones',
        'cloud-public-addresses',
        'cloud-prices',
        'dns-zone',
        'dns-record',
        'dns-forward',
        'demanded-label',
      ] as const
    ).map((key) => [key, rowsOf(key)]),
  ).toEqual([
    ['cloud-subnets', 7],
    ['cloud-routes', 18],
    ['cloud-rules', 22],
    ['cloud-instances', 7],
    ['cloud-gateways', 5],
    ['provider-profile', 1],
    ['prefix-list', 1],
    ['rule-set', 5],
    ['hub-attachment', 0],
    ['cloud-route', 6],
    ['cloud-reach', 16],
    ['cloud-zones', 5],
    ['cloud-public-addresses', 7],
    ['cloud-prices', 16],
    ['dns-zone', 1],
    ['dns-record', 6],
    ['dns-forward', 1],
    ['demanded-label', 1],
  ]);
});
