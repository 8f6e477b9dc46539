/** From what an engineer already has: an equipment list, a table of links over it, and the sheet that comes of both. */
import type { Locator, Page } from '@playwright/test';
import { beginProject, expect, quiet, record, saved, section, test } from './application.ts';
import { equipmentList, faults, linkTable } from './lists.ts';

test.use({ file: 'equipmentlist' });

const bring = async (dialog: Locator, name: string, text: string): Promise<void> =>
  dialog.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
/** Goes to a section, and waits until it is the one that is shown: both have a button Import. */
const goTo = async (page: Page, name: string): Promise<void> => {
  await section(page, name);
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
};
const cell = (page: Page, name: string): Locator =>
  page.getByRole('grid', { name: 'Devices' }).getByRole('gridcell', { name, exact: true });
const below = (page: Page): Locator => page.getByRole('textbox', { name: 'Below the last row' });
/** What a person pastes into what has the focus. */
const paste = (at: Locator, text: string): Promise<void> =>
  at.evaluate((element, pasted) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', pasted);
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, text);

test('a list of 300 rows with 12 faults and 3 unknown models, a link table over it, then its sheet', async ({
  page,
  application,
}) => {
  test.setTimeout(150_000);
  await beginProject(page, application, 'Tern Holm');
  await goTo(page, 'Equipment');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  const list = page.getByRole('dialog', { name: 'Import an equipment list' });
  await bring(list, 'tern-holm.csv', equipmentList());

  // Three models are asked once for all their rows.
  await expect(list.getByText('3 models are not in the catalogue: say what they are.')).toBeVisible();
  await expect(list.getByRole('listitem', { name: 'Orlo S-40' })).toContainText('198 rows');
  await list.getByRole('button', { name: 'All 3 are our own' }).click();
  for (const [model, ports] of [
    ['Orlo S-40', '2 RJ45 1G, 2 C14'],
    ['Fennimore TK-9', '2 RJ45 1G, 2 C14'],
    ['Orlo F-12', '8 RJ45 1G, 2 C14'],
  ] as const) {
    await list.getByRole('listitem', { name: model }).getByLabel('Ports').fill(ports);
    await page.keyboard.press('Tab');
  }
  await list.getByLabel('Management VLAN').fill('77');
  await page.keyboard.press('Tab');

  // Twelve rows say why not; the others are told with what is made beside them.
  await expect(
    list.getByText(
      '288 new, 0 changed, 0 the same, 12 that cannot be taken; makes 3 models, 2 places, 14 racks',
    ),
  ).toBeVisible();
  const rows = list.getByRole('grid', { name: 'Rows of the file' });
  for (const [, why] of faults.slice(0, 6)) await expect(rows.getByText(why).first()).toBeVisible();
  await list.getByRole('button', { name: 'Import 288 good rows, leave out 12' }).click();
  await expect(page.getByText('tern-holm.csv: 288 devices made or changed.')).toBeVisible();
  await expect(page.getByRole('contentinfo')).toContainText('288 devices · 14 racks');

  // A second time nothing differs.
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await bring(list, 'tern-holm.csv', equipmentList());
  await expect(list.getByText(/0 new, 0 changed, 288 the same, 12/)).toBeVisible();
  await expect(list.getByRole('button', { name: /^Import 0/ })).toBeDisabled();
  await list.getByRole('button', { name: 'Close' }).click();

  // The facts of the list are in the record, and in the inventory.
  await page.getByRole('button', { name: 'Inventory', exact: true }).click();
  await cell(page, 'th-fw-01').click();
  await expect(record(page).getByRole('textbox', { name: 'Price paid' })).toHaveValue('1 250.00 EUR');
  await expect(record(page).getByLabel('Cost centre')).toHaveValue('4711');
  await expect(record(page)).toContainText('10.77.1.11');

  // The links of it: their devices and ports are there already.
  await goTo(page, 'Cables');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  const links = page.getByRole('dialog', { name: 'Import cables' });
  await bring(links, 'links.csv', linkTable());
  await expect(links.getByText('287 new, 0 changed, 0 the same, 0 that cannot be taken')).toBeVisible();
  await links.getByRole('button', { name: 'Import 287 cables' }).click();
  await expect(page.getByText('links.csv: 287 cables made or changed.')).toBeVisible();

  await section(page, 'Sheets');
  await page.getByRole('button', { name: 'Draw cabling of all sites' }).click();
  await saved(page);
  await expect(page.getByRole('button', { name: /Rows: 288 devices, 287 lines/ })).toBeVisible();

  // The list was one step: the cables and the sheet undone, then the whole of it.
  for (const left of ['288 devices', '288 devices', '0 devices']) {
    await page.keyboard.press('Control+z');
    await saved(page);
    await expect(page.getByRole('contentinfo')).toContainText(left);
  }
});

