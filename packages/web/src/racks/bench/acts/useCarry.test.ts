import { describe, expect, test } from '@jest/globals';
import { builtInModels } from '@visograph/core/catalogue';
import { applyChanges } from '@visograph/core/change';
import { type Attempt } from '@visograph/core/commands';
import {
  blankPlace,
  blankRack,
  Network,
  newId,
  type CatalogueModel,
  type Device,
  type Rack,
} from '@visograph/core/model';
import { attemptOf } from './useCarry.ts';

const place = { ...blankPlace, id: newId(), name: 'Room', kind: 'room' as const, code: 'RM' };
const rack = (name: string, rest: Partial<Rack> = {}): Rack => ({
  ...blankRack,
  id: newId(),
  name,
  placeId: place.id,
  units: 12,
  ...rest,
});
const [one, two] = [rack('R1'), rack('R2', { massLimitKg: 20 })];
const models = builtInModels();
const named = (name: string): CatalogueModel => {
  const found = models.find((model) => model.name === name);
  if (found === undefined) throw new Error(name);
  return found;
};
const land = (to: Rack, unit: number | null, side: Device['side'] = 'full') =>
  ({ rackId: to.id, unit, face: 'front', side }) as const;
const made = (network: Network, attempt: Attempt): Network => {
  const applied = attempt.ok ? applyChanges(network, attempt.set.changes) : null;
  if (applied === null || !applied.ok) throw new Error(attempt.ok ? 'not applied' : attempt.why);
  return applied.network;
};
const start = Network.of({ place: [place], rack: [one, two], model: models });

describe('what letting go comes to', () => {
  test('a model becomes a device with the next name and its ports', () => {
    const network = made(start, attemptOf(start, { form: 'model', model: named('AX-2448P') }, land(one, 5)));
    const [device] = [...network.all('device')];
    expect(device).toMatchObject({ name: 'rm-sw-1', unit: 5, units: 1, rackId: one.id });
    expect(network.count('port')).toBe(53);
    const next = attemptOf(network, { form: 'model', model: named('AX-2448P') }, land(one, 5));
    expect(next.ok ? '' : next.why).toBe('rm-sw-1 fills U5');
  });

  test('half-width gear takes the side it is let go over; a strip the side of the rack', () => {
    const left = made(
      start,
      attemptOf(start, { form: 'model', model: named('AX-1208P') }, land(one, 5, 'left')),
    );
    const both = made(
      left,
      attemptOf(left, { form: 'model', model: named('AX-1208P') }, land(one, 5, 'right')),
    );
    expect([...both.all('device')].map((device) => device.side).sort()).toEqual(['left', 'right']);
    const strip = made(
      both,
      attemptOf(both, { form: 'model', model: named('PS-16') }, land(one, null, 'right')),
    );
    expect([...strip.all('device')].find((device) => device.role === 'PD')).toMatchObject({
      unit: null,
      side: 'right',
    });
  });

  test('too heavy for the rack is refused with the figures', () => {
    const attempt = attemptOf(start, { form: 'model', model: named('UP-3000') }, land(two, 1));
    expect(attempt.ok ? '' : attempt.why).toBe('rm-up-1 weighs 52 kg: R2 would hold 52 kg of at most 20 kg');
  });

  test('several devices move together, keeping their distances', () => {
    let network = made(start, attemptOf(start, { form: 'model', model: named('AX-2448P') }, land(one, 9)));
    network = made(network, attemptOf(network, { form: 'model', model: named('CP-48') }, land(one, 11)));
    const devices = [...network.all('device')].sort((a, b) => (a.unit ?? 0) - (b.unit ?? 0));
    const [grabbed] = devices;
    if (grabbed === undefined) throw new Error('no device');
    const cargo = { form: 'devices' as const, devices, grabbed, grab: { x: 0, y: 0 } };
    const moved = made(network, attemptOf(network, cargo, land(two, 3)));
    expect([...moved.all('device')].map((device) => [device.rackId, device.unit]).sort()).toEqual([
      [two.id, 3],
      [two.id, 5],
    ]);
    const out = attemptOf(network, cargo, land(two, 12));
    expect(out.ok ? '' : out.why).toContain('would leave R2, which has U1–U12');
  });
});
