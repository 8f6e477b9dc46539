/**
 * Whether one key alone does something: `C`, `/`, `.` and the like. It can be switched off, for whoever speaks to the
 * screen or hits keys without meaning to (WCAG 2.2, criterion 2.1.4); what they do has a button, and Ctrl+K stays.
 */
const kept = 'visograph.singleKeys';
export const singleKeysOn = (): boolean => localStorage.getItem(kept) !== 'off';
export const setSingleKeys = (on: boolean): void => localStorage.setItem(kept, on ? 'on' : 'off');

/** Whether a pressed key is one alone and those are switched off. */
export const isSwitchedOff = ({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean =>
  key.length === 1 && !ctrlKey && !metaKey && !altKey && !singleKeysOn();
