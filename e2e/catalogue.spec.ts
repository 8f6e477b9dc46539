/** Places and the catalogue: moved, merged, imported; models made, shared, put into slots; kits placed. */
import type { Page } from '@playwright/test';
import { another, doLine, expect, pick, record, saved, signIn, test } from './application.ts';

test.use({ file: 'catalogue' });

const tree = (page: Page) => page.getByRole('treegrid', { name: 'Places' });
async function openModel(page: Page, text: string, name: RegExp): Promise<void> {
  await page.getByRole('link', { name: 'Catalogue' }).click();
  await page.getByRole('searchbox', { name: 'Filter rows' }).fill(text);
  await page.getByRole('option', { name }).first().click();
}

test('places are pasted, moved, merged and deleted with what is inside kept', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await doLine(page, 'gate shed');
  await expect(record(page).getByRole('heading', { name: 'Gate shed' })).toBeVisible();
  await record(page).getByRole('button', { name: 'Several at once' }).click();
  await record(page).getByLabel('Names, one a line').fill('Locker 1\nLocker 2\n\nLocker 3');
  await record(page).getByRole('button', { name: 'Add all' }).click();
  await expect(tree(page).getByRole('row', { name: /^Locker 3/ })).toBeVisible();
  await record(page).getByRole('button', { name: 'Move …' }).click();
  await pick(page, 'otterslip › slipway');
  await page.getByRole('button', { name: /^Move Gate shed with 3 places, 1 rack, 2 devices/ }).click();
  await expect(record(page).getByText('room · Otterslip › Slipway')).toBeVisible();
  await expect(tree(page).getByRole('row', { name: /^Otterslip, 6 devices/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await doLine(page, 'gate shed');
  await expect(record(page).getByRole('heading', { name: 'Gate shed' })).toBeVisible();
  await record(page).getByRole('button', { name: 'Delete …' }).click();
  await expect(record(page).getByText('Inside are 3 places, 1 rack, 2 devices. They are kept')).toBeVisible();
  await record(page).getByRole('button', { name: 'Delete Gate shed' }).click();
  await expect(tree(page).getByRole('row', { name: /^Gate shed/ })).toHaveCount(0);
  await expect(tree(page).getByRole('row', { name: /^Locker 3/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(tree(page).getByRole('row', { name: /^Gate shed/ })).toBeVisible();
  await doLine(page, 'locker 1');
  await expect(record(page).getByRole('heading', { name: 'Locker 1' })).toBeVisible();
  await record(page).getByRole('button', { name: 'Merge …' }).click();
  await pick(page, 'comms ashholm');
  await record(page).getByRole('button', { name: 'Merge into Comms room' }).click();
  await expect(tree(page).getByRole('row', { name: /^Locker 1/ })).toHaveCount(0);
});

test('a place is dragged into another with all in it; picked racks are opened together', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  const row = (name: RegExp) => tree(page).getByRole('row', { name }).first();
  await row(/^Gate shed/).dragTo(row(/^Brinsay/));
  await expect(row(/^Brinsay, 10 devices/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(row(/^Brinsay, 8 devices/)).toBeVisible();
  await row(/^Kelder Quay/).click();
  for (const name of [/^Rack KQ-A1/, /^Rack KQ-W1/])
    await page.getByRole('button', { name }).click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'Open 2 racks' }).click();
  await expect(page.getByRole('heading', { name: '2 racks · elevations' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'All 3 racks' })).toHaveAttribute('aria-pressed', 'false');
});

test('a list of places and racks: each row is told, the good ones are taken', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await page.getByRole('button', { name: 'Import …' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Spreadsheet').setInputFiles({
    name: 'places.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'Path,Kind,Code,Rack,Units\nNorth pier,site,NP,,\nNorth pier/Hut,room,,NP-A1,24\nNorth pier/Hut,,,NP-A2,99\nSouth pier,fort,,,\n',
    ),
  });
  await expect(dialog.getByRole('row', { name: /NP-A2/ })).toContainText('Units is above 60');
  await expect(dialog.getByRole('row', { name: /South pier/ })).toContainText('Kind “fort” is not');
  await dialog.getByRole('button', { name: 'Import the 2 good rows, leave out 2' }).click();
  await expect(tree(page).getByRole('row', { name: /^North pier/ })).toBeVisible();
  await page.getByRole('button', { name: 'Import …' }).click();
  await page
    .getByRole('dialog')
    .getByLabel('Spreadsheet')
    .setInputFiles({
      name: 'broken.xlsx',
      mimeType: 'application/octet-stream',
      buffer: Buffer.from('PK not a workbook'),
    });
  await expect(page.getByRole('alert')).toContainText('broken.xlsx: The file is not a workbook');
});

test('a model is made with its face drawn, faults are told, a picture is cleaned', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await openModel(page, 'CR-6032', /CR-6032 /);
  await record(page).getByRole('button', { name: 'Make a variant' }).click();
  const editor = page.getByRole('region', { name: 'Model editor' });
  await editor.getByLabel('Name', { exact: true }).fill('CR-6032 quay');
  await editor.getByLabel('Names').first().fill('te1/1-5000');
  await editor.getByLabel('Mass (kg)').fill('-2');
  await expect(editor.getByRole('alert')).toContainText('yields more than 1024 names');
  await editor.getByRole('button', { name: 'Add model' }).click();
  await expect(editor.getByText('Mass is negative.')).toBeVisible();
  await expect(editor.getByLabel('Mass (kg)')).toBeFocused();
  await editor.getByLabel('Names').first().fill('te1/1-24');
  await editor.getByLabel('Mass (kg)').fill('9.1');
  await editor.getByLabel('Picture', { exact: true }).setInputFiles({
    name: 'face.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="10"><script>alert(1)</script><rect width="40" height="10" onclick="x()"/></svg>',
    ),
  });
  await expect(page.getByText('what was not a drawing was taken out of it')).toBeVisible();
  await expect(editor.getByAltText('Picture of CR-6032 quay')).toBeVisible();
  // A photograph is drawn anew: what else its file held does not go along.
  const photograph = await page.screenshot({ clip: { x: 0, y: 0, width: 40, height: 10 } });
  const words = Buffer.from('tEXtWhere\0at home');
  const size = Buffer.alloc(4);
  size.writeUInt32BE(words.length - 4);
  const [head, rest] = [photograph.subarray(0, 33), photograph.subarray(33)];
  await editor.getByLabel('Picture', { exact: true }).setInputFiles({
    name: 'photograph.png',
    mimeType: 'image/png',
    buffer: Buffer.concat([head, size, words, Buffer.alloc(4), rest]),
  });
  await expect(editor.getByAltText('Picture of CR-6032 quay')).toHaveAttribute('src', /^data:image\/png/);
  const kept = (await editor.getByAltText('Picture of CR-6032 quay').getAttribute('src')) ?? '';
  expect(Buffer.from(kept.split(',')[1] ?? '', 'base64').includes('at home')).toBe(false);
  await editor.getByLabel('Picture', { exact: true }).setInputFiles({
    name: 'fake.png',
    mimeType: 'image/png',
    buffer: Buffer.from('not a picture'),
  });
  await expect(page.getByText('fake.png: The file is neither a PNG nor an SVG picture.')).toBeVisible();
  await editor.getByRole('button', { name: 'Add model' }).click();
  await expect(record(page).getByRole('heading', { name: 'Norvane CR-6032 quay' })).toBeVisible();
  await expect(record(page).getByText('Draft of this project')).toBeVisible();
});

