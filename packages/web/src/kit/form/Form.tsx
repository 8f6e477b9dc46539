import { createContext, useContext, useMemo, type KeyboardEvent, type ReactNode, type Ref } from 'react';
import type { FieldError, FieldValues, Path } from 'react-hook-form';
import { styled } from 'styled-components';
import { Button } from '../controls.tsx';
import { faultText, type SchemaForm } from './useSchemaForm.ts';

const Layout = styled.div<{ $row: boolean }>`
  display: flex;
  flex-direction: ${({ $row }) => ($row ? 'row' : 'column')};
  gap: ${({ $row }) => ($row ? '6px' : '9px')};
  align-items: ${({ $row }) => ($row ? 'flex-start' : 'stretch')};
  flex-wrap: ${({ $row }) => ($row ? 'wrap' : 'nowrap')};
  min-width: 0;
  /* In a row the button stands beside the fields, not beside their labels. */
  > footer {
    align-self: ${({ $row }) => ($row ? 'flex-end' : 'auto')};
  }
`;
const Foot = styled.footer`
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
  &:empty {
    display: none;
  }
`;
const Wrong = styled.p`
  color: ${({ theme }) => theme.bad};
  font-size: 12px;
  max-width: 46ch;
`;

interface Here {
  form: SchemaForm<FieldValues>;
  readOnly: boolean;
}
const Context = createContext<Here | null>(null);

function useHere(): Here {
  const here = useContext(Context);
  if (here === null) throw new Error('A field of a form stands outside of one.');
  return here;
}
/** The form that a field stands in. */
export const useFormHere = (): SchemaForm<FieldValues> => useHere().form;

interface AreaProps<V extends FieldValues> {
  /** What the form is for, as a screen reader says it. */
  label: string;
  form: SchemaForm<V>;
  /** Is told the values once they fit the schema. */
  onSend: (values: V) => void | Promise<void>;
  /** Seen and not changed. */
  readOnly?: boolean;
  children: ReactNode;
}

/** What makes a form one, wherever its fields and its button (`Send`) stand: Enter sends, the first fault is focused. */
export function FormArea<V extends FieldValues>({
  label,
  form,
  onSend,
  readOnly = false,
  className,
  areaRef,
  onKeyDown,
  children,
}: AreaProps<V> & {
  className?: string;
  areaRef?: Ref<HTMLFormElement>;
  onKeyDown?: (event: KeyboardEvent<HTMLFormElement>) => void;
}): ReactNode {
  const here = useMemo(
    () => ({ form: form as unknown as SchemaForm<FieldValues>, readOnly }),
    [form, readOnly],
  );
  return (
    <Context value={here}>
      <form
        ref={areaRef}
        className={className}
        aria-label={label}
        noValidate
        onKeyDown={onKeyDown}
        onSubmit={(event) => {
          event.stopPropagation();
          void form.control.handleSubmit(onSend)(event);
        }}
      >
        {children}
      </form>
    </Context>
  );
}

/** The one button of a form. */
export function Send({
  children,
  quiet = false,
  disabled = false,
}: {
  children: ReactNode;
  quiet?: boolean;
  disabled?: boolean;
}): ReactNode {
  return (
    /*
      Takes the focus only once the press is over: a fault told as a field is left would move it from under the pointer,
      and keys typed after a press (`/`, `Ctrl+Z`) are not for the field.
    */
    <Button
      type="submit"
      $tone={quiet ? undefined : 'primary'}
      isDisabled={disabled}
      preventFocusOnPress
      onClick={({ detail, currentTarget }) => {
        // Enter in a field clicks it too, as no pointer does (0 clicks).
        if (detail > 0) currentTarget.focus();
      }}
    >
      {children}
    </Button>
  );
}

/** What is wrong and belongs to no field; and what is wrong in those that are too narrow to say it themselves. */
export function Trouble({ of = [] }: { of?: readonly string[] }): ReactNode {
  const { form } = useHere();
  const fault = troubleOf(form, of);
  return fault === null ? null : <Wrong role="alert">{fault}</Wrong>;
}
/** The first of that. */
export function troubleOf<V extends FieldValues>(
  { control, notes }: SchemaForm<V>,
  of: readonly Path<V>[] = [],
): string | null {
  const { formState, getFieldState } = control;
  const root = formState.errors.root?.message;
  if (root !== undefined) return root;
  for (const name of of) {
    const told = toldOf(notes(name).label, getFieldState(name, formState).error);
    if (told !== null) return told;
  }
  return null;
}

/** A fault as a sentence: what the model or the server said is one already. */
const toldOf = (label: string, error: FieldError | undefined): string | null =>
  error?.type === 'refused' ? (error.message ?? null) : faultText(label, error?.message);

interface Props<V extends FieldValues> extends AreaProps<V> {
  /** What its one button says. */
  action: string;
  busy?: boolean;
  /** Fields beside each other, with the button at the end. */
  row?: boolean;
  /** One of several things that can be done here, not the main one. */
  quiet?: boolean;
  /** Changes what is there: the button stands there once something differs from it. */
  changes?: boolean;
  /** Further buttons beside the one that sends. */
  beside?: ReactNode;
}

/**
 * Fields, and the one button that sends them. Enter sends from any field; the first fault is focused; what is wrong and
 * belongs to no field stands beside the button.
 */
export function Form<V extends FieldValues>({
  action,
  busy = false,
  row = false,
  quiet = false,
  changes = false,
  beside,
  children,
  ...area
}: Props<V>): ReactNode {
  const { isDirty } = area.form.control.formState;
  const sends = area.readOnly !== true && (!changes || isDirty);
  return (
    <FormArea {...area}>
      <Layout $row={row}>
        {children}
        <Foot>
          {sends && (
            <Send quiet={quiet} disabled={busy}>
              {action}
            </Send>
          )}
          {beside}
          <Trouble />
        </Foot>
      </Layout>
    </FormArea>
  );
}

/** What a field of the form is called, what is wrong with it, what stands in it, and whether it can be changed. */
export function useFieldHere(name: string): {
  label: string;
  help: string | undefined;
  error: string | null;
  readOnly: boolean;
} {
  const { form, readOnly } = useHere();
  const { label, unit, help } = form.notes(name);
  const { error } = form.control.getFieldState(name, form.control.formState);
  return {
    label: unit === undefined ? label : `${label} (${unit})`,
    help,
    error: toldOf(label, error),
    readOnly,
  };
}
