/** From an empty project: drawn first, placed and numbered later. By mouse, by keyboard, and typed. */
import {
  beginProject,
  doLine,
  drawn,
  expect,
  plate,
  quiet,
  record,
  saved,
  section,
  test,
} from './application.ts';
import { Hand, models, panel } from './hand.ts';

test.use({ file: 'drawfirst' });

test('five routers, seven links, a /31 for each and router ids: to a drawn routing sheet', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Island loop');
  const hand = new Hand(page);
  await hand.does(() => section(page, 'Sheets'));
  await hand.press('Begin with a blank sheet');
  await expect(models(page).getByLabel('Find a role or model')).toBeFocused();
  await hand.does(() => models(page).getByLabel('How many').fill('5'));
  await hand.does(() => models(page).getByText('Join them').click());
  await hand.does(() => models(page).getByText('ring', { exact: true }).click());
  await hand.take('router');
  await hand.stamp(0.5, 0.5);
  await hand.does(() => page.keyboard.press('Escape'));
  await expect(page.locator('.react-flow__node-plate')).toHaveCount(5);
  await hand.pull('rt-1', 'rt-3');
  await expect(panel(page)).toContainText('rt-1 eth2 – rt-3 eth2');
  await hand.does(() => page.keyboard.press('Enter'));
  await hand.pull('rt-1', 'rt-4');
  await hand.does(() => page.keyboard.press('Enter'));
  await expect(page.getByText('Rows: 5 devices, 7 lines')).toBeVisible();
  await hand.press(/Cabling/);
  await hand.does(() => page.getByRole('option', { name: 'Routing' }).click());
  await drawn(page);
  await hand.press('Number');
  const ask = page.getByRole('dialog', { name: 'Number what is drawn' });
  await expect(ask).toContainText('7 links and 5 routers get numbers.');
  await hand.does(() => ask.getByRole('button', { name: 'Number' }).click());
  await saved(page);
  await expect(page.getByText('Rows: 5 devices, 7 lines')).toBeVisible();
  const rows = (await application.query(
    `SELECT prefix FROM prefix WHERE role = 'transit' AND prefix LIKE '10.0.0.%/31'`,
  )) as unknown[];
  expect(rows).toHaveLength(7);
  await expect(plate(page, 'rt-5')).toContainText('lo0 10.255.0.5');
  // Plates have grown by their numbers: the drawing comes to rest first.
  await drawn(page);
  await quiet(page);
  // And beyond the window, where a person would not press either.
  await page.getByRole('button', { name: 'Fit all' }).click();
  await quiet(page);
  await plate(page, 'rt-5').click();
  await expect(record(page)).toContainText('rt-5');
  expect(hand.actions).toBeLessThanOrEqual(32);
});

test('four phones, a switch and one circuit, printed', async ({ page, application }) => {
  await beginProject(page, application, 'Ticket hall');
  const hand = new Hand(page);
  await hand.does(() => section(page, 'Sheets'));
  await hand.press('Begin with a blank sheet');
  await hand.press('As text');
  await hand.does(() => page.keyboard.type('4 phones each on sw-1\nsw-1 -- isp-1'));
  await expect(page.getByText('+6 devices, +5 cables')).toBeVisible();
  await hand.does(() => page.keyboard.press('Control+Enter'));
  await saved(page);
  await hand.does(() => page.keyboard.press('Escape'));
  await expect(plate(page, 'sw-1')).toBeVisible();
  await expect(plate(page, 'isp-1')).toBeVisible();
  await hand.press('Print');
  const download = page.waitForEvent('download');
  await hand.press('Save PDF');
  expect((await download).suggestedFilename()).toMatch(/\.pdf$/);
  expect(hand.actions).toBeLessThanOrEqual(12);
});

