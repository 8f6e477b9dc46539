import { describe, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { run } from './run.ts';

const demo = fileURLToPath(new URL('../../../demo/marrow-sound-ferries.json', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'visograph-'));
const fileOf = (name: string, content: unknown): string => {
  const path = join(folder, name);
  writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
  return path;
};
const visograph = async (...args: string[]) => {
  let out = '';
  let err = '';
  const code = await run(
    args,
    (text) => (out += text),
    (text) => (err += text),
  );
  return { code, out, err, json: <T>() => JSON.parse(out) as T };
};
const head = { format: 'visograph-exchange', version: 1 };

describe('check', () => {
  test('a clean file has no findings: exit 0', async () => {
    const result = await visograph(
      'check',
      fileOf('clean.json', { ...head, devices: [{ name: 'a', role: 'SW' }] }),
      '--json',
    );
    expect(result.code).toBe(0);
    expect(result.json()).toEqual({ problems: [], findings: [] });
  });

  test('the demo has its deliberate faults and no others', async () => {
    const result = await visograph('check', demo, '--json');
    expect(
      result
        .json<{ findings: { rule: string; about: string[] }[] }>()
        .findings.map((one) => [one.rule, one.about[0]]),
    ).toEqual([
      ['address-duplicate', 'address 10.40.40.20/24'],
      ['cable-one-end', 'cable AH-00016'],
      ['cloud-subnet-no-table', 'cloud subnet data-n1b'],
      ['link-medium', 'device br-acc-1'],
      ['link-optics', 'device br-acc-1'],
      ['poe-over-budget', 'device kq-acc-5'],
      ['prefix-overlap', 'prefix 10.41.3.64/26'],
      ['rack-over-limit', 'rack BR-A1'],
      ['cloud-public-address-unused', 'public address 203.0.113.40'],
      ['label-gap', 'cable AH-00017'],
      ['no-management-address', 'device kq-cam-14'],
      ['vlan-stops', 'VLAN 40 Cameras'],
    ]);
  });

  test('VLANs, prefixes and addresses as tables', async () => {
    const rowsOf = async (name: string) =>
      (await visograph('report', demo, name, '--json')).json<{
        rows: Record<string, string | number | null>[];
      }>().rows;
    const cameras = (await rowsOf('vlans')).find((row) => row['vid'] === 40);
    expect(cameras).toMatchObject({ numbering: 'shore', name: 'Cameras', vrf: 'ops', parts: 3 });
    const prefixes = await rowsOf('prefixes');
    expect(prefixes).toHaveLength(75);
    expect(prefixes.find((row) => row['prefix'] === '10.40.0.0/19')).toMatchObject({
      role: 'pool',
      taken: 5,
      use: 25,
    });
    expect((await rowsOf('addresses')).find((row) => row['address'] === '10.40.8.12/22')).toMatchObject({
      prefix: '10.40.8.0/22',
      device: 'kq-srv-2',
      port: 'bond0',
    });
  });

  test('the capacity of racks, and an elevation coloured by power', async () => {
    const table = await visograph('report', demo, 'capacity', '--json');
    const rows = table.json<{ rows: { rack: string; over: string | null }[] }>().rows;
    expect(rows).toHaveLength(10);
    expect(rows.find((row) => row.rack === 'BR-A1')?.over).toBe(
      'Feed A of BR-A1 carries up to 2 870 W, above its usable 1 840 W',
    );
    const drawn = await visograph(
      'draw',
      demo,
      '--projection',
      'elevation',
      '--rack',
      'KQ-A1',
      '--colour',
      'power',
    );
    expect(drawn.code).toBe(0);
    expect(
      (await visograph('draw', demo, '--projection', 'elevation', '--rack', 'KQ-A1', '--colour', 'mood'))
        .code,
    ).toBe(2);
  });

  test('findings: exit 1, with rule, severity, about and message', async () => {
    const path = fileOf('open.json', {
      ...head,
      devices: [{ name: 'a', role: 'SW', ports: [{ name: '1' }] }],
      cables: [{ label: 'C-1', a: 'a:1' }],
    });
    const result = await visograph('check', path, '--json');
    expect(result.code).toBe(1);
    expect(result.json()).toMatchObject({
      findings: [{ rule: 'cable-one-end', severity: 'bad', about: ['cable C-1', 'device a'] }],
    });
  });

  test('unusable input: exit 2, with the path of each problem', async () => {
    const dangling = await visograph(
      'check',
      fileOf('bad.json', { ...head, cables: [{ label: 'C-1', a: 'x:1' }] }),
      '--json',
    );
    expect(dangling.code).toBe(2);
    expect(dangling.json()).toMatchObject({ problems: [{ path: '$.cables[0].a' }], findings: [] });
    expect((await visograph('check', fileOf('text.json', 'hello'))).err).toContain('not JSON');
    expect((await visograph('check', join(folder, 'none.json'))).err).toContain('there is no such file');
  });
});

test('run follows the demo uplink of kq-acc-5 through two panels', async () => {
  const result = await visograph('run', demo, 'kq-acc-5:te1/25', '--json');
  expect(result.code).toBe(0);
  expect(result.json()).toEqual({
    from: 'kq-acc-5:te1/25',
    to: 'kq-core-1:te1/5',
    ends: 'port',
    lengthM: 53,
    hops: [
      { port: 'kq-acc-5:te1/25' },
      { cable: 'KQ-00020', lengthM: 1 },
      { port: 'KQ-W1-PP1:F1' },
      { port: 'KQ-W1-PP1:R1' },
      { cable: 'KQ-00019', lengthM: 50 },
      { port: 'KQ-A1-PP1:R1' },
      { port: 'KQ-A1-PP1:F1' },
      { cable: 'KQ-00018', lengthM: 2 },
      { port: 'kq-core-1:te1/5' },
    ],
    speedBps: 1e10,
    // 6.2 dB less 53 m at 0.4 dB/km and two mated pairs of 0.75 dB.
    lightLeftDb: 4.68,
    faults: [],
  });
  expect((await visograph('run', demo, 'kq-acc-5:te9/9')).code).toBe(2);
  expect((await visograph('run', demo, 'nonsense')).err).toContain('DEVICE:PORT');
});

test('report cables as JSON and CSV, for a scope', async () => {
  const all = (await visograph('report', demo, 'cables', '--json')).json<{
    columns: { key: string }[];
    rows: object[];
  }>();
  expect(all.columns.map((column) => column.key).slice(0, 3)).toEqual(['label', 'type', 'lengthM']);
  expect(all.rows).toHaveLength(231);
  const part = (
    await visograph(
      'report',
      demo,
      'cables',
      '--scope',
      'Kelder Quay/Harbour House/Ground/Baggage',
      '--format',
      'csv',
    )
  ).out
    .trim()
    .split('\r\n');
  expect(part).toHaveLength(1 + 12 + 4);
  expect((await visograph('report', demo, 'nothing')).err).toContain('There are: cables, patch-list');
});

test('draw writes SVG with text as text', async () => {
  const path = join(folder, 'x.svg');
  expect(
    (
      await visograph(
        'draw',
        demo,
        '--projection',
        'cabling',
        '--scope',
        'Kelder Quay/Harbour House/Ground/Data room',
        '--out',
        path,
      )
    ).code,
  ).toBe(0);
  const svg = readFileSync(path, 'utf8');
  expect(svg).toContain('>kq-core-1</text>');
  expect(svg.match(/<\/svg>/g)).toHaveLength(1);
  expect((await visograph('draw', demo, '--projection', 'elevation', '--rack', 'KQ-A1')).out).toContain(
    'KQ-A1 · rear',
  );
  expect((await visograph('draw', demo, '--projection', 'pictures')).code).toBe(2);
});

test('words it does not know: usage on standard error, exit 2', async () => {
  expect(await visograph('frobnicate', demo)).toMatchObject({
    code: 2,
    out: '',
    err: expect.stringContaining('There is no command frobnicate'),
  });
  expect((await visograph('check', demo, '--colour')).code).toBe(2);
});
