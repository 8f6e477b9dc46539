import { describe, expect, test } from '@jest/globals';
import { expandPortPattern } from './portPattern.ts';

describe('port patterns', () => {
  test('a 48-port switch', () => {
    const result = expandPortPattern('gi1/1-48');
    expect(result).toMatchObject({ ok: true });
    if (!result.ok) return;
    expect(result.names).toHaveLength(48);
    expect(result.names[0]).toBe('gi1/1');
    expect(result.names[47]).toBe('gi1/48');
  });

  test('two ranges: the last one counts fastest', () => {
    expect(expandPortPattern('te1-2/1-2')).toEqual({
      ok: true,
      names: ['te1/1', 'te1/2', 'te2/1', 'te2/2'],
    });
  });

  test('leading zeros are kept', () => {
    expect(expandPortPattern('F08-11')).toEqual({ ok: true, names: ['F08', 'F09', 'F10', 'F11'] });
  });

  test('the word slot stands for the number of the slot, apart from ranges beside it', () => {
    expect(expandPortPattern('te slot/1-2', 3)).toEqual({ ok: true, names: ['te3/1', 'te3/2'] });
    expect(expandPortPattern('slot R1-2', 12)).toEqual({ ok: true, names: ['12R1', '12R2'] });
    expect(expandPortPattern('psu slot', 2)).toEqual({ ok: true, names: ['psu2'] });
    expect(expandPortPattern('R slot 1-2', 4)).toEqual({ ok: true, names: ['R41', 'R42'] });
    expect(expandPortPattern('slots1-2')).toEqual({ ok: true, names: ['slots1', 'slots2'] });
  });

  test('two hyphens are one of the name', () => {
    expect(expandPortPattern('eth1--2')).toEqual({ ok: true, names: ['eth1-2'] });
    expect(expandPortPattern('a-1--1-3')).toEqual({ ok: true, names: ['a-1-1', 'a-1-2', 'a-1-3'] });
    expect(expandPortPattern('SFP-1')).toEqual({ ok: true, names: ['SFP-1'] });
  });

  test.each([
    ['', 'empty'],
    ['gi9-1', 'backwards'],
    ['gi[1-48]', 'without brackets'],
    ['te{slot}/1-8', 'without brackets'],
    ['x1-100/1-100', '1024'],
    ['x1-999999999', '1024'],
  ])('%p is refused because of %p', (pattern, why) => {
    const result = expandPortPattern(pattern);
    expect(result).toMatchObject({ ok: false });
    if (!result.ok) expect(result.reason).toContain(why);
  });
});
