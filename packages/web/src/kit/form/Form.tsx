import { createContext, useContext, type ReactNode } from 'react';
import type { FieldValues } from 'react-hook-form';
import { styled } from 'styled-components';
import { Button } from '../controls.tsx';
import { faultText, type SchemaForm } from './useSchemaForm.ts';

const Frame = styled.form<{ $row: boolean }>`
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
`;
const Trouble = styled.p`
  color: ${({ theme }) => theme.bad};
  font-size: 12px;
  max-width: 46ch;
`;

const Context = createContext<SchemaForm<FieldValues> | null>(null);

/** The form that a field stands in. */
export function useFormHere(): SchemaForm<FieldValues> {
  const form = useContext(Context);
  if (form === null) throw new Error('A field of a form stands outside of one.');
  return form;
}

interface Props<V extends FieldValues> {
  /** What the form is for, as a screen reader says it. */
  label: string;
  form: SchemaForm<V>;
  /** What its one button says. */
  action: string;
  /** Is told the values once they fit the schema. */
  onSend: (values: V) => void | Promise<void>;
  busy?: boolean;
  /** Fields beside each other, with the button at the end. */
  row?: boolean;
  /** One of several things that can be done here, not the main one. */
  quiet?: boolean;
  /** Further buttons beside the one that sends. */
  beside?: ReactNode;
  children: ReactNode;
}

/**
 * Fields, and the one button that sends them. Enter sends from any field; the first fault is focused; what is wrong and
 * belongs to no field stands beside the button.
 */
export function Form<V extends FieldValues>({
  label,
  form,
  action,
  onSend,
  busy = false,
  row = false,
  quiet = false,
  beside,
  children,
}: Props<V>): ReactNode {
  const { handleSubmit, formState } = form.control;
  const trouble = formState.errors.root?.message;
  return (
    <Context value={form as unknown as SchemaForm<FieldValues>}>
      <Frame
        $row={row}
        aria-label={label}
        noValidate
        onSubmit={(event) => {
          event.stopPropagation();
          void handleSubmit(onSend)(event);
        }}
      >
        {children}
        <Foot>
          {/*
            Takes the focus only once the press is over: a fault told as a field is left would move it from under the
            pointer, and keys typed after a press (`/`, `Ctrl+Z`) are not for the field.
          */}
          <Button
            type="submit"
            $tone={quiet ? undefined : 'primary'}
            isDisabled={busy}
            preventFocusOnPress
            onClick={({ detail, currentTarget }) => {
              // Enter in a field clicks it too, as no pointer does (0 clicks).
              if (detail > 0) currentTarget.focus();
            }}
          >
            {action}
          </Button>
          {beside}
          {trouble !== undefined && <Trouble role="alert">{trouble}</Trouble>}
        </Foot>
      </Frame>
    </Context>
  );
}

/** What a field of the form is called, what is wrong with it, and what stands in it. */
export function useFieldHere(name: string): {
  label: string;
  help: string | undefined;
  error: string | null;
} {
  const form = useFormHere();
  const { label, unit, help } = form.notes(name);
  const { error } = form.control.getFieldState(name, form.control.formState);
  return {
    label: unit === undefined ? label : `${label} (${unit})`,
    help,
    // What the model or the server said is a sentence of its own.
    error: error?.type === 'refused' ? (error.message ?? null) : faultText(label, error?.message),
  };
}
