/** Brings what is missing: npm packages, Debian's PostgreSQL and Chromium. Uses nothing that needs installing. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { say, stopWith } from './say.mjs';

export const root = resolve(import.meta.dirname, '..');
export const isRoot = process.getuid?.() === 0;

const run = (command, args, options = {}) =>
  spawnSync(command, args, { cwd: root, stdio: ['ignore', 2, 2], ...options }).status === 0;

/** Installs the packages of the lock file, once for each lock file. */
export function ensurePackages() {
  const major = Number(process.versions.node.split('.')[0]);
  if (major < 20) stopWith(`Visograph needs Node.js 20 or newer; this is ${process.versions.node}.`);
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules', '.visograph-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  say('Installing packages (once) …');
  if (!run('npm', ['ci', '--no-audit', '--no-fund']))
    stopWith('npm ci failed. Read its messages above, mend what they name, and start again.');
  writeFileSync(stamp, lock);
}

function aptInstall(packages, what) {
  const command = `apt-get install -y ${packages.join(' ')}`;
  if (!isRoot || !existsSync('/usr/bin/apt-get')) {
    stopWith(`${what} is not installed. Run this once, then start again:\n\n    sudo ${command}\n`);
  }
  say(`Installing ${what} (once) …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const options = { env, stdio: ['ignore', 'ignore', 2] };
  run('apt-get', ['update', '-qq'], options);
  if (!run('apt-get', ['install', '-y', '-qq', ...packages], options))
    stopWith(`${what} could not be installed. Run this by hand: ${command}`);
}

function versionsAt(base) {
  if (!existsSync(base)) return [];
  return readdirSync(base)
    .filter((version) => existsSync(join(base, version, 'bin/postgres')))
    .sort((a, b) => Number(b) - Number(a));
}

/** The folder of PostgreSQL's programs: the newest of at least 15, or the one a data folder needs. */
export function ensurePostgres(version = null) {
  const base = '/usr/lib/postgresql';
  const pick = () =>
    versionsAt(base).find((found) => (version === null ? Number(found) >= 15 : found === version));
  if (pick() === undefined)
    aptInstall(
      version === null ? ['postgresql'] : [`postgresql-${version}`],
      `PostgreSQL${version === null ? '' : ` ${version}`}`,
    );
  const found = pick();
  if (found === undefined)
    stopWith(
      `PostgreSQL ${version ?? '15 or newer'} was not found below ${base} after installing it. Set DATABASE_URL to use another server.`,
    );
  return join(base, found, 'bin');
}

export function ensureChromium() {
  const path = process.env.CHROMIUM ?? '/usr/bin/chromium';
  if (!existsSync(path)) aptInstall(['chromium'], 'Chromium');
  return path;
}
