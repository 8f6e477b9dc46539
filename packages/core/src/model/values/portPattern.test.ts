import { describe, expect, test } from '@jest/globals';
import { expandPortPattern } from './portPattern.ts';

describe('port patterns', () => {
  test('a 48-port switch', () => {
    const result = expandPortPattern('gi1/[1-48]');
    expect(result).toMatchObject({ ok: true });
    if (!result.ok) return;
    expect(result.names).toHaveLength(48);
    expect(result.names[0]).toBe('gi1/1');
    expect(result.names[47]).toBe('gi1/48');
  });

  test('two ranges: the last one counts fastest', () => {
    expect(expandPortPattern('te[1-2]/[1-2]')).toEqual({
      ok: true,
      names: ['te1/1', 'te1/2', 'te2/1', 'te2/2'],
    });
  });

  test('leading zeros are kept', () => {
    expect(expandPortPattern('F[08-11]')).toEqual({ ok: true, names: ['F08', 'F09', 'F10', 'F11'] });
  });

  test.each([
    ['', 'empty'],
    ['gi[9-1]', 'backwards'],
    ['gi[1-48', 'bracket'],
    ['x[1-100]/[1-100]', '1024'],
    ['x[1-999999999]', '1024'],
  ])('%p is refused because of %p', (pattern, why) => {
    const result = expandPortPattern(pattern);
    expect(result).toMatchObject({ ok: false });
    if (!result.ok) expect(result.reason).toContain(why);
  });
});
