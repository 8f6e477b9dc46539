import { keysOf } from './words.ts';
/** The kinds of fact a sheet can show. Every fact has one by nature; nothing is assigned by hand. */
export const facets = [
  'containers',
  'devices',
  'links',
  'names',
  'models',
  'places',
  'portNames',
  'addresses',
  'vlanTags',
  'subnets',
  'costs',
  'speeds',
  'cableLabels',
  'lengths',
  'media',
  'notes',
  'power',
  'key',
  'titleBlock',
] as const;
export type Facet = (typeof facets)[number];

/**
 * What sort of fact a field holds, by how far it may go out of the house. An audience is told some sorts and not
 * others; each sort is shown on a sheet by one facet, or by none. What has no sort is structure: what there is, how
 * large, where it stands and what it hangs on, told to everybody who may see a thing at all.
 */
export const factSorts = {
  names: { title: 'Names of places, racks and devices', facet: 'names' },
  models: { title: 'Makers and models', facet: 'models' },
  whereabouts: { title: 'Street addresses, positions and people', facet: 'places' },
  portNames: { title: 'Names of ports', facet: 'portNames' },
  addresses: { title: 'IP addresses, prefixes and routes', facet: 'addresses' },
  vlans: { title: 'VLANs', facet: 'vlanTags' },
  protocols: { title: 'Settings of routing and spanning tree', facet: 'costs' },
  labels: { title: 'Labels of cables, numbers of circuits', facet: 'cableLabels' },
  lengths: { title: 'Lengths', facet: 'lengths' },
  power: { title: 'Power feeds', facet: 'power' },
  serials: { title: 'Serials, dates, orders and contracts', facet: null },
  providers: { title: 'Providers of circuits, suppliers', facet: null },
  prices: { title: 'Prices', facet: null },
  notes: { title: 'Notes and own fields', facet: 'notes' },
} as const satisfies Record<string, { title: string; facet: Facet | null }>;
export type FactSort = keyof typeof factSorts;
export const allFactSorts: readonly FactSort[] = keysOf<FactSort>(factSorts);
