/** Networks with rows of every kind, for tests that go over all kinds. */
import { applyChanges } from '../change/apply.ts';
import { create, type Change } from '../change/change.ts';
import { newId } from '../model/values/ids.ts';
import { blankCable } from '../model/kinds/lines/cable.ts';
import { blankModel } from '../model/kinds/equipment/catalogueModel.ts';
import { blankDevice } from '../model/kinds/equipment/device.ts';
import { blankMark } from '../model/kinds/drawings/mark.ts';
import { blankPartsList } from '../model/kinds/purchase/partsList.ts';
import { blankPort } from '../model/kinds/lines/port.ts';
import { blankSheet } from '../model/kinds/drawings/sheet.ts';
import { blankSheetItem } from '../model/kinds/drawings/sheetItem.ts';
import { blankSheetLink } from '../model/kinds/drawings/sheetLink.ts';
import type { Network } from '../model/network/network.ts';
import { readExchange } from '../exchange/read.ts';
import { cloudOfEverything } from './testCloud.ts';
import { deviceNamed, networkOf, portId } from './testNetwork.ts';

/** A little of everything that is configured, cabled and numbered. */
export const configured = networkOf({
  vrfs: [{ name: 'ops' }, { name: 'guest' }],
  vlanNumberings: [
    {
      name: 'shore',
      vlans: [
        { vid: 10, name: 'Management' },
        { vid: 20, name: 'Operations', vrf: 'ops' },
      ],
    },
    { name: 'boat', vlans: [{ vid: 10, name: 'Management' }] },
  ],
  places: [
    { path: 'Quay', kind: 'site', code: 'KQ', vlanNumbering: 'shore' },
    { path: 'Quay/Room', kind: 'room' },
    { path: 'Boat', kind: 'site', vlanNumbering: 'boat' },
  ],
  racks: [
    { name: 'R1', place: 'Quay/Room', units: 20 },
    { name: 'R2', place: 'Boat', units: 12 },
  ],
  prefixes: [
    { prefix: '10.1.0.0/24', vrf: 'ops', vlan: 'shore/20', gateway: '10.1.0.1', place: 'Quay' },
    { prefix: '10.0.0.0/8', vrf: 'ops', role: 'pool' },
  ],
  reserved: [
    { address: '10.1.0.9/24', vrf: 'ops' },
    { address: '10.1.0.8/24', vrf: 'guest' },
  ],
  devices: ['a', 'b'].map((name, at) => ({
    name,
    role: 'SW' as const,
    rack: at === 0 ? 'R1' : 'R2',
    unit: 3,
    ports: [
      { name: '1', mode: 'trunk' as const, tagged: [10, 20], speedBps: 1e9 },
      { name: '2', speedBps: 1e9 },
      { name: '3', speedBps: 1e9 },
      { name: 'lag', form: 'aggregate' as const, members: ['2', '3'] },
      {
        name: 'vlan20',
        form: 'vlan' as const,
        vid: 20,
        vrf: 'ops',
        addresses: [`10.1.0.${at + 1}/24`, `10.1.0.${at + 101}/24`],
      },
      { name: 'lag.10', form: 'subinterface' as const, over: 'lag', vid: 10 },
      { name: 'lo', form: 'loopback' as const, vrf: 'ops', addresses: [`10.9.0.${at}/32`] },
    ],
    routes: [
      { vrf: 'ops', prefix: '10.7.0.0/16', via: '10.1.0.1' },
      { vrf: 'ops', prefix: '10.6.0.0/16', out: 'vlan20' },
    ],
    bgp: [{ vrf: 'ops', neighbour: '10.1.0.7', remoteAs: 64500 }],
  })),
  cables: [
    { label: 'K-1', a: 'a:1', b: 'b:1' },
    { label: 'K-2', a: 'a:2', b: 'b:2' },
  ],
  circuits: [{ number: 'C-1', provider: 'Tidal Link', kind: 'internet', a: 'a:3' }],
});

