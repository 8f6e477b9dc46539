import { firstOfTheirRole } from '../../../catalogue/generic.ts';
import { modelTitle } from '../../../model/kinds.ts';
import type { CatalogueModel } from '../../../model/kinds/equipment/catalogueModel.ts';
import type { Network } from '../../../model/network/network.ts';
import { isOneOf } from '../../../model/values/words.ts';
import { roleCodes, roles, type Role } from '../../../model/values/roles.ts';

/** Beginnings of names by which a device is taken for one of a role, where nothing else is said. Words of the trade. */
const stems: Partial<Record<Role, readonly string[]>> = {
  RT: ['rt', 'rtr', 'router', 'edge', 'wan', 'pe', 'ce', 'br'],
  SW: ['sw', 'switch', 'core', 'acc', 'access', 'dist', 'distribution', 'agg', 'spine', 'leaf', 'tor'],
  FW: ['fw', 'firewall'],
  AP: ['ap'],
  WB: ['wb', 'bridge'],
  LB: ['lb'],
  SV: ['sv', 'srv', 'server', 'host', 'web', 'db', 'app'],
  VM: ['vm'],
  ST: ['st', 'nas', 'san', 'storage'],
  PC: ['pc', 'ws', 'workstation', 'desk'],
  PH: ['ph', 'phone', 'tel'],
  CM: ['cm', 'cam', 'camera'],
  PR: ['pr', 'prn', 'printer'],
  IO: ['io', 'plc'],
  PP: ['pp', 'panel'],
  PD: ['pd', 'pdu'],
  UP: ['up', 'ups'],
  MC: ['mc'],
  GW: ['gw'],
  EX: ['ex', 'isp', 'internet', 'provider'],
};

/** The role that a name begins with, in any of its parts: `kq-acc-1` is a switch. XX where nothing says it. */
export function roleOfName(name: string): Role {
  const parts = name
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter((part) => part !== '');
  for (const part of parts) for (const role of roleCodes) if (isOneOf(stems[role] ?? [], part)) return role;
  return 'XX';
}

const plurals = (label: string): string[] => [label, `${label}s`, `${label}es`];

/** A role by its code or its name, in the singular or plural; null where it is none. */
export function roleNamed(text: string): Role | null {
  const word = text.trim().toLowerCase();
  return (
    roleCodes.find(
      (code) => code.toLowerCase() === word || plurals(roles[code].label.toLowerCase()).includes(word),
    ) ?? null
  );
}

/** A model by its title, its name or its part number; null where there is none, or several of that name. */
export function modelNamed(network: Network, text: string): CatalogueModel | null {
  const word = text.trim().toLowerCase();
  const titled = network.findOne('modelByTitle', word);
  if (titled?.form === 'device') return titled;
  const alike = [...network.all('model')].filter(
    (model) =>
      model.form === 'device' &&
      (model.name.toLowerCase() === word || model.partNumber?.toLowerCase() === word),
  );
  return alike.length === 1 ? (alike[0] ?? null) : null;
}

/** What a device of a typed line is to be: of a model, and named by the pattern of the place or from a beginning. */
export interface Sort {
  model: CatalogueModel;
  /** The beginning of the names; null where the place's pattern says it. */
  stem: string | null;
}

/** Reads "access", "routers" or "AX-2424P". Null where the catalogue has no model for it. */
export function sortOf(network: Network, text: string): Sort | null {
  const model = modelNamed(network, text);
  if (model !== null) return { model, stem: null };
  const role = roleNamed(text);
  const generic = firstOfTheirRole(network, role ?? roleOfName(text));
  if (generic === null) return null;
  return { model: generic, stem: role === null ? text.trim() : null };
}

/** How a model is written so that it is read as the same: its role where it is the first without a maker. */
export const sortText = (network: Network, model: CatalogueModel): string =>
  model.role !== null && firstOfTheirRole(network, model.role)?.id === model.id
    ? roles[model.role].label
    : modelTitle(model);
