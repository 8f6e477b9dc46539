import { expect, test } from '@jest/globals';
import { networkOf } from '../testing/testNetwork.ts';
import { findReport } from './registry.ts';

/** A switch that feeds a camera, a run of 40 m over two optics, a circuit, a DHCP range, a label that is missing. */
const network = networkOf({
  vrfs: [{ name: 'ops', routeDistinguisher: '64500:1' }],
  vlanNumberings: [{ name: 'shore', vlans: [{ vid: 20, name: 'Operations', vrf: 'ops' }] }],
  places: [
    { path: 'Quay', kind: 'site', code: 'KQ', vlanNumbering: 'shore' },
    { path: 'Quay/Room', kind: 'room' },
  ],
  racks: [
    { name: 'R1', place: 'Quay/Room', units: 42, massLimitKg: 600 },
    { name: 'R2', place: 'Quay/Room', units: 20, massLimitKg: 400 },
  ],
  prefixes: [
    {
      prefix: '10.1.0.0/23',
      vrf: 'ops',
      vlan: 'shore/20',
      gateway: '10.1.0.1',
      place: 'Quay',
      ranges: [
        { from: '10.1.0.50', to: '10.1.0.99', use: 'DHCP', note: '' },
        { from: '10.1.1.1', to: '10.1.1.20', use: 'reserved', note: 'printers' },
      ],
    },
  ],
  devices: [
    {
      name: 'sw',
      model: 'Norvane AX-2424P',
      rack: 'R1',
      unit: 10,
      ports: [{ name: 'te1/25', transceiver: 'Lumenroot LR-10', transceiverSerial: 'L-1' }],
    },
    {
      name: 'sw2',
      model: 'Norvane AX-2424P',
      rack: 'R2',
      unit: 1,
      ports: [{ name: 'te1/25', transceiver: 'Lumenroot LR-10' }],
    },
    { name: 'cam', model: 'Pellane Domus 4', place: 'Quay' },
  ],
  cables: [
    { label: 'KQ-00001', type: 'OS2 duplex LC', lengthM: 40, a: 'sw:te1/25', b: 'sw2:te1/25' },
    { label: 'KQ-00003', type: 'Cat 6A RJ45', lengthM: 30, a: 'sw:gi1/1', b: 'cam:eth0' },
  ],
  circuits: [{ number: 'TL-7', provider: 'Tidal Link', kind: 'internet', bandwidthBps: 1e9, a: 'sw2:gi1/1' }],
});
const rows = (key: string) => findReport(key)?.make(network, null).rows;

test('missing-labels: the number between two that are there', () => {
  expect(rows('missing-labels')).toEqual([{ label: 'KQ-00002', prefix: 'KQ-', before: 'KQ-00003' }]);
});

test('circuits, with the end that is here', () => {
  expect(rows('circuits')).toMatchObject([
    { number: 'TL-7', provider: 'Tidal Link', kind: 'internet', bandwidth: '1G', a: 'sw2 gi1/1', b: null },
  ]);
});

test('transceivers: 6.2 dB between launch and sensitivity, of which 40 m of G.652.D take 0.016', () => {
  const optic = { transceiver: 'Lumenroot LR-10', faces: 'Lumenroot LR-10', lengthM: 40, marginDb: 6.2 };
  expect(rows('transceivers')).toMatchObject([
    { ...optic, serial: 'L-1', device: 'sw', far: 'sw2 te1/25', fault: null },
    { ...optic, serial: null, device: 'sw2', far: 'sw te1/25', fault: null },
  ]);
});

test('poe: class 3 makes the switch set 15.4 W aside; 12 W behind 30 m of Cat 6A leave it as 12.2', () => {
  expect(rows('poe')).toMatchObject([
    { device: 'sw', budgetW: 370, fed: 1, promisedW: 15.4, drawnW: 12.2, leftW: 354.6 },
    { device: 'sw2', budgetW: 370, fed: 0, promisedW: 0, drawnW: 0, leftW: 370 },
  ]);
});

test('dhcp: the ranges that are handed out, not those that are kept', () => {
  expect(rows('dhcp')).toMatchObject([
    {
      ...{ prefix: '10.1.0.0/23', mask: '255.255.254.0', from: '10.1.0.50', to: '10.1.0.99' },
      ...{ gateway: '10.1.0.1', vlan: 20, vrf: 'ops', place: 'Quay' },
    },
  ]);
});

test('place-capacity: two switches of 480 W and 4.4 kg in 62 units; 3.412 BTU an hour for a watt', () => {
  const sum = {
    ...{ racks: 2, units: 62, usedUnits: 2, freeUnits: 60, massKg: 8.8, massLimitKg: 1000 },
    ...{ maxW: 960, btuPerHour: 3276, free1g: 46, free10g: 6, over: null },
  };
  expect(rows('place-capacity')).toMatchObject([
    { place: 'Quay', kind: 'site', ...sum },
    { place: 'Quay/Room', kind: 'room', ...sum },
  ]);
});

test('hardware: how many of each model stand here', () => {
  expect(rows('hardware')).toMatchObject([
    { model: 'Norvane AX-2424P', role: 'switch', count: 2, units: 1, price: 1980, currency: 'EUR' },
    { model: 'Pellane Domus 4', role: 'camera', count: 1, units: 0, price: 310, currency: 'EUR' },
  ]);
});

test('vlan-numbering and vrf, which nobody wrote a schedule for: their facts', () => {
  expect(rows('vlan-numbering')).toEqual([{ name: 'shore', notes: null }]);
  expect(rows('vrf')).toMatchObject([{ name: 'ops', routeDistinguisher: '64500:1' }]);
});
