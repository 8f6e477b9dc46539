import { applyChanges } from '@visograph/core/change';
import { editHeld } from '@visograph/core/commands';
import { notesOf, type Kind, type Rows } from '@visograph/core/model';
import { useEffect, useId, useRef, useState, type ReactNode } from 'react';
import { Input, TextField } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWorkspace } from '../data/workspace.tsx';
import { useWhereabouts, type Selection } from '../data/location.ts';
import { Choice } from '../kit/choice.tsx';
import { FieldInput } from '../kit/controls.tsx';
import { DateEntry, dateOf } from '../kit/DateEntry.tsx';
import { mono } from '../theme/mono.ts';

export const Head = styled.header`
  padding: 12px 14px 14px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  h2 {
    font-size: 16px;
    line-height: 22px;
    overflow-wrap: anywhere;
  }
  p {
    color: ${({ theme }) => theme.inkSoft};
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: 10px;
  }
`;

const CardFrame = styled.section`
  padding: 11px 14px 13px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  h3 {
    color: ${({ theme }) => theme.inkSoft};
    margin-bottom: 7px;
  }
`;
export function Card({ title, children }: { title: string; children: ReactNode }): ReactNode {
  return (
    <CardFrame>
      <h3>{title}</h3>
      {children}
    </CardFrame>
  );
}

export const Facts = styled.dl`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 2px 10px;
  align-items: center;
  dt {
    color: ${({ theme }) => theme.inkSoft};
    min-height: 24px;
    line-height: 24px;
  }
  dd {
    ${mono}
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
`;

const Inline = styled(FieldInput)`
  ${mono}
  font-size: 12.5px;
  height: 24px;
  padding: 0 5px;
  margin-left: -6px;
  border-color: transparent;
  background: transparent;
  &[data-hovered] {
    border-color: ${({ theme }) => theme.rule};
  }
`;
const Wrong = styled.p`
  color: ${({ theme }) => theme.bad};
  font: 400 12px/16px inherit;
`;

type Parsed = { ok: true; value: string | number | null } | { ok: false; why: string };

function parse(text: string, numeric: boolean, optional: boolean): Parsed {
  const trimmed = text.trim();
  if (trimmed === '') return optional ? { ok: true, value: null } : { ok: false, why: 'Give a value.' };
  if (!numeric) return { ok: true, value: trimmed };
  const value = Number(trimmed.replace(',', '.'));
  return Number.isFinite(value) ? { ok: true, value } : { ok: false, why: `“${trimmed}” is not a number.` };
}

interface FactProps<K extends Kind> {
  kind: K;
  row: Rows[K];
  field: keyof Rows[K] & string;
  numeric?: boolean;
  optional?: boolean;
  /** Turns what was typed into the one way it is written. */
  canonical?: (text: string) => string;
  /** Usual values, proposed while typing. */
  offers?: readonly { value: string; text: string }[];
}

/** A fact typed in place: Enter or leaving keeps it, Escape gives it back. What is wrong stays, with the reason. */
export function TypedFact({
  label,
  unit,
  shown,
  keep,
  offers,
  called,
}: {
  label: string;
  unit?: string | undefined;
  shown: string;
  /** Takes what was typed; gives the reason when it cannot be kept. */
  keep: (text: string) => string | null;
  /** Usual values, proposed while typing. */
  offers?: readonly { value: string; text: string }[] | undefined;
  /** It is what the thing is called: it is gone to when its name is asked for. */
  called?: boolean;
}): ReactNode {
  const { canEdit } = useProject();
  const [text, setText] = useState(shown);
  const [wrong, setWrong] = useState<string | null>(null);
  const [from, setFrom] = useState(shown);
  if (from !== shown) {
    setFrom(shown);
    setText(shown);
    setWrong(null);
  }
  const listId = useId();
  const frame = useRef<HTMLDivElement>(null);
  const { onAsk } = useWorkspace();
  useEffect(() => {
    if (called !== true) return undefined;
    return onAsk('name', () => {
      const input = frame.current?.querySelector('input');
      input?.focus();
      input?.select();
    });
  }, [called, onAsk]);
  const settle = (): void => setWrong(text === shown ? null : keep(text));
  return (
    <>
      <dt>{unit === undefined ? label : `${label} (${unit})`}</dt>
      <dd ref={frame}>
        <TextField
          aria-label={label}
          value={text}
          onChange={setText}
          onBlur={settle}
          isReadOnly={!canEdit}
          isInvalid={wrong !== null}
          onKeyDown={(event) => {
            if (event.key === 'Enter') settle();
            if (event.key !== 'Escape') return;
            // With nothing to give back it closes what the field stands in.
            if (text === shown && wrong === null) return event.continuePropagation();
            setText(shown);
            setWrong(null);
          }}
        >
          <Inline
            as={Input}
            placeholder={canEdit ? '–' : ''}
            list={offers === undefined ? undefined : listId}
          />
        </TextField>
        {offers !== undefined && (
          <datalist id={listId}>
            {offers.map((offer) => (
              <option key={offer.value} value={offer.value} label={offer.text} />
            ))}
          </datalist>
        )}
        {wrong !== null && <Wrong role="alert">{wrong}</Wrong>}
      </dd>
    </>
  );
}

