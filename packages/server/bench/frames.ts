/** Part of npm run bench: a row of 20 racks in a real browser (headless, software rendering). */
import { create, newId, newProject, type Change } from '@visograph/core';
import { chromium, type Page } from '@playwright/test';
import { join } from 'node:path';
import pg from 'pg';
import { addAccount, setMember } from '../src/accounts/accounts.ts';
import { ProjectRow } from '../src/database/rows.ts';
import { startServer } from '../src/server.ts';
import { rackRoom } from './rackRoom.ts';

const admin = process.env['VISOGRAPH_TEST_DATABASE'] ?? '';
const client = new pg.Client({ connectionString: admin });
await client.connect();
await client.query('DROP DATABASE IF EXISTS bench_frames WITH (FORCE)');
await client.query('CREATE DATABASE bench_frames');
const databaseUrl = Object.assign(new URL(admin), { pathname: '/bench_frames' }).href;
const server = await startServer({
  databaseUrl,
  port: 0,
  logLevel: 'silent',
  webFolder: join(process.cwd(), 'packages/web/dist'),
});
const { knex, store } = server;
const projectId = newId();
await ProjectRow.query(knex).insert(newProject('Bench', projectId));
const room = rackRoom(20, 30, true);
const changes: Change[] = [
  ...room.place.map((row) => create('place', row)),
  ...room.rack.map((row) => create('rack', row)),
  ...room.model.map((row) => create('model', row)),
  ...room.device.map((row) => create('device', row)),
  ...room.port.map((row) => create('port', row)),
];
const done = await store.write(
  projectId,
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

const browser = await chromium.launch({
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
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(server.url);
await page.getByLabel('E-mail').fill('bench@bench.example');
await page.getByLabel('Password').fill('bench bench bench');
await page.getByRole('button', { name: 'Sign in' }).click();
const rackId = room.rack[0]?.id ?? '';
await page.getByRole('link', { name: 'Places' }).waitFor();
await page.goto(
  `${server.url}/p/${projectId}/places?scope=${room.rack[0]?.placeId ?? ''}&rack=${rackId}&beside=room`,
);
await page.getByText('20 racks · elevations').waitFor();
await page.waitForTimeout(1500);

const sorted = (values: number[]): number[] => [...values].sort((a, b) => a - b);
const at = (values: number[], share: number): number =>
  sorted(values)[Math.floor(values.length * share)] ?? 0;

/** Frame times in milliseconds while the work goes on. */
async function frames(of: Page, work: () => Promise<void>): Promise<number[]> {
  await of.evaluate(() => {
    const seen: number[] = [];
    Object.assign(window, { seenFrames: seen, watching: true });
    let last = performance.now();
    const step = (): void => {
      const now = performance.now();
      seen.push(now - last);
      last = now;
      if ((window as unknown as { watching: boolean }).watching) requestAnimationFrame(step);
    };
    requestAnimationFrame(step);
  });
  await work();
  return of.evaluate(() => {
    Object.assign(window, { watching: false });
    return (window as unknown as { seenFrames: number[] }).seenFrames.slice(2);
  });
}
const bench = await page.locator('[data-bench]').boundingBox();
const centre = { x: (bench?.x ?? 0) + (bench?.width ?? 0) / 2, y: (bench?.y ?? 0) + 30 };
const pan = async (): Promise<void> => {
  await page.mouse.move(centre.x, centre.y);
  await page.mouse.down();
  for (let step = 0; step < 90; step++) {
    await page.mouse.move(centre.x + Math.sin(step / 9) * 160, centre.y + Math.cos(step / 9) * 40);
    await page.waitForTimeout(8);
  }
  await page.mouse.up();
};
const zoom = async (by: number, count: number): Promise<void> => {
  await page.mouse.move(centre.x, centre.y + 200);
  for (let step = 0; step < count; step++) {
    await page.mouse.wheel(0, by);
    await page.waitForTimeout(16);
  }
};
const figures: { work: string; value: number; unit: string; budget: number | null }[] = [];
const note = (work: string, values: number[], far = true): void => {
  figures.push({ work: `${work}, median frame`, value: at(values, 0.5), unit: 'ms', budget: 17 });
  if (far) figures.push({ work: `${work}, p95`, value: at(values, 0.95), unit: 'ms', budget: 34 });
};
const size = `${room.rack.length} racks, ${room.device.length} devices, ${room.port.length} ports`;
note(`pan all of ${size}`, await frames(page, pan));
note('  zoom in', await frames(page, () => zoom(-60, 40)));
await page.waitForTimeout(400);
note('  pan at that zoom', await frames(page, pan));
note('  zoom out', await frames(page, () => zoom(60, 40)));

// A drop, from letting go to the server's word.
await page.goto(`${server.url}/p/${projectId}/places?scope=${room.rack[0]?.placeId ?? ''}&rack=${rackId}`);
const trips: number[] = [];
for (let turn = 0; turn < 7; turn++) {
  const device = page.getByRole('button', { name: new RegExp(`^rr-1-${turn + 1}, `) }).first();
  const free = page.getByRole('button', { name: `Unit ${32 + turn}, free: add a device` });
  await device.waitFor();
  await page.waitForTimeout(300);
  const [from, to] = [await device.boundingBox(), await free.boundingBox()];
  if (from === null || to === null) throw new Error('not on screen');
  await page.mouse.move(from.x + 60, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + 70, from.y + 20);
  await page.mouse.move(to.x + 70, to.y + to.height / 2, { steps: 4 });
  await page.evaluate(() => {
    const label = (): string =>
      document.querySelector('button[aria-label^="Saved"], header')?.textContent ?? '';
    Object.assign(window, { dropMs: 0 });
    window.addEventListener(
      'pointerup',
      () => {
        const started = performance.now();
        const before = /r\d+/.exec(label())?.[0];
        const watch = new MutationObserver(() => {
          const now = /Saved r\d+/.exec(label())?.[0];
          if (now === undefined || now.endsWith(` ${before ?? ''}`)) return;
          Object.assign(window, { dropMs: performance.now() - started });
          watch.disconnect();
        });
        watch.observe(document.body, { subtree: true, childList: true, characterData: true });
      },
      { once: true, capture: true },
    );
  });
  await page.mouse.up();
  await page.waitForFunction(() => (window as unknown as { dropMs: number }).dropMs > 0);
  trips.push(await page.evaluate(() => (window as unknown as { dropMs: number }).dropMs));
}
figures.push({
  work: 'a drop until the server has confirmed it, median',
  value: at(trips, 0.5),
  unit: 'ms',
  budget: 150,
});

await browser.close();
await server.stop();
await client.query('DROP DATABASE bench_frames WITH (FORCE)');
await client.end();
if (process.argv.includes('--json')) console.log(JSON.stringify({ figures }, null, 2));
else
  for (const { work, value, unit, budget } of figures)
    console.log(
      `${budget === null || value <= budget ? '  ' : '! '}${work.padEnd(74)} ${value.toFixed(1).padStart(7)} ${unit}  (budget ${budget ?? ''})`,
    );
process.exit(0);
