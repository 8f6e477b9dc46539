import { inDrawnOrder } from '../graph/drawnOrder.ts';
import type { GraphLink } from '../graph/sheetGraph.ts';
import { bandsOf } from '../layout/bands.ts';
import { bundleOfLink, bundlesOf, type BundleWishes } from '../layout/bundles.ts';
import type { Measures, Size } from '../layout/lattice.ts';
import { pairGaps, plateSizes } from '../layout/plateSizes.ts';
import type { TextMeasure } from '../layout/textMeasure.ts';
import { titleWidth } from './containers.ts';
import type { DrawingPlan } from './drawingPlan.ts';

/** What is known of a drawing before anything on it has a place. */
export interface Setting {
  /** With its graph in the order that follows from what is seen. */
  plan: DrawingPlan;
  bands: ReadonlyMap<string, number>;
  sizes: ReadonlyMap<string, Size>;
  wishes: BundleWishes;
  /** The line that a link will probably be drawn as: that of a bundle, or its own. */
  lineOf: (link: GraphLink) => string;
  measure: TextMeasure;
}

/** Where a link leaves a plate as far as its bands tell. */
function facingByBand(link: GraphLink, end: 'a' | 'b', bands: ReadonlyMap<string, number>): string {
  const [own, other] = end === 'a' ? [link.a, link.b] : [link.b, link.a];
  return String(Math.sign((bands.get(other) ?? 0) - (bands.get(own) ?? 0)));
}

/** What was done by hand with bundles, and the links that go a way of their own. */
function wishesOf(plan: DrawingPlan): BundleWishes {
  const alone = new Set<string>();
  for (const link of plan.graph.links) {
    const wish = plan.links.get(link.cables[0]?.id ?? '');
    if (wish !== undefined && (wish.straight || wish.bends.length > 0)) alone.add(link.id);
  }
  const { drawn, own } = plan.bundles;
  return {
    alone,
    drawn: ({ subjects }, purpose) =>
      plan.straight
        ? 'never'
        : (subjects.map((id) => own.get(`${id}|${purpose}`)).find((wish) => wish !== undefined) ?? drawn),
  };
}

export function settingOf(given: DrawingPlan, measure: TextMeasure): Setting {
  const plan = { ...given, graph: inDrawnOrder(given.graph) };
  const bands = bandsOf(plan.graph);
  const wishes = wishesOf(plan);
  const bundles = bundlesOf(plan.graph, (link, end) => facingByBand(link, end, bands), wishes);
  const lines = bundleOfLink(bundles);
  return {
    ...{ plan, bands, wishes, measure },
    sizes: plateSizes(plan.graph, bands, plan.plates, measure, bundles),
    lineOf: ({ id }) => lines.get(id)?.id ?? id,
  };
}

export function measuresOf({ plan: { graph }, sizes, measure }: Setting): Measures {
  const titles = new Map(graph.containers.map(({ id, title }) => [id, titleWidth(title, measure)]));
  return { sizes, pairGap: pairGaps(graph, measure), titleWidth: (id) => titles.get(id) ?? 0 };
}
