/** A plan's line of history in the browser: worked in by two, apart from as built, told where it is contradicted. */
import { doLine, expect, saved, signIn, test } from './application.ts';
import type { Page } from '@playwright/test';

test.use({ file: 'plans' });

const serial = async (page: Page, device: string, to: string): Promise<void> => {
  const record = page.getByRole('complementary', { name: 'Record' });
  await doLine(page, device);
  await expect(record.getByRole('heading', { name: device, level: 2 })).toBeVisible();
  const field = record.getByRole('textbox', { name: 'Serial' });
  await field.fill(to);
  await field.press('Enter');
  await field.blur();
  await saved(page);
};
const serialOf = async (page: Page, device: string): Promise<string> => {
  await doLine(page, device);
  const record = page.getByRole('complementary', { name: 'Record' });
  await expect(record.getByRole('heading', { name: device, level: 2 })).toBeVisible();
  return record.getByRole('textbox', { name: 'Serial' }).inputValue();
};

test('a plan is worked in by two windows, as built goes on beside it, and each tells of the other', async ({
  page,
  application,
  context,
}) => {
  // Three windows of one browser: on a busy machine they wait for each other.
  test.slow();
  await signIn(page, application);
  const project = /\/p\/([0-9a-f-]+)/.exec(page.url())?.[1] ?? '';
  const api = `${new URL(page.url()).origin}/api/v1/projects/${project}/plans`;
  const made = await page.request.post(api, {
    data: { name: 'A second link for Otterslip before the winter timetable' },
  });
  expect(made.status()).toBe(200);
  const { id } = (await made.json()) as { id: string };
  const was = await serialOf(page, 'kq-core-1');

  // One window in the plan, one as built.
  const planned = await context.newPage();
  await planned.goto(`${new URL(page.url()).origin}/p/${project}/places?plan=${id}`);
  const banner = planned.getByRole('status', { name: 'Plan' });
  await expect(banner).toContainText('Plan: A second link for Otterslip');
  await serial(planned, 'kq-core-1', 'PLAN-1');
  expect(await serialOf(page, 'kq-core-1')).toBe(was);

  // A second window in the plan sees it at once, and goes on with it wherever it goes.
  const other = await context.newPage();
  await other.goto(`${new URL(page.url()).origin}/p/${project}/places?plan=${id}`);
  expect(await serialOf(other, 'kq-core-1')).toBe('PLAN-1');
  await serial(other, 'kq-core-2', 'PLAN-2');
  expect(await serialOf(planned, 'kq-core-2')).toBe('PLAN-2');
  await other.getByRole('navigation', { name: 'Sections' }).getByRole('link', { name: 'Cables' }).click();
  await expect(other).toHaveURL(new RegExp(`plan=${id}`));

  // As built changes the same field: the plan is told, and keeps what it says.
  await serial(page, 'kq-core-1', 'REAL-1');
  await expect(banner).toContainText('1 contradicted');
  expect(await serialOf(planned, 'kq-core-1')).toBe('PLAN-1');

  // Undo takes back the own latest step of the plan, not of as built.
  await other.keyboard.press('Control+z');
  await expect(other.getByText(/^Undid: /)).toBeVisible();
  expect(await serialOf(planned, 'kq-core-2')).not.toBe('PLAN-2');
  expect(await serialOf(page, 'kq-core-1')).toBe('REAL-1');

  // Its history is its own; a reload stays in it; back to as built leaves it.
  await planned.getByRole('button', { name: /: history$/ }).click();
  await expect(planned.getByRole('list', { name: 'Steps' })).toContainText('Began the plan A second link');
  await planned.reload();
  await expect(banner).toBeVisible();
  await banner.getByRole('button', { name: 'Back to as built' }).click();
  await expect(banner).toHaveCount(0);
  expect(await serialOf(planned, 'kq-core-1')).toBe('REAL-1');

  // Thrown away: the window that is still in it says so, and leads back.
  await page.request.put(`${api}/${id}`, { data: { thrownAway: true } });
  await other.reload();
  await expect(other.getByText(/threw the plan “A second link .*” away on/).first()).toBeVisible();
  await other.getByRole('button', { name: 'Back to as built' }).click();
  expect(await serialOf(other, 'kq-core-1')).toBe('REAL-1');
});
