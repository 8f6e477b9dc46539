import { create, remove } from '../../change/change.ts';
import { judged, type Attempt } from '../../commands/attempt.ts';
import type { HeldLicence } from '../../model/kinds/purchase/stock.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';

/** Writes down that licences are held. */
export function keepLicence(network: Network, fields: Omit<HeldLicence, 'id'>): Attempt & { id: string } {
  const id = newId();
  const row = { ...fields, id, certificate: fields.certificate.trim() };
  return {
    ...judged(network, [create('heldLicence', row)], `Wrote down the certificate ${row.certificate}`),
    id,
  };
}

export const removeLicence = (network: Network, row: HeldLicence): Attempt =>
  judged(network, [remove('heldLicence', row)], `Deleted the certificate ${row.certificate}`);
