import { describe, expect, test } from '@jest/globals';
import { dayReader } from './days.ts';

const read = (text: string, column: string[] = [text]): string => {
  const day = dayReader(column)(text);
  return day.ok ? day.day : day.why;
};

describe('days of a column', () => {
  test.each([
    ['2024-03-18', '2024-03-18'],
    ['2024/3/8', '2024-03-08'],
    ['2024-03-18T09:30:00Z', '2024-03-18'],
    ['18.03.2024', '2024-03-18'],
    ['4.3.2024', '2024-03-04'],
    ['18/03/2024', '2024-03-18'],
    ['03/18/2024', '2024-03-18'],
    ['5/5/2024', '2024-05-05'],
    ['29.02.2024', '2024-02-29'],
  ])('%s is %s', (text, day) => expect(read(text)).toBe(day));

  test('which figure is the month is told by the whole column', () => {
    expect(read('03/04/2024', ['03/04/2024', '25/12/2023'])).toBe('2024-04-03');
    expect(read('03/04/2024', ['03/04/2024', '12/25/2023'])).toBe('2024-03-04');
  });

  test('where nothing tells it, or two cells say two things, it is not guessed', () => {
    expect(read('03/04/2024')).toContain('can be two days');
    expect(read('03/04/2024', ['25/12/2023', '12/25/2023'])).toContain('can be two days');
  });

  test.each(['30.02.2024', '2023-02-29', '32/01/2024', '00.01.2024'])('%s is no day that exists', (text) =>
    expect(read(text)).toContain('not a day that exists'),
  );
  test.each(['soon', '2024', '18.3.24', '1-2/2024'])('%s is no day', (text) =>
    expect(read(text)).toContain('is not a day'),
  );
});
