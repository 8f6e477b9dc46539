import { useEffect, useRef, type RefObject } from 'react';

/**
 * Puts the focus into the first field of a panel whose name is as wished, once it is there, else on its first button: a
 * list that opens by itself is in the way. Null: the panel has a focus of its own.
 */
export function useFirstField(name: string | RegExp | null): RefObject<HTMLDivElement | null> {
  const frame = useRef<HTMLDivElement>(null);
  const wished = useRef(name);
  useEffect(() => {
    const { current: wish } = wished;
    if (wish === null) return;
    const fields = [...(frame.current?.querySelectorAll<HTMLInputElement>('input') ?? [])];
    const called = (field: HTMLInputElement): string =>
      field.getAttribute('aria-label') ?? field.labels?.[0]?.textContent ?? '';
    const first = fields.find((field) =>
      typeof wish === 'string'
        ? called(field) === wish
        : field.getAttribute('role') !== 'combobox' && wish.test(called(field)),
    );
    const typed = fields.find((field) => field.getAttribute('role') !== 'combobox');
    const field = first ?? typed;
    if (field === undefined) return frame.current?.querySelector('button')?.focus({ preventScroll: true });
    field.focus({ preventScroll: true });
    field.select();
  }, []);
  return frame;
}
