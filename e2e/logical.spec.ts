/** The logical network in the browser: a new terminal from template to routing sheet, the matrix, both sheets. */
import type { Locator, Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
import { doLine, expect, saved, signIn, test } from './application.ts';

test.use({ file: 'logical' });
// Later steps build on what earlier ones made.
test.describe.configure({ mode: 'serial' });

const record = (page: Page) => page.getByRole('complementary', { name: 'Record' });
const card = (page: Page, title: string | RegExp) =>
  record(page)
    .locator('section')
    .filter({ has: page.getByRole('heading', { name: title }) });
const plate = (page: Page, name: string): Locator =>
  page
    .locator('.react-flow__node-plate')
    .and(page.getByRole('button', { name: new RegExp(`^${name.replace(/[./]/g, '\\$&')}(,|$)`) }));
const section = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Sections' }).getByRole('link', { name }).click();
const more = async (page: Page, item: string): Promise<void> => {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: item }).click();
};
/** Types into a box with a list and takes the first that is offered. */
const choose = async (box: Locator, text: string): Promise<void> => {
  await box.fill(text);
  await box.page().getByRole('option').first().waitFor();
  // While the list is open, what is around the box is hidden from its roles.
  await box.page().keyboard.press('ArrowDown');
  await box.page().keyboard.press('Enter');
};
/** Finds a device or port by the line, and waits for its record. */
const find = async (page: Page, name: string): Promise<void> => {
  await doLine(page, name);
  await expect(record(page).getByRole('heading', { name, exact: true, level: 2 })).toBeVisible();
};
const drawn = async (page: Page): Promise<void> => {
  await saved(page);
  await expect(page.getByText('Drawing …')).toHaveCount(0);
};

test.beforeEach(async ({ page, application }) => signIn(page, application));

test('the matrix shows where VLAN 40 is missing; a press carries it at both ends, undo takes it back', async ({
  page,
}) => {
  await section(page, 'VLANs');
  await page.getByRole('button', { name: 'On links' }).click();
  const cell = page.getByRole('gridcell', { name: /^VLAN 40, kq-acc-3 te1\/50/ });
  await expect(cell).toHaveAccessibleName('VLAN 40, kq-acc-3 te1/50: tagged at one end, not carried');
  await cell.click();
  await expect(cell).toHaveAccessibleName('VLAN 40, kq-acc-3 te1/50: tagged');
  await expect(page.getByText(/9 findings in the project/)).toBeVisible();
  await cell.press('ArrowUp');
  await page.keyboard.press('-');
  const above = page.getByRole('gridcell', { name: /^VLAN 40, kq-acc-3 te1\/49/ });
  await expect(above).toHaveAccessibleName('VLAN 40, kq-acc-3 te1/49: not carried');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(above).toHaveAccessibleName('VLAN 40, kq-acc-3 te1/49: tagged');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cell).toHaveAccessibleName('VLAN 40, kq-acc-3 te1/50: tagged at one end, not carried');
  await page.getByRole('button', { name: 'On switches' }).click();
  await expect(page.getByRole('gridcell', { name: 'VLAN 20, kq-acc-5: untagged' })).toBeVisible();
  const axe = await new AxeBuilder({ page }).analyze();
  expect(axe.violations.filter((one) => one.impact === 'serious' || one.impact === 'critical')).toEqual([]);
});

