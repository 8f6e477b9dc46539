import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { routedLine } from '../../addressing/commands/numberDrawn.ts';
import { addressesOf } from '../../addressing/management.ts';
import { setPortAddress } from '../../addressing/commands/portAddress.ts';
import {
  copyDevices,
  copyText,
  mostCopies,
  nextNameAfter,
  type CopyWish,
} from '../../cabling/commands/copyDevices.ts';
import { joinAll } from '../../cabling/commands/join.ts';
import { create } from '../../change/change.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { blankPlace } from '../../model/kinds/sites/place.ts';
import { blankPrefix } from '../../model/kinds/logical/prefix.ts';
import type { Network } from '../../model/network/network.ts';
import { everyPortOf, portsOf } from '../../model/network/ports.ts';
import { newId } from '../../model/values/ids.ts';
import { setSwitching } from '../../switching/commands/vlans.ts';
import { cablesOf, called, changed, drawn, emptyProject } from '../../testing/testDrawn.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { overlap } from '../scene/scene.ts';
import { copyOnSheet, type SheetCopyWish } from './copyOnSheet.ts';
import { addSheet } from './sheets.ts';

const once: CopyWish = { times: 1, toOthers: true, addresses: true };
/** A phone on port 5 of a switch, in VLAN 20 with an address, and two routers with a link of their own. */
function floor(): Network {
  let network = drawn({
    'sw-1': 'AX-2424P',
    'ph-1': 'Generic phone',
    'rt-1': 'Generic router',
    'rt-2': 'Generic router',
    'fw-a': 'Generic firewall',
  });
  const gi5 = portsOf(network, called(network, 'sw-1').id)[4];
  const line = joinAll(network, [
    { aDeviceId: called(network, 'ph-1').id, bDeviceId: called(network, 'sw-1').id, bPortId: gi5?.id },
    { aDeviceId: called(network, 'rt-1').id, bDeviceId: called(network, 'fw-a').id },
  ]);
  if (!line.ok || gi5 === undefined) throw new Error('no line');
  network = changed(line.network, [
    create('prefix', { ...blankPrefix, id: newId(), prefix: '10.1.20.0/24', role: 'subnet' }),
  ]);
  const vlan = setSwitching(network, [gi5], { mode: 'access', untaggedVid: 20 });
  if (!vlan.ok) throw new Error(vlan.why);
  network = changed(network, vlan.set.changes);
  const [own] = portsOf(network, called(network, 'ph-1').id);
  const given = own === undefined ? null : setPortAddress(network, own, '10.1.20.7/24');
  if (given?.ok !== true) throw new Error('no address');
  network = changed(network, given.set.changes);
  const routed = routedLine(
    network,
    { aDeviceId: called(network, 'rt-1').id, bDeviceId: called(network, 'rt-2').id },
    { vrfId: null, linksFrom: '10.0.0.0/24', length: 31 },
  );
  if (!routed.ok) throw new Error(routed.why);
  return changed(network, routed.changes);
}
function copied(network: Network, names: readonly string[], wish: Partial<CopyWish> = {}) {
  const made = copyDevices(
    network,
    names.map((name) => called(network, name)),
    { ...once, ...wish },
  );
  if (!made.ok) throw new Error(made.why);
  return { ...made, after: changed(network, made.changes), text: copyText(made) };
}
const addressOf = (network: Network, name: string): string[] =>
  everyPortOf(network, called(network, name).id).flatMap((port) =>
    addressesOf(network, port.id).map(({ address }) => address),
  );

