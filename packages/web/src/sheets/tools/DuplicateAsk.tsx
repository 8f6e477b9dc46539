import type { Plate } from '@visograph/core/sheets';
import { useMemo, useState, type ReactNode } from 'react';
import { Dialog } from 'react-aria-components';
import { styled } from 'styled-components';
import { Choice } from '../../kit/choice.tsx';
import { Button, Field, Keycap } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import type { SheetActs } from '../useSheetActs.ts';

const Ask = styled(Dialog)`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px 12px;
  width: 320px;
  outline: none;
  .fields {
    display: grid;
    grid-template-columns: 90px 1fr;
    gap: 8px;
  }
  [role='alert'] {
    color: ${({ theme }) => theme.bad};
  }
`;
/** Between one copy and the next. */
const gap = 32;
type Way = 'right' | 'down';

/** How often what is chosen is to be there again, which way, and with what; said before it is made. */
export function DuplicateAsk({
  plates,
  acts,
  onDone,
}: {
  plates: readonly Plate[];
  acts: Pick<SheetActs, 'duplicated' | 'commit'>;
  onDone: (deviceIds: string[]) => void;
}): ReactNode {
  const [times, setTimes] = useState('1');
  const [way, setWay] = useState<Way>('right');
  const [toOthers, setToOthers] = useState(true);
  const [addresses, setAddresses] = useState(true);
  const step = useMemo(() => {
    const left = Math.min(...plates.map(({ box }) => box.x));
    const top = Math.min(...plates.map(({ box }) => box.y));
    const right = Math.max(...plates.map(({ box }) => box.x + box.width));
    const bottom = Math.max(...plates.map(({ box }) => box.y + box.height));
    return way === 'right' ? { x: right - left + gap, y: 0 } : { x: 0, y: bottom - top + gap };
  }, [plates, way]);
  const made = useMemo(
    () =>
      acts.duplicated(plates, {
        times: /^\d+$/.test(times.trim()) ? Number(times) : Number.NaN,
        step,
        toOthers,
        addresses,
      }),
    [acts, plates, times, step, toOthers, addresses],
  );
  const { attempt } = made;
  const number = /^\d+$/.test(times.trim());
  const take = (): void => {
    if (attempt.ok && acts.commit(attempt.set)) onDone(made.deviceIds);
  };
  return (
    <Ask aria-label="Duplicate">
      <div
        className="fields"
        onKeyDown={(event) => {
          if (event.key === 'Enter' && event.target instanceof HTMLInputElement) take();
        }}
      >
        <Field
          label="Copies"
          mono
          autoFocus
          value={times}
          onChange={setTimes}
          error={number ? null : 'Write a number'}
        />
        <Choice<Way>
          label="Each to the"
          value={way}
          options={[
            { id: 'right', text: 'right of the last' },
            { id: 'down', text: 'bottom of the last' },
          ]}
          onChange={setWay}
        />
      </div>
      <Tick isSelected={toOthers} onChange={setToOthers}>
        Cables to others, from their next free ports
      </Tick>
      <Tick isSelected={addresses} onChange={setAddresses}>
        The next free addresses
      </Tick>
      {attempt.ok ? (
        <Hint role="status">{attempt.set.sentence.replace('Copied', 'Makes')}</Hint>
      ) : (
        number && <p role="alert">{attempt.why}</p>
      )}
      <Button $tone="primary" isDisabled={!attempt.ok} onPress={take}>
        Duplicate<Keycap>Enter</Keycap>
      </Button>
    </Ask>
  );
}
