import { useRef, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { FileInput } from '../kit/FileInput.tsx';
import { readPicture } from './pictures.ts';

interface Props {
  /** What it is a picture of, as in "Choose a symbol". */
  what: 'picture' | 'symbol';
  alt: string;
  value: string | null;
  onChange: (picture: string | null) => void;
  height?: number;
}

/** A PNG or SVG from a file, checked and cleaned before it is taken. */
export function PictureField({ what, alt, value, onChange, height = 80 }: Props): ReactNode {
  const { sync } = useProject();
  const input = useRef<HTMLInputElement>(null);
  const take = async (file: File): Promise<void> => {
    const read = await readPicture(file);
    if (!read.ok) return sync.announce({ tone: 'bad', text: `${file.name}: ${read.why}` });
    onChange(read.picture);
    if (read.removed)
      sync.announce({ tone: 'ok', text: `${file.name}: what was not a drawing was taken out of it.` });
  };
  return (
    <>
      {value !== null && <img src={value} alt={alt} style={{ maxHeight: height, maxWidth: 240 }} />}
      <Button onPress={() => input.current?.click()}>
        {value === null ? `Choose a ${what}` : `Another ${what}`}
      </Button>
      {value !== null && (
        <Button $tone="quiet" onPress={() => onChange(null)}>
          {`Remove ${what}`}
        </Button>
      )}
      <FileInput
        input={input}
        label={what === 'picture' ? 'Picture' : 'Symbol'}
        accept="image/png,image/svg+xml,.png,.svg"
        onFile={(file) => void take(file)}
      />
    </>
  );
}
