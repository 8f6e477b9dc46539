/** From a drawing: facts where they stand, other models, copies, sheets of switching and sites, and what goes wrong. */
import type { Page } from '@playwright/test';
import {
  beginProject,
  drawn,
  expect,
  password,
  pick,
  plate,
  quiet,
  record,
  saved,
  section,
  test,
  bringIn,
} from './application.ts';
import { Hand, models, panel, typed } from './hand.ts';

test.use({ file: 'drawmore' });

const plates = (page: Page) => page.locator('.react-flow__node-plate');
async function blankSheet(page: Page): Promise<Hand> {
  await section(page, 'Sheets');
  await page.getByRole('button', { name: 'Begin with a blank sheet' }).click();
  await expect(models(page).getByLabel('Find a role or model')).toBeFocused();
  return new Hand(page);
}
/** Presses a label of a link twice, by what it says. */
async function pressLabel(page: Page, text: string): Promise<void> {
  const box = await page.locator('[data-link] text', { hasText: text }).first().boundingBox();
  if (box === null) throw new Error(text);
  await page.mouse.dblclick(box.x + box.width / 2, box.y + box.height / 2);
}

test('an empty project starts with the ways to begin; a blank sheet is one press, a topology is typed at once', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Ways to begin');
  await section(page, 'Start');
  await page.getByRole('button', { name: 'Type a topology' }).click();
  await expect(page.getByRole('textbox', { name: 'Topology, one link a line' })).toBeFocused();
  await page.keyboard.type('rt-1 sw-1');
  await expect(page.getByText('+2 devices, +1 cable')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await saved(page);
  await section(page, 'Start');
  await expect(page.getByRole('button', { name: /^2 devices/ })).toContainText('2 not placed yet');
  await expect(page.getByRole('region', { name: /^Sheets/ }).locator('[data-drawn="2"]')).toBeVisible();
});

test('facts are edited where they are drawn: model, place, port, address; undone one by one', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Facts');
  const hand = await blankSheet(page);
  await typed(page, 'rt-1 sw-1');
  await plate(page, 'rt-1').click();
  await page.keyboard.press('d');
  const facts = page.getByRole('group', { name: 'Facts of rt-1' });
  await expect(facts.getByRole('textbox', { name: 'Name' })).toBeFocused();
  await page.keyboard.type('edge-1');
  await page.keyboard.press('Enter');
  await expect(plate(page, 'edge-1')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('group', { name: /^Facts of/ })).toHaveCount(0);
  // At the end of the line: the port is renamed, an address is given; a wrong one is refused there.
  await page.mouse.click(...(await hand.corner()));
  await page.keyboard.press('0');
  await quiet(page);
  await pressLabel(page, 'eth0');
  const link = page.getByRole('group', { name: 'Facts of the link' });
  await expect(link.getByRole('textbox', { name: 'Port name' })).toBeFocused();
  await page.keyboard.type('wan0');
  await page.keyboard.press('Enter');
  await saved(page);
  const address = link.getByLabel('Address');
  if ((await address.count()) > 0) {
    await address.fill('ten');
    await address.press('Enter');
    await expect(link.getByRole('alert')).toContainText('is not an address');
    await address.fill('10.0.0.1/30');
    await address.press('Enter');
  }
  await saved(page);
  const rows = (await application.query(`SELECT name FROM port WHERE name = 'wan0'`)) as unknown[];
  expect(rows).toHaveLength(1);
  await page.keyboard.press('Escape');
});

test('several get another model at once; duplicated they count on; five phones are one plate and five again', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Copies');
  const hand = await blankSheet(page);
  await typed(page, '2 routers each on sw-1\nph-1 sw-1');
  await expect(plates(page)).toHaveCount(4);
  await plate(page, 'ph-1').click();
  await page.keyboard.press('Control+d');
  const ask = page.getByRole('dialog', { name: 'Duplicate' });
  await ask.getByRole('textbox', { name: 'Copies' }).fill('4');
  await expect(ask.getByRole('status')).toContainText('ph-2 to ph-5, 4 cables');
  await page.keyboard.press('Enter');
  await saved(page);
  await expect(plates(page)).toHaveCount(8);
  await expect(page.getByText('Rows: 8 devices, 7 lines')).toBeVisible();
  await page.mouse.click(...(await hand.corner()));
  await page.keyboard.press('0');
  await quiet(page);
  for (const [at, name] of ['ph-1', 'ph-2', 'ph-3', 'ph-4', 'ph-5'].entries())
    await plate(page, name).click(at === 0 ? {} : { modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'As one plate' }).click();
  await expect(plates(page)).toHaveCount(4);
  await page.getByRole('button', { name: /^5 phones/ }).click();
  await page.getByRole('button', { name: 'One by one' }).click();
  await expect(plates(page)).toHaveCount(8);
  await page.mouse.click(...(await hand.corner()));
  await plate(page, 'rt-1').click();
  await plate(page, 'rt-2').click({ modifiers: ['Shift'] });
  await page.keyboard.press('d');
  const facts = page.getByRole('group', { name: 'Facts of 2 devices' });
  await expect(facts.getByRole('button', { name: /^Replace/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await pick(page, 'ER-2');
  await facts.getByRole('button', { name: /^Change 2 models/ }).click();
  await saved(page);
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Undid: Changed the model of 2 devices/)).toBeVisible();
});

