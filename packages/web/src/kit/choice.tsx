import { useMemo, useState, type ReactNode } from 'react';
import {
  Button as AriaButton,
  ComboBox,
  ListBox,
  ListBoxItem,
  Select as AriaSelect,
  SelectValue,
  type Key,
} from 'react-aria-components';
import { styled } from 'styled-components';
import { mono } from '../theme/mono.ts';
import { control, ErrorText, FieldInput, FieldLabel, Floating, focusRing } from './controls.tsx';

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
        <SelectValue>
          {({ selectedText }) => (selectedText === null || selectedText === '' ? 'none' : selectedText)}
        </SelectValue>
        <Chevron />
      </SelectButton>
      <ErrorText>{error}</ErrorText>
      <Floating>
        <Options items={options}>{optionItem}</Options>
      </Floating>
    </SelectFrame>
  );
}
