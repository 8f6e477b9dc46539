/** Part of npm run bench: the ladder of a plan of 5,000 prefixes panned and zoomed in a real browser. */
import { create, type Change } from '@visograph/core/change';
import { blankPrefix, formatPrefix, newId } from '@visograph/core/model';
import { emptyFrame, frames, openBench } from './browser.ts';
import { at, Report } from './figures.ts';

const report = new Report(await emptyFrame());
const rows: Change[] = [
  create('prefix', { ...blankPrefix, id: newId(), prefix: '10.0.0.0/8', role: 'pool' }),
];
for (let site = 0; site < 250; site++) {
  const block = (10n << 24n) + BigInt(site) * 65536n;
  rows.push(
    create('prefix', {
      ...blankPrefix,
      id: newId(),
      prefix: formatPrefix({ family: 4, value: block, length: 16 }),
      role: 'pool',
      name: `Site ${site}`,
    }),
  );
  for (let n = 0; n < 20; n++)
    rows.push(
      create('prefix', {
        ...blankPrefix,
        id: newId(),
        prefix: formatPrefix({ family: 4, value: block + BigInt(n) * 512n, length: 24 }),
        name: `Subnet ${n}`,
      }),
    );
}
const { page, server, projectId, close } = await openBench('bench_ladder', rows);
await page.goto(`${server.url}/p/${projectId}/addresses`);
const ladder = page.getByRole('region', { name: 'Ladder' }).locator('svg').first();
await ladder.waitFor();
await page.waitForTimeout(800);
const box = await ladder.boundingBox();
await page.mouse.move((box?.x ?? 0) + 420, (box?.y ?? 0) + 60);
const note = (work: string, values: number[]): void => {
  report.note(`${work}, median frame`, at(values, 0.5), 'ms', 17);
  report.note(`${work}, p95`, at(values, 0.95), 'ms', 34);
};
const zoomed = await frames(page, async () => {
  await page.keyboard.down('Control');
  for (let step = 0; step < 50; step++) {
    await page.mouse.wheel(0, -14);
    await page.waitForTimeout(16);
  }
  await page.keyboard.up('Control');
});
note(`ladder of ${rows.length} prefixes: zoom in`, zoomed);
const panned = await frames(page, async () => {
  for (let step = 0; step < 80; step++) {
    await page.mouse.wheel(24, 0);
    await page.waitForTimeout(12);
  }
});
note('  pan', panned);
await close();
report.finish();
process.exit(0);
