import type { ReactNode } from 'react';
import { Input, SearchField } from 'react-aria-components';
import { FieldInput } from './controls.tsx';

/** A narrow field that keeps only the rows which contain its text. */
export function Filter({
  label = 'Filter rows',
  value,
  onChange,
}: {
  label?: string;
  value: string;
  onChange: (value: string) => void;
}): ReactNode {
  return (
    <SearchField aria-label={label} value={value} onChange={onChange} style={{ width: 170 }}>
      <FieldInput as={Input} placeholder={label} />
    </SearchField>
  );
}
