/** The review as a person goes through it: mended one by one and all alike, waived, graded, from an empty project. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import {
  type Application,
  another,
  beginProject,
  bringIn,
  expect,
  saved,
  section,
  signIn,
  test,
} from './application.ts';

test.use({ file: 'review' });

const ports = [1, 2, 3, 4, 5, 6].map((at) => ({ name: `gi1/${at}`, connector: 'RJ45' }));
/** A switch with cables that end nowhere, one at a server without an address of its own. */
const file = {
  format: 'visograph-exchange',
  version: 1,
  places: [{ path: 'Kelder Quay', kind: 'site', code: 'KQ' }],
  devices: [{ name: 'kq-acc-1', role: 'SW', place: 'Kelder Quay', ports }],
  cables: [1, 2, 3, 4].map((at) => ({ label: `KQ-0000${at}`, a: `kq-acc-1:gi1/${at}` })),
};

const row = (page: Page, name: RegExp) => page.getByRole('option', { name });
/** Chooses a finding of the list, wherever it is scrolled to, and waits until it is shown. */
async function choose(page: Page, name: RegExp): Promise<void> {
  const list = page.getByRole('listbox', { name: 'Findings' });
  await list.evaluate((box) => box.scrollTo(0, 0));
  await list.hover();
  await expect(async () => {
    if (!(await row(page, name).first().isVisible())) await page.mouse.wheel(0, 200);
    await row(page, name).first().click({ timeout: 2_000 });
  }).toPass();
  await expect(row(page, name).first()).toHaveAttribute('aria-selected', 'true');
}

async function open(page: Page, { url }: Application): Promise<string> {
  const project = /\/p\/([0-9a-f-]{36})/.exec(page.url())?.[1] ?? '';
  const taken = await page.request.post(`${url}/api/v1/projects/${project}/exchange`, {
    headers: { 'Content-Type': 'text/plain', Prefer: 'wait=60' },
    data: JSON.stringify(file),
  });
  expect(taken.ok()).toBe(true);
  await section(page, 'Review');
  return project;
}

test('the demo: by place and by thing, a rack drawn, what is meant; nothing stands in the way of a screen reader', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Review');
  await expect(page.getByText('12 to mend · 2 meant')).toBeVisible();
  await choose(page, /rack BR-A1/);
  await expect(page.getByRole('img', { name: 'Elevation of BR-A1' })).toContainText('br-srv-1');
  await page.getByRole('button', { name: /Group by/ }).click();
  await page.getByRole('option', { name: 'Place' }).click();
  await expect(page.getByTitle(/Comms room/).first()).toBeVisible();
  const axe = await new AxeBuilder({ page }).analyze();
  expect(axe.violations.filter((one) => one.impact === 'serious' || one.impact === 'critical')).toEqual([]);
  // From the tree of places to the findings of one.
  await section(page, 'Places');
  await page.getByRole('button', { name: 'Review Ashholm: 2 to mend' }).click();
  await expect(page.getByText('2 to mend · 1 meant')).toBeVisible();
});

/** The deliberate faults of the demo: the finding, and the way that sets it right. */
const faults: readonly (readonly [finding: RegExp, mend: RegExp])[] = [
  [/cable AH-00016/, /^Plug its B end into ah-edge-1:ge0\/4/],
  [/cable AH-00017/, /^Label AH-00018/],
  [/VLAN 40/, /^Carry VLAN 40 at/],
  [/is made for multimode; BR-00013/, /^Put Lumenroot LR-10 into br-acc-1/],
  [/device kq-acc-5/, /^Put Norvane AX-2448P in its place/],
  [/rack BR-A1/, /^Have feed A of BR-A1 rated 16 A/],
  [/is given 2 times/, /10\.40\.40\.2\b/],
  [/10\.41\.3\.64\/26/, /^Move 10\.41\.3\.64\/26/],
  [/kq-cam-14/, /^Give kq-cam-14/],
  [/booking\/data-n1b is tied to no route table/, /^Tie data-n1b to closed/],
  [/203\.0\.113\.40 is kept/, /^Give 203\.0\.113\.40 back/],
];