/** The same with what no file of devices brings: modules, breakouts, drawings, kits, templates, ways between places. */
function withTheRest(base: Network): Network {
  const one = <T>(rows: Iterable<T>): T => {
    const [first] = rows;
    if (first === undefined) throw new Error('nothing there');
    return first;
  };
  const a = deviceNamed(base, 'a');
  const [chassis, breakout, sheet, other] = [newId(), newId(), newId(), newId()];
  const [list, prices, schedule] = [newId(), newId(), newId()];
  const [card, frame, moduleId, q, x1, x2] = [newId(), newId(), newId(), newId(), newId(), newId()];
  const quay = one(base.find('placesByParent', 'root').filter(({ name }) => name === 'Quay'));
  const boat = one(base.find('placesByParent', 'root').filter(({ name }) => name === 'Boat'));
  const rack = one(base.find('racksByPlace', one(base.find('placesByParent', quay.id)).id));
  const port = { ...blankPort, deviceId: chassis, speedBps: 1e10 };
  const changes: Change[] = [
    create('model', { ...blankModel, id: card, name: 'Line card', form: 'module', moduleFamily: 'line' }),
    create('model', {
      ...blankModel,
      id: frame,
      name: 'Frame',
      role: 'SW',
      licences: [{ name: 'Routing', per: 'device', priceMinor: null }],
      slots: [{ name: '1', family: 'line' }],
    } as never),
    create('device', {
      ...blankDevice,
      id: chassis,
      name: 'chassis',
      role: 'SW',
      modelId: frame,
      placeId: quay.id,
    }),
    create('module', {
      id: moduleId,
      deviceId: chassis,
      slot: '1',
      modelId: card,
      serial: null,
      notes: null,
    }),
    create('port', { ...port, id: q, name: 'q1', moduleId, ordinal: 1 }),
    create('port', { ...port, id: x1, name: 'x1', ordinal: 2 }),
    create('port', { ...port, id: x2, name: 'x2', ordinal: 3 }),
    create('cable', { ...blankCable, id: breakout, label: 'K-9', aPortId: q, bPortId: x1, typeId: null }),
    create('leg', { id: newId(), cableId: breakout, side: 'b', number: 2, portId: x2 }),
    create('pathway', {
      id: newId(),
      name: 'duct',
      kind: 'duct',
      aPlaceId: quay.id,
      bPlaceId: boat.id,
      lengthM: 100,
      notes: null,
    } as never),
    create('redundancy', {
      id: newId(),
      portId: portId(base, 'a:vlan20'),
      group: 1,
      virtual: '10.1.0.254',
      priority: 100,
    }),
    create('portProfile', {
      id: newId(),
      name: 'desk',
      mode: 'access',
      untaggedVid: 10,
      taggedVids: null,
      voiceVid: null,
      notes: null,
    }),
    create('siteTemplate', {
      id: newId(),
      name: 'ship',
      parts: [
        {
          name: 'crew',
          length: 24,
          vid: 30,
          role: 'subnet',
          gateway: 'first',
          dhcpShare: 50,
          growth: false,
        },
      ],
      notes: null,
    }),
    // One that has ended, and a grade that is the rule's own: neither changes what is found.
    create('waiver', {
      id: newId(),
      rule: 'run-loop',
      about: [{ kind: 'device', id: a.id }],
      facts: '0'.repeat(32),
      reason: 'kept for the pier',
      by: 'Anna',
      madeOn: '2026-11-30',
      until: null,
    }),
    create('requirement', { id: newId(), on: 'device', role: 'SW', status: 'any', fact: 'serial' }),
    create('ruleGrade', { id: newId(), rule: 'run-loop', grade: 'bad', reason: 'as it is' }),
    create('printedLabel', {
      ...{ id: newId(), subjectKind: 'device', subjectId: a.id, side: null },
      ...{ text: 'as it was', printedOn: '2026-11-30' },
    }),
    create('schedule', {
      id: schedule,
      name: 'Switches of the quay',
      of: 'devices',
      scopeId: quay.id,
      columns: [{ key: 'name', title: 'Switch', width: 120, total: 'count' }],
      filters: [{ key: 'role', test: 'is', value: 'Switch' }],
      groups: ['place'],
      order: [{ key: 'name', descending: true }],
      numbered: true,
      blankRepeats: true,
      notes: 'for the harbour master',
    }),
    create('gridView', {
      ...{
        id: newId(),
        name: 'Fibre first',
        grid: 'cables',
        columns: ['type', 'label'],
        widths: { label: 140 },
      },
      ...{ filters: [{ key: 'type', test: 'contains' as const, value: 'OS2' }], group: 'type' },
      order: { key: 'label', descending: true },
    }),
    create('heldLicence', {
      ...{ id: newId(), certificate: 'LC-1', modelId: frame, name: 'Routing', count: 2 },
      ...{ validFrom: '2026-01-01', validUntil: '2026-12-31', notes: null },
    }),
    create('partsList', {
      ...blankPartsList,
      ...{ id: list, name: 'For the quay', scopeId: quay.id, kitTimes: 2, counts: 'both' },
      spares: [{ of: 'Devices', percent: 10, least: 1 }],
      services: [{ name: 'Mounting', per: 'rack', role: null, unitMinor: 9000 }],
      further: [{ name: 'Screws', partNumber: 'M6', count: 40, unitMinor: null }],
      notes: 'before the summer',
    }),
    create('listedDevice', { id: newId(), listId: list, deviceId: a.id }),
    create('stock', {
      ...{ id: newId(), placeId: quay.id, modelId: card, lengthM: null },
      ...{ count: 3, least: 1, notes: 'top shelf' },
    }),
    create('reservedPart', {
      ...{ id: newId(), listId: list, modelId: card, placeId: quay.id, lengthM: null, count: 2 },
    }),
    create('priceList', {
      ...{ id: prices, name: 'Harbour 2026', supplier: 'Quay Supplies', currency: 'EUR' },
      ...{ validFrom: '2026-01-01', validUntil: null, notes: null },
    }),
    create('price', {
      ...{ id: newId(), listId: prices, modelId: card, lengthM: null },
      ...{ licence: null, unitMinor: 129900, pack: 5 },
    }),
    create('quotation', {
      ...{ id: newId(), number: 'Q-1', revision: 1, status: 'draft', title: 'Quay', partsListId: list },
      ...{ quotedOn: '2026-03-01', validUntil: '2026-03-31', customer: 'The harbour', address: null },
      ...{ contact: null, currency: 'EUR', rates: [{ currency: 'GBP', rate: '1.17' }], drawings: ['Quay'] },
      sections: [
        {
          name: 'Modules',
          discount: 500,
          lines: [
            {
              ...{ what: 'Line card', partNumber: null, detail: null, count: 5, unit: 'piece' },
              ...{ unitMinor: 129900, discount: 0, tax: 1900, optional: false, model: 'Line card' },
            },
          ],
        },
      ],
      terms: 'Thirty days net.',
    } as never),
    create('kit', {
      id: newId(),
      name: 'cabin',
      contents: { racks: [], devices: [], cables: [] },
      notes: null,
    }),
    create('sheet', { ...blankSheet, id: sheet, name: 'Quay', scopeId: quay.id }),
    create('sheet', { ...blankSheet, id: other, name: 'Boat', scopeId: boat.id }),
    ...(
      [
        ['device', a.id],
        ['place', quay.id],
        ['circuit', one(base.all('circuit')).id],
      ] as const
    ).map(([subjectKind, subjectId]) =>
      create('sheetItem', { ...blankSheetItem, subjectKind, subjectId, id: newId(), sheetId: sheet }),
    ),
    ...(
      [
        ['cable', one(base.find('cablesByPort', portId(base, 'a:1'))).id],
        ['prefix', one(base.all('prefix')).id],
      ] as const
    ).map(([subjectKind, subjectId]) =>
      create('sheetLink', { ...blankSheetLink, subjectKind, subjectId, id: newId(), sheetId: sheet }),
    ),
    create('mark', {
      ...blankMark,
      id: newId(),
      sheetId: sheet,
      form: 'note',
      text: 'see',
      linkSheetId: other,
    }),
    create('mark', { ...blankMark, id: newId(), sheetId: sheet, form: 'callout', text: 'a', deviceId: a.id }),
    create('mark', {
      ...blankMark,
      id: newId(),
      sheetId: sheet,
      form: 'dimension',
      aRackId: rack.id,
      bRackId: one(base.find('racksByPlace', boat.id)).id,
    } as never),
    create('mark', { ...blankMark, id: newId(), sheetId: sheet, form: 'schedule', scheduleId: schedule }),
  ];
  const applied = applyChanges(base, changes);
  if (!applied.ok) throw new Error(applied.problems.map(({ message }) => message).join('\n'));
  return applied.network;
}

/** With a cloud beside the premises. */
function withCloud(base: Network): Network {
  const read = readExchange(base, { format: 'visograph-exchange', version: 1, ...cloudOfEverything });
  if (!read.ok) throw new Error(read.problems.map(({ path, message }) => `${path} ${message}`).join('\n'));
  return read.network;
}

export const everything = withTheRest(withCloud(configured));
