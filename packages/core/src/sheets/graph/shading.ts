import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { notPlaced, placeOfDevice } from '../../model/network/places.ts';
import { roles, type RoleFamily } from '../../model/values/roles.ts';
import { deviceWatts } from '../../catalogue/figures.ts';
import { powerFlow, type PowerState } from '../../racks/power.ts';
import { isOneOf } from '../../model/values/words.ts';

/** What the colour of a plate's tab can say. An own field is written `own:<name>`. */
export const colourings = [
  'role',
  'status',
  'model',
  'place',
  'feedState',
  'power',
  'age',
  'support',
  'warranty',
  'contract',
] as const;
export type ColourBy = (typeof colourings)[number] | `own:${string}`;
export const isColourBy = (text: string): text is ColourBy =>
  isOneOf(colourings, text) || text.startsWith('own:');

/** A colour by meaning; the theme decides what it looks like. */
export type Shade =
  | { scale: 'role'; family: RoleFamily }
  | { scale: 'state'; state: 'ok' | 'warn' | 'bad' | 'unknown' }
  | { scale: 'ramp'; step: 0 | 1 | 2 | 3 | 4 }
  | { scale: 'set'; index: number };

export interface ShadeKey {
  label: string;
  shade: Shade;
}

/** The shade of each device, and the key of the shades that occur, in order. */
export interface Shading {
  of: (device: Device) => Shade;
  key: ShadeKey[];
}

const wattSteps = [0, 50, 250, 600];
const stepOf = (watts: number): 0 | 1 | 2 | 3 | 4 =>
  watts <= 0 ? 0 : watts <= 50 ? 1 : watts <= 250 ? 2 : watts <= 600 ? 3 : 4;
const rampLabels = [
  'no draw',
  `up to ${wattSteps[1]} W`,
  `up to ${wattSteps[2]} W`,
  `up to ${wattSteps[3]} W`,
  `above ${wattSteps[3]} W`,
];

type Classed = { order: number; label: string; shade: Shade };
type Classify = (device: Device) => Classed;

const stateShade = (state: 'ok' | 'warn' | 'bad' | 'unknown'): Shade => ({ scale: 'state', state });

const families: readonly [RoleFamily, string][] = [
  ['forwarding', 'forwarding'],
  ['protection', 'protection'],
  ['compute', 'compute'],
  ['endpoints', 'endpoints'],
  ['passive', 'passive and power'],
  ['outside', 'outside and cloud'],
];
const byRole: Classify = (device) => {
  const { family } = roles[device.role];
  const order = families.findIndex(([name]) => name === family);
  return { order, label: families[order]?.[1] ?? family, shade: { scale: 'role', family } };
};
const byStatus: Classify = (device) =>
  ({
    active: { order: 0, label: 'active', shade: stateShade('ok') },
    planned: { order: 1, label: 'planned', shade: stateShade('warn') },
    retired: { order: 2, label: 'retired', shade: stateShade('unknown') },
  })[device.status];

const feedStates: Record<PowerState, Classed> = {
  live: { order: 0, label: 'powered', shade: stateShade('ok') },
  onBattery: { order: 1, label: 'on battery', shade: stateShade('warn') },
  dark: { order: 2, label: 'dark', shade: stateShade('bad') },
  undocumented: { order: 3, label: 'power not documented', shade: stateShade('unknown') },
};

const passive: Classed = { order: 4, label: 'needs no power', shade: { scale: 'role', family: 'passive' } };

/** Whole days from one date to another, both year-month-day. */
const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);

/** How near the day is on which something ends: the maker's support of a model, a warranty, a contract. */
function byEnd(of: (device: Device) => string | null, ended: string, today: string): Classify {
  return (device) => {
    const end = of(device);
    if (end === null) return { order: 4, label: 'no date known', shade: stateShade('unknown') };
    const days = daysBetween(today, end);
    if (days < 0) return { order: 0, label: ended, shade: stateShade('bad') };
    if (days <= 365) return { order: 1, label: 'ends within a year', shade: stateShade('warn') };
    if (days <= 3 * 365)
      return { order: 2, label: 'ends within three years', shade: { scale: 'ramp', step: 2 } };
    return { order: 3, label: 'later', shade: stateShade('ok') };
  };
}