test('each fault of the demo is mended by a press and is back with one undo', async ({
  page,
  application,
}) => {
  // Eleven of them, one after the other.
  test.slow();
  await signIn(page, application);
  await section(page, 'Review');
  const count = page.getByText(/^\d+ to mend · 2 meant$/);
  await expect(count).toHaveText('12 to mend · 2 meant');
  for (const [finding, mend] of faults)
    await test.step(String(mend), async () => {
      await choose(page, finding);
      const way = page.getByRole('button', { name: mend }).first();
      await way.click();
      await expect(count).not.toHaveText('12 to mend · 2 meant');
      await expect(count).toHaveText(/^1[01] to mend/);
      await saved(page);
      await page.keyboard.press('Control+z');
      await expect(count).toHaveText('12 to mend · 2 meant');
      await saved(page);
    });
});

test('from an empty project: clean, then faults: all alike mended in one step, undone, waived with a reason, waiver ended', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Harbour');
  await section(page, 'Review');
  await expect(page.getByRole('heading', { name: /^Clean on \d+ \w+ \d{4}/ })).toBeVisible();
  await expect(page.getByText(/rules found nothing to mend/)).toBeVisible();
  await open(page, application);
  await expect(page.getByText('4 to mend')).toBeVisible();
  // All alike, in one step.
  await choose(page, /cable KQ-00002/);
  await expect(page.getByText(/Imported 1 devices and 4 cables/)).toBeVisible();
  await page.getByRole('button', { name: 'Mend all 4 alike …' }).click();
  await page.getByRole('button', { name: 'Show the changes (4)' }).click();
  await expect(page.getByRole('row', { name: /cable KQ-00004.*deleted/ })).toBeVisible();
  await page.getByRole('button', { name: 'Remove the cable: all 4' }).click();
  await expect(page.getByRole('heading', { name: /^Clean on/ })).toBeVisible();
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('4 to mend')).toBeVisible();
  // Without a reason nothing is waived, and it says so at the field.
  await choose(page, /cable KQ-00003/);
  await expect(page.getByRole('article', { name: /cable KQ-00003/ })).toBeVisible();
  await page.getByRole('button', { name: 'It is meant to be so …' }).click();
  await page.getByRole('button', { name: 'Waive it' }).click();
  await expect(page.getByText('Reason is missing: say why it is meant.')).toBeVisible();
  await page.keyboard.type('kept for the pier');
  await page.keyboard.press('Enter');
  await expect(page.getByText('3 to mend · 1 meant')).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByText('3 to mend · 1 meant')).toBeVisible();
  await page.getByRole('button', { name: 'Meant', exact: true }).click();
  await expect(page.getByText(/kept for the pier \(Anna Kerr, \d{4}-\d{2}-\d{2}\)/)).toBeVisible();
  await page.getByRole('button', { name: 'End the waiver' }).click();
  await expect(page.getByText('Nothing is waived')).toBeVisible();
  await expect(page.getByText('4 to mend')).toBeVisible();
});

test('by keyboard alone: through the list, mended, waived, taken back', async ({ page, application }) => {
  await beginProject(page, application, 'Keys');
  await open(page, application);
  await row(page, /cable KQ-00003/).focus();
  await page.keyboard.press('ArrowDown');
  await expect(row(page, /cable KQ-00004/)).toHaveAttribute('aria-selected', 'true');
  await expect(page.getByRole('article', { name: /cable KQ-00004/ })).toBeVisible();
  await page.getByRole('button', { name: 'Remove KQ-00004' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('3 to mend')).toBeVisible();
  await expect(page.getByRole('article', { name: /cable KQ-00003/ })).toBeVisible();
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('4 to mend')).toBeVisible();
});

