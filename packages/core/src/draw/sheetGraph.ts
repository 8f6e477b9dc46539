import type { Role } from '../model/roles.ts';
import type { Medium } from './medium.ts';
import type { Shade } from './shading.ts';

/** What a link draws: a cable or a circuit, by its id and what it is called. */
export interface Line {
  kind: 'cable' | 'circuit';
  id: string;
  label: string;
}

/** A plate to be: a device, several alike folded into one, a redundant pair, a place, or a provider. */
export interface GraphNode {
  id: string;
  form: 'device' | 'fold' | 'pair' | 'place' | 'provider';
  deviceIds: string[];
  /** Devices, the place or the circuits by which a sheet keeps where it stands; the first is written, any is read. */
  subjects: string[];
  role: Role;
  /** The letters on its tab. */
  code: string;
  name: string;
  lines: string[];
  containerId: string | null;
  /** Beyond the scope of the sheet: shown because something inside is joined to it. */
  outside: boolean;
  planned: boolean;
  retired: boolean;
  shade: Shade;
  symbol: string | null;
  /** The sheet that shows its inside. */
  sheetId: string | null;
}

export interface GraphLink {
  id: string;
  /** Cables or circuits that it stands for, and those they lead on to behind panels. */
  cables: Line[];
  a: string;
  b: string;
  aPort: string;
  bPort: string;
  /** Aggregates whose members these are, at either end. */
  ties: [a: string | null, b: string | null];
  aOrdinal: number;
  medium: Medium;
  jacket: string | null;
  shade: Shade | null;
  text: string;
  spoken: string;
  /** Management links say nothing about who stands above whom. */
  management: boolean;
}

/** A link whose other end is not on the sheet. */
export interface GraphStub {
  id: string;
  cables: Line[];
  a: string;
  aPort: string;
  aOrdinal: number;
  medium: Medium;
  jacket: string | null;
  /** Names the far end. */
  text: string;
}

export interface GraphContainer {
  id: string;
  form: 'place' | 'rack';
  title: string;
  parentId: string | null;
  sheetId: string | null;
}

/** What a sheet shows, before anything has a position. Plain data: it is sent to workers. */
export interface SheetGraph {
  nodes: GraphNode[];
  links: GraphLink[];
  stubs: GraphStub[];
  containers: GraphContainer[];
}