/** Ages in whole years: each step of the ramp holds what is younger than its limit. */
const ageSteps = [
  { step: 0, underYears: 1, label: 'under a year' },
  { step: 1, underYears: 3, label: '1 to 3 years' },
  { step: 2, underYears: 5, label: '3 to 5 years' },
  { step: 3, underYears: 8, label: '5 to 8 years' },
  { step: 4, underYears: Infinity, label: '8 years and more' },
] as const;

function byAge(today: string): Classify {
  return ({ installedOn }) => {
    const years = installedOn === null ? null : daysBetween(installedOn, today) / 365.25;
    const found = ageSteps.find(({ underYears }) => years !== null && years < underYears);
    return found === undefined
      ? { order: 9, label: 'date of installation not known', shade: stateShade('unknown') }
      : { order: found.step, label: found.label, shade: { scale: 'ramp', step: found.step } };
  };
}

/** A colour of the fixed set for each value that occurs, in order of name. */
function byValue(
  devices: readonly Device[],
  of: (device: Device) => string | null,
  missing: string,
): Classify {
  const values = [...new Set(devices.flatMap((device) => of(device) ?? []))].sort(compareNames);
  return (device) => {
    const value = of(device);
    return value === null
      ? { order: 999, label: missing, shade: stateShade('unknown') }
      : {
          order: values.indexOf(value),
          label: value,
          shade: { scale: 'set', index: values.indexOf(value) % 12 },
        };
  };
}

/** How devices are coloured, and the key for it. `today` is year-month-day. */
export function shadingOf(
  network: Network,
  devices: readonly Device[],
  by: ColourBy,
  { today }: { today: string },
): Shading {
  let classify: Classify = byRole;
  if (by === 'status') classify = byStatus;
  else if (by === 'power')
    classify = (device) => {
      const step = stepOf(deviceWatts(network, device).maxW);
      return { order: step, label: rampLabels[step] ?? '', shade: { scale: 'ramp', step } };
    };
  else if (by === 'feedState') {
    const flow = powerFlow(network, devices);
    const needsPower = (device: Device): boolean =>
      network.find('portsByDevice', device.id).some((port) => port.role === 'powerIn');
    classify = (device) => (needsPower(device) ? feedStates[flow.stateOf(device)] : passive);
  } else if (by === 'age') classify = byAge(today);
  else if (by === 'support')
    classify = byEnd(
      (device) => network.get('model', device.modelId)?.endOfSupport ?? null,
      'support has ended',
      today,
    );
  else if (by === 'warranty') classify = byEnd((device) => device.warrantyUntil, 'warranty has ended', today);
  else if (by === 'contract') classify = byEnd((device) => device.supportUntil, 'contract has ended', today);
  else if (by === 'model')
    classify = byValue(devices, (device) => network.get('model', device.modelId)?.name ?? null, 'no model');
  else if (by === 'place')
    classify = byValue(
      devices,
      (device) => network.get('place', placeOfDevice(network, device))?.name ?? null,
      notPlaced,
    );
  else if (by.startsWith('own:')) {
    const field = by.slice(4);
    classify = byValue(devices, (device) => device.extra[field] ?? null, `no ${field}`);
  }
  const key = new Map<string, Classed>();
  for (const device of devices) {
    const found = classify(device);
    key.set(found.label, found);
  }
  return {
    of: (device) => classify(device).shade,
    key: [...key.values()].sort((a, b) => a.order - b.order).map(({ label, shade }) => ({ label, shade })),
  };
}

/** Names of own fields that any of these devices has. */
export const ownFieldNames = (devices: readonly Device[]): string[] =>
  [...new Set(devices.flatMap((device) => Object.keys(device.extra)))].sort(compareNames);
