/** The page of the kit, as it is served while developing: every control in both themes, and the form by keyboard. */
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { join } from 'node:path';
import { createServer, type ViteDevServer } from 'vite';

let vite: ViteDevServer;
let address = '';
test.beforeAll(async () => {
  vite = await createServer({
    root: join(import.meta.dirname, '../packages/web'),
    logLevel: 'error',
    server: { port: 0, host: '127.0.0.1', hmr: false, watch: null },
  });
  await vite.listen();
  address = `${vite.resolvedUrls?.local[0] ?? ''}kit`;
});
test.afterAll(async () => vite.close());

test('each control in Paper and in Night, without a serious fault of accessibility', async ({
  page,
}, info) => {
  await page.setViewportSize({ width: 1280, height: 1100 });
  await page.goto(address);
  const themes = ['Paper', 'Night'].map((name) => page.getByRole('region', { name, exact: true }));
  for (const theme of themes) {
    for (const name of ['Add device', 'Print', 'Keep'])
      await expect(theme.getByRole('button', { name }).first()).toBeVisible();
    await expect(theme.getByRole('grid', { name: /^Devices/ })).toBeVisible();
    await expect(theme.getByText('Number is above 4094.')).toBeVisible();
  }
  await page.screenshot({ path: info.outputPath('kit.png'), fullPage: true });
  const { violations } = await new AxeBuilder({ page }).analyze();
  const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical');
  expect(serious.map(({ id, nodes }) => [id, nodes.map(({ html }) => html)])).toEqual([]);
});

test('a form by keyboard: a fault is told as it is left, Enter goes to it, a day is typed year first', async ({
  page,
}) => {
  await page.goto(address);
  const form = page.getByRole('region', { name: 'Paper' }).getByRole('form', { name: 'A rack' });
  const units = form.getByRole('textbox', { name: 'Units (U)' });
  await units.focus();
  await page.keyboard.press('Tab');
  await expect(form.getByText('Units is above 60.')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(units).toBeFocused();
  await units.fill('42');
  await expect(form.getByText('Units is above 60.')).toBeHidden();
  await form.getByRole('spinbutton', { name: /^year/ }).focus();
  await page.keyboard.type('20320229');
  await expect(form.getByRole('spinbutton', { name: /^year/ })).toHaveText('2032');
  await expect(form.getByRole('spinbutton', { name: /^day/ })).toHaveText('29');
});

test('the button is where it was pressed: a field that is left by pressing it moves nothing', async ({
  page,
}) => {
  await page.goto(address);
  const form = page.getByRole('region', { name: 'Paper' }).getByRole('form', { name: 'A rack' });
  const name = form.getByRole('textbox', { name: 'Name' });
  await name.fill('');
  await form.getByRole('button', { name: 'Keep' }).click();
  // Sent: every fault is told at once, not that of the field alone which had the focus.
  await expect(form.getByText('Name is empty.')).toBeVisible();
  await expect(form.getByText('Units is above 60.')).toBeVisible();
  await expect(name).toBeFocused();
  // Once it is sent the keys are not for the field any more.
  await name.fill('KQ-A9');
  await form.getByRole('textbox', { name: 'Units (U)' }).fill('42');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByRole('button', { name: 'Keep' })).toBeFocused();
});

test('a list is put in order by the keyboard alone', async ({ page }) => {
  await page.goto(address);
  const list = page.getByRole('region', { name: 'Paper' }).getByRole('grid', { name: 'VLANs in order' });
  await list.getByRole('button', { name: 'Move Staff' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(list.getByRole('row').first()).toHaveText(/Cameras/);
});
