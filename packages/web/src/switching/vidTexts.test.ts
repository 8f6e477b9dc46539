import { expect, test } from '@jest/globals';
import { readVid, vidIn, vidsIn, vidsText, vidText } from './vidTexts.ts';

const fault = (schema: ReturnType<typeof vidText>, text: string): string | undefined =>
  schema.safeParse(text).error?.issues[0]?.message;

test('one number or none', () => {
  expect(readVid(' 40 ')).toEqual({ ok: true, vid: 40 });
  expect(vidIn('')).toBeNull();
  expect(vidIn('4094')).toBe(4094);
  const voice = vidText('Voice VLAN');
  expect(fault(voice, '')).toBeUndefined();
  expect(fault(voice, '10,20')).toBe('Voice VLAN: give one number.');
  expect(fault(voice, 'all')).toBe('Voice VLAN: give one number.');
  expect(fault(voice, '4095')).toBe('Voice VLAN: 4095 is not a VLAN number: they go from 1 to 4094.');
});

test('several, ranges, or all there are', () => {
  expect(vidsIn('30-32, 10')).toEqual([10, 30, 31, 32]);
  expect(vidsIn('All')).toBe('all');
  expect(vidsIn('')).toEqual([]);
  const tagged = vidsText('Tagged VLANs');
  expect(fault(tagged, '10 20')).toBeUndefined();
  expect(fault(tagged, '34-30')).toBe('Tagged VLANs: the range 34-30 runs backwards.');
  expect(fault(tagged, 'ten')).toBe('Tagged VLANs: “ten” is not a VLAN number or a range such as 30-34.');
});
