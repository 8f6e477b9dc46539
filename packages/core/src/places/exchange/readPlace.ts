import { newId } from '../../model/values/ids.ts';
import { blankPlace, type Place } from '../../model/kinds/sites/place.ts';
import type { Staging } from '../../exchange/staging.ts';

/** What a place is by how deep it lies, where nothing else is said: then rooms. */
export const kindByDepth: readonly Place['kind'][] = ['site', 'building', 'floor'];

/** The place of a path, made with all that is missing around it; null when a name in it is empty. */
export function ensurePlace(
  staging: Staging,
  path: string,
  at: string,
  entry: Partial<Omit<Place, 'id' | 'name' | 'parentId'>> | null = null,
): string | null {
  const names = path.split('/');
  if (names.some((name) => name.trim() === '' || name.trim() !== name)) {
    staging.problem(
      at,
      `The path “${path}” has an empty name in it. Write names separated by single slashes.`,
    );
    return null;
  }
  let parentId: string | null = null;
  for (const [depth, name] of names.entries()) {
    const found: Place | undefined = staging.network
      .find('placesByParent', parentId ?? 'root')
      .find((place) => place.name.toLowerCase() === name.toLowerCase());
    const said = depth === names.length - 1 ? entry : null;
    if (found !== undefined && said === null) {
      parentId = found.id;
      continue;
    }
    const row: Place = {
      ...blankPlace,
      name,
      kind: kindByDepth[depth] ?? 'room',
      ...found,
      ...said,
      id: found?.id ?? newId(),
      parentId,
    };
    staging.put('place', row, at);
    parentId = row.id;
  }
  return parentId;
}
