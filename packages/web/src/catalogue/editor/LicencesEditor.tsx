import type { CatalogueModel } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { Choice } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';

type Licence = CatalogueModel['licences'][number];

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-end;
  margin-bottom: 6px;
`;

interface Props {
  licences: readonly Licence[];
  onChange: (licences: Licence[]) => void;
}

/** The licences a model needs: one for each device, or one for each device it manages. */
export function LicencesEditor({ licences, onChange }: Props): ReactNode {
  const set = (at: number, change: Partial<Licence>): void =>
    onChange(licences.map((one, index) => (index === at ? { ...one, ...change } : one)));
  return (
    <>
      {licences.map((licence, at) => (
        <Line key={at} role="group" aria-label={`Licence ${at + 1}`}>
          <Field label="Licence" value={licence.name} width={220} onChange={(name) => set(at, { name })} />
          <Choice
            label="One for each"
            width={150}
            value={licence.per}
            options={['device', 'managed device'].map((per) => ({ id: per, text: per }))}
            onChange={(next) => set(at, { per: next === 'managed device' ? next : 'device' })}
          />
          <Button $tone="quiet" onPress={() => onChange(licences.filter((_, index) => index !== at))}>
            Remove
          </Button>
        </Line>
      ))}
      <div>
        <Button onPress={() => onChange([...licences, { name: 'Licence', per: 'device', priceMinor: null }])}>
          Add licence
        </Button>
      </div>
    </>
  );
}
