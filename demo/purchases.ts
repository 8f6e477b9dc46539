/** When gear was bought, and under which contract it is looked after. All of it is invented. */
import type { ExchangeFile } from '@visograph/core/exchange';

type DeviceEntry = NonNullable<ExchangeFile['devices']>[number];

interface Purchase {
  boughtOn: string;
  warrantyUntil: string;
  supportUntil: string;
  contract: string;
  orderNumber: string;
}
/** By how names of the site begin. */
const purchases: Readonly<Record<string, Purchase>> = {
  kq: {
    boughtOn: '2024-03-18',
    warrantyUntil: '2027-03-18',
    supportUntil: '2031-03-18',
    contract: 'HC-24-07',
    orderNumber: 'PO-10418',
  },
  ah: {
    boughtOn: '2023-05-09',
    warrantyUntil: '2026-05-09',
    supportUntil: '2030-05-09',
    contract: 'HC-23-02',
    orderNumber: 'PO-09377',
  },
  br: {
    boughtOn: '2022-10-04',
    warrantyUntil: '2025-10-04',
    supportUntil: '2029-10-04',
    contract: 'HC-22-05',
    orderNumber: 'PO-08852',
  },
  pt: {
    boughtOn: '2021-09-14',
    warrantyUntil: '2024-09-14',
    supportUntil: '2028-09-14',
    contract: 'HC-21-11',
    orderNumber: 'PO-07790',
  },
};
/** Gear that carries the service; what hangs on it is bought as it is needed. */
const lookedAfter = /^(kq|ah|br|pt|sp)-(edge|fw|srv|st|ups)-/;

/** Writes into devices when they were bought and until when they are looked after. */
export function recordPurchases(devices: readonly DeviceEntry[]): void {
  for (const device of devices) {
    const [, site] = lookedAfter.exec(device.name) ?? [];
    // Both ships were fitted out in one winter.
    const purchase = site === undefined ? undefined : purchases[site === 'sp' ? 'pt' : site];
    if (purchase !== undefined) Object.assign(device, purchase, { supplier: 'Harbourside Systems' });
  }
}
