import { expect, test } from '@jest/globals';
import { listFieldsOf } from './listFields.ts';
import { factFieldsOf } from './factFields.ts';
import { kindNames } from '../kinds.ts';

test('lists of texts and words, and labels, as their kinds describe them', () => {
  const told = (kind: (typeof kindNames)[number]): string[] =>
    listFieldsOf(kind).map(({ field, form, words, numeric }) =>
      [field, form, ...(numeric ? ['numbers'] : []), ...(words.length > 0 ? [words.join('/')] : [])].join(
        ' ',
      ),
    );
  expect(told('gateway')).toEqual(['families words IPv4/IPv6', 'clientsReach texts', 'learned texts']);
  expect(told('virtualNetwork')).toEqual(['nameServers texts', 'timeServers texts', 'labels labels']);
  expect(told('prefixList')).toEqual(['prefixes texts']);
  const [words, limits] = told('providerProfile');
  expect(words).toMatch(/^words labels account\/region\/zone\//);
  expect(limits).toMatch(/^limits labels numbers networks\//);
  expect(told('publicAddress')).toEqual(['labels labels']);
});

test('no field is a single fact and a list at once', () => {
  for (const kind of kindNames) {
    const single = new Set(factFieldsOf(kind).map(({ field }) => field));
    expect(listFieldsOf(kind).filter(({ field }) => single.has(field))).toEqual([]);
  }
});
