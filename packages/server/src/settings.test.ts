import { describe, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import { readSettings, settings } from './settings.ts';

const enough = { DATABASE_URL: 'postgres://a:b@localhost/c' };
const problems = (env: Record<string, string>): string[] => {
  const read = readSettings({ ...enough, ...env });
  return read.ok ? [] : read.problems;
};

describe('settings', () => {
  test('are as usual where nothing is said', () => {
    const read = readSettings(enough);
    expect(read.ok && read.settings).toMatchObject({
      ...{ PORT: 4400, VISOGRAPH_HOST: '127.0.0.1', VISOGRAPH_SECURE_COOKIES: 'auto' },
      ...{ VISOGRAPH_SIGNIN_TRIES: 10, VISOGRAPH_SHORT_WORKERS: 2, VISOGRAPH_JOB_MB: 1500 },
    });
    expect(read.ok && read.settings.VISOGRAPH_METRICS_PORT).toBeUndefined();
    // An empty one is not set.
    expect(readSettings({ ...enough, PORT: '', VISOGRAPH_WEB: '' })).toEqual(read);
  });

  test('are read as what they are', () => {
    const read = readSettings({
      ...enough,
      ...{ PORT: '0', VISOGRAPH_HOST: '::', VISOGRAPH_TRUSTED_PROXIES: 'loopback, 10.0.0.0/8,2001:db8::1' },
      ...{ VISOGRAPH_TLS_CERT: '/a.pem', VISOGRAPH_TLS_KEY: '/b.pem', VISOGRAPH_METRICS_PORT: '9100' },
    });
    expect(read.ok && read.settings).toMatchObject({
      ...{ PORT: 0, VISOGRAPH_HOST: '::', VISOGRAPH_METRICS_PORT: 9100 },
      VISOGRAPH_TRUSTED_PROXIES: ['loopback', '10.0.0.0/8', '2001:db8::1'],
    });
  });

  test.each([
    ['PORT', '70000'],
    ['PORT', '44OO'],
    ['PORT', '-1'],
    ['DATABASE_URL', 'mysql://x'],
    ['VISOGRAPH_HOST', 'example.org'],
    ['VISOGRAPH_TRUSTED_PROXIES', 'everybody'],
    ['VISOGRAPH_SECURE_COOKIES', 'yes'],
    ['VISOGRAPH_LOG', 'loud'],
    ['VISOGRAPH_JOB_MB', '12'],
    ['VISOGRAPH_SHORT_WORKERS', '1.5'],
  ] as const)('%s as “%s” is named, with what it is to be', (name, value) => {
    expect(problems({ [name]: value })).toEqual([
      `${name} is “${value}”: set it to ${settings[name].wanted}.`,
    ]);
  });

  test('all that is wrong is told at once: what is missing, half, or no setting', () => {
    expect(readSettings({ PORT: 'x', VISOGRAPH_TLS_KEY: '/k', VISOGRAPH_WOKERS: '2' })).toEqual({
      ok: false,
      problems: [
        expect.stringContaining('DATABASE_URL is not set'),
        expect.stringContaining('PORT is “x”'),
        'VISOGRAPH_WOKERS is no setting. docs/operation.md names those that there are.',
        'VISOGRAPH_TLS_CERT and VISOGRAPH_TLS_KEY belong together: set both, or neither.',
      ],
    });
  });

  test('of mail belong together', () => {
    const mail = { VISOGRAPH_MAIL_SERVER: 'smtps://mail.example:465' };
    const whole = {
      ...mail,
      VISOGRAPH_MAIL_FROM: 'nets@mail.example',
      VISOGRAPH_ADDRESS: 'https://nets.example',
    };
    const read = (more: object) => readSettings({ DATABASE_URL: 'postgres://localhost/x', ...more });
    expect(read(whole).ok).toBe(true);
    expect(read(mail)).toMatchObject({
      ok: false,
      problems: [expect.stringContaining('needs VISOGRAPH_MAIL_FROM')],
    });
    for (const wrong of [
      { VISOGRAPH_MAIL_SERVER: 'http://mail.example' },
      { VISOGRAPH_MAIL_FROM: 'nobody' },
      { VISOGRAPH_ADDRESS: 'ftp://nets.example' },
      { VISOGRAPH_DELETED_DAYS: '0' },
    ]) {
      const [name = ''] = Object.keys(wrong);
      expect(read({ ...whole, ...wrong })).toMatchObject({
        ok: false,
        problems: [expect.stringContaining(`${name} is “`)],
      });
    }
  });

  test('are all in docs/operation.md, with what they usually are', async () => {
    const text = await readFile(new URL('../../../docs/operation.md', import.meta.url), 'utf8');
    const rows = text.split('\n').filter((line) => line.startsWith('| `'));
    for (const [name, { about, usually }] of Object.entries(settings)) {
      const row =
        rows
          .find((line) => line.startsWith(`| \`${name}\``))
          ?.split('|')
          .map((cell) => cell.trim()) ?? [];
      expect([name, row[2], row[3]]).toEqual([name, usually === '' ? '' : `\`${usually}\``, about]);
    }
    expect(rows).toHaveLength(Object.keys(settings).length);
  });
});
