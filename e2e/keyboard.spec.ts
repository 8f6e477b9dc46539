/** The same work without a mouse, and each screen as assistive technology meets it. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { doLine, expect, pick, quiet, record, saved, signIn, test } from './application.ts';

test.use({ file: 'keyboard' });

async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let press = 0; press < 200; press++) {
    await page.keyboard.press('Tab');
    const label = await page.evaluate(() => {
      const now = document.activeElement;
      return now?.getAttribute('aria-label') ?? now?.textContent ?? '';
    });
    if (name.test(label)) return;
  }
  throw new Error(`never reached ${String(name)}`);
}

test('add a switch, connect it twice, undo all: by keyboard only', async ({ page, application }) => {
  await page.goto(application.url);
  await expect(page.getByLabel('E-mail')).toBeFocused();
  await page.keyboard.type('anna@marrow.example');
  await page.keyboard.press('Tab');
  await page.keyboard.type('ferry-lamp-seven');
  await page.keyboard.press('Enter');
  await saved(page);
  await doLine(page, 'rack KQ-A2');
  await tabTo(page, /^Add device$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'Model' })).toBeFocused();
  await pick(page, 'norvane 48');
  await page.keyboard.press('Enter');
  await expect(record(page).getByRole('heading', { name: 'kq-acc-6' })).toBeVisible();
  await page.keyboard.press('c');
  await expect(page.getByRole('combobox', { name: 'B device' })).toBeFocused();
  await pick(page, 'kq-core-1');
  await page.keyboard.press('Enter');
  await expect(record(page).getByText('Ports · 1 of 53 used')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(record(page).getByText('Ports · 2 of 53 used')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('form', { name: 'Connect' })).toHaveCount(0);
  for (let step = 0; step < 3; step++) {
    await page.keyboard.press('Control+z');
    await expect(page.getByRole('status').filter({ hasText: 'Undid:' })).toBeVisible();
    await saved(page);
  }
  await expect(page.getByText('16 of 42 U used · 26 free')).toBeVisible();
  await page.keyboard.press('Control+Shift+Z');
  await expect(page.getByText('17 of 42 U used · 25 free')).toBeVisible();
});

test('plates on a sheet are reached, chosen and moved by keys', async ({ page, application }) => {
  await signIn(page, application);
  await doLine(page, 'Data room · cabling');
  await tabTo(page, /^kq-edge-1,/);
  await page.keyboard.press('Enter');
  await expect(record(page).getByRole('heading', { name: 'kq-edge-1' })).toBeVisible();
  const position = () =>
    page
      .locator('.react-flow__node-plate')
      .and(page.getByRole('button', { name: /^kq-edge-1,/ }))
      .getAttribute('style');
  const before = await position();
  await page.keyboard.press('ArrowLeft');
  await saved(page);
  expect(await position()).not.toBe(before);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Command line: find or do');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('the scope path never promises a rack where the rows are of its room', async ({ page, application }) => {
  await signIn(page, application);
  await doLine(page, 'rack KQ-A1');
  const path = page.getByRole('navigation', { name: 'Scope' });
  await expect(path.getByRole('button', { name: 'KQ-A1: open' })).toBeVisible();
  await page.keyboard.press('Alt+4');
  await expect(page.getByRole('grid', { name: 'Cables' })).toBeVisible();
  await expect(path.getByRole('button', { name: 'KQ-A1: open' })).toHaveCount(0);
  await expect(path.getByRole('button', { name: 'Data room: open' })).toBeVisible();
});

test('grids are walked by arrows and edited by typing', async ({ page, application }) => {
  await signIn(page, application);
  await page.keyboard.press('Alt+4');
  const grid = page.getByRole('grid', { name: 'Cables' });
  await tabTo(page, /^AH-00001$/);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('2.5');
  await page.keyboard.press('Enter');
  await saved(page);
  await expect(grid.getByRole('row').nth(1)).toContainText('2.5');
  await page.keyboard.type('abc');
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('alert')).toContainText('“abc” is not a length in metres');
});

const screens: { name: string; atNight?: boolean; open: (page: Page) => Promise<unknown> }[] = [
  { name: 'all sites', open: async () => undefined },
  { name: 'the data room', open: (page) => doLine(page, 'data room') },
  { name: 'the catalogue', open: (page) => page.keyboard.press('Alt+2') },
  {
    name: 'a model being made',
    open: async (page) => {
      await page.keyboard.press('Alt+2');
      await page.getByRole('button', { name: 'New model' }).click();
      await page.getByRole('button', { name: 'Add ports' }).click();
    },
  },
  {
    name: 'all racks of the room with the gear',
    atNight: false,
    open: async (page) => {
      await doLine(page, 'rack KQ-A1');
      await page.getByRole('button', { name: 'All 3 racks' }).click();
      await page.getByRole('button', { name: 'Gear', exact: true }).click();
    },
  },
  {
    name: 'a feed failing',
    atNight: false,
    open: async (page) => {
      await doLine(page, 'rack KQ-A1');
      await page.getByRole('button', { name: 'If a feed fails' }).click();
    },
  },
  { name: 'a rack', open: (page) => doLine(page, 'rack KQ-A1') },
  {
    name: 'a rack with the connect dock and a record',
    open: async (page) => {
      await doLine(page, 'kq-core-1');
      await page.keyboard.press('c');
      await pick(page, 'kq-acc-4');
      await page.keyboard.press('Escape');
    },
  },
  {
    name: 'adding a device',
    open: async (page) => {
      await doLine(page, 'rack KQ-A1');
      await page.getByRole('button', { name: 'Add device', exact: true }).first().click();
      await pick(page, 'norvane 48');
    },
  },
  { name: 'equipment', open: (page) => page.keyboard.press('Alt+3') },
  { name: 'cables', open: (page) => page.keyboard.press('Alt+4') },
  { name: 'VLANs', open: (page) => page.keyboard.press('Alt+5') },
  { name: 'addresses', open: (page) => page.keyboard.press('Alt+6') },
  { name: 'sheets', open: (page) => page.keyboard.press('Alt+7') },
  { name: 'a sheet', open: (page) => doLine(page, 'Data room · cabling') },
  { name: 'the review', open: (page) => page.keyboard.press('Alt+8') },
  { name: 'schedules', open: (page) => page.keyboard.press('Alt+9') },
  { name: 'history', open: (page) => page.getByRole('button', { name: /^Saved/ }).click() },
];

/** Night differs from Paper by its colours alone: they are what is looked at again. */
const half = Math.ceil(screens.length / 2);
const parts = [
  { theme: 'paper', part: 'first', shown: screens.slice(0, half) },
  { theme: 'paper', part: 'second', shown: screens.slice(half) },
  { theme: 'night', part: 'all', shown: screens.filter((screen) => screen.atNight !== false) },
];
for (const { theme, part, shown } of parts) {
  test(`axe finds nothing serious on any screen, ${theme}, ${part}`, async ({ page, application }) => {
    test.setTimeout(240_000);
    await page.addInitScript((name) => localStorage.setItem('visograph.theme', name), theme);
    const seen = async (name: string): Promise<void> => {
      const axe = new AxeBuilder({ page });
      const { violations } = await (theme === 'night' ? axe.withRules(['color-contrast']) : axe).analyze();
      const serious = violations.filter(
        (violation) => violation.impact === 'serious' || violation.impact === 'critical',
      );
      expect(
        serious.map((violation) => `${name}: ${violation.id} ${violation.nodes[0]?.html ?? ''}`),
      ).toEqual([]);
    };
    await page.goto(application.url);
    await expect(page.getByLabel('E-mail')).toBeVisible();
    await seen('sign-in');
    await signIn(page, application);
    for (const screen of shown) {
      await page.goto(application.url);
      await saved(page);
      await screen.open(page);
      await quiet(page);
      await seen(screen.name);
    }
  });
}

test('nothing complains in the console on the way through all screens', async ({ page, application }) => {
  const complaints: string[] = [];
  page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()));
  page.on('pageerror', (error) => complaints.push(error.message));
  await signIn(page, application);
  for (const screen of screens) {
    await page.goto(application.url);
    await saved(page);
    await screen.open(page);
    await quiet(page);
  }
  expect(complaints).toEqual([]);
});
