/** What goes wrong: bad input, readers, conflicts, a server that is away, a session that ends. */
import { another, doLine, expect, password, record, saved, signIn, test } from './application.ts';

test.use({ file: 'trouble' });

test('a wrong password and an unknown person get the same words, and what was typed stays', async ({
  page,
  application,
}) => {
  await page.goto(application.url);
  for (const email of ['anna@marrow.example', 'nobody@marrow.example']) {
    await page.getByLabel('E-mail').fill(email);
    await page.getByLabel('Password').fill('not this');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('alert')).toHaveText(
      'The e-mail address and the password do not belong together. Check both and try again.',
    );
    await expect(page.getByLabel('E-mail')).toHaveValue(email);
  }
});

test('a taken name is refused in the record and in the grid, with the reason, and nothing is lost', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await doLine(page, 'kq-acc-2');
  const name = record(page).getByRole('textbox', { name: 'Name' });
  await name.fill('kq-core-1');
  await name.press('Enter');
  await expect(record(page).getByRole('alert')).toContainText(
    'There is already a device with the name kq-core-1',
  );
  await expect(name).toHaveValue('kq-core-1');
  await name.press('Escape');
  await expect(name).toHaveValue('kq-acc-2');
  await page.getByRole('link', { name: 'Equipment' }).click();
  await page.getByRole('searchbox', { name: 'Filter rows' }).fill('kq-srv');
  await page.getByRole('gridcell', { name: 'kq-srv-1', exact: true }).dblclick();
  const typed = page.getByRole('grid').getByRole('textbox', { name: 'Name' });
  await typed.fill('kq-srv-2');
  await typed.press('Enter');
  await expect(page.getByRole('gridcell', { name: 'kq-srv-2', exact: true }).first()).toHaveAttribute(
    'aria-invalid',
    'true',
  );
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('alert')).toContainText('Choose another name');
});

test('a reader sees everything and is offered no change', async ({ browser, application }) => {
  const page = await another(browser, application, 'rita@marrow.example');
  await doLine(page, 'rack KQ-A1');
  await expect(page.getByText('14 of 42 U used · 28 free')).toBeVisible();
  for (const name of ['Add device', 'Connect C', 'Undo', 'Redo'])
    await expect(page.getByRole('button', { name, exact: true })).toHaveCount(0);
  await page.keyboard.press('c');
  await expect(page.getByRole('form', { name: 'Connect' })).toHaveCount(0);
  await doLine(page, 'kq-acc-1');
  await expect(record(page).getByRole('textbox', { name: 'Serial' })).toHaveAttribute('readonly', '');
  await page.context().close();
});

test('a file that cannot be read says where, and writes nothing', async ({ page, application }) => {
  await signIn(page, application);
  const before = await page.getByRole('button', { name: /^Saved/ }).textContent();
  const give = (name: string, text: string) =>
    page
      .getByLabel('Project file')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  await give('notes.json', 'not a file of ours');
  await expect(page.getByRole('alert')).toContainText('notes.json: The file is not JSON');
  await give('new.json', '{"format":"visograph-exchange","version":7}');
  await expect(page.getByRole('alert')).toContainText('Version 7 cannot be read');
  await give(
    'bad.json',
    '{"format":"visograph-exchange","version":1,"cables":[{"label":"X-1","a":"nobody:1"}]}',
  );
  await expect(page.getByRole('alert')).toContainText('There is no device “nobody”');
  await expect(page.getByRole('alert')).toContainText('$.cables[0].a');
  expect(await page.getByRole('button', { name: /^Saved/ }).textContent()).toBe(before);
  await give(
    'good.json',
    '{"format":"visograph-exchange","version":1,"devices":[{"name":"kq-new-1","role":"SV","place":"Kelder Quay"}]}',
  );
  await expect(page.getByRole('status').filter({ hasText: '1 rows added' })).toBeVisible();
});

test('two people at one field: the second is told, and sees the other value', async ({
  page,
  browser,
  application,
}) => {
  await signIn(page, application);
  const other = await another(browser, application, 'ben@marrow.example');
  await doLine(page, 'kq-srv-3');
  await doLine(other, 'kq-srv-3');
  await other.context().setOffline(true);
  const mine = record(other).getByRole('textbox', { name: 'Serial' });
  await mine.fill('his');
  await mine.press('Enter');
  await expect(other.getByRole('button', { name: /^Offline: 1 edit waiting/ })).toBeVisible();
  const hers = record(page).getByRole('textbox', { name: 'Serial' });
  await hers.fill('hers');
  await hers.press('Enter');
  await saved(page);
  await other.context().setOffline(false);
  await expect(other.getByRole('alert')).toContainText('Serial was changed by somebody else');
  await expect(mine).toHaveValue('hers');
  await other.context().close();
});

test('edits made while the server is away wait, survive a reload, and are sent when it is back', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await doLine(page, 'kq-srv-4');
  await application.stop('SIGKILL');
  const serial = record(page).getByRole('textbox', { name: 'Serial' });
  await serial.fill('while away');
  await serial.press('Enter');
  await expect(page.getByRole('button', { name: /^Offline: 1 edit waiting/ })).toBeVisible();
  await application.start();
  await saved(page);
  await page.reload();
  await expect(record(page).getByRole('textbox', { name: 'Serial' })).toHaveValue('while away');
});

test('a session that ended asks to sign in again and keeps the edit', async ({ page, application }) => {
  await signIn(page, application);
  await doLine(page, 'kq-edge-2');
  await application.query('DELETE FROM session');
  const serial = record(page).getByRole('textbox', { name: 'Serial' });
  await serial.fill('kept');
  await serial.press('Enter');
  await expect(page.getByRole('heading', { name: 'Your session has ended' })).toBeVisible();
  await page.getByLabel('E-mail').fill('anna@marrow.example');
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await saved(page);
  await expect(serial).toHaveValue('kept');
});
