import { facets, type Facet } from '../../values/facts.ts';

/** What can be chosen on a sheet, where its projection has it. */
export const sheetChoices = [
  'throughPanels',
  'racks',
  'pairs',
  'endDevices',
  'newcomers',
  'closedPlaces',
  'wholeAddresses',
  'templates',
  'colourOfPlates',
  'colourOfLinks',
  'vlan',
  'vrf',
  'tagsOfLinks',
  'arrows',
] as const;
export type SheetChoice = (typeof sheetChoices)[number];

/** What a projection is, as data: how it reads the model stands in `sheets/projection/registry.ts`. */
export interface ProjectionNature {
  title: string;
  /** What its plates and links are, in a sentence. */
  about: string;
  /** Whether its plates are devices: sheets of such projections are read as one another. */
  ofDevices: boolean;
  /** The kinds of fact that a sheet of it can show at all, and those that a new sheet shows. */
  shows: readonly Facet[];
  usual: readonly Facet[];
  /** What cannot be moved by hand on a new sheet of it. */
  locked?: readonly Facet[];
  choices: readonly SheetChoice[];
}

const drawn = ['containers', 'devices', 'links', 'names', 'notes', 'key', 'titleBlock'] as const;
const physical: readonly Facet[] = facets.filter((facet) => facet !== 'subnets' && facet !== 'costs');
/** What a new sheet of cabling shows. */
export const usualFacets: readonly Facet[] = physical.filter(
  (facet) => !['power', 'addresses', 'vlanTags', 'speeds', 'lengths', 'media'].includes(facet),
);

const natures = {
  cabling: {
    title: 'Cabling',
    about: 'Devices and what joins them: cables, runs through panels, circuits.',
    ofDevices: true,
    shows: physical,
    usual: usualFacets,
    choices: [
      'throughPanels',
      'racks',
      'pairs',
      'endDevices',
      'newcomers',
      'closedPlaces',
      'templates',
      'colourOfPlates',
      'colourOfLinks',
    ],
  },
  switching: {
    title: 'Switching',
    about: 'Switches, what is plugged into them, and the VLANs that they carry to each other.',
    ofDevices: true,
    shows: [...drawn, 'portNames', 'vlanTags', 'speeds', 'cableLabels'],
    usual: [...drawn, 'vlanTags', 'speeds'],
    choices: ['endDevices', 'vlan', 'tagsOfLinks'],
  },
  routing: {
    title: 'Routing',
    about: 'Routers and the subnets between them.',
    ofDevices: true,
    shows: [...drawn, 'portNames', 'addresses', 'vlanTags', 'subnets', 'costs', 'cableLabels'],
    usual: [...drawn, 'addresses', 'subnets', 'costs'],
    choices: ['wholeAddresses', 'vrf'],
  },
  sites: {
    title: 'Sites',
    about: 'The places of a scope, and the circuits and cables between them.',
    ofDevices: false,
    shows: physical,
    usual: usualFacets,
    choices: ['colourOfLinks'],
  },
  cloud: {
    title: 'Cloud',
    about:
      'Virtual networks with their zones and subnets, gateways at their border, what joins them, and what goes where.',
    ofDevices: false,
    shows: [...drawn, 'portNames', 'addresses', 'subnets', 'costs', 'cableLabels'],
    usual: [...drawn, 'addresses', 'subnets', 'costs'],
    locked: ['containers'],
    choices: ['endDevices', 'arrows'],
  },
} as const satisfies Record<string, ProjectionNature>;

export type Projection = keyof typeof natures;
/** How a sheet reads the model. */
export const projectionNatures: Readonly<Record<Projection, ProjectionNature>> = natures;
const isProjection = (name: string): name is Projection => name in natures;
export const projections: readonly Projection[] = Object.keys(natures).filter(isProjection);

/** Whether something can be chosen on a sheet of this projection. */
export const hasChoice = (projection: Projection, choice: SheetChoice): boolean =>
  projectionNatures[projection].choices.includes(choice);