test('by keyboard alone: put in, named, joined, taken back, joined again', async ({ page, application }) => {
  await beginProject(page, application, 'Keys only');
  await section(page, 'Sheets');
  await page.getByRole('button', { name: 'Begin with a blank sheet' }).focus();
  await page.keyboard.press('Enter');
  await expect(models(page).getByLabel('Find a role or model')).toBeFocused();
  // Letters go to the search that has just opened, not to any key of the sheet.
  await page.keyboard.type('router');
  await page.keyboard.press('Enter');
  await expect(plate(page, 'rt-1')).toBeVisible();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('switch');
  await page.keyboard.press('Enter');
  await expect(plate(page, 'sw-1')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(models(page)).toHaveCount(0);
  await plate(page, 'rt-1').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('e');
  await expect(page.getByRole('textbox', { name: 'Name of rt-1' })).toBeFocused();
  await page.keyboard.type('edge-1');
  await page.keyboard.press('Enter');
  await expect(plate(page, 'edge-1')).toBeVisible();
  await plate(page, 'edge-1').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('c');
  await page.keyboard.type('sw-1');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(panel(page)).toContainText('edge-1 eth0 – sw-1 1');
  await page.keyboard.press('Escape');
  await expect(page.getByText('Rows: 2 devices, 0 lines')).toBeVisible();
  // The focus is where it was.
  await expect(plate(page, 'edge-1')).toBeFocused();
  await doLine(page, 'connect edge-1 to sw-1 x2');
  await expect(page.getByText('Rows: 2 devices, 2 lines')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Rows: 2 devices, 0 lines')).toBeVisible();
});

test('typed: twenty lines of which some are wrong, drawn as they are typed, read back', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Typed');
  await section(page, 'Sheets');
  await page.getByRole('button', { name: 'Begin with a blank sheet' }).click();
  await page.getByRole('button', { name: 'As text' }).click();
  const text = page.getByRole('textbox', { name: 'Topology, one link a line' });
  const good = [
    'core-1 core-2 x2',
    'edge-1 ge0/1 -- core-1 10G',
    'edge-2 ge0/1 -- core-2 10G',
    '3 access each to core-1 core-2',
    'in "Harbour/Data room": core-1 core-2',
    ...Array.from({ length: 12 }, (_, at) => `server-${at + 1} access-${(at % 3) + 1}`),
  ];
  const wrong = ['a b c', 'ring a b', 'edge-1 ge0/1 -- core-2'];
  await text.fill([...good, ...wrong].join('\n'));
  await expect(page.getByRole('list', { name: 'Lines that are wrong' }).getByRole('listitem')).toHaveCount(3);
  // It is drawn before it is taken over, and not in the project yet.
  await expect(plate(page, 'core-1')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Saved r2' })).toBeVisible();
  await page.getByRole('button', { name: /^Take the good lines/ }).click();
  await expect(page.getByRole('button', { name: 'Saved r3' })).toBeVisible();
  await expect(text).toHaveValue(wrong.join('\n'));
  await text.fill('');
  await page.getByRole('button', { name: 'Read back' }).click();
  await expect(text).toHaveValue(/edge-1 ge0\/1/);
  await expect(page.getByText('nothing new')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo/ }).first().click();
  await expect(page.locator('.react-flow__node-plate')).toHaveCount(0);
});

test('pulled to free ground it offers what can stand there; onto itself it is refused', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Free ground');
  const hand = new Hand(page);
  await section(page, 'Sheets');
  await hand.press('Begin with a blank sheet');
  await hand.take('router');
  await hand.stamp(0.4, 0.3);
  // Just typing names what was put down.
  await page.keyboard.type('hub');
  await page.keyboard.press('Enter');
  await expect(plate(page, 'hub')).toBeVisible();
  await page.keyboard.press('Escape');
  await hand.pull('hub', { across: 0.6, down: 0.75 });
  const asked = page.getByRole('group', { name: 'What stands at the other end' });
  await expect(asked).toBeVisible();
  await page.keyboard.type('24-port switch');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(panel(page)).toContainText('hub eth0 – sw-1 1');
  await panel(page).getByRole('button', { name: 'One more' }).click();
  await expect(page.getByText('Rows: 2 devices, 2 lines')).toBeVisible();
  await panel(page).getByRole('button', { name: /^Keep/ }).click();
  await expect(panel(page)).toHaveCount(0);
  // With both chosen, let go over one of them: the other is joined to it.
  await hand.around('hub', 'sw-1');
  await hand.pull('hub', 'sw-1');
  await expect(page.getByText('Rows: 2 devices, 3 lines')).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Rows: 2 devices, 2 lines')).toBeVisible();
  await page.mouse.click(...(await hand.corner()));
  // Onto itself: said, and nothing is made.
  await hand.pull('hub', 'hub');
  await expect(page.getByText('hub cannot be connected to itself: let go on another plate.')).toBeVisible();
  await expect(page.getByText('Rows: 2 devices, 2 lines')).toBeVisible();
});

