import type { BundleManner } from '../../model/kinds/drawings/sheet.ts';
import type { Mark } from '../../model/kinds/drawings/mark.ts';
import type { SheetTable } from './table.ts';
import type { Manners } from '../graph/manners.ts';
import type { Entry } from '../graph/reading.ts';
import type { SheetGraph } from '../graph/sheetGraph.ts';
import type { KeyEntry, Point, TitleBlock } from './scene.ts';

/** What a person did with one plate. */
export interface PlateWish {
  at: Point | null;
  width: number | null;
  height: number | null;
  locked: boolean;
}
/** What a person did with one link. */
export interface LinkWish {
  aLabel: Point | null;
  bLabel: Point | null;
  middleLabel: Point | null;
  bends: readonly Point[];
  straight: boolean;
}

/**
 * All that a drawing is made from, as plain data: it can be sent to a worker, which needs no network. What may not
 * be seen is not in it.
 */
export interface DrawingPlan {
  sheetId: string;
  graph: SheetGraph;
  plates: Map<string, PlateWish>;
  links: Map<string, LinkWish>;
  marks: {
    mark: Mark;
    plateId: string | null;
    text: string;
    /** The rows of a schedule that stands on the sheet. */
    table: SheetTable | null;
    faded: boolean;
    locked: boolean;
  }[];
  /** Plates that a group of the sheet fades or locks. */
  faded: Set<string>;
  manners: Manners;
  /** How bundles are drawn, and those that a person wants otherwise: by subject of the hub and purpose. */
  bundles: { drawn: BundleManner; own: ReadonlyMap<string, BundleManner> };
  straight: boolean;
  /** Width to height of what the sheet is laid out for: a window, or its paper. */
  aspect: number;
  /** Something on the sheet was placed by hand: then nothing else moves by itself. */
  arranged: boolean;
  key: KeyEntry[];
  keyShown: boolean;
  titleBlock: TitleBlock | null;
  waiting: Entry[];
  away: Entry[];
  tooMany: number | null;
}
