/** Schedules as questions: asked otherwise, kept, filled in, saved; by mouse and by keys, from an empty project too. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { another, beginProject, doLine, expect, saved, section, signIn, test } from './application.ts';

test.use({ file: 'schedules' });

const list = (page: Page) => page.getByRole('navigation', { name: 'Schedules' });
const grid = (page: Page) => page.getByRole('grid');
const take = async (page: Page, box: string, text: string): Promise<void> => {
  await page.getByRole('combobox', { name: box, exact: true }).fill(text);
  // The list has followed what was typed.
  await expect(page.getByRole('option').first()).toContainText(text);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
};
const keep = async (page: Page, name: string): Promise<void> => {
  await page.getByRole('button', { name: /^Keep as/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox', { name: 'Name' }).fill(name);
  await dialog.getByRole('button', { name: 'Keep it' }).click();
};

// First: with projects of one's own, signing in leads to the list of them.
test('one of the project is asked otherwise, put back, changed for good, and undone', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Schedules');
  await list(page).getByRole('button', { name: 'Cable metres by type' }).click();
  const headings = grid(page).locator('[data-heading]');
  await expect(headings.first()).toContainText('Cat 6 RJ45 · 4 cables');
  // A press on a head puts the question's rows in another order.
  await grid(page).getByRole('button', { name: 'Length (m)' }).click();
  await expect(grid(page).getByRole('columnheader', { name: 'Length (m) ↑' })).toBeVisible();
  await expect(page.getByText('in order of Length and Label')).toBeVisible();
  await page.reload();
  await expect(page.getByText('in order of Length and Label')).toBeVisible();
  await page.getByRole('button', { name: 'As it is kept' }).click();
  await expect(page.getByText('in order of Label ·')).toBeVisible();
  await page.getByRole('button', { name: 'Ask otherwise' }).click();
  await page.getByRole('button', { name: 'Group no more by Type' }).click();
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await saved(page);
  await expect(headings).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo/ }).first().click();
  await expect(headings.first()).toContainText('Cat 6 RJ45 · 4 cables');
});

test('kept from a built-in one with filter, group and total; filled in where it stands; another person has it', async ({
  page,
  browser,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Schedules');
  await list(page).getByRole('button', { name: 'Inventory' }).click();
  await page.getByRole('button', { name: 'Ask otherwise' }).click();
  await take(page, 'Filter by a column', 'Serial');
  await expect(page.getByRole('alert')).toContainText('The filter Serial contains … asks for nothing');
  await expect(page.getByRole('textbox', { name: 'Value of filter 1' })).toBeFocused();
  await page.keyboard.type('no31');
  await take(page, 'Group by a column', 'Support contract');
  await expect(page.getByText('where Serial contains no31 · grouped by Support contract')).toBeVisible();
  await keep(page, 'Norvane gear');
  await saved(page);
  await expect(page.getByRole('heading', { name: 'Norvane gear', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'Close the question' }).click();
  // A fact of a device is typed in and filled down over the rows below it.
  const rows = grid(page).getByRole('row');
  const row = rows.filter({ hasText: 'ah-acc-1' });
  const heads = await grid(page).getByRole('columnheader').allTextContents();
  const at = heads.indexOf('Responsible');
  await row.getByRole('gridcell').nth(at).click();
  await page.keyboard.type('Rita Voss');
  await page.keyboard.press('Enter');
  await expect(row.getByRole('gridcell').nth(at)).toHaveText('Rita Voss');
  await saved(page);
  await row.getByRole('gridcell').nth(at).click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+d');
  await saved(page);
  await expect(rows.filter({ hasText: 'ah-acc-2' }).getByRole('gridcell').nth(at)).toHaveText('Rita Voss');
  // A day that is none is refused where it was typed, and not lost.
  const until = row.getByRole('gridcell').nth(heads.indexOf('Warranty until'));
  await until.click();
  await page.keyboard.type('soon');
  await page.keyboard.press('Enter');
  await expect(until).toHaveAttribute('aria-invalid', 'true');
  await expect(until).toHaveText('soon');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save CSV' }).click(),
  ]);
  const csv = await readFile(await download.path(), 'utf8');
  expect(csv.split('\r\n').filter((line) => line.includes('Rita Voss'))).toHaveLength(2);
  const ben = await another(browser, application, 'ben@marrow.example');
  await section(ben, 'Schedules');
  await list(ben).getByRole('button', { name: 'Norvane gear' }).click();
  await expect(grid(ben).locator('[data-heading]').first()).toContainText('devices');
  await ben.context().close();
});

test('a reader asks otherwise and keeps nothing; a name that is taken, and an address that cannot be read, are told', async ({
  page,
  browser,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Schedules');
  await keep(page, 'cable METRES by type');
  await expect(page.getByRole('dialog')).toContainText('There is already a schedule with the name');
  await page.keyboard.press('Escape');
  const address = new URL(page.url());
  address.searchParams.set('view', '{"columns":[]}');
  await page.goto(address.href);
  await expect(page.getByRole('alert')).toContainText('cannot be read: it is shown as it is kept');
  await expect(grid(page).getByRole('row').nth(1)).toContainText('AH-00001');
  const rita = await another(browser, application, 'rita@marrow.example');
  await section(rita, 'Schedules');
  await rita.getByRole('button', { name: 'Ask otherwise' }).click();
  await take(rita, 'Group by a column', 'Type');
  await expect(grid(rita).locator('[data-heading]').first()).toContainText('cables');
  await expect(rita.getByRole('button', { name: /^Keep/ })).toHaveCount(0);
  await rita.context().close();
});

test('labels: those of racks on sheets, noted as printed, undone; a scanned link leads to its rack; what does not fit is told', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Schedules');
  await page.getByRole('button', { name: 'Labels …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Labels' });
  const pickIn = async (label: string, option: string): Promise<void> => {
    await dialog.getByRole('button', { name: new RegExp(`${label}$`) }).click();
    await page.getByRole('option', { name: option, exact: true }).click();
  };
  await pickIn('Of', 'Racks');
  await expect(dialog.getByText('10 labels on 1 page, in the order in which one walks past.')).toBeVisible();
  await expect(dialog.getByRole('listitem').first()).toContainText('AH-A1');
  await dialog.getByRole('textbox', { name: 'Used on the first page' }).fill('20');
  await expect(dialog.getByText('10 labels on 2 pages')).toBeVisible();
  await dialog.getByRole('textbox', { name: 'Used on the first page' }).fill('24');
  await expect(dialog.getByRole('alert')).toContainText('of which 0 to 23 can be used already');
  await dialog.getByRole('textbox', { name: 'Used on the first page' }).fill('0');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    dialog.getByRole('button', { name: 'Save PDF' }).click(),
  ]);
  expect(download.suggestedFilename()).toContain('Labels, Racks');
  expect((await readFile(await download.path())).subarray(0, 5).toString()).toBe('%PDF-');
  await saved(page);
  await page.getByRole('button', { name: 'Labels …' }).click();
  await pickIn('Of', 'Racks');
  await expect(dialog.getByText('All 10 are printed as they read now.')).toBeVisible();
  await pickIn('Of', 'Cables, both ends');
  await pickIn('Size', 'Sheet of 189, 25.4 × 10 mm');
  await expect(dialog.getByText(/do not fit\.$/)).toBeVisible();
  await expect(dialog.getByRole('list', { name: 'Labels that do not fit' })).toContainText(
    'take a larger label',
  );
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo/ }).first().click();
  await saved(page);
  // What a scanner reads: capitals, short ids.
  const { pathname } = new URL(page.url());
  const short = (id: string): string =>
    BigInt(`0x${id.replaceAll('-', '')}`)
      .toString(36)
      .toUpperCase();
  const project = pathname.split('/')[2] ?? '';
  await doLine(page, 'rack KQ-A1');
  const rack = await expect
    .poll(() => new URL(page.url()).searchParams.get('rack'))
    .toBeTruthy()
    .then(() => new URL(page.url()).searchParams.get('rack') ?? '');
  await page.goto(`${application.url}/AT/${short(project)}/${short(rack)}`);
  await expect(page.getByRole('complementary', { name: 'Record' })).toContainText('KQ-A1');
  await page.goto(`${application.url}/AT/${short(project)}/ZZZ`);
  await expect(page.getByText('What this label was on is not there any more')).toBeVisible();
});

test('a list is looked at otherwise, kept for all, opened as a schedule, kept, put on a sheet, and follows an edit', async ({
  page,
  browser,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Cables');
  await page.getByRole('button', { name: 'View of Cables' }).click();
  await take(page, 'Filter by a column', 'Type');
  await page.keyboard.type('OM4');
  await take(page, 'Group by', 'A device');
  await expect(page.getByText('16 of 231 rows')).toBeVisible();
  await page.getByRole('textbox', { name: 'Keep this view as' }).fill('Multimode by device');
  await page.getByRole('button', { name: 'Keep for all' }).click();
  await saved(page);
  // Its edge dragged by 90, a column is so much wider; the order of the rows stays.
  await page.keyboard.press('Escape');
  const head = page.getByRole('columnheader', { name: 'Type' });
  const { x = 0, y = 0, width = 0 } = (await head.boundingBox()) ?? {};
  await page.mouse.move(x + width, y + 12);
  await page.mouse.down();
  await page.mouse.move(x + width + 90, y + 12, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await head.boundingBox())?.width ?? 0).toBeGreaterThan(width + 60);
  await expect(head).toHaveAttribute('aria-sort', 'none');
  // Another person finds it, in an address of their own.
  const ben = await another(browser, application, 'ben@marrow.example');
  await section(ben, 'Cables');
  await expect(grid(ben).locator('[data-heading]')).toHaveCount(0);
  await ben.getByRole('button', { name: 'View of Cables' }).click();
  await ben.getByRole('button', { name: 'Multimode by device', exact: true }).click();
  await expect(grid(ben).locator('[data-heading]').first()).toContainText('kq-acc-1 · 2 rows');
  await ben.context().close();
  await page.getByRole('button', { name: 'View of Cables' }).click();
  await page.getByRole('button', { name: 'Open as a schedule' }).click();
  await expect(page.getByText(/where Type contains OM4 · grouped by A device/)).toBeVisible();
  await keep(page, 'Multimode');
  await saved(page);
  // On a sheet, by the menu; which schedule it is, in its record.
  await section(page, 'Sheets');
  await page.getByText('Kelder Quay · switching').first().dblclick();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Schedule as a table' }).click();
  await take(page, 'Schedule', 'Multimode');
  const table = page.getByRole('button', { name: /^schedule: Multimode/ });
  await expect(table).toHaveAccessibleName('schedule: Multimode, 16 rows');
  await expect(table).toContainText('KQ-00010');
  // Ten rows high, with its headings it stands in pieces beside each other.
  const wide = async (): Promise<number> => (await table.boundingBox())?.width ?? 0;
  const before = await wide();
  await page.getByRole('button', { name: /Height in rows/ }).click();
  await page.getByRole('option', { name: '10', exact: true }).click();
  await expect.poll(wide).toBeGreaterThan(before * 1.5);
  // What is edited elsewhere is in it at once; undone, it says what it said.
  await page.getByRole('button', { name: 'Open the schedule' }).click();
  const cell = grid(page).getByRole('gridcell', { name: 'KQ-00010' });
  await cell.dblclick();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('KQ-90010');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.goBack();
  await expect(table).toContainText('KQ-90010');
  await page.keyboard.press('Control+z');
  await expect(table).toContainText('KQ-00010');
  // The schedule goes, and its table with it: said, and undone as one step.
  await section(page, 'Schedules');
  await list(page).getByRole('button', { name: 'Multimode' }).click();
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(list(page).getByRole('button', { name: 'Multimode' })).toBeVisible();
});

test('from an empty project, by keys alone: begun from nothing, filtered to nothing, kept, deleted, undone', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Listed');
  await section(page, 'Schedules');
  await expect(page.getByText('None is kept yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Begin one …' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'A row is one of' })).toBeFocused();
  await page.keyboard.type('Device sched');
  await expect(page.getByRole('option').first()).toContainText('Device sched');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Begin', exact: true }).press('Enter');
  await expect(page.getByText('Device schedule of all sites · 1 column')).toBeVisible();
  await expect(page.getByText('Nothing to list here')).toBeVisible();
  await page.getByRole('combobox', { name: 'Add a column' }).focus();
  await page.keyboard.type('Serial');
  await expect(page.getByRole('option').first()).toContainText('Serial');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Device schedule of all sites · 2 columns')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Keep as schedule …' }).press('Enter');
  await page.keyboard.type('Serials');
  await page.keyboard.press('Enter');
  await saved(page);
  await expect(page.getByRole('heading', { name: 'Serials', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'Close the question' }).press('Enter');
  await page.getByRole('button', { name: 'Delete' }).press('Enter');
  await expect(page.getByText('None is kept yet.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(list(page).getByRole('button', { name: 'Serials' })).toBeVisible();
});
