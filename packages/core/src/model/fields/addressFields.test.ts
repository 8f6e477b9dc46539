import { expect, test } from '@jest/globals';
import { everything } from '../../testing/testKinds.ts';
import { addressFieldsOf, addressKinds, movedAddresses } from './addressFields.ts';
import { kindNames } from '../kinds.ts';

test('the fields that hold addresses are those whose schema says so, also inside lists', () => {
  expect(Object.fromEntries(addressKinds.map((kind) => [kind, addressFieldsOf(kind)]))).toEqual({
    device: ['routerId'],
    port: ['farAddress'],
    prefix: ['prefix', 'gateway', 'ranges'],
    address: ['address'],
    route: ['prefix', 'via'],
    bgpSession: ['neighbour', 'announces'],
    redundancy: ['virtual'],
    virtualNetwork: ['nameServers', 'timeServers'],
    prefixList: ['prefixes'],
    trafficRule: ['prefix'],
    cloudRoute: ['prefix'],
    gateway: ['clientPool', 'clientsReach', 'learned'],
    publicAddress: ['address'],
    dnsRecord: ['value'],
    dnsForward: ['servers'],
  });
});

test('every address of a network is found: none is left where all are moved', () => {
  const tokens = /\b\d+\.\d+\.\d+\.\d+\b/g;
  const text = (rows: unknown): string => JSON.stringify(rows);
  const moved = kindNames.flatMap((kind) =>
    [...everything.all(kind)].map((row) => ({
      ...row,
      ...movedAddresses(kind, row, (one) => one.replace(tokens, 'MOVED')),
    })),
  );
  const before = kindNames.flatMap((kind) => [...everything.all(kind)]);
  expect(text(before).match(tokens)?.length ?? 0).toBeGreaterThan(10);
  expect(text(moved).match(tokens)).toBeNull();
  // What holds none is as it was.
  expect(text(moved).replaceAll('MOVED', '')).toBe(text(before).replaceAll(tokens, ''));
});

test('ranges of a prefix move with all their parts', () => {
  const [prefix] = everything.all('prefix');
  if (prefix === undefined) throw new Error('no prefix');
  const ranges = [{ use: 'DHCP' as const, from: '10.1.0.20', to: '10.1.0.90', note: 'crew' }];
  const moved = movedAddresses(
    'prefix',
    { ...prefix, gateway: null, ranges },
    (text, form) => `${form} ${text}`,
  );
  expect(moved).toEqual({
    prefix: `prefix ${prefix.prefix}`,
    gateway: null,
    ranges: [{ use: 'DHCP', from: 'host 10.1.0.20', to: 'host 10.1.0.90', note: 'crew' }],
  });
});
