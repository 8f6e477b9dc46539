import type { FacetState } from '../../model/kinds/drawings/sheet.ts';

/** How each group of things on a sheet is shown. */
export type Manners = Readonly<
  Record<'containers' | 'devices' | 'links' | 'notes' | 'portNames' | 'cableLabels', FacetState>
>;
