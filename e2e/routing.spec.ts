/** Addresses and routes in the browser: a new terminal from template to routing sheet, renumbering, lists, zone files. */
import {
  card,
  choose,
  doLine,
  drawn,
  expect,
  find,
  more,
  plate,
  record,
  saved,
  section,
  signIn,
  test,
} from './application.ts';

test.use({ file: 'routing' });
// Later steps build on what earlier ones made.
test.describe.configure({ mode: 'serial' });

test.beforeEach(async ({ page, application }) => signIn(page, application));

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
