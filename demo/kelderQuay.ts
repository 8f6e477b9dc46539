/**
 * Makes demo/marrow-sound-ferries.json: the physical part of Kelder Quay, as an exchange file such as a user
 * could have written. All names, makers and figures are invented.
 */
import { writeFileSync } from 'node:fs';
import { traceRun } from '@visograph/core/cabling';
import { builtInModels } from '@visograph/core/catalogue';
import { applyChanges } from '@visograph/core/change';
import { findingsOf, waive } from '@visograph/core/check';
import { readExchange, writeExchange, type ExchangeFile } from '@visograph/core/exchange';
import { isCage, Network, portTitle, newProject } from '@visograph/core/model';
import { beginQuotation, issueQuotation } from '@visograph/core/purchase';
import { layCloud } from './cloud.ts';
import { layLogical, setPort } from './logical.ts';
import { recordPurchases } from './purchases.ts';
import { schedules } from './schedules.ts';
import { linkList, offered, supplies } from './supplies.ts';

type DeviceEntry = NonNullable<ExchangeFile['devices']>[number];
type CableEntry = NonNullable<ExchangeFile['cables']>[number];

const ground = 'Kelder Quay/Harbour House/Ground';
const first = 'Kelder Quay/Harbour House/First';
const ashholm = 'Ashholm/Comms room';
const gateShed = 'Ashholm/Gate shed';
const brinsay = 'Brinsay/Comms room';
const slip = 'Otterslip/Slipway';
const petrel = 'MV Petrel/Bridge deck';
const sandpiper = 'MV Sandpiper/Bridge deck';
const room = `${ground}/Data room`;
const { places: storePlaces, ...stores } = supplies;
const devices: DeviceEntry[] = [];
const cables: CableEntry[] = [];
let serial = 27714;

/** When the gear of a site went in, by the letters its names begin with. */
const installed: Readonly<Record<string, string>> = {
  kq: '2024-03-18',
  ah: '2021-09-06',
  br: '2022-05-30',
  os: '2025-10-02',
  pt: '2017-11-12',
  sp: '2017-11-26',
};
const installedOn = (name: string): string | undefined => installed[name.slice(0, 2).toLowerCase()];

const racked = (
  name: string,
  model: string,
  rack: string,
  unit: number | null,
  rest: Partial<DeviceEntry> = {},
): void => {
  const maker = model.startsWith('Lumenroot')
    ? null
    : `${model.slice(0, 2).toUpperCase()}31-${String((serial += 37)).padStart(7, '0')}`;
  devices.push({ name, model, rack, unit, serial: maker, installedOn: installedOn(name), ...rest });
};
const placed = (name: string, model: string, place: string): void => {
  devices.push({
    name,
    model,
    place,
    installedOn: installedOn(name),
    serial: model.startsWith('Lumenroot')
      ? null
      : `${model.slice(0, 2).toUpperCase()}19-${String((serial += 37)).padStart(7, '0')}`,
  });
};
const numbers = new Map<string, number>();
const nextLabel = (code: string): string => {
  const number = (numbers.get(code) ?? 0) + 1;
  numbers.set(code, number);
  return `${code}-${String(number).padStart(5, '0')}`;
};
const cable = (type: string, lengthM: number, a: string, b: string): void => {
  cables.push({ label: nextLabel('KQ'), type, lengthM, a, b });
};

