/** Cabling as a person does it: a new switch by mouse and ranges, by keyboard, from lists; faults; two at once. */
import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { another, doLine, expect, pick, record, saved, signIn, test } from './application.ts';

test.use({ file: 'cabling' });
// Later steps build on what earlier ones cabled.
test.describe.configure({ mode: 'serial' });

const dock = (page: Page) => page.getByRole('form', { name: 'Connect' });

/** Does a line and waits until the change it makes is saved. */
async function changeLine(page: Page, text: string): Promise<void> {
  const button = page.getByRole('button', { name: /^Saved r\d+/ });
  const before = (await button.textContent()) ?? '';
  await doLine(page, text);
  await expect(button).not.toHaveText(before);
}

async function chooseB(page: Page, device: string): Promise<void> {
  await dock(page).getByRole('combobox', { name: 'B device' }).fill(device);
  await page
    .getByRole('option', { name: new RegExp(`^${device}`) })
    .first()
    .click();
}

test('a new access switch with eight uplinks and 24 panel ports is cabled in under three minutes', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  const start = Date.now();
  await changeLine(page, 'add Norvane AX-3448M to KQ-A3 U30');
  await doLine(page, 'kq-acc-6');
  await expect(record(page).getByRole('heading', { name: 'kq-acc-6' })).toBeVisible();
  await page.keyboard.press('c');
  await chooseB(page, 'kq-core-1');
  const ways = dock(page).getByRole('listbox', { name: 'What fits' });
  await expect(ways.getByRole('option').first()).toContainText('10 m');
  // KQ-A3 and KQ-A1 are too far apart for passive twinax: optics in matched pairs are offered with their price.
  const fibre = ways.getByRole('option', { name: 'OM4 duplex LC' });
  await expect(fibre).toContainText('OM4 duplex LC + 2 optics10 m207.70 EUR');
  await fibre.click();
  await dock(page)
    .getByText(/^Does not fit/)
    .click();
  await expect(
    dock(page)
      .getByText(/the longest is 3 m, the run is/)
      .first(),
  ).toBeVisible();
  await dock(page).getByRole('textbox', { name: 'In parallel' }).fill('3');
  await dock(page)
    .getByRole('button', { name: /Connect 3 pairs/ })
    .click();
  await expect(dock(page).getByText(/^Connected 3 pairs of ports/)).toBeVisible();
  await chooseB(page, 'kq-core-2');
  for (let press = 0; press < 3; press++) {
    await dock(page)
      .getByRole('button', { name: /Connect as/ })
      .click();
    await expect(
      dock(page).getByText(new RegExp(`^Connected kq-acc-6 tw1/5${press + 2} to kq-core-2`)),
    ).toBeVisible();
  }
  await page.getByRole('button', { name: 'Close dock' }).click();
  await changeLine(page, 'connect kq-acc-6 mg1/47 to kq-edge-1 ge0/3');
  await changeLine(page, 'connect kq-acc-6 mg1/48 to kq-edge-2 ge0/3');
  await changeLine(page, 'connect kq-acc-6 1/1-24 to KQ-A3-PP1 front 13-36');
  await saved(page);
  expect((Date.now() - start) / 1000).toBeLessThan(180);
  await doLine(page, 'kq-acc-6');
  await expect(record(page).getByText('Ports · 32 of', { exact: false })).toBeVisible();
  await page.reload();
  await expect(record(page).getByText('Ports · 32 of', { exact: false })).toBeVisible();
  const [{ count }] = (await application.query(
    `SELECT count(*)::int AS count FROM port WHERE transceiver_id IS NOT NULL AND device_id = (SELECT id FROM device WHERE name = 'kq-acc-6')`,
  )) as [{ count: number }];
  expect(count).toBe(6);
});

