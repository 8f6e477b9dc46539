import { useMemo, useState, type ReactNode, type Ref } from 'react';
import {
  Button as AriaButton,
  ComboBox,
  FieldError,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
  Select as AriaSelect,
  SelectValue,
  Text,
  TextField as AriaTextField,
  type Key,
} from 'react-aria-components';
import { css, styled } from 'styled-components';
import { mono } from '../theme/mono.ts';

const focusRing = css`
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
const control = css`
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
const FieldLabel = styled(Label)`
  ${fieldLabel}
`;
export const FieldInput = styled(Input)`
  ${control}
`;
const MonoInput = styled(FieldInput)`
  ${mono}
`;
const ErrorText = styled(FieldError)`
  color: ${({ theme }) => theme.bad};
  font-size: 12px;
`;
const HelpText = styled(Text)`
  color: ${({ theme }) => theme.inkSoft};
  font-size: 12px;
`;

interface FieldProps {
  label: string;
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
  onBlur?: () => void;
  inputRef?: Ref<HTMLInputElement>;
}

export function Field({
  label,
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
    >
      <FieldLabel>{label}</FieldLabel>
      <Control ref={inputRef} />
      {help !== undefined && <HelpText slot="description">{help}</HelpText>}
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
const Options = styled(ListBox<Option>)`
  padding: 3px;
  outline: none;
  max-height: 300px;
  overflow: auto;
`;
const OptionItem = styled(ListBoxItem)`
  display: flex;
  gap: 10px;
  justify-content: space-between;
  align-items: baseline;
  padding: 4px 8px;
  border-radius: 2px;
  cursor: default;
  outline: none;
  &[data-focused],
  &[data-selected] {
    background: ${({ theme }) => theme.accentWash};
  }
  &[data-disabled] {
    opacity: 0.55;
  }
  small {
    ${mono}
    font-size: 11px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const PickerFrame = styled.div`
  display: flex;
  min-width: 0;
`;
const Opener = styled(AriaButton)`
  font: inherit;
  border: 1px solid ${({ theme }) => theme.rule};
  border-left: 0;
  border-radius: 0 3px 3px 0;
  background: ${({ theme }) => theme.band};
  color: ${({ theme }) => theme.inkSoft};
  width: 22px;
  padding: 0;
  ${focusRing}
`;
const ComboFrame = styled(ComboBox)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
  input {
    border-radius: 3px 0 0 3px;
  }
`;
const SelectFrame = styled(AriaSelect)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
`;
const SelectButton = styled(AriaButton)`
  ${control}
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  text-align: left;
  > span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  > svg {
    flex: none;
  }
  ${focusRing}
`;

export interface Option<I extends string = string> {
  id: I;
  text: string;
  detail?: string;
  disabled?: boolean;
}

const optionItem = (option: Option): ReactNode => (
  <OptionItem id={option.id} textValue={option.text}>
    <span>{option.text}</span>
    {option.detail !== undefined && <small>{option.detail}</small>}
  </OptionItem>
);

interface PickerProps {
  label: string;
  options: readonly Option[];
  value: string | null;
  onChange: (id: string | null) => void;
  width?: number;
  autoFocus?: boolean;
  placeholder?: string;
  error?: string | null;
}

/** Triangle that says: this opens. */
export function Chevron(): ReactNode {
  return (
    <svg width="9" height="6" viewBox="0 0 9 6" aria-hidden="true">
      <path d="M0.5 0.5H8.5L4.5 5.5Z" fill="currentColor" />
    </svg>
  );
}

/** More options than this are not listed at once: typing narrows them. */
const mostListed = 150;

/** Choice by typing a part of the text or of its detail; forgives order and case of words. */
export function Picker({
  label,
  options,
  value,
  onChange,
  width,
  autoFocus = false,
  placeholder,
  hideLabel = false,
  error = null,
}: PickerProps & { hideLabel?: boolean }): ReactNode {
  const chosen = options.find((option) => option.id === value)?.text ?? '';
  const [typed, setTyped] = useState(chosen);
  const [last, setLast] = useState(chosen);
  if (last !== chosen) {
    setLast(chosen);
    setTyped(chosen);
  }
  const listed = useMemo(() => {
    const words = typed === chosen ? [] : typed.toLowerCase().split(/\s+/);
    const fits = (option: Option): boolean => {
      const text = `${option.text} ${option.detail ?? ''}`.toLowerCase();
      return words.every((word) => text.includes(word));
    };
    return options.filter(fits).slice(0, mostListed);
  }, [options, typed, chosen]);
  return (
    <ComboFrame
      items={listed}
      selectedKey={value}
      onSelectionChange={(key: Key | null) => key !== null && onChange(String(key))}
      inputValue={typed}
      onInputChange={setTyped}
      menuTrigger="focus"
      allowsEmptyCollection
      style={{ width }}
      aria-label={hideLabel ? label : undefined}
      onBlur={() => setTyped(chosen)}
      isInvalid={error !== null}
    >
      {!hideLabel && <FieldLabel>{label}</FieldLabel>}
      <PickerFrame>
        <FieldInput
          autoFocus={autoFocus}
          placeholder={placeholder}
          onFocus={(event) => event.currentTarget.select()}
        />
        <Opener aria-label={`Open ${label}`}>
          <Chevron />
        </Opener>
      </PickerFrame>
      <ErrorText>{error}</ErrorText>
      <Floating>
        <Options items={listed} renderEmptyState={() => <NothingFits>Nothing contains that.</NothingFits>}>
          {optionItem}
        </Options>
      </Floating>
    </ComboFrame>
  );
}
const NothingFits = styled.p`
  padding: 5px 8px;
  color: ${({ theme }) => theme.inkSoft};
`;

interface ChoiceProps<I extends string> {
  label: string;
  hideLabel?: boolean;
  options: readonly Option<I>[];
  value: I | null;
  onChange: (id: I) => void;
  width?: number;
  error?: string | null;
}

/** Choice from a short list. */
export function Choice<I extends string>({
  label,
  options,
  value,
  onChange,
  width,
  hideLabel = false,
  error = null,
}: ChoiceProps<I>): ReactNode {
  return (
    <SelectFrame
      isInvalid={error !== null}
      selectedKey={value}
      onSelectionChange={(key: Key | null) => {
        const chosen = options.find((option) => option.id === key);
        if (chosen !== undefined) onChange(chosen.id);
      }}
      style={{ width }}
      aria-label={hideLabel ? label : undefined}
      disabledKeys={options.filter((option) => option.disabled).map((option) => option.id)}
    >
      {!hideLabel && <FieldLabel>{label}</FieldLabel>}
      <SelectButton>
        <SelectValue>{({ selectedText }) => selectedText ?? 'None'}</SelectValue>
        <Chevron />
      </SelectButton>
      <ErrorText>{error}</ErrorText>
      <Floating>
        <Options items={options}>{optionItem}</Options>
      </Floating>
    </SelectFrame>
  );
}