test('an editor offers a model, an owner accepts it; retired it is no longer offered', async ({
  browser,
  page,
  application,
}) => {
  const ben = await another(browser, application, 'ben@marrow.example');
  await openModel(ben, 'WA-72', /WA-72/);
  await record(ben).getByRole('button', { name: 'Offer to the organisation' }).click();
  await expect(record(ben).getByText('Offered: waits for an owner')).toBeVisible();
  await expect(record(ben).getByRole('button', { name: 'Accept for every project' })).toHaveCount(0);
  await signIn(page, application);
  await openModel(page, 'WA-72', /WA-72/);
  await record(page).getByRole('button', { name: 'Accept for every project' }).click();
  await expect(record(page).getByText('Shared with every project')).toBeVisible();
  await record(page).getByRole('button', { name: 'Retire' }).click();
  await saved(page);
  await doLine(page, 'rack KQ-A3');
  await page.getByRole('button', { name: 'Gear', exact: true }).click();
  const gear = page.getByRole('complementary', { name: 'Gear' });
  await gear.getByLabel('Find gear').fill('WA-72');
  await expect(gear.getByText('No model has “WA-72”')).toBeVisible();
  await ben.context().close();
});

test('modules bring ports; one with cables stays in; another model shows what becomes of the cables', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await doLine(page, 'add CR-9004 to KQ-A3 U10');
  await saved(page);
  await doLine(page, 'rack KQ-A3');
  await page
    .getByRole('button', { name: /, switch, units 10 to 16, / })
    .first()
    .click();
  await record(page)
    .getByRole('button', { name: /Module for slot 1/ })
    .click();
  await page.getByRole('option', { name: 'Norvane LC-48T' }).click();
  await expect(record(page).getByText('Ports · 0 of 48 used')).toBeVisible();
  const name = await record(page).getByRole('heading', { level: 2 }).textContent();
  await doLine(page, `connect ${name ?? ''} gi1/7 to kq-acc-4 gi1/40`);
  await saved(page);
  await record(page).getByRole('button', { name: 'Take out slot 1' }).click();
  await expect(record(page).getByRole('alert')).toContainText('a cable is plugged in at gi1/7 (KQ-00177)');

  await doLine(page, 'kq-acc-4');
  await expect(record(page).getByRole('heading', { name: 'kq-acc-4' })).toBeVisible();
  await record(page).getByRole('button', { name: 'Change model …' }).click();
  await pick(page, 'norvane ax-2424p');
  await expect(record(page).getByText(/\d+ cables stay where they are/)).toBeVisible();
  await expect(record(page).getByText(/cables? moves? to another port|move to another port/)).toBeVisible();
  await record(page).getByRole('button', { name: 'Change model', exact: true }).click();
  await expect(record(page).getByText('of 29 used')).toBeVisible();
});

test('a rack is kept as a kit and placed again with new names', async ({ page, application }) => {
  await signIn(page, application);
  await doLine(page, 'rack KQ-W1');
  await expect(record(page).getByRole('heading', { name: 'KQ-W1' })).toBeVisible();
  await record(page).getByRole('button', { name: 'Keep as kit' }).click();
  await record(page).getByRole('textbox', { name: 'Kit' }).fill('Wall cabinet');
  await record(page).getByRole('button', { name: 'Keep kit' }).click();
  await saved(page);
  await page.getByRole('link', { name: 'Catalogue' }).click();
  await page.getByRole('button', { name: 'Kits · 2' }).click();
  await page
    .getByRole('list', { name: 'Kits' })
    .getByRole('listitem')
    .filter({ hasText: 'Wall cabinet' })
    .getByRole('button', { name: 'Place …' })
    .click();
  await page.getByRole('combobox', { name: 'In', exact: true }).fill('offices');
  await page.getByRole('option', { name: /Offices/ }).click();
  await page.getByRole('button', { name: 'Place kit' }).click();
  await expect(page.getByRole('heading', { name: 'KQ-W2 · elevation' })).toBeVisible();
  await expect(page.getByText('3 of 12 U used · 9 free')).toBeVisible();
});