test('names typed and rows pasted below the last row of the grid become devices', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Pasted');
  await goTo(page, 'Equipment');
  await below(page).fill('sw-1');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'sw-1')).toBeVisible();
  await below(page).fill('sw-1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('sw-1 is there already.');
  await below(page).fill('');

  // A list of names.
  await paste(below(page), 'sw-2\nsw-3\nfw-1\n');
  const list = page.getByRole('dialog', { name: 'Import an equipment list' });
  await list.getByRole('button', { name: 'Import 3 devices' }).click();
  await expect(cell(page, 'fw-1')).toBeVisible();

  // A block that reaches below the last row: what falls on rows changes them, the rest is told first.
  await cell(page, 'sw-3').click();
  await paste(cell(page, 'sw-3'), 'sw-30\nsw-31\n');
  await list.getByRole('button', { name: 'Import 1 device' }).click();
  await expect(cell(page, 'sw-31')).toBeVisible();
  await expect(cell(page, 'sw-30')).toBeVisible();

  // By keys: down from the last row, and up again.
  await cell(page, 'sw-31').click();
  await page.keyboard.press('ArrowDown');
  await expect(below(page)).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await expect(cell(page, 'sw-31')).toBeFocused();
});

test('a table of links over an empty project makes its devices, ports and cables', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Links');
  await goTo(page, 'Cables');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  const links = page.getByRole('dialog', { name: 'Import cables' });
  await bring(
    links,
    'links.csv',
    'core-1,te1/1,core-2,te1/1\ncore-1,te1/2,edge-1,ge0/1\ncore-2,te1/2,edge-1,ge0/2\n',
  );
  await expect(links.getByText(/3 new.*; makes 3 devices, 6 ports/)).toBeVisible();
  await links.getByRole('button', { name: 'Import 3 cables' }).click();
  await expect(page.getByRole('contentinfo')).toContainText('3 devices');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('contentinfo')).toContainText('0 devices');
});

test('by keyboard alone: rows pasted, an unknown model answered, the good rows taken', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Keys and lists');
  await page.keyboard.press('Alt+3');
  await expect(page.getByRole('heading', { name: 'Equipment', level: 1 })).toBeVisible();
  /** Tab until what is wished has the focus. */
  const tabTo = async (wished: Locator): Promise<void> => {
    for (let press = 0; press < 40; press++) {
      await page.keyboard.press('Tab');
      if (await wished.evaluate((one) => one === document.activeElement).catch(() => false)) return;
    }
    throw new Error('Tab never came to it.');
  };
  await tabTo(below(page));
  await paste(
    below(page),
    'name\tmodel\tserial\nth-1\tNorvane AX-2424P\tS1\nth-2\tOrlo S-40\tS2\n\tOrlo S-40\tS3\n',
  );
  const list = page.getByRole('dialog', { name: 'Import an equipment list' });
  await expect(list.getByText('1 model is not in the catalogue: say what it is.')).toBeVisible();
  const answer = list.getByRole('listitem', { name: 'Orlo S-40' }).getByRole('button', { name: /It is/ });
  await tabTo(answer);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  const ports = list.getByRole('listitem', { name: 'Orlo S-40' }).getByLabel('Ports');
  await expect(ports).toBeVisible();
  await tabTo(ports);
  await page.keyboard.type('2 RJ45 1G, 2 C14');
  await page.keyboard.press('Tab');
  const take = list.getByRole('button', { name: /^Import 3 devices/ });
  await expect(take).toBeEnabled();
  await tabTo(take);
  await page.keyboard.press('Enter');
  await expect(cell(page, 'th-2')).toBeVisible();
  await expect(list).toHaveCount(0);
  // The focus comes back from the panel to the field below the rows; out of it, where Ctrl+Z is that of what is typed.
  await expect(page.locator(':focus')).toBeVisible();
  await quiet(page);
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('contentinfo')).toContainText('0 devices');
});
