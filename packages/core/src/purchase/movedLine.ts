import type { QuotationSection } from '../model/kinds/purchase/quotation.ts';

/** Where a line stands: which section, and which line of it. */
export interface LineSpot {
  section: number;
  line: number;
}
export interface Moved {
  sections: QuotationSection[];
  spot: LineSpot;
}

/**
 * A line one place up or down: past its neighbour, or at the edge of its section into the next one, empty or not.
 * Null where it stands at the very end, or is not there.
 */
export function movedLine(
  sections: readonly QuotationSection[],
  { section, line }: LineSpot,
  by: -1 | 1,
): Moved | null {
  const from = sections[section];
  const one = from?.lines[line];
  if (from === undefined || one === undefined) return null;
  const beside = from.lines[line + by];
  const target = beside === undefined ? section + by : section;
  const into = sections[target];
  if (into === undefined) return null;
  const rest = from.lines.filter((_line, at) => at !== line);
  const at = beside !== undefined ? line + by : by === 1 ? 0 : into.lines.length;
  const lines = target === section ? rest : into.lines;
  const placed = [...lines.slice(0, at), one, ...lines.slice(at)];
  return {
    sections: sections.map((own, which) => {
      if (which === target) return { ...own, lines: placed };
      return which === section ? { ...own, lines: rest } : own;
    }),
    spot: { section: target, line: at },
  };
}

/** A section with all of it one place up or down; null where it stands at the end. */
export function movedSection(
  sections: readonly QuotationSection[],
  section: number,
  by: -1 | 1,
): QuotationSection[] | null {
  const [one, other] = [sections[section], sections[section + by]];
  if (one === undefined || other === undefined) return null;
  return sections.map((own, at) => (at === section ? other : at === section + by ? one : own));
}
