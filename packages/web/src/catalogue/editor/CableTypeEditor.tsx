import { connectorNames, connectors, polarities, type CatalogueModel } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { Choice } from '../../kit/choice.tsx';
import { Field } from '../../kit/controls.tsx';

export const Fields = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
`;
const Check = styled.label`
  display: flex;
  gap: 6px;
  align-items: center;
  height: 28px;
`;

/** Numbers separated by semicolons or spaces, a comma being a decimal sign: "0,5; 1; 2". Null: not numbers. */
export function numberList(text: string): number[] | null {
  const parts = text.split(/[;\s]+/).filter((part) => part !== '');
  const numbers = parts.map((part) => Number(part.replace(',', '.')));
  return numbers.every((number) => Number.isFinite(number)) ? numbers : null;
}

/** A text that stands for a value; what cannot be read stays written and is told below. */
export function ParsedField<T>({
  label,
  start,
  parse,
  onChange,
  width,
  help,
}: {
  label: string;
  start: string;
  parse: (text: string) => T | null;
  onChange: (value: T) => void;
  width: number;
  help: string;
}): ReactNode {
  const [text, setText] = useState(start);
  const wrong = parse(text) === null;
  return (
    <Field
      label={label}
      mono
      width={width}
      value={text}
      help={wrong ? undefined : help}
      error={wrong ? `“${text}” cannot be read: ${help}` : null}
      onChange={(next) => {
        setText(next);
        const value = parse(next);
        if (value !== null) onChange(value);
      }}
    />
  );
}

export const wholeNumber = (text: string): number | null => (/^\d+$/.test(text.trim()) ? Number(text) : null);

const plugs = connectorNames.map((name) => ({ id: name, text: connectors[name].label }));

/** What makes a cable type: its plugs and how many, strands, colour, and the lengths and prices it is sold in. */
export function CableTypeEditor({
  model,
  onChange,
}: {
  model: CatalogueModel;
  onChange: (change: Partial<CatalogueModel>) => void;
}): ReactNode {
  const [a, b] = model.ends ?? ['RJ45', 'RJ45'];
  const plug = (side: 'A' | 'B', now: string | undefined): ReactNode => (
    <Choice
      label={`${side} plug goes into`}
      width={140}
      value={now ?? 'RJ45'}
      options={plugs}
      onChange={(next) => {
        const name = connectorNames.find((one) => one === next);
        if (name !== undefined && a !== undefined && b !== undefined)
          onChange({ ends: side === 'A' ? [name, b] : [a, name] });
      }}
    />
  );
  return (
    <>
      <h2>Plugs and strands</h2>
      <Fields>
        {plug('A', a)}
        <ParsedField
          label="Plugs at A"
          start={String(model.legsA)}
          parse={wholeNumber}
          onChange={(legsA) => onChange({ legsA })}
          width={80}
          help="how many"
        />
        {plug('B', b)}
        <ParsedField
          label="Plugs at B"
          start={String(model.legsB)}
          parse={wholeNumber}
          onChange={(legsB) => onChange({ legsB })}
          width={80}
          help="how many"
        />
        <ParsedField
          label="Strands"
          start={model.strands === null ? '' : String(model.strands)}
          parse={(text) =>
            text.trim() === ''
              ? { strands: null }
              : wholeNumber(text) === null
                ? null
                : { strands: wholeNumber(text) }
          }
          onChange={(change) => onChange(change)}
          width={80}
          help="of fibre"
        />
        <Choice
          label="Polarity"
          width={110}
          value={model.polarity}
          options={polarities.map((one) => ({ id: one, text: one }))}
          onChange={(next) => onChange({ polarity: polarities.find((one) => one === next) ?? 'straight' })}
        />
        <Check>
          <input
            type="checkbox"
            checked={model.crossed}
            onChange={(event) => onChange({ crossed: event.target.checked })}
          />
          Crossed
        </Check>
        <ParsedField
          label="Jacket colour"
          start={model.jacket ?? ''}
          parse={(text) =>
            text === '' ? { jacket: null } : /^#[0-9a-f]{6}$/i.test(text) ? { jacket: text } : null
          }
          onChange={(change) => onChange(change)}
          width={110}
          help="such as #35A6A0"
        />
      </Fields>
      <h2>Lengths it is sold in</h2>
      <Fields>
        <ParsedField
          label="Stock lengths, m"
          start={model.stockLengthsM.join('; ')}
          parse={numberList}
          onChange={(stockLengthsM) => onChange({ stockLengthsM })}
          width={280}
          help="separated by semicolons"
        />
        <ParsedField
          label="Their prices"
          start={model.stockPricesMinor.map((price) => price / 100).join('; ')}
          parse={numberList}
          onChange={(prices) =>
            onChange({ stockPricesMinor: prices.map((price) => Math.round(price * 100)) })
          }
          width={280}
          help="one for each length, or none"
        />
      </Fields>
    </>
  );
}
