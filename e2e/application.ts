/** The built application as `npm start` runs it, on a database of its own, one for each test file that names itself. */
import { test as base, expect, request, type Browser, type Locator, type Page } from '@playwright/test';
import { execFile, spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { promisify } from 'node:util';
import pg from 'pg';

const root = resolve(import.meta.dirname, '..');
export const password = 'ferry-lamp-seven';

export interface Application {
  url: string;
  /** Ends the server and starts it again on the same port and database. */
  restart: (signal?: NodeJS.Signals) => Promise<void>;
  /** Ends the server; `start` brings it back. */
  stop: (signal?: NodeJS.Signals) => Promise<void>;
  start: () => Promise<void>;
  query: (sql: string) => Promise<unknown>;
  /** Starts the simulated account of the demo, which the server may read. Gives where it is, and how it is ended. */
  account: () => Promise<{ url: string; end: () => void }>;
  /** What whoever runs the server does by the command line. */
  tool: (...args: string[]) => Promise<string>;
}

const freePort = (): Promise<number> =>
  new Promise((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address();
      const port = typeof address === 'object' && address !== null ? address.port : 0;
      server.close(() => done(port));
    });
  });

async function withClient(url: string, sql: string): Promise<unknown> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const result = await client.query(sql);
  await client.end();
  return result.rows;
}

async function launch(env: NodeJS.ProcessEnv): Promise<ChildProcess> {
  const child = spawn(process.execPath, [join(root, 'packages/server/dist/main.mjs')], {
    cwd: root,
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((done, fail) => {
    child.once('exit', (code) => fail(new Error(`the server ended with ${code}`)));
    child.stdout?.on('data', (data: Buffer) => String(data).includes('Visograph is ready') && done());
  });
  return child;
}

export const test = base.extend<object, { application: Application; file: string }>({
  /** The name of the test file: another name is another worker, so that no file sees what another one did. */
  file: ['', { scope: 'worker', option: true }],
  application: [
    async ({ file }, use) => {
      const admin = process.env['VISOGRAPH_TEST_DATABASE'] ?? '';
      const name = `e2e_${file}_${randomBytes(6).toString('hex')}`;
      await withClient(admin, `CREATE DATABASE ${name}`);
      const database = new URL(admin);
      database.pathname = `/${name}`;
      const port = await freePort();
      const accountPort = await freePort();
      const env = {
        ...process.env,
        NODE_ENV: 'production',
        DATABASE_URL: database.href,
        PORT: String(port),
        VISOGRAPH_WEB: join(root, 'packages/web/dist'),
        VISOGRAPH_DEMO: join(root, 'demo/marrow-sound-ferries.json'),
        VISOGRAPH_SIGNIN_TRIES: '100',
        VISOGRAPH_SECRET_KEY: randomBytes(32).toString('hex'),
        VISOGRAPH_FIELD_ORIGINS: `http://127.0.0.1:${accountPort}`,
      };
      let child = await launch(env);
      const stop = async (signal: NodeJS.Signals = 'SIGTERM'): Promise<void> => {
        const gone = once(child, 'exit');
        child.kill(signal);
        await gone;
      };
      const start = async (): Promise<void> => {
        child = await launch(env);
      };
      await use({
        url: `http://127.0.0.1:${port}`,
        stop,
        start,
        restart: async (signal) => {
          await stop(signal);
          await start();
        },
        query: (sql) => withClient(database.href, sql),
        account: async () => {
          const simulated = spawn(
            process.execPath,
            [join(root, 'packages/server/dist/field.mjs'), env.VISOGRAPH_DEMO],
            { env: { ...process.env, PORT: String(accountPort) }, stdio: ['ignore', 'pipe', 'inherit'] },
          );
          await once(simulated.stdout, 'data');
          return { url: `http://127.0.0.1:${accountPort}`, end: () => void simulated.kill() };
        },
        tool: async (...args) =>
          (
            await promisify(execFile)(process.execPath, [join(root, 'scripts/visograph.mjs'), ...args], {
              env,
            })
          ).stdout,
      });
      if (child.exitCode === null && child.signalCode === null) await stop();
      await withClient(admin, `DROP DATABASE ${name} WITH (FORCE)`);
    },
    { scope: 'worker' },
  ],
});

export async function signIn(
  page: Page,
  application: Application,
  email = 'anna@marrow.example',
): Promise<void> {
  await page.goto(application.url);
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('button', { name: /^Saved r\d+/ })).toBeVisible();
  await section(page, 'Places');
}

/** A second person in a window of their own. */
export async function another(browser: Browser, application: Application, email: string): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await signIn(page, application, email);
  return page;
}

