import { expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { update } from '../../change/change.ts';
import { readExchange, writeExchange } from '../../exchange/index.ts';
import { Network } from '../../model/network/network.ts';
import { deviceNamed, networkOf } from '../../testing/testNetwork.ts';
import { findReport } from '../../report/registry.ts';
import { tableToCsv } from '../../report/table.ts';

const bought = {
  assetNumber: 'MS-00417',
  supplier: 'Tarn & Loft Supply',
  orderNumber: '4711-22',
  boughtOn: '2024-02-27',
  priceMinor: 189050,
  currency: 'EUR',
  warrantyUntil: '2027-02-28',
  contract: 'C-8812',
  supportUntil: '2029-02-28',
  softwareVersion: '7.4.2',
  responsible: 'Ilse Brandt',
};
const network = networkOf({
  places: [{ path: 'Quay' }, { path: 'Quay/Room' }],
  devices: [
    { name: 'sw-1', model: 'Norvane AX-2448P', place: 'Quay/Room', serial: 'NV31-1', ...bought },
    { name: 'sw-2', model: 'Norvane AX-2448P' },
  ],
});

test('the inventory tells what is known, and leaves the rest empty', () => {
  const table = findReport('inventory')?.make(network, null);
  expect(table?.rows).toHaveLength(2);
  const { priceMinor: _minor, ...said } = bought;
  expect(table?.rows[0]).toEqual({
    name: 'sw-1',
    model: 'Norvane AX-2448P',
    serial: 'NV31-1',
    place: 'Room',
    price: 1890.5,
    ...said,
  });
  expect(table?.rows[1]).toMatchObject({ name: 'sw-2', price: null, place: 'not placed yet' });
  expect(tableToCsv(table ?? { columns: [], rows: [], ids: [] }).split('\r\n')[1]).toContain('1890.5,EUR');
});

test('a file tells it again, MAC addresses of ports too', () => {
  const sw = deviceNamed(network, 'sw-1');
  const port = network.find('portsByDevice', sw.id)[0];
  if (port === undefined) throw new Error('no port');
  const change = update('port', port, { mac: '02:00:5e:00:53:01' });
  const made = applyChanges(network, change === null ? [] : [change]);
  if (!made.ok) throw new Error(made.problems[0]?.message);
  const again = readExchange(Network.empty(), writeExchange(made.network));
  if (!again.ok) throw new Error(again.problems[0]?.message);
  const read = deviceNamed(again.network, 'sw-1');
  expect(read).toMatchObject(bought);
  expect(again.network.findOne('portByName', `${read.id}:${port.name.toLowerCase()}`)?.mac).toBe(
    '02:00:5e:00:53:01',
  );
});

test('a price without a currency, and a day that is none, are refused by name', () => {
  const sw = deviceNamed(network, 'sw-2');
  const tried = (fields: object): string | undefined => {
    const change = update('device', sw, fields);
    const made = applyChanges(network, change === null ? [] : [change]);
    return made.ok ? undefined : made.problems[0]?.message;
  };
  expect(tried({ priceMinor: 100 })).toContain('Currency is missing although a price is given');
  expect(tried({ warrantyUntil: '2027-02-30' })).toContain('Warranty until is not a date such as 2031-06-30');
  expect(tried({ priceMinor: 100, currency: 'EUR', warrantyUntil: '2027-02-28' })).toBeUndefined();
});