describe('devices that are copied', () => {
  test('names, far ports, VLANs and addresses are counted on', () => {
    const { after, text } = copied(floor(), ['ph-1'], { times: 3 });
    expect(text).toBe('ph-2 to ph-4, 3 cables, 3 addresses');
    expect(['ph-2', 'ph-3', 'ph-4'].flatMap((name) => addressOf(after, name))).toEqual([
      '10.1.20.8/24',
      '10.1.20.9/24',
      '10.1.20.10/24',
    ]);
    expect(
      cablesOf(after)
        .filter((line) => line.includes('ph-'))
        .map((line) => line.split(' · ')[0]),
    ).toEqual([
      'ph-1 lan – sw-1 gi1/5',
      'ph-2 lan – sw-1 gi1/6',
      'ph-3 lan – sw-1 gi1/7',
      'ph-4 lan – sw-1 gi1/8',
    ]);
    const access = portsOf(after, called(after, 'sw-1').id).filter(({ untaggedVid }) => untaggedVid === 20);
    expect(access.map(({ name }) => name)).toEqual(['gi1/5', 'gi1/6', 'gi1/7', 'gi1/8']);
  });

  test('a link between two of them has no address: it would need a subnet of its own', () => {
    const { after, text } = copied(floor(), ['rt-1', 'rt-2']);
    expect(text).toBe('2 devices, 2 cables');
    expect(addressOf(after, 'rt-3')).toEqual([]);
    const lines = cablesOf(after).map((line) => line.split(' · ')[0]);
    expect(lines).toContain('rt-3 eth1 – rt-4 eth0');
    expect(lines).toContain('rt-3 eth0 – fw-a eth1');
  });

  test('a subnet that is full and a switch without free ports are said, the rest is made', () => {
    const start = floor();
    expect(copied(start, ['rt-2']).text).toBe('rt-3, 1 cable; 1 address left out: nothing free');
    const { text, counts } = copied(start, ['ph-1'], { times: 30, addresses: false });
    expect(text).toBe('ph-2 to ph-31, 23 cables; 7 cables left out: nothing free');
    expect(counts).toMatchObject({ cables: 23, unplugged: 7, addresses: 0 });
  });

  test('without cables to others and addresses only what is their own is copied', () => {
    const { after, text } = copied(floor(), ['ph-1'], { toOthers: false, addresses: false });
    expect(text).toBe('ph-2');
    expect(after.count('cable')).toBe(floor().count('cable'));
  });

  test('what is one device alone has is not its copy’s; what stands somewhere is planned again', () => {
    const start = demoNetwork();
    const { after } = copied(start, ['kq-core-1'], { toOthers: false });
    const copy = called(after, 'kq-core-3');
    expect(copy).toMatchObject({
      serial: null,
      installedOn: null,
      rackId: null,
      stack: null,
      routerId: null,
      status: 'planned',
    });
    const own = everyPortOf(start, called(start, 'kq-core-1').id);
    const ports = everyPortOf(after, copy.id);
    expect(ports.map(({ name, mode, untaggedVid }) => [name, mode, untaggedVid])).toEqual(
      own.map(({ name, mode, untaggedVid }) => [name, mode, untaggedVid]),
    );
    const ids = new Set(ports.map(({ id }) => id));
    for (const port of ports)
      for (const id of [port.leadsToId, port.aggregateId, port.parentId])
        expect(id === null || ids.has(id)).toBe(true);
    expect(called(copied(floor(), ['ph-1']).after, 'ph-2').status).toBe('active');
  });

  test('any devices of the demo are copied to a network that holds, each with as many ports', () => {
    const start = demoNetwork();
    const all = [...start.all('device')].sort((a, b) => (a.name < b.name ? -1 : 1));
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: all.length - 1 }), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 1, max: 3 }),
        (picks, times) => {
          const names = picks.map((at) => all[at]?.name ?? '');
          const { after, copies } = copied(start, names, { times });
          expect(copies.flat()).toHaveLength(names.length * times);
          copies.forEach((copy) =>
            copy.forEach((device, at) =>
              expect(everyPortOf(after, device.id)).toHaveLength(
                everyPortOf(start, called(start, names[at] ?? '').id).length,
              ),
            ),
          );
          expect(new Set([...after.all('device')].map(({ name }) => name.toLowerCase())).size).toBe(
            after.count('device'),
          );
        },
      ),
      { numRuns: 15 },
    );
  });

  test.each([
    ['rt-9', 'rt-10'],
    ['sw-07', 'sw-08'],
    ['edge', 'edge-2'],
    ['ph-1', 'ph-2'],
    ['cam-099', 'cam-100'],
  ])('the name after %s is %s', (name, next) => expect(nextNameAfter(floor(), name)).toBe(next));

  test('nothing chosen, no number, too many: told', () => {
    const network = floor();
    const why = (devices: readonly Device[], times: number): string => {
      const made = copyDevices(network, devices, { ...once, times });
      return made.ok ? 'copied' : made.why;
    };
    expect(why([], 1)).toBe('Choose devices to copy first.');
    expect(why([called(network, 'ph-1')], Number.NaN)).toMatch(/^NaN copies are not possible/);
    expect(why([called(network, 'ph-1')], mostCopies + 1)).toMatch(/say 1 to 100/);
    expect(why([...network.all('device'), ...network.all('device')], 60)).toBe(
      'That would be 600 devices: copy 500 at a time, or fewer.',
    );
  });
});