test('the same by keyboard only: connect, trace, and back with undo', async ({ page, application }) => {
  await signIn(page, application);
  await changeLine(page, 'add Norvane AX-2448P to KQ-A3 U28');
  await doLine(page, 'kq-acc-7');
  await expect(record(page).getByRole('heading', { name: 'kq-acc-7' })).toBeVisible();
  await page.keyboard.press('c');
  await pick(page, 'kq-core-1');
  await expect(dock(page).getByRole('button', { name: /^Connect as/ })).toBeVisible();
  for (let press = 0; press < 3; press++) {
    const label = await dock(page).getByRole('textbox', { name: 'Label' }).inputValue();
    await page.keyboard.press('Enter');
    await expect(dock(page).getByRole('status')).toContainText(`with ${label}`);
  }
  await page.keyboard.press('Escape');
  await expect(dock(page)).toBeHidden();
  await doLine(page, 'trace kq-acc-7 te1/49');
  const strip = page.getByRole('region', { name: 'Trace' });
  await expect(strip.getByText(/Runs at/)).toContainText('10G');
  await page.keyboard.press('Escape');
  for (let press = 0; press < 3; press++) {
    await page.keyboard.press('Control+z');
    await expect(page.getByText(/^Undid: Connected kq-acc-7/).last()).toBeVisible();
    await saved(page);
  }
  await doLine(page, 'kq-acc-7');
  await expect(record(page).getByText('Ports · 0 of', { exact: false })).toBeVisible();
});