test('rules: one is switched off by the owner, an editor sees it and cannot; a fact that changes ends its waiver', async ({
  page,
  application,
  browser,
}) => {
  await beginProject(page, application, 'Rules');
  const project = await open(page, application);
  const ben = await another(browser, application, 'ben@marrow.example');
  await bringIn(page, application, project, 'ben@marrow.example');
  await ben.goto(`${application.url}/p/${project}/review`);
  await expect(ben.getByText('4 to mend')).toBeVisible();
  await page.getByRole('button', { name: 'Rules', exact: true }).click();
  await page.getByRole('button', { name: /How bad: Cable with an end left open/ }).click();
  await page.getByRole('option', { name: 'Off' }).click();
  await expect(page.getByText('nothing to mend')).toBeVisible();
  await expect(ben.getByRole('heading', { name: /^Clean on/ })).toBeVisible();
  await ben.getByRole('button', { name: 'Rules', exact: true }).click();
  await expect(ben.getByText('An owner of the project decides how bad')).toBeVisible();
  await expect(ben.getByRole('button', { name: /How bad/ })).toHaveCount(0);
  await saved(page);
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'To mend' }).click();
  await choose(page, /cable KQ-00001/);
  await page.getByRole('button', { name: 'It is meant to be so …' }).click();
  await page.keyboard.type('for the ferry');
  await page.keyboard.press('Enter');
  await expect(page.getByText('3 to mend · 1 meant')).toBeVisible();
  await saved(page);
  // Somebody plugs it in: there is nothing to be meant any more.
  const answer = await page.request.get(`${application.url}/api/v1/projects/${project}/network`);
  const { rows } = (await answer.json()) as {
    rows: { cable: { id: string; label: string }[]; port: { id: string; name: string }[] };
  };
  const cable = rows.cable.find(({ label }) => label === 'KQ-00001');
  const port = rows.port.find(({ name }) => name === 'gi1/6');
  const plugged = await ben.request.post(`${application.url}/api/v1/projects/${project}/changes`, {
    data: {
      id: '01a00000-0000-7000-8000-00000000abcd',
      sentence: 'Plugged in KQ-00001',
      changes: [
        {
          op: 'update',
          kind: 'cable',
          id: cable?.id,
          before: { bPortId: null },
          after: { bPortId: port?.id },
        },
      ],
    },
  });
  expect(plugged.ok()).toBe(true);
  await page.getByRole('button', { name: 'Meant', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Waivers that have ended' })).toContainText(
    'cable KQ-00001: for the ferry',
  );
  await page.getByRole('button', { name: 'Clear away' }).click();
  await expect(page.getByText('Nothing is waived')).toBeVisible();
});

test('completeness: the usual facts are asked for, a serial is typed where it is missing and filled down, the row stays', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Complete');
  await open(page, application);
  await page.getByRole('button', { name: 'Complete', exact: true }).click();
  await expect(page.getByText('Nothing is asked for yet')).toBeVisible();
  await page.getByRole('button', { name: 'Ask for the usual facts' }).click();
  const grid = page.getByRole('grid', { name: 'What is missing of devices' });
  const share = page.getByText(/^\d+ % complete$/);
  await expect(share).toBeVisible();
  const before = await share.textContent();
  const serial = grid.getByRole('gridcell', { name: 'missing' }).nth(1);
  await serial.click();
  await page.keyboard.type('NV31-0028306');
  await page.keyboard.press('Enter');
  await expect(grid.getByRole('gridcell', { name: 'NV31-0028306' })).toBeVisible();
  await expect(share).not.toHaveText(before ?? '');
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(share).toHaveText(before ?? '');
  await page.getByRole('button', { name: 'What must be there …' }).click();
  const panel = page.getByRole('dialog', { name: 'What must be documented' });
  await panel.getByRole('button', { name: 'Ask no more for Serial of all active switches' }).click();
  await expect(panel.getByText('Serial of all active switches')).toHaveCount(0);
  await panel.getByRole('button', { name: 'Ask for it' }).click();
  await expect(panel.getByText('Serial of all devices')).toBeVisible();
  await panel.getByRole('button', { name: 'Ask for it' }).click();
  await expect(panel.getByRole('alert')).toBeVisible();
});
