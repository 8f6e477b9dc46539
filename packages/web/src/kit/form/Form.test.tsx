import { describe, expect, jest, test } from '@jest/globals';
import { amountField, countField, dateField, nameField, noted } from '@visograph/core/model';
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { ThemeProvider } from '../../theme/theme.tsx';
import { ChoiceIn, DateIn, NumberIn, TextIn, TickIn } from './fields.tsx';
import { Form } from './Form.tsx';
import { faultText, trimmed, useSchemaForm, type SchemaForm } from './useSchemaForm.ts';

const schema = z.object({
  name: trimmed(nameField('Name')),
  units: countField('Units', 1, 60, 'U'),
  massKg: amountField('Mass limit', 5000, 'kg', 'With everything in it'),
  installedOn: dateField('Installed on'),
  face: noted(z.enum(['front', 'rear']), { label: 'Face' }),
  fills: noted(z.boolean(), { label: 'Fills both faces' }),
});
type Values = z.infer<typeof schema>;

let form: SchemaForm<Values>;
function Rack({ onSend }: { onSend: (values: Values) => void }): ReactNode {
  form = useSchemaForm(schema, {
    name: 'KQ-A1',
    units: 42,
    massKg: null,
    installedOn: null,
    face: 'front',
    fills: false,
  });
  return (
    <Form label="A rack" form={form} action="Keep" onSend={onSend}>
      <TextIn name="name" />
      <NumberIn name="units" />
      <NumberIn name="massKg" />
      <DateIn name="installedOn" />
      <ChoiceIn name="face" options={['front', 'rear'].map((id) => ({ id, text: id }))} />
      <TickIn name="fills" />
    </Form>
  );
}
const show = () => {
  const onSend = jest.fn<(values: Values) => void>();
  render(
    <ThemeProvider>
      <Rack onSend={onSend} />
    </ThemeProvider>,
  );
  return onSend;
};
const field = (name: string): HTMLElement => screen.getByRole('textbox', { name });
const type = (name: string, value: string): void => void fireEvent.change(field(name), { target: { value } });
const send = (): void => void fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
const described = (name: string): string =>
  (field(name).getAttribute('aria-describedby') ?? '')
    .split(' ')
    .map((id) => document.getElementById(id)?.textContent ?? '')
    .join(' ');

describe('a form of a schema', () => {
  test('shows label, unit and help of each field, and sends what fits the schema', async () => {
    const onSend = show();
    expect(described('Mass limit (kg)')).toContain('With everything in it');
    type('Name', '  KQ-A2 ');
    type('Units (U)', '48');
    type('Mass limit (kg)', '12,5');
    fireEvent.click(screen.getByRole('checkbox', { name: 'Fills both faces' }));
    send();
    await waitFor(() => expect(onSend).toHaveBeenCalledTimes(1));
    expect(onSend.mock.calls[0]?.[0]).toEqual({
      name: 'KQ-A2',
      units: 48,
      massKg: 12.5,
      installedOn: null,
      face: 'front',
      fills: true,
    });
  });

  test('a fault stands beside its field with its name, goes with the next key, and nothing is sent meanwhile', async () => {
    const onSend = show();
    type('Units (U)', '72');
    fireEvent.blur(field('Units (U)'));
    await waitFor(() => expect(described('Units (U)')).toContain('Units is above 60.'));
    expect(field('Units (U)').getAttribute('aria-invalid')).toBe('true');
    send();
    await waitFor(() => expect(document.activeElement).toBe(field('Units (U)')));
    expect(onSend).not.toHaveBeenCalled();
    type('Units (U)', '42');
    await waitFor(() => expect(described('Units (U)')).not.toContain('above'));
    send();
    await waitFor(() => expect(onSend).toHaveBeenCalledTimes(1));
  });

  test('sending goes to the first fault; what was typed stays as it was typed', async () => {
    const onSend = show();
    type('Name', '');
    type('Units (U)', 'forty');
    send();
    await waitFor(() => expect(document.activeElement).toBe(field('Name')));
    expect(described('Name')).toContain('Name is empty.');
    expect(described('Units (U)')).toContain('Units is not a whole number.');
    expect((field('Units (U)') as HTMLInputElement).value).toBe('forty');
    expect(onSend).not.toHaveBeenCalled();
  });

  test('what the model refuses is told at its field, what belongs to none beside the button', async () => {
    show();
    act(() =>
      form.refuse([
        { field: 'name', message: 'There is already a rack with the name KQ-A1. Choose another name.' },
        { field: 'placeId', message: 'The place is gone.' },
      ]),
    );
    await waitFor(() => expect(described('Name')).toContain('There is already a rack with the name KQ-A1.'));
    expect(screen.getByRole('alert').textContent).toBe('The place is gone.');
    expect(document.activeElement).toBe(field('Name'));
  });

  test('emptied from outside it shows what it began with', async () => {
    show();
    type('Units (U)', '12');
    act(() => form.control.reset());
    await waitFor(() => expect((field('Units (U)') as HTMLInputElement).value).toBe('42'));
    act(() => form.control.setValue('units', 9));
    await waitFor(() => expect((field('Units (U)') as HTMLInputElement).value).toBe('9'));
  });

  test('a day is typed by its parts, year first, and is null where it is empty', async () => {
    const onSend = show();
    const parts = screen.getAllByRole('spinbutton');
    expect(parts.map((part) => part.getAttribute('aria-label')?.split(',')[0])).toEqual([
      'year',
      'month',
      'day',
    ]);
    expect(parts.map((part) => part.textContent)).toEqual(['yyyy', 'mm', 'dd']);
    for (const part of parts) fireEvent.keyDown(part, { key: 'ArrowUp' });
    send();
    await waitFor(() => expect(onSend).toHaveBeenCalledTimes(1));
    expect(onSend.mock.calls[0]?.[0].installedOn).toMatch(/^\d{4}-\d{2}-\d{2}$/);
  });
});

test('a fault begins with its field, unless it is a sentence already', () => {
  expect(faultText('Number', 'is above 4094')).toBe('Number is above 4094.');
  expect(faultText('Number', 'There is already a VLAN 20.')).toBe('There is already a VLAN 20.');
  expect(faultText('Number', undefined)).toBeNull();
});
