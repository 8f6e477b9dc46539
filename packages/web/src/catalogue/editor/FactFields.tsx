import {
  airflows,
  grouped,
  media,
  rackParts,
  roleCodes,
  roles,
  type CatalogueModel,
} from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { Controller } from 'react-hook-form';
import { Field } from '../../kit/controls.tsx';
import { ChoiceIn, DateIn, NumberIn, TextIn, TickIn } from '../../kit/form/fields.tsx';
import { useFieldHere, useFormHere } from '../../kit/form/Form.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { Line } from './parts.tsx';

const plain = (words: readonly string[]) => words.map((word) => ({ id: word, text: word }));

/** What a model is called, and what it is. */
export function NameFields({ form }: { form: CatalogueModel['form'] }): ReactNode {
  return (
    <Line>
      <TextIn name="maker" nullable width={120} help="" />
      <TextIn name="name" width={190} autoFocus />
      <TextIn name="partNumber" nullable width={130} />
      {form === 'device' && (
        <>
          <ChoiceIn
            name="role"
            width={150}
            options={roleCodes.map((role) => ({ id: role, text: roles[role].label, detail: role }))}
          />
          <ChoiceIn name="part" width={100} none="none" options={plain(rackParts)} />
        </>
      )}
      {form === 'module' && <TextIn name="moduleFamily" nullable width={170} label="Fits slots of family" />}
      {form === 'cable' && <ChoiceIn name="medium" width={120} options={plain(media)} />}
    </Line>
  );
}

/** Height, mass, power and air of hardware. */
export function SizeFields({ model }: { model: CatalogueModel }): ReactNode {
  const whole = model.form === 'device';
  return (
    <>
      <Line>
        {whole && <NumberIn name="units" width={72} help="" />}
        <NumberIn name="massKg" width={76} />
        <NumberIn name="typicalPowerW" width={112} />
        <NumberIn name="maxPowerW" width={128} />
        <NumberIn name="capacityW" label="Passes on (W)" help="" width={92} />
        <NumberIn name="inletsNeeded" help="" width={90} />
        <ChoiceIn name="airflow" width={126} none="not known" options={plain(airflows)} />
        <NumberIn name="poeBudgetW" width={104} />
        <NumberIn name="poeClass" label="PoE class drawn" help="" width={100} />
      </Line>
      {whole && (
        <Line>
          <TickIn name="fillsBothFaces" />
          <TickIn name="halfWidth" />
          {model.maxPowerW !== null && (
            <Hint>{`Heat ${grouped(model.maxPowerW * 3.412142)} BTU/h at most`}</Hint>
          )}
        </Line>
      )}
    </>
  );
}

const minor = (text: string): unknown => {
  const price = Number(text.trim().replace(',', '.'));
  if (text.trim() === '') return null;
  return Number.isFinite(price) ? Math.round(price * 100) : text;
};

/** A price as it is said, 12.50, kept as minor units; a currency stands by it from the first figure on. */
function PriceField({ currency }: { currency: string | null }): ReactNode {
  const { control } = useFormHere();
  const field = useFieldHere('priceMinor');
  const held: unknown = control.getValues('priceMinor');
  const [typed, setTyped] = useState(typeof held === 'number' ? String(held / 100) : '');
  return (
    <Controller
      name="priceMinor"
      control={control.control}
      render={({ field: { onChange, onBlur, ref } }) => (
        <Field
          {...field}
          inputRef={ref}
          mono
          width={100}
          value={typed}
          onBlur={onBlur}
          onChange={(text) => {
            setTyped(text);
            onChange(minor(text));
            if (currency === null && text !== '') control.setValue('currency', 'EUR');
          }}
        />
      )}
    />
  );
}

/** What it costs, and until when it is sold and supported. */
export function BuyingFields({ currency }: { currency: string | null }): ReactNode {
  return (
    <Line>
      <PriceField currency={currency} />
      <TextIn name="currency" nullable width={76} />
      <DateIn name="endOfSale" />
      <DateIn name="endOfSupport" />
      <TextIn name="replacedBy" nullable />
    </Line>
  );
}
