import { beforeAll, describe, expect, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import type { Kind } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { demoNetwork } from '../../../../core/src/testing/testDemo.ts';
import { useProject } from '../../data/project.tsx';
import { records } from '../../record/registry.tsx';
import { KindRecord } from '../../record/KindRecord.tsx';
import { card, press, pressNamed, rowNamed, show, type, withSizes } from '../../testing/testScreen.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const field = (part: HTMLElement, label: string): HTMLElement => within(part).getByLabelText(label);

/** The record of a row as it is now. */
function Live({ kind, id }: { kind: Kind; id: string }): ReactNode {
  const { network } = useProject().view;
  const row = network.get(kind, id);
  const own = records[kind] as ((of: unknown) => ReactNode) | undefined;
  return row === null ? null : (own?.(row) ?? <KindRecord kind={kind} row={row} />);
}

async function opened(kind: Kind, name: string, role: 'owner' | 'reader' = 'owner') {
  const row = rowNamed(demo, kind, name);
  const held = await show(<Live kind={kind} id={row.id} />, { network: demo, role });
  await screen.findByRole('heading', { level: 2 });
  return held;
}

describe('an instance', () => {
  test('tells how it goes out and what of it is called; its rule sets and size are set', async () => {
    const held = await opened('device', 'cl-web-1');
    expect(card('Internet').textContent).toContain('seen as 203.0.113.30 through cl-nat-1');
    expect(card('Internet').textContent).toContain('203.0.113.20 https by everybody over cl-lb-1');
    expect(within(card('Instance')).getByDisplayValue('m2')).toBeDefined();
    const eth0 = card('Interface eth0');
    press(within(eth0).getByRole('checkbox', { name: 'front' }));
    expect(held.steps()).toEqual(['Tied front and service to cl-web-1 eth0']);
  });

  test('is given a public address; a private one is refused at its field', async () => {
    const held = await opened('device', 'cl-web-1');
    const eth0 = card('Interface eth0');
    type(field(eth0, 'Public address'), '10.1.1.1');
    pressNamed('Give', eth0);
    await screen.findByText(/10.1.1.1 is private/);
    expect(held.steps()).toEqual([]);
    type(field(eth0, 'Public address'), '203.0.113.99');
    pressNamed('Give', eth0);
    await screen.findByRole('button', { name: 'Take 203.0.113.99 off' });
    pressNamed('Take 203.0.113.99 off');
    expect(held.steps()).toEqual([
      'Gave cl-web-1 eth0 the public address 203.0.113.99',
      'Took 203.0.113.99 off cl-web-1 eth0',
    ]);
  });

  test('a reader is offered nothing that writes', async () => {
    await opened('device', 'cl-web-1', 'reader');
    expect(screen.queryByRole('button', { name: 'Give' })).toBeNull();
    const tick = within(card('Interface eth0')).getByRole('checkbox', { name: 'service' });
    expect(tick.hasAttribute('disabled')).toBe(true);
  });
});

test('a load balancer sends to what is added, and no longer to what is taken away', async () => {
  const held = await opened('device', 'cl-lb-1');
  const sends = card('Sends to');
  expect(sends.textContent).toContain('TCP 443 → cl-web-1 8080');
  pressNamed('Send TCP 443 no longer to cl-web-1', sends);
  expect(held.steps()[0]).toContain('cl-lb-1');
  type(field(sends, 'Listens on'), '8443');
  pressNamed('Add target', sends);
  await screen.findByText(/8443 →/);
  expect(held.steps()).toHaveLength(2);
});

test('a gateway is set, family by family; none is refused', async () => {
  const held = await opened('device', 'cl-nat-1');
  const families = card('Families');
  press(within(families).getByRole('checkbox', { name: 'IPv4' }));
  await within(families).findByRole('alert');
  press(within(families).getByRole('checkbox', { name: 'IPv6' }));
  expect(held.steps()).toHaveLength(1);
});

describe('places of a cloud', () => {
  test('an account: provider, labels that are set, changed and taken off', async () => {
    const held = await opened('place', 'msf-booking');
    expect(within(card('Account')).getByDisplayValue('8810-2204-77')).toBeDefined();
    const labels = card('Labels');
    type(field(labels, 'Key'), 'owner');
    pressNamed('Set', labels);
    await screen.findByText('Write a value.');
    type(field(labels, 'Value'), 'quay');
    pressNamed('Set', labels);
    await screen.findByText('owner: quay');
    pressNamed('Take the label owner off', labels);
    expect(held.steps()).toHaveLength(2);
  });

  test('a region: zones, routers, public addresses; each can be added', async () => {
    const held = await opened('place', 'north-1');
    expect(card('Zones').textContent).toContain('n1a');
    type(field(card('Zones'), 'Zone'), 'n1c');
    pressNamed('Add zone', card('Zones'));
    await within(card('Zones')).findByText('n1c');
    expect(card('Public addresses').textContent).toContain('203.0.113.40');
    expect(held.steps()).toEqual(['Added the zone n1c to north-1']);
    // It has no racks and no rooms.
    expect(screen.queryByRole('button', { name: /Add rack/ })).toBeNull();
  });

  test('a network tells what a lost zone means', async () => {
    await opened('place', 'booking');
    expect(card('If a zone is lost').textContent).toMatch(/n1a.*instances? gone/);
  });
});

describe('what is data of the project', () => {
  test('a price list: a price is set and taken out, and what is no amount is refused', async () => {
    const held = await opened('cloudPriceList', 'Skerrane 2026-10');
    const prices = card('Prices in EUR');
    expect(prices.textContent).toContain('Traffic between zones 0.01 per GB');
    type(field(prices, 'Which'), 'tiny');
    type(field(prices, 'Price'), 'cheap');
    pressNamed('Set price', prices);
    await screen.findByText(/“cheap” is not an amount/);
    type(field(prices, 'Price'), '0,0042');
    pressNamed('Set price', prices);
    await screen.findByText('Instance tiny');
    pressNamed('Take the price of Instance tiny out');
    expect(held.steps()).toEqual([
      'Set instance tiny in Skerrane 2026-10 to 0.0042 EUR',
      'Took the price of instance tiny out of Skerrane 2026-10',
    ]);
  });

  test('a list of prefixes takes what is one, once', async () => {
    const [list] = [...demo.all('prefixList')];
    const held = await opened('prefixList', list?.name ?? '');
    const prefixes = card('Prefixes');
    type(field(prefixes, 'Value'), '10.0.0.0/33');
    pressNamed('Add', prefixes);
    await within(prefixes).findByText(/is not a prefix such as/);
    expect(held.steps()).toEqual([]);
    type(field(prefixes, 'Value'), '10.99.0.0/16');
    pressNamed('Add', prefixes);
    await screen.findByText('10.99.0.0/16');
    type(field(prefixes, 'Value'), '10.99.0.0/16');
    pressNamed('Add', prefixes);
    await screen.findByText('10.99.0.0/16 is in it already.');
    expect(held.steps()).toHaveLength(1);
  });

  test('a profile: its sorts are told, a limit is set as a number', async () => {
    const held = await opened('providerProfile', 'Skerrane');
    expect(card('Sorts of gateway').textContent).toContain(
      'translating gateway out, IPv4, translates, zonal',
    );
    const limits = card('Limits');
    type(field(limits, 'Value'), 'many');
    pressNamed('Set', limits);
    await screen.findByText('Write a whole number.');
    type(field(limits, 'Value'), '7');
    pressNamed('Set', limits);
    await within(limits).findByText('networks: 7');
    expect(held.steps()).toHaveLength(1);
  });
});

test('a subnet tells what it is to the internet and its routes; a rule set what it is tied to', async () => {
  await opened('cloudSubnet', 'service-n1a');
  expect(card('Worked out').textContent).toContain('outward only by cl-nat-1');
  expect(card('Routes as they work').textContent).toContain('0.0.0.0/0 through cl-nat-1');
});
test('a rule set is tied to interfaces', async () => {
  await opened('ruleSet', 'service');
  expect(card(/^Tied to/).textContent).toContain('cl-web-1 eth0');
});
