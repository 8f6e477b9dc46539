/** On a tablet, by touch alone: drawers, pan, pinch, a finger that rests, a line pulled, a sheet found and opened. */
import type { CDPSession, Page } from '@playwright/test';
import { expect, plate, quiet, record, saved, test } from './application.ts';
import { models, panel } from './hand.ts';

test.use({ file: 'tablet', hasTouch: true, viewport: { width: 820, height: 1100 } });

interface Spot {
  x: number;
  y: number;
}
/** Fingers on the glass, as the browser has them from a touch screen. */
class Fingers {
  private constructor(
    private readonly page: Page,
    private readonly cdp: CDPSession,
  ) {}
  static async on(page: Page): Promise<Fingers> {
    return new Fingers(page, await page.context().newCDPSession(page));
  }
  private send(type: 'touchStart' | 'touchMove' | 'touchEnd', at: readonly Spot[]): Promise<unknown> {
    return this.cdp.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: at.map(({ x, y }, id) => ({ x, y, id })),
    });
  }
  /** Fingers that go from here to there together, each on its own way. */
  async slide(ways: readonly (readonly [Spot, Spot])[], steps = 8): Promise<void> {
    await this.send(
      'touchStart',
      ways.map(([from]) => from),
    );
    for (let step = 1; step <= steps; step++)
      await this.send(
        'touchMove',
        ways.map(([from, to]) => ({
          x: from.x + ((to.x - from.x) * step) / steps,
          y: from.y + ((to.y - from.y) * step) / steps,
        })),
      );
    await this.send('touchEnd', []);
    await quiet(this.page);
  }
  /** A finger that rests until what it means is there. */
  async rest(at: Spot, until: () => Promise<void>): Promise<void> {
    await this.send('touchStart', [at]);
    await until();
    await this.send('touchEnd', []);
    await quiet(this.page);
  }
}
const middle = async (page: Page, name: string): Promise<Spot & { bottom: number }> => {
  const box = await plate(page, name).boundingBox();
  if (box === null) throw new Error(name);
  return { x: box.x + box.width / 2, y: box.y + box.height / 2, bottom: box.y + box.height };
};
const sections = (page: Page) => page.getByRole('navigation', { name: 'Sections' });
/** Goes to a section through the drawer. */
async function through(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Sections' }).tap();
  await sections(page).getByRole('link', { name }).tap();
  await expect(sections(page)).toBeHidden();
}

for (const [width, height] of [
  [768, 1024],
  [1024, 768],
] as const)
  test(`nothing is cut off at ${width} × ${height}; sections and record are drawers`, async ({
    page,
    application,
  }) => {
    await page.setViewportSize({ width, height });
    await signInHere(page, application.url);
    for (const name of [
      'Start',
      'Places',
      'Catalogue',
      'Equipment',
      'Cables',
      'VLANs',
      'Addresses',
      'Cloud',
      'Sheets',
      'Schedules',
    ]) {
      await through(page, name);
      await quiet(page);
      const wide = await page.evaluate(() => document.documentElement.scrollWidth);
      expect(wide, name).toBeLessThanOrEqual(width);
      // Every button of head and band lies within the window.
      for (const box of await page
        .locator('header button:visible')
        .evaluateAll((all) =>
          all.map((one) => one.getBoundingClientRect()).map(({ left, right }) => ({ left, right })),
        )) {
        expect(box.left, name).toBeGreaterThanOrEqual(0);
        expect(box.right, name).toBeLessThanOrEqual(width);
      }
    }
    await through(page, 'Cables');
    await page.getByRole('gridcell', { name: 'AH-00001' }).tap();
    await expect(record(page)).toBeVisible();
    await expect(page.getByRole('grid', { name: 'Cables' })).toBeVisible();
    await page.getByRole('button', { name: 'Close the record' }).tap();
    await expect(record(page)).toBeHidden();
  });