/** Brings somebody of the demo into a project of whoever sits at the page, by an invitation. */
export async function bringIn(
  page: Page,
  { url }: Application,
  project: string,
  email: string,
  role = 'editor',
): Promise<void> {
  const invited = await page.request.post(`${url}/api/v1/projects/${project}/invitations`, {
    data: { email, role },
  });
  const { key } = (await invited.json()) as { key: string };
  const as = await request.newContext({ baseURL: url });
  await as.post('/api/v1/session', { data: { email, password } });
  const joined = await as.post('/api/v1/invitations/accept', { data: { key } });
  expect(joined.ok()).toBe(true);
  await as.dispose();
}

/** An empty project, opened: nothing in it but the catalogue. */
export async function beginProject(page: Page, application: Application, name: string): Promise<void> {
  await page.goto(application.url);
  await page.getByLabel('E-mail').fill('anna@marrow.example');
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByLabel('Password')).toHaveCount(0);
  await page.goto(`${application.url}/projects`);
  await page.getByLabel('New project').fill(name);
  await page.getByRole('button', { name: 'Begin project' }).click();
  await saved(page);
  await section(page, 'Places');
}

/** Types into the command line and does the first thing offered. */
export async function doLine(page: Page, text: string): Promise<void> {
  await expect(page.getByRole('button', { name: /^Saved r\d+/ })).toBeVisible();
  await page.keyboard.press('/');
  await expect(page.getByRole('combobox', { name: 'Find or do' })).toBeFocused();
  await page.keyboard.type(text);
  const offers = page.getByRole('listbox', { name: 'What the line would do' });
  await expect(offers.getByRole('option').first()).toBeVisible();
  await page.keyboard.press('Enter');
}

/** Waits until the page has come to rest: nothing of it changed for ten frames, no view is on its way. */
export const quiet = (page: Page): Promise<void> =>
  page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        let still = 0;
        const seen = new MutationObserver(() => (still = 0));
        seen.observe(document.body, {
          subtree: true,
          childList: true,
          attributes: true,
          characterData: true,
        });
        const look = (): void => {
          if (++still <= 10) return void requestAnimationFrame(look);
          seen.disconnect();
          resolve();
        };
        look();
      }),
  );

/** Types into a picker that has the focus and takes the first match. */
export async function pick(page: Page, text: string): Promise<void> {
  await page.keyboard.type(text);
  await expect(page.getByRole('listbox').getByRole('option').first()).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
}

export const saved = (page: Page) => expect(page.getByRole('button', { name: /^Saved r\d+/ })).toBeVisible();
/** The record at the right, and a card of it by its title. */
export const record = (page: Page) => page.getByRole('complementary', { name: 'Record' });
export const card = (page: Page, title: string | RegExp) =>
  record(page)
    .locator('section')
    .filter({ has: page.getByRole('heading', { name: title }) });
/** A plate of the sheet by its name. */
export const plate = (page: Page, name: string): Locator =>
  page
    .locator('.react-flow__node-plate')
    .and(page.getByRole('button', { name: new RegExp(`^${name.replace(/[./]/g, '\\$&')}(,|$)`) }));
/** Goes to a section. */
export async function section(page: Page, name: string): Promise<void> {
  const link = page.getByRole('navigation', { name: 'Sections' }).getByRole('link', { name });
  await link.click();
  await expect(link).toHaveAttribute('aria-current', 'page');
}
/** Chooses from the menu More. */
export const more = async (page: Page, item: string): Promise<void> => {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: item }).click();
};
/** Types into a box with a list and takes the first that is offered. */
export const choose = async (box: Locator, text: string): Promise<void> => {
  await box.fill(text);
  await box.page().getByRole('option').first().waitFor();
  // While the list is open, what is around the box is hidden from its roles.
  await box.page().keyboard.press('ArrowDown');
  await box.page().keyboard.press('Enter');
};
/** Finds a device or port by the line, and waits for its record. */
export const find = async (page: Page, name: string): Promise<void> => {
  await doLine(page, name);
  await expect(record(page).getByRole('heading', { name, exact: true, level: 2 })).toBeVisible();
};
/** Waits until a sheet is drawn. */
export const drawn = async (page: Page): Promise<void> => {
  await saved(page);
  await expect(page.getByText('Drawing …')).toHaveCount(0);
};
export { expect };
