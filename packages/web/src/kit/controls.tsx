import type { ReactNode, Ref } from 'react';
import {
  Button as AriaButton,
  FieldError,
  Input,
  Label,
  Popover,
  Text,
  TextField as AriaTextField,
} from 'react-aria-components';
import { css, styled } from 'styled-components';
import { mono } from '../theme/mono.ts';

export const focusRing = css`
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: 1px;
  }
`;

/** A button; `$tone="primary"` for the one main action of a view, `quiet` for those without a frame. */
export const Button = styled(AriaButton)<{ $tone?: 'primary' | 'quiet' }>`
  font: inherit;
  height: 28px;
  padding: 0 11px;
  border-radius: 3px;
  white-space: nowrap;
  cursor: default;
  border: 1px solid
    ${({ theme, $tone }) => ($tone === 'primary' ? theme.accent : $tone === 'quiet' ? 'transparent' : theme.rule)};
  background: ${({ theme, $tone }) => ($tone === 'primary' ? theme.accent : $tone === 'quiet' ? 'transparent' : theme.surface)};
  color: ${({ theme, $tone }) => ($tone === 'primary' ? theme.accentInk : theme.ink)};
  &[data-hovered] {
    border-color: ${({ theme }) => theme.accent};
  }
  &[data-pressed] {
    filter: brightness(0.94);
  }
  &[data-disabled] {
    opacity: 0.5;
  }
  ${focusRing}
`;

export const Keycap = styled.kbd`
  ${mono}
  font-size: 11px;
  margin-left: 6px;
  opacity: 0.75;
`;

const fieldLabel = css`
  color: ${({ theme }) => theme.inkSoft};
  font-size: 12px;
`;
/** How what is typed into or opened looks. */
export const control = css`
  font: inherit;
  height: 28px;
  width: 100%;
  padding: 0 8px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  color: ${({ theme }) => theme.ink};
  &::placeholder {
    color: ${({ theme }) => theme.inkSoft};
  }
  &[data-focused] {
    border-color: ${({ theme }) => theme.accent};
    outline: 1px solid ${({ theme }) => theme.accent};
  }
  &[data-invalid] {
    border-color: ${({ theme }) => theme.bad};
  }
`;

const FieldFrame = styled(AriaTextField)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
`;
export const FieldLabel = styled(Label)`
  ${fieldLabel}
`;
export const FieldInput = styled(Input)`
  ${control}
`;
const MonoInput = styled(FieldInput)`
  ${mono}
`;
export const ErrorText = styled(FieldError)`
  color: ${({ theme }) => theme.bad};
  font-size: 12px;
`;
const HelpText = styled(Text)`
  color: ${({ theme }) => theme.inkSoft};
  font-size: 12px;
`;

interface FieldProps {
  label: string;
  /** The label is read out and not shown: what it is stands beside it. */
  hideLabel?: boolean;
  value: string;
  onChange: (value: string) => void;
  type?: string;
  name?: string;
  mono?: boolean;
  required?: boolean;
  autoFocus?: boolean;
  error?: string | null;
  help?: string;
  autoComplete?: string;
  width?: number;
  readOnly?: boolean;
  placeholder?: string;
  onBlur?: () => void;
  inputRef?: Ref<HTMLInputElement>;
}

export function Field({
  label,
  hideLabel = false,
  value,
  onChange,
  type = 'text',
  name,
  mono: inMono = false,
  required = false,
  autoFocus = false,
  error = null,
  help,
  autoComplete,
  width,
  readOnly = false,
  placeholder,
  onBlur,
  inputRef,
}: FieldProps): ReactNode {
  const Control = inMono ? MonoInput : FieldInput;
  return (
    <FieldFrame
      value={value}
      onChange={onChange}
      type={type}
      name={name}
      isRequired={required}
      autoFocus={autoFocus}
      isInvalid={error !== null}
      autoComplete={autoComplete}
      isReadOnly={readOnly}
      onBlur={onBlur}
      style={{ width }}
      aria-label={hideLabel ? label : undefined}
    >
      {!hideLabel && <FieldLabel>{label}</FieldLabel>}
      <Control ref={inputRef} placeholder={placeholder} />
      {help !== undefined && help !== '' && <HelpText slot="description">{help}</HelpText>}
      <ErrorText>{error}</ErrorText>
    </FieldFrame>
  );
}

export const Floating = styled(Popover)`
  background: ${({ theme }) => theme.surface};
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  box-shadow: 0 6px 20px rgb(0 0 0 / 16%);
  min-width: var(--trigger-width);
  max-width: 460px;
  overflow: auto;
`;
