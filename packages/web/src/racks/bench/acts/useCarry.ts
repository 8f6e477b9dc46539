import { applyChanges } from '@visograph/core/change';
import { type Attempt } from '@visograph/core/commands';
import { type CatalogueModel, type Device, type Network } from '@visograph/core/model';
import { addDevice, candidateOf, moveBlock, nextDeviceName, refusals, tryMove } from '@visograph/core/racks';
import { useCallback, useEffect, useRef, useState, type PointerEvent as ReactPointerEvent } from 'react';
import { useProject } from '../../../data/project.tsx';
import { faceAt, landing, type Landing, type Point, type RackSpot } from '../benchLayout.ts';

/** What is being carried over the racks: devices that are there, or a model from the catalogue. */
export type Cargo =
  | { form: 'devices'; devices: readonly Device[]; grabbed: Device; grab: Point }
  | { form: 'model'; model: CatalogueModel };

export interface Carry {
  cargo: Cargo;
  pointer: Point;
  target: Landing | null;
  /** Over the list of what stands in no rack: letting go takes it out of its rack. */
  outside: boolean;
  /** Why it cannot be let go here; empty when it can. */
  why: string[];
}

export const cargoShape = (cargo: Cargo): { name: string; units: number; side: Device['side'] } =>
  cargo.form === 'model'
    ? { name: cargo.model.name, units: cargo.model.units, side: cargo.model.halfWidth ? 'left' : 'full' }
    : cargo.grabbed;

/** What letting go at a place would come to. */
export function attemptOf(network: Network, cargo: Cargo, target: Landing): Attempt {
  if (cargo.form === 'devices') {
    const { grabbed, devices } = cargo;
    if (devices.length > 1 && grabbed.unit !== null && target.unit !== null)
      return moveBlock(network, devices, { units: target.unit - grabbed.unit, rackId: target.rackId });
    return tryMove(network, grabbed, target);
  }
  const { model } = cargo;
  const rack = network.get('rack', target.rackId);
  if (rack === null || model.role === null) return { ok: false, why: 'This model cannot be placed.' };
  const name = nextDeviceName(network, rack.placeId, model.role, model.id);
  const set = addDevice(network, { ...target, name, modelId: model.id, placeId: null });
  if (set === null) return { ok: false, why: 'This model cannot be placed.' };
  const made = set.changes[0];
  const device = made?.op === 'create' && made.kind === 'device' ? made.after : null;
  const found = device === null ? [] : refusals(network, rack, modelCandidate(device, model), target.unit);
  if (found.length > 0) return { ok: false, why: found.map((one) => one.text).join('; ') };
  const tried = applyChanges(network, set.changes);
  return tried.ok
    ? { ok: true, set }
    : { ok: false, why: tried.problems[0]?.message ?? 'It cannot stand there.' };
}

const modelCandidate = (device: Pick<Device, 'name' | 'face' | 'side'>, model: CatalogueModel) => ({
  name: device.name,
  units: model.units,
  face: device.face,
  fillsBothFaces: model.fillsBothFaces,
  side: device.side,
  massKg: model.massKg,
  maxW: model.role === 'PD' || model.role === 'UP' ? 0 : (model.maxPowerW ?? 0),
});

/** Why cargo cannot be let go at a place, quick enough for every move of the pointer. */
function whyNot(network: Network, cargo: Cargo, target: Landing): string[] {
  const rack = network.get('rack', target.rackId);
  if (rack === null) return [];
  if (cargo.form === 'devices' && cargo.devices.length > 1) {
    const attempt = attemptOf(network, cargo, target);
    return attempt.ok ? [] : [attempt.why];
  }
  const candidate =
    cargo.form === 'model'
      ? { ...modelCandidate({ ...target, name: cargo.model.name }, cargo.model), ...target }
      : { ...candidateOf(network, cargo.grabbed), face: target.face, side: target.side };
  const except = new Set(cargo.form === 'devices' ? cargo.devices.map((device) => device.id) : []);
  return refusals(network, rack, candidate, target.unit, except).map((one) => one.text);
}

const slackPx = 4;

/**
 * Carrying with the pointer: begins after a few pixels, snaps to units, says why it would be refused before it is
 * let go, and Escape puts everything back.
 */
export function useCarry(
  spots: readonly RackSpot[],
  toSurface: (client: Point) => Point,
): {
  carry: Carry | null;
  begin: (event: ReactPointerEvent, cargo: Cargo) => void;
  /** True right after something was carried: the click that follows is none. */
  justCarried: () => boolean;
} {
  const { view, commit, sync } = useProject();
  const [carry, setCarry] = useState<Carry | null>(null);
  const pending = useRef<{ cargo: Cargo; from: Point } | null>(null);
  /** What is carried as of the last move: letting go may come before the screen has drawn it. */
  const held = useRef<Carry | null>(null);
  const now = useRef({ spots, toSurface, network: view.network, commit, sync });
  const carried = useRef(0);
  useEffect(() => {
    now.current = { spots, toSurface, network: view.network, commit, sync };
  });

  const begin = useCallback((event: ReactPointerEvent, cargo: Cargo) => {
    if (event.button !== 0) return;
    pending.current = { cargo, from: { x: event.clientX, y: event.clientY } };
  }, []);

  useEffect(() => {
    const hold = (what: Carry | null): void => {
      held.current = what;
      setCarry(what);
    };
    const move = (event: PointerEvent): void => {
      const start = pending.current;
      if (start === null) return;
      const pointer = { x: event.clientX, y: event.clientY };
      const far = Math.hypot(pointer.x - start.from.x, pointer.y - start.from.y) > slackPx;
      if (held.current === null && !far) return;
      event.preventDefault();
      const { spots: racks, network } = now.current;
      const over = document.elementFromPoint(pointer.x, pointer.y);
      const outside = over?.closest('[data-outside]') != null;
      const onBench = over?.closest('[data-bench]') != null;
      const hit = onBench && !outside ? faceAt(racks, now.current.toSurface(pointer)) : null;
      const shape = cargoShape(start.cargo);
      const grab = start.cargo.form === 'devices' ? start.cargo.grab : { x: 0, y: 6 };
      const target = hit === null ? null : landing(hit, shape, grab);
      const why = target === null ? [] : whyNot(network, start.cargo, target);
      hold({ cargo: start.cargo, pointer, target, outside, why });
    };
    const end = (): void => {
      const last = held.current;
      pending.current = null;
      if (last === null) return;
      carried.current = performance.now();
      hold(null);
      const { network, commit: keep, sync: says } = now.current;
      if (last.outside && last.cargo.form === 'devices') {
        const attempt = tryMove(network, last.cargo.grabbed, { rackId: null, unit: null });
        if (attempt.ok && attempt.set.changes.length > 0) keep(attempt.set);
        return;
      }
      if (last.target === null) return;
      const attempt = attemptOf(network, last.cargo, last.target);
      if (!attempt.ok) says.announce({ tone: 'bad', text: `${attempt.why}.`.replace(/\.\.$/, '.') });
      else if (attempt.set.changes.length > 0) keep(attempt.set);
    };
    const key = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape' || pending.current === null) return;
      pending.current = null;
      hold(null);
      event.stopPropagation();
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', end);
    window.addEventListener('pointercancel', end);
    window.addEventListener('keydown', key, true);
    return () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', end);
      window.removeEventListener('pointercancel', end);
      window.removeEventListener('keydown', key, true);
    };
  }, []);
  return { carry, begin, justCarried: () => performance.now() - carried.current < 80 };
}
