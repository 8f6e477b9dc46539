import type { Medium } from './medium.ts';
import type { Role } from '../model/roles.ts';

/** Sheet units: one is a CSS pixel at 100 %. */
export interface Point {
  x: number;
  y: number;
}
export interface Box extends Point {
  width: number;
  height: number;
}
export type Side = 'top' | 'right' | 'bottom' | 'left';

/** A text with a paper halo; `turned` reads from bottom to top. The box is what it covers on the sheet. */
export interface SceneLabel {
  text: string;
  box: Box;
  turned: boolean;
}

/** A device, or several alike folded into one. */
export interface Plate {
  id: string;
  deviceIds: string[];
  role: Role;
  name: string;
  lines: string[];
  box: Box;
  planned: boolean;
  retired: boolean;
  /** What a screen reader says. */
  spoken: string;
}

export interface Container {
  id: string;
  title: string;
  box: Box;
  plateIds: string[];
}

export interface LinkEnd {
  plateId: string;
  side: Side;
  at: Point;
  label: SceneLabel | null;
}

/** One cable or circuit, or a bundle of parallel cables, with its routed points from A to B. */
export interface SceneLink {
  id: string;
  kind: 'cable' | 'circuit';
  cableIds: string[];
  medium: Medium;
  jacket: string | null;
  a: LinkEnd;
  b: LinkEnd;
  points: Point[];
  label: SceneLabel | null;
  spoken: string;
}

export interface KeyEntry {
  form: 'link' | 'role';
  medium?: Medium;
  role?: Role;
  text: string;
}

export interface TitleBlock {
  title: string;
  project: string;
  scope: string;
  revision: string;
  date: string;
}

/** What a projection makes: all that is drawn, in sheet units, and nothing else. */
export interface Scene {
  form: 'diagram';
  box: Box;
  plates: Plate[];
  containers: Container[];
  links: SceneLink[];
  key: KeyEntry[];
  titleBlock: TitleBlock | null;
}

export type FontFace = 'text' | 'textStrong' | 'mono' | 'monoStrong';
/** Width of a text in the shipped font at a size, in sheet units. */
export type TextMeasure = (text: string, face: FontFace, size: number) => number;

export const overlap = (a: Box, b: Box, gap = 0): boolean =>
  a.x < b.x + b.width + gap &&
  b.x < a.x + a.width + gap &&
  a.y < b.y + b.height + gap &&
  b.y < a.y + a.height + gap;

export function boxAround(boxes: readonly Box[], margin = 0): Box {
  if (boxes.length === 0) return { x: 0, y: 0, width: 0, height: 0 };
  const left = Math.min(...boxes.map((box) => box.x)) - margin;
  const top = Math.min(...boxes.map((box) => box.y)) - margin;
  const right = Math.max(...boxes.map((box) => box.x + box.width)) + margin;
  const bottom = Math.max(...boxes.map((box) => box.y + box.height)) + margin;
  return { x: left, y: top, width: right - left, height: bottom - top };
}
