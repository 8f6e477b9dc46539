import { sceneOf, withBundlesOpen, type DrawingPlan, type Scene } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';

/** A sheet as it is printed: with those bundles in lanes that are always open. */
export const printedScene = (plan: DrawingPlan): Scene =>
  withBundlesOpen(sceneOf(plan, { measure: measureText }), ({ open }) => open);
