import { applyChanges } from '../change/apply.ts';
import { readExchange } from '../exchange/read.ts';
import type { ExchangeFile } from '../exchange/format.ts';
import { newProject } from '../model/kinds/sites/project.ts';
import { Network } from '../model/network/network.ts';

type PortEntry = NonNullable<NonNullable<ExchangeFile['devices']>[number]['ports']>[number];

/** A network from the short form of its switches: ports by name, and which are joined. */
export function switched(
  devices: Record<string, { role?: string; place?: string; ports: PortEntry[]; [field: string]: unknown }>,
  links: readonly (readonly [a: string, b: string])[],
  more: Partial<ExchangeFile> = {},
): Network {
  const file = {
    format: 'visograph-exchange',
    version: 1,
    vrfs: [{ name: 'ops' }, { name: 'guest' }],
    vlanNumberings: [
      {
        name: 'shore',
        vlans: [
          { vid: 10, name: 'Management' },
          { vid: 20, name: 'Operations', vrf: 'ops' },
          { vid: 40, name: 'Cameras' },
          { vid: 50, name: 'Voice' },
          { vid: 999, name: 'Parking', unused: true },
        ],
      },
      { name: 'vessels', vlans: [{ vid: 120, name: 'Operations', vrf: 'ops' }] },
    ],
    places: [
      { path: 'Quay', kind: 'site', vlanNumbering: 'shore' },
      { path: 'Boat', kind: 'site', vlanNumbering: 'vessels' },
    ],
    devices: Object.entries(devices).map(([name, { role = 'SW', place = 'Quay', ...device }]) => ({
      name,
      role,
      place,
      ...device,
    })),
    cables: links.map(([a, b], at) => ({ label: `T-${String(at + 1).padStart(5, '0')}`, a, b })),
    ...more,
  };
  const start = Network.of({ project: [newProject('Test')] });
  const read = readExchange(start, file);
  if (!read.ok) throw new Error(read.problems.map((one) => `${one.path} ${one.message}`).join('\n'));
  const applied = applyChanges(start, read.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
}

export const trunk = (name: string, tagged: number[] | 'all', untagged?: number): PortEntry => ({
  name,
  mode: 'trunk',
  tagged,
  ...(untagged === undefined ? {} : { untagged }),
});
export const access = (name: string, untagged: number): PortEntry => ({ name, mode: 'access', untagged });
