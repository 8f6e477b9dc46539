import { describe, expect, test } from '@jest/globals';
import { fileURLToPath } from 'node:url';
import { run } from './run.ts';

const demo = fileURLToPath(new URL('../../../demo/marrow-sound-ferries.json', import.meta.url));
async function visograph(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let [out, err] = ['', ''];
  const code = await run(
    args,
    (text) => (out += text),
    (text) => (err += text),
  );
  return { code, out, err };
}

describe('parts', () => {
  test('a list of the file as CSV, its sum, and what to look at', async () => {
    const { code, out, err } = await visograph(
      'parts',
      demo,
      '--list',
      'otterslip second link',
      '--on',
      '2026-11-30',
    );
    expect(code).toBe(0);
    expect(out).toMatch(/^\uFEFF?Section,Part,/);
    expect(out).toContain('Devices,Norvane WB-60,NV-WB60,,2,0,1,1,0,2,1,2,684,1368,Harrow Marine Supplies');
    expect(err).toContain('5 898.80 EUR');
    expect(err).toContain('look: Cat 6A RJ45, 15 m: 5 are ordered for 2, as they come in packs of 5.');
  });

  test('as JSON, grouped by supplier; of a place without a list; wrong names are told', async () => {
    const json = await visograph(
      'parts',
      demo,
      '--list',
      'Otterslip second link',
      '--by',
      'supplier',
      '--json',
    );
    const told = JSON.parse(json.out) as { groups: { title: string }[] };
    expect(told.groups.map(({ title }) => title)).toContain('Harrow Marine Supplies');
    const place = await visograph('parts', demo, '--scope', 'Brinsay');
    expect([place.code, place.err]).toEqual([0, '0.00 EUR\n']);
    const wrong = await visograph('parts', demo, '--list', 'Nothing');
    expect([wrong.code, wrong.err]).toEqual([
      2,
      expect.stringContaining('There are: Everything in place, Otterslip'),
    ]);
    expect((await visograph('parts', demo, '--by', 'colour')).err).toContain('section, supplier, place');
    expect((await visograph('parts', demo, '--on', 'soon')).code).toBe(2);
    expect((await visograph('parts', demo, '--scope', 'Nowhere')).code).toBe(2);
  });
});

describe('labels', () => {
  test('texts in the order of the walk, both ends of a cable', async () => {
    const { code, out } = await visograph('labels', demo, 'cables', '--scope', 'Brinsay');
    expect(code).toBe(0);
    expect(out.split('\r\n').length).toBeGreaterThan(10);
    expect(out).toMatch(/BR-\d{5}/);
    const json = await visograph('labels', demo, 'racks', '--json');
    const { labels } = JSON.parse(json.out) as { labels: { kind: string; lines: string[] }[] };
    expect(labels.map(({ lines }) => lines[0])).toContain('KQ-A1');
    expect((await visograph('labels', demo, 'boats')).err).toContain(
      'cables, devices, ports, racks, outlets',
    );
  });
});
