import { cablingGraph } from '../../cabling/projection/cablingGraph.ts';
import type { Projection } from '../../model/kinds/drawings/projections.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { cloudGraph } from '../../cloud/projection/cloudGraph.ts';
import { sitesGraph } from '../../places/projection/sitesGraph.ts';
import { routingGraph } from '../../routing/projection/routingGraph.ts';
import { switchingGraph } from '../../switching/projection/switchingGraph.ts';
import type { Kept, SheetReading } from '../graph/reading.ts';

/**
 * How a projection reads the model for a sheet. The network is taken whole: what is planned or retired is drawn and
 * marked.
 *
 * @param today year-month-day, for colours by age
 */
export type ReadSheet = (network: Network, sheet: Sheet, kept: Kept, today: string) => SheetReading;

/** Each projection by its name; what it shows and what can be chosen on its sheets stands with the kind of the sheet. */
export const readingsOf: Readonly<Record<Projection, ReadSheet>> = {
  cabling: cablingGraph,
  switching: switchingGraph,
  routing: routingGraph,
  sites: sitesGraph,
  cloud: cloudGraph,
};