// Racks KQ-A1 and KQ-A2: the core pair, each with its edge, firewall and servers.
for (const n of [1, 2]) {
  const rack = `KQ-A${n}`;
  racked(`${rack}-PP1`, 'Lumenroot LP-24LC', rack, 42);
  racked(`${rack}-CM1`, 'Lumenroot CM-1', rack, 41);
  racked(`kq-core-${n}`, 'Norvane CR-6032', rack, 38);
  racked(`${rack}-CM2`, 'Lumenroot CM-1', rack, 37);
  racked(`kq-fw-${n}`, 'Ostrel Bulwark 220', rack, 35);
  racked(`kq-edge-${n}`, 'Norvane ER-410', rack, 33);
  racked(`kq-srv-${n * 2 - 1}`, 'Tessmark T2-Rack', rack, 20);
  racked(`kq-srv-${n * 2}`, 'Tessmark T2-Rack', rack, 17);
  racked(`kq-ups-${n}`, 'Brackwater UP-3000', rack, 1);
  racked(`${rack}-PDA`, 'Brackwater PS-16', rack, null);
}
racked('kq-st-1', 'Tessmark Vault 12', 'KQ-A2', 13);
racked('kq-acc-1', 'Norvane AX-2448P', 'KQ-A1', 40);
racked('kq-acc-2', 'Norvane AX-2448P', 'KQ-A2', 40);

// Rack KQ-A3: horizontal cabling of the ground floor and the switches that serve it.
racked('KQ-A3-PP1', 'Lumenroot CP-48', 'KQ-A3', 42);
racked('KQ-A3-CM1', 'Lumenroot CM-1', 'KQ-A3', 41);
racked('kq-acc-3', 'Norvane AX-2448P', 'KQ-A3', 40);
racked('KQ-A3-PP2', 'Lumenroot CP-48', 'KQ-A3', 38);
racked('KQ-A3-CM2', 'Lumenroot CM-1', 'KQ-A3', 37);
racked('kq-acc-4', 'Norvane AX-2448P', 'KQ-A3', 36);
racked('KQ-A3-PDA', 'Brackwater PS-16', 'KQ-A3', null);

// The wall cabinet of the first floor.
racked('KQ-W1-PP1', 'Lumenroot LP-24LC', 'KQ-W1', 12);
racked('KQ-W1-PP2', 'Lumenroot CP-24', 'KQ-W1', 11);
racked('kq-acc-5', 'Norvane AX-2424P', 'KQ-W1', 9);
racked('KQ-W1-PDA', 'Brackwater PS-16', 'KQ-W1', null);

// Zone boxes and what is plugged into them.
placed('KQ-Z1', 'Lumenroot Zone box 12', `${ground}/Ticket hall`);
placed('KQ-Z2', 'Lumenroot Zone box 12', `${ground}/Baggage`);
placed('KQ-Z3', 'Lumenroot Zone box 12', `${first}/Operations room`);
for (const n of [1, 2, 3]) placed(`kq-cam-${n}`, 'Pellane Domus 4', `${ground}/Ticket hall`);
for (const n of [4, 5, 6]) placed(`kq-cam-${n}`, 'Pellane Domus 4', `${ground}/Baggage`);
placed('kq-ap-1', 'Norvane WA-52', `${ground}/Ticket hall`);
placed('kq-ap-2', 'Norvane WA-52', `${ground}/Baggage`);
for (const n of [1, 2]) placed(`kq-desk-${n}`, 'Tessmark Desk 5', `${first}/Operations room`);
for (const n of [1, 2]) placed(`kq-ph-${n}`, 'Pellane Talk 30', `${first}/Operations room`);

// Core: two 100G links between the pair, firewalls and edges on 10G.
cable('twinax 100G', 3, 'kq-core-1:hu1/31', 'kq-core-2:hu1/31');
cable('twinax 100G', 3, 'kq-core-1:hu1/32', 'kq-core-2:hu1/32');
for (const n of [1, 2]) {
  cable('twinax 10G', 1, `kq-fw-${n}:x1`, `kq-core-${n}:te1/21`);
  cable('OM4 duplex LC', 5, `kq-fw-${n}:x2`, `kq-core-${3 - n}:te1/22`);
  cable('twinax 10G', 1, `kq-edge-${n}:te0/1`, `kq-fw-${n}:x3`);
}
cable('Cat 6A RJ45', 5, 'kq-fw-1:g8', 'kq-fw-2:g8');

