import { applyChanges } from '@visograph/core/change';
import { editHeld } from '@visograph/core/commands';
import { compareNames, titleOf, type FactField, type Kind, type Row } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { Picker } from '../kit/choice.tsx';

/** Of so many rows those that may stand in a field are looked for; of more one is gone to and not chosen. */
const mostOffered = 400;

/** Another row that a field refers to, chosen among those that it may be: what the model refuses is not offered. */
export function ReferenceFact({
  kind,
  row,
  fact,
  value,
}: {
  kind: Kind;
  row: Row;
  fact: FactField;
  value: string | null;
}): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const { to, field, optional } = fact;
  const options = useMemo(() => {
    if (to === null) return [];
    const fits = (id: string): boolean =>
      id === value || applyChanges(network, editHeld(network, kind, row, { [field]: id }).changes).ok;
    return [...network.all(to)]
      .filter(({ id }) => fits(id))
      .map(({ id }) => ({ id, text: titleOf(network, to, id) }))
      .sort((a, b) => compareNames(a.text, b.text));
  }, [network, kind, row, field, to, value]);
  return (
    <Picker
      label={fact.label}
      hideLabel
      width={190}
      value={value ?? ''}
      options={optional ? [{ id: '', text: 'none' }, ...options] : options}
      onChange={(id) => void commit(editHeld(network, kind, row, { [field]: id === '' ? null : id }))}
    />
  );
}

/** Whether there are few enough rows of a kind to choose among. */
export const canChooseAmong = (count: number): boolean => count > 0 && count <= mostOffered;
