/** A document that fails a build: from which severity on, against an earlier one, and as a test report. */
import { describe, expect, test } from '@jest/globals';
import { factMark } from '@visograph/core/check';
import { JSDOM } from 'jsdom';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from './run.ts';

const folder = mkdtempSync(join(tmpdir(), 'visograph-check-'));
interface Cable {
  label: string;
  a?: string;
  b?: string;
}
const fileOf = (name: string, ...cables: Cable[]): string => {
  const ports = Array.from({ length: 12 }, (_, at) => ({ name: `${at + 1}` }));
  const path = join(folder, name);
  const devices = [{ name: 'ah-acc-1', role: 'SW', ports }];
  writeFileSync(path, JSON.stringify({ format: 'visograph-exchange', version: 1, devices, cables }));
  return path;
};
const open = (label: string, port: number): Cable => ({ label, a: `ah-acc-1:${port}` });
const whole = (label: string, port: number): Cable => ({ ...open(label, port), b: `ah-acc-1:${port + 1}` });
const check = async (...args: string[]) => {
  let [out, err] = ['', ''];
  const code = await run(
    ['check', ...args],
    (text) => (out += text),
    (text) => (err += text),
  );
  return { code, out, err };
};
const clean = fileOf('clean.json', whole('C-1', 1), whole('C-2', 3));
/** A label that is missing, to be looked at; and one more with an open end, which is bad. */
const gap = fileOf('gap.json', whole('C-1', 1), whole('C-3', 3));
const bad = fileOf('bad.json', open('C-1', 1), whole('C-3', 3));

describe('what makes it fail', () => {
  test.each([
    [clean, [], 0],
    [gap, [], 1],
    [gap, ['--fail-on', 'warn'], 1],
    [gap, ['--fail-on', 'bad'], 0],
    [bad, ['--fail-on', 'bad'], 1],
    [bad, ['--fail-on', 'none'], 0],
  ])('%s %j: exit %i', async (path, args, code) => {
    const result = await check(path, ...args);
    expect(result.code).toBe(code);
    // What does not fail is told all the same.
    expect(result.out === 'No findings.\n').toBe(path === clean);
  });

  test('against an earlier document only what is new', async () => {
    const same = await check(bad, '--since', bad);
    expect([same.code, same.out]).toEqual([
      0,
      `No new findings.\nSince ${bad}: 0 new, 2 as before, 0 gone.\n`,
    ]);
    const more = await check(bad, '--since', gap);
    expect(more.code).toBe(1);
    expect(more.out).toMatch(
      /^bad {2}cable C-1 {2}C-1 is plugged in at ah-acc-1:1 only.*\nSince .*: 1 new, 1 as before, 0 gone\.\n$/,
    );
    const mended = await check(clean, '--since', bad, '--format', 'json');
    expect(mended.code).toBe(0);
    expect(JSON.parse(mended.out)).toMatchObject({
      ...{ problems: [], findings: [], stayed: [] },
      gone: [{ rule: 'cable-one-end', about: ['cable C-1', 'device ah-acc-1'] }, { rule: 'label-gap' }],
    });
  });

  test('what cannot be told is refused, and says what to say', async () => {
    for (const [args, words] of [
      [['--fail-on', 'everything'], '--fail-on is everything: say bad, warn or none.'],
      [['--format', 'pdf'], '--format is pdf: say text, json, junit.'],
      [['--since', join(folder, 'none.json')], 'there is no such file'],
    ] as const) {
      const refused = await check(clean, ...args);
      expect([refused.code, refused.out]).toEqual([2, '']);
      expect(refused.err).toContain(words);
      const asJson = await check(clean, ...args, '--json');
      if (args[0] !== '--format')
        expect(JSON.parse(asJson.out)).toMatchObject({ problems: [{ path: args[0] }] });
    }
  });
});