// Access switches, dual-homed: direct in the data room, through panels to the first floor.
[1, 2, 3, 4].forEach((n) => {
  const rackOf = n === 1 ? 1 : n === 2 ? 2 : 3;
  for (const core of [1, 2]) {
    const length = rackOf === core ? 1 : rackOf === 3 ? 7 : 5;
    cable(
      'OM4 duplex LC',
      length === 7 ? 10 : length,
      `kq-acc-${n}:te1/${48 + core}`,
      `kq-core-${core}:te1/${n}`,
    );
  }
});
for (const core of [1, 2]) {
  cable('OS2 duplex LC', 2, `kq-core-${core}:te1/5`, `KQ-A${core}-PP1:F1`);
  cable('OS2 duplex LC', 50, `KQ-A${core}-PP1:R1`, `KQ-W1-PP1:R${core}`);
  cable('OS2 duplex LC', 1, `KQ-W1-PP1:F${core}`, `kq-acc-5:te1/${24 + core}`);
}

// Servers and storage on both cores, their management on the access switches.
[1, 2, 3, 4].forEach((n) => {
  const home = n <= 2 ? 1 : 2;
  cable('twinax 25G', 2, `kq-srv-${n}:eno1`, `kq-core-${home}:te1/${6 + n}`);
  cable('OM4 duplex LC', 5, `kq-srv-${n}:eno2`, `kq-core-${3 - home}:te1/${6 + n}`);
  cable('Cat 6A RJ45', 3, `kq-srv-${n}:bmc`, `kq-acc-${home}:gi1/${40 + n}`);
});
for (const [at, core] of [1, 2, 1, 2].entries()) {
  cable(
    core === 2 ? 'twinax 25G' : 'OM4 duplex LC',
    core === 2 ? 3 : 5,
    `kq-st-1:san${at + 1}`,
    `kq-core-${core}:te1/${11 + Math.floor(at / 2)}`,
  );
}
cable('Cat 6A RJ45', 3, 'kq-st-1:bmc', 'kq-acc-2:gi1/45');
for (const n of [1, 2]) {
  cable('Cat 6A RJ45', 2, `kq-core-${n}:mgmt0`, `kq-acc-${n}:gi1/47`);
  cable('Cat 6A RJ45', 2, `kq-fw-${n}:mgmt0`, `kq-acc-${n}:gi1/46`);
  cable('Cat 6A RJ45', 2, `kq-edge-${n}:mgmt0`, `kq-acc-${n}:gi1/48`);
}

// Horizontal cabling: panel rears to zone boxes, patched to the access switches.
for (let n = 1; n <= 12; n++) {
  cable('Cat 6A RJ45', 30, `KQ-A3-PP1:R${n}`, `KQ-Z1:R${n}`);
  cable('Cat 6A RJ45', 50, `KQ-A3-PP2:R${n}`, `KQ-Z2:R${n}`);
  cable('Cat 6A RJ45', 20, `KQ-W1-PP2:R${n}`, `KQ-Z3:R${n}`);
}
for (let n = 1; n <= 12; n++) {
  cable('Cat 6A RJ45', 0.5, `KQ-A3-PP1:F${n}`, `kq-acc-3:gi1/${n}`);
  cable('Cat 6A RJ45', 0.5, `KQ-A3-PP2:F${n}`, `kq-acc-4:gi1/${n}`);
  if (n <= 8) cable('Cat 6A RJ45', 0.5, `KQ-W1-PP2:F${n}`, `kq-acc-5:gi1/${n}`);
}
for (const n of [1, 2, 3]) {
  cable('Cat 6A RJ45', 5, `KQ-Z1:F${n}`, `kq-cam-${n}:eth0`);
  cable('Cat 6A RJ45', 5, `KQ-Z2:F${n}`, `kq-cam-${n + 3}:eth0`);
}
cable('Cat 6A RJ45', 3, 'KQ-Z1:F4', 'kq-ap-1:eth0');
cable('Cat 6A RJ45', 3, 'KQ-Z2:F4', 'kq-ap-2:eth0');
for (const n of [1, 2]) {
  cable('Cat 6 RJ45', 3, `KQ-Z3:F${n}`, `kq-ph-${n}:lan`);
  cable('Cat 6 RJ45', 2, `kq-ph-${n}:pc`, `kq-desk-${n}:eth0`);
}

