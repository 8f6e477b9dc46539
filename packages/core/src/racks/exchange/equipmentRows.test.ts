import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { managementAddressOf } from '../../addressing/management.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath, whereIs } from '../../model/network/places.ts';
import { cableAt, portsOf } from '../../model/network/ports.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { deviceNamed, networkOf } from '../../testing/testNetwork.ts';
import { emptyProject } from '../../testing/testDrawn.ts';
import type { EquipmentWish } from './equipmentReader.ts';
import { readEquipmentList, type EquipmentRead } from './equipmentRows.ts';

const plain: EquipmentWish = {
  columns: null,
  models: {},
  makePlaces: true,
  managementVid: null,
  placeId: null,
};
const demo = demoNetwork();

/** A list as it is pasted: a line a row, cells between bars. */
const listed = (text: string): string[][] =>
  text
    .trim()
    .split('\n')
    .map((line) => line.split('|').map((cell) => cell.trim()));
const read = (network: Network, text: string, wish: Partial<EquipmentWish> = {}): EquipmentRead =>
  readEquipmentList(network, listed(text), { ...plain, ...wish });
const made = (network: Network, { set, problem }: EquipmentRead): Network => {
  expect(problem).toBeNull();
  const applied = applyChanges(network, set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};
const told = (list: EquipmentRead): string[] =>
  list.results.map(({ row, label, does, detail }) => `${row} ${label} ${does}: ${detail}`);

describe('an equipment list in an empty project', () => {
  const start = emptyProject();
  const list = read(
    start,
    `Name    | Manufacturer | Model    | Serial no. | Site     | Cabinet | U  | IP            | Asset tag | Warranty end | Price      | Cost centre
     hv-sw-1 | Norvane      | AX-2448P | NV31-0001  | Hull/MDF | HV-A1   | 40 | 10.7.0.11/24  | MS-1      | 31.12.2028   | 1 890.50 EUR | 4711
     hv-sw-2 | Norvane      | AX2448P  | NV31-0002  | Hull/MDF | HV-A1   | 39 | 10.7.0.12/24  | MS-2      | 31.12.2028   | 1890.50 EUR | 4711
     hv-rt-1 | Norvane      | ER-210   | NV77-0001  | Hull/MDF | HV-A2   | 42 |               |           |              |            |`,
    { managementVid: 7 },
  );

  test('columns are found by their headings, the rest become own fields', () => {
    expect(list.headed).toBe(true);
    expect(list.columns).toEqual({
      fields: {
        ...{ name: 0, maker: 1, model: 2, serial: 3, place: 4, rack: 5, unit: 6, address: 7 },
        ...{ assetNumber: 8, warrantyUntil: 9, price: 10 },
      },
      own: [11],
    });
  });

  test('every row is told, and what is made beside the devices', () => {
    expect(told(list)).toEqual([
      '2 hv-sw-1 new: Norvane AX-2448P, HV-A1 U40, 10.7.0.11',
      '3 hv-sw-2 new: Norvane AX-2448P, HV-A1 U39, 10.7.0.12',
      '4 hv-rt-1 new: Norvane ER-210, HV-A2 U42',
    ]);
    expect(list.alsoMade).toBe('2 places, 2 racks');
    expect(list.set.sentence).toBe('Imported an equipment list: 3 new, 0 changed');
  });

  test('the network is as the list says, with the ports of the models', () => {
    const after = made(start, list);
    const sw = deviceNamed(after, 'hv-sw-1');
    expect(sw).toMatchObject({
      ...{ role: 'SW', serial: 'NV31-0001', unit: 40, assetNumber: 'MS-1', warrantyUntil: '2028-12-31' },
      ...{ priceMinor: 189050, currency: 'EUR', extra: { 'Cost centre': '4711' } },
    });
    expect(modelTitle(after.get('model', sw.modelId) ?? { maker: null, name: '' })).toBe('Norvane AX-2448P');
    expect(placePath(after, after.get('rack', sw.rackId)?.placeId ?? null)).toBe('Hull/MDF');
    expect([...after.all('place')].map(({ name, kind }) => [name, kind])).toEqual([
      ['Hull', 'site'],
      ['MDF', 'room'],
    ]);
    expect(managementAddressOf(after, sw)).toBe('10.7.0.11');
    expect(portsOf(after, sw.id).length).toBeGreaterThan(48);
    expect(whereIs(after, deviceNamed(after, 'hv-rt-1'))).toContain('HV-A2');
  });

  test('read once more nothing differs, whatever the order of its rows and columns', () => {
    const after = made(start, list);
    const again = read(
      after,
      `U  | Name    | Serial no. | Cabinet | IP
       42 | hv-rt-1 | NV77-0001  | HV-A2   |
       39 | hv-sw-2 | NV31-0002  | HV-A1   | 10.7.0.12
       40 | HV-SW-1 | NV31-0001  | hv-a1   | 10.7.0.11/24`,
    );
    expect(again.results.map(({ does }) => does)).toEqual(['same', 'same', 'changes']);
    expect(again.results[2]?.detail).toBe('name hv-sw-1 → HV-SW-1');
    expect(again.set.changes).toHaveLength(1);
  });
});

test('the places of a long path are site, building, floor and room; deeper ones go on from what is there', () => {
  const list = read(
    emptyProject(),
    `Name | Place | Rack | Unit
     a-1 | Hull/East/Second/MDF | HV-1 | 3
     a-2 | Hull/East/Second/MDF/Cage | |
     a-3 | Hull/Annex | |
     a-4 | Mole | |`,
  );
  const after = made(emptyProject(), list);
  expect([...after.all('place')].map(({ name, kind }) => `${name} ${kind}`)).toEqual([
    ...['Hull site', 'East building', 'Second floor', 'MDF room', 'Cage row', 'Annex room', 'Mole site'],
  ]);
});

describe('what a list changes', () => {
  test('both values of each fact are told, and blank cells say nothing', () => {
    const list = read(
      demo,
      `Name     | Serial      | Status  | Notes
       kq-acc-1 | NV31-9999   | retired |
       kq-acc-2 |             |         |`,
    );
    const before = deviceNamed(demo, 'kq-acc-1');
    expect(told(list)).toEqual([
      `2 kq-acc-1 changes: status active → retired; serial ${before.serial ?? 'nothing'} → NV31-9999`,
      '3 kq-acc-2 same: nothing differs',
    ]);
  });

  test('a device is known by its serial too, and may get another name', () => {
    const before = deviceNamed(demo, 'kq-acc-1');
    const list = read(demo, `Name | Serial\n kq-first | ${before.serial ?? ''}`);
    expect(told(list)).toEqual(['2 kq-first changes: name kq-acc-1 → kq-first']);
  });

  test('two devices that change places do not stand in each other’s way', () => {
    const [a, b] = [deviceNamed(demo, 'kq-acc-1'), deviceNamed(demo, 'kq-acc-2')];
    const rack = (id: string | null) => demo.get('rack', id)?.name ?? '';
    const list = read(
      demo,
      `Name | Rack | Unit
       ${a.name} | ${rack(b.rackId)} | ${b.unit ?? ''}
       ${b.name} | ${rack(a.rackId)} | ${a.unit ?? ''}`,
    );
    expect(list.results.map(({ does }) => does)).toEqual(['changes', 'changes']);
    const after = made(demo, list);
    expect(deviceNamed(after, 'kq-acc-1')).toMatchObject({ rackId: b.rackId, unit: b.unit });
    expect(deviceNamed(after, 'kq-acc-2')).toMatchObject({ rackId: a.rackId, unit: a.unit });
  });

  test('another model takes the cables along, or is refused where one would hang loose', () => {
    const cabled = portsOf(demo, deviceNamed(demo, 'kq-acc-1').id).filter(
      (port) => cableAt(demo, port.id) !== null,
    ).length;
    expect(cabled).toBeGreaterThan(0);
    const list = read(demo, 'Name | Model\n kq-acc-1 | Norvane ER-210');
    expect(list.results[0]?.does).toBe('cannot');
    expect(list.results[0]?.detail).toMatch(/as a Norvane ER-210 \d+ of its cables would hang loose/);
  });

  test('a list of names alone makes devices of the roles that their names begin with', () => {
    const list = read(emptyProject(), 'sw-1\nsw-2\nfw-1');
    expect(list.headed).toBe(false);
    expect(list.results.map(({ label, does }) => `${label} ${does}`)).toEqual([
      'sw-1 new',
      'sw-2 new',
      'fw-1 new',
    ]);
    const after = made(emptyProject(), list);
    expect([deviceNamed(after, 'sw-1').role, deviceNamed(after, 'fw-1').role]).toEqual(['SW', 'FW']);
    expect(list.results[0]?.detail).toContain('not placed yet');
  });

  test('devices without a name are named on by the pattern of their site', () => {
    const rack = demo.findOne('rackByName', 'kq-a1');
    const list = read(
      demo,
      `Model | Place
       Norvane AX-2448P | Kelder Quay
       Norvane AX-2448P | Kelder Quay
       Norvane AX-2448P | Kelder Quay`,
    );
    expect(rack).not.toBeNull();
    const names = list.results.map(({ label }) => label);
    expect(new Set(names).size).toBe(3);
    expect(names.every((name) => /^kq-acc-\d+$/.test(name))).toBe(true);
    made(demo, list);
  });
});

test('a name that the list gives further down is not given to a row without one', () => {
  const list = read(
    emptyProject(),
    `Name | Model
     | Norvane AX-2448P
     sw-2 | Norvane AX-2448P
     | Norvane AX-2424P
     | Norvane AX-2448P`,
  );
  expect(list.results.map(({ label, does }) => `${label} ${does}`)).toEqual(
    ['sw-1', 'sw-2', 'sw-3', 'sw-4'].map((name) => `${name} new`),
  );
  made(emptyProject(), list);
});

describe('models that the catalogue does not know', () => {
  const text = `Name | Maker | Model | Type | Height
     a-1 | Orlo | Q-12 | switch | 1U
     a-2 | Orlo | Q-12 | switch | 1
     a-3 | Orlo | Q-12 | L3 switch | 1
     b-1 | Norvane | AX-2484P | | `;

  test('are asked once for all their rows, with what the rows say and what is spelled nearly so', () => {
    const list = read(emptyProject(), text);
    expect(list.results.every(({ does }) => does === 'cannot')).toBe(true);
    expect(list.unknown).toEqual([
      { key: 'orlo q-12', title: 'Orlo Q-12', rows: 3, likely: [], role: 'SW', units: 1 },
      {
        ...{ key: 'norvane ax-2484p', title: 'Norvane AX-2484P', rows: 1, role: 'XX', units: null },
        likely: ['Norvane AX-2424P', 'Norvane AX-2424', 'Norvane AX-2448'],
      },
    ]);
    expect(list.results[3]?.detail).toContain('did you mean Norvane AX-24');
  });

  test('once answered they are made with their ports, or taken for what they are', () => {
    const list = read(emptyProject(), text, {
      models: {
        'orlo q-12': { role: 'SW', units: 1, ports: '12 RJ45 1G, 2 SFP+ 10G, 1 C14' },
        'norvane ax-2484p': { as: 'Norvane AX-2448P' },
      },
    });
    expect(list.alsoMade).toBe('1 model');
    const after = made(emptyProject(), list);
    expect(portsOf(after, deviceNamed(after, 'a-2').id)).toHaveLength(15);
    const model = after.get('model', deviceNamed(after, 'a-3').modelId);
    expect(model).toMatchObject({ maker: 'Orlo', name: 'Q-12', role: 'SW', units: 1 });
    expect(after.get('model', deviceNamed(after, 'b-1').modelId)?.name).toBe('AX-2448P');
  });

  test('ports that cannot be read are told at every row of the model', () => {
    const list = read(emptyProject(), text, {
      models: { 'orlo q-12': { role: 'SW', units: 1, ports: 'lots' } },
    });
    expect(list.results[0]?.detail).toContain('the ports of Orlo Q-12 cannot be read: “lots”');
  });
});

describe('rows that cannot be taken', () => {
  const room = networkOf({
    places: [{ path: 'Quay' }, { path: 'Quay/Room' }, { path: 'Loft' }, { path: 'Loft/Room' }],
    racks: [{ name: 'R1', place: 'Quay/Room', units: 10 }],
    models: [{ name: 'Box', form: 'device', role: 'SW', maker: 'Orlo', units: 2 }],
    devices: [{ name: 'there', model: 'Orlo Box', rack: 'R1', unit: 5, serial: 'S-1' }],
  });
  const why = (heading: string, ...rows: string[]): string[] =>
    read(room, [heading, ...rows].join('\n'), { makePlaces: false }).results.map(({ detail }) => detail);

  test.each([
    [
      'Name | Model | Rack | Unit',
      'a | Orlo Box | R1 | 4',
      'it cannot stand at U4–U5 of R1: there fills U5–U6',
    ],
    ['Name | Model | Rack | Unit', 'a | Orlo Box | R1 | 10', 'it would fill U10–U11, but R1 has 10 units'],
    ['Name | Model | Rack | Unit', 'a | Orlo Box | R1 | top', 'the unit “top” is not a number such as 12'],
    [
      'Name | Model | Rack',
      'a | Orlo Box | R9',
      'there is no rack R9: add it, or let missing places and racks be made',
    ],
    ['Name | Place | Rack', 'a | Loft/Room | R1', 'rack R1 stands in Quay/Room, not in Room'],
    ['Name | Place', 'a | Room', 'there are 2 places called Room: write the whole path of one'],
    ['Name | Place', 'a | Quay/Attic', 'there is no place Quay/Attic: add it, or let missing places be made'],
    ['Name | Unit', 'a | 4', 'unit 4 is given without a rack'],
    ['Name | Status', 'a | broken', 'the status “broken” is not planned, active or retired'],
    ['Name | Face', 'a | left', 'the face “left” is not front or rear'],
    ['Name | Role', 'a | flux', 'the role “flux” is not one of router, switch, firewall, server and so on'],
    ['Name | Bought on', 'a | 03/04/2024', 'can be two days'],
    ['Name | Price', 'a | 1250', 'the price 1250 has no currency: write 1250 EUR, or add its column'],
    ['Name | Price', 'a | cheap', 'the price “cheap” is not an amount such as 1250.00 EUR'],
    ['Name | Serial', 'other | S-1', 'serial'],
    ['Name | IP', 'sw-1 | 10.9.0.300', '“10.9.0.300” is not an address'],
    ['Name | MAC', 'sw-1 | 02:00', '“02:00” is not a MAC address'],
    ['Name | Notes', 'a:b | x', 'Name contains a colon, which separates device and port'],
    ['Name | Serial | Notes', '| S-404 | x', 'it names no device'],
  ])('%s / %s', (heading, row, reason) => {
    const [first = ''] = why(heading, row);
    if (reason === 'serial') expect(first).toBe('name there → other');
    else expect(first).toContain(reason);
  });

  test('what two rows say at once: the second is told the first', () => {
    expect(why('Name | Serial', 'a | S-7', 'a | S-8', 'b | S-7')).toEqual([
      'other, not placed yet',
      'row 2 is about a too',
      'row 2 has the serial S-7 too',
    ]);
    expect(why('Name | IP', 'sw-1 | 10.9.0.3/24', 'sw-2 | 10.9.0.3/24')[1]).toBe(
      'row 2 has the address 10.9.0.3/24 too',
    );
    expect(why('Name | Model | Rack | Unit', 'a | Orlo Box | R1 | 1', 'b | Orlo Box | R1 | 2')[1]).toContain(
      'a fills U1–U2',
    );
    expect(why('Name | Serial', 'a | S-1', 'there | S-9')[0]).toContain('name there → a');
  });

  test('the good rows beside them are made all the same, and a place made for a bad row alone is not', () => {
    const list = read(
      room,
      `Name | Place | Rack | Unit
       good | Quay/Hall | |
       bad | Pier/Hut | R1 | 99`,
    );
    expect(list.results.map(({ does }) => does)).toEqual(['new', 'cannot']);
    const after = made(room, list);
    expect([...after.all('place')].map(({ name }) => name)).toContain('Hall');
    expect([...after.all('place')].map(({ name }) => name)).not.toContain('Pier');
  });

  test('a list without a column of names says so', () => {
    expect(read(room, 'Colour | Weight\n red | 5\n red | 5').problem).toContain(
      'No column is known to hold the names',
    );
    expect(read(room, 'Name | Serial').problem).toBe('There are no rows below the headings.');
  });
});

describe('addresses and MAC addresses of a list', () => {
  test('what no port can be found for is kept as an own field, and goes once it has one', () => {
    const text = 'Name | Model | IP | MAC\n s-1 | Norvane AX-2448P | 10.9.0.3/24 | 02:00:5e:00:53:07';
    const list = read(emptyProject(), text);
    expect(list.withoutPort).toBe(1);
    expect(list.results[0]?.detail).toBe(
      'Norvane AX-2448P, not placed yet, 10.9.0.3/24 is kept as an own field: none of its ports is for management, 02:00:5e:00:53:07 is kept as an own field: it has several ports',
    );
    const after = made(emptyProject(), list);
    expect(deviceNamed(after, 's-1').extra).toEqual({
      'Management address': '10.9.0.3/24',
      'MAC address': '02:00:5e:00:53:07',
    });
    const again = read(after, 'Name | IP\n s-1 | 10.9.0.3/24', { managementVid: 9 });
    expect(again.withoutPort).toBe(0);
    const then = made(after, again);
    expect(managementAddressOf(then, deviceNamed(then, 's-1'))).toBe('10.9.0.3');
    expect(deviceNamed(then, 's-1').extra).toEqual({ 'MAC address': '02:00:5e:00:53:07' });
  });

  test('a length that nothing tells is not guessed', () => {
    const list = read(emptyProject(), 'Name | IP\n ph-1 | 10.9.0.3');
    expect(list.results[0]?.detail).toContain('10.9.0.3 is kept as an own field: no subnet holds it');
  });

  test('go to the management port, the only port, the interface of the VLAN around, or a port that is grown', () => {
    const subnet = [...demo.all('prefix')].find((one) => one.vlanId !== null && one.prefix.endsWith('/24'));
    const [network = '', length = ''] = subnet?.prefix.split('/') ?? [];
    const host = network.replace(/\d+$/, '251');
    const list = read(
      demo,
      `Name | Model | IP | MAC
       rt-91 | Norvane ER-410 | 10.250.0.1/24 | 0200.5e00.5301
       ph-92 |  | 10.250.0.2/24 | 02-00-5e-00-53-02
       sw-93 | Norvane AX-2448P | ${host} |
       sv-94 | | 10.250.0.4/24 |`,
    );
    const after = made(demo, list);
    const managed = (name: string) => {
      const device = deviceNamed(after, name);
      return after
        .find('everyPortByDevice', device.id)
        .filter((port) => after.find('addressesByPort', port.id).length > 0)
        .map((port) => [port.role, port.form, port.mac, after.find('addressesByPort', port.id)[0]?.address]);
    };
    expect(managed('rt-91')).toEqual([['management', 'physical', '02:00:5e:00:53:01', '10.250.0.1/24']]);
    expect(managed('ph-92')[0]?.slice(2)).toEqual(['02:00:5e:00:53:02', '10.250.0.2/24']);
    expect(managed('sw-93')).toEqual([['network', 'vlan', null, `${host}/${length}`]]);
    expect(managed('sv-94')[0]?.[3]).toBe('10.250.0.4/24');
  });

  test('another address takes the place of the one that was there; one that is taken is refused', () => {
    const sw = deviceNamed(demo, 'kq-acc-1');
    const was = managementAddressOf(demo, sw) ?? '';
    const list = read(demo, `Name | IP\n ${sw.name} | 10.251.0.9/24`);
    expect(list.results[0]?.detail).toBe(`management address ${was} → 10.251.0.9`);
    expect(managementAddressOf(made(demo, list), sw)).toBe('10.251.0.9');
    expect(read(demo, `Name | IP\n new-sw-1 | ${was}/24`).results[0]?.detail).toMatch(
      new RegExp(`^${was} is taken: .* has it$`),
    );
    expect(read(demo, `Name | IP\n ${sw.name} | ${was}`).results[0]?.does).toBe('same');
  });
});
