import {
  partSections,
  partsListSchema,
  partStates,
  placePath,
  readMoney,
  roleCodes,
  roles,
  servicePer,
  type FurtherPart,
  type PartsList,
  type ServiceRule,
  type SpareRule,
} from '@visograph/core/model';
import { changePartsList } from '@visograph/core/purchase';
import { useMemo, useState, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { Choice, Picker } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { ChoiceIn, LinesIn, NumberIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { Aside, Pair } from '../layout.tsx';
import { useKeep } from '../../data/useDo.ts';

const { name, kitTimes, counts, currency, notes } = partsListSchema.shape;
const headSchema = z.object({ name: trimmed(name), counts, kitTimes, currency, notes });

/** Text of an amount in minor units, as it is typed. */
const typedMoney = (minor: number | null): string => (minor === null ? '' : (minor / 100).toFixed(2));

const byText = (a: { text: string }, b: { text: string }): number => a.text.localeCompare(b.text, 'en');

/** What a list is made of: place or kit, what it counts, spares, services, further parts. Each set is one step. */
export function PartsListFacts({ list }: { list: PartsList }): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const keep = useKeep();
  const now = {
    name: list.name,
    counts: list.counts,
    kitTimes: list.kitTimes,
    currency: list.currency,
    notes: list.notes,
  };
  const form = useSchemaForm(headSchema, now, now);
  const [why, setWhy] = useState<string | null>(null);
  const change = (fields: Partial<PartsList>): boolean => {
    const problem = keep(changePartsList(network, list, fields));
    setWhy(problem);
    return problem === null;
  };
  const places = useMemo(
    () => [...network.all('place')].map(({ id }) => ({ id, text: placePath(network, id) })).sort(byText),
    [network],
  );
  const kits = useMemo(
    () => [...network.all('kit')].map(({ id, name: text }) => ({ id, text })).sort(byText),
    [network],
  );
  return (
    <Aside aria-label="What it counts">
      <Picker
        label="Place"
        options={[{ id: 'all', text: 'all places' }, ...places]}
        value={list.scopeId ?? 'all'}
        onChange={(id) => change({ scopeId: id === 'all' ? null : id })}
      />
      <Picker
        label="Kit in its place"
        options={[{ id: 'none', text: 'no kit' }, ...kits]}
        value={list.kitId ?? 'none'}
        onChange={(id) => change({ kitId: id === 'none' ? null : id })}
      />
      <Form
        label="What it counts"
        form={form}
        action="Set"
        onSend={(values) => {
          const message = keep(changePartsList(network, list, values));
          if (message !== null) form.refuse([{ field: null, message }]);
        }}
      >
        <TextIn name="name" />
        <ChoiceIn name="counts" options={partStates.map((id) => ({ id, text: id }))} />
        {list.kitId !== null && <NumberIn name="kitTimes" />}
        <TextIn name="currency" />
        <LinesIn name="notes" />
      </Form>
      {why !== null && <Hint role="alert">{why}</Hint>}
      <Spares rules={list.spares} onChange={(spares) => change({ spares })} />
      <Services rules={list.services} onChange={(services) => change({ services })} />
      <Further parts={list.further} onChange={(further) => change({ further })} />
    </Aside>
  );
}

/** Rules that are kept: what each says, and a way to take it out. */
function Kept({ lines, onRemove }: { lines: readonly string[]; onRemove: (at: number) => void }): ReactNode {
  return lines.map((text, at) => (
    <Pair key={`${at} ${text}`} role="group" aria-label={text}>
      <Hint style={{ flex: 1 }}>{text}</Hint>
      <Button $tone="quiet" aria-label={`Take out ${text}`} onPress={() => onRemove(at)}>
        Take out
      </Button>
    </Pair>
  ));
}

const without = <T,>(list: readonly T[], at: number): T[] => list.filter((_one, index) => index !== at);
const whole = (text: string): number => (/^\d+$/.test(text.trim()) ? Number(text) : Number.NaN);

function Spares({
  rules,
  onChange,
}: {
  rules: readonly SpareRule[];
  onChange: (rules: SpareRule[]) => boolean;
}) {
  const [of, setOf] = useState<SpareRule['of']>('Transceivers');
  const [percent, setPercent] = useState('10');
  const [least, setLeast] = useState('1');
  return (
    <section aria-label="Spares">
      <h3>Spares</h3>
      <Kept
        lines={rules.map((rule) => `${rule.of}: ${rule.percent} %, at least ${rule.least} of each`)}
        onRemove={(at) => onChange(without(rules, at))}
      />
      <Pair>
        <Choice
          label="Of"
          width={112}
          value={of}
          options={partSections.map((id) => ({ id, text: id }))}
          onChange={setOf}
        />
        <Field label="Per cent" width={58} value={percent} onChange={setPercent} />
        <Field label="At least" width={58} value={least} onChange={setLeast} />
        <Button
          onPress={() =>
            onChange([...rules, { of, percent: Number(percent.replace(',', '.')), least: whole(least) }])
          }
        >
          Add
        </Button>
      </Pair>
    </section>
  );
}

function Services({
  rules,
  onChange,
}: {
  rules: readonly ServiceRule[];
  onChange: (rules: ServiceRule[]) => boolean;
}) {
  const [called, setCalled] = useState('');
  const [per, setPer] = useState<ServiceRule['per']>('device');
  const [role, setRole] = useState<NonNullable<ServiceRule['role']> | 'any'>('any');
  const [price, setPrice] = useState('');
  const add = (): void => {
    const unitMinor = price.trim() === '' ? null : (readMoney(price, null)?.priceMinor ?? Number.NaN);
    const rule = {
      name: called.trim(),
      per,
      role: per === 'device' && role !== 'any' ? role : null,
      unitMinor,
    };
    if (onChange([...rules, rule])) setCalled('');
  };
  return (
    <section aria-label="Services">
      <h3>Services</h3>
      <Kept
        lines={rules.map(
          (rule) =>
            `${rule.name}, per ${rule.role === null ? rule.per : roles[rule.role].label}${rule.unitMinor === null ? '' : `, ${typedMoney(rule.unitMinor)} each`}`,
        )}
        onRemove={(at) => onChange(without(rules, at))}
      />
      <Pair>
        <Field label="Service" width={190} value={called} onChange={setCalled} />
        <Field label="Each" width={82} value={price} onChange={setPrice} />
        <Choice
          label="Per"
          width={88}
          value={per}
          options={servicePer.map((id) => ({ id, text: id }))}
          onChange={setPer}
        />
        {per === 'device' && (
          <Choice
            label="Of the role"
            width={120}
            value={role}
            options={[
              { id: 'any' as const, text: 'any' },
              ...roleCodes.map((id) => ({ id, text: roles[id].label })),
            ]}
            onChange={setRole}
          />
        )}
        <Button onPress={add}>Add</Button>
      </Pair>
    </section>
  );
}

function Further({
  parts,
  onChange,
}: {
  parts: readonly FurtherPart[];
  onChange: (parts: FurtherPart[]) => boolean;
}) {
  const [called, setCalled] = useState('');
  const [number, setNumber] = useState('');
  const [many, setMany] = useState('1');
  const [price, setPrice] = useState('');
  const add = (): void => {
    const unitMinor = price.trim() === '' ? null : (readMoney(price, null)?.priceMinor ?? Number.NaN);
    const part = {
      name: called.trim(),
      partNumber: number.trim() === '' ? null : number.trim(),
      count: whole(many),
      unitMinor,
    };
    if (onChange([...parts, part])) {
      setCalled('');
      setNumber('');
    }
  };
  return (
    <section aria-label="Further parts">
      <h3>Further parts</h3>
      <Kept
        lines={parts.map(
          ({ name: text, count, unitMinor }) =>
            `${count} ${text}${unitMinor === null ? '' : `, ${typedMoney(unitMinor)} each`}`,
        )}
        onRemove={(at) => onChange(without(parts, at))}
      />
      <Pair>
        <Field label="Part" width={190} value={called} onChange={setCalled} />
        <Field label="Each" width={82} value={price} onChange={setPrice} />
        <Field label="Part number" width={112} value={number} onChange={setNumber} />
        <Field label="Count" width={58} value={many} onChange={setMany} />
        <Button onPress={add}>Add</Button>
      </Pair>
    </section>
  );
}
