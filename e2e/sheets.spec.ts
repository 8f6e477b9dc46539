/** Drawings as an engineer makes them: drawn at once, arranged by hand, noted on, nested, printed, with two at it. */
import type { Locator, Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { another, doLine, expect, quiet, record, saved, signIn, test } from './application.ts';

test.use({ file: 'drawings' });

const plate = (page: Page, name: string): Locator =>
  page
    .locator('.react-flow__node-plate')
    .and(page.getByRole('button', { name: new RegExp(`^${name}(,|$)`) }));
const mark = (page: Page, name: RegExp): Locator =>
  page.locator('.react-flow__node-mark').and(page.getByRole('button', { name }));
const settled = async (page: Page): Promise<void> => {
  await saved(page);
  await expect(page.getByText('Drawing …')).toHaveCount(0);
};
const box = async (of: Locator) => {
  const found = await of.boundingBox();
  if (found === null) throw new Error('not drawn');
  return found;
};
const openSheet = async (page: Page, name: string): Promise<void> => {
  await doLine(page, name);
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  await settled(page);
};
const drag = async (
  page: Page,
  from: { x: number; y: number },
  to: { x: number; y: number },
): Promise<void> => {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 6, from.y + 4);
  await page.mouse.move(to.x, to.y, { steps: 6 });
  await page.mouse.up();
};
const show = async (page: Page, facet: string, state: string): Promise<void> => {
  await page.keyboard.press('.');
  const panel = page.getByRole('dialog', { name: 'What the sheet shows' });
  const row = panel.getByRole('radiogroup', { name: facet, exact: true });
  await row.getByText(state, { exact: true }).click();
  await expect(row.getByRole('radio', { name: state })).toBeChecked();
  await quiet(page);
  await page.keyboard.press('Escape');
  await expect(panel).toHaveCount(0);
  await settled(page);
};
const download = async (page: Page, button: string): Promise<Buffer> => {
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('dialog', { name: 'Print and save' })
      .getByRole('button', { name: button, exact: true })
      .click(),
  ]);
  await page.keyboard.press('Escape');
  return readFile(await file.path());
};
const pdfText = async (bytes: Buffer): Promise<string> => {
  const document = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  let text = '';
  for (let number = 1; number <= document.numPages; number++) {
    const { items } = await (await document.getPage(number)).getTextContent();
    text += items.map((item) => ('str' in item ? item.str : '')).join(' ');
  }
  return text;
};

test.beforeEach(async ({ page, application }) => signIn(page, application));

test('the sites are drawn, one leads to its own sheet and back', async ({ page }) => {
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.getByRole('button', { name: 'Draw the sites' }).click();
  await settled(page);
  await expect(plate(page, 'Kelder Quay')).toBeVisible();
  await expect(plate(page, 'Skerrynet')).toBeVisible();
  await plate(page, 'Kelder Quay').dblclick();
  await expect(page.getByRole('heading', { name: 'Kelder Quay · cabling', level: 1 })).toBeVisible();
  await page
    .getByRole('navigation', { name: 'Sheets around this one' })
    .getByRole('button', { name: 'All sites · sites' })
    .click();
  await expect(plate(page, 'Ashholm')).toBeVisible();
});

test('plates are aligned, undone, locked and tidied; others stay where they are', async ({ page }) => {
  await openSheet(page, 'Kelder Quay · cabling');
  const [one, two] = [plate(page, 'kq-fw-1'), plate(page, 'kq-core-2')];
  const before = await box(two);
  const other = await box(plate(page, 'kq-st-1'));
  await one.click();
  await two.click({ modifiers: ['Control'] });
  const tools = page.getByRole('group', { name: 'Chosen on the sheet' });
  await expect(tools).toContainText('2 chosen');
  await tools.getByRole('button', { name: 'Arrange' }).click();
  await page.getByRole('menuitem', { name: 'Align left edges' }).click();
  await settled(page);
  await expect.poll(async () => Math.round((await box(two)).x)).toBe(Math.round((await box(one)).x));
  expect(Math.round((await box(plate(page, 'kq-st-1'))).x)).toBe(Math.round(other.x));
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Math.round((await box(two)).x)).toBe(Math.round(before.x));
  await page.keyboard.press('Control+Shift+z');
  await expect.poll(async () => Math.round((await box(two)).x)).toBe(Math.round((await box(one)).x));

  await tools.getByRole('button', { name: 'Lock', exact: true }).click();
  await settled(page);
  // The drawing that knows of the lock comes from the worker.
  await expect(tools.getByRole('button', { name: 'Unlock', exact: true })).toBeVisible();
  // A drag on a locked plate moves the view, so that is measured against another plate.
  const apart = async () => Math.round((await box(one)).x - (await box(plate(page, 'kq-st-1'))).x);
  const [at, was] = [await box(one), await apart()];
  await drag(page, { x: at.x + 40, y: at.y + 8 }, { x: at.x + 140, y: at.y + 60 });
  expect(await apart()).toBe(was);
  await page.getByRole('button', { name: 'Tidy', exact: true }).first().click();
  await page.getByRole('dialog', { name: 'Tidy' }).getByRole('button', { name: 'The whole sheet' }).click();
  const proposed = page.getByRole('group', { name: 'Proposed arrangement' });
  await expect(proposed).toContainText('All laid out afresh');
  await proposed.getByRole('button', { name: /^Take over/ }).click();
  await settled(page);
  await expect(proposed).toHaveCount(0);
  await page.reload();
  await settled(page);
  await expect(plate(page, 'kq-fw-1')).toBeVisible();
});

