import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import type { Scene } from '../scene/scene.ts';
import { sceneOf, type DrawOptions } from '../scene/sceneOf.ts';
import { planOf, type PlanOptions } from './plan.ts';

/** Reads the model for a sheet and draws it at once. */
export const sheetScene = (network: Network, sheet: Sheet, options: DrawOptions & PlanOptions): Scene =>
  sceneOf(planOf(network, sheet, options), options);
