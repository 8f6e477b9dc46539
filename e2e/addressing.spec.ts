/** The logical network as a person lays it: VLANs on ports, the address plan, what does not add up. */
import type { Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
import { another, card, doLine, expect, record, saved, signIn, test } from './application.ts';

test.use({ file: 'addressing' });
// Later steps build on what earlier ones made.
test.describe.configure({ mode: 'serial' });

const revision = (page: Page) => page.getByRole('button', { name: /^Saved r\d+/ });
const open = async (page: Page, section: string): Promise<void> => {
  await page.getByRole('navigation', { name: 'Sections' }).getByRole('link', { name: section }).click();
  await expect(page.getByRole('heading', { name: section, level: 1 })).toBeVisible();
};
/** Does something, and waits until what it changed is saved. */
async function change(page: Page, act: () => Promise<void>): Promise<void> {
  const before = (await revision(page).textContent()) ?? '';
  await act();
  await expect(revision(page)).not.toHaveText(before);
}

test('VLAN 40 stops at one uplink; carrying it at the other end mends that, and undo brings it back', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await open(page, 'VLANs');
  await page.getByRole('searchbox', { name: 'Filter rows' }).fill('Cameras');
  await page.getByRole('gridcell', { name: 'Cameras' }).first().click();
  await expect(record(page).getByRole('heading', { name: 'VLAN 40 Cameras' })).toBeVisible();
  const stop = card(page, 'Where it stops').getByRole('button');
  await expect(stop).toHaveText('kq-acc-3 te1/50 carries VLAN 40, kq-core te1/3 does not');
  await expect(page.getByText(/12 findings in the project/)).toBeVisible();
  await stop.click();
  await expect(record(page).getByRole('heading', { name: 'kq-core-2 te1/3' })).toBeVisible();
  const tagged = record(page).getByRole('textbox', { name: 'Tagged VLANs' });
  await expect(tagged).toHaveValue('10,20,30,50,60,70');
  await tagged.fill('10,20,30,40,999');
  await record(page).getByRole('button', { name: 'Keep' }).click();
  await expect(record(page).getByRole('alert')).toContainText(
    'hold 999, which goes untagged on the same port',
  );
  await tagged.fill('10-5000');
  await record(page).getByRole('button', { name: 'Keep' }).click();
  await expect(
    record(page).getByText('Tagged VLANs: 5000 is not a VLAN number: they go from 1 to 4094.'),
  ).toBeVisible();
  await tagged.fill('10,20,30,40,50,60,70');
  await change(page, () => record(page).getByRole('button', { name: 'Keep' }).click());
  await expect(page.getByText(/11 findings in the project/)).toBeVisible();
  await change(page, () => page.getByRole('button', { name: 'Undo' }).click());
  await expect(page.getByText(/12 findings in the project/)).toBeVisible();
});

test('a VLAN is added with the next number; a number that cannot be is told', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await open(page, 'VLANs');
  await page.getByRole('button', { name: 'Add VLAN' }).click();
  const form = page.getByRole('dialog', { name: 'Add VLAN' });
  await expect(form.getByRole('textbox', { name: 'Number' })).toHaveValue('80');
  await form.getByRole('textbox', { name: 'Number' }).fill('4095');
  await form.getByRole('textbox', { name: 'Name', exact: true }).fill('Workshop');
  await page.keyboard.press('Enter');
  await expect(form.getByText('Number is above 4094: 4095 is reserved (IEEE 802.1Q).')).toBeVisible();
  await form.getByRole('textbox', { name: 'Number' }).fill('20');
  await page.keyboard.press('Enter');
  await expect(form.getByText(/There is already a VLAN with the number 20/)).toBeVisible();
  await form.getByRole('textbox', { name: 'Number' }).fill('80');
  await change(page, () => page.keyboard.press('Enter'));
  await expect(record(page).getByRole('heading', { name: 'VLAN 80 Workshop' })).toBeVisible();
  await expect(card(page, 'Reach')).toContainText('No port carries it yet.');
});

