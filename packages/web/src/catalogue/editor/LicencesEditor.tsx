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

const wrongPrice = (text: string): string | null =>
  text.trim() === '' || readMoney(text, null) !== null ? null : 'No amount such as 45.00.';
/** Why a text is no term of a licence; empty is for good. */
const wrongMonths = (text: string): string | null =>
  text.trim() === '' || /^([1-9]\d?|1[01]\d|120)$/.test(text.trim()) ? null : 'Not 1 to 120 months.';

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
  const [months, setMonths] = useState<Readonly<Record<number, string>>>({});
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
            value={months[at] ?? (licence.termMonths == null ? '' : String(licence.termMonths))}
            error={wrongMonths(months[at] ?? '')}
            onChange={(text) => {
              setMonths((before) => ({ ...before, [at]: text }));
              const good = text.trim() !== '' && wrongMonths(text) === null;
              set(at, { termMonths: good ? Number(text) : null });
            }}
          />
          <Field
            label="Price"
            width={92}
            value={prices[at] ?? priceText(licence.priceMinor)}
            error={wrongPrice(prices[at] ?? '')}
            onChange={(text) => {
              setPrices((before) => ({ ...before, [at]: text }));
              set(at, { priceMinor: readMoney(text, null)?.priceMinor ?? null });
            }}
          />
          <Button
            $tone="quiet"
            onPress={() => {
              setPrices({});
              setMonths({});
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
