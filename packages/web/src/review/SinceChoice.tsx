import { useState, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { Field } from '../kit/controls.tsx';
import { useSince } from '../start/useSince.ts';

type When = 'all' | 'last' | 'revision';

/** Whether all is listed, or what is new since one was last there or since a revision. */
export function SinceChoice({
  since,
  onChange,
}: {
  since: string | null;
  onChange: (since: string | null) => void;
}): ReactNode {
  const { view } = useProject();
  const seen = useSince()?.seen ?? null;
  const [asks, setAsks] = useState(false);
  const [typed, setTyped] = useState(since ?? '');
  const isLast = since !== null && since === String(seen);
  const value: When = asks || (since !== null && !isLast) ? 'revision' : isLast ? 'last' : 'all';
  const revision = Number(typed);
  const fits = /^\d{1,9}$/.test(typed) && revision >= 1 && revision <= view.revision;
  return (
    <>
      <Choice<When>
        label="Since when"
        hideLabel
        width={150}
        value={value}
        options={[
          { id: 'all', text: 'All there is' },
          ...(seen === null || seen === 0
            ? []
            : [{ id: 'last' as const, text: `New for me (since r${seen})` }]),
          { id: 'revision', text: 'New since …' },
        ]}
        onChange={(when) => {
          setAsks(when === 'revision');
          if (when !== 'revision') onChange(when === 'all' ? null : String(seen));
        }}
      />
      {value === 'revision' && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (fits) onChange(typed);
          }}
        >
          <Field
            label="Revision"
            value={typed}
            onChange={setTyped}
            mono
            width={92}
            autoFocus={asks}
            error={typed === '' || fits ? null : `1 to ${view.revision}`}
            onBlur={() => fits && onChange(typed)}
          />
        </form>
      )}
    </>
  );
}