// Power: one inlet on the UPS of the rack (feed A), one on its strip (feed B); and what was patched at the same time.
for (const n of [1, 2]) {
  cable('Cat 6A RJ45', 0.5, `KQ-W1-PP2:F${8 + n}`, `kq-acc-5:gi1/${8 + n}`);
  const dual = [`kq-core-${n}`, `kq-fw-${n}`, `kq-edge-${n}`, `kq-srv-${n * 2 - 1}`, `kq-srv-${n * 2}`];
  dual.forEach((name, at) => {
    cable('power C13–C14', 2, `kq-ups-${n}:out${at + 1}`, `${name}:psu1`);
    cable('power C13–C14', 2, `KQ-A${n}-PDA:o${at + 1}`, `${name}:psu2`);
  });
  cable('power C13–C14', 2, `KQ-A${n}-PDA:o6`, `kq-acc-${n}:psu1`);
}
cable('power C13–C14', 2, 'kq-ups-2:out6', 'kq-st-1:psu1');
cable('power C13–C14', 2, 'KQ-A2-PDA:o7', 'kq-st-1:psu2');
cable('Cat 6A RJ45', 0.5, 'KQ-W1-PP2:F11', 'kq-acc-5:gi1/11');
cable('power C13–C14', 2, 'KQ-A3-PDA:o1', 'kq-acc-3:psu1');
cable('power C13–C14', 2, 'KQ-A3-PDA:o2', 'kq-acc-4:psu1');
cable('power C13–C14', 1, 'KQ-W1-PDA:o1', 'kq-acc-5:psu1');

// What hangs on a feed without a cable in the model: UPS on A, strips on B.
const onFeed = (name: string, feed: string): void => {
  const device = devices.find((one) => one.name === name);
  if (device !== undefined) device.feed = feed;
};
for (const n of [1, 2]) {
  onFeed(`kq-ups-${n}`, 'A');
  onFeed(`KQ-A${n}-PDA`, 'B');
}
onFeed('KQ-A3-PDA', 'A');
onFeed('KQ-W1-PDA', 'A');

