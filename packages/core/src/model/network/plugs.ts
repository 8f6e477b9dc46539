import { connectors, type Connector } from '../values/connectors.ts';
import type { CatalogueModel } from '../kinds/equipment/catalogueModel.ts';

/** Cage families that also take plugs and transceivers of a smaller form: an SFP28 cage takes SFP+ and SFP. */
const cageTakes: Partial<Record<Connector, readonly Connector[]>> = {
  'SFP+': ['SFP'],
  SFP28: ['SFP+', 'SFP'],
  QSFP28: ['QSFP+'],
};

export const isCage = (connector: Connector | null): boolean =>
  connector !== null && connectors[connector].family === 'cage';

/** Whether a transceiver or a direct-attach plug of this form goes into the cage. */
export const fitsCage = (form: Connector, cage: Connector | null): boolean =>
  cage !== null && (form === cage || cageTakes[cage]?.includes(form) === true);

/**
 * Whether a cable's plug goes into the connector of a port. Ports are named by what they are: a C14 inlet takes a
 * cord's C13 end. Cable types name the ends by the port they go to, so that equal names belong together.
 */
export function plugsInto(plug: Connector, port: Connector): boolean {
  if (plug === port) return true;
  if (isCage(plug) || isCage(port)) return isCage(plug) && fitsCage(plug, port);
  return false;
}

export type CableMedium = NonNullable<CatalogueModel['medium']>;
const multimode: readonly CableMedium[] = ['OM3', 'OM4', 'OM5'];
const copper: readonly CableMedium[] = ['Cat 5e', 'Cat 6', 'Cat 6A', 'Cat 7'];

export type MediumClass = 'single-mode' | 'multimode' | 'copper' | 'other';

/** Media of one class can be joined to each other; between classes nothing passes. */
export function classOf(medium: CableMedium): MediumClass {
  if (medium === 'OS2') return 'single-mode';
  if (multimode.includes(medium)) return 'multimode';
  return copper.includes(medium) ? 'copper' : 'other';
}
export const isFibre = (medium: CableMedium): boolean =>
  classOf(medium) === 'single-mode' || classOf(medium) === 'multimode';
