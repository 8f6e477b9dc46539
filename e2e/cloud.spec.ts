/** Clouds: the network of the demo, its fault mended; and one designed from nothing, filled, peered and undone. */
import type { Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
import { beginProject, expect, plate, quiet, record, saved, section, signIn, test } from './application.ts';
import { Hand } from './hand.ts';

test.use({ file: 'cloud' });

const view = (page: Page, name: string): Promise<void> =>
  page.getByRole('group', { name: 'What is listed' }).getByRole('button', { name, exact: true }).click();
const side = (page: Page) => page.getByRole('navigation', { name: 'Accounts, regions and networks' });
const choose = async (page: Page, label: string, option: string): Promise<void> => {
  await page.getByRole('button', { name: new RegExp(`${label}$`) }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
};

test('the booking network of the demo: fault 9 is seen, found, mended by a press and undone', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Cloud');
  await side(page).getByRole('button', { name: 'booking', exact: true }).click();
  await expect(page.getByRole('group', { name: 'data-n1b, unknown' })).toContainText('no route table');
  await page
    .getByRole('group', { name: 'service-n1a, outward only' })
    .getByRole('button', { name: /cl-web-1/ })
    .click();
  await expect(record(page).getByRole('heading', { name: 'cl-web-1' })).toBeVisible();
  const seen = await new AxeBuilder({ page }).analyze();
  expect(seen.violations.map(({ id, nodes }) => [id, nodes.map(({ html }) => html)])).toEqual([]);
  await section(page, 'Review');
  await page
    .getByText(/booking\/data-n1b is tied to no route table/)
    .first()
    .click();
  await page.getByRole('button', { name: 'Tie data-n1b to closed' }).click();
  await saved(page);
  await section(page, 'Cloud');
  await side(page).getByRole('button', { name: 'booking', exact: true }).click();
  await expect(page.getByRole('group', { name: 'data-n1b, closed' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('group', { name: 'data-n1b, unknown' })).toBeVisible();
  await view(page, 'Routes');
  await expect(page.getByRole('grid', { name: 'Routes' }).getByText('cl-vpn-1').first()).toBeVisible();
  await view(page, 'Cost');
  await expect(page.getByText('1016.59 EUR a month')).toBeVisible();
});

test('lines pulled on the sheet: a subnet sent out, networks told apart, a tunnel asked about; by key as well', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Cloud');
  await side(page).getByRole('button', { name: 'booking', exact: true }).click();
  await page.getByRole('button', { name: 'Draw', exact: true }).click();
  await expect(plate(page, 'cl-nat-2')).toBeVisible();
  await page.keyboard.press('Escape');
  await quiet(page);
  const hand = new Hand(page);
  // Fault 9: the bar of the subnet without a table, pulled to the gateway of its zone.
  await hand.pull('10.64.33.0/24', 'cl-nat-2');
  await expect(page.getByRole('group', { name: 'data-n1b · outward only' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('group', { name: 'data-n1b · unknown' })).toBeVisible();
  await quiet(page);
  // What rules say is not drawn by hand, and it is said why.
  await hand.pull('cl-web-1', 'cl-db-1');
  await expect(page.getByText(/what they may ask of each other is said by rules/)).toBeVisible();
  await hand.pull('cl-vpn-1', 'kq-fw-1');
  const join = page.getByRole('dialog', { name: 'Join booking' });
  await expect(join.getByRole('button', { name: /kq-fw-1.*Tunnel 1 ends on/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(join).toBeHidden();
  // By keys: the plate is chosen, C asks what it is to be joined to.
  await plate(page, 'cl-web-1').press('Enter');
  await page.keyboard.press('c');
  const picker = page.getByRole('combobox', { name: 'What stands at the other end' });
  await picker.fill('10.64.20');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await saved(page);
  await expect(record(page).getByRole('button', { name: /service-n1b.*Subnet of eth0/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(record(page).getByRole('button', { name: /service-n1a.*Subnet of eth0/ })).toBeVisible();
  await saved(page);
});

test('the sheet of the demo: drawn with its premises, the base holds still, an instance moves, arrows turn, a fact is hidden', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Cloud');
  await side(page).getByRole('button', { name: 'booking', exact: true }).click();
  await page.getByRole('button', { name: 'Draw', exact: true }).click();
  const plate = (name: string) => page.getByRole('button', { name: new RegExp(`^${name},`) });
  await expect(plate('kq-fw-1')).toBeVisible();
  await expect(page.getByRole('group', { name: 'data-n1b · unknown' })).toBeVisible();
  const boxOf = async (name: string) => {
    const box = await plate(name).boundingBox();
    if (box === null) throw new Error(`${name} is not drawn`);
    return box;
  };
  const dragged = async (name: string, x: number, y: number): Promise<void> => {
    const at = await boxOf(name);
    await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
    await page.mouse.down();
    await page.mouse.move(at.x + at.width / 2 + x, at.y + at.height / 2 + y, { steps: 6 });
    await page.mouse.up();
  };
  // A drag on what is locked moves the view: measured against another plate it stands where it stood.
  const apart = async (): Promise<number> => {
    const [wall, gateway] = [await boxOf('kq-fw-1'), await boxOf('cl-vpn-1')];
    return Math.round(wall.x - gateway.x);
  };
  const before = await apart();
  await dragged('cl-vpn-1', -60, 40);
  expect(await apart()).toBe(before);
  const [box, web] = [await boxOf('cl-door-1'), await boxOf('cl-web-1')];
  await dragged('cl-web-1', 24, 12);
  await saved(page);
  await expect
    .poll(async () => Math.round((await boxOf('cl-web-1')).x - (await boxOf('cl-door-1')).x))
    .toBeGreaterThan(Math.round(web.x - box.x) + 8);
  expect(await apart()).toBe(before);
  await page.getByRole('button', { name: /Arrows/ }).click();
  await page.getByRole('option', { name: 'Who may call whom' }).click();
  await expect(page.getByText('may call').first()).toBeVisible();
  await expect(page.getByText('is sent to')).toHaveCount(0);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('is sent to').first()).toBeVisible();
  await page.getByRole('button', { name: /^Show/ }).click();
  await page
    .getByRole('radiogroup', { name: 'Subnets', exact: true })
    .getByText('hidden', { exact: true })
    .click();
  await expect(plate('10\\.64\\.32\\.0/24')).toHaveCount(0);
  await saved(page);
  await page.reload();
  await expect(plate('cl-web-1')).toBeVisible();
  await expect(plate('10\\.64\\.32\\.0/24')).toHaveCount(0);
});

test('what a thing of a cloud is besides, in its record: moved, tied, given an address, all undone', async ({
  page,
  application,
}) => {
  await signIn(page, application);
  await section(page, 'Cloud');
  await side(page).getByRole('button', { name: 'booking', exact: true }).click();
  await page
    .getByRole('group', { name: 'service-n1a, outward only' })
    .getByRole('button', { name: /cl-web-1/ })
    .click();
  const card = record(page);
  await expect(card.getByText(/seen as 203\.0\.113\.30/)).toBeVisible();
  await expect(card.getByText(/https by everybody over cl-lb-1/).first()).toBeVisible();
  await card.getByText('front', { exact: true }).click();
  await saved(page);
  await card.getByRole('textbox', { name: 'Public address' }).fill('10.0.0.9');
  await card.getByRole('button', { name: 'Give', exact: true }).click();
  await expect(card.getByText(/10\.0\.0\.9 is private/)).toBeVisible();
  await card.getByRole('textbox', { name: 'Public address' }).fill('203.0.113.77');
  await card.getByRole('button', { name: 'Give', exact: true }).click();
  await saved(page);
  await expect(card.getByRole('button', { name: 'Take 203.0.113.77 off' })).toBeVisible();
  await view(page, 'Addresses');
  await expect(page.getByRole('grid', { name: 'Public addresses' })).toContainText('203.0.113.77');
  await view(page, 'Reach');
  await expect(page.getByRole('grid', { name: 'Called from the internet' })).toContainText('cl-lb-1');
  await page.getByRole('button', { name: 'If a zone is lost' }).click();
  await expect(page.getByRole('grid', { name: 'Lost zones' })).toContainText('done by another elsewhere');
  for (const _ of [1, 2]) {
    await page.keyboard.press('Control+z');
    await saved(page);
  }
  await expect(card.getByRole('button', { name: 'Take 203.0.113.77 off' })).toHaveCount(0);
  await expect(card.getByRole('checkbox', { name: 'front' })).not.toBeChecked();
});

test('the account as it is: read with what drifted, half of it taken over, undone; slow it is stopped, nonsense is told', async ({
  page,
  application,
}) => {
  const account = await application.account();
  await signIn(page, application);
  await section(page, 'Cloud');
  await side(page).getByRole('button', { name: 'Read the account' }).click();
  const panel = page.getByRole('dialog', { name: 'Read the account msf-booking' });
  await panel.getByRole('textbox', { name: 'Address' }).fill('http://127.0.0.1:9');
  await panel.getByRole('textbox', { name: 'Client' }).fill('visograph');
  await panel.getByLabel('Secret').fill('not this');
  await page.keyboard.press('Enter');
  await expect(panel.getByText('This server does not read from http://127.0.0.1:9.')).toBeVisible();
  await panel.getByRole('textbox', { name: 'Address' }).fill(account.url);
  await panel.getByRole('button', { name: 'Keep' }).click();
  await panel.getByRole('button', { name: 'Read it', exact: true }).click();
  await expect(panel.getByText('does not take the client visograph with its secret')).toBeVisible();
  await panel.getByRole('button', { name: 'Change' }).click();
  await panel.getByLabel('Secret').fill('ferry-lamp-seven');
  await panel.getByRole('button', { name: 'Keep' }).click();
  await panel.getByRole('button', { name: 'Read it', exact: true }).click();
  const table = panel.getByRole('table', { name: 'Differences' });
  await expect(table).toContainText('interface unannounced-3:eth0');
  await expect(panel.getByText('6 of 6 differences')).toBeVisible();
  const seen = await new AxeBuilder({ page }).analyze();
  expect(seen.violations.map(({ id, nodes }) => [id, nodes.map(({ html }) => html)])).toEqual([]);
  // Half of it: what was started stays out.
  for (const name of [/unannounced-3$/, /unannounced-3:eth0$/, /^route /])
    await table.getByText(name).first().click();
  await panel.getByRole('button', { name: 'Take over 3' }).click();
  await expect(panel.getByText('0 of 3 differences')).toBeVisible();
  await expect(table).not.toContainText('TCP 22');
  await expect(table).toContainText('unannounced-3');
  await panel.getByRole('button', { name: 'Close' }).click();
  await saved(page);
  await side(page).getByRole('button', { name: 'booking', exact: true }).click();
  await page.keyboard.press('Control+z');
  await saved(page);
  await side(page).getByRole('button', { name: 'Read the account' }).click();
  // Its manners are set as anybody may who has its secret.
  const { token } = (await (
    await page.request.post(`${account.url}/token`, {
      data: { client: 'visograph', secret: 'ferry-lamp-seven' },
    })
  ).json()) as { token: string };
  const behave = (manners: object) =>
    page.request.put(`${account.url}/manners`, {
      headers: { Authorization: `Bearer ${token}` },
      data: manners,
    });
  await behave({ nonsense: 'rules' });
  await panel.getByRole('button', { name: 'Read it', exact: true }).click();
  await expect(panel.getByText(/Item 1 of rules is not what the account describes/)).toBeVisible();
  await behave({ nonsense: null, slowMs: 3000 });
  await panel.getByRole('button', { name: 'Read it', exact: true }).click();
  await panel.getByRole('button', { name: 'Stop' }).click();
  await expect(panel.getByText('Stopped. Nothing was changed.')).toBeVisible();
  await behave({ slowMs: 0 });
  await panel.getByRole('button', { name: 'Read it', exact: true }).click();
  await expect(panel.getByText('6 of 6 differences')).toBeVisible();
  await panel.getByRole('button', { name: 'Take over 6' }).click();
  await expect(panel.getByText('What is documented is what is there.')).toBeVisible();
  account.end();
});

test('designed from nothing: account, three tiers in two zones, an instance, rules, a peering, undone and reloaded', async ({
  page,
  application,
}) => {
  await beginProject(page, application, 'Cloud yard');
  await section(page, 'Cloud');
  await expect(page.getByText('No cloud yet')).toBeVisible();
  await page.getByRole('button', { name: 'Add account' }).click();
  const ask = page.getByRole('dialog', { name: 'Add account' });
  await ask.getByRole('textbox', { name: 'Account' }).fill('acme');
  await ask.getByRole('textbox', { name: 'First region' }).fill('north');
  await ask.getByRole('textbox', { name: 'Zones' }).fill('a, b');
  await page.keyboard.press('Enter');
  await expect(page.getByText('No virtual network yet')).toBeVisible();
  for (const name of ['shop', 'store']) {
    await side(page).getByRole('button', { name: 'New network' }).click();
    const panel = page.getByRole('dialog', { name: 'New network in north' });
    await panel.getByRole('textbox', { name: 'Name', exact: true }).fill(name);
    await expect(panel.getByRole('table', { name: 'Subnets' })).toContainText('data-b');
    await panel.getByRole('button', { name: 'Make the network' }).click();
    await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  }
  // The second took the block beside the first.
  await view(page, 'Subnets');
  await expect(page.getByRole('grid', { name: 'Subnets' }).getByText('10.0.4.0/25')).toBeVisible();
  await view(page, 'Picture');
  await side(page).getByRole('button', { name: 'shop' }).click();
  await expect(page.getByRole('group', { name: 'front-a, open' })).toBeVisible();
  await expect(page.getByRole('group', { name: 'service-b, outward only' })).toBeVisible();
  await expect(page.getByRole('group', { name: 'data-b, closed' })).toBeVisible();
  await view(page, 'Instances');
  await page.getByRole('button', { name: 'Add instance' }).click();
  const add = page.getByRole('dialog', { name: 'Add instance' });
  await add.getByRole('textbox', { name: 'Name' }).fill('web-1');
  await choose(page, 'Rule set', 'service');
  await add.getByRole('button', { name: 'Add instance' }).click();
  await expect(record(page).getByRole('heading', { name: 'web-1' })).toBeVisible();
  await view(page, 'Rules');
  const data = page.getByRole('region', { name: 'Rule set data' });
  await data.getByRole('textbox', { name: 'What' }).fill('icmp 80');
  await data.getByRole('button', { name: 'Add rule' }).click();
  await expect(data.getByText('ICMP has no ports. Leave them out.')).toBeVisible();
  await data.getByRole('textbox', { name: 'What' }).fill('TCP 5432');
  await data.getByRole('textbox', { name: 'From' }).fill('members of service');
  await page.keyboard.press('Enter');
  await expect(data.getByRole('list', { name: 'data, inward' })).toContainText(
    'allow TCP 5432 from members of service',
  );
  await view(page, 'Picture');
  await page.getByRole('button', { name: 'Join' }).click();
  await page.getByRole('button', { name: 'Peer the networks' }).click();
  await view(page, 'Routes');
  await expect(
    page.getByRole('grid', { name: 'Routes' }).getByText('shop-store to store').first(),
  ).toBeVisible();
  await saved(page);
  // Twice it is told; undone it is gone on both sides.
  await view(page, 'Picture');
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(page.getByText(/are peered by shop-store already/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await view(page, 'Routes');
  await expect(page.getByRole('grid', { name: 'Routes' }).getByText('shop-store to store')).toHaveCount(0);
  await page.reload();
  await side(page).getByRole('button', { name: 'shop' }).click();
  await view(page, 'Picture');
  await expect(
    page.getByRole('group', { name: /^(front|service|data)-a/ }).getByRole('button', { name: /web-1/ }),
  ).toBeVisible();
});
