/** Names in other scripts: drawn by shipped fonts on the screen, and what no font draws is named before printing. */
import { doLine, expect, saved, signIn, test } from './application.ts';

test.use({ file: 'scripts' });

test('a name in Greek is drawn by a shipped font; a sign without a font is named in the print panel', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await doLine(page, 'Data room · cabling');
  await expect(page.getByRole('heading', { name: 'Data room · cabling', level: 1 })).toBeVisible();
  await expect(page.getByText('Drawing …')).toHaveCount(0);
  const loaded = (): Promise<string[]> =>
    page.evaluate(() =>
      [...document.fonts].filter((face) => face.status === 'loaded').map((face) => face.unicodeRange),
    );
  // Nothing but the house is fetched until it is needed.
  expect((await loaded()).filter((range) => /U\+5[0-9A-F]{2}/i.test(range))).toEqual([]);
  const rename = async (from: string, to: string): Promise<void> => {
    await doLine(page, from);
    const record = page.getByRole('complementary', { name: 'Record' });
    await expect(record.getByRole('heading', { name: from, level: 2 })).toBeVisible();
    const name = record.getByRole('textbox', { name: 'Name', exact: true });
    await name.fill(to);
    await name.press('Enter');
    await saved(page);
    await name.blur();
  };
  await rename('kq-core-1', 'Αθήνα-1');
  await doLine(page, 'Data room · cabling');
  await expect(
    page.locator('.react-flow__node-plate').and(page.getByRole('button', { name: /^Αθήνα-1/ })),
  ).toBeVisible();
  await expect.poll(async () => (await loaded()).some((range) => /U\+A0-58F/i.test(range))).toBe(true);
  const print = page.getByRole('button', { name: 'Print', exact: true });
  const panel = page.getByRole('dialog', { name: 'Print and save' });
  await print.click();
  await expect(panel).toBeVisible();
  await expect(panel.getByRole('status', { name: 'Would print as boxes' })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await rename('Αθήνα-1', 'lamp 💡');
  await doLine(page, 'Data room · cabling');
  await print.click();
  await expect(panel.getByRole('status', { name: 'Would print as boxes' })).toContainText(
    '“lamp 💡”: 💡 U+1F4A1',
  );
});
