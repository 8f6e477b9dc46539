import { expect, test } from '@jest/globals';
import { networkOf, smallRoom } from '../testing/testNetwork.ts';
import { foundIn } from '../testing/testFindings.ts';

test('a clean network has no findings', () => {
  expect(foundIn(smallRoom())).toEqual([]);
});

test('a cable with one end and a label that is missing are found, the worse first', () => {
  const network = networkOf({
    devices: [{ name: 'ah-acc-1', role: 'SW', ports: [{ name: '1' }, { name: '2' }, { name: '3' }] }],
    cables: [
      { label: 'AH-00016', a: 'ah-acc-1:1', b: 'ah-acc-1:2' },
      { label: 'AH-00018', a: 'ah-acc-1:3' },
    ],
  });
  const findings = foundIn(network);
  expect(findings.map((finding) => [finding.rule, finding.severity, finding.about[0]])).toEqual([
    ['cable-one-end', 'bad', 'cable AH-00018'],
    ['label-gap', 'warn', 'cable AH-00017'],
  ]);
  expect(findings[0]?.message).toContain('ah-acc-1:3 only: the B end is open');
});
