import type { Role } from '../../model/values/roles.ts';
import type { Vids } from '../../model/values/vids.ts';
import type { Medium } from './medium.ts';
import type { Shade } from './shading.ts';

/** What links stand for of which a sheet keeps nothing: a port's part in a subnet, and what is worked out in a cloud. */
export const unkeptLines = ['port', 'peering', 'hubAttachment', 'routeTable', 'ruleSet', 'gateway'] as const;
export type UnkeptLine = (typeof unkeptLines)[number];

/** What a link draws, by its id and what it is called: a cable, a circuit, the prefix of a subnet, or what is not kept. */
export interface Line {
  kind: 'cable' | 'circuit' | 'prefix' | UnkeptLine;
  id: string;
  label: string;
  /** Of a circuit: whose it is. A name, which is hidden with the names. */
  provider?: string;
}

/** A piece of a text that stands for a VLAN or VRF, from one letter up to another: coloured, or framed where untagged. */
export interface Chip {
  from: number;
  to: number;
  /** Of the colour set; null: of no defined VLAN. */
  colour: number | null;
  framed: boolean;
}

/** A plate to be: a device, several alike folded into one, a redundant pair, a place, a provider, or a subnet that several share. */
export interface GraphNode {
  id: string;
  form: 'device' | 'fold' | 'pair' | 'place' | 'provider' | 'subnet';
  deviceIds: string[];
  /** Devices, the place or the circuits by which a sheet keeps where it stands; the first is written, any is read. */
  subjects: string[];
  role: Role;
  /** The letters on its tab. */
  code: string;
  name: string;
  lines: string[];
  /** Coloured pieces of its lines, by the number of the line. */
  chips?: Chip[][];
  /** Not of what the sheet lights up. */
  dim?: boolean;
  containerId: string | null;
  /** Beyond the scope of the sheet: shown because something inside is joined to it. */
  outside: boolean;
  planned: boolean;
  retired: boolean;
  shade: Shade;
  symbol: string | null;
  /** The sheet that shows its inside. */
  sheetId: string | null;
  /** What is selected with it, where that is not what the sheet keeps its place by. */
  picks?: { kind: 'cloudSubnet' | 'peering' | 'hubAttachment'; id: string };
  /** It stands on the edge of a container, which it does not belong into, and moves with that alone. */
  border?: { of: string; side: 'top' | 'right' | 'bottom' | 'left' };
  /** Part of the base that containers are: faded and locked with them. */
  base?: true;
}

/** How many links of which speed a line stands for, and the VLANs that go over it. */
export interface LinkSums {
  speeds?: { count: number; each: string };
  vids?: Vids;
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
  /** Management links say nothing about who stands above whom. */
  management: boolean;
  aChips?: Chip[];
  bChips?: Chip[];
  dim?: boolean;
  /** What a bundle sums up, as far as the sheet tells it. */
  sums?: LinkSums;
  /** The end at which the spanning tree of the VLAN that is lit forwards nothing. */
  blocked?: 'a' | 'b' | null;
  /** It leads from A to B. */
  arrow?: true;
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

/** The parts of a cloud that stand inside each other. */
export const cloudForms = ['account', 'region', 'network', 'zone', 'subnet'] as const;
export type CloudForm = (typeof cloudForms)[number];

export interface GraphContainer {
  id: string;
  form: 'place' | 'rack' | 'area' | CloudForm;
  title: string;
  parentId: string | null;
  sheetId: string | null;
  /** What a subnet of a cloud is to the internet. */
  nature?: 'open' | 'outward only' | 'closed' | 'unknown';
  /** Its row among what stands beside it: subnets of one tier are level with each other. */
  row?: number;
  /** Its place among what stands beside it, from the left. */
  order?: number;
}

/** What a sheet shows, before anything has a position. Plain data: it is sent to workers. */
export interface SheetGraph {
  nodes: GraphNode[];
  links: GraphLink[];
  stubs: GraphStub[];
  containers: GraphContainer[];
}
