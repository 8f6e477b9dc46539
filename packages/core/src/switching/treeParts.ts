import type {
  SpanningTreeMode,
  SpanningTreePart,
  SpanningTreeSettings,
} from '../model/kinds/logical/spanningTree.ts';
import { formatVids, readVids } from '../model/values/vids.ts';

/** `1: 10,20 at 4096; 2: 30`: instances with their VLANs and priorities; without numbers where trees are per VLAN. */
export const treePartsText = (settings: SpanningTreeSettings | null): string =>
  (settings?.parts ?? [])
    .map(
      ({ instance, vids, priority }) =>
        `${instance === null ? '' : `${instance}: `}${formatVids(vids)}${priority === null ? '' : ` at ${priority}`}`,
    )
    .join('; ');

type PartsRead = { ok: true; parts: SpanningTreePart[] } | { ok: false; why: string };

/** Reads what `treePartsText` writes. What contradicts itself is left to the schema, which names it. */
export function readTreeParts(mode: SpanningTreeMode, text: string): PartsRead {
  const parts: SpanningTreePart[] = [];
  for (const piece of text.split(';').map((one) => one.trim())) {
    if (piece === '') continue;
    const match = /^(?:(\d+)\s*:)?\s*([\d,\s–-]+?)(?:\s+at\s+(\d+))?$/.exec(piece);
    if (match === null)
      return {
        ok: false,
        why: `“${piece}” is not like ${mode === 'instances' ? '1: 10,20 at 4096' : '10,20 at 4096'}`,
      };
    const vids = readVids(match[2] ?? '');
    if (!vids.ok) return { ok: false, why: vids.reason };
    parts.push({
      instance: match[1] === undefined ? null : Number(match[1]),
      vids: vids.vids === 'all' ? 'all' : [...vids.vids],
      priority: match[3] === undefined ? null : Number(match[3]),
    });
  }
  return { ok: true, parts };
}
