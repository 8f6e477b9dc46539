/** Device roles and their fixed two-letter codes, shown on every drawing and used in files. */
export const roles = {
  RT: { label: 'router', family: 'forwarding' },
  SW: { label: 'switch', family: 'forwarding' },
  FW: { label: 'firewall', family: 'protection' },
  AP: { label: 'access point', family: 'forwarding' },
  WB: { label: 'wireless bridge', family: 'forwarding' },
  LB: { label: 'load balancer', family: 'forwarding' },
  SV: { label: 'server', family: 'compute' },
  VM: { label: 'virtual machine', family: 'compute' },
  CH: { label: 'container host', family: 'compute' },
  DB: { label: 'database', family: 'compute' },
  FN: { label: 'function', family: 'compute' },
  QU: { label: 'queue', family: 'compute' },
  ST: { label: 'storage', family: 'compute' },
  PC: { label: 'workstation', family: 'compute' },
  PH: { label: 'phone', family: 'endpoints' },
  CM: { label: 'camera', family: 'endpoints' },
  PR: { label: 'printer', family: 'endpoints' },
  IO: { label: 'controller', family: 'compute' },
  PP: { label: 'patch panel', family: 'passive' },
  CA: { label: 'cable manager', family: 'passive' },
  PD: { label: 'power strip', family: 'passive' },
  UP: { label: 'UPS', family: 'passive' },
  MC: { label: 'media converter', family: 'forwarding' },
  GW: { label: 'gateway (cloud)', family: 'outside' },
  EX: { label: 'external party', family: 'outside' },
  XX: { label: 'other', family: 'passive' },
} as const;

export type Role = keyof typeof roles;
export type RoleFamily = (typeof roles)[Role]['family'];

/** Roles of what has no case: it runs on other gear, or in a cloud, or is somebody else's. */
const withoutCase: ReadonlySet<Role> = new Set(['VM', 'CH', 'DB', 'FN', 'QU', 'GW', 'EX']);
export const hasCase = (role: Role): boolean => !withoutCase.has(role);

const isRole = (code: string): code is Role => code in roles;
export const roleCodes: readonly Role[] = Object.keys(roles).filter(isRole);

/** What several of a role are called. */
const plurals: Partial<Record<Role, string>> = { SW: 'switches', PC: 'workstations' };
export const pluralOf = (role: Role, label: string): string => plurals[role] ?? `${label}s`;
