/** `visograph check`: findings in words, as JSON or as a test report, so that a document can fail a build. */
import {
  checkNetwork,
  dayOf,
  isDay,
  meantIn,
  rules,
  sinceThen,
  type SinceThen,
  type ToldFinding,
} from '@visograph/core/check';
import { inForce } from '@visograph/core/lens';
import { XMLBuilder } from 'fast-xml-parser';
import { openFile } from './openFile.ts';
import { asJson, refuse, type Command } from './command.ts';

/** From which severity on a finding makes the command fail. */
const failures = { bad: ['bad'], warn: ['bad', 'warn'], none: [] } as const;
type FailOn = keyof typeof failures;
const isFailOn = (text: string): text is FailOn => Object.hasOwn(failures, text);
const formats = ['text', 'json', 'junit'] as const;
const isFormat = (text: string): text is (typeof formats)[number] =>
  formats.some((format) => format === text);

const shown = ({ rule, severity, about, message, waiver }: ToldFinding) => ({
  ...{ rule, severity, about, message },
  ...(waiver === null ? {} : { waiver }),
});

/** What is judged: against an earlier document only what is fresh counts. */
interface Judged extends SinceThen {
  failOn: FailOn;
  /** What is meant to be so, where that is asked for. */
  waived: readonly ToldFinding[];
  since: string | null;
}
const failing = ({ fresh, failOn }: Judged): ToldFinding[] => {
  const levels: readonly string[] = failures[failOn];
  return fresh.filter(({ severity }) => levels.includes(severity));
};

/** Letters that XML 1.0 cannot hold (section 2.2) become the one that stands for such. */
const inXml = (text: string): string =>
  // eslint-disable-next-line no-control-regex -- these are the letters in question
  text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|\p{Surrogate}/gu, '\ufffd');

interface TestCase {
  '@classname': string;
  '@name': string;
  failure?: { '@type': string; '@message': string };
  skipped?: { '@message': string };
  'system-out'?: string;
}

/**
 * The findings as test cases in the XML that builds read: of each rule its findings, or one case that passed. What was
 * there before, or is not bad enough to fail, passes or is skipped and says so.
 */
function testReport(judged: Judged): string {
  const failed = new Set(failing(judged));
  const before = new Set(judged.stayed);
  const all = [...judged.fresh, ...judged.stayed, ...judged.waived];
  const cases = rules.flatMap(({ key, title }): TestCase[] => {
    const own = all.filter(({ rule }) => rule === key);
    if (own.length === 0) return [{ '@classname': key, '@name': inXml(title) }];
    return own.map((finding) => {
      const named = { '@classname': key, '@name': inXml(finding.about[0] ?? title) };
      const message = inXml(finding.message);
      if (failed.has(finding))
        return { ...named, failure: { '@type': finding.severity, '@message': message } };
      if (finding.waiver !== null)
        return { ...named, skipped: { '@message': inXml(`Meant: ${finding.waiver.reason}`) } };
      if (before.has(finding))
        return { ...named, skipped: { '@message': inXml(`In ${judged.since ?? ''} already: ${message}`) } };
      return { ...named, 'system-out': `${finding.severity}: ${message}` };
    });
  });
  const counts = {
    '@tests': cases.length,
    '@failures': failed.size,
    '@errors': 0,
    '@skipped': cases.filter(({ skipped }) => skipped !== undefined).length,
  };
  const builder = new XMLBuilder({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    format: true,
    suppressEmptyNode: true,
  });
  const suite = { '@name': 'visograph check', ...counts, testcase: cases };
  return builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    testsuites: { ...counts, testsuite: suite },
  });
}

function inWords(judged: Judged): string {
  const { fresh, stayed, gone, since, waived } = judged;
  const line = (finding: ToldFinding): string =>
    `${finding.severity}  ${finding.about[0] ?? ''}  ${finding.message}\n`;
  const meant = waived
    .map(
      (finding) => `meant  ${finding.about[0] ?? ''}  ${finding.message} (${finding.waiver?.reason ?? ''})\n`,
    )
    .join('');
  if (since === null) return (fresh.length === 0 ? 'No findings.\n' : fresh.map(line).join('')) + meant;
  const told = (fresh.length === 0 ? 'No new findings.\n' : fresh.map(line).join('')) + meant;
  return `${told}Since ${since}: ${fresh.length} new, ${stayed.length} as before, ${gone.length} gone.\n`;
}

function inJson({ fresh, stayed, gone, since, waived }: Judged): string {
  const found = {
    problems: [],
    findings: fresh.map(shown),
    ...(waived.length === 0 ? {} : { waived: waived.map(shown) }),
  };
  if (since === null) return asJson(found);
  return asJson({
    ...found,
    stayed: stayed.map(shown),
    gone: gone.map(shown),
  });
}

/** Exit 0: nothing that fails; 1: something does; 2: it cannot be told. */
export const check: Command = async (invocation) => {
  const { network, values, out } = invocation;
  const failOn = values['fail-on'] ?? 'warn';
  if (!isFailOn(failOn))
    return refuse(invocation, '--fail-on', `--fail-on is ${failOn}: say bad, warn or none.`);
  const format = values.json === true ? 'json' : (values.format ?? 'text');
  if (!isFormat(format))
    return refuse(invocation, '--format', `--format is ${format}: say ${formats.join(', ')}.`);
  const { since = null } = values;
  const day = values.on ?? dayOf(new Date());
  if (!isDay(day)) return refuse(invocation, '--on', `--on is ${day}: say a day, such as 2027-03-01.`);
  let found: SinceThen = { fresh: [], stayed: [], gone: [] };
  if (since === null) found.fresh = checkNetwork(network, day);
  else {
    const earlier = await openFile(since);
    if (!earlier.ok) {
      const [problem] = earlier.problems;
      return refuse(
        invocation,
        '--since',
        `--since ${since}: ${problem?.path ?? ''} ${problem?.message ?? ''}`,
      );
    }
    found = sinceThen(
      values.built === true ? inForce(earlier.network, { planned: false }) : earlier.network,
      network,
      day,
    );
  }
  // A test report says of everything what became of it.
  const waived = values.waived === true || format === 'junit' ? meantIn(network, day) : [];
  const judged = { ...found, failOn, since, waived };
  const write = { text: inWords, json: inJson, junit: testReport }[format];
  out(write(judged));
  return failing(judged).length === 0 ? 0 : 1;
};
