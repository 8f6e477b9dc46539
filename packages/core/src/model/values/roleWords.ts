import { roleCodes, roles, type Role } from './roles.ts';
import { isOneOf } from './words.ts';

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
  CH: ['ch', 'containers'],
  FN: ['fn', 'function'],
  QU: ['qu', 'queue'],
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
