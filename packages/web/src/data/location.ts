import { isKind, type Kind } from '@visograph/core/model';
import { useCallback, useMemo } from 'react';
import { useLocation, useNavigate, useParams, useSearchParams } from 'react-router';

/** A row that is selected, of whatever kind. */
export interface Selection {
  kind: Kind;
  id: string;
}

export interface Whereabouts {
  section: string;
  /** The place everything is about; null is the whole project. */
  scopeId: string | null;
  rackId: string | null;
  /** The racks beside the open one: all of its room, or these. */
  beside: 'room' | readonly string[];
  selection: Selection | null;
  /** Goes somewhere; what is left out stays as it is. */
  go: (to: {
    section?: string;
    scopeId?: string | null;
    rackId?: string | null;
    beside?: 'room' | readonly string[];
    selection?: Selection | null;
    sheetId?: string | null;
    /** The schedule to open, as it is kept or as `view` asks it otherwise. */
    schedule?: string;
    view?: string;
    replace?: boolean;
  }) => void;
  select: (selection: Selection | null) => void;
}

/** Where the person is, all of it in the address: section, scope, rack and selection. */
export function useWhereabouts(): Whereabouts {
  const { project = '' } = useParams();
  const { pathname } = useLocation();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const section = pathname.split('/')[3] ?? 'start';
  const scopeId = search.get('scope');
  const rackId = search.get('rack');
  const besideText = search.get('beside') ?? '';
  const chosen = search.get('sel');
  const go = useCallback<Whereabouts['go']>(
    (to) => {
      const next = new URLSearchParams(search);
      const put = (name: string, value: string | null | undefined): void => {
        if (value === undefined) return;
        if (value === null) next.delete(name);
        else next.set(name, value);
      };
      put('scope', to.scopeId);
      // A rack is open in Places alone: elsewhere the path would promise a narrower scope than the rows have.
      const leaves = to.sheetId !== undefined || (to.section !== undefined && to.section !== 'places');
      put('rack', leaves ? null : to.rackId);
      if (to.beside !== undefined)
        put('beside', (to.beside === 'room' ? 'room' : to.beside.join('.')) || null);
      if (leaves || to.rackId === null) put('beside', null);
      if (to.schedule !== undefined) {
        put('schedule', to.schedule);
        put('view', to.view ?? null);
      }
      if (to.selection !== undefined)
        put('sel', to.selection === null ? null : `${to.selection.kind}:${to.selection.id}`);
      const path = to.sheetId
        ? `sheets/${to.sheetId}`
        : to.sheetId === null
          ? 'sheets'
          : (to.section ?? (section === 'start' && to.scopeId != null ? 'places' : null));
      const base = path === null ? pathname : `/p/${project}/${path}`;
      const query = next.toString();
      void navigate(query === '' ? base : `${base}?${query}`, { replace: to.replace ?? false });
    },
    [navigate, pathname, project, search, section],
  );
  return useMemo(() => {
    const [kind = '', id = ''] = chosen?.split(':') ?? [];
    const beside = besideText === 'room' ? besideText : besideText.split('.').filter((one) => one !== '');
    const selection = isKind(kind) && id !== '' ? { kind, id } : null;
    return {
      section,
      scopeId,
      rackId,
      beside: beside satisfies Whereabouts['beside'],
      selection,
      go,
      select: (next) => go({ selection: next, replace: true }),
    };
  }, [section, scopeId, rackId, besideText, chosen, go]);
}
