import { useSyncExternalStore } from 'react';

/** Up to this width the rail and the record are drawers over the work area. */
export const narrowUpTo = 1024;
export const narrowQuery = `(max-width: ${narrowUpTo}px)`;

const asked = typeof matchMedia === 'undefined' ? null : matchMedia(narrowQuery);

/** Whether the window is no wider than that of a tablet. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    (changed) => {
      asked?.addEventListener('change', changed);
      return () => asked?.removeEventListener('change', changed);
    },
    () => asked?.matches === true,
  );