// The other sites: an edge router, an access switch, a panel, a UPS and a strip each, as far as they have a rack.
const outpost = (code: string, rack: string, units: number, access: string, edge: string | null): void => {
  const site = code.toLowerCase();
  racked(`${rack}-PP1`, 'Lumenroot CP-24', rack, units);
  racked(`${rack}-CM1`, 'Lumenroot CM-1', rack, units - 1);
  racked(`${site}-acc-1`, access, rack, units - 2);
  if (edge !== null) racked(`${site}-edge-1`, edge, rack, units - 4);
  racked(`${site}-ups-1`, 'Brackwater UP-1500', rack, 1, { feed: 'A' });
  racked(`${rack}-PDA`, 'Brackwater PS-16', rack, null);
  const join = (type: string, lengthM: number, a: string, b: string): void => {
    cables.push({ label: nextLabel(code), type, lengthM, a, b });
  };
  for (let n = 1; n <= 8; n++) join('Cat 6A RJ45', 0.5, `${rack}-PP1:F${n}`, `${site}-acc-1:gi1/${n}`);
  join('power C13–C14', 1, `${site}-ups-1:out1`, `${site}-acc-1:psu1`);
  if (edge !== null) {
    join('Cat 6A RJ45', 1, `${site}-edge-1:ge0/1`, `${site}-acc-1:gi1/24`);
    join('power C13–C14', 1, `${site}-ups-1:out2`, `${site}-edge-1:psu1`);
  }
};
outpost('AH', 'AH-A1', 42, 'Norvane AX-2424P', 'Norvane ER-410');
outpost('BR', 'BR-A1', 24, 'Norvane AX-2424P', 'Norvane ER-410');
outpost('PT', 'PT-A1', 18, 'Norvane AX-2424P', 'Norvane ER-210');
outpost('SP', 'SP-A1', 18, 'Norvane AX-2424P', 'Norvane ER-210');
racked('AH-W1-PP1', 'Lumenroot CP-24H', 'AH-W1', 9);
racked('ah-acc-2', 'Norvane AX-1208P', 'AH-W1', 7);
racked('os-acc-1', 'Norvane IX-812P', 'OS-C1', null);
racked('os-dc-1', 'Brackwater DC-24', 'OS-C1', null, { feed: 'A' });
racked('br-srv-1', 'Tessmark T4-Quad', 'BR-A1', 10, { feed: 'A' });
placed('br-wb-1', 'Norvane WB-60', brinsay);
placed('os-wb-1', 'Norvane WB-60', slip);
placed('os-cam-1', 'Pellane Quay PTZ', slip);
cables.push({ label: nextLabel('OS'), type: 'DC lead', lengthM: 1, a: 'os-dc-1:dc1', b: 'os-acc-1:dc' });
cables.push({
  label: nextLabel('OS'),
  type: 'Cat 6A RJ45',
  lengthM: 15,
  a: 'os-acc-1:gi1/1',
  b: 'os-wb-1:eth0',
});
cables.push({
  label: nextLabel('OS'),
  type: 'Cat 6A RJ45',
  lengthM: 20,
  a: 'os-acc-1:gi1/2',
  b: 'os-cam-1:eth0',
});
cables.push({
  label: nextLabel('BR'),
  type: 'Cat 6A RJ45',
  lengthM: 20,
  a: 'br-acc-1:gi1/12',
  b: 'br-wb-1:eth0',
});
// Cameras and access points of the offices. Deliberate fault 5: with them kq-acc-5 promises 374 W of its 370 W.
placed('KQ-Z4', 'Lumenroot Zone box 12', `${first}/Operations room`);
for (let n = 1; n <= 4; n++) {
  placed(`kq-ap-${n + 2}`, 'Norvane WA-52', `${first}/Offices`);
  cable('Cat 6A RJ45', 30, `KQ-W1-PP2:R${n + 12}`, `KQ-Z4:R${n}`);
  cable('Cat 6A RJ45', 0.5, `KQ-W1-PP2:F${n + 12}`, `kq-acc-5:gi1/${n + 12}`);
  cable('Cat 6A RJ45', 3, `KQ-Z4:F${n}`, `kq-ap-${n + 2}:eth0`);
}
for (let n = 7; n <= 14; n++) {
  placed(`kq-cam-${n}`, 'Pellane Domus 8', n <= 10 ? `${first}/Operations room` : `${first}/Offices`);
  cable('Cat 6A RJ45', 10, `KQ-Z3:F${n - 4}`, `kq-cam-${n}:eth0`);
}
// Deliberate fault 4: a long-reach optic faces a short-reach one.
cables.push({
  label: nextLabel('BR'),
  type: 'OS2 duplex LC',
  lengthM: 2,
  a: 'br-edge-1:te0/1',
  b: 'br-acc-1:te1/25',
});