test('by keyboard alone: a plate is reached, chosen, moved and put back', async ({ page }) => {
  await openSheet(page, 'Data room · cabling');
  const one = plate(page, 'kq-srv-3');
  await one.focus();
  await page.keyboard.press('Enter');
  await expect(record(page).getByRole('heading', { name: 'kq-srv-3' })).toBeVisible();
  const before = await box(one);
  for (let step = 0; step < 4; step++) await page.keyboard.press('ArrowDown');
  await settled(page);
  await expect.poll(async () => (await box(one)).y).toBeGreaterThan(before.y + 4);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Math.round((await box(one)).y)).toBe(Math.round(before.y));
});

test('a note and an enclosure are put on, written in, and taken off; the enclosure carries what it holds', async ({
  page,
}) => {
  await openSheet(page, 'Data room · cabling');
  await plate(page, 'kq-srv-1').click();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Callout for the chosen device' }).click();
  await expect(record(page).getByRole('heading', { name: 'Callout' })).toBeVisible();
  await record(page)
    .getByRole('textbox', { name: 'Text' })
    .fill('# Leaves in May\n<script>alert(1)</script>');
  await record(page).getByRole('heading', { name: 'Callout' }).click();
  await settled(page);
  await expect(mark(page, /^callout: # Leaves in May/)).toBeVisible();
  await expect(page.locator('.react-flow__node-mark').getByText('<script>alert(1)</script>')).toBeVisible();

  await plate(page, 'kq-srv-1').click();
  await plate(page, 'kq-srv-2').click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Enclosure around what is chosen' }).click();
  await settled(page);
  const enclosure = mark(page, /^enclosure/);
  const [held, free] = [await box(plate(page, 'kq-srv-1')), await box(plate(page, 'kq-acc-1'))];
  // Where no link runs across its title.
  const grip = await enclosure.locator('.container-title').evaluate((title) => {
    const { x, y, width } = title.getBoundingClientRect();
    for (let across = width - 8; across > 0; across -= 4)
      if (document.elementFromPoint(x + across, y + 3) === title) return { x: x + across, y: y + 3 };
    return { x: x + 4, y: y + 3 };
  });
  await drag(page, grip, { x: grip.x, y: grip.y + 40 });
  await settled(page);
  await expect.poll(async () => (await box(plate(page, 'kq-srv-1'))).y).toBeGreaterThan(held.y + 20);
  expect(Math.round((await box(plate(page, 'kq-acc-1'))).y)).toBe(Math.round(free.y));

  await mark(page, /^callout/).click();
  await page.keyboard.press('Delete');
  await page.getByRole('dialog').getByRole('button', { name: 'Delete 1 mark' }).click();
  await expect(mark(page, /^callout/)).toHaveCount(0);
});

test('what is hidden is in neither the SVG nor the PDF, and a saved view brings it back', async ({
  page,
}) => {
  await openSheet(page, 'Data room · cabling');
  await page.keyboard.press('.');
  await page.getByLabel('Name of the view').fill('Everything');
  await page.getByRole('button', { name: 'Save view' }).click();
  await page.keyboard.press('Escape');
  const before = await pdfText(await download(page, 'Save PDF'));
  expect(before).toMatch(/KQ-000\d\d/);
  expect(before).toContain('hu1/31');
  await show(page, 'Cable labels', 'hidden');
  await show(page, 'Port names', 'hidden');
  const svg = (await download(page, 'Save SVG')).toString('utf8').replace(/base64,[^)]*/g, '');
  const parsed = await page.evaluate((text) => {
    const document = new DOMParser().parseFromString(text, 'image/svg+xml');
    return {
      errors: document.querySelectorAll('parsererror').length,
      texts: document.querySelectorAll('text').length,
    };
  }, svg);
  expect(parsed.errors).toBe(0);
  expect(parsed.texts).toBeGreaterThan(20);
  expect(svg.match(/KQ-000\d\d|hu1\/31/)?.[0]).toBeUndefined();
  const after = await pdfText(await download(page, 'Save PDF'));
  expect(after).toContain('kq-core-1');
  expect(after.match(/KQ-000\d\d|hu1\/31/)?.[0]).toBeUndefined();
  await page.keyboard.press('.');
  await page.getByRole('button', { name: 'Everything', exact: true }).click();
  await page.keyboard.press('Escape');
  await settled(page);
  expect(await pdfText(await download(page, 'Save PDF'))).toContain('hu1/31');
});

test('locked containers stay under the hand', async ({ page }) => {
  await openSheet(page, 'Data room · cabling');
  await show(page, 'Containers', 'locked');
  const title = page.getByRole('group', { name: 'Ticket hall' }).locator('.container-title');
  const apart = async () => Math.round((await box(title)).x - (await box(plate(page, 'kq-core-1'))).x);
  const [at, was] = [await box(title), await apart()];
  await drag(page, { x: at.x + 20, y: at.y + 4 }, { x: at.x + 120, y: at.y + 60 });
  expect(await apart()).toBe(was);
});

test('left out of the sheet, a device is in the network still; put back, it is on the sheet', async ({
  page,
}) => {
  await openSheet(page, 'Data room · cabling');
  await plate(page, 'kq-srv-4').click();
  await page.keyboard.press('Delete');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^From this sheet/ })
    .click();
  await settled(page);
  await expect(plate(page, 'kq-srv-4')).toHaveCount(0);
  const tray = page.getByRole('region', { name: 'Not on the sheet' });
  await expect(tray).toContainText('Left out · 1');
  await tray.getByRole('button', { name: 'Put back' }).click();
  await expect(plate(page, 'kq-srv-4')).toBeVisible();
});