test('on a sheet of switching a pulled line takes VLANs; between sites it is a circuit, taken back with all it made', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Layers');
  const hand = await blankSheet(page);
  await hand.take('24-port switch');
  await hand.stamp(0.35, 0.3);
  await hand.stamp(0.65, 0.3);
  await page.keyboard.press('Escape');
  await hand.pull('sw-1', 'sw-2');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /Cabling/ }).click();
  await page.getByRole('option', { name: 'Switching' }).click();
  await drawn(page);
  await hand.pull('sw-1', 'sw-2');
  await expect(panel(page)).toContainText('trunk, tagged all');
  await page.keyboard.press('Enter');
  await saved(page);
  const project = new URL(page.url()).pathname.split('/')[2] ?? '';
  const places = ['Kelder Quay', 'Brinsay'].map((path) => ({ path, kind: 'site' }));
  const made = await page.request.post(`${application.url}/api/v1/projects/${project}/exchange`, {
    headers: { 'Content-Type': 'text/plain' },
    data: JSON.stringify({ format: 'visograph-exchange', version: 1, places }),
  });
  expect(made.ok()).toBe(true);
  await section(page, 'Sheets');
  await page.getByRole('button', { name: 'Draw the sites' }).click();
  await drawn(page);
  await hand.pull('Kelder Quay', 'Brinsay');
  await expect(panel(page)).toContainText('private WAN');
  await panel(page).getByRole('button', { name: 'Change …' }).click();
  await panel(page).getByLabel('Provider').fill('Holm Carrier');
  await panel(page).getByLabel('Bandwidth').fill('1G');
  await panel(page).getByLabel('Bandwidth').press('Enter');
  await expect(panel(page)).toContainText('Holm Carrier · 1G');
  const devices = async (): Promise<number> =>
    ((await application.query('SELECT id FROM device')) as unknown[]).length;
  expect(await devices()).toBeGreaterThanOrEqual(4);
  await panel(page).getByRole('button', { name: /^Undo/ }).click();
  await saved(page);
  await expect(page.getByText(/^Rows: .* 0 lines/)).toBeVisible();
});

test('two people pull to one port at once: one gets it, the other is told; nothing is half done', async ({
  page,
  application,
  browser,
}) => {
  await beginProject(page, application, 'Together');
  const project = new URL(page.url()).pathname.split('/')[2] ?? '';
  await bringIn(page, application, project, 'ben@marrow.example');
  const anna = await blankSheet(page);
  await typed(page, 'rt-1 sw-1\nrt-2 sw-1');
  await anna.take('24-port switch');
  await anna.stamp(0.5, 0.75);
  await page.keyboard.press('Escape');
  // He has two projects, so that he is asked which.
  const ben = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await ben.goto(application.url);
  await ben.getByLabel('E-mail').fill('ben@marrow.example');
  await ben.getByLabel('Password').fill(password);
  await ben.getByRole('button', { name: 'Sign in' }).click();
  await expect(ben.getByRole('heading', { name: 'Projects' })).toBeVisible();
  await ben.goto(page.url());
  await expect(plate(ben, 'sw-2')).toBeVisible();
  await quiet(ben);
  /** Out of one port of the switch to a router. */
  const pullPort = async (who: Page, to: string): Promise<void> => {
    const from = await plate(who, 'sw-2').boundingBox();
    const end = await plate(who, to).boundingBox();
    if (from === null || end === null) throw new Error(to);
    await who.mouse.move(from.x + from.width / 2, from.y + 3);
    const port = who.locator('[data-pull="sw-2"] [data-port="7"]');
    await expect(port).toBeVisible();
    const grip = await port.boundingBox();
    if (grip === null) throw new Error('no port');
    await who.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
    await who.mouse.down();
    await who.mouse.move(end.x + end.width / 2, end.y + end.height / 2, { steps: 4 });
    await who.mouse.up();
  };
  await ben.context().setOffline(true);
  await pullPort(ben, 'rt-2');
  await pullPort(page, 'rt-1');
  await saved(page);
  await page.keyboard.press('Enter');
  await ben.context().setOffline(false);
  await expect(ben.getByRole('alert')).toContainText(/sw-2.*7|holds|taken/);
  const cables = (await application.query(
    `SELECT c.id FROM cable c JOIN port p ON p.id IN (c.a_port_id, c.b_port_id) JOIN device d ON d.id = p.device_id
     WHERE d.name = 'sw-2' AND d.project_id = '${project}'`,
  )) as unknown[];
  expect(cables).toHaveLength(1);
  await expect(ben.getByText('Rows: 4 devices, 3 lines')).toBeVisible();
  await ben.context().close();
});

