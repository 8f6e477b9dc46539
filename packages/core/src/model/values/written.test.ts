import { describe, expect, test } from '@jest/globals';
import { macField } from '../fields/field.ts';
import { macOf } from './mac.ts';
import { metresText } from './numbers.ts';
import { moneyText, readMoney } from './money.ts';
import { readSpeed, speedText } from './speed.ts';

describe('amounts', () => {
  test.each([
    ['1 250.00 EUR', 125000, 'EUR'],
    ['EUR 1.250,00', 125000, 'EUR'],
    ['1250', 125000, null],
    ['1,250.5 usd', 125050, 'USD'],
    ["CHF 12'400", 1240000, 'CHF'],
    ['1.250', 125000, null],
    ['12,5', 1250, null],
    ['0.07 GBP', 7, 'GBP'],
  ])('%s', (text, priceMinor, currency) => {
    expect(readMoney(text, null)).toEqual({ priceMinor, currency });
  });

  test.each(['', 'much', 'EUR', 'EUR 12 USD', '-5', '12 EURO', '99999999999'])('“%s” is none', (text) => {
    expect(readMoney(text, null)).toBeNull();
  });

  test('a currency that the text leaves out is the given one; one in it goes before', () => {
    expect(readMoney('5', 'NOK')).toEqual({ priceMinor: 500, currency: 'NOK' });
    expect(readMoney('5 SEK', 'NOK')).toEqual({ priceMinor: 500, currency: 'SEK' });
  });

  test('every amount reads back as it was written', () => {
    for (let minor = 0; minor < 2_000_000_000; minor = minor * 3 + 7) {
      const paid = { priceMinor: minor, currency: 'EUR' };
      expect(readMoney(moneyText(paid), null)).toEqual(paid);
    }
    expect(moneyText({ priceMinor: null, currency: null })).toBe('');
  });
});

describe('MAC addresses (IEEE 802)', () => {
  test.each(['02:00:5E:00:53:01', '02-00-5e-00-53-01', '0200.5e00.5301', '02005E005301', ' 0200.5E00.5301 '])(
    '%s is one',
    (text) => expect(macOf(text)).toBe('02:00:5e:00:53:01'),
  );
  test.each([
    '',
    '02:00:5e:00:53',
    '02:00-5e:00:53:01',
    '02:00:5e:00:53:0g',
    '0200.5e00.530',
    '2:0:5e:0:53:1',
  ])('“%s” is none', (text) => expect(macOf(text)).toBeNull());
  test('a field takes the one spelling, and says what it is like', () => {
    const field = macField('MAC address');
    expect(field.safeParse('02:00:5e:00:53:01').success).toBe(true);
    expect(field.safeParse('02-00-5e-00-53-01').error?.issues[0]?.message).toContain('02:00:5e:00:53:01');
  });
});

describe('speeds', () => {
  test.each([
    ['10G', 1e10, '10G'],
    ['2,5 Gbit/s', 2.5e9, '2.5G'],
    ['100m', 1e8, '100M'],
    ['512k', 512e3, '1M'],
  ])('%s', (text, bps, said) => {
    expect(readSpeed(text)).toBe(bps);
    expect(speedText(bps)).toBe(said);
  });
  test.each(['', '10', 'fast', '0G', '-1G', '1 2G'])('“%s” is none', (text) =>
    expect(readSpeed(text)).toBeNull(),
  );
});

test.each([
  [12.5, '12.5 m'],
  [3, '3 m'],
  [0.333333, '0.33 m'],
  [1250, '1 250 m'],
  [12345.678, '12 345.68 m'],
])('a length of %d metres is written %s', (metres, text) => {
  expect(metresText(metres).replaceAll(/[\u202f\u00a0 ]/g, ' ')).toBe(text);
});
