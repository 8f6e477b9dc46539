import { parseDate, type CalendarDate } from '@internationalized/date';
import type { ReactNode } from 'react';
import { DateField, DateInput, DateSegment, FieldError, I18nProvider, Label } from 'react-aria-components';
import { styled } from 'styled-components';
import { mono } from '../theme/mono.ts';

const Frame = styled(DateField<CalendarDate>)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  p {
    color: ${({ theme }) => theme.bad};
    font-size: 12px;
  }
`;
const Called = styled(Label)`
  color: ${({ theme }) => theme.inkSoft};
  font-size: 12px;
`;
const Segments = styled(DateInput)<{ $plain: boolean }>`
  ${mono}
  display: inline-flex;
  align-items: center;
  height: ${({ $plain }) => ($plain ? '24px' : '28px')};
  padding: ${({ $plain }) => ($plain ? '0 5px' : '0 8px')};
  margin-left: ${({ $plain }) => ($plain ? '-6px' : '0')};
  border: 1px solid ${({ theme, $plain }) => ($plain ? 'transparent' : theme.rule)};
  border-radius: 3px;
  background: ${({ theme, $plain }) => ($plain ? 'transparent' : theme.surface)};
  color: ${({ theme }) => theme.ink};
  &[data-hovered] {
    border-color: ${({ theme }) => theme.rule};
  }
  &[data-focus-within] {
    border-color: ${({ theme }) => theme.accent};
    outline: 1px solid ${({ theme }) => theme.accent};
  }
  &[data-invalid] {
    border-color: ${({ theme }) => theme.bad};
  }
  [data-placeholder] {
    color: ${({ theme }) => theme.inkSoft};
  }
  [data-focused] {
    background: ${({ theme }) => theme.accentWash};
    outline: none;
    border-radius: 2px;
  }
`;

/** A day as rows hold it, year-month-day; null where it is none. */
export function dateOf(value: unknown): CalendarDate | null {
  try {
    return typeof value === 'string' ? parseDate(value) : null;
  } catch {
    return null;
  }
}

interface Props {
  label: string;
  hideLabel?: boolean;
  value: CalendarDate | null;
  onChange: (date: CalendarDate | null) => void;
  onBlur?: () => void;
  readOnly?: boolean;
  /** Without a frame until it is pointed at, as facts of a record are. */
  plain?: boolean;
  error?: string | null;
}

/** A day, typed as year-month-day (ISO 8601) whatever the machine's own habit: each part by its figures or the arrow keys. */
export function DateEntry({
  label,
  hideLabel = false,
  value,
  onChange,
  onBlur,
  readOnly = false,
  plain = false,
  error = null,
}: Props): ReactNode {
  return (
    // English as written in Canada has a day as ISO 8601 has it.
    <I18nProvider locale="en-CA">
      <Frame
        aria-label={hideLabel ? label : undefined}
        value={value}
        onChange={onChange}
        onBlur={onBlur}
        isReadOnly={readOnly}
        isInvalid={error !== null}
        granularity="day"
        shouldForceLeadingZeros
      >
        {!hideLabel && <Called>{label}</Called>}
        <Segments $plain={plain}>{(segment) => <DateSegment segment={segment} />}</Segments>
        <FieldError elementType="p">{error}</FieldError>
      </Frame>
    </I18nProvider>
  );
}
