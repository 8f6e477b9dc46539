import type { Point } from '../scene/scene.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { ceil, round } = Math;

/** The lattice that plates, ports and links keep to, in sheet units. */
export const grid = 8;
export const snap = (value: number): number => round(value / grid) * grid + 0;
export const up = (value: number): number => ceil(value / grid) * grid;

/** Room around what a container holds, and for its title. */
export const padding = 16;
export const titleHeight = 40;

export interface Size {
  width: number;
  height: number;
  /** How far the labelled ends of its links stand out above and below. */
  reachUp: number;
  reachDown: number;
}

/** What plates and the labels between them measure. */
export interface Measures {
  sizes: ReadonlyMap<string, Size>;
  /** Between two plates beside each other that are linked: room for the label at either end. */
  pairGap: (left: string, right: string) => number;
  /** The room that the title of a container needs. */
  titleWidth: (containerId: string) => number;
}

/** Plates placed from a corner of their own, as one block. */
export interface Block {
  tier: number;
  width: number;
  height: number;
  at: Map<string, Point>;
}