test('a new device waits in the tray where the sheet says so, and is placed from there', async ({ page }) => {
  await openSheet(page, 'Data room · cabling');
  await page.getByText('New devices wait to be placed').click();
  await settled(page);
  await page.getByRole('link', { name: 'Equipment' }).click();
  await page.getByRole('button', { name: 'Add device', exact: true }).first().click();
  const dock = page.getByRole('form', { name: 'Add device' });
  await dock.getByRole('combobox', { name: 'Model' }).fill('AX-2424P');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await dock.getByRole('combobox', { name: 'Rack' }).fill('KQ-A2');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await dock.getByRole('button', { name: /^Add kq-acc-6/ }).click();
  await saved(page);
  await openSheet(page, 'Data room · cabling');
  const tray = page.getByRole('region', { name: 'Not on the sheet' });
  await expect(tray).toContainText('Not on the sheet yet · 1');
  await expect(plate(page, 'kq-acc-6')).toHaveCount(0);
  await tray.getByRole('button', { name: 'Place', exact: true }).click();
  await expect(plate(page, 'kq-acc-6')).toBeVisible();
  await expect(tray).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(tray).toContainText('kq-acc-6');
});

test('a label is slid along its link and keeps to its end when the plate moves', async ({ page }) => {
  await openSheet(page, 'Data room · cabling');
  await page.keyboard.press('=');
  const cable = page.getByRole('row').filter({ hasText: 'KQ-00001' });
  await cable.getByRole('gridcell').first().click();
  const grip = page.locator('[data-grip="aLabel"]');
  await expect(grip).toHaveCount(1);
  const before = await box(grip);
  await drag(
    page,
    { x: before.x + before.width / 2, y: before.y + before.height / 2 },
    { x: before.x + 10, y: before.y - 22 },
  );
  await settled(page);
  await expect.poll(async () => (await box(grip)).y).toBeLessThan(before.y - 8);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Math.round((await box(grip)).y)).toBe(Math.round(before.y));
});

