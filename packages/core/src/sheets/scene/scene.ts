import type { MarkForm, MarkTone } from '../../model/kinds/drawings/mark.ts';
import type { Role } from '../../model/values/roles.ts';
import type { Medium } from '../graph/medium.ts';
import type { TextBlock } from './richText.ts';
import type { Shade } from '../graph/shading.ts';
import type { Chip, GraphContainer, GraphNode, Line } from '../graph/sheetGraph.ts';

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
  /** Pieces of the text that stand for VLANs. */
  chips?: readonly Chip[];
}

/** What is drawn of a facet that is not simply shown. */
interface Manner {
  faded: boolean;
  /** It cannot be moved by hand. */
  locked: boolean;
}

/** A device, several alike folded into one, a redundant pair, a place or a provider. */
export interface Plate extends Manner {
  id: string;
  form: GraphNode['form'];
  deviceIds: string[];
  /** By which a sheet keeps where it stands. */
  subjects: string[];
  role: Role;
  code: string;
  shade: Shade;
  symbol: string | null;
  name: string;
  lines: string[];
  chips?: readonly (readonly Chip[])[];
  box: Box;
  planned: boolean;
  retired: boolean;
  /** The sheet of its inside. */
  sheetId: string | null;
  picks?: GraphNode['picks'];
  /** What a screen reader says. */
  spoken: string;
}

export interface Container extends Manner {
  id: string;
  form: GraphContainer['form'];
  title: string;
  box: Box;
  plateIds: string[];
  parentId: string | null;
  sheetId: string | null;
  nature?: GraphContainer['nature'];
}

export interface LinkEnd {
  plateId: string;
  side: Side;
  at: Point;
  label: SceneLabel | null;
  /** The aggregate it is a member of: links of one are tied at this end. */
  tie: string | null;
  /** The spanning tree forwards nothing here. */
  blocked: boolean;
}

/** One cable, circuit or run, or a bundle of parallel ones, with its routed points from A to B. */
export interface SceneLink {
  id: string;
  kind: Line['kind'];
  cableIds: string[];
  line: Line;
  medium: Medium;
  jacket: string | null;
  shade: Shade | null;
  a: LinkEnd;
  b: LinkEnd;
  points: Point[];
  /** What is drawn of it alone: all of it, or of a link in a bundle what lies beyond the part that is shared. */
  drawn: Point[];
  /** The bundle that it is drawn in. Its port at the hub is told where it leaves the others. */
  bundleId: string | null;
  /** Corners that a person has set. */
  bends: Point[];
  label: SceneLabel | null;
  /** It leads from A to B. */
  arrow?: true;
  spoken: string;
  faded: boolean;
}

/** Links of one purpose from one plate, drawn as one line as far as they go together. */
export interface SceneBundle {
  id: string;
  hubId: string;
  side: Side;
  at: Point;
  /** What it is for: `management`, `servers`, or the role of what stands at the far ends. */
  purpose: string;
  /** The same as one says it: management, servers, access points. */
  title: string;
  /** How many links of which speed, and which VLANs, as far as the sheet tells them: `5 × 10G · 10,20 and 2 more on some`. */
  told: string;
  /** It is drawn in lanes wherever the sheet is seen. */
  open: boolean;
  linkIds: string[];
  /** The shared part, in pieces that each go on where another was left. */
  trunk: Point[][];
  /** Of all its links; null where they differ. */
  medium: Medium | null;
  shade: Shade | null;
  /** How many links it holds, at the hub. */
  label: SceneLabel | null;
  /** What is told in sum, on the shared part; null where there is no room. */
  toldLabel: SceneLabel | null;
  spoken: string;
  faded: boolean;
}

/** A link whose far end is not on the sheet: it ends at once, and says where it leads. */
export interface SceneStub {
  id: string;
  kind: Line['kind'];
  cableIds: string[];
  medium: Medium;
  jacket: string | null;
  a: LinkEnd;
  to: Point;
  label: SceneLabel | null;
  spoken: string;
  faded: boolean;
}

/** A note, shape, line or picture that a person has put on the sheet. */
export interface SceneMark extends Manner {
  id: string;
  form: MarkForm;
  box: Box;
  /** Corners of a line or polygon, in sheet units. */
  points: Point[];
  /** From a callout to the plate it speaks of. */
  leader: Point[];
  text: TextBlock;
  /** Rules between the lines of a table, from the corner of its box. */
  rules: { x: number; y: number; width: number; strong: boolean }[];
  tone: MarkTone;
  filled: boolean;
  opacity: number;
  level: number;
  picture: string | null;
  sheetId: string | null;
  spoken: string;
}

export interface KeyEntry {
  form: 'link' | 'bundle' | 'role' | 'shade';
  medium?: Medium;
  role?: Role;
  shade?: Shade;
  /** Its colour as a frame, the way untagged VLANs are drawn. */
  framed?: true;
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
  bundles: SceneBundle[];
  stubs: SceneStub[];
  marks: SceneMark[];
  key: KeyEntry[];
  titleBlock: TitleBlock | null;
}

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