test('a pair of switches, two load balancers, four cameras and a UPS: drawn, cabled, then racked', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Harbour office');
  const hand = new Hand(page);
  const count = (many: string) => hand.does(() => models(page).getByLabel('How many').fill(many));
  await hand.does(() => section(page, 'Sheets'));
  await hand.press('Begin with a blank sheet');
  await count('4');
  await hand.take('camera');
  await hand.stamp(0.5, 0.68);
  await count('2');
  await hand.take('load balancer');
  await hand.stamp(0.5, 0.15);
  await hand.does(() => models(page).getByText('Join them').click());
  await hand.take('24-port switch');
  await hand.stamp(0.5, 0.42);
  await count('1');
  await hand.take('UPS');
  await hand.stamp(0.5, 0.88);
  await hand.does(() => page.keyboard.press('Escape'));
  await hand.does(() => page.keyboard.press('0'));
  await quiet(page);
  // Both load balancers at once: a line pulled out of one of what is chosen comes from each.
  await hand.around('lb-1', 'lb-2');
  await hand.pull('lb-1', 'sw-1');
  await hand.pull('lb-1', 'sw-2');
  await hand.pull('cm-1', 'sw-1');
  await hand.pull('cm-2', 'sw-1');
  await hand.pull('cm-3', 'sw-2');
  await hand.pull('cm-4', 'sw-2');
  await hand.does(() => page.keyboard.press('Enter'));
  await hand.pull('up-1', 'sw-1');
  await hand.does(() => page.keyboard.press('Enter'));
  await hand.pull('up-1', 'sw-2');
  await expect(page.getByText('Rows: 9 devices, 11 lines')).toBeVisible();
  await expect(page.getByText(/nothing placed yet/)).toBeVisible();

  await hand.does(() => section(page, 'Places'));
  await hand.does(() => record(page).getByLabel('Place', { exact: true }).fill('Harbour'));
  await hand.does(() => page.keyboard.press('Enter'));
  await saved(page);
  await hand.does(() => page.getByRole('row', { name: /^Harbour,/ }).click());
  await hand.does(() => record(page).getByRole('textbox', { name: 'Rack' }).fill('H-1'));
  await hand.does(() => page.keyboard.press('Enter'));
  await saved(page);
  await hand.press(/^Rack H-1/);
  await hand.press('Gear');
  await quiet(page);
  const loose = page.getByRole('list', { name: 'In no rack' });
  for (const [name, unit] of [
    ['sw-1', 40],
    ['sw-2', 38],
    ['lb-1', 36],
    ['lb-2', 35],
    ['up-1', 2],
  ] as const) {
    const item = await loose.getByRole('button', { name: new RegExp(name) }).boundingBox();
    const to = await page.getByRole('button', { name: `Unit ${unit}, free: add a device` }).boundingBox();
    if (item === null || to === null) throw new Error(name);
    await hand.does(async () => {
      await page.mouse.move(item.x + 30, item.y + 8);
      await page.mouse.down();
      await page.mouse.move(item.x + 36, item.y + 14);
      await page.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 4 });
      await page.mouse.up();
    });
    await saved(page);
    await quiet(page);
  }
  await expect(page.getByText('6 of 42 U used · 36 free')).toBeVisible();
  expect(hand.actions).toBeLessThanOrEqual(40);
});

test('on a sheet of routing a pulled line takes the next subnet; another pool is taken instead', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Routed lines');
  const hand = new Hand(page);
  await section(page, 'Sheets');
  await hand.press('Draw routing');
  await hand.take('router');
  await hand.stamp(0.35, 0.3);
  await hand.stamp(0.65, 0.6);
  await page.keyboard.press('Escape');
  await hand.pull('rt-1', 'rt-2');
  await expect(panel(page)).toContainText('10.0.0.0/31 – 10.0.0.1/31');
  await panel(page).getByRole('button', { name: 'Change …' }).click();
  await panel(page).getByLabel('Subnet from').fill('192.0.2.0/24');
  await page.keyboard.press('Enter');
  await expect(panel(page)).toContainText('192.0.2.0/31 – 192.0.2.1/31');
  await panel(page).getByLabel('Length').fill('99');
  await page.keyboard.press('Enter');
  await expect(panel(page)).toContainText('/99 cannot be taken from 192.0.2.0/24');
  await panel(page).getByRole('button', { name: /^Keep/ }).click();
  await expect(page.getByText('Rows: 2 devices, 1 line')).toBeVisible();
  // The next one comes from where the last one did.
  await hand.pull('rt-1', 'rt-2');
  await expect(panel(page)).toContainText('192.0.2.2/31 – 192.0.2.3/31');
  await panel(page).getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByText('Rows: 2 devices, 1 line')).toBeVisible();
});
