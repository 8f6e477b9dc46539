/** What the harbour company keeps in store, pays, holds and has offered. All of it is invented. */

/** A second radio hop with the switch behind it, for a cabinet that is there. */
const hop = {
  name: 'Slipway radio hop',
  contents: {
    racks: [],
    devices: [
      ...(['wb-a', 'wb-b'] as const).map((key) => ({
        ...{ key, role: 'WB' as const, model: 'Norvane WB-60', rack: null, unit: null, units: 0 },
        ...{ face: 'front' as const, fillsBothFaces: true, side: 'full' as const, feed: null, modules: [] },
      })),
      {
        ...{ key: 'sw-1', role: 'SW' as const, model: 'Norvane IX-812P', rack: null, unit: null, units: 0 },
        ...{ face: 'front' as const, fillsBothFaces: true, side: 'full' as const, feed: null, modules: [] },
      },
    ],
    cables: [
      {
        ...{ type: 'Cat 6A RJ45', lengthM: 12.5, status: 'planned' as const },
        ...{ a: ['sw-1', 'gi1/1'] as [string, string], b: ['wb-a', 'eth0'] as [string, string] },
      },
      {
        ...{ type: 'Cat 6A RJ45', lengthM: 18, status: 'planned' as const },
        ...{ a: ['sw-1', 'gi1/2'] as [string, string], b: ['wb-b', 'eth0'] as [string, string] },
      },
    ],
  },
  notes: 'Both ends of a hop of 60 GHz and the switch behind them',
};

const store = 'Kelder Quay/Harbour House/Ground/Chandlery';
const supplier = 'Harrow Marine Supplies';
const priceList = 'Harrow 2026-09';

export const linkList = 'Otterslip second link';

const inStock = (model: string, count: number, rest: { lengthM?: number; least?: number } = {}) => ({
  ...{ place: store, model, count },
  ...rest,
});
const priced = (
  model: string,
  cents: number,
  rest: { lengthM?: number; pack?: number; licence?: string } = {},
) => ({ list: priceList, model, unitMinor: cents, ...rest });

export const supplies = {
  places: [{ path: store, kind: 'room' as const }],
  kits: [hop],
  heldLicences: [
    {
      ...{ certificate: 'NV-RM-24-0117', model: 'Norvane WA-52', name: 'Radio manager', count: 10 },
      ...{ validFrom: '2024-04-01' },
    },
    {
      ...{ certificate: 'NV-RC-24-0118', model: 'Norvane CR-6032', name: 'Routing for cores', count: 2 },
      ...{ validFrom: '2024-04-01' },
    },
    {
      ...{
        certificate: 'OS-TF-26-2204',
        model: 'Ostrel Bulwark 220',
        name: 'Threat filter, yearly',
        count: 2,
      },
      ...{ validFrom: '2026-09-01', validUntil: '2027-08-31' },
    },
  ],
  stock: [
    inStock('Norvane WA-52', 2, { least: 1 }),
    inStock('Norvane AX-2424P', 1, { least: 1 }),
    inStock('Norvane WB-60', 1),
    inStock('Lumenroot LR-10', 6, { least: 4 }),
    inStock('Lumenroot SR-10', 3, { least: 4 }),
    ...[1, 2, 3].map((lengthM) => inStock('OS2 duplex LC', 12 - lengthM, { lengthM, least: 5 })),
    inStock('Cat 6A RJ45', 24, { lengthM: 2, least: 10 }),
    inStock('Cat 6A RJ45', 1, { lengthM: 15 }),
  ],
  partsLists: [
    {
      name: linkList,
      kit: 'Slipway radio hop',
      counts: 'planned' as const,
      spares: [
        { of: 'Devices' as const, percent: 0, least: 1 },
        { of: 'Cables' as const, percent: 10, least: 1 },
      ],
      services: [
        { name: 'Mounting and alignment of a hop', per: 'list' as const, role: null, unitMinor: 148_000 },
      ],
      further: [
        { name: 'Mast bracket, galvanised', partNumber: 'HB-45', count: 2, unitMinor: 8_450 },
        { name: 'Surge arrester, outdoor', partNumber: null, count: 2, unitMinor: 6_990 },
      ],
      notes: 'Ends the single point of failure at Otterslip.',
    },
    { name: 'Everything in place', counts: 'in place' as const },
  ],
  reservedParts: [{ list: linkList, model: 'Norvane WB-60', place: store, count: 1 }],
  priceLists: [
    {
      ...{ name: priceList, supplier, currency: 'EUR', validFrom: '2026-09-01', validUntil: '2027-02-28' },
      notes: 'Net prices from stock, free harbour',
    },
  ],
  prices: [
    priced('Norvane WB-60', 68_400),
    priced('Norvane IX-812P', 129_900),
    priced('Norvane WA-52', 47_800),
    priced('Lumenroot LR-10', 8_900, { pack: 2 }),
    priced('Cat 6A RJ45', 1_290, { lengthM: 15, pack: 5 }),
    priced('Cat 6A RJ45', 1_590, { lengthM: 20, pack: 5 }),
    priced('Norvane WA-52', 4_100, { licence: 'Radio manager' }),
  ],
};

/** Beside the lines of the list: who it is for, and until when. */
export const offered = {
  number: 'Q-0031',
  title: 'Second link to Otterslip',
  quotedOn: '2026-11-16',
  validUntil: '2026-12-31',
  customer: 'Marrow Sound Ferries, board of works',
  address: 'Harbour House\nKelder Quay',
  contact: 'Ivo Trent, works@marrow.example',
  terms:
    'Delivery within six weeks of the order. Payment within 30 days without deduction.\nThe hop is accepted when it carries 1 Gbit/s for 24 hours.',
};