describe('as a test report', () => {
  const report = async (...args: string[]) => {
    const { out, code } = await check(...args, '--format', 'junit');
    const { document } = new JSDOM(out, { contentType: 'text/xml' }).window;
    const cases = [...document.querySelectorAll('testcase')];
    const of = (rule: string) =>
      cases
        .filter((one) => one.getAttribute('classname') === rule)
        .map((one) => [one.getAttribute('name'), one.firstElementChild?.tagName ?? 'passed']);
    const suite = document.querySelector('testsuite');
    const counts = ['tests', 'failures', 'skipped'].map((name) => Number(suite?.getAttribute(name)));
    return { code, out, cases, of, counts };
  };

  test('each rule is a case that passed, or its findings are', async () => {
    const fine = await report(clean);
    expect([fine.code, fine.counts]).toEqual([0, [fine.cases.length, 0, 0]]);
    expect(fine.of('cable-one-end')).toEqual([['Cable with an end left open', 'passed']]);
    const found = await report(bad, '--fail-on', 'bad');
    expect([found.code, found.counts]).toEqual([1, [fine.cases.length, 1, 0]]);
    expect(found.of('cable-one-end')).toEqual([['cable C-1', 'failure']]);
    expect(found.of('label-gap')).toEqual([['cable C-2', 'system-out']]);
    expect(
      found.cases.find((one) => one.querySelector('failure'))?.firstElementChild?.getAttribute('message'),
    ).toContain('the B end is open');
  });

  test('what was there before is skipped', async () => {
    const { of, code, counts } = await report(bad, '--since', gap);
    expect([code, counts.slice(1)]).toEqual([1, [1, 1]]);
    expect([of('cable-one-end'), of('label-gap')]).toEqual([
      [['cable C-1', 'failure']],
      [['cable C-2', 'skipped']],
    ]);
  });

  test('names of any letters are read back as they are', async () => {
    const odd = `C-<"&'>-Ω-€ 1`;
    const { of } = await report(fileOf('odd.json', open(odd, 1)));
    expect(of('cable-one-end')).toEqual([[`cable ${odd}`, 'failure']]);
  });
});

describe('the day, and what is meant', () => {
  const document = (name: string, more: object): string => {
    const path = join(folder, name);
    writeFileSync(path, JSON.stringify({ format: 'visograph-exchange', version: 1, ...more }));
    return path;
  };
  const ending = document('ending.json', {
    devices: [{ name: 'ah-acc-1', role: 'SW', supportUntil: '2027-03-31' }],
  });

  test('what comes with the calendar is judged on the day that is named', async () => {
    expect((await check(ending, '--on', '2026-03-30')).out).toBe('No findings.\n');
    expect((await check(ending, '--on', '2026-03-31')).out).toMatch(/^warn {2}device ah-acc-1/);
    const late = await check(ending, '--on', '2027-03-31', '--fail-on', 'bad');
    expect([late.code, late.out]).toEqual([1, expect.stringMatching(/^bad {2}device ah-acc-1/)]);
  });

  test('what is no day is refused', async () => {
    const odd = await check(ending, '--on', '2027-02-30');
    expect([odd.code, odd.err]).toEqual([2, '--on is 2027-02-30: say a day, such as 2027-03-01.\n']);
  });

  test('a waiver holds until its last day: it fails nothing, is listed when asked for and skipped in a report', async () => {
    // The mark of the facts of this finding, as a file that the application wrote holds it.
    const waivers = [
      {
        rule: 'support-contract-ends',
        about: ['device ah-acc-1'],
        facts: factMark({ on: '2027-03-31' }),
        reason: 'its successor is ordered',
        by: 'Anna',
        since: '2026-11-30',
        until: '2027-06-30',
      },
    ];
    const meant = document('meant.json', {
      devices: [{ name: 'ah-acc-1', role: 'SW', supportUntil: '2027-03-31' }],
      waivers,
    });
    expect(await check(meant, '--on', '2027-04-01')).toMatchObject({ code: 0, out: 'No findings.\n' });
    const asked = await check(meant, '--on', '2027-04-01', '--waived');
    expect(asked.out).toContain('meant  device ah-acc-1');
    expect(asked.out).toContain('(its successor is ordered)');
    const json = JSON.parse((await check(meant, '--on', '2027-04-01', '--waived', '--json')).out) as {
      waived: { waiver: { reason: string; until: string } }[];
    };
    expect(json.waived.map(({ waiver }) => [waiver.reason, waiver.until])).toEqual([
      ['its successor is ordered', '2027-06-30'],
    ]);
    const report = await check(meant, '--on', '2027-04-01', '--format', 'junit');
    const [skipped] = new JSDOM(report.out, { contentType: 'text/xml' }).window.document.getElementsByTagName(
      'skipped',
    );
    expect([report.code, skipped?.getAttribute('message')]).toEqual([0, 'Meant: its successor is ordered']);
    expect((await check(meant, '--on', '2027-07-01')).code).toBe(1);
  });
});
