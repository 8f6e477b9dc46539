/** What the network comes to: parts lists, stock, prices, quotations; from the demo and from an empty project. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
import { another, beginProject, expect, record, saved, section, signIn, test } from './application.ts';

test.use({ file: 'parts' });

const view = (page: Page, name: string): Promise<void> =>
  page.getByRole('group', { name: 'What is listed' }).getByRole('button', { name, exact: true }).click();
const rowOf = (page: Page, text: string) => page.getByRole('grid').getByRole('row').filter({ hasText: text });
const take = async (page: Page, box: string, text: string): Promise<void> => {
  await page.getByRole('combobox', { name: box, exact: true }).fill(text);
  await expect(page.getByRole('option').first()).toContainText(text);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
};

test('the link of the demo: its lines lead to what they stand for, stock is reserved and given back, and it is quoted', async ({
  page,
  browser,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Parts');
  await page
    .getByRole('navigation', { name: 'Parts lists' })
    .getByRole('button', { name: 'Otterslip second link' })
    .click();
  await expect(page.getByText('5 898.80 EUR')).toBeVisible();
  await page
    .getByRole('button', { name: 'Cat 6A RJ45, 15 m: 5 are ordered for 2, as they come in packs of 5.' })
    .click();
  const facts = page.getByRole('complementary', { name: 'Cat 6A RJ45' });
  await expect(facts.getByText('5, packs of 5')).toBeVisible();
  await facts.getByRole('button', { name: 'Reserve 1 of 1 in stock' }).click();
  await expect(facts.getByRole('button', { name: 'Give back' })).toBeVisible();
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(facts.getByRole('button', { name: 'Reserve 1 of 1 in stock' })).toBeVisible();
  // Written down as a quotation, priced by hand, issued; another person finds it and cannot change it.
  await page.getByRole('button', { name: 'Write a quotation' }).click();
  await expect(page.getByText('7 019.57 EUR')).toBeVisible();
  await page.getByRole('button', { name: 'Issue it' }).click();
  await expect(page.getByText(/Customer is missing/)).toBeVisible();
  const about = page.getByRole('complementary', { name: 'About the quotation' });
  await about.getByRole('textbox', { name: 'Customer' }).fill('Board of works');
  await about.getByRole('button', { name: 'Set', exact: true }).click();
  await rowOf(page, 'Norvane WB-60').getByRole('gridcell').nth(4).click();
  await page.keyboard.type('10');
  await page.keyboard.press('Enter');
  // 2 x 684.00 less 10 % is 136.80 less, and 19 % of that.
  await expect(page.getByText('6 856.78 EUR')).toBeVisible();
  await page.getByRole('button', { name: 'Issue it' }).click();
  await expect(page.getByRole('button', { name: 'Make a revision' })).toBeVisible();
  await saved(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save PDF' }).click();
  const file = await (await download).path();
  expect((await readFile(file)).subarray(0, 5).toString()).toBe('%PDF-');
  const rita = await another(browser, application, 'rita@marrow.example');
  await section(rita, 'Parts');
  await view(rita, 'Quotations');
  await rita.getByRole('button', { name: 'Q-2026-001' }).click();
  await expect(rita.getByText('6 856.78 EUR')).toBeVisible();
  await expect(rita.getByRole('button', { name: 'Make a revision' })).toHaveCount(0);
  await rita.context().close();
  const axe = await new AxeBuilder({ page }).analyze();
  expect(axe.violations.filter((one) => one.impact === 'serious' || one.impact === 'critical')).toEqual([]);
});

test('a price list with wrong rows: each is told, the others are taken in and count', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Parts');
  await view(page, 'Prices');
  await page.getByRole('button', { name: 'Take in prices …' }).click();
  await page.getByLabel('File of prices').setInputFiles({
    name: 'Quay prices.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'Model,Price,Pack\nNorvane IX-812P,1000,\nNorvane IX-812Q,1000,\nNorvane WB-60,ask,\n',
    ),
  });
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('1 of 3 rows can be read. The others are left out:')).toBeVisible();
  await expect(
    dialog.getByText('Row 3, Model: The catalogue has no model “Norvane IX-812Q”. Is it Norvane IX-812P?'),
  ).toBeVisible();
  await dialog.getByRole('button', { name: 'Take in 1 price' }).click();
  await expect(dialog.getByText(/Supplier is empty/)).toBeVisible();
  await dialog.getByRole('textbox', { name: 'Supplier' }).fill('Quay Supplies');
  await dialog.getByRole('button', { name: 'Take in 1 price' }).click();
  await expect(page.getByText(/Quay Supplies · EUR/)).toBeVisible();
  await saved(page);
  await view(page, 'Parts lists');
  await page.getByRole('button', { name: 'Otterslip second link' }).click();
  await expect(rowOf(page, 'Norvane IX-812P')).toContainText('Quay Supplies');
});

test('from an empty project: a planned device is counted, spared, received, reserved, undone; by keys where it is typed', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Slip');
  await record(page).getByLabel('Place', { exact: true }).fill('Quay');
  await record(page).getByRole('button', { name: 'Add place' }).click();
  await saved(page);
  await section(page, 'Parts');
  await page.getByRole('button', { name: 'Begin a parts list' }).click();
  await expect(page.getByText('Nothing is counted')).toBeVisible();
  await page.getByRole('button', { name: 'What it counts' }).first().click();
  const setting = page.getByRole('complementary', { name: 'What it counts' });
  const further = setting.getByRole('region', { name: 'Further parts' });
  await further.getByLabel('Part', { exact: true }).fill('Screws');
  await further.getByLabel('Each').fill('0.15');
  await further.getByLabel('Count').fill('forty');
  await further.getByRole('button', { name: 'Add' }).click();
  await expect(setting.getByRole('alert')).toBeVisible();
  await further.getByLabel('Count').fill('40');
  await further.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByText('6.00 EUR').first()).toBeVisible();
  await view(page, 'Stock');
  await page.getByRole('button', { name: 'Receive parts' }).click();
  await take(page, 'Part', 'Norvane WA-52');
  await take(page, 'Store', 'Quay');
  await page.getByRole('dialog').getByRole('textbox', { name: 'Count' }).fill('3');
  await page.keyboard.press('Enter');
  await expect(rowOf(page, 'Norvane WA-52')).toContainText('3');
  await saved(page);
  await page.reload();
  // Typed over in the row, wrongly first.
  const count = rowOf(page, 'Norvane WA-52').getByRole('gridcell').nth(4);
  await count.click();
  await page.keyboard.type('many');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“many” is no whole number of pieces.')).toBeVisible();
  await page.keyboard.press('Escape');
  await count.click();
  await page.keyboard.type('5');
  await page.keyboard.press('Enter');
  await expect(count).toHaveText('5');
  await saved(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo/ }).first().click();
  await expect(count).toHaveText('3');
});
