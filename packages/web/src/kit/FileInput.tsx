import type { ReactNode, RefObject } from 'react';

interface Props {
  input: RefObject<HTMLInputElement | null>;
  label: string;
  /** Endings and media types that the file chooser offers. */
  accept: string;
  onFile: (file: File) => unknown;
}

/** A file chooser that a button opens; the same file may be chosen again. */
export function FileInput({ input, label, accept, onFile }: Props): ReactNode {
  return (
    <input
      ref={input}
      type="file"
      accept={accept}
      aria-label={label}
      hidden
      onChange={(event) => {
        const file = event.target.files?.[0];
        event.target.value = '';
        if (file !== undefined) onFile(file);
      }}
    />
  );
}
