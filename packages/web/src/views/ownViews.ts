import { compareNames, gridViewPart, type View } from '@visograph/core/model';
import { useState } from 'react';
import { z } from 'zod';

/** A view that one person keeps in this browser, as other habits are. */
export interface OwnView {
  name: string;
  view: View;
}

const keptSchema = z.array(z.strictObject({ name: z.string().min(1).max(80), view: gridViewPart }));
const keyOf = (projectId: string, grid: string): string => `visograph.views.${projectId}.${grid}`;

/** What cannot be read any more is no view. */
function readOwn(key: string): OwnView[] {
  try {
    const read = keptSchema.safeParse(JSON.parse(localStorage.getItem(key) ?? '[]'));
    return read.success ? read.data : [];
  } catch {
    return [];
  }
}

export interface OwnViews {
  views: readonly OwnView[];
  /** Keeps a view under a name; one of that name is replaced. Gives why it cannot be kept. */
  keep: (name: string, view: View) => string | null;
  remove: (name: string) => void;
}

/** The views of a grid that one keeps for oneself. */
export function useOwnViews(projectId: string, grid: string): OwnViews {
  const key = keyOf(projectId, grid);
  const [views, setViews] = useState(() => readOwn(key));
  const write = (next: OwnView[]): string | null => {
    try {
      localStorage.setItem(key, JSON.stringify(next));
    } catch {
      return 'This browser keeps nothing for this page. Keep the view for all instead.';
    }
    setViews(next);
    return null;
  };
  const without = (name: string): OwnView[] =>
    readOwn(key).filter((one) => one.name.toLowerCase() !== name.toLowerCase());
  return {
    views,
    keep: (name, view) => {
      const tidy = name.trim().slice(0, 80);
      if (tidy === '') return 'The view has no name. Give it one.';
      return write([...without(tidy), { name: tidy, view }].sort((a, b) => compareNames(a.name, b.name)));
    },
    remove: (name) => void write(without(name)),
  };
}