test('the deliberate faults stand in the records of what is concerned', async ({ page, application }) => {
  await signIn(page, application);
  await doLine(page, 'br-acc-1 te1/25');
  await expect(
    record(page).getByText('Lumenroot LR-10 is made for single-mode, Lumenroot SR-10 for multimode'),
  ).toBeVisible();
  await doLine(page, 'kq-acc-5');
  const poe = record(page).locator('section', { hasText: 'Power over Ethernet' });
  await expect(poe).toContainText('374.0 W to 14');
  await expect(poe).toContainText('-4.0 W');
  // The right optic mends the link; undo brings the fault back.
  await doLine(page, 'br-acc-1 te1/25');
  const optic = record(page).getByRole('combobox', { name: 'Transceiver' });
  await optic.fill('LR-10');
  await page.getByRole('option', { name: /Lumenroot LR-10/ }).click();
  await expect(record(page).getByText('is made for single-mode, Lumenroot', { exact: false })).toBeHidden();
  await expect(record(page).getByText(/of 6\.2 dB/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(record(page).getByText('is made for single-mode, Lumenroot', { exact: false })).toBeVisible();
});

test('an end moves, ends swap, a disconnection says what it cuts off, a label is kept', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  const label = 'AH-00018';
  await doLine(page, label);
  const mine = record(page);
  await expect(mine.getByRole('heading', { name: label })).toBeVisible();
  await mine.getByRole('button', { name: 'Swap ends' }).click();
  const ends = mine.locator('section', { hasText: 'A end' }).first();
  await expect(ends).toContainText(/A end.*ah-acc-1.*gi1\/13.*B end.*AH-A1-PP1/s);
  await mine.getByRole('button', { name: 'Move A end' }).click();
  await mine.getByRole('combobox', { name: 'A end: port' }).fill('gi1/14');
  await page.getByRole('option', { name: 'gi1/14' }).click();
  await expect(ends).toContainText('gi1/14');
  await doLine(page, 'kq-cam-1 eth0');
  await expect(mine.getByRole('heading', { name: 'kq-cam-1 eth0' })).toBeVisible();
  await mine.getByRole('button', { name: 'Disconnect …' }).click();
  await expect(mine.getByRole('alertdialog')).toContainText('Cuts off 1 device: kq-cam-1.');
  await mine.getByRole('button', { name: 'Retire, keep the label' }).click();
  await expect(mine.getByText('Free.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(mine.getByText('Free.')).toBeHidden();
});

test('circuits are added, plugged in and traced; free ports are found near a place', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await page.getByRole('link', { name: 'Cables' }).click();
  await page.getByRole('button', { name: 'Circuits' }).click();
  await page.getByLabel('Circuit number').fill('HC-20417');
  await page.getByRole('button', { name: 'Add circuit' }).click();
  await expect(page.getByText('There is already a circuit with the', { exact: false })).toBeVisible();
  await page.getByLabel('Circuit number').fill('HC-9001');
  await page.getByLabel('Provider').first().fill('Holm Carrier');
  await page.getByRole('button', { name: 'Add circuit' }).click();
  await expect(record(page).getByRole('heading', { name: 'HC-9001' })).toBeVisible();
  await record(page).getByRole('button', { name: 'Plug in the A end' }).click();
  await record(page).getByRole('combobox', { name: 'A end: device' }).fill('ah-edge-1');
  await page.getByRole('option', { name: /^ah-edge-1/ }).click();
  await record(page).getByRole('combobox', { name: 'A end: port' }).fill('ge0/4');
  await page.getByRole('option', { name: 'ge0/4' }).click();
  await record(page)
    .getByRole('button', { name: /^Trace/ })
    .click();
  await expect(page.getByRole('region', { name: 'Trace' })).toContainText(
    'It is handed over to Holm Carrier',
  );
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Free ports' }).click();
  await page.getByRole('combobox', { name: 'Near' }).fill('Operations');
  await page.getByRole('option', { name: /Operations room/ }).click();
  const grid = page.getByRole('grid', { name: 'Free ports' });
  await expect(grid.getByRole('row').nth(1)).toContainText('in Operations room');
  await page.getByRole('heading', { name: 'Free ports' }).click();
  await changeLine(page, 'reserve kq-acc-5 gi1/24 for lift telephone');
  await saved(page);
  await doLine(page, 'kq-acc-5 gi1/24');
  await expect(record(page).getByText(/RJ45 · reserved/)).toBeVisible();
});

test('a cable list: every row told, good ones made in one go; a pasted block with half its ends unknown', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await page.getByRole('link', { name: 'Cables' }).click();
  await expect(page.getByRole('grid', { name: 'Cables' }).getByRole('row').nth(3)).toBeVisible();
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Import cables' });
  await dialog.getByLabel('Cable list').setInputFiles({
    name: 'list.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'Cable ID;Type;Length;From;To\nKQ-00500;Cat 6A RJ45;2;kq-acc-4:gi1/30;KQ-A3-PP2:F30\nKQ-00501;Cat 6A RJ45;-2;kq-acc-4:gi1/31;KQ-A3-PP2:F31\nKQ-00502;Cat 6A RJ45;2;kq-acc-4:gi1/32;nowhere:1\n',
    ),
  });
  await expect(dialog.getByText('1 new, 0 changed, 0 the same, 2 that cannot be taken')).toBeVisible();
  await expect(dialog.getByText('the length -2 is negative')).toBeVisible();
  await expect(dialog.getByText('there is no device nowhere')).toBeVisible();
  await dialog.getByRole('button', { name: 'Import 1 good row, leave out 2' }).click();
  await expect(page.getByText('list.csv: 1 cable made or changed.')).toBeVisible();
  await doLine(page, 'KQ-00500');
  await expect(record(page).getByText('gi1/30', { exact: true })).toBeVisible();
  await page
    .getByRole('button', { name: /^Connect/ })
    .first()
    .click();
  // The list of devices is open: what lies outside it is hidden from assistive technology until it closes.
  await page.locator('form[aria-label="Connect"]').getByText('From a list').click();
  await page
    .getByRole('textbox', { name: 'Rows' })
    .fill('kq-acc-4 gi1/33\tKQ-A3-PP2 33\nkq-acc-4 gi1/34\tKQ-A9-PP2 34\n');
  const told = page.getByRole('list', { name: 'What each row comes to' });
  await expect(told).toContainText('there is no device KQ-A9-PP2');
  await page.getByRole('button', { name: 'Connect 1 good row' }).click();
  await doLine(page, 'kq-acc-4 gi1/33');
  await expect(record(page).getByText('KQ-A3-PP2 F33')).toBeVisible();
  await doLine(page, 'kq-acc-4 gi1/34');
  await expect(record(page).getByText('Free.')).toBeVisible();
});