// Deliberate faults 1 and 2: one cable with its A end only, and a label missing from the sequence.
numbers.set('AH', 15);
cables.push({ label: nextLabel('AH'), type: 'Cat 6A RJ45', lengthM: 10, a: 'ah-acc-1:gi1/12', b: null });
for (let n = 12; n <= 15; n++) {
  const label = `AH-${String(n).padStart(5, '0')}`;
  cables.push({ label, type: 'Cat 6A RJ45', lengthM: 20, a: `AH-A1-PP1:R${n}`, b: `AH-W1-PP1:R${n}` });
}
cables.push({
  label: 'AH-00018',
  type: 'Cat 6A RJ45',
  lengthM: 0.5,
  a: 'AH-A1-PP1:F12',
  b: 'ah-acc-1:gi1/13',
});

const feed = (name: string, amps: number) => ({ name, volts: 230, amps, phases: 1 as const, derating: 0.8 });
const both = [feed('A', 32), feed('B', 32)];
const deep = { units: 42, depthMm: 1000, massLimitKg: 900, feeds: both, facing: 'north' as const };

const logical = layLogical(devices);
const cloud = layCloud(devices);
const file = {
  ...cloud,
  format: 'visograph-exchange',
  version: 1,
  project: { name: 'Marrow Sound Ferries', labelDigits: 5 },
  places: [
    ...storePlaces,
    ...(cloud.places ?? []),
    {
      path: 'Kelder Quay',
      kind: 'site',
      code: 'KQ',
      vlanNumbering: 'shore',
      address: '1 Harbour Road, Kelder Quay',
      latitude: 54.2031,
      longitude: -4.8127,
      contacts: 'Anna Kerr, network, ext. 210\nHarbour office, keys, ext. 100',
    },
    { path: 'Kelder Quay/Harbour House', kind: 'building' },
    { path: ground, kind: 'floor' },
    { path: first, kind: 'floor' },
    { path: room, kind: 'room', eastM: 10, northM: 5, levelM: 0, trayHeightM: 2.7 },
    { path: `${ground}/Ticket hall`, kind: 'room' },
    { path: `${ground}/Baggage`, kind: 'room' },
    { path: `${first}/Operations room`, kind: 'room', eastM: 15, northM: 8, levelM: 4 },
    { path: `${first}/Offices`, kind: 'room', eastM: 35, northM: 8, levelM: 4 },
    {
      path: 'Ashholm',
      kind: 'site',
      code: 'AH',
      vlanNumbering: 'shore',
      address: 'Ferry terminal, Ashholm',
      latitude: 54.1419,
      longitude: -4.5583,
    },
    { path: ashholm, kind: 'room' },
    { path: gateShed, kind: 'room' },
    {
      path: 'Brinsay',
      kind: 'site',
      code: 'BR',
      vlanNumbering: 'shore',
      address: 'Pier Street, Brinsay',
      latitude: 54.3302,
      longitude: -4.2911,
    },
    { path: brinsay, kind: 'room' },
    {
      path: 'Otterslip',
      kind: 'site',
      code: 'OS',
      vlanNumbering: 'shore',
      latitude: 54.3377,
      longitude: -4.2768,
    },
    { path: slip, kind: 'room' },
    { path: 'MV Petrel', kind: 'site', code: 'PT', vlanNumbering: 'vessels', notes: 'Vessel' },
    { path: petrel, kind: 'floor' },
    { path: 'MV Sandpiper', kind: 'site', code: 'SP', vlanNumbering: 'vessels', notes: 'Vessel' },
    { path: sandpiper, kind: 'floor' },
  ],
  racks: [
    { name: 'KQ-A1', place: room, position: 1, ...deep },
    { name: 'KQ-A2', place: room, position: 2, ...deep },
    { name: 'KQ-A3', place: room, position: 3, ...deep },
    {
      name: 'KQ-W1',
      place: `${first}/Operations room`,
      units: 12,
      position: 1,
      massLimitKg: 90,
      posts: 2 as const,
      feeds: [feed('A', 10)],
    },
    { name: 'AH-A1', place: ashholm, position: 1, units: 42, massLimitKg: 700, feeds: both },
    {
      name: 'AH-W1',
      place: gateShed,
      position: 1,
      units: 9,
      massLimitKg: 60,
      posts: 2 as const,
      feeds: [feed('A', 10)],
    },
    { name: 'BR-A1', place: brinsay, position: 1, units: 24, massLimitKg: 400, feeds: [feed('A', 10)] },
    {
      name: 'OS-C1',
      place: slip,
      position: 1,
      units: 12,
      massLimitKg: 80,
      posts: 2 as const,
      feeds: [feed('A', 6)],
    },
    { name: 'PT-A1', place: petrel, position: 1, units: 18, massLimitKg: 250, feeds: [feed('A', 10)] },
    { name: 'SP-A1', place: sandpiper, position: 1, units: 18, massLimitKg: 250, feeds: [feed('A', 10)] },
  ],
  ...logical,
  vrfs: [...(logical.vrfs ?? []), ...(cloud.vrfs ?? [])],
  prefixes: [...(logical.prefixes ?? []), ...(cloud.prefixes ?? [])],
  devices,
  cables,
  circuits: [
    {
      number: 'HC-20417',
      provider: 'Holm Carrier',
      kind: 'internet' as const,
      bandwidthBps: 1e9,
      a: 'kq-edge-1:ge0/1',
      handover: 'Data room, wall box 1',
    },
    {
      number: 'SN-0093-A',
      provider: 'Skerrynet',
      kind: 'internet' as const,
      bandwidthBps: 5e8,
      a: 'kq-edge-2:ge0/1',
      handover: 'Data room, wall box 2',
    },
    {
      number: 'HC-7710-1',
      provider: 'Holm Carrier',
      kind: 'private WAN' as const,
      bandwidthBps: 2e8,
      a: 'kq-edge-1:ge0/2',
      b: 'ah-edge-1:ge0/2',
      handover: 'Comms room, Ashholm',
    },
    {
      number: 'HC-7710-2',
      provider: 'Holm Carrier',
      kind: 'private WAN' as const,
      bandwidthBps: 1e8,
      a: 'kq-edge-2:ge0/2',
      b: 'br-edge-1:ge0/2',
      handover: 'Comms room, Brinsay',
    },
    {
      number: 'SN-0107-B',
      provider: 'Skerrynet',
      kind: 'internet' as const,
      bandwidthBps: 1e8,
      a: 'ah-edge-1:ge0/3',
      handover: 'Comms room, Ashholm',
    },
    {
      number: 'Brinsay–Otterslip 60 GHz',
      kind: 'radio hop' as const,
      bandwidthBps: 1e9,
      lengthM: 1250,
      a: 'br-wb-1:radio0',
      b: 'os-wb-1:radio0',
    },
  ],
  pathways: [
    { name: 'Riser 1', kind: 'riser' as const, from: room, to: `${first}/Operations room`, lengthM: 18 },
    { name: 'Hall tray', kind: 'tray' as const, from: room, to: `${ground}/Ticket hall`, lengthM: 24 },
    {
      name: 'Baggage tray',
      kind: 'tray' as const,
      from: `${ground}/Ticket hall`,
      to: `${ground}/Baggage`,
      lengthM: 20,
    },
    { name: 'Yard duct', kind: 'duct' as const, from: ashholm, to: gateShed, lengthM: 14 },
  ],
  sheets: [
    { name: 'Kelder Quay · switching', projection: 'switching', scope: 'Kelder Quay' },
    {
      name: 'All sites · routing',
      projection: 'routing',
      marks: [{ form: 'schedule', schedule: 'Subnets that fill up', x: 0, y: 424, height: 400 }],
    },
    { name: 'Data room · cabling', scope: room },
    { name: 'Kelder Quay · cabling', scope: 'Kelder Quay' },
    { name: 'Booking · cloud', projection: 'cloud', scope: 'msf-booking', locked: ['containers'] },
  ],
  schedules: schedules(room),
  ...stores,
};

