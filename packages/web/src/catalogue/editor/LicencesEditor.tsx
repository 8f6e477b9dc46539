import {
  licensedFeatures,
  pluralOf,
  readMoney,
  roleCodes,
  roles,
  type Licence,
  type Role,
} from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { Choice } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';

type Manages = Role | 'itself';
type Feature = (typeof licensedFeatures)[number] | 'always';

const priceText = (minor: number | null): string => (minor === null ? '' : (minor / 100).toFixed(2));

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
  // As they are typed: an amount is read while it is not whole yet.
  const [prices, setPrices] = useState<Readonly<Record<number, string>>>({});
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
          {licence.per === 'managed device' ? (
            <Choice<Manages>
              label="It manages"
              width={150}
              value={licence.manages ?? 'itself'}
              options={[
                { id: 'itself', text: 'is managed itself' },
                ...roleCodes.map((id) => ({ id, text: pluralOf(id, roles[id].label) })),
              ]}
              onChange={(next) => set(at, { manages: next === 'itself' ? null : next })}
            />
          ) : (
            <Choice<Feature>
              label="Needed for"
              width={130}
              value={licence.feature ?? 'always'}
              options={[
                { id: 'always', text: 'always' },
                ...licensedFeatures.map((id) => ({ id, text: id })),
              ]}
              onChange={(next) => set(at, { feature: next === 'always' ? null : next })}
            />
          )}
          <Field
            label="Months"
            width={66}
            value={licence.termMonths == null ? '' : String(licence.termMonths)}
            onChange={(text) => set(at, { termMonths: /^\d{1,3}$/.test(text.trim()) ? Number(text) : null })}
          />
          <Field
            label="Price"
            width={92}
            value={prices[at] ?? priceText(licence.priceMinor)}
            onChange={(text) => {
              setPrices((before) => ({ ...before, [at]: text }));
              set(at, { priceMinor: readMoney(text, null)?.priceMinor ?? null });
            }}
          />
          <Button
            $tone="quiet"
            onPress={() => {
              setPrices({});
              onChange(licences.filter((_, index) => index !== at));
            }}
          >
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