test('a prefix is taken from free space of the ladder, split and joined, and seen in another window', async ({
  page,
  browser,
  application,
}) => {
  await signIn(page, application);
  await open(page, 'Addresses');
  const ben = await another(browser, application, 'ben@marrow.example');
  await open(ben, 'Addresses');
  const ladder = page.getByRole('region', { name: 'Ladder' });
  await ladder.getByRole('button', { name: /^10\.40\.0\.0\/16, pool/ }).dblclick();
  await ladder.getByRole('button', { name: /^10\.40\.0\.0\/19, pool/ }).click();
  await page.keyboard.press('Enter');
  await ladder.getByRole('button', { name: '10.40.12.0/22 is free' }).press('Enter');
  await page.getByRole('button', { name: 'Take 10.40.12.0/23' }).click();
  const form = page.getByRole('dialog', { name: 'Add prefix' });
  await expect(form.getByRole('textbox', { name: 'Prefix' })).toHaveValue('10.40.12.0/23');
  await form.getByRole('textbox', { name: 'Name' }).fill('Workshop');
  await change(page, () => form.getByRole('button', { name: 'Add prefix' }).click());
  await expect(record(page).getByRole('heading', { name: '10.40.12.0/23' })).toBeVisible();
  await expect(record(page)).toContainText('10.40.12.2');
  await expect(
    ben.getByRole('grid', { name: 'Prefixes' }).getByRole('gridcell', { name: 'Workshop' }),
  ).toBeVisible();
  await change(page, () => record(page).getByRole('button', { name: 'Split' }).click());
  await expect(record(page).getByRole('heading', { name: '10.40.12.0/24' })).toBeVisible();
  await change(page, () => record(page).getByRole('button', { name: 'Join' }).click());
  await expect(record(page).getByRole('heading', { name: '10.40.12.0/23' })).toBeVisible();
  const axe = await new AxeBuilder({ page }).analyze();
  expect(axe.violations.filter((one) => one.impact === 'serious' || one.impact === 'critical')).toEqual([]);
  await ben.close();
});

test('a size is answered with the first free prefix of the pool; what was meant is told', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await open(page, 'Addresses');
  await page.getByRole('searchbox', { name: 'Filter rows' }).fill('10.40.0.0/19');
  await page.getByRole('gridcell', { name: '10.40.0.0/19' }).click();
  await page.getByRole('button', { name: 'Add prefix' }).click();
  const form = page.getByRole('dialog', { name: 'Add prefix' });
  const prefix = form.getByRole('textbox', { name: 'Prefix or size' });
  await prefix.fill('500 hosts');
  const spots = form.getByRole('radiogroup', { name: 'Where it can stand' });
  await expect(spots.getByRole('radio').first()).toBeChecked();
  await expect(spots).toContainText(
    '10.40.6.0/23first free, 510 hosts, between free space and Operations, Kelder Quay',
  );
  await prefix.fill('/26 x 3');
  await expect(form.getByRole('status')).toContainText('10.40.1.0/26 to 10.40.1.128/26');
  await form.getByText('Together under one route').click();
  await expect(form.getByRole('status')).toContainText('one route 10.40.1.0/24');
  await prefix.fill('10.40.9.0/24');
  await form.getByRole('button', { name: 'Add prefix' }).click();
  await expect(form.getByText('10.40.9.0/24 lies inside 10.40.8.0/22')).toBeVisible();
  await prefix.fill('10.40.14.1/24');
  await form.getByRole('button', { name: 'Add prefix' }).click();
  await expect(form.getByText('is an address inside 10.40.14.0/24')).toBeVisible();
});

test('an address typed into the line leads to the port that has it', async ({ page, application }) => {
  await signIn(page, application);
  await doLine(page, '10.40.8.12');
  await expect(record(page).getByRole('heading', { name: 'kq-srv-2 bond0' })).toBeVisible();
  await expect(card(page, 'Addresses')).toContainText('10.40.8.12/22');
  await saved(page);
});
