import { expect, test } from '@jest/globals';
import { zoneFile, zoneNames, zoneSerial } from '@visograph/core/addressing';
import { applyChanges } from '@visograph/core/change';
import { readExchange, type ExchangeFile } from '@visograph/core/exchange';
import { Network, newProject } from '@visograph/core/model';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const demo = JSON.parse(
  readFileSync(new URL('../../../demo/marrow-sound-ferries.json', import.meta.url), 'utf8'),
) as ExchangeFile;

function read(file: unknown): Network {
  const start = Network.of({ project: [newProject('Test')] });
  const result = readExchange(start, file);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  const applied = applyChanges(start, result.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
}
const named = (dnsName: string, address: string): object => ({ address, dnsName });
const servers = read({
  format: 'visograph-exchange',
  version: 1,
  reserved: [
    named('ns1.ops.example', '10.1.0.53/24'),
    named('ns2.ops.example', '2001:db8::53/64'),
    named('gate.ops.example', '10.1.0.20/24'),
  ],
});

test('servers of a zone are the addresses called so; without any the file says that none is known', () => {
  expect(zoneFile(servers, 'ops.example', 7)).toBe(
    [
      '$ORIGIN ops.example.',
      '$TTL 3600',
      '@\tIN\tSOA\tns1.ops.example. hostmaster.ops.example. 7 7200 900 1209600 3600',
      '@\tIN\tNS\tns1.ops.example.',
      '@\tIN\tNS\tns2.ops.example.',
      'gate\tIN\tA\t10.1.0.20',
      'ns1\tIN\tA\t10.1.0.53',
      'ns2\tIN\tAAAA\t2001:db8::53',
      '',
    ].join('\n'),
  );
  expect(zoneFile(servers, '0.1.10.in-addr.arpa', 7)).toContain('@\tIN\tNS\tns1.ops.example.');
});

test('the serial rises with every second, from above those of a date and two digits, within 32 bits', () => {
  const at = Date.UTC(2026, 10, 28, 12);
  expect(zoneSerial(at)).toBeGreaterThan(2026112799);
  expect(zoneSerial(at + 1000)).toBe(zoneSerial(at) + 1);
  expect(zoneSerial(Date.UTC(2090, 0, 1))).toBeLessThan(2 ** 32);
});

const checker = '/usr/bin/named-checkzone';
const there = spawnSync(checker, ['-v']).status === 0;

(there ? test : test.skip)('a name server loads every zone of the demo and of one with its servers', () => {
  const folder = mkdtempSync(join(tmpdir(), 'visograph-zones-'));
  try {
    for (const network of [read(demo), servers])
      for (const zone of zoneNames(network)) {
        const file = join(folder, 'zone');
        writeFileSync(file, zoneFile(network, zone, zoneSerial(Date.now())) ?? '');
        const { status, stdout } = spawnSync(checker, ['-i', 'local', zone, file], { encoding: 'utf8' });
        expect([zone, status, stdout]).toEqual([zone, 0, expect.stringContaining('OK')]);
      }
  } finally {
    rmSync(folder, { recursive: true });
  }
});
