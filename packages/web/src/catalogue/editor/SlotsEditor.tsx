import type { Slot } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { Choice } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Line } from './parts.tsx';

interface Props {
  slots: readonly Slot[];
  /** What the slots of a model of this name take, unless said otherwise. */
  modelName: string;
  onChange: (slots: Slot[]) => void;
}

/** The slots of a model: what each is called, what it takes, and at which face. */
export function SlotsEditor({ slots, modelName, onChange }: Props): ReactNode {
  const set = (at: number, change: Partial<Slot>): void =>
    onChange(slots.map((one, index) => (index === at ? { ...one, ...change } : one)));
  return (
    <>
      {slots.map((one, at) => (
        <Line key={at} role="group" aria-label={`Slot ${at + 1}`}>
          <Field label="Slot" value={one.name} onChange={(name) => set(at, { name })} width={110} mono />
          <Field
            label="Takes family"
            value={one.family}
            onChange={(family) => set(at, { family })}
            width={170}
          />
          <Choice
            label="Face"
            width={76}
            value={one.face}
            options={(['front', 'rear'] as const).map((face) => ({ id: face, text: face }))}
            onChange={(face) => set(at, { face })}
          />
          <Button $tone="quiet" onPress={() => onChange(slots.filter((_, index) => index !== at))}>
            Remove
          </Button>
        </Line>
      ))}
      <div>
        <Button
          onPress={() =>
            onChange([
              ...slots,
              {
                name: `slot ${slots.length + 1}`,
                family: slots.at(-1)?.family ?? `${modelName} module`,
                face: 'front',
              },
            ])
          }
        >
          Add slot
        </Button>
      </div>
    </>
  );
}
