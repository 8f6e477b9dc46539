import { useEffect } from 'react';
import { isTyping } from './isTyping.ts';
import { isSwitchedOff } from './singleKeys.ts';

/**
 * Keys of what is on the screen, such as `Delete`, `.` or `Ctrl+c`: not while something is typed, a dialog or menu is
 * open, or, with Ctrl, from within a grid, which has its own.
 */
export function useKeysHere(keys: Readonly<Record<string, () => void>>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const { target } = event;
      if (isTyping(target) || event.altKey || isSwitchedOff(event)) return;
      if (document.querySelector('[role="dialog"], [role="menu"]') !== null) return;
      const command = event.ctrlKey || event.metaKey;
      const act =
        keys[`${command ? 'Ctrl+' : ''}${event.key.length === 1 ? event.key.toLowerCase() : event.key}`];
      // Rows of the strip are copied by the strip.
      if (
        act === undefined ||
        (command && target instanceof Element && target.closest('[role="grid"]') !== null)
      )
        return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [keys]);
}
