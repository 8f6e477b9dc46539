import { describe, expect, test } from '@jest/globals';
import { demoNetwork } from '../testing/testDemo.ts';
import { networkOf } from '../testing/testNetwork.ts';
import { chartsOf } from './charts.ts';

const demo = demoNetwork();
const chart = (key: string, network = demo, scopeId: string | null = null) => {
  const found = chartsOf(network, scopeId).find((one) => one.key === key);
  if (found === undefined) throw new Error(`no chart ${key}`);
  return found.table.rows;
};

describe('charts', () => {
  test('ports by site: those in use and free are all that carry data, counted over the network itself', () => {
    const carrying = [...demo.all('port')].filter(({ form, role, deviceId }) => {
      const device = demo.get('device', deviceId);
      return (
        form === 'physical' &&
        (role === 'network' || role === 'uplink') &&
        device?.status === 'active' &&
        (device.rackId ?? device.placeId) !== null
      );
    });
    const total = chart('ports').reduce((sum, row) => sum + Number(row['used']) + Number(row['free']), 0);
    expect(total).toBe(carrying.length);
    expect(chart('ports').map(({ site }) => site)).toContain('Kelder Quay');
  });

  test('units by site add up to those of all racks', () => {
    const units = [...demo.all('rack')].reduce((sum, rack) => sum + rack.units, 0);
    expect(chart('units').reduce((sum, row) => sum + Number(row['used']) + Number(row['free']), 0)).toBe(
      units,
    );
  });

  test('by year, with the years in which nothing was bought, and those of which nobody knows', () => {
    const network = networkOf({
      devices: [
        { name: 'a', role: 'SW', boughtOn: '2021-05-01' },
        { name: 'b', role: 'SW', installedOn: '2023-01-02' },
        { name: 'c', role: 'SW', boughtOn: '2023-11-30', installedOn: '2024-01-01' },
        { name: 'd', role: 'SW' },
        { name: 'e', role: 'SW', boughtOn: '2019-01-01', status: 'retired' },
        { name: 'f', role: 'VM' },
      ],
    });
    expect(chart('age', network)).toEqual([
      { year: '2021', devices: 1 },
      { year: '2022', devices: 0 },
      { year: '2023', devices: 2 },
      { year: 'not known', devices: 1 },
    ]);
  });

  test('the fullest prefixes first, use and rest together all of it; of one site, and of nothing', () => {
    const rows = chart('addresses');
    const shares = rows.map(({ used }) => Number(used));
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
    expect(rows.every(({ used, free }) => Math.abs(Number(used) + Number(free) - 100) < 0.06)).toBe(true);
    expect(rows.length).toBeLessThanOrEqual(20);
    const ashholm = [...demo.all('place')].find(({ name }) => name === 'Ashholm')?.id ?? '';
    expect(chart('ports', demo, ashholm).map(({ site }) => site)).toEqual(['Ashholm']);
    expect(chartsOf(networkOf({}), null).flatMap(({ table }) => table.rows)).toEqual([]);
  });
});
