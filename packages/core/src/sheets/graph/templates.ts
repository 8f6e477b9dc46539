import { managementAddressOf } from '../../addressing/management.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Facet, Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { placeChain, placeOfDevice, siteCode, isPlaced, whereIs } from '../../model/network/places.ts';
import { line, say, type Told } from './told.ts';
import { roles } from '../../model/values/roles.ts';

interface TemplateFact {
  /** The kind of fact: where that is hidden the fact is missing. */
  facet: Facet | null;
  help: string;
  of: (network: Network, device: Device) => string | null;
}

const unitText = (device: Device): string | null =>
  device.rackId === null ? null : device.unit === null ? 'side' : `U${device.unit}`;

/** What can stand in braces in a label template; own fields are written by their own name. */
export const templateFacts: Readonly<Record<string, TemplateFact>> = {
  name: { facet: 'names', help: 'name', of: (_network, device) => device.name },
  role: { facet: null, help: 'role in words', of: (_network, device) => roles[device.role].label },
  status: { facet: null, help: 'planned, active or retired', of: (_network, device) => device.status },
  model: {
    facet: 'models',
    help: 'model',
    of: (network, device) => network.get('model', device.modelId)?.name ?? null,
  },
  maker: {
    facet: 'models',
    help: 'maker of the model',
    of: (network, device) => network.get('model', device.modelId)?.maker ?? null,
  },
  'management address': {
    facet: 'addresses',
    help: 'address it is managed by',
    of: managementAddressOf,
  },
  serial: { facet: null, help: 'serial number', of: (_network, device) => device.serial },
  where: {
    facet: 'places',
    help: 'rack and unit, or place',
    of: (network, device) => (isPlaced(device) ? whereIs(network, device) : null),
  },
  rack: {
    facet: 'places',
    help: 'rack',
    of: (network, device) => network.get('rack', device.rackId)?.name ?? null,
  },
  unit: { facet: 'places', help: 'unit in the rack', of: (_network, device) => unitText(device) },
  place: {
    facet: 'places',
    help: 'room or other place',
    of: (network, device) => network.get('place', placeOfDevice(network, device))?.name ?? null,
  },
  'site code': {
    facet: 'places',
    help: 'code of the site',
    of: (network, device) => siteCode(network, placeOfDevice(network, device)),
  },
  site: {
    facet: 'places',
    help: 'site',
    of: (network, device) => placeChain(network, placeOfDevice(network, device))[0]?.name ?? null,
  },
};

const braces = /\{([^{}]*)\}/g;

/** Names in braces that are neither facts nor own fields of any of these devices. */
export function unknownFacts(template: string, devices: readonly Device[]): string[] {
  const own = new Set(devices.flatMap((device) => Object.keys(device.extra)));
  return [...template.matchAll(braces)]
    .map((match) => (match[1] ?? '').trim())
    .filter((name) => !(name in templateFacts) && !own.has(name));
}

/** The lines that a template gives for a device, with the kinds of fact they tell. A line with a missing fact is left out. */
export function filledLines(network: Network, template: string, device: Device): Told[] {
  return template.split('\n').flatMap((pattern) => {
    let missing = false;
    const needs = new Set<Facet>();
    const text = pattern.replace(braces, (_whole, name: string) => {
      const fact = templateFacts[name.trim()];
      const value = fact === undefined ? device.extra[name.trim()] : fact.of(network, device);
      if (fact?.facet != null) needs.add(fact.facet);
      if (value === null || value === undefined || value === '') missing = true;
      return value ?? '';
    });
    return missing || text.trim() === '' ? [] : [line(say(text.trim(), ...needs))];
  });
}

/** Model, rack and unit, address where addresses are shown: what a plate says where the sheet has no template for its role. */
const plainTemplate = '{model}\n{rack} {unit}\n{management address}';
/** Lines below the name; more do not fit a plate that is still read at a glance. */
export const mostTemplateLines = 4;

export const templateLines = (network: Network, sheet: Sheet, device: Device): Told[] =>
  filledLines(network, sheet.templates[device.role] ?? sheet.templates.all ?? plainTemplate, device);
