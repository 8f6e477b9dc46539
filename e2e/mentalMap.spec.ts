/** A drawing keeps its order: as plates come and go, fold and unfold; laid out afresh it is looked at first. */
import type { Page } from '@playwright/test';
import {
  beginProject,
  doLine,
  drawn,
  expect,
  password,
  plate,
  quiet,
  saved,
  section,
  signIn,
  test,
} from './application.ts';
import { typed } from './hand.ts';

test.use({ file: 'mentalmap' });

const proposed = (page: Page) => page.getByRole('group', { name: 'Proposed arrangement' });
const chosen = (page: Page) => page.getByRole('group', { name: 'Chosen on the sheet' });
const tidy = async (page: Page) => {
  await page.getByRole('button', { name: 'Tidy', exact: true }).first().click();
  return page.getByRole('dialog', { name: 'Tidy' });
};

/** Where plates stand on the sheet, by name, however it is panned and zoomed. */
const standing = (page: Page): Promise<Record<string, string>> =>
  page.evaluate(() =>
    Object.fromEntries(
      [...document.querySelectorAll<HTMLElement>('.react-flow__node-plate')].map((node) => [
        (node.getAttribute('aria-label') ?? '').split(',')[0] ?? '',
        node.style.transform,
      ]),
    ),
  );
/** Notes from now on where a plate stands; what comes back tells all places that it took. */
async function placesTaken(page: Page, name: string): Promise<() => Promise<string[]>> {
  const of = await plate(page, name).elementHandle();
  const taken = await page.evaluateHandle((node) => {
    const places = new Set<string>();
    const look = (): void => {
      if (node instanceof HTMLElement) places.add(node.style.transform);
    };
    look();
    new MutationObserver(look).observe(document.body, { subtree: true, childList: true, attributes: true });
    return places;
  }, of);
  return () => taken.evaluate((places) => [...places]);
}
/** What was pushed about may lie outside the window. */
async function fitAll(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Fit all' }).click();
  await quiet(page);
}
/** Chooses plates one after another, as a person does who sees that one is chosen before pressing the next. */
async function choosePlates(page: Page, ...names: string[]): Promise<void> {
  await fitAll(page);
  for (const [at, name] of names.entries()) {
    await quiet(page);
    await plate(page, name).click(at === 0 ? {} : { modifiers: ['Control'] });
    await expect(chosen(page)).toContainText(at === 0 ? name : `${at + 1} chosen`);
  }
}
async function sheetOf(page: Page, text: string): Promise<void> {
  await section(page, 'Sheets');
  await page.getByRole('button', { name: 'Begin with a blank sheet' }).click();
  await typed(page, text);
  await page.getByRole('button', { name: 'Close' }).first().click();
  await drawn(page);
  await quiet(page);
}
const star = ['sw-1 srv-1', 'sw-1 srv-2', 'sw-1 srv-3', 'sw-1 ap-1', 'sw-1 rt-1', 'rt-1 fw-1'].join('\n');
const without = (all: Record<string, string>, ...names: string[]): Record<string, string> =>
  Object.fromEntries(Object.entries(all).filter(([name]) => !names.includes(name)));

// First: with projects of one's own, signing in leads to the list of them.
test('a sheet is arranged like another: looked at, taken over, undone', async ({ page, application }) => {
  await signIn(page, application);
  const open = async (name: string): Promise<Record<string, string>> => {
    await doLine(page, name);
    await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
    await drawn(page);
    await expect(plate(page, 'kq-core-1')).toBeVisible();
    await quiet(page);
    return standing(page);
  };
  const other = await open('Kelder Quay · cabling');
  const own = await open('Data room · cabling');
  /** How far one plate stands from another. */
  const apart = (all: Record<string, string>): number[] => {
    const [x, y] = ['kq-core-1', 'kq-fw-1']
      .map((name) => (all[name] ?? '').match(/-?[\d.]+/g) ?? [])
      .map((one) => one.map(Number));
    return [0, 1].map((at) => (x?.[at] ?? 0) - (y?.[at] ?? 0));
  };
  await (await tidy(page)).getByRole('button', { name: 'Like Kelder Quay · cabling' }).click();
  await expect(proposed(page)).toContainText('26 plates arranged like Kelder Quay · cabling');
  await expect(proposed(page)).toContainText('plates move');
  const places = await placesTaken(page, 'kq-core-1');
  await page.keyboard.press('Enter');
  await expect(proposed(page)).toHaveCount(0);
  await saved(page);
  await drawn(page);
  await quiet(page);
  expect(apart(await standing(page))).toEqual(apart(other));
  // Looked at and taken over: it does not stand elsewhere in between.
  expect(await places()).toHaveLength(1);
  await page.keyboard.press('Control+z');
  await drawn(page);
  await expect.poll(() => standing(page)).toEqual(own);
});

test('what somebody else adds and takes away moves nothing that is looked at; it is kept or laid out afresh', async ({
  page,
  browser,
  application,
}) => {
  await beginProject(page, application, 'Mental map');
  await sheetOf(page, star);
  const before = await standing(page);
  expect(Object.keys(before)).toHaveLength(7);

  // Another person, in another window, adds a switch and takes a server away.
  const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await other.goto(application.url);
  await other.getByLabel('E-mail').fill('anna@marrow.example');
  await other.getByLabel('Password').fill(password);
  await other.getByRole('button', { name: 'Sign in' }).click();
  await expect(other.getByLabel('Password')).toHaveCount(0);
  await other.goto(page.url());
  await drawn(other);
  await typed(other, 'sw-1 sw-2');
  await expect(plate(page, 'sw-2')).toBeVisible();
  await drawn(page);
  await quiet(page);
  expect(without(await standing(page), 'sw-2')).toEqual(before);

  await drawn(other);
  await quiet(other);
  await plate(other, 'srv-2').click();
  await expect(chosen(other)).toContainText('srv-2');
  await other.keyboard.press('Delete');
  await other
    .getByRole('dialog')
    .getByRole('button', { name: /^From the network/ })
    .click();
  await expect(plate(page, 'srv-2')).toHaveCount(0);
  await drawn(page);
  await quiet(page);
  expect(without(await standing(page), 'sw-2')).toEqual(without(before, 'srv-2'));
  await other.context().close();

  // Kept, it is so after a reload too; one undo gives it up again.
  const held = await standing(page);
  await (await tidy(page)).getByRole('button', { name: 'Keep it as it stands' }).click();
  await saved(page);
  await page.reload();
  await drawn(page);
  await expect(plate(page, 'sw-2')).toBeVisible();
  expect(await standing(page)).toEqual(held);
});

