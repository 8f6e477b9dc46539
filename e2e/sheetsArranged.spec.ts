/** What the walk does not touch: showing, arranging, deleting, tracing by key, themes, files out. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { doLine, expect, quiet, record, saved, signIn, test } from './application.ts';

test.use({ file: 'arrange' });

const plate = (page: Page, name: string) =>
  page.locator('.react-flow__node-plate').and(page.getByRole('button', { name: new RegExp(`^${name},`) }));
const undo = async (page: Page, sentence: string): Promise<void> => {
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('status').filter({ hasText: `Undid: ${sentence}` })).toBeVisible();
};

test.beforeEach(async ({ page, application }) => signIn(page, application));

test('facets: power brings strips and UPS onto the sheet, and is undone', async ({ page }) => {
  await doLine(page, 'Data room · cabling');
  await expect(plate(page, 'kq-core-1')).toBeVisible();
  await expect(plate(page, 'kq-ups-1')).toHaveCount(0);
  await page.keyboard.press('.');
  const shown = page.getByRole('dialog', { name: 'What the sheet shows' });
  await shown.getByRole('radiogroup', { name: 'Power', exact: true }).getByText('shown').click();
  await page.keyboard.press('Escape');
  await expect(plate(page, 'kq-ups-1')).toBeVisible();
  await undo(page, 'Set power to shown on sheet Data room · cabling');
  await expect(plate(page, 'kq-ups-1')).toHaveCount(0);
});

test('a place is dragged by its title with all that it holds, and laid out afresh', async ({ page }) => {
  await doLine(page, 'Data room · cabling');
  await expect(plate(page, 'KQ-Z1')).toBeVisible();
  await quiet(page);
  const before = await plate(page, 'KQ-Z1').boundingBox();
  const title = page.getByRole('group', { name: 'Ticket hall' }).locator('.container-title');
  const box = await title.boundingBox();
  if (before === null || box === null) throw new Error('not drawn');
  await page.mouse.move(box.x + 10, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 70, box.y + 30, { steps: 5 });
  await page.mouse.up();
  await saved(page);
  await expect
    .poll(async () => (await plate(page, 'KQ-Z1').boundingBox())?.x ?? 0)
    .toBeGreaterThan(before.x + 30);
  const tidy = async () => {
    await page.getByRole('button', { name: 'Tidy', exact: true }).first().click();
    return page.getByRole('dialog', { name: 'Tidy' }).getByRole('button', { name: 'The whole sheet' });
  };
  await (await tidy()).click();
  await page.getByRole('button', { name: /^Take over/ }).click();
  await expect
    .poll(async () => Math.round((await plate(page, 'KQ-Z1').boundingBox())?.x ?? 0))
    .toBe(Math.round(before.x));
  await saved(page);
  await page.mouse.click(box.x - 40, box.y + 60);
  await expect(await tidy()).toBeDisabled();
});

test('deleting a device says in numbers what goes with it; one undo brings all back', async ({ page }) => {
  await doLine(page, 'kq-fw-2');
  const gone =
    '15 ports, 7 interfaces, 7 cables, 7 addresses, 3 static routes, 1 BGP session and 2 redundancy groups';
  await record(page).getByRole('button', { name: 'Delete …' }).click();
  await expect(record(page).getByRole('alertdialog')).toContainText(`With it go ${gone}`);
  await record(page).getByRole('button', { name: 'Delete kq-fw-2' }).click();
  await expect(page.getByText('15 of 42 U used · 27 free')).toBeVisible();
  await undo(page, `Deleted kq-fw-2 with ${gone}`);
  await doLine(page, 'kq-fw-2');
  await expect(record(page).getByText('Ports · 7 of 15 used')).toBeVisible();
});

test('places, racks and sheets are added and taken away again', async ({ page }) => {
  await doLine(page, 'offices');
  await expect(record(page).getByRole('heading', { name: 'Offices' })).toBeVisible();
  await record(page).getByLabel('Place', { exact: true }).fill('Store');
  await record(page).getByRole('button', { name: 'Add place' }).click();
  await saved(page);
  await doLine(page, 'store');
  await expect(record(page).getByRole('heading', { name: 'Store' })).toBeVisible();
  await record(page).getByRole('textbox', { name: 'Rack' }).fill('KQ-X1');
  await record(page).getByRole('button', { name: 'Add rack' }).click();
  await page.getByRole('button', { name: /^Rack KQ-X1/ }).click();
  await expect(page.getByText('0 of 42 U used · 42 free')).toBeVisible();
  await record(page).getByRole('button', { name: 'Delete rack' }).click();
  await expect(page.getByRole('button', { name: /^Rack KQ-X1/ })).toHaveCount(0);
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.getByRole('button', { name: 'Draw cabling of Store' }).click();
  await expect(page.getByText('A blank sheet')).toBeVisible();
  await page.getByRole('button', { name: 'Sheet \\' }).click();
  await record(page).getByRole('button', { name: 'Delete sheet' }).click();
  await expect(page.getByText('No sheet of this place yet')).toBeVisible();
});

test('T traces the selected cable; disconnecting frees the ports', async ({ page }) => {
  await doLine(page, 'KQ-00019');
  await expect(record(page).getByRole('heading', { name: 'KQ-00019' })).toBeVisible();
  await page.keyboard.press('t');
  await expect(page.getByRole('region', { name: 'Trace' })).toContainText('3 cables, 53 m');
  await page.keyboard.press('Escape');
  await record(page).getByRole('button', { name: 'Disconnect …' }).click();
  await record(page).getByRole('button', { name: 'Disconnect KQ-00019' }).click();
  await expect(record(page).getByText('Free.')).toBeVisible();
  await undo(page, 'Disconnected KQ-A1-PP1 R1 from KQ-W1-PP1 R1: removed KQ-00019');
});

test('a status that is none is told in words, in the grid', async ({ page }) => {
  await page.keyboard.press('Alt+3');
  await page.getByRole('searchbox', { name: 'Filter rows' }).fill('kq-srv-1');
  const cell = page
    .getByRole('row')
    .filter({ hasText: 'kq-srv-1' })
    .getByRole('gridcell', { name: 'active' });
  await cell.dblclick();
  await page.getByRole('grid').getByRole('textbox', { name: 'Status' }).fill('broken');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Status is not planned, active or retired');
});

test('the theme is chosen and kept; the project goes out as a file', async ({ page }) => {
  const menu = () => page.getByRole('button', { name: 'Anna Kerr: menu' });
  const ground = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  await menu().click();
  await page.getByRole('menuitem', { name: 'Night theme' }).click();
  expect(await ground()).toBe('rgb(16, 21, 29)');
  await page.reload();
  await saved(page);
  expect(await ground()).toBe('rgb(16, 21, 29)');
  await menu().click();
  const waiting = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export project file' }).click();
  const file = JSON.parse(await readFile(await (await waiting).path(), 'utf8')) as {
    format: string;
    devices: unknown[];
  };
  expect([file.format, file.devices.length]).toEqual(['visograph-exchange', 106]);
});

test('a second person at this screen does not send the first one’s waiting edits', async ({
  page,
  application,
}) => {
  await doLine(page, 'kq-edge-1');
  await application.query('DELETE FROM session');
  const serial = record(page).getByRole('textbox', { name: 'Serial' });
  await serial.fill('by Anna');
  await serial.press('Enter');
  await page.getByLabel('E-mail').fill('ben@marrow.example');
  await page.getByLabel('Password').fill('ferry-lamp-seven');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('button', { name: 'Ben Adair: menu' })).toBeVisible();
  await saved(page);
  await expect(serial).not.toHaveValue('by Anna');
});
