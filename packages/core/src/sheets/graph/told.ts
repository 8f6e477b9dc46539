import type { Facet } from '../../model/values/facts.ts';
import { linkFacets, type LinkFacet, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import type {
  Chip,
  GraphContainer,
  GraphLink,
  GraphNode,
  GraphStub,
  Line,
  LinkSums,
  SheetGraph,
} from './sheetGraph.ts';

/**
 * What a projection reads from the model still knows of every text which kinds of fact it tells. One filter, `shownOf`,
 * turns that into the texts that a sheet shows; nothing else decides what is hidden.
 */

/** A piece of a text: said where all kinds of fact that it tells are shown. */
export interface Said {
  text: string;
  needs: readonly Facet[];
  /** Coloured pieces of it. */
  chips: readonly Chip[];
}
/** A text in pieces, with what stands between those that are shown. */
export interface Told {
  pieces: readonly Said[];
  between: string;
}

export const say = (text: string, ...needs: Facet[]): Said => ({ text, needs, chips: [] });
/** A text with coloured pieces. */
export const sayChips = (
  { text, chips }: { text: string; chips: readonly Chip[] },
  ...needs: Facet[]
): Said => ({
  text,
  needs,
  chips,
});
/** What is said of an end or a link: pieces set apart by points. */
export const told = (...pieces: Said[]): Told => ({ pieces, between: ' · ' });
/** A name or a line: pieces one after the other. */
export const line = (...pieces: Said[]): Told => ({ pieces, between: ' ' });

export type ToldNode = Omit<GraphNode, 'name' | 'code' | 'lines' | 'chips'> & {
  code: Said;
  name: Said;
  /** The lines that may stand below its name, of which the first so many that are shown do. */
  lines: readonly Told[];
  mostLines: number;
  /** A line that stands last in any case. */
  lastLine?: Said;
};
export type ToldLink = Omit<GraphLink, 'aPort' | 'bPort' | 'text' | 'aChips' | 'bChips'> & {
  /** The line whose own choice of labels holds for it. */
  of: Line;
  aPort: Told;
  bPort: Told;
  text: Told;
};
export type ToldStub = Omit<GraphStub, 'aPort' | 'text'> & { of: Line; aPort: Told; text: Told };

export interface ToldGraph {
  nodes: ToldNode[];
  links: ToldLink[];
  stubs: ToldStub[];
  containers: GraphContainer[];
}
export const nothingTold = (): ToldGraph => ({ nodes: [], links: [], stubs: [], containers: [] });

interface Written {
  text: string;
  chips: Chip[];
}
type Shown = (facet: Facet) => boolean;

function written({ pieces, between }: Told, shown: Shown): Written {
  let text = '';
  const chips: Chip[] = [];
  for (const piece of pieces) {
    if (piece.text === '' || !piece.needs.every(shown)) continue;
    if (text !== '') text += between;
    const shift = text.length;
    text += piece.text;
    chips.push(...piece.chips.map((chip) => ({ ...chip, from: chip.from + shift, to: chip.to + shift })));
  }
  return { text, chips };
}

const isLinkFacet = (facet: Facet): facet is LinkFacet => linkFacets.some((one) => one === facet);

function nodeShown({ mostLines, lastLine, ...node }: ToldNode, shown: Shown): GraphNode {
  const lines = node.lines.map((one) => written(one, shown)).filter(({ text }) => text !== '');
  const kept = [
    ...lines.slice(0, mostLines),
    ...(lastLine === undefined ? [] : [written(line(lastLine), shown)]),
  ];
  const coloured = kept.some(({ chips }) => chips.length > 0);
  return {
    ...node,
    code: written(line(node.code), shown).text,
    name: written(line(node.name), shown).text,
    lines: kept.map(({ text }) => text),
    ...(coloured ? { chips: kept.map(({ chips }) => chips) } : {}),
  };
}

/** What may be told in sum, where each kind of fact is shown. */
function sumsShown(sums: LinkSums | undefined, shown: Shown): { sums?: LinkSums } {
  const speeds = shown('speeds') ? sums?.speeds : undefined;
  const vids = shown('vlanTags') ? sums?.vids : undefined;
  if (speeds === undefined && vids === undefined) return {};
  return { sums: { ...(speeds && { speeds }), ...(vids && { vids }) } };
}

/**
 * The texts that a sheet shows of what was read for it.
 *
 * @param tells what the labels of a line tell, which a person may choose for one line
 */
export function shownOf(
  graph: ToldGraph,
  sheet: Pick<Sheet, 'show'>,
  tells: (line: Line) => readonly LinkFacet[],
): SheetGraph {
  const shown: Shown = (facet) => sheet.show.includes(facet);
  const along = (of: Line): Shown => {
    const own = tells(of);
    return (facet) => (isLinkFacet(facet) ? own.includes(facet) : shown(facet));
  };
  return {
    nodes: graph.nodes.map((node) => nodeShown(node, shown)),
    links: graph.links.map(({ of, ...link }) => {
      const here = along(of);
      const [a, b] = [written(link.aPort, here), written(link.bPort, here)];
      const { sums, ...told } = link;
      return {
        ...told,
        ...sumsShown(sums, here),
        aPort: a.text,
        bPort: b.text,
        text: written(link.text, here).text,
        ...(a.chips.length + b.chips.length > 0 ? { aChips: a.chips, bChips: b.chips } : {}),
      };
    }),
    stubs: graph.stubs.map(({ of, ...stub }) => {
      const here = along(of);
      return { ...stub, aPort: written(stub.aPort, here).text, text: written(stub.text, here).text };
    }),
    containers: graph.containers,
  };
}
