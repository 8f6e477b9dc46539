import { describe, expect, test } from '@jest/globals';
import { create } from '../../change/change.ts';
import { blankPlace, type Place } from '../../model/kinds/sites/place.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { called, changed, drawn, emptyProject, modelNamed } from '../../testing/testDrawn.ts';
import { addDevice } from '../../racks/commands/devices.ts';
import { circuitLine, type CircuitWish } from './circuitLine.ts';
import { takeLineBack } from './join.ts';

const site = (id: string, name: string, code: string): Place => ({
  ...blankPlace,
  id,
  name,
  code,
  kind: 'site',
});
const kq = newId();
const br = newId();
const sites = (): Network =>
  changed(emptyProject(), [
    create('place', site(kq, 'Kelder Quay', 'KQ')),
    create('place', site(br, 'Brinsay', 'BR')),
  ]);
const standing = (network: Network, name: string, model: string, placeId: string): Network =>
  changed(
    network,
    addDevice(network, { name, modelId: modelNamed(model).id, rackId: null, placeId, unit: null })?.changes ??
      [],
  );
const made = (network: Network, wish: CircuitWish) => {
  const line = circuitLine(network, wish);
  if (!line.ok) throw new Error(line.why);
  return { ...line, after: changed(network, line.changes) };
};
const why = (network: Network, wish: CircuitWish): string => {
  const line = circuitLine(network, wish);
  return line.ok ? 'made' : line.why;
};
const between: CircuitWish = { a: { placeId: kq }, b: { placeId: br } };

describe('a circuit that is pulled', () => {
  test('between two empty places: each gets a router to end it at, and all is one step', () => {
    const line = made(sites(), between);
    expect(line.sentence).toBe('Connected kq-rt-1 eth0 to br-rt-1 eth0 with circuit 1');
    const [circuit] = [...line.after.all('circuit')];
    expect(circuit).toMatchObject({ number: 'circuit 1', kind: 'private WAN', provider: null });
    const back = takeLineBack(line.after, line.made);
    if (!back.ok) throw new Error(back.why);
    expect(back.set.sentence).toBe('Took a line back');
    expect(changed(line.after, back.set.changes).count('device')).toBe(0);
  });

  test('what has circuits already ends the next one too, before routers, firewalls and switches', () => {
    let network = standing(sites(), 'kq-fw-1', 'Generic firewall', kq);
    network = standing(network, 'kq-sw-1', 'AX-2424P', kq);
    const ended = (on: Network): string => made(on, between).sentence.split(' ').slice(1, 3).join(' ');
    expect(ended(network)).toMatch(/^kq-fw-1 /);
    network = standing(network, 'kq-rt-9', 'Generic router', kq);
    expect(ended(network)).toMatch(/^kq-rt-9 /);
    network = made(network, {
      a: { deviceId: called(network, 'kq-sw-1').id },
      b: { provider: 'Holm Carrier' },
    }).after;
    expect(ended(network)).toMatch(/^kq-sw-1 /);
  });

  test('into the network of a provider one end stays there, from whichever side it was pulled', () => {
    const line = made(sites(), { a: { provider: 'Holm Carrier' }, b: { placeId: br }, bandwidthBps: 1e9 });
    const [circuit] = [...line.after.all('circuit')];
    expect(circuit).toMatchObject({
      provider: 'Holm Carrier',
      kind: 'internet',
      bandwidthBps: 1e9,
      bPortId: null,
    });
    expect(line.after.get('port', circuit?.aPortId ?? null)?.deviceId).toBe(called(line.after, 'br-rt-1').id);
  });

  test('numbers are counted on past those that are there; a number that is taken is refused in words', () => {
    const one = made(sites(), between).after;
    const two = made(one, between).after;
    expect([...two.all('circuit')].map(({ number }) => number).sort()).toEqual(['circuit 1', 'circuit 2']);
    expect(why(two, { ...between, number: 'circuit 1' })).toMatch(/circuit 1/);
  });

  test('refused: to itself, two providers, a taken port, a model that has no free port', () => {
    const network = drawn({ 'pc-1': 'Generic workstation' }, sites());
    expect(why(network, { a: { placeId: kq }, b: { placeId: kq } })).toBe(
      'Kelder Quay cannot be joined to itself.',
    );
    expect(why(network, { a: { provider: 'A' }, b: { provider: 'B' } })).toMatch(/port at one end/);
    const one = made(network, between);
    const port = one.lines[0]?.aPortId ?? null;
    expect(why(one.after, { ...between, aPortId: port })).toMatch(
      /^kq-rt-1 eth0 holds .*Choose a free port\.$/,
    );
    const fixed = drawn({ 'pp-1': 'PS-16' }, network);
    expect(why(fixed, { a: { deviceId: called(fixed, 'pp-1').id }, b: { placeId: br } })).toMatch(
      /^pp-1 has no free port for a circuit/,
    );
  });
});
