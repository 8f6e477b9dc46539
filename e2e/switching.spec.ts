/** VLANs in the browser: the matrix, what the checks find, the line, switching sheets, trees. */
import AxeBuilder from '@axe-core/playwright';
import {
  card,
  doLine,
  drawn,
  expect,
  find,
  plate,
  record,
  saved,
  section,
  signIn,
  test,
} from './application.ts';

test.use({ file: 'switching' });
// Later steps build on what earlier ones made.
test.describe.configure({ mode: 'serial' });

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
  await expect(page.getByText(/11 findings in the project/)).toBeVisible();
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
  await page.getByRole('button', { name: '12 findings in the project' }).click();
  await expect(page.getByRole('heading', { name: /^Review/ })).toBeVisible();
  const stop = page.getByRole('option', { name: /VLAN 40 Cameras stops/ });
  await stop.click();
  await expect(page.getByRole('img', { name: '2 devices, drawn' })).toContainText('kq-acc-3');
  await page.getByRole('button', { name: 'Carry VLAN 40 at kq-core-2 te1/3 too' }).click();
  await expect(page.getByText('11 to mend')).toBeVisible();
  await expect(stop).toHaveCount(0);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('12 to mend')).toBeVisible();
  await stop.click();
  await expect(page).toHaveURL(/sel=vlan/);
});

test('the line carries a VLAN along a path and gives ports a profile, and says why it cannot', async ({
  page,
}) => {
  const options = page.getByRole('listbox', { name: 'What the line would do' }).getByRole('option');
  await page.keyboard.press('/');
  await page.keyboard.type('carry vlan 40 from kq-acc-3 to kq-core');
  await expect(options.first()).toContainText('adds it at kq-core-2 te1/3');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/11 findings in the project/)).toBeVisible();
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
