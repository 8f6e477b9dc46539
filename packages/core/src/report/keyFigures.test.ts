import { expect, test } from '@jest/globals';
import { demoNetwork } from '../testing/testDemo.ts';
import { drawn, emptyProject } from '../testing/testDrawn.ts';
import { isFree } from '../model/network/ports.ts';
import { keyFigures } from './keyFigures.ts';

test('an empty project in figures', () => {
  expect(keyFigures(emptyProject()).map(({ text }) => text)).toEqual([
    '0 sites',
    '0 racks',
    '0 devices',
    '0 cables',
    '0 circuits',
    '0 VLANs',
    '0 prefixes',
    '0 sheets',
  ]);
  expect(keyFigures(emptyProject()).every(({ share }) => share === null)).toBe(true);
});

test('what is only drawn is not placed yet', () => {
  const [, , devices] = keyFigures(drawn({ 'rt-1': 'Generic router' }));
  expect(devices).toMatchObject({ text: '1 device', detail: '1 not placed yet', section: 'equipment' });
});

test('the demo in figures, its ports counted one by one', () => {
  const network = demoNetwork();
  const figures = new Map(
    keyFigures(network).map((figure) => [figure.text.replace(/^[\d\u202f ]+/, ''), figure]),
  );
  const ports = [...network.all('port')].filter((port) => port.connector !== null);
  const used = ports.filter((port) => !isFree(network, port.id)).length;
  const said = (figures.get('cables')?.detail ?? '').replaceAll(/[\u202f ](?=\d{3}\b)/g, '');
  expect(said).toBe(`${used} of ${ports.length} ports used`);
  expect(figures.get('racks')?.share).toBeGreaterThan(0.2);
  expect(figures.get('racks')?.share).toBeLessThan(1);
  expect(figures.get('devices')?.text).toBe(`${network.count('device')} devices`);
});
