/** The walk: one data room documented end to end, by mouse, seen by a second person, undone, reloaded, restarted. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { another, doLine, expect, quiet, saved, signIn, test } from './application.ts';

test.use({ file: 'walk' });

test.describe.configure({ mode: 'serial' });
let page: Page;

test.beforeAll(async ({ browser, application }) => {
  page = await (await browser.newContext({ acceptDownloads: true })).newPage();
  await signIn(page, application);
});

const record = () => page.getByRole('complementary', { name: 'Record' });
const scope = () => page.getByRole('navigation', { name: 'Scope' });

test('opens at all sites, and the scope path leads to the data room', async () => {
  await expect(scope().getByRole('button', { name: 'All sites: open' })).toBeVisible();
  await scope().getByRole('button', { name: 'All sites: open' }).click();
  await page.getByRole('menuitem', { name: 'Kelder Quay' }).click();
  let here = 'Kelder Quay';
  for (const step of ['Harbour House', 'Ground', 'Data room']) {
    await scope()
      .getByRole('button', { name: `${here}: open` })
      .click();
    await page.getByRole('menuitem', { name: `› ${step}` }).click();
    here = step;
  }
  await expect(page.getByRole('button', { name: /^Rack KQ-A/ })).toHaveCount(3);
});

test('KQ-A1 as an elevation: units, plates, used and free', async () => {
  await page.getByRole('button', { name: /^Rack KQ-A1/ }).click();
  await expect(page.getByText('14 of 42 U used · 28 free')).toBeVisible();
  await expect(
    page.getByRole('button', { name: 'kq-core-1, switch, unit 38, 18 of 35 ports used' }).first(),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: 'Unit 30, free: add a device' })).toBeVisible();
});

test('a switch from the catalogue: model, free unit, proposed name, ports', async () => {
  await page.getByRole('button', { name: 'Unit 30, free: add a device' }).click();
  const dock = page.getByRole('form', { name: 'Add device' });
  await dock.getByRole('combobox', { name: 'Model' }).fill('norvane 48');
  await page.getByRole('option', { name: /AX-2448P/ }).click();
  await expect(dock.getByRole('textbox', { name: 'Name' })).toHaveValue('kq-acc-6');
  await dock.getByRole('button', { name: /Add kq-acc-6/ }).click();
  await expect(page.getByText('15 of 42 U used · 27 free')).toBeVisible();
  await expect(record().getByText('Ports · 0 of 53 used')).toBeVisible();
});

test('C connects it: only free matching ports, next label, Enter steps both ends on', async () => {
  await page.keyboard.press('c');
  const dock = page.getByRole('form', { name: 'Connect' });
  await dock.getByRole('combobox', { name: 'B device' }).fill('kq-core-1');
  await page.getByRole('option', { name: /kq-core-1/ }).click();
  const ends = dock.getByRole('listbox', { name: 'B port' });
  await expect(ends.getByRole('option', { name: /^te1\/1 / })).toHaveAttribute('aria-disabled', 'true');
  await expect(ends.getByRole('option', { name: /^te1\/6 / })).toHaveAttribute('aria-selected', 'true');
  await expect(dock.getByRole('textbox', { name: 'Label' })).toHaveValue('KQ-00177');
  await dock.getByRole('button', { name: /Connect as KQ-00177/ }).click();
  await expect(dock.getByText('Connected kq-acc-6 te1/49 to kq-core-1 te1/6 with KQ-00177')).toBeVisible();
  await expect(dock.getByRole('button', { name: /Connect as KQ-00178/ })).toBeVisible();
  await expect(
    dock.getByRole('listbox', { name: 'A port' }).getByRole('option', { name: /^te1\/50 / }),
  ).toHaveAttribute('aria-selected', 'true');
  await page.getByRole('button', { name: 'Close dock' }).click();
});

test('it is at once in the record of both devices, in Equipment, in Cables, on the sheet', async () => {
  await expect(record().getByText('Ports · 1 of 53 used')).toBeVisible();
  await record().getByRole('button', { name: 'kq-core-1 te1/6' }).click();
  await expect(record().getByRole('button', { name: 'KQ-00177', exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'Equipment' }).click();
  await expect(page.getByRole('gridcell', { name: 'kq-acc-6', exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'Cables' }).click();
  await expect(page.getByRole('grid', { name: 'Cables' })).toBeVisible();
  await page.getByRole('searchbox', { name: 'Filter rows' }).fill('00177');
  await expect(page.getByRole('row').filter({ hasText: 'KQ-00177' })).toContainText('te1/49');
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.getByRole('button', { name: /^Data room · cabling/ }).click();
  await expect(page.getByRole('button', { name: /^kq-acc-6, switch, 1 link/ })).toBeVisible();
});

const plate = (name: string) =>
  page.locator('.react-flow__node-plate').and(page.getByRole('button', { name: new RegExp(`^${name},`) }));

test('selecting a plate selects its row; a dragged plate stays after a reload, labels at their own ends', async () => {
  await page.keyboard.press('=');
  await plate('kq-acc-6').click();
  const strip = page.getByRole('grid', { name: 'Devices on this sheet' });
  await expect(strip.getByRole('row', { selected: true })).toContainText('kq-acc-6');
  await page.keyboard.press('=');
  await expect(strip).toHaveCount(0);
  await page.keyboard.press('0');
  await quiet(page);
  const before = await plate('kq-acc-6').boundingBox();
  const core = await plate('kq-core-1').boundingBox();
  if (before === null || core === null) throw new Error('not drawn');
  await page.mouse.move(before.x + 8, before.y + 8);
  await page.mouse.down();
  await page.mouse.move(before.x - 100, core.y + 40, { steps: 6 });
  await page.mouse.move(before.x - 160, core.y - 90, { steps: 6 });
  await page.mouse.up();
  await saved(page);
  const sides = async () => page.locator('[data-link] text', { hasText: /^te1\/49$/ }).count();
  expect(await sides()).toBeGreaterThan(0);
  await page.reload();
  await expect(plate('kq-acc-6')).toBeVisible();
  await page.keyboard.press('f');
  const [moved, coreNow] = [await plate('kq-acc-6').boundingBox(), await plate('kq-core-1').boundingBox()];
  if (moved === null || coreNow === null) throw new Error('not drawn');
  expect(moved.y).toBeLessThan(coreNow.y);
  // The label of the switch's own port stands nearer to the switch than to the core.
  const label = await page
    .locator('[data-link]', { has: page.locator('title', { hasText: 'KQ-00177 ' }) })
    .locator('text', { hasText: /^te1\/49$/ })
    .boundingBox();
  if (label === null) throw new Error('no label');
  const gap = (box: { x: number; y: number; width: number; height: number }) =>
    Math.hypot(label.x - (box.x + box.width / 2), label.y - (box.y + box.height / 2));
  expect(gap(moved)).toBeLessThan(gap(coreNow));
});

test('the sheet as SVG: the same names, text as text, fonts inside', async () => {
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await page.getByRole('button', { name: 'Save SVG' }).click();
  const file = await (await waiting).path();
  const svg = await readFile(file, 'utf8');
  await page.keyboard.press('Escape');
  for (const name of ['kq-acc-6', 'kq-core-1', 'te1/49', 'KQ-A3-PP1'])
    expect(svg).toContain(`>${name}</text>`);
  expect(svg).toContain('@font-face');
  const opened = await page.context().newPage();
  await opened.setContent(svg.slice(svg.indexOf('<svg')));
  expect(await opened.locator('text', { hasText: /^kq-acc-6$/ }).count()).toBe(1);
  await opened.close();
});

test('the cable schedule and its CSV', async () => {
  await page.getByRole('link', { name: 'Schedules' }).click();
  await expect(page.getByRole('heading', { name: 'Cable schedule', level: 1 })).toBeVisible();
  await expect(
    page.getByText('Cable schedule of Kelder Quay › Harbour House › Ground › Data room'),
  ).toBeVisible();
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save CSV' }).click();
  const csv = await readFile(await (await waiting).path(), 'utf8');
  const lines = csv.trim().split('\r\n');
  expect(lines[0]).toContain('Label,Type,Length (m),A device,A port,A place,B device,B port,B place');
  expect(lines.filter((line) => line.startsWith('KQ-00177,')).length).toBe(1);
});

test('a second person sees each step at once; undo until the device is gone, then redo', async ({
  browser,
  application,
}) => {
  const other = await another(browser, application, 'ben@marrow.example');
  await doLine(other, 'rack KQ-A1');
  await expect(
    other.getByRole('button', { name: /^kq-acc-6, switch, unit 30, 1 of 53/ }).first(),
  ).toBeVisible();
  await doLine(page, 'rack KQ-A1');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Undid: Moved kq-acc-6 on sheet Data room · cabling')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(
    other.getByRole('button', { name: /^kq-acc-6, switch, unit 30, 0 of 53/ }).first(),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(other.getByText('14 of 42 U used · 28 free')).toBeVisible();
  await expect(page.getByText('14 of 42 U used · 28 free')).toBeVisible();
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(other.getByText('15 of 42 U used · 27 free')).toBeVisible();
  await page.getByRole('button', { name: 'Redo' }).click();
  await saved(page);
  await page.getByRole('button', { name: /^Saved/ }).click();
  const steps = page.getByRole('list', { name: 'Steps' });
  await expect(steps.getByRole('listitem').first()).toContainText('Anna Kerr');
  await expect(steps.getByRole('listitem').first()).toContainText(
    'Redid: Connected kq-acc-6 te1/49 to kq-core-1 te1/6 with KQ-00177',
  );
  await page.getByRole('button', { name: 'Back to the record' }).click();
  await other.context().close();
});

test('the command line finds, traces and connects', async () => {
  await doLine(page, 'trace kq-acc-5 te1/25');
  const strip = page.getByRole('region', { name: 'Trace' });
  await expect(strip.getByText('3 cables, 53 m. It ends at')).toBeVisible();
  await expect(strip.getByRole('button', { name: 'KQ-00019' })).toBeVisible();
  await page.keyboard.press('Escape');
  await doLine(page, 'KQ-00042');
  await expect(record().getByRole('heading', { name: 'KQ-00042' })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('TE31-');
  await expect(page.getByRole('option').first()).toContainText('serial TE31-');
  await page.keyboard.press('Escape');
  await doLine(page, 'connect kq-acc-6 te1/50 to kq-core-2 te1/6');
  await saved(page);
  await doLine(page, 'kq-acc-6');
  await expect(record().getByText('Ports · 2 of 53 used')).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('connect kq-acc-6 te1/50 to kq-core-2 te1/13');
  await expect(page.getByRole('option').first()).toContainText('holds KQ-00178');
  await page.keyboard.press('Escape');
});

test('after a restart, and after the server was killed, everything is as it was', async ({ application }) => {
  await application.restart('SIGINT');
  await application.restart('SIGKILL');
  await page.reload();
  await doLine(page, 'kq-acc-6');
  await expect(record().getByText('Ports · 2 of 53 used')).toBeVisible();
});
