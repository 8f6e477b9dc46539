import { useQuery } from '@tanstack/react-query';
import type { Answer } from '@visograph/api';
import { placePath, placesWithin, type Network, type Projection, type Sheet } from '@visograph/core/model';
import { inSheetOrder, sheetsLeadingTo } from '@visograph/core/sheets';
import { useMemo } from 'react';
import { call } from '../../data/api.ts';
import { useProject } from '../../data/project.tsx';

export type SheetChange = Answer<'GET /projects/:project/sheets'>[number];
export const sheetSorts = ['own order', 'name', 'last change'] as const;
export type SheetSort = (typeof sheetSorts)[number];

/** Who changed each sheet last; asked again with every change of the project. */
export function useSheetChanges(): ReadonlyMap<string, SheetChange> {
  const { project, view } = useProject();
  const { data } = useQuery({
    queryKey: ['sheet changes', project.id, view.revision],
    queryFn: () => call('GET /projects/:project/sheets', { params: { project: project.id } }),
    placeholderData: (before) => before,
  });
  return useMemo(() => new Map((data ?? []).map((change) => [change.id, change])), [data]);
}

/** "Kelder Quay › Data room", or what a sheet of no place draws. */
export const sheetPlace = (network: Network, sheet: Sheet): string =>
  sheet.picked ? 'picked devices' : placePath(network, sheet.scopeId).replaceAll('/', ' › ') || 'All sites';

/** Sheets of a scope, in their own order. */
export function sheetsWithin(network: Network, scopeId: string | null): Sheet[] {
  const within = placesWithin(network, scopeId);
  return inSheetOrder(network.all('sheet')).filter(
    (sheet) => scopeId === null || (sheet.scopeId !== null && within.has(sheet.scopeId)),
  );
}

/** The sheets that hold all words of a search in name, place or projection, and are of a projection, sorted. */
export function listed(
  network: Network,
  sheets: readonly Sheet[],
  wish: { text: string; projection: Projection | null; sort: SheetSort },
  changes: ReadonlyMap<string, SheetChange>,
): Sheet[] {
  const words = wish.text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = sheets.filter((sheet) => {
    const text = `${sheet.name} ${sheetPlace(network, sheet)} ${sheet.projection}`.toLowerCase();
    return (
      (wish.projection === null || sheet.projection === wish.projection) &&
      words.every((word) => text.includes(word))
    );
  });
  if (wish.sort === 'own order') return found;
  const revision = (sheet: Sheet): number => changes.get(sheet.id)?.revision ?? 0;
  const named = [...found].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  return wish.sort === 'name' ? named : named.sort((a, b) => revision(b) - revision(a));
}

/** "leads here: Kelder Quay, All sites": from where a sheet is reached; empty where from nowhere. */
export function usesText(network: Network, sheet: Sheet): string {
  const from = sheetsLeadingTo(network, sheet.id).map(({ name }) => name);
  if (from.length === 0) return '';
  return from.length > 2 ? `${from.length} sheets lead here` : `from ${from.join(', ')}`;
}
