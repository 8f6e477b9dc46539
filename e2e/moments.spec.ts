/** Earlier moments of a project: shown on every screen, read only, and left again. */
import { doLine, expect, saved, signIn, test } from './application.ts';

test.use({ file: 'moments' });

test('the history shows the project as it was: on every screen, read only, and back', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  const record = page.getByRole('complementary', { name: 'Record' });
  await doLine(page, 'kq-fw-2');
  await record.getByRole('button', { name: 'Delete …' }).click();
  await record.getByRole('button', { name: 'Delete kq-fw-2' }).click();
  await saved(page);
  const counts = page.getByText(/^[\d,]+ devices · /);
  // Without the findings, which follow a moment later.
  const counted = async (): Promise<string> =>
    ((await counts.textContent()) ?? '').split(' · ').slice(0, 3).join(' · ');
  await expect.poll(counted).toMatch(/^29 devices/);
  const without = await counted();

  await page.getByRole('button', { name: /: history$/ }).click();
  const steps = page.getByRole('list', { name: 'Steps' });
  await expect(steps.getByText(/^Deleted kq-fw-2 with/)).toBeVisible();
  await steps.getByRole('button', { name: 'Show as it was at r1' }).click();
  const past = page.getByRole('status').filter({ hasText: 'At r1, read only' });
  await expect(past).toBeVisible();
  await expect.poll(counted).toMatch(/^30 devices/);
  const whole = await counted();
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toHaveCount(0);

  // It holds wherever one goes, over a reload too, and nothing can be changed there.
  await page.getByRole('button', { name: 'Back to the record' }).click();
  const rail = page.getByRole('navigation', { name: 'Sections' });
  for (const link of await rail.getByRole('link').all()) {
    await link.click();
    await expect(link).toHaveAttribute('aria-current', 'page');
    await expect(past).toBeVisible();
  }
  await doLine(page, 'kq-fw-2');
  await expect(record.getByRole('heading', { name: 'kq-fw-2', level: 2 })).toBeVisible();
  await expect(record.getByRole('button', { name: 'Delete …' })).toHaveCount(0);
  await page.reload();
  await expect(past).toBeVisible();
  await expect(record.getByRole('heading', { name: 'kq-fw-2', level: 2 })).toBeVisible();
  await page.keyboard.press('Control+z');
  expect(await counted()).toBe(whole);

  // So does what is built today alone.
  await page.getByRole('checkbox', { name: /^Built today/ }).press('Space');
  await rail.getByRole('link', { name: 'Cables' }).click();
  await expect(page).toHaveURL(/at=1&built=1/);
  await page.getByRole('checkbox', { name: /^Built today/ }).press('Space');
  await expect(page).not.toHaveURL(/built/);

  await past.getByRole('button', { name: 'Back to now' }).click();
  await expect(past).toHaveCount(0);
  await expect.poll(counted).toBe(without);
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeVisible();

  // A revision that is not there is told, and there is a way back.
  await page.goto(`${page.url()}${page.url().includes('?') ? '&' : '?'}at=77`);
  const wrong = page
    .getByRole('status')
    .filter({ hasText: 'There is no revision 77: the history goes from 1 to' });
  await expect(wrong).toBeVisible();
  await wrong.getByRole('button', { name: 'Back to now' }).click();
  await expect(wrong).toHaveCount(0);
});
