import { type Change } from '@visograph/core/change';
import { newId, newProject } from '@visograph/core/model';
import { chromium, type Browser, type Page } from '@playwright/test';
import { join } from 'node:path';
import pg from 'pg';
import { addAccount, setMember } from '../src/people/accounts.ts';
import { ProjectRow } from '../src/database/rows.ts';
import { startServer, type RunningServer } from '../src/server.ts';
import { measured, median, type Yardstick } from './figures.ts';

export interface Bench {
  server: RunningServer;
  projectId: string;
  browser: Browser;
  page: Page;
  close: () => Promise<void>;
}

/** The built application on a database of its own with one project of these rows, in a real browser, signed in. */
export async function openBench(database: string, changes: Change[]): Promise<Bench> {
  const admin = process.env['VISOGRAPH_TEST_DATABASE'] ?? '';
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  await client.query(`DROP DATABASE IF EXISTS ${database} WITH (FORCE)`);
  await client.query(`CREATE DATABASE ${database}`);
  const server = await startServer({
    databaseUrl: Object.assign(new URL(admin), { pathname: `/${database}` }).href,
    port: 0,
    logLevel: 'silent',
    webFolder: join(process.cwd(), 'packages/web/dist'),
  });
  const { knex, store } = server;
  const projectId = newId();
  await ProjectRow.query(knex).insert(newProject('Bench', projectId));
  const done = await store.write(
    projectId,
    null,
    { id: null, name: 'Bench' },
    { id: newId(), sentence: 'Generated', changes },
  );
  if (!done.ok) throw new Error(done.problems[0]?.message);
  const person = await addAccount(knex, {
    email: 'bench@bench.example',
    name: 'Bench',
    password: 'bench bench bench',
  });
  await setMember(knex, projectId, person.id, 'owner');
  const browser = await launch();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(server.url);
  await page.getByLabel('E-mail').fill('bench@bench.example');
  await page.getByLabel('Password').fill('bench bench bench');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('link', { name: 'Places' }).waitFor();
  return {
    server,
    projectId,
    browser,
    page,
    close: async () => {
      await browser.close();
      await server.stop();
      await client.query(`DROP DATABASE ${database} WITH (FORCE)`);
      await client.end();
    },
  };
}

const launch = (): Promise<Browser> =>
  chromium.launch({
    executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });

/** The frame of a page with nothing on it: below it no frame of ours can be. */
export async function emptyFrame(): Promise<Yardstick> {
  const browser = await launch();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const seen = await frames(page, () => page.waitForTimeout(1500));
  await browser.close();
  return measured('the frame of an empty page', median(seen));
}

/** Frame times in milliseconds while the work goes on. */
declare global {
  /** What the pages of the bench note of themselves. */
  interface Window {
    firstPaint?: number;
    watching?: boolean;
    seenFrames?: number[];
    dropMs?: number;
  }
}

export async function frames(of: Page, work: () => Promise<void>): Promise<number[]> {
  await of.evaluate(() => {
    const seen: number[] = [];
    Object.assign(window, { seenFrames: seen, watching: true });
    let last = performance.now();
    const step = (): void => {
      const now = performance.now();
      seen.push(now - last);
      last = now;
      if (window.watching === true) requestAnimationFrame(step);
    };
    requestAnimationFrame(step);
  });
  await work();
  return of.evaluate(() => {
    Object.assign(window, { watching: false });
    return (window.seenFrames ?? []).slice(2);
  });
}