/** A field of a row, typed in place. */
export function EditableFact<K extends Kind>({
  kind,
  row,
  field,
  numeric = false,
  optional = true,
  canonical = (typed) => typed,
  offers,
}: FactProps<K>): ReactNode {
  const { view, commit } = useProject();
  const now = row[field];
  const notes = notesOf(kind, field);
  const keep = (text: string): string | null => {
    const parsed = parse(canonical(text), numeric, optional);
    if (!parsed.ok) return parsed.why;
    const set = editHeld(view.network, kind, row, { [field]: parsed.value });
    const tried = applyChanges(view.network, set.changes);
    if (!tried.ok) return tried.problems[0]?.message ?? 'Not allowed.';
    commit(set);
    return null;
  };
  return (
    <TypedFact
      label={notes?.label ?? field}
      unit={notes?.unit}
      shown={now === null || now === undefined ? '' : String(now)}
      keep={keep}
      offers={offers}
      called={field === 'name' || field === 'label'}
    />
  );
}

/** A day edited in place, year first: kept when it is left, given up with Escape. */
export function DateFact<K extends Kind>({ kind, row, field }: FactProps<K>): ReactNode {
  const { view, commit, canEdit } = useProject();
  const now = dateOf(row[field]);
  const [typed, setTyped] = useState(now);
  const [from, setFrom] = useState(row[field]);
  if (from !== row[field]) {
    setFrom(row[field]);
    setTyped(now);
  }
  const label = notesOf(kind, field)?.label ?? field;
  const keep = (): void => {
    const value = typed?.toString() ?? null;
    if (value !== (now?.toString() ?? null)) commit(editHeld(view.network, kind, row, { [field]: value }));
  };
  return (
    <>
      <dt>{label}</dt>
      <dd
        // Before the parts of the day take them for themselves.
        onKeyDownCapture={({ key }) => {
          if (key === 'Enter') keep();
          if (key === 'Escape') setTyped(now);
        }}
      >
        <DateEntry
          label={label}
          hideLabel
          plain
          value={typed}
          onChange={setTyped}
          onBlur={keep}
          readOnly={!canEdit}
        />
      </dd>
    </>
  );
}

const shownOption = (value: unknown): string => (value === null || value === undefined ? '–' : String(value));

/** A fact chosen from a short list. */
export function ChosenFact<K extends Kind>({
  kind,
  row,
  field,
  options,
}: FactProps<K> & { options: readonly (string | number | null)[] }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const label = notesOf(kind, field)?.label ?? field;
  const value = shownOption(row[field]);
  return (
    <>
      <dt>{label}</dt>
      <dd>
        {canEdit ? (
          <Choice
            label={label}
            hideLabel
            value={value}
            width={130}
            options={options.map((option) => ({ id: shownOption(option), text: shownOption(option) }))}
            onChange={(next) =>
              void commit(
                editHeld(view.network, kind, row, {
                  [field]: options.find((option) => shownOption(option) === next) ?? null,
                }),
              )
            }
          />
        ) : (
          value
        )}
      </dd>
    </>
  );
}

const Go = styled.button`
  font: inherit;
  ${mono}
  font-size: 12.5px;
  border: 0;
  background: none;
  color: ${({ theme }) => theme.ink};
  padding: 0;
  text-align: left;
  overflow-wrap: anywhere;
  text-decoration: underline;
  text-decoration-color: ${({ theme }) => theme.rule};
  text-underline-offset: 3px;
  &:hover {
    text-decoration-color: ${({ theme }) => theme.accent};
  }
`;

/** Selects another thing: its record comes up. */
export function Goto({ to, children }: { to: Selection; children: ReactNode }): ReactNode {
  const { select } = useWhereabouts();
  return (
    <Go type="button" onClick={() => select(to)}>
      {children}
    </Go>
  );
}
