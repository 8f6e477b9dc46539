import { expect, test } from '@jest/globals';
import { isTyping } from './isTyping.ts';

const input = (type: string): HTMLInputElement => Object.assign(document.createElement('input'), { type });

test('keys go into texts, not into boxes to tick and buttons', () => {
  for (const type of ['text', 'search', 'email', 'password', 'number', 'date'])
    expect([type, isTyping(input(type))]).toEqual([type, true]);
  for (const type of ['checkbox', 'radio', 'button', 'range', 'file'])
    expect([type, isTyping(input(type))]).toEqual([type, false]);
  expect(isTyping(document.createElement('textarea'))).toBe(true);
  expect([isTyping(document.createElement('button')), isTyping(document.body), isTyping(null)]).toEqual([
    false,
    false,
    false,
  ]);
});
