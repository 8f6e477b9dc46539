import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import type { PortGroup } from '../../model/kinds/equipment/portGroup.ts';

/** A model of the built-in catalogue: what differs from a blank one. */
export type Entry = Pick<CatalogueModel, 'name'> & Partial<Omit<CatalogueModel, 'id' | 'name'>>;

export const gigabit = 1e9;

export const group = (
  pattern: string,
  connector: PortGroup['connector'],
  rest: Partial<PortGroup> = {},
): PortGroup => ({
  pattern,
  connector,
  speedBps: null,
  role: 'network',
  face: 'front',
  rows: 1,
  order: 'down',
  block: 0,
  rearPattern: null,
  rearConnector: null,
  mdi: 'auto',
  poeClass: null,
  phase: null,
  ...rest,
});

/** Power inlets at the rear: psu1, psu2 … */
export const inlets = (count: number, connector: PortGroup['connector'] = 'C14'): PortGroup =>
  group(count === 1 ? 'psu1' : `psu1-${count}`, connector, { role: 'powerIn', face: 'rear' });

export const management = group('mgmt0', 'RJ45', { speedBps: gigabit, role: 'management' });
export const consolePort = group('con0', 'RJ45', { role: 'console' });

/** Copper access ports in two rows, in blocks of six columns. */
export const copper = (pattern: string, rest: Partial<PortGroup> = {}): PortGroup =>
  group(pattern, 'RJ45', { speedBps: gigabit, rows: 2, block: 6, ...rest });

export const uplinks = (pattern: string, connector: PortGroup['connector'], gigabits: number): PortGroup =>
  group(pattern, connector, { speedBps: gigabits * gigabit, rows: 2, role: 'uplink' });

/** Price in whole euros. */
export const euros = (amount: number): Pick<CatalogueModel, 'priceMinor' | 'currency'> => ({
  priceMinor: amount * 100,
  currency: 'EUR',
});