test('pulled from plate to plate they are joined at once, which can be changed, kept or taken back', async ({
  page,
}) => {
  await openSheet(page, 'Data room · cabling');
  await page.getByRole('button', { name: 'Fit all' }).click();
  await quiet(page);
  const [from, to] = [await box(plate(page, 'kq-core-1')), await box(plate(page, 'kq-srv-1'))];
  await page.mouse.move(from.x + from.width / 2, from.y + 3);
  const row = page.locator('[data-pull="kq-core-1"]');
  await expect(row).toBeVisible();
  const grip = await box(row.locator('p'));
  await drag(
    page,
    { x: grip.x + grip.width / 2, y: grip.y + grip.height / 2 },
    { x: to.x + to.width / 2, y: to.y + to.height / 2 },
  );
  const panel = page.getByRole('group', { name: 'The line just pulled' });
  await expect(panel).toContainText(/kq-core-1 te1\/\d+ – kq-srv-1 /);
  await settled(page);
  await panel.getByRole('button', { name: /^Undo/ }).click();
  await expect(panel).toHaveCount(0);
  await settled(page);
});

test('two people on one sheet see each other, and each what the other does', async ({
  page,
  browser,
  application,
}) => {
  const ben = await another(browser, application, 'ben@marrow.example');
  await openSheet(page, 'Kelder Quay · cabling');
  await openSheet(ben, 'Kelder Quay · cabling');
  const at = await box(plate(ben, 'kq-edge-1'));
  await ben.mouse.move(at.x + 8, at.y + 3);
  await ben.mouse.move(at.x + 12, at.y + 5);
  await expect(page.locator('[data-peer="Ben Adair"]')).toBeVisible();
  const before = await box(plate(page, 'kq-edge-1'));
  await drag(ben, { x: at.x + 12, y: at.y + 5 }, { x: at.x + 12, y: at.y + 45 });
  await settled(ben);
  await expect.poll(async () => (await box(plate(page, 'kq-edge-1'))).y).toBeGreaterThan(before.y + 10);
  await ben.close();
  await expect(page.locator('[data-peer="Ben Adair"]')).toHaveCount(0);
});

test('a model dragged onto the sheet becomes a device there', async ({ page }) => {
  await openSheet(page, 'Data room · cabling');
  await page.getByRole('button', { name: 'Models M' }).click();
  const models = page.getByRole('complementary', { name: 'Models' });
  await models.getByLabel('Find a role or model').fill('AX-2424P');
  const item = await box(models.getByRole('button', { name: /AX-2424P$/ }));
  const room = await box(page.getByRole('group', { name: 'Data room' }));
  await drag(page, { x: item.x + 20, y: item.y + 8 }, { x: room.x + 120, y: room.y + 60 });
  await settled(page);
  // It is chosen and named on; what the record says of it comes with a press.
  await expect(page.getByRole('group', { name: 'Chosen on the sheet' })).toContainText(/^kq-acc-\d+/);
});

test("the browser's own print lays the sheet on one page of its paper", async ({ page }) => {
  await openSheet(page, 'Kelder Quay · cabling');
  await page.evaluate(() => Object.assign(window, { print: () => undefined }));
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await page.getByRole('button', { name: 'Print …' }).click();
  // Drawn by a process of low priority.
  await expect(page.locator('[data-paper] svg')).toHaveCount(1, { timeout: 70_000 });
  const paper = await page.pdf({ preferCSSPageSize: true, printBackground: true });
  const document = await getDocument({ data: new Uint8Array(paper), verbosity: 0 }).promise;
  expect(document.numPages).toBe(1);
  expect(await pdfText(paper)).toContain('kq-core-1');
});

test('several sheets are printed into one file, and each into its own', async ({ page }) => {
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.getByRole('button', { name: 'Print several' }).click();
  const dialog = page.getByRole('dialog', { name: 'Print several' });
  // All sheets of the demo, laid out and drawn by a process of low priority.
  const patience = { timeout: 70_000 };
  const [one] = await Promise.all([
    page.waitForEvent('download', patience),
    dialog.getByRole('button', { name: /in one PDF/ }).click(),
  ]);
  expect(await pdfText(await readFile(await one.path()))).toContain('kq-acc-5');
  const [zip] = await Promise.all([
    page.waitForEvent('download', patience),
    dialog.getByRole('button', { name: 'A PDF of each sheet' }).click(),
  ]);
  expect((await readFile(await zip.path())).subarray(0, 2).toString()).toBe('PK');
});