async function signInHere(page: Page, url: string): Promise<void> {
  await page.goto(url);
  await page.getByLabel('E-mail').fill('anna@marrow.example');
  await page.getByLabel('Password').fill('ferry-lamp-seven');
  await page.getByRole('button', { name: 'Sign in' }).tap();
  await saved(page);
}

test('a sheet is found as a picture, panned with one finger and pinched with two', async ({
  page,
  application,
}) => {
  await signInHere(page, application.url);
  await through(page, 'Sheets');
  await page.getByRole('searchbox', { name: 'Find a sheet' }).fill('data room');
  await page.getByRole('button', { name: /^Data room · cabling/ }).tap();
  await expect(plate(page, 'kq-core-1')).toBeVisible();
  await quiet(page);
  const fingers = await Fingers.on(page);
  const before = await middle(page, 'kq-core-1');
  await fingers.slide([
    [
      { x: 300, y: 950 },
      { x: 360, y: 890 },
    ],
  ]);
  const panned = await middle(page, 'kq-core-1');
  expect(panned.x - before.x).toBeCloseTo(60, -1);
  expect(panned.y - before.y).toBeCloseTo(-60, -1);
  const zoom = page.getByRole('button', { name: 'Fit all' });
  const percent = async (): Promise<number> => Number.parseInt((await zoom.textContent()) ?? '', 10);
  const first = await percent();
  await fingers.slide([
    [
      { x: 380, y: 900 },
      { x: 240, y: 900 },
    ],
    [
      { x: 440, y: 900 },
      { x: 580, y: 900 },
    ],
  ]);
  expect(await percent()).toBeGreaterThan(first * 1.5);
});

test('drawn by touch: stamped, named by a resting finger, a line pulled out of the row, taken back', async ({
  page,
  application,
}) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.goto(application.url);
  await signInHere(page, application.url);
  await page.goto(`${application.url}/projects`);
  await page.getByLabel('New project').fill('By touch');
  await page.getByRole('button', { name: 'Begin project' }).tap();
  await saved(page);
  await page.getByRole('button', { name: 'Begin with a blank sheet' }).tap();
  await models(page)
    .getByRole('button', { name: /^RT router$/ })
    .first()
    .tap();
  await page.touchscreen.tap(480, 260);
  await saved(page);
  await page.touchscreen.tap(760, 260);
  await saved(page);
  await models(page).getByRole('button', { name: 'Close' }).tap();
  await quiet(page);
  const fingers = await Fingers.on(page);
  await fingers.rest(await middle(page, 'rt-1'), async () => {
    await expect(page.getByRole('group', { name: 'Facts of rt-1' })).toBeVisible();
  });
  // Lifting the finger closes nothing.
  const facts = page.getByRole('group', { name: 'Facts of rt-1' });
  await expect(facts).toBeVisible();
  await facts.getByRole('textbox', { name: 'Name' }).fill('edge-1');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(plate(page, 'edge-1')).toBeVisible();
  // On free ground in between: two taps on one spot would be a double press.
  await page.touchscreen.tap(620, 600);
  // The record covers what is drawn on: it comes when it is asked for.
  await plate(page, 'edge-1').tap();
  await expect(record(page)).toBeHidden();
  await page.getByRole('button', { name: 'Record', exact: true }).tap();
  await expect(record(page).getByRole('heading', { name: 'edge-1' })).toBeVisible();
  await page.getByRole('button', { name: 'Close the record' }).tap();
  await expect(record(page)).toBeHidden();
  const row = page.locator('[data-pull="edge-1"] p');
  await expect(row).toBeVisible();
  const grip = await row.boundingBox();
  if (grip === null) throw new Error('no row');
  await fingers.slide([
    [{ x: grip.x + grip.width / 2, y: grip.y + grip.height / 2 }, await middle(page, 'rt-2')],
  ]);
  await expect(panel(page)).toContainText('edge-1 eth0 – rt-2 eth0');
  await panel(page).getByRole('button', { name: /^Undo/ }).tap();
  await expect(page.getByText('Rows: 2 devices, 0 lines')).toBeVisible();
});
