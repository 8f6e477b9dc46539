import { useState, type ReactNode } from 'react';
import { Controller } from 'react-hook-form';
import { Choice, Picker, type Option } from '../choice.tsx';
import { TextArea, TextField } from 'react-aria-components';
import { styled } from 'styled-components';
import { control as controlLook, ErrorText, Field, FieldLabel } from '../controls.tsx';
import { DateEntry, dateOf } from '../DateEntry.tsx';
import { Tick } from '../Tick.tsx';
import { useFieldHere, useFormHere } from './Form.tsx';

interface Shared {
  /** The field of the schema. */
  name: string;
  width?: number;
  autoFocus?: boolean;
  /** In place of what the schema calls it. */
  label?: string;
  help?: string;
}

interface TextProps extends Shared {
  nullable?: boolean;
  mono?: boolean;
  type?: string;
  autoComplete?: string;
  /** Too narrow to say what is wrong with it: `Trouble` does. */
  brief?: boolean;
  /** What stands there while nobody has typed anything: the form holds null then. */
  proposed?: string;
}

/** A text; left empty it is null where the schema lets it be. */
export function TextIn({
  name,
  nullable = false,
  mono = false,
  type,
  autoComplete,
  proposed = '',
  brief = false,
  ...own
}: TextProps): ReactNode {
  const { control } = useFormHere();
  const field = useFieldHere(name);
  return (
    <Controller
      name={name}
      control={control.control}
      render={({ field: { value, onChange, onBlur, ref } }) => (
        <Field
          {...field}
          {...own}
          error={brief && field.error !== null ? '' : field.error}
          label={own.label ?? field.label}
          help={own.help ?? field.help}
          inputRef={ref}
          mono={mono}
          type={type}
          name={name}
          autoComplete={autoComplete}
          value={typeof value === 'string' ? value : proposed}
          onChange={(text) => onChange(nullable && text === '' ? null : text)}
          onBlur={onBlur}
        />
      )}
    />
  );
}

/** A text of several lines; left empty it is null. */
export function LinesIn({ name, rows = 3, ...own }: Shared & { rows?: number }): ReactNode {
  const { control } = useFormHere();
  const field = useFieldHere(name);
  return (
    <Controller
      name={name}
      control={control.control}
      render={({ field: { value, onChange, onBlur, ref } }) => (
        <LinesFrame
          value={typeof value === 'string' ? value : ''}
          isInvalid={field.error !== null}
          isReadOnly={field.readOnly}
          onChange={(text) => onChange(text === '' ? null : text)}
          onBlur={onBlur}
        >
          <FieldLabel>{own.label ?? field.label}</FieldLabel>
          <TextArea ref={ref} rows={rows} name={name} />
          <ErrorText>{field.error}</ErrorText>
        </LinesFrame>
      )}
    />
  );
}
const LinesFrame = styled(TextField)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  textarea {
    ${controlLook}
    height: auto;
    padding: 4px 8px;
    resize: vertical;
  }
`;

/** A number as it is typed: what is none is told as that, and stays. Left empty it is null. */
export function NumberIn({ name, ...own }: Shared): ReactNode {
  const { control } = useFormHere();
  const field = useFieldHere(name);
  const held: unknown = control.watch(name);
  const [typed, setTyped] = useState(held === null || held === undefined ? '' : String(held));
  const read = (text: string): unknown => {
    const trimmed = text.trim().replace(',', '.');
    if (trimmed === '') return null;
    return Number.isFinite(Number(trimmed)) ? Number(trimmed) : text;
  };
  // Set from outside, by another field or by emptying the form.
  const shown =
    read(typed) === (held ?? null) ? typed : held === null || held === undefined ? '' : String(held);
  return (
    <Controller
      name={name}
      control={control.control}
      render={({ field: { onChange, onBlur, ref } }) => (
        <Field
          {...field}
          {...own}
          label={own.label ?? field.label}
          help={own.help ?? field.help}
          inputRef={ref}
          mono
          name={name}
          value={shown}
          onChange={(text) => {
            setTyped(text);
            onChange(read(text));
          }}
          onBlur={onBlur}
        />
      )}
    />
  );
}

/** One of a short list; one of a long list that is searched where `search` is set. */
export function ChoiceIn({
  name,
  options,
  search = false,
  none,
  placeholder,
  onChosen,
  ...own
}: Shared & {
  options: readonly Option[];
  search?: boolean;
  /** What the choice of nothing is called, where the schema lets it be null. */
  none?: string;
  placeholder?: string;
  onChosen?: (id: string | null) => void;
}): ReactNode {
  const { control } = useFormHere();
  const field = useFieldHere(name);
  const Control = search ? Picker : Choice;
  const all = none === undefined ? options : [{ id: '', text: none }, ...options];
  return (
    <Controller
      name={name}
      control={control.control}
      render={({ field: { value, onChange } }) => (
        <Control
          label={own.label ?? field.label}
          width={own.width}
          {...(search ? { autoFocus: own.autoFocus === true, placeholder } : {})}
          error={field.error}
          options={field.readOnly ? all.map((one) => ({ ...one, disabled: true })) : all}
          value={typeof value === 'string' ? value : none === undefined ? null : ''}
          onChange={(id) => {
            const chosen = id === '' ? null : id;
            onChange(chosen);
            onChosen?.(chosen);
          }}
        />
      )}
    />
  );
}

/** Yes or no. */
export function TickIn({ name, children }: { name: string; children?: ReactNode }): ReactNode {
  const { control } = useFormHere();
  const { label, readOnly } = useFieldHere(name);
  return (
    <Controller
      name={name}
      control={control.control}
      render={({ field: { value, onChange } }) => (
        <Tick isSelected={value === true} isDisabled={readOnly} onChange={onChange}>
          {children ?? label}
        </Tick>
      )}
    />
  );
}

/** A day, year-month-day; null where it is empty. */
export function DateIn({ name, ...own }: Shared): ReactNode {
  const { control } = useFormHere();
  const field = useFieldHere(name);
  return (
    <Controller
      name={name}
      control={control.control}
      render={({ field: { value, onChange, onBlur } }) => (
        <DateEntry
          label={own.label ?? field.label}
          error={field.error}
          readOnly={field.readOnly}
          value={dateOf(value)}
          onChange={(date) => onChange(date === null ? null : date.toString())}
          onBlur={onBlur}
        />
      )}
    />
  );
}
