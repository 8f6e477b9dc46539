import { useCallback, useEffect, useState } from 'react';
import { isTyping } from '../../kit/isTyping.ts';
import type { Renaming } from '../surface/sheetNodes.tsx';

const letter = /^[\p{L}\p{N}]$/u;

/**
 * Just typing after a plate was put down names it: the first letter opens its name in place of whatever that key does
 * elsewhere. It ends with the first press of anything else.
 */
export function useFresh(setRenaming: (renaming: Renaming) => void): (id: string | null) => void {
  const [fresh, setFresh] = useState<string | null>(null);
  useEffect(() => {
    if (fresh === null) return undefined;
    const key = (event: KeyboardEvent): void => {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (['Shift', 'Control', 'Alt', 'Meta', 'CapsLock'].includes(event.key)) return;
      setFresh(null);
      if (!letter.test(event.key)) return;
      event.preventDefault();
      event.stopPropagation();
      setRenaming({ id: fresh, typed: event.key });
    };
    const press = (): void => setFresh(null);
    window.addEventListener('keydown', key, true);
    window.addEventListener('pointerdown', press, true);
    return () => {
      window.removeEventListener('keydown', key, true);
      window.removeEventListener('pointerdown', press, true);
    };
  }, [fresh, setRenaming]);
  return useCallback((id) => setFresh(id), []);
}
