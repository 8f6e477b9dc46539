import { describe, expect, test } from '@jest/globals';
import { expandPortPattern } from '../model/values/portPattern.ts';
import { modelTitle } from '../model/kinds.ts';
import { Network } from '../model/network/network.ts';
import { ModelMatcher } from './matchModel.ts';
import { builtInModels } from './builtIn/index.ts';
import { readPorts } from './portsText.ts';

const matcher = new ModelMatcher(Network.empty());
const find = (words: Partial<{ maker: string; name: string; partNumber: string }>) => {
  const { model, likely } = matcher.find({ maker: '', name: '', partNumber: '', ...words });
  return { model: model === null ? null : modelTitle(model), likely: likely.map(modelTitle) };
};

describe('a model by the words of a list', () => {
  test.each([
    [{ name: 'Norvane AX-2448P' }],
    [{ maker: 'Norvane', name: 'AX-2448P' }],
    [{ name: 'ax-2448p' }],
    [{ name: 'AX 2448P' }],
    [{ maker: 'NORVANE', name: 'AX2448P' }],
  ])('%j is the one', (words) => expect(find(words).model).toBe('Norvane AX-2448P'));

  test('what is only spelled nearly so is proposed, likeliest first, and not taken', () => {
    const { model, likely } = find({ maker: 'Norvane', name: 'AX-2484P' });
    expect(model).toBeNull();
    expect(likely).toEqual(['Norvane AX-2424P', 'Norvane AX-2424', 'Norvane AX-2448']);
    expect(find({ name: 'Bramble Q9000' })).toEqual({ model: null, likely: [] });
  });

  test('a name that another maker has is not taken for it', () => {
    expect(find({ maker: 'Nobody & Sons', name: 'AX-2448P' }).model).toBeNull();
  });

  test('every model of the catalogue is found by its title and by its part number', () => {
    for (const model of builtInModels().filter((one) => one.form === 'device' && one.part === null)) {
      expect(find({ name: modelTitle(model) }).model).toBe(modelTitle(model));
      if (model.partNumber !== null)
        expect(find({ partNumber: model.partNumber }).model).toBe(modelTitle(model));
    }
  });
});

describe('ports in words', () => {
  const groups = (text: string) => {
    const read = readPorts(text);
    if (!read.ok) throw new Error(read.why);
    return read.groups;
  };
  const names = (text: string): string[] =>
    groups(text).flatMap(({ pattern }) => {
      const expanded = expandPortPattern(pattern);
      return expanded.ok ? [...expanded.names] : [];
    });

  test('data ports are numbered through, power and console named by what they are', () => {
    const text = '24 x RJ45 1G, 4 SFP+ 10G, 2 C14, 1 serial';
    expect(names(text)).toEqual([
      ...Array.from({ length: 28 }, (_, at) => String(at + 1)),
      ...['psu1', 'psu2', 'con1'],
    ]);
    expect(
      groups(text).map(({ connector, speedBps, role, face }) => [connector, speedBps, role, face]),
    ).toEqual([
      ['RJ45', 1e9, 'network', 'front'],
      ['SFP+', 1e10, 'network', 'front'],
      ['C14', null, 'powerIn', 'rear'],
      ['serial', null, 'console', 'rear'],
    ]);
  });

  test('outlets give power; speeds have a point or a comma; an empty text is no port', () => {
    expect(groups('8 C13; 1 C20').map(({ role, pattern }) => [role, pattern])).toEqual([
      ['powerOut', 'out1-8'],
      ['powerIn', 'psu1'],
    ]);
    expect(groups('2×RJ45 2,5G, 1 sfp 100M').map(({ speedBps }) => speedBps)).toEqual([2.5e9, 1e8]);
    expect(groups('')).toEqual([]);
  });

  test.each([
    ['many RJ45', '“many RJ45” does not say how many of which connector'],
    ['24 plugs', 'does not say how many of which connector'],
    ['0 RJ45', 'is not 1 to 512 ports'],
    ['400 RJ45, 200 RJ45', '“200 RJ45” is not 1 to 512 ports'],
  ])('%s is told', (text, why) => {
    const read = readPorts(text);
    expect(read.ok ? '' : read.why).toContain(why);
  });
});
