import type { Page } from '@visograph/core/model';
import type { DrawingPlan } from '@visograph/core/sheets';

/** One sheet to be printed. */
export interface PrintSheet {
  name: string;
  plan: DrawingPlan;
  page: Page;
}

/** What is wanted of one or several sheets. Plain data, so that another thread can do it. */
export type PrintOrder =
  | { form: 'svg'; sheet: PrintSheet }
  | { form: 'png'; sheet: PrintSheet; scale: number; transparent: boolean }
  | { form: 'pdf'; sheets: PrintSheet[]; title: string }
  | { form: 'pages'; sheet: PrintSheet }
  | { form: 'missing'; sheets: PrintSheet[] };

/** Texts with characters that no font here has, so that they would be printed as boxes. */
export interface MissingGlyphs {
  /** Each text with the characters of it that are missing, and the sheets on which it stands. */
  texts: { text: string; characters: string[]; sheets: string[] }[];
  /** Whether the East Asian fonts, which are not there, would draw some of them. */
  eastAsian: boolean;
  /** Whether there are others, which no font that can be had here would draw. */
  others: boolean;
}

/** One SVG to a page of paper, for the browser's own printing. */
export interface PrintedPages {
  widthMm: number;
  heightMm: number;
  marginMm: number;
  pages: string[];
}