/** What a fibre run needs in its cages, by the class of fibre and the slower of its two ports. */
const optics: Record<string, Record<number, string>> = {
  OM4: { 1e10: 'Lumenroot SR-10', 2.5e10: 'Lumenroot SR-25' },
  OS2: { 1e10: 'Lumenroot LR-10', 2.5e10: 'Lumenroot LR-25' },
};
const wrongOptic: Record<string, string> = { 'br-acc-1:te1/25': 'Lumenroot SR-10' };

/** Puts transceivers into the cages at both ends of every fibre run. */
function fillCages(network: Network): void {
  for (const port of network.all('port')) {
    if (!isCage(port.connector)) continue;
    const run = traceRun(network, port.id);
    const far = network.get('port', run.to);
    const [first] = run.hops.flatMap((hop) => ('cable' in hop ? [network.get('cable', hop.cable)] : []));
    const medium = network.get('model', first?.typeId ?? null)?.medium ?? '';
    const speed = Math.min(port.speedBps ?? Infinity, far?.speedBps ?? Infinity);
    const title = portTitle(network, port.id);
    const transceiver = wrongOptic[title] ?? optics[medium]?.[speed];
    const device = devices.find((one) => title.startsWith(`${one.name}:`));
    if (transceiver === undefined || device === undefined) continue;
    setPort(devices, title, {
      transceiver,
      transceiverSerial: `LR26-${String((serial += 11)).padStart(6, '0')}`,
    });
  }
}