test('what is dropped while the server is away is drawn, waits, and is saved when it is back', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Away');
  const hand = await blankSheet(page);
  await hand.take('router');
  await application.stop();
  await expect(page.getByRole('button', { name: /^Offline/ })).toBeVisible();
  const { x, y } = await hand.spot(0.5, 0.4);
  await page.mouse.click(x, y);
  await expect(plate(page, 'rt-1')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Offline: 1 edit waiting/ })).toBeVisible();
  await application.start();
  await saved(page);
  await page.reload();
  await expect(plate(page, 'rt-1')).toBeVisible();
});

test('a locked plate takes no line; a paste of ten thousand lines is read as far as it goes, and says so', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Bad input');
  const hand = await blankSheet(page);
  await typed(page, 'rt-1 sw-1');
  await plate(page, 'sw-1').click();
  await expect(record(page)).toBeVisible();
  await page.getByRole('button', { name: 'Lock', exact: true }).click();
  await saved(page);
  await quiet(page);
  await page.mouse.click(...(await hand.corner()));
  await expect(record(page)).toHaveCount(0);
  await hand.pull('rt-1', 'sw-1');
  await expect(page.getByText('sw-1 is locked on this sheet. Unlock it first.')).toBeVisible();
  await page.getByRole('button', { name: 'As text' }).click();
  const text = page.getByRole('textbox', { name: 'Topology, one link a line' });
  const lines = Array.from({ length: 10_000 }, (_, at) => `core-1 host-${at}`).join('\n');
  const began = Date.now();
  // As a paste is: at once, not line by line.
  await text.evaluate((area, pasted) => {
    Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')?.set?.call(area, pasted);
    area.dispatchEvent(new Event('input', { bubbles: true }));
  }, lines);
  await expect(page.getByRole('list', { name: 'Lines that are wrong' })).toContainText(/500/);
  expect(Date.now() - began).toBeLessThan(60_000);
  await page.keyboard.press('Escape');
  await expect(plates(page)).toHaveCount(2);
  await expect(record(page)).toHaveCount(0);
});

test('the drawing has its room: with nothing chosen, and with record and dock open', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Room');
  await blankSheet(page);
  await typed(page, 'rt-1 sw-1');
  await page.keyboard.press('m');
  await expect(models(page)).toHaveCount(0);
  const size = async (): Promise<{ width: number; height: number }> => {
    await quiet(page);
    const box = await page.locator('[data-sheet]').boundingBox();
    return { width: box?.width ?? 0, height: box?.height ?? 0 };
  };
  const alone = await size();
  expect(alone.width).toBeGreaterThanOrEqual(1180);
  expect(alone.height).toBeGreaterThanOrEqual(660);
  await plate(page, 'rt-1').click();
  await record(page).getByRole('button', { name: /^eth0/ }).first().click();
  await expect(record(page).getByRole('heading', { name: 'rt-1 eth0' })).toBeVisible();
  await page.keyboard.press('t');
  await expect(page.getByRole('region', { name: 'Trace' })).toBeVisible();
  const least = await size();
  expect(least.width).toBeGreaterThanOrEqual(840);
  expect(least.height).toBeGreaterThanOrEqual(420);
  await page.keyboard.press('Escape');
  await plate(page, 'rt-1').click();
  await record(page)
    .getByRole('button', { name: /^Connect/ })
    .click();
  await expect(page.getByRole('form', { name: 'Connect' })).toBeVisible();
  const connecting = await size();
  expect(connecting.width).toBeGreaterThanOrEqual(840);
  expect(connecting.height).toBeGreaterThanOrEqual(420);
});
