import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import type { DnsZone } from '../../model/kinds/cloud/dns.ts';
import type { Network } from '../../model/network/network.ts';
import { tableToCsv } from '../../report/table.ts';
import { testCloud, testGateway } from '../../testing/testCloud.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import Papa from 'papaparse';
import { cloudRouteSchedule, cloudRuleSchedule } from '../reports/cloud.ts';
import { rulesOf } from '../rules/letsPass.ts';
import { ruleSentence } from '../commands/rules.ts';
import { readRouteRows, readRuleRows } from './cloudRows.ts';
import { readZoneFile, recordsOf, takeInZone, zoneAsFile } from './zoneRecords.ts';

const placeNamed = (network: Network, name: string) => {
  const found = [...network.all('place')].find((place) => place.name === name);
  if (found === undefined) throw new Error(`no place ${name}`);
  return found;
};
const after = (network: Network, changes: Parameters<typeof applyChanges>[1]): Network => {
  const applied = applyChanges(network, changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};

describe('rules and routes from a spreadsheet', () => {
  const cloud = testCloud({
    devices: [testGateway('gw', { place: 'acct/north/one' })],
    gateways: [{ device: 'gw', network: 'acct/north/one' }],
    prefixLists: [{ name: 'sites', prefixes: ['10.40.0.0/14'] }],
    ruleSets: [{ name: 'web', place: 'acct/north/one' }],
    trafficRules: [{ set: 'acct/north/one/web', position: 10, direction: 'in', ports: '443' }],
    cloudRoutes: [{ table: 'acct/north/one/main', prefix: '0.0.0.0/0', gateway: 'gw' }],
  });
  const one = placeNamed(cloud, 'one');

  test('every rule is told: added, there already, changed by its position, or wrong with the reason', () => {
    const read = readRuleRows(cloud, one, [
      ['Rule set', 'Direction', 'Position', 'Verdict', 'Traffic', 'Protocol', 'Ports', 'Peer', 'Notes'],
      ['web', 'in', '', 'allow', 'https', '', '', 'everybody', ''],
      ['web', 'inbound', '', 'allow', '', 'udp', '5000-5010', 'sites', 'calls'],
      ['web', 'out', '', 'permit', 'any', '', '', 'members of web', ''],
      ['web', 'in', '10', 'deny', 'https', '', '', '', ''],
      ['web', 'in', '', '', '', 'tcp', '70000', '', ''],
      ['app', 'in', '', '', 'https', '', '', '', ''],
      ['web', 'sideways', '', '', 'https', '', '', '', ''],
      ['', '', '', '', '', '', '', '', ''],
    ]);
    expect(read.results.map(({ row, does, problem }) => [row, does, problem])).toEqual([
      [2, 'nothing', null],
      [3, 'adds', null],
      [4, 'adds', null],
      [5, 'changes', null],
      [6, 'wrong', 'The ports hold 70000: ports end at 65535'],
      [7, 'wrong', 'one has no rule set “app”'],
      [8, 'wrong', 'Direction “sideways” is neither in nor out'],
    ]);
    const network = after(cloud, read.changes);
    const [set] = network.all('ruleSet');
    const told = (['in', 'out'] as const).flatMap((direction) =>
      rulesOf(network, set?.id ?? '', direction).map((rule) => ruleSentence(network, rule)),
    );
    expect(told).toEqual([
      'deny https (TCP 443) from everybody',
      'allow UDP 5000-5010 from sites',
      'allow anything to members of web',
    ]);
    expect(readRuleRows(cloud, one, [['Direction'], ['in']]).problem).toContain('It lacks “rule set”');
  });

  test('every route is told; what is local is left to itself', () => {
    const read = readRouteRows(cloud, one, [
      ['Route table', 'Destination', 'Through'],
      ['main', '10.1.0.0/16', 'local'],
      ['main', 'sites', 'gw'],
      ['main', '0.0.0.0/0', 'nowhere'],
      ['main', '10.9.0.0/33', 'gw'],
      ['main', '10.9.0.0/16', 'nobody'],
      ['spare', '10.9.0.0/16', 'gw'],
    ]);
    expect(read.results.map(({ does }) => does)).toEqual([
      'nothing',
      'adds',
      'changes',
      'wrong',
      'wrong',
      'wrong',
    ]);
    expect(read.results.at(-1)?.problem).toBe('one has no route table “spare”');
  });

  test('what the schedules of the demo write as CSV is read back as there already', () => {
    const demo = demoNetwork();
    const booking = placeNamed(demo, 'booking');
    const rows = (table: ReturnType<typeof cloudRuleSchedule>): string[][] =>
      Papa.parse<string[]>(tableToCsv(table).trim()).data;
    const rules = readRuleRows(demo, booking, rows(cloudRuleSchedule(demo, booking.id)));
    expect(rules.results.map(({ does, problem }) => [does, problem])).toEqual(
      rules.results.map(() => ['nothing', null]),
    );
    const written = cloudRouteSchedule(demo, booking.id);
    const routes = readRouteRows(demo, booking, [
      ...rows(written).filter((cells) => cells[5] === 'source' || cells[5] !== 'learned'),
    ]);
    expect(routes.results.map(({ does, problem }) => [does, problem])).toEqual(
      routes.results.map(() => ['nothing', null]),
    );
    expect(routes.results.length).toBeGreaterThan(10);
  });
});

describe('zone files (RFC 1035)', () => {
  const demo = demoNetwork();
  const [zone] = demo.all('dnsZone');
  if (zone === undefined) throw new Error('no zone');

  test('what is written is read back as it was', () => {
    const file = zoneAsFile(demo, zone, 2026120100);
    expect(file).toContain('web\tIN\tA\t10.64.16.11');
    expect(file).toContain('data\tIN\tCNAME\tdb.booking.msf.example.');
    const read = readZoneFile(zone.name, file);
    // The server that the file names for want of one is outside of what the zone says.
    expect(read.faults).toEqual([]);
    expect(read.left).toBe(1);
    const own = recordsOf(demo, zone.id).map(({ name, type, value }) => `${name} ${type} ${value}`);
    expect(
      read.records
        .filter(({ value }) => value !== 'ns.invalid.')
        .map(({ name, type, value }) => `${name} ${type} ${value}`),
    ).toEqual(own);
    expect(
      takeInZone(
        demo,
        zone,
        read.records.filter(({ value }) => value !== 'ns.invalid.'),
        { removes: true },
      ),
    ).toMatchObject({
      ok: true,
      set: { changes: [] },
    });
  });

  test('names relative and absolute, left out, brackets, comments, quoted texts, times in units', () => {
    const read = readZoneFile(
      'shop.example',
      [
        '$TTL 1h',
        '@ IN SOA ns1 hostmaster ( 2026120100 ; serial',
        '   7200 900',
        '   2w 3600 )',
        '  IN NS ns1',
        'ns1 300 IN A 10.64.0.53 ; the first',
        '     AAAA 2001:DB8:0:0::53',
        'www.shop.example. CNAME front',
        '@ MX 10 mail.other.example.',
        '_sip._tcp 1d SRV 0 5 5060 ns1',
        'note TXT "one; two" " and \\"three\\""',
        '$ORIGIN deep.shop.example.',
        'host A 10.64.0.54',
      ].join('\n'),
    );
    expect(read.faults).toEqual([]);
    expect(read.left).toBe(1);
    expect(
      read.records.map(({ name, type, value, ttlS }) => `${name} ${ttlS ?? ''} ${type} ${value}`),
    ).toEqual([
      '@ 3600 NS ns1.shop.example.',
      'ns1 300 A 10.64.0.53',
      'ns1 3600 AAAA 2001:db8::53',
      'www 3600 CNAME front.shop.example.',
      '@ 3600 MX 10 mail.other.example.',
      '_sip._tcp 86400 SRV 0 5 5060 ns1.shop.example.',
      'note 3600 TXT one; two and "three"',
      'host.deep 3600 A 10.64.0.54',
    ]);
  });

  test('what cannot be taken is told by line, and the rest is read', () => {
    const read = readZoneFile(
      'shop.example',
      [
        'good A 10.64.0.1',
        'bad A 10.64.0.256',
        'odd HINFO x',
        'far.other.example. A 10.64.0.2',
        'open TXT "no end',
        'x ( A 10.64.0.3',
      ].join('\n'),
    );
    expect(read.records.map(({ name }) => name)).toEqual(['good']);
    expect(read.faults.map(({ line }) => line)).toEqual([2, 3, 4, 5, 5, 6]);
    expect(read.faults[0]?.why).toContain('“10.64.0.256”, is not an IPv4 address');
    expect(read.faults[2]?.why).toBe('far.other.example. is outside of shop.example');
  });

  test('taken in: added, changed in their time, and gone only where that is wished', () => {
    const records = [
      { name: 'web', type: 'A' as const, value: '10.64.16.11', ttlS: 60 },
      { name: 'new', type: 'A' as const, value: '10.64.16.12', ttlS: 3600 },
    ];
    const counts = (removes: boolean): string => {
      const attempt = takeInZone(demo, zone satisfies DnsZone, records, { removes });
      if (!attempt.ok) throw new Error(attempt.why);
      return attempt.set.changes
        .map(({ op }) => op)
        .sort()
        .join(' ');
    };
    expect(counts(false)).toBe('create update');
    expect(counts(true)).toBe('create delete delete delete delete delete update');
  });
});