const start = Network.of({
  project: [newProject('Marrow Sound Ferries')],
  model: builtInModels(),
});
recordPurchases(devices);
const bare = readExchange(start, file);
if (bare.ok) fillCages(bare.network);
const read = readExchange(start, file);
if (!read.ok) {
  for (const problem of read.problems) console.error(`${problem.path}: ${problem.message}`);
  process.exit(1);
}
/** What is found and meant to be so, and why. */
const meant: [rule: string, device: string, reason: string, until: string | null][] = [
  ['single-fed', 'ah-edge-1', 'The second supply is a spare until strip B has a free C13', '2027-06-30'],
  ['inlets-one-feed', 'br-srv-1', 'Brinsay has one feed; what runs there also runs at Kelder Quay', null],
];
let { network } = read;
for (const [rule, name, reason, until] of meant) {
  const id = network.findOne('deviceByName', name)?.id;
  const found = findingsOf(network).filter(
    (finding) => finding.rule === rule && finding.subjects.some((subject) => subject.id === id),
  );
  const attempt = waive(network, found, { reason, until, by: 'Anna Kerr', on: '2026-11-02' });
  const applied = attempt.ok && found.length === 1 ? applyChanges(network, attempt.set.changes) : null;
  if (applied?.ok !== true) throw new Error(`${name} cannot be waived`);
  ({ network } = applied);
}
const list = [...network.all('partsList')].find(({ name }) => name === linkList) ?? null;
const draft = beginQuotation(network, list, offered.quotedOn, { ...offered, tax: 1900 });
const quoted = draft.ok ? applyChanges(network, draft.set.changes) : null;
const quotation = quoted?.ok === true ? quoted.network.get('quotation', draft.id) : null;
if (quoted?.ok !== true || quotation === null) throw new Error('the link cannot be quoted');
const issued = issueQuotation(quoted.network, quotation);
const done = issued.ok ? applyChanges(quoted.network, issued.set.changes) : null;
if (done?.ok !== true) throw new Error('the quotation cannot be issued');
({ network } = done);
const target = new URL('../../demo/marrow-sound-ferries.json', import.meta.url);
writeFileSync(target, `${JSON.stringify(writeExchange(network), null, 1)}\n`);
console.log(
  `wrote demo/marrow-sound-ferries.json: ${devices.length} devices, ${cables.length} cables, ${network.count('port')} ports`,
);