describe('copies on a sheet', () => {
  function sheetOf(start: Network, scopeId: string | null) {
    const set = addSheet(start, { scopeId });
    const network = changed(start, set.changes);
    const sheet = network.get('sheet', set.sheetId);
    if (sheet === null) throw new Error('no sheet');
    return { network, sheet };
  }
  const wish: SheetCopyWish = { ...once, step: { x: 160, y: 0 } };
  const box = { x: 0, y: 0, width: 128, height: 40 };

  test('stand one step further each, beside what stands there already', () => {
    const { network, sheet } = sheetOf(floor(), null);
    const phone = called(network, 'ph-1');
    const inTheWay = { x: 320, y: 0, width: 128, height: 40 };
    const made = copyOnSheet(
      network,
      sheet,
      [phone],
      { ...wish, times: 3 },
      {
        at: new Map([[phone.id, box]]),
        taken: [box, inTheWay],
        fixed: new Map([[phone.id, box]]),
      },
    );
    if (!made.attempt.ok) throw new Error(made.attempt.why);
    const after = changed(network, made.attempt.set.changes);
    const spots = made.deviceIds.map((id) => {
      const item = after.find('sheetItemsBySheet', sheet.id).find(({ subjectId }) => subjectId === id);
      return { x: item?.x ?? 0, y: item?.y ?? 0, width: 128, height: 40 };
    });
    expect(spots[0]).toMatchObject({ x: 160, y: 0 });
    const boxes = [box, inTheWay, ...spots];
    for (const [at, one] of boxes.entries())
      for (const other of boxes.slice(at + 1)) expect(overlap(one, other)).toBe(false);
  });

  test('on the sheet of another place they belong to that place', () => {
    const [from, to] = [newId(), newId()];
    const places = changed(
      emptyProject(),
      [from, to].map((id, at) =>
        create('place', { ...blankPlace, id, name: ['Kelder Quay', 'Brinsay'][at] ?? '', kind: 'site' }),
      ),
    );
    let start = drawn({ 'sw-1': 'AX-2424P' }, places);
    const sw = called(start, 'sw-1');
    start = changed(start, [
      { op: 'update', kind: 'device', id: sw.id, before: { placeId: null }, after: { placeId: from } },
    ]);
    const { network, sheet } = sheetOf(start, to);
    const ground = { at: new Map(), taken: [], fixed: new Map() };
    const made = copyOnSheet(network, sheet, [called(network, 'sw-1')], { ...wish, times: 1 }, ground);
    if (!made.attempt.ok) throw new Error(made.attempt.why);
    const after = changed(network, made.attempt.set.changes);
    expect(after.get('device', made.deviceIds[0] ?? null)).toMatchObject({ placeId: to, status: 'planned' });
  });
});
