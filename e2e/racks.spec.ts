/** Racks by mouse, by keyboard and by proposal: filled, rearranged, refused, printed as seen. */
import type { Locator, Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { another, doLine, expect, quiet, record, saved, signIn, test } from './application.ts';

test.use({ file: 'racks' });

test.describe.configure({ mode: 'serial' });

const plate = (page: Page, name: string) =>
  page.getByRole('button', { name: new RegExp(`^${name}, `) }).first();
const unit = (page: Page, number: number) =>
  page.getByRole('button', { name: `Unit ${number}, free: add a device` });
const middle = async (locator: Locator): Promise<{ x: number; y: number }> => {
  const box = await locator.boundingBox();
  if (box === null) throw new Error('not on screen');
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

/** Carries something with the mouse to a point; lets go unless told to hold. */
async function carry(page: Page, from: Locator, to: { x: number; y: number }, hold = false): Promise<void> {
  const start = await middle(from);
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  await page.mouse.move(start.x + 6, start.y + 6);
  await page.mouse.move(to.x, to.y, { steps: 3 });
  if (!hold) await page.mouse.up();
}
async function openRack(page: Page, name: string): Promise<void> {
  await doLine(page, `rack ${name}`);
  await expect(page.getByRole('heading', { name: `${name} · elevation` })).toBeVisible();
  await quiet(page);
}
async function addRack(page: Page, name: string): Promise<void> {
  await doLine(page, 'data room');
  await expect(record(page).getByRole('heading', { name: 'Data room' })).toBeVisible();
  await record(page).getByLabel('Rack', { exact: true }).fill(name);
  await record(page).getByRole('button', { name: 'Add rack' }).click();
  await saved(page);
  await openRack(page, name);
}

/** What stands in KQ-A1, from the top: model, unit. */
const contents: readonly [string, number | null][] = [
  ['Lumenroot LP-24LC', 42],
  ['Lumenroot CM-1', 41],
  ['Norvane AX-2448P', 40],
  ['Norvane CR-6032', 38],
  ['Lumenroot CM-1', 37],
  ['Ostrel Bulwark 220', 35],
  ['Norvane ER-410', 33],
  ['Tessmark T2-Rack', 20],
  ['Tessmark T2-Rack', 17],
  ['Brackwater UP-3000', 1],
  ['Brackwater PS-16', null],
];

test('KQ-A1 is rebuilt from an empty rack by mouse in under 40 actions', async ({ page, application }) => {
  await signIn(page, application);
  await addRack(page, 'KQ-A8');
  let actions = 1;
  await page.getByRole('button', { name: 'Gear', exact: true }).click();
  await quiet(page);
  const gear = page.getByRole('complementary', { name: 'Gear' });
  let typed = '';
  for (const [model, at] of contents) {
    if (model !== typed) {
      await gear.getByLabel('Find gear').fill(model);
      actions++;
      typed = model;
    }
    const item = gear.getByRole('list', { name: 'Models' }).getByRole('button').first();
    const target = at === null ? { ...(await middle(unit(page, 25))) } : await middle(unit(page, at));
    // The strip of a model lands by its top edge: the pointer is held above the middle of the highest unit it fills.
    const units = model.includes('T2') ? 2 : model.includes('UP-3000') ? 3 : 1;
    const top = at === null || units === 1 ? target : await middle(unit(page, at + units - 1));
    await carry(page, item, top);
    actions++;
    await saved(page);
    // The rack may be brought into view anew for what stands in it now: the next unit is looked for where it is then.
    await quiet(page);
  }
  expect(actions).toBeLessThan(40);
  await expect(page.getByText('14 of 42 U used · 28 free')).toBeVisible();
  for (const [role, where] of [
    ['switch', 'unit 38'],
    ['switch', 'unit 40'],
    ['firewall', 'unit 35'],
    ['router', 'unit 33'],
    ['server', 'units 20 to 21'],
    ['server', 'units 17 to 18'],
    ['UPS', 'units 1 to 3'],
    ['power strip', 'at the side'],
  ])
    await expect(
      page.getByRole('button', { name: new RegExp(`, ${role}, ${where}, `) }).first(),
    ).toBeVisible();
  await page.reload();
  await expect(page.getByText('14 of 42 U used · 28 free')).toBeVisible();
});

test('and by keyboard only', async ({ page, application }) => {
  await signIn(page, application);
  await addRack(page, 'KQ-A9');
  let actions = 0;
  for (const [model, at] of contents) {
    await doLine(page, `add ${model} to KQ-A9${at === null ? '' : ` U${at}`}`);
    actions += 3;
    await saved(page);
  }
  expect(actions).toBeLessThan(40);
  await expect(page.getByText('14 of 42 U used · 28 free')).toBeVisible();
  const ups = page.getByRole('button', { name: /, UPS, units 1 to 3, / }).first();
  await ups.focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('button', { name: /, UPS, units 2 to 4, / }).first()).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(ups).toBeVisible();
});

test('and with fit-it-for-me: taken out, proposed with reasons, accepted', async ({ page, application }) => {
  await signIn(page, application);
  await openRack(page, 'KQ-A9');
  const plates = page.getByRole('button', { name: /used$/ });
  const ups = page.getByRole('button', { name: /, UPS, units 1 to 3, / }).first();
  const stood = await ups.boundingBox();
  await page
    .getByRole('button', { name: /, patch panel, unit 42, / })
    .first()
    .click();
  // The record that opens moves nothing under the hand: the second press finds its plate.
  await expect(record(page)).toBeVisible();
  await quiet(page);
  expect(await ups.boundingBox()).toEqual(stood);
  await ups.click({ modifiers: ['Shift'] });
  await page
    .getByRole('button', { name: /, power strip, at the side, / })
    .first()
    .click({ modifiers: ['Control'] });
  await expect(page.getByText('11 chosen')).toBeVisible();
  await page.getByRole('button', { name: 'Take out' }).click();
  await expect(page.getByText('0 of 42 U used · 42 free')).toBeVisible();
  await page.getByRole('button', { name: 'Fit for me' }).click();
  const dock = page.getByRole('region', { name: 'Fit it for me' });
  await dock.getByRole('button', { name: 'Propose places in KQ-A9' }).click();
  await expect(dock.getByText('UPS at the bottom, 52 kg')).toBeVisible();
  await expect(dock.getByText(/^directly below its panel/)).toBeVisible();
  await page.getByRole('button', { name: 'Accept 11' }).click();
  await expect(page.getByText('14 of 42 U used · 28 free')).toBeVisible();
  await expect(ups).toBeVisible();
  await expect(plates.first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('0 of 42 U used · 42 free')).toBeVisible();
  await page.getByRole('button', { name: 'Redo', exact: true }).click();
  await expect(page.getByText('14 of 42 U used · 28 free')).toBeVisible();
});

test('an illegal drop says why before it is let go; a good one snaps and is undone', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await openRack(page, 'KQ-A1');
  const server = page.getByRole('button', { name: /^kq-srv-1, server, units 20 to 21/ }).first();
  await carry(page, server, await middle(plate(page, 'kq-fw-1')), true);
  await expect(page.getByRole('status').filter({ hasText: 'kq-fw-1 fills U35' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(server).toBeVisible();
  await carry(page, server, await middle(unit(page, 27)));
  await expect(
    page.getByRole('button', { name: /^kq-srv-1, server, units 2[67] to 2[78]/ }).first(),
  ).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(server).toBeVisible();
});

test('two people drop into one unit at once: the second gets the reason', async ({
  browser,
  page,
  application,
}) => {
  await signIn(page, application);
  const other = await another(browser, application, 'ben@marrow.example');
  await openRack(page, 'KQ-A2');
  await openRack(other, 'KQ-A2');
  const spot = await middle(unit(page, 28));
  const spotOther = await middle(unit(other, 28));
  await carry(page, plate(page, 'kq-edge-2'), spot, true);
  await carry(other, plate(other, 'kq-fw-2'), spotOther, true);
  await Promise.all([page.mouse.up(), other.mouse.up()]);
  await expect(page.getByRole('button', { name: /, unit 28, / }).first()).toBeVisible();
  const told = async (one: Page): Promise<number> => one.getByText(/kq-(edge|fw)-2 fills U28/).count();
  await expect.poll(async () => (await told(page)) + (await told(other))).toBe(1);
  await expect(page.getByRole('button', { name: /, unit 28, / })).toHaveCount(2);
  await other.context().close();
});

test('printed as SVG it looks as on the screen', async ({ page, application }) => {
  await signIn(page, application);
  await openRack(page, 'KQ-A1');
  await page.getByRole('button', { name: 'Print' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save SVG' }).click(),
  ]);
  const svg = await readFile(await download.path(), 'utf8');
  const onScreen = await page
    .locator('.plate path')
    .evaluateAll((paths) => paths.map((path) => path.getAttribute('d') ?? '').filter((d) => d.length > 40));
  expect(onScreen.length).toBeGreaterThan(20);
  for (const shape of onScreen) expect(svg).toContain(shape);
  for (const text of ['kq-core-1', 'kq-ups-1', '14 of 42 U', 'Feed A']) expect(svg).toContain(text);
  expect(svg).toContain('@font-face');
});

test('colours, feeds, where it fits', async ({ page, application }) => {
  await signIn(page, application);
  await openRack(page, 'KQ-A1');
  await page.getByRole('button', { name: 'All 5 racks' }).click();
  await expect(page.getByRole('heading', { name: '5 racks · elevations' })).toBeVisible();
  await page.getByRole('button', { name: 'If a feed fails' }).click();
  const feeds = page.getByRole('region', { name: 'If a feed fails' });
  await expect(feeds.getByText('Goes dark · 3')).toBeVisible();
  await expect(feeds.getByRole('button', { name: 'kq-acc-3' })).toBeVisible();
  await expect(page.getByRole('list', { name: 'Key' })).toContainText('on battery');
  await page.getByRole('button', { name: 'Where it fits' }).click();
  const where = page.getByRole('region', { name: 'Where does it fit' });
  await where.getByLabel('Units, mass, power').fill('4 units, 28 kg, 900 W');
  await expect(where.getByRole('button').first()).toBeVisible();
  await expect(where.getByText(/It fits into \d+ of 12 racks/)).toBeVisible();
  await expect(where.getByRole('listitem').filter({ hasText: 'BR-A1' })).toContainText(
    'W over what its feeds carry',
  );
  await where.getByLabel('Units, mass, power').fill('something');
  await expect(where.getByText('Write figures such as')).toBeVisible();
});

test('a rack made smaller than its content is refused, with what stands there', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await openRack(page, 'KQ-A1');
  await expect(record(page).getByRole('heading', { name: 'KQ-A1' })).toBeVisible();
  const units = record(page).getByRole('textbox', { name: 'Units' }).first();
  await units.fill('20');
  await units.press('Enter');
  await expect(record(page).getByRole('alert')).toContainText('KQ-A1-PP1 stands at U42 and 7 more above U20');
});
