import type { DrawingPlan, Page } from '@visograph/core';

/** One sheet to be printed. */
export interface PrintSheet {
  name: string;
  plan: DrawingPlan;
  page: Page;
}

/** What is wanted of one or several sheets. Plain data, so that another thread can do it. */
export type PrintOrder =
  | { form: 'svg'; sheet: PrintSheet; embed: boolean }
  | { form: 'png'; sheet: PrintSheet; scale: number; transparent: boolean }
  | { form: 'pdf'; sheets: PrintSheet[]; title: string }
  | { form: 'pages'; sheet: PrintSheet };

/** One SVG to a page of paper, for the browser's own printing. */
export interface PrintedPages {
  widthMm: number;
  heightMm: number;
  marginMm: number;
  pages: string[];
}
