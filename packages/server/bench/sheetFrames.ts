/** Part of npm run bench: sheets of a made-up campus in a real browser (headless, software rendering). */
import { create, type Change } from '@visograph/core/change';
import { blankSheet, kindNames, newId, type Network } from '@visograph/core/model';
import { campus } from '../../core/src/testing/testCampus.ts';
import { emptyFrame, frames, openBench } from './browser.ts';
import { at, Report } from './figures.ts';

const report = new Report(await emptyFrame());
const note = (work: string, values: number[]): void => {
  report.note(`${work}, median frame`, at(values, 0.5), 'ms', 17);
  report.note(`${work}, p95`, at(values, 0.95), 'ms', 34);
};

const rowsOf = (network: Network): Change[] =>
  kindNames
    .filter((kind) => kind !== 'project')
    .flatMap((kind) => [...network.all(kind)].map((row) => create(kind, row)));

for (const plates of [300, 3000]) {
  const network = campus(plates, plates < 1000);
  const sheet = { ...blankSheet, id: newId(), name: 'Campus' };
  const bench = await openBench(`bench_sheets_${plates}`, [...rowsOf(network), create('sheet', sheet)]);
  const { page, server, projectId } = bench;
  const devices = `${plates} plates (${network.count('device')} devices, ${network.count('cable')} cables)`;
  await page.goto(`${server.url}/p/${projectId}/sheets`);
  const open = page.getByRole('button', { name: /^Campus/ });
  await open.waitFor();
  await page.waitForTimeout(1000);
  await page.evaluate(() => {
    Object.assign(window, { firstPaint: 0 });
    window.addEventListener(
      'click',
      () => {
        const started = performance.now();
        const look = (): void => {
          const drawn = document.querySelector('.react-flow__node-plate, [data-far]') !== null;
          if (drawn) Object.assign(window, { firstPaint: performance.now() - started });
          else requestAnimationFrame(look);
        };
        requestAnimationFrame(look);
      },
      { once: true, capture: true },
    );
  });
  await open.click();
  await page.waitForFunction(() => (window.firstPaint ?? 0) > 0);
  const paint = await page.evaluate(() => window.firstPaint ?? 0);
  report.note(`open a sheet of ${devices}: to first paint`, paint, 'ms', 600);
  await page.getByText('Drawing …').waitFor({ state: 'detached', timeout: 60_000 });
  await page.waitForTimeout(800);

  const board = await page.locator('.react-flow').boundingBox();
  const centre = {
    x: (board?.x ?? 0) + (board?.width ?? 0) / 2,
    y: (board?.y ?? 0) + (board?.height ?? 0) / 2,
  };
  const pan = async (): Promise<void> => {
    await page.mouse.move(centre.x, centre.y);
    for (let step = 0; step < 80; step++) {
      await page.mouse.wheel(Math.sin(step / 9) * 30, Math.cos(step / 9) * 22);
      await page.waitForTimeout(10);
    }
  };
  const zoom = async (by: number, count: number): Promise<void> => {
    await page.mouse.move(centre.x, centre.y);
    await page.keyboard.down('Control');
    for (let step = 0; step < count; step++) {
      await page.mouse.wheel(0, by);
      await page.waitForTimeout(16);
    }
    await page.keyboard.up('Control');
  };
  note('  pan with all in view', await frames(page, pan));
  // A larger sheet begins further away: on to where its plates are mounted.
  const inward = await frames(page, () => zoom(-24, plates < 1000 ? 60 : 85));
  note('  zoom in', inward);
  report.note('  longest frame at the step of detail', Math.max(...inward), 'ms', 150);
  await page.waitForTimeout(500);
  note('  pan at that zoom', await frames(page, pan));
  const plate = await page.locator('.react-flow__node-plate').nth(3).boundingBox();
  if (plate !== null) {
    const drag = async (): Promise<void> => {
      await page.mouse.move(plate.x + 8, plate.y + plate.height / 2);
      await page.mouse.down();
      for (let step = 0; step < 60; step++) {
        await page.mouse.move(plate.x + 8 + step, plate.y + plate.height / 2 + Math.sin(step / 5) * 30);
        await page.waitForTimeout(10);
      }
      await page.keyboard.press('Escape');
      await page.mouse.up();
    };
    note('  drag a plate', await frames(page, drag));
  }
  await bench.close();
}
report.finish();
process.exit(0);
