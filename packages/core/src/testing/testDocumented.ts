import { networkOf } from './testNetwork.ts';

/** Racks and what stands in them as it should not: feeds, blanks, air, names, support, names of VLANs, addresses. */
export const documented = networkOf({
  places: [
    { path: 'Quay', kind: 'site', code: 'Q' },
    { path: 'Quay/Room', kind: 'room' },
  ],
  vrfs: [{ name: 'ops' }],
  vlanNumberings: [{ name: 'shore', vlans: [{ vid: 40, name: 'VLAN 40' }] }],
  racks: [
    {
      name: 'R1',
      place: 'Quay/Room',
      units: 20,
      feeds: ['A', 'B'].map((name) => ({ name, volts: 230, amps: 32, phases: 1 as const, derating: 0.8 })),
    },
  ],
  models: [
    { form: 'device', role: 'SV', name: 'Back', units: 1, airflow: 'rear to front', retired: true },
    { form: 'device', role: 'SW', name: 'Old', units: 1, endOfSupport: '2026-01-31' },
  ],
  devices: [
    { name: 'q-pda', model: 'Brackwater PS-16', rack: 'R1', feed: 'A' },
    { name: 'q-pdb', model: 'Brackwater PS-16', rack: 'R1', feed: 'A' },
    ...[1, 2, 3].map((at) => ({ name: `q-s${at}`, model: 'Tessmark T2-Rack', rack: 'R1', unit: at * 2 })),
    ...[4, 5, 6, 7].map((at) => ({ name: `q-x${at}`, role: 'SV' as const, model: 'Back', place: 'Quay' })),
    { name: 'other', role: 'SV', model: 'Back', rack: 'R1', unit: 12 },
    { name: 'q-b', model: 'Lumenroot Blank 1', rack: 'R1', unit: 20 },
    {
      name: 'q-old',
      role: 'SW',
      model: 'Old',
      rack: 'R1',
      unit: 14,
      routerId: '10.0.0.1',
      stack: 'one',
      supportUntil: '2026-06-30',
    },
    { name: 'q-new', model: 'Norvane AX-2424P', rack: 'R1', unit: 15, routerId: '10.0.0.1', stack: 'two' },
    { name: 'q-mix', role: 'SW', model: 'Old', rack: 'R1', unit: 16, stack: 'two' },
    {
      name: 'loose',
      role: 'SV',
      ports: [{ name: 'eth0', connector: 'RJ45', vrf: 'ops', addresses: ['10.1.0.9/24'] }],
    },
  ],
  cables: [
    { label: 'P-1', a: 'q-pda:o1', b: 'q-s1:psu1' },
    { label: 'P-2', a: 'q-pdb:o1', b: 'q-s1:psu2' },
    { label: 'P-3', a: 'q-pda:o2', b: 'q-s2:psu1' },
  ],
  prefixes: [
    { prefix: '10.0.0.0/8', vrf: 'ops', role: 'pool' },
    { prefix: '10.1.0.0/16', vrf: 'ops', role: 'pool', name: 'Quay' },
    {
      prefix: '10.1.0.0/24',
      vrf: 'ops',
      ranges: [{ use: 'DHCP', from: '10.1.0.2', to: '10.1.0.99', note: '' }],
    },
  ],
});