test('folded and unfolded, left out and put back: all others stay, and one undo takes back all of it', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Folding');
  await sheetOf(page, star);
  const before = await standing(page);
  await choosePlates(page, 'srv-1', 'srv-2', 'srv-3');
  await chosen(page).getByRole('button', { name: 'As one plate' }).click();
  await drawn(page);
  await expect(plate(page, '3 servers')).toBeVisible();
  await quiet(page);
  const folded = await standing(page);
  expect(without(folded, '3 servers')).toEqual(without(before, 'srv-1', 'srv-2', 'srv-3'));
  expect(Object.values(before)).toContain(folded['3 servers']);

  await plate(page, '3 servers').click();
  await chosen(page).getByRole('button', { name: 'One by one' }).click();
  await expect(plate(page, 'srv-3')).toBeVisible();
  await drawn(page);
  await quiet(page);
  expect(await standing(page)).toEqual(before);

  await page.keyboard.press('Control+z');
  await expect(plate(page, '3 servers')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(plate(page, 'srv-3')).toBeVisible();
  await drawn(page);
  await quiet(page);
  expect(await standing(page)).toEqual(before);
});

test('Tidy on what is chosen and on all: looked at, given up by Escape, taken over by Enter, undone', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Tidy');
  await sheetOf(page, star);
  const fresh = await standing(page);
  // Two plates are pushed about with the arrow keys.
  for (const name of ['srv-1', 'ap-1']) {
    await fitAll(page);
    await plate(page, name).click();
    await expect(chosen(page)).toContainText(name);
    for (let step = 0; step < 9; step++) await page.keyboard.press('Shift+ArrowDown');
    await saved(page);
    await drawn(page);
  }
  await quiet(page);
  const pushed = await standing(page);
  expect(pushed['srv-1']).not.toBe(fresh['srv-1']);

  await (await tidy(page)).getByRole('button', { name: 'The whole sheet' }).click();
  await expect(proposed(page)).toContainText(/2 of 7 plates move · crossings \d+ → \d+ · in a window \d+ %/);
  await quiet(page);
  expect(await standing(page)).toEqual(fresh);
  // While it is looked at nothing can be moved, and nothing has been saved.
  await page.keyboard.press('Escape');
  await expect(proposed(page)).toHaveCount(0);
  await quiet(page);
  expect(await standing(page)).toEqual(pushed);

  await (await tidy(page)).getByRole('button', { name: 'The whole sheet' }).click();
  await expect(proposed(page)).toContainText('plates move');
  await page.keyboard.press('Enter');
  await saved(page);
  await drawn(page);
  await expect(proposed(page)).toHaveCount(0);
  await quiet(page);
  expect(await standing(page)).toEqual(fresh);
  await page.keyboard.press('Control+z');
  await expect.poll(() => standing(page)).toEqual(pushed);

  // Of what is chosen: all others stay.
  await choosePlates(page, 'srv-1', 'srv-2', 'ap-1');
  await chosen(page).getByRole('button', { name: 'Tidy' }).click();
  await expect(proposed(page)).toContainText('3 plates laid out afresh');
  await expect(proposed(page)).toContainText('move');
  await quiet(page);
  expect(without(await standing(page), 'srv-1', 'srv-2', 'ap-1')).toEqual(
    without(pushed, 'srv-1', 'srv-2', 'ap-1'),
  );
  await proposed(page)
    .getByRole('button', { name: /^As it was/ })
    .click();
  await expect.poll(() => standing(page)).toEqual(pushed);

  // What is locked is told, and stays.
  await quiet(page);
  await expect(chosen(page)).toContainText('3 chosen');
  await chosen(page).getByRole('button', { name: 'Lock', exact: true }).click();
  await expect(chosen(page).getByRole('button', { name: 'Unlock', exact: true })).toBeVisible();
  await chosen(page).getByRole('button', { name: 'Tidy' }).click();
  await expect(page.getByText('All of these are locked on this sheet. Unlock them first.')).toBeVisible();
});

test('movement is drawn, and not where less of it is asked for', async ({ page, application }) => {
  await beginProject(page, application, 'Movement');
  await sheetOf(page, star);
  const spent = (): Promise<string[]> =>
    page.evaluate(async () => {
      const node = document.querySelector('.react-flow__node-plate[aria-label^="srv-1"]');
      const frame = document.querySelector('[data-sheet]');
      if (node === null || frame === null) return ['none'];
      frame.setAttribute('data-moving', '');
      await new Promise(requestAnimationFrame);
      const said = getComputedStyle(node);
      const result = [said.transitionProperty, said.transitionDuration];
      frame.removeAttribute('data-moving');
      return result;
    });
  expect(await spent()).toEqual(['transform', '0.14s']);
  await page.emulateMedia({ reducedMotion: 'reduce' });
  const still = await spent();
  expect(still.join()).not.toContain('0.14s');
});
