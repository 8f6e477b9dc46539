import { expect, test } from '@jest/globals';
import { anyKind, held, withFields } from '../kinds.ts';
import { blankDevice } from '../kinds/equipment/device.ts';
import { noted, notesOfSchema } from '../fields/field.ts';
import { z } from 'zod';
import { firstOf } from './firstOf.ts';
import { isOneOf, keysOf } from './words.ts';

test('keys stand in the order of the record', () => {
  expect(keysOf<'b' | 'a'>({ b: 1, a: 2 })).toEqual(['b', 'a']);
});

test('a word of a list, and nothing else', () => {
  const words = ['front', 'rear'] as const;
  expect(['front', 'Front', '', null, 0].map((one) => isOneOf(words, one))).toEqual([
    true,
    false,
    false,
    false,
    false,
  ]);
});

test('the first of a list that has one', () => {
  expect(firstOf([3, 4])).toBe(3);
  expect(() => firstOf([])).toThrow('has none');
});

test('a row of a kind of which only the name is known', () => {
  const device = {
    ...blankDevice,
    id: '0190a000-0000-7000-8000-000000000001',
    name: 'kq-acc-1',
    role: 'SW' as const,
  };
  expect(anyKind('device').nameOf(device)).toBe('kq-acc-1');
  expect(held(device)['name']).toBe('kq-acc-1');
  const renamed = withFields(device, { name: 'kq-acc-2' });
  expect([renamed.name, device.name]).toEqual(['kq-acc-2', 'kq-acc-1']);
});

test('one schema with two notes keeps the first, and gives another for the second', () => {
  const length = z.number();
  const first = noted(length, { label: 'Slack' });
  const second = noted(length, { label: 'Rise' });
  expect([notesOfSchema(first)?.label, notesOfSchema(second)?.label]).toEqual(['Slack', 'Rise']);
  expect(second.safeParse('x').success).toBe(false);
  expect(notesOfSchema(noted(z.string(), { label: 'Name' }).nullable())?.label).toBe('Name');
  expect(notesOfSchema(z.string())).toBeNull();
});