test('what the checks found is listed from the status line, mended by a press, and taken back', async ({
  page,
}) => {
  await page.getByRole('button', { name: '10 findings in the project' }).click();
  const list = page.getByRole('dialog', { name: '10 findings' });
  const stop = list.getByRole('listitem').filter({ hasText: 'VLAN 40 Cameras stops' });
  await stop.getByRole('button', { name: 'Mend …' }).click();
  await stop.getByRole('button', { name: 'Carry VLAN 40 at kq-core-2 te1/3 too' }).click();
  await expect(page.getByRole('dialog', { name: '9 findings' })).toBeVisible();
  await expect(page.getByText('VLAN 40 Cameras stops')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await saved(page);
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: '10 findings in the project' }).click();
  await page.getByRole('button', { name: 'VLAN 40', exact: false }).first().click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('the line carries a VLAN along a path and gives ports a profile, and says why it cannot', async ({
  page,
}) => {
  const options = page.getByRole('listbox', { name: 'What the line would do' }).getByRole('option');
  await page.keyboard.press('/');
  await page.keyboard.type('carry vlan 40 from kq-acc-3 to kq-core');
  await expect(options.first()).toContainText('adds it at kq-core-2 te1/3');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/9 findings in the project/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.keyboard.press('/');
  await page.keyboard.type('set kq-acc-5 gi1/3-4 as uplink');
  await expect(options.first()).toContainText('Set 2 ports as Uplink');
  await page.keyboard.press('Escape');
});

test('a cabling sheet is read as switching by one act; a VLAN lights up, its tree and its stop are seen', async ({
  page,
}) => {
  await doLine(page, 'Kelder Quay · cabling');
  await drawn(page);
  await page.getByRole('button', { name: /Read as/ }).click();
  await page.getByRole('option', { name: 'Switching' }).click();
  await expect(page.getByRole('heading', { name: 'Kelder Quay · switching', level: 1 })).toBeVisible();
  await drawn(page);
  await expect(plate(page, 'kq-core-1 / 2')).toBeVisible();
  await expect(plate(page, 'KQ-A1-PP1')).toHaveCount(0);
  await page.getByRole('button', { name: /Light up a VLAN/ }).click();
  await page.getByRole('option', { name: '40 Cameras' }).first().click();
  await drawn(page);
  const opacity = (name: string) => plate(page, name).locator('svg > g').first().getAttribute('opacity');
  await expect.poll(() => opacity('kq-srv-1')).toBe('0.35');
  expect(await opacity('kq-acc-3')).toBeNull();
  await page.keyboard.press('Control+z');
  await expect.poll(() => opacity('kq-srv-1')).toBeNull();
});

test('a new terminal: place, block and prefixes by template, router, link, loopback, and the routing sheet', async ({
  page,
}) => {
  await section(page, 'Places');
  await record(page).getByLabel('Place', { exact: true }).fill('Skerry Head');
  await record(page).getByRole('button', { name: 'Add place' }).click();
  await saved(page);
  await doLine(page, 'skerry head');
  await record(page)
    .getByRole('button', { name: /VLAN numbering/ })
    .click();
  await page.getByRole('option', { name: 'shore' }).click();
  await record(page).getByRole('textbox', { name: 'Rack' }).fill('SK-A1');
  await record(page).getByRole('button', { name: 'Add rack' }).click();
  await saved(page);

  // Its address space: a block of the islands as its neighbours have it, and all prefixes of a terminal.
  await section(page, 'Addresses');
  await more(page, 'Plan a site from a template');
  const plan = page.getByRole('dialog', { name: 'Plan a site from a template' });
  // The site that has no prefixes yet is proposed.
  await expect(plan.getByRole('combobox', { name: 'Site', exact: true })).toHaveValue('Skerry Head');
  await choose(plan.getByRole('combobox', { name: 'Region of VRF ops' }), '10.41.0.0/16');
  await expect(plan.getByRole('table')).toContainText('10.41.32.0/19');
  await expect(plan.getByRole('table')).toContainText('one route for the site');
  await plan.getByRole('button', { name: 'Plan Skerry Head' }).click();
  await saved(page);
  await expect(record(page).getByRole('heading', { name: '10.41.32.0/19' })).toBeVisible();

  // Its router, on a link to an edge of the headquarters.
  await page.keyboard.press('/');
  await page.keyboard.type('add norvane er-410 to SK-A1');
  const offer = page.getByRole('listbox', { name: 'What the line would do' }).getByRole('option').first();
  await expect(offer).toContainText('at SK-A1');
  const router = /ER-410(\S+) at SK-A1/.exec((await offer.textContent()) ?? '')?.[1] ?? '';
  await page.keyboard.press('Enter');
  await saved(page);
  await doLine(page, `connect ${router} ge0/4 to kq-edge-1 ge0/4`);
  await saved(page);
  for (const device of [router, 'kq-edge-1']) {
    await find(page, `${device} ge0/4`);
    await card(page, 'VLANs').getByRole('button', { name: /Mode/ }).click();
    await page.getByRole('option', { name: 'routed' }).click();
    await saved(page);
  }

  // Links and loopbacks are numbered in order; nothing that was forgotten stays unseen.
  await section(page, 'Addresses');
  await more(page, 'Number links');
  const links = page.getByRole('dialog', { name: 'Number links' });
  await choose(links.getByRole('combobox', { name: 'From the side of' }), 'kq-fw-1');
  await choose(links.getByRole('combobox', { name: 'Pool' }), '10.43.0.0/18');
  await expect(links.getByRole('row').filter({ hasText: `kq-edge-1 ge0/4 – ${router} ge0/4` })).toContainText(
    '10.43.0.4/31',
  );
  await links.getByRole('button', { name: 'Number 1 link' }).click();
  await saved(page);
  await more(page, 'Number loopbacks');
  const loopbacks = page.getByRole('dialog', { name: 'Number loopbacks' });
  await expect(loopbacks.getByRole('row').filter({ hasText: router })).toContainText('10.43.255.11/32');
  await loopbacks.getByRole('button', { name: 'Number 1 router' }).click();
  await saved(page);

  // A gateway for its operations, a route there, OSPF on the link: the route table says what that comes to.
  await find(page, router);
  await card(page, 'Configured ports')
    .getByRole('button', { name: /VLAN interface/ })
    .first()
    .click();
  await page.getByRole('option', { name: 'subinterface' }).click();
  await card(page, 'Configured ports').getByRole('textbox', { name: 'VLAN' }).fill('20');
  await choose(card(page, 'Configured ports').getByRole('combobox', { name: 'Over' }), 'ge0/1');
  await card(page, 'Configured ports').getByRole('button', { name: 'Add port' }).click();
  await saved(page);
  await find(page, `${router} ge0/1.20`);
  await card(page, 'Addresses').getByRole('textbox', { name: 'Address, or a prefix' }).fill('10.41.32.1');
  await card(page, 'Addresses')
    .getByRole('button', { name: /^VRF|global|ops/ })
    .first()
    .click();
  await page.getByRole('option', { name: 'ops' }).click();
  await card(page, 'Addresses').getByRole('button', { name: 'Give' }).click();
  await saved(page);
  await expect(card(page, 'Addresses')).toContainText('10.41.32.1/24');
  for (const device of [router, 'kq-edge-1']) {
    await find(page, `${device} ge0/4`);
    await card(page, 'Routing').getByRole('textbox', { name: 'OSPF area' }).fill('3');
    await card(page, 'Routing').getByRole('button', { name: 'Keep' }).click();
    await saved(page);
  }
  await find(page, `${router} ge0/1.20`);
  await card(page, 'Routing').getByRole('textbox', { name: 'OSPF area' }).fill('x');
  await card(page, 'Routing').getByRole('button', { name: 'Keep' }).click();
  await expect(
    card(page, 'Routing').getByText('Area “x” is neither a number nor like 0.0.0.1.'),
  ).toBeVisible();
  await card(page, 'Routing').getByRole('textbox', { name: 'OSPF area' }).fill('3');
  await card(page, 'Routing').getByRole('button', { name: 'Keep' }).click();
  await saved(page);
  await find(page, 'kq-core-1');
  await card(page, /^Routes/)
    .getByRole('button', { name: /VRF/ })
    .click();
  await page.getByRole('option', { name: 'ops' }).click();
  await expect(card(page, /^Routes/).getByRole('list', { name: 'Route table' })).toContainText(
    '10.41.32.0/24 OSPF between areas',
  );

  await doLine(page, 'All sites · routing');
  await drawn(page);
  await expect(plate(page, router)).toBeVisible();
  await expect(page.getByRole('group', { name: 'OSPF area 3 · ops' })).toBeVisible();
  await page.reload();
  await drawn(page);
  await expect(plate(page, router)).toBeVisible();
});

test('renumbering lists every fact first, refuses what is occupied, and is undone in one step', async ({
  page,
}) => {
  await section(page, 'Addresses');
  await page.getByRole('searchbox', { name: 'Filter rows' }).fill('10.41.8.0/24');
  await page.getByRole('gridcell', { name: '10.41.8.0/24' }).click();
  await record(page).getByRole('button', { name: 'Renumber …' }).click();
  const panel = page.getByRole('dialog', { name: 'Renumber 10.41.8.0/24' });
  const to = panel.getByRole('textbox', { name: 'To' });
  await to.fill('10.41.2.0/24');
  await expect(panel.getByRole('alert')).toContainText('10.41.2.0/24 is not free');
  await to.fill('10.41.12.0/24');
  await expect(panel.getByRole('table')).toContainText('10.41.8.1/24');
  await panel.getByRole('button', { name: /^Change \d+ facts/ }).click();
  await saved(page);
  await expect(record(page).getByRole('heading', { name: '10.41.12.0/24' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(record(page).getByRole('heading', { name: '10.41.8.0/24' })).toBeVisible();
});

test('a zone file goes out, and the address plan goes through the keyboard alone', async ({ page }) => {
  await section(page, 'Addresses');
  await more(page, 'Names and DHCP as files');
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save zone ops.marrow.example' }).click();
  expect((await waiting).suggestedFilename()).toBe('ops.marrow.example.zone');
  await page.keyboard.press('Escape');
  const ladder = page.getByRole('region', { name: 'Ladder' });
  await ladder.getByRole('button', { name: /^10\.41\.0\.0\/16, pool/ }).press('Enter');
  await ladder.getByRole('button', { name: /^10\.41\.0\.0\/16, pool/ }).press('Enter');
  await expect(ladder.getByRole('button', { name: /^10\.41\.0\.0\/19, pool/ })).toBeVisible();
  await page.getByRole('button', { name: 'Addresses', exact: true }).click();
  await page.getByRole('searchbox', { name: 'Filter rows' }).fill('kq-srv-1.ops');
  await expect(page.getByRole('gridcell', { name: 'kq-srv-1.ops.marrow.example' })).toBeVisible();
});

test('a list is imported with every row told; a block is carried to free space with its host, and split', async ({
  page,
}) => {
  await section(page, 'Addresses');
  await more(page, 'Import a list');
  const list = [
    'Prefix,Address,VRF,Role,Name,Device,Port',
    '10.41.96.0/22,,ops,subnet,Hall,,',
    '10.41.97.0/24,,ops,,,,',
    ',10.41.96.9,ops,,,kq-srv-1,eno1',
  ].join('\n');
  await page
    .getByLabel('Spreadsheet')
    .setInputFiles({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(list) });
  const panel = page.getByRole('dialog', { name: 'Import prefixes and addresses' });
  await expect(panel.getByRole('row').nth(2)).toContainText('10.41.97.0/24 lies inside 10.41.96.0/22 Hall');
  await panel.getByRole('button', { name: 'Import the 2 good rows, leave out 1' }).click();
  await saved(page);
  const ladder = page.getByRole('region', { name: 'Ladder' });
  await ladder.getByRole('button', { name: /^10\.41\.0\.0\/16, pool/ }).dblclick();
  const carry = async (prefix: RegExp, dx: number, dy: number): Promise<void> => {
    const box = await ladder.getByRole('button', { name: prefix }).boundingBox();
    if (box === null) throw new Error('not drawn');
    const [x, y] = [box.x + box.width / 2, box.y + 15];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + dx, y + dy, { steps: 4 });
    await page.mouse.up();
    await saved(page);
  };
  await carry(/^10\.41\.96\.0\/22, subnet/, 60, 0);
  await expect(page.getByRole('status').filter({ hasText: /Renumbered 10\.41\.96\.0\/22 to/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await carry(/^10\.41\.96\.0\/22, subnet/, 2, 50);
  await expect(ladder.getByRole('button', { name: /^10\.41\.96\.0\/23, subnet/ })).toBeVisible();
  await doLine(page, '10.41.96.9');
  await expect(record(page).getByRole('heading', { name: 'kq-srv-1 eno1' })).toBeVisible();
});

test('trees of a switch are stated in its record, what contradicts itself is told; built today leaves planned gear out', async ({
  page,
}) => {
  await find(page, 'kq-acc-3');
  const trees = card(page, /^Spanning tree$/);
  await trees.getByRole('button', { name: /Trees/ }).click();
  await page.getByRole('option', { name: 'instances' }).click();
  const instances = trees.getByRole('textbox', { name: 'Instances' });
  await instances.fill('1: 10,20 at 4096; 2: 20');
  await instances.press('Enter');
  await expect(trees.getByRole('alert')).toHaveText(
    'device kq-acc-3: Spanning tree has VLAN 20 in two parts.',
  );
  await expect(instances).toHaveValue('1: 10,20 at 4096; 2: 20');
  await instances.fill('1: 10,20 at 4096; 2: 30');
  await instances.press('Enter');
  await expect(trees.getByRole('alert')).toHaveCount(0);
  const address = trees.getByRole('textbox', { name: 'Bridge address' });
  await address.fill('0200.5E00.5301');
  await address.press('Enter');
  await expect(address).toHaveValue('02:00:5e:00:53:01');
  await saved(page);
  await page.reload();
  await expect(trees.getByRole('textbox', { name: 'Instances' })).toHaveValue('1: 10,20 at 4096; 2: 30');

  await record(page)
    .getByRole('button', { name: /Status/ })
    .click();
  await page.getByRole('option', { name: 'planned' }).click();
  await saved(page);
  const line = page.getByText(/^\d+ devices · /);
  const all = await line.innerText();
  const built = page.getByRole('checkbox', { name: /^Built today/ });
  await page.getByText('Built today', { exact: true }).click();
  await expect(built).toBeChecked();
  await expect(line).not.toHaveText(all);
  await expect(page).toHaveURL(/built=1/);
  // The box has the focus: keys are commands all the same, and stay away from it.
  await find(page, 'kq-acc-4');
  await expect(built).toBeChecked();
});
