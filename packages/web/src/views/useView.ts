import { gridViewPart, plainView, type View } from '@visograph/core/model';
import { useMemo } from 'react';
import { useInAddress } from '../data/useInAddress.ts';

const partSchema = gridViewPart.partial();

interface Read {
  view: View;
  trouble: string | null;
}

/** A view as the address says it: the grid that it is of, then what is otherwise than plain. */
function readView(text: string | null, grid: string): Read {
  if (text === null || !text.startsWith(`${grid}:`)) return { view: plainView, trouble: null };
  const trouble = 'What the address says of this list cannot be read: it is shown as it is.';
  try {
    const read = partSchema.safeParse(JSON.parse(text.slice(grid.length + 1)));
    return read.success
      ? { view: { ...plainView, ...read.data }, trouble: null }
      : { view: plainView, trouble };
  } catch {
    return { view: plainView, trouble };
  }
}

const same = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);

/** What of a view is not plain, as a text; null where all of it is. */
export function viewText(view: View): string | null {
  const plain = new Map<string, unknown>(Object.entries(plainView));
  const differs = Object.entries(view).filter(([field, value]) => !same(value, plain.get(field)));
  return differs.length === 0 ? null : JSON.stringify(Object.fromEntries(differs));
}

export interface Looked extends Read {
  change: (fields: Partial<View>) => void;
  /** It is as the rows come. */
  plain: boolean;
}

const addressed = ['rows'] as const;

/** How a grid is looked at, all of it in the address. */
export function useView(grid: string): Looked {
  const [{ rows: text }, put] = useInAddress(addressed);
  return useMemo(() => {
    const { view, trouble } = readView(text, grid);
    return {
      view,
      trouble,
      plain: viewText(view) === null,
      change: (fields) => {
        const next = viewText({ ...view, ...fields });
        put({ rows: next === null ? null : `${grid}:${next}` });
      },
    };
  }, [text, grid, put]);
}
