/** npm test: installs what is missing, then lint, types, unit and integration tests, and the real interface; one closing line. */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureChromium, ensurePackages, root } from './install.mjs';

ensurePackages();
const chromium = ensureChromium();
const { openCluster } = await import('./postgres.mjs');
const { buildServer, buildWeb, jobProcess } = await import('./build.mjs');

const results = join(root, '.visograph/test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const cluster = await openCluster('test-database', { careless: true, fresh: true });
const env = {
  ...process.env,
  VISOGRAPH_TEST_DATABASE: cluster.url('postgres'),
  CHROMIUM: chromium,
  VISOGRAPH_RESULTS: results,
  VISOGRAPH_JOB_PROCESS: jobProcess,
};

const tally = { passed: 0, failed: 0 };
const run = (title, command, args) =>
  new Promise((done) => {
    console.log(`\n== ${title}`);
    const started = Date.now();
    const child = spawn(command, args, { cwd: root, env, stdio: ['ignore', 'inherit', 'inherit'] });
    child.on('exit', (code, signal) => {
      const how = code === 0 ? 'fine' : `failed (${signal ?? `exit ${code}`})`;
      console.log(`-- ${title}: ${how} in ${Math.round((Date.now() - started) / 1000)} s`);
      done(code === 0);
    });
  });
const count = (fine) => (fine ? tally.passed++ : tally.failed++);
const bin = (name) => join(root, 'node_modules/.bin', name);

function countJest(fine) {
  const file = join(results, 'jest.json');
  if (!existsSync(file)) return count(false);
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(
    readFileSync(file, 'utf8'),
  );
  tally.passed += numPassedTests;
  tally.failed += numFailedTests + numRuntimeErrorTestSuites;
  if (!fine && numFailedTests + numRuntimeErrorTestSuites === 0) count(false);
}
function countPlaywright(fine) {
  const file = join(results, 'playwright.json');
  if (!existsSync(file)) return count(false);
  const { stats } = JSON.parse(readFileSync(file, 'utf8'));
  // What passed only when it was tried again did not pass.
  tally.passed += stats.expected;
  tally.failed += stats.unexpected + stats.flaky;
  if (!fine && stats.unexpected + stats.flaky === 0) count(false);
}

try {
  count(await run('lint', bin('eslint'), ['.', '--max-warnings', '0', '--concurrency', '2']));
  count(await run('format', bin('prettier'), ['--check', '.', '--log-level', 'warn']));
  count(await run('types', bin('tsc'), ['--noEmit', '-p', 'tsconfig.json']));
  const jest = [
    '--experimental-vm-modules',
    '--no-warnings',
    'node_modules/jest/bin/jest.js',
    '--maxWorkers=2',
    '--json',
    '--outputFile',
    join(results, 'jest.json'),
  ];
  await buildServer();
  countJest(await run('unit and integration tests', process.execPath, jest));
  count(await run('abuse, in short', process.execPath, [join(root, 'scripts/abuse.mjs'), '--short']));
  await buildWeb();
  countPlaywright(
    await run('the real interface', bin('playwright'), ['test', '--config', 'e2e/playwright.config.ts']),
  );
} catch (error) {
  console.error(error);
  tally.failed++;
} finally {
  await cluster.stop();
}
console.log(`\n${tally.passed} passed, ${tally.failed} failed`);
process.exit(tally.failed === 0 ? 0 : 1);
