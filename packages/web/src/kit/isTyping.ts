/** Kinds of input that take no text: keys pressed while they have the focus mean what they mean elsewhere. */
const withoutText = new Set(['checkbox', 'radio', 'button', 'submit', 'reset', 'range', 'file', 'color']);

/** Whether keys go into a text: then they are no commands. */
export function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return !withoutText.has(target.type);
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || target.tagName === 'TEXTAREA' || target.tagName === 'SELECT')
  );
}
