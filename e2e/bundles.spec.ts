/** Links of one purpose as one line: looked at, opened, chosen one by one, drawn otherwise; and what is printed. */
import type { Locator, Page } from '@playwright/test';
import { beginProject, expect, quiet, record, saved, section, test } from './application.ts';

test.use({ file: 'bundles' });

async function star(page: Page, servers: number): Promise<Locator> {
  await section(page, 'Sheets');
  await page.getByRole('button', { name: 'Begin with a blank sheet' }).click();
  await page.getByRole('button', { name: 'As text' }).click();
  const lines = Array.from({ length: servers }, (_, at) => `sw-1 srv-${at + 1}`);
  await page.getByRole('textbox', { name: 'Topology, one link a line' }).fill(lines.join('\n'));
  await page.getByRole('button', { name: /^Take/ }).click();
  await saved(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Close' }).first().click();
  await quiet(page);
  return bundleOf(page, servers);
}
const bundleOf = (page: Page, many: number): Locator =>
  page.getByRole('button', { name: new RegExp(`^${many} links of sw-1, servers`) });
const tools = (page: Page): Locator => page.getByRole('group', { name: 'Chosen bundle' });

/** Presses the line of a bundle a little way from its hub. */
async function pressLine(page: Page, bundle: Locator): Promise<void> {
  const at = await bundle.evaluate((path: SVGPathElement) => {
    const point = path.getPointAtLength(20).matrixTransform(path.getScreenCTM() ?? undefined);
    return { x: point.x, y: point.y };
  });
  await page.mouse.click(at.x, at.y);
}

test('a bundle is lit, opened by keys and by zoom, its links are chosen one by one', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Bundles');
  const bundle = await star(page, 5);
  await expect(bundle).toHaveCount(1);
  await expect(page.locator('[data-link]')).toHaveCount(5);

  await bundle.focus();
  await page.keyboard.press('Enter');
  await expect(tools(page)).toContainText('5 links of sw-1: servers');
  await expect(bundle).toHaveCount(0);
  await tools(page)
    .getByRole('button', { name: /As one line/ })
    .click();
  await expect(bundle).toHaveCount(1);

  await tools(page).getByRole('button', { name: 'Links (5)' }).click();
  await page.getByRole('menuitem').nth(2).click();
  await expect(tools(page)).toHaveCount(0);
  await expect(record(page)).toBeVisible();

  // Six plates fit at 110 %: two steps in are well beyond 120 %.
  await page.getByRole('button', { name: 'Zoom in' }).click();
  await page.getByRole('button', { name: 'Zoom in' }).click();
  await expect(bundle).toHaveCount(0);
});

test('each by itself and in lanes: for one bundle, undone, and for the sheet, kept over a reload', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Bundles apart');
  const bundle = await star(page, 4);
  await pressLine(page, bundle);
  await tools(page).getByRole('button', { name: 'Draw' }).click();
  await page.getByRole('menuitem', { name: 'Always each by itself' }).click();
  await saved(page);
  await expect(bundle).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(bundle).toHaveCount(1);

  await page.keyboard.press('.');
  const way = page.getByRole('radiogroup', { name: 'Links of one purpose' });
  await way.getByText('lanes', { exact: true }).click();
  await saved(page);
  await expect(bundle).toHaveCount(0);
  await page.reload();
  await quiet(page);
  await expect(page.locator('[data-link]')).toHaveCount(4);
  await expect(bundle).toHaveCount(0);
  await page.keyboard.press('.');
  await way.getByText('one line', { exact: true }).click();
  await expect(bundle).toHaveCount(1);
});

test('paper that is too small for a drawing is told, with what helps', async ({ page, application }) => {
  await beginProject(page, application, 'Small paper');
  await star(page, 60);
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  const panel = page.getByRole('dialog', { name: 'Print and save' });
  await expect(
    panel.getByRole('button', { name: /^Links of one purpose|As on the sheet/ }).first(),
  ).toBeVisible();
  await panel.getByRole('button', { name: /^A3/ }).click();
  await page.getByRole('option', { name: 'A4' }).click();
  await expect(panel.getByRole('status')).toContainText(
    /The smallest text would be \d\.\d pt; 6 pt can be read/,
  );
  await panel.getByRole('button', { name: /^On \d+ pages of A4/ }).click();
  await saved(page);
  await expect(panel.getByRole('status')).toHaveCount(0);
});
