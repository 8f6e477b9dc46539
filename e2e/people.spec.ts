/** Invitations, accounts and the standing of projects, from an empty project and between two windows. */
import { expect, test, beginProject, password, saved, section, type Application } from './application.ts';
import type { Browser, Locator, Page } from '@playwright/test';

test.use({ file: 'people' });

const openPeople = async (page: Page): Promise<Locator> => {
  await page.getByRole('button', { name: 'Anna Kerr: menu' }).click();
  await page.getByRole('menuitem', { name: 'People' }).click();
  return page.getByRole('dialog');
};
const invite = async (dialog: Locator, email: string, role?: string): Promise<string> => {
  await dialog.getByLabel('E-mail').fill(email);
  if (role !== undefined) {
    await dialog.getByRole('form', { name: 'Invite somebody' }).getByRole('button', { name: /Role/ }).click();
    await dialog.page().getByRole('option', { name: role }).click();
  }
  await dialog.getByRole('button', { name: 'Invite' }).click();
  return dialog.getByLabel(`Link for ${email}`).inputValue();
};
/** A window of somebody who is not signed in. */
const stranger = async (browser: Browser): Promise<Page> =>
  (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
const projectIn = (page: Page): string => new URL(page.url()).pathname.split('/')[2] ?? '';
const signInAs = async (page: Page, { url }: Application, email: string, word: string): Promise<void> => {
  await page.goto(url);
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(word);
  await page.getByRole('button', { name: 'Sign in' }).click();
};

test('an owner invites somebody, who makes an account and draws with them, and is taken out again', async ({
  page,
  browser,
  application,
}) => {
  await beginProject(page, application, 'New quay');
  const dialog = await openPeople(page);
  await dialog.getByLabel('E-mail').fill('eve');
  await dialog.getByRole('button', { name: 'Invite' }).click();
  await expect(dialog.getByText('is not an e-mail address')).toBeVisible();
  const link = await invite(dialog, 'eve@marrow.example');
  await expect(dialog.getByRole('status')).toContainText('Hand it to them yourself');
  await expect(dialog.getByRole('list', { name: 'Invited' })).toContainText('eve@marrow.example');
  const eve = await stranger(browser);
  await eve.goto(link);
  await expect(eve.getByRole('heading', { name: 'New quay' })).toBeVisible();
  await expect(eve.getByText('Anna Kerr invites you, as an editor.')).toBeVisible();
  await expect(eve.getByRole('textbox', { name: 'Name' })).toBeFocused();
  // By keyboard alone; what is wrong is told at its field and nothing is lost.
  await eve.keyboard.type('Eve Lund');
  await eve.keyboard.press('Tab');
  await eve.keyboard.press('Tab');
  await eve.keyboard.type('too short');
  await eve.keyboard.press('Enter');
  await expect(eve.getByText('Password has fewer than 12 characters.')).toBeVisible();
  await eve.keyboard.type(', now long');
  await eve.keyboard.press('Enter');
  await expect(eve.getByRole('button', { name: 'Eve Lund: menu' })).toBeVisible();
  await saved(eve);
  expect(projectIn(eve)).toBe(projectIn(page));
  await eve.goto(link);
  await expect(eve.getByRole('alert')).toContainText('used already');
  await eve.getByRole('button', { name: 'To Visograph' }).click();
  await saved(eve);
  await page.keyboard.press('Escape');
  const again = await openPeople(page);
  await expect(again.getByRole('listitem').filter({ hasText: 'Eve Lund' })).toContainText('editor');
  await expect(again.getByRole('list', { name: 'Invited' })).toHaveCount(0);
  // A changed role reaches the open window.
  await again.getByRole('button', { name: /Role of Eve Lund/ }).click();
  await page.getByRole('option', { name: 'reader' }).click();
  await expect(eve.getByRole('button', { name: 'Undo' })).toHaveCount(0);
  await again.getByRole('button', { name: 'Remove Eve Lund' }).click();
  await expect(again.getByRole('listitem').filter({ hasText: 'Eve Lund' })).toHaveCount(0);
  await expect(eve.getByRole('heading', { name: 'Projects' })).toBeVisible();
  await expect(eve.getByText('There is no project in use.')).toBeVisible();
});

test('a colleague with an account joins with it; a link that was taken back lets nobody in', async ({
  page,
  browser,
  application,
}) => {
  await beginProject(page, application, 'Second quay');
  const dialog = await openPeople(page);
  const back = await invite(dialog, 'gone@marrow.example');
  await dialog.getByRole('button', { name: 'Take back the invitation of gone@marrow.example' }).click();
  await expect(dialog.getByRole('status')).toHaveCount(0);
  const link = await invite(dialog, 'ben@marrow.example', 'reader');
  const ben = await stranger(browser);
  await ben.goto(back);
  await expect(ben.getByRole('alert')).toContainText('taken back');
  await ben.goto(link);
  await ben.reload();
  // Whoever is signed in here is somebody else.
  await ben.getByRole('button', { name: 'I have an account' }).click();
  await ben.getByLabel('E-mail').fill('rita@marrow.example');
  await ben.getByLabel('Password').fill(password);
  await ben.getByRole('button', { name: 'Sign in' }).click();
  await expect(ben.getByRole('button', { name: 'Join as Rita Voss' })).toBeVisible();
  await ben.getByRole('button', { name: 'With another account' }).click();
  await ben.getByRole('button', { name: 'I have an account' }).click();
  await ben.getByLabel('E-mail').fill('ben@marrow.example');
  await ben.getByLabel('Password').fill(password);
  await ben.getByRole('button', { name: 'Sign in' }).click();
  await ben.getByRole('button', { name: 'Join as Ben Adair' }).click();
  await saved(ben);
  expect(projectIn(ben)).toBe(projectIn(page));
});

test('a forgotten password is set by a link that whoever runs the server hands on', async ({
  page,
  application,
}) => {
  await page.goto(application.url);
  await page.getByLabel('E-mail').fill('rita@marrow.example');
  await page.getByRole('button', { name: 'Password forgotten' }).click();
  await expect(page.getByRole('status')).toContainText('Whoever runs it makes a link for you');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Password')).toBeVisible();
  const link =
    (await application.tool('new-password', 'rita@marrow.example')).match(/\/reset#\S+/)?.[0] ?? '';
  await page.goto(`${application.url}${link}`);
  await expect(page.getByRole('textbox', { name: 'New password' })).toBeFocused();
  await page.keyboard.type('short');
  await page.keyboard.press('Enter');
  await expect(page.getByText('New password has fewer than 12 characters.')).toBeVisible();
  await page.keyboard.type(' and now not');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Rita Voss: menu' })).toBeVisible();
  await page.goto(`${application.url}${link}`);
  await page.getByRole('textbox', { name: 'New password' }).fill('once more, please');
  await page.getByRole('button', { name: 'Set password' }).click();
  await expect(page.getByRole('alert')).toContainText('used already');
});

test('the own account: password, where one is signed in, removal', async ({ page, browser, application }) => {
  await beginProject(page, application, 'Third quay');
  const dialog = await openPeople(page);
  const link = await invite(dialog, 'ina@marrow.example', 'owner');
  const ina = await stranger(browser);
  await ina.goto(link);
  await ina.getByLabel('Name').fill('Ina Holm');
  await ina.getByLabel('Password').fill(password);
  await ina.getByRole('button', { name: 'Join', exact: true }).click();
  await saved(ina);
  const elsewhere = await stranger(browser);
  await signInAs(elsewhere, application, 'ina@marrow.example', password);
  await saved(elsewhere);
  await ina.getByRole('button', { name: 'Ina Holm: menu' }).click();
  await ina.getByRole('menuitem', { name: 'Your account' }).click();
  const account = ina.getByRole('dialog', { name: 'Your account' });
  await expect(
    account.getByRole('list', { name: 'Where you are signed in' }).getByRole('listitem'),
  ).toHaveCount(2);
  await account.getByRole('form', { name: 'Password' }).getByLabel('Current password').fill('not it');
  await account.getByLabel('New password').fill('tide-bell-three');
  await account.getByRole('button', { name: 'Change password' }).click();
  await expect(account.getByText('The current password is not right.')).toBeVisible();
  await account.getByLabel('Current password').fill(password);
  await account.getByRole('button', { name: 'Change password' }).click();
  await expect(account.getByText('signed out everywhere else')).toBeVisible();
  await expect(
    account.getByRole('list', { name: 'Where you are signed in' }).getByRole('listitem'),
  ).toHaveCount(1);
  await expect(elsewhere.getByRole('heading', { name: 'Your session has ended' })).toBeVisible();
  await elsewhere.getByLabel('E-mail').fill('ina@marrow.example');
  await elsewhere.getByLabel('Password').fill('tide-bell-three');
  await elsewhere.getByRole('button', { name: 'Sign in' }).click();
  await saved(elsewhere);
  await account.getByRole('textbox', { name: 'Name' }).fill('Ina Holm-Berg');
  await account.getByRole('button', { name: 'Save' }).click();
  await expect(ina.getByRole('button', { name: 'Ina Holm-Berg: menu', includeHidden: true })).toBeVisible();
  await account.getByRole('button', { name: 'Remove …' }).click();
  await account
    .getByRole('form', { name: 'Remove this account' })
    .getByLabel('Password')
    .fill('tide-bell-three');
  await account.getByRole('button', { name: 'Remove for good' }).click();
  await expect(ina.getByRole('heading', { name: 'Visograph' })).toBeVisible();
  await signInAs(ina, application, 'ina@marrow.example', 'tide-bell-three');
  await expect(ina.getByRole('alert')).toContainText('do not belong together');
});

test('a project is archived, deleted, brought back, and deleted for good', async ({
  page,
  browser,
  application,
}) => {
  await beginProject(page, application, 'Old quay');
  const project = projectIn(page);
  const link = await invite(await openPeople(page), 'ben@marrow.example');
  await page.keyboard.press('Escape');
  const ben = await stranger(browser);
  await signInAs(ben, application, 'ben@marrow.example', password);
  await expect(ben.getByLabel('Password')).toHaveCount(0);
  await ben.goto(link);
  await ben.getByRole('button', { name: 'Join as Ben Adair' }).click();
  await saved(ben);
  await page.goto(`${application.url}/projects`);
  const act = async (text: string): Promise<void> => {
    await page.getByRole('button', { name: 'More of Old quay' }).click();
    await page.getByRole('menuitem', { name: text }).click();
  };
  await act('Archive');
  await expect(page.getByRole('region', { name: 'Archived' })).toContainText('Old quay');
  // The window of the other is told, and what they do there says why it cannot be.
  await expect(ben.getByRole('status', { name: 'Archived' })).toBeVisible();
  await expect(ben.getByRole('button', { name: 'Undo' })).toHaveCount(0);
  await section(ben, 'Places');
  await expect(ben.getByText('This project is archived. An owner can bring it back').first()).toBeVisible();
  await page.getByRole('link', { name: /^Old quay/ }).click();
  await page.getByRole('status', { name: 'Archived' }).getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByRole('status', { name: 'Archived' })).toHaveCount(0);
  await expect(ben.getByRole('button', { name: 'Undo' })).toBeVisible();
  await page.goto(`${application.url}/projects`);
  await act('Delete');
  await expect(page.getByRole('region', { name: 'Deleted' })).toContainText(/Old quay gone for good on \d/);
  await expect(ben.getByRole('heading', { name: 'Projects' })).toBeVisible();
  await page.goto(`${application.url}/p/${project}/start`);
  await expect(page.getByRole('heading', { name: 'Projects' })).toBeVisible();
  await act('Bring back');
  await expect(page.getByRole('region', { name: 'In use' })).toContainText('Old quay');
  await act('Delete');
  await act('Delete for good');
  const ask = page.getByRole('dialog');
  await ask.getByLabel('Name of the project').fill('Old key');
  await page.keyboard.press('Enter');
  await expect(ask.getByText('Name of the project is not Old quay.')).toBeVisible();
  await ask.getByLabel('Name of the project').fill('Old quay');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByText('Old quay')).toHaveCount(0);
});