test('labels close their gap with a preview; the scheme refuses a part it does not know', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await page.getByRole('link', { name: 'Cables' }).click();
  await page.getByRole('button', { name: 'Labels', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Labels and lengths' });
  await dialog.getByLabel('Scheme of the project').fill('{site}-{nr}');
  await expect(dialog.getByText(/holds \{nr\}, which is not one of/)).toBeVisible();
  await dialog.getByLabel('Scheme of the project').fill('{site}-{number}');
  await expect(dialog.getByRole('list', { name: 'New labels' })).toContainText('AH-00018→AH-00017');
  const rules = dialog.getByRole('form', { name: 'Lengths and losses' });
  await rules.getByLabel('Slack per end, m').fill('-1');
  await rules.getByRole('button', { name: 'Keep' }).click();
  await expect(rules.getByText(/^Slack per end, m is /)).toBeVisible();
  await rules.getByLabel('Slack per end, m').fill('0.75');
  await rules.getByRole('button', { name: 'Keep' }).click();
  await expect(rules.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await dialog.getByRole('button', { name: /^Relabel \d+ cable/ }).click();
  await expect(dialog).toBeHidden();
  await doLine(page, 'AH-00017');
  await expect(record(page).getByRole('heading', { name: 'AH-00017' })).toBeVisible();
});

test('two people take the same port at once: one gets it, the other is told, nothing is half done', async ({
  page,
  browser,
  application,
}) => {
  await signIn(page, application);
  const ben = await another(browser, application, 'ben@marrow.example');
  await Promise.all([
    doLine(page, 'connect kq-acc-1 gi1/30 to kq-acc-2 gi1/30'),
    doLine(ben, 'connect kq-acc-1 gi1/30 to kq-acc-2 gi1/31'),
  ]);
  await saved(page);
  await saved(ben);
  const rows = (await application.query(
    `SELECT c.label FROM cable c JOIN port p ON p.id IN (c.a_port_id, c.b_port_id) JOIN device d ON d.id = p.device_id
     WHERE d.name = 'kq-acc-1' AND p.name = 'gi1/30'`,
  )) as { label: string }[];
  expect(rows).toHaveLength(1);
  // The one who was too late reads the reason, in the line or in a notice; both windows then show what holds.
  await expect(async () => {
    await page.keyboard.press('Escape');
    await doLine(page, 'kq-acc-1 gi1/30');
    const label = rows[0]?.label ?? '';
    await expect(record(page).getByRole('button', { name: label, exact: true })).toBeVisible({
      timeout: 2500,
    });
  }).toPass({ timeout: 20_000 });
  await ben.context().close();
});

test('cables lie on the elevation in their colours; a lit run shows on racks and sheets', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await doLine(page, 'rack KQ-A3');
  await expect(page.getByRole('heading', { name: 'KQ-A3 · elevation' })).toBeVisible();
  const drawn = page.locator('[data-bench] path[stroke="#3D6FB4"]');
  await expect(drawn).toHaveCount(0);
  await page.getByRole('button', { name: /^Show/ }).click();
  const shows = page.getByRole('dialog', { name: 'What the racks show' });
  await shows.getByText('Cables between the racks').click();
  await page.keyboard.press('Escape');
  await expect(shows).toBeHidden();
  await expect.poll(() => drawn.count()).toBeGreaterThan(20);
  await doLine(page, 'trace kq-cam-1 eth0');
  const strip = page.getByRole('region', { name: 'Trace' });
  await expect(strip).toContainText('It ends at kq-');
  await expect(strip.getByRole('list', { name: 'The run' }).getByRole('button')).toHaveCount(9);
  await expect.poll(() => page.locator('[data-bench] path[stroke="#6B2D82"]').count()).toBeGreaterThan(0);
});

test('schedules: the patch list as a workbook, the transceivers with light left', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await page.getByRole('link', { name: 'Schedules' }).click();
  const choose = async (name: string): Promise<void> => {
    const list = page.getByRole('navigation', { name: 'Schedules' });
    await list.getByRole('button', { name, exact: true }).click();
  };
  await choose('Transceivers');
  await expect(page.getByRole('grid', { name: 'Transceivers' }).getByRole('row').nth(1)).toContainText(
    'Lumenroot',
  );
  await choose('Patch list');
  await expect(page.getByRole('grid', { name: 'Patch list' })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save XLSX' }).click(),
  ]);
  expect(download.suggestedFilename()).toContain('.xlsx');
  const bytes = await readFile(await download.path());
  expect(bytes.subarray(0, 2).toString()).toBe('PK');
  const [paper] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save PDF' }).click(),
  ]);
  expect((await readFile(await paper.path())).subarray(0, 5).toString()).toBe('%PDF-');
});
