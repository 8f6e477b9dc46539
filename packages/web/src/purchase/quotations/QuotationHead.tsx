import { quotationSchema, type Network, type Quotation } from '@visograph/core/model';
import { changeQuotation, type Totals } from '@visograph/core/purchase';
import { useMemo, useState, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Picker } from '../../kit/choice.tsx';
import { DateIn, LinesIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { CostChart } from '../CostChart.tsx';
import { Aside, Pair } from '../layout.tsx';
import { useKeep } from '../../data/useDo.ts';

const { number, title, quotedOn, validUntil, customer, address, contact, currency, terms } =
  quotationSchema.shape;
const headSchema = z.object({
  ...{ number: trimmed(number), title: trimmed(title), customer, address, contact },
  ...{ quotedOn, validUntil, currency, terms },
});

/** Who a quotation is for and until when, its rates and drawings, and what costs how much. */
export function QuotationHead({
  row,
  network,
  writes,
  totals,
}: {
  row: Quotation;
  network: Network;
  writes: boolean;
  totals: Totals;
}): ReactNode {
  const { view } = useProject();
  const keep = useKeep();
  const now = {
    ...{ number: row.number, title: row.title, customer: row.customer, address: row.address },
    ...{ contact: row.contact, quotedOn: row.quotedOn, validUntil: row.validUntil },
    ...{ currency: row.currency, terms: row.terms },
  };
  const form = useSchemaForm(headSchema, now, now);
  const change = (fields: Partial<Omit<Quotation, 'id' | 'status' | 'revision'>>): string | null =>
    keep(changeQuotation(view.network, row, fields));
  const parts = row.sections.map((section, at) => ({
    name: section.name,
    minor: totals.sections[at]?.netMinor ?? 0,
  }));
  return (
    <Aside aria-label="About the quotation">
      <Form
        label="About the quotation"
        form={form}
        action="Set"
        readOnly={!writes}
        onSend={(values) => {
          const message = change(values);
          if (message !== null) form.refuse([{ field: null, message }]);
        }}
      >
        <TextIn name="number" />
        <TextIn name="title" />
        <TextIn name="customer" nullable />
        <LinesIn name="address" />
        <TextIn name="contact" nullable />
        <Pair>
          <DateIn name="quotedOn" />
          <DateIn name="validUntil" />
          <TextIn name="currency" width={80} />
        </Pair>
        <LinesIn name="terms" rows={5} />
      </Form>
      <Rates row={row} writes={writes} onChange={(rates) => change({ rates })} />
      <Drawings row={row} network={network} writes={writes} onChange={(drawings) => change({ drawings })} />
      {parts.some(({ minor }) => minor > 0) && <CostChart parts={parts} currency={row.currency} />}
    </Aside>
  );
}

function Rates({
  row,
  writes,
  onChange,
}: {
  row: Quotation;
  writes: boolean;
  onChange: (rates: Quotation['rates']) => string | null;
}): ReactNode {
  const [currencyCode, setCurrencyCode] = useState('');
  const [rate, setRate] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  if (!writes && row.rates.length === 0) return null;
  const add = (): void => {
    const next = { currency: currencyCode.trim().toUpperCase(), rate: rate.trim().replace(',', '.') };
    const problem = onChange([...row.rates, next]);
    setWhy(problem);
    if (problem === null) setCurrencyCode('');
  };
  return (
    <section aria-label="Fixed rates">
      <h3>Fixed rates</h3>
      {row.rates.map((one, at) => (
        <Pair key={one.currency}>
          <Hint style={{ flex: 1 }}>{`1 ${one.currency} is ${one.rate} ${row.currency}`}</Hint>
          {writes && (
            <Button
              $tone="quiet"
              aria-label={`Take out the rate of ${one.currency}`}
              onPress={() => setWhy(onChange(row.rates.filter((_other, index) => index !== at)))}
            >
              Take out
            </Button>
          )}
        </Pair>
      ))}
      {writes && (
        <Pair>
          <Field label="1 of" width={70} value={currencyCode} onChange={setCurrencyCode} />
          <Field label={`Is, in ${row.currency}`} width={100} value={rate} onChange={setRate} />
          <Button onPress={add}>Add</Button>
        </Pair>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </section>
  );
}

function Drawings({
  row,
  network,
  writes,
  onChange,
}: {
  row: Quotation;
  network: Network;
  writes: boolean;
  onChange: (drawings: string[]) => string | null;
}): ReactNode {
  const sheets = useMemo(
    () => [...network.all('sheet')].map(({ name }) => name).sort((a, b) => a.localeCompare(b, 'en')),
    [network],
  );
  if (!writes && row.drawings.length === 0) return null;
  const free = sheets.filter((name) => !row.drawings.includes(name));
  return (
    <section aria-label="Drawings printed with it">
      <h3>Drawings printed with it</h3>
      {row.drawings.map((name) => (
        <Pair key={name}>
          <Hint style={{ flex: 1 }}>
            {sheets.includes(name) ? name : `${name}: no longer there, left out`}
          </Hint>
          {writes && (
            <Button
              $tone="quiet"
              aria-label={`Take out the drawing ${name}`}
              onPress={() => onChange(row.drawings.filter((other) => other !== name))}
            >
              Take out
            </Button>
          )}
        </Pair>
      ))}
      {writes && free.length > 0 && (
        <Picker
          label="Add a sheet"
          options={free.map((name) => ({ id: name, text: name }))}
          value={null}
          onChange={(name) => name !== null && onChange([...row.drawings, name])}
        />
      )}
    </section>
  );
}
