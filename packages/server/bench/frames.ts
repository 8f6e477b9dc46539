/** Part of npm run bench: a row of 20 racks in a real browser (headless, software rendering). */
import { create, type Change } from '@visograph/core/change';
import { emptyFrame, frames, openBench } from './browser.ts';
import { at, Report } from './figures.ts';
import { rackRoom } from './rackRoom.ts';

const room = rackRoom(20, 30, true);
const changes: Change[] = [
  ...room.place.map((row) => create('place', row)),
  ...room.rack.map((row) => create('rack', row)),
  ...room.model.map((row) => create('model', row)),
  ...room.device.map((row) => create('device', row)),
  ...room.port.map((row) => create('port', row)),
];
const bench = await openBench('bench_frames', changes);
const { page, server, projectId } = bench;
const rackId = room.rack[0]?.id ?? '';
await page.getByRole('link', { name: 'Places' }).waitFor();
await page.goto(
  `${server.url}/p/${projectId}/places?scope=${room.rack[0]?.placeId ?? ''}&rack=${rackId}&beside=room`,
);
await page.getByText('20 racks · elevations').waitFor();
await page.waitForTimeout(1500);

const surface = await page.locator('[data-bench]').boundingBox();
const centre = { x: (surface?.x ?? 0) + (surface?.width ?? 0) / 2, y: (surface?.y ?? 0) + 30 };
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
const report = new Report(await emptyFrame());
const note = (work: string, values: number[]): void => {
  report.note(`${work}, median frame`, at(values, 0.5), 'ms', 17);
  report.note(`${work}, p95`, at(values, 0.95), 'ms', 34);
};
const size = `${room.rack.length} racks, ${room.device.length} devices, ${room.port.length} ports`;
note(`pan all of ${size}`, await frames(page, pan));
note('  zoom in', await frames(page, () => zoom(-60, 40)));
await page.waitForTimeout(400);
note('  pan at that zoom', await frames(page, pan));
note('  zoom out', await frames(page, () => zoom(60, 40)));

// A drop, from letting go to the server's word.
await page.goto(`${server.url}/p/${projectId}/places?scope=${room.rack[0]?.placeId ?? ''}&rack=${rackId}`);
// A rack opens on its gear: all of it is wanted here.
await page
  .getByRole('button', { name: /^rr-1-1, / })
  .first()
  .waitFor();
await page.waitForTimeout(500);
await page.keyboard.press('0');
await page.waitForTimeout(500);
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
  await page.waitForFunction(() => (window.dropMs ?? 0) > 0);
  trips.push(await page.evaluate(() => window.dropMs ?? 0));
}
report.note('a drop until the server has confirmed it, median', at(trips, 0.5), 'ms', 150);

await bench.close();
report.finish();
process.exit(0);
