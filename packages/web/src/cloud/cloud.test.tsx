import { beforeAll, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { demoNetwork } from '../../../core/src/testing/testDemo.ts';
import { networkOf } from '../../../core/src/testing/testNetwork.ts';
import { pressNamed, show, withSizes } from '../testing/testScreen.tsx';
import CloudSection from './CloudSection.tsx';

beforeAll(withSizes);
const demo = demoNetwork();
const opened = async (role: 'owner' | 'reader' = 'owner', network = demo) => {
  const held = await show(<CloudSection />, { network, role });
  await screen.findByRole('heading', { level: 1 });
  return held;
};
const type = (label: string, text: string, within_: HTMLElement = document.body): void => {
  fireEvent.change(within(within_).getByLabelText(label), { target: { value: text } });
};

describe('the cloud of the demo', () => {
  test('as a picture: each subnet says what it is to the internet, and the one without a table says that', async () => {
    await opened();
    pressNamed('booking');
    await screen.findByRole('heading', { name: 'booking' });
    expect(screen.getByRole('group', { name: 'open-n1a, open' }).textContent).toContain('cl-nat-1');
    expect(screen.getByRole('group', { name: 'service-n1b, outward only' }).textContent).toContain(
      'cl-web-2',
    );
    expect(screen.getByRole('group', { name: 'data-n1a, closed' }).textContent).toContain('10.64.32.0/24');
    expect(screen.getByRole('group', { name: 'data-n1b, unknown' }).textContent).toContain('no route table');
    expect(screen.getByRole('region', { name: 'Virtual network booking' }).textContent).toContain(
      'cl-vpn-1tunnel gateway',
    );
  });

  test('is drawn on the sheet that is there for it, or on one of its own', async () => {
    const held = await opened();
    pressNamed('booking');
    await screen.findByRole('heading', { name: 'booking' });
    pressNamed('Draw');
    const sheet = [...demo.all('sheet')].find(({ projection }) => projection === 'cloud');
    await waitFor(() => expect(held.at().path).toBe(`sheets/${sheet?.id ?? ''}`));
    expect(held.steps()).toEqual([]);
  });

  test('its tables and its cost', async () => {
    await opened();
    pressNamed('booking');
    pressNamed('Routes');
    await screen.findByRole('grid', { name: 'Routes' });
    expect(screen.getAllByRole('gridcell', { name: 'cl-nat-2' }).length).toBeGreaterThan(0);
    pressNamed('Instances');
    await screen.findByRole('grid', { name: 'Instances' });
    expect(screen.getByRole('gridcell', { name: '10.64.16.11/22' })).toBeDefined();
    pressNamed('Cost');
    await screen.findByText('1016.59 EUR a month');
    expect(screen.getByRole('list', { name: 'Sums' }).textContent).toContain('Instance541.66 EUR');
  });

  test('rules read as sentences; one that changes nothing is told, and bad input stays with its reason', async () => {
    const held = await opened();
    pressNamed('booking');
    pressNamed('Rules');
    const front = await screen.findByRole('region', { name: 'Rule set front' });
    expect(within(front).getByRole('list', { name: 'front, inward' }).textContent).toContain(
      'allow https (TCP 443) from everybody',
    );
    type('What', '70000', front);
    pressNamed('Add rule', front);
    await screen.findByText('The ports hold 70000: ports end at 65535.');
    type('What', 'https', front);
    type('From', '10.40.0.0/33', front);
    pressNamed('Add rule', front);
    await screen.findByText(/10.40.0.0\/33/);
    type('From', '10.40.0.0/14', front);
    pressNamed('Add rule', front);
    await screen.findByText('Changes nothing: said already by https (TCP 443) from everybody.');
    expect(held.steps()).toEqual(['Added to front: allow https (TCP 443) from 10.40.0.0/14']);
  });

  test('a reader is offered nothing that writes', async () => {
    await opened('reader');
    for (const name of ['New network', 'Add account', 'Join', 'Add region'])
      expect(screen.queryByRole('button', { name })).toBeNull();
    pressNamed('Rules');
    expect(screen.queryByRole('button', { name: 'Add rule' })).toBeNull();
  });
});

test('from nothing: an account, a network by need, and what is wrong with a block is told', async () => {
  const held = await opened('owner', networkOf({}));
  await screen.findByText('No cloud yet');
  pressNamed('Add account');
  const dialog = await screen.findByRole('dialog', { name: 'Add account' });
  pressNamed('Add account', dialog);
  await within(dialog).findAllByText(/is empty/);
  type('Account', 'acme', dialog);
  type('First region', 'north', dialog);
  type('Zones', 'a, b', dialog);
  pressNamed('Add account', dialog);
  await screen.findByText('No virtual network yet');
  expect(held.steps()).toEqual(['Added the account acme']);
  pressNamed('New network');
  const panel = await screen.findByRole('dialog', { name: 'New network in north' });
  type('Name', 'shop', panel);
  type('Block', '198.51.100.0/22', panel);
  await within(panel).findByText(/outside what private use allows/);
  type('Block', '10.64.0.0/16', panel);
  expect(within(panel).getByRole('table', { name: 'Subnets' }).textContent).toContain('service-a');
  pressNamed('Make the network', panel);
  await screen.findByRole('heading', { name: 'shop' });
  await waitFor(() => expect(screen.getByRole('group', { name: 'data-b, closed' })).toBeDefined());
  expect(held.steps().at(-1)).toBe('Added the virtual network shop with 6 subnets in north');
});

test('parts of a network: a subnet in the next free space, a table, routes and a gateway; what is taken is told', async () => {
  const held = await opened();
  pressNamed('booking');
  pressNamed('Subnets');
  await screen.findByRole('grid', { name: 'Subnets' });
  pressNamed('Add subnet');
  const subnet = await screen.findByRole('dialog', { name: 'Add subnet' });
  type('Name', 'spare-n1a', subnet);
  // 200 hosts beside the five that are kept need a /24: the first that is free.
  expect(within(subnet).getByLabelText<HTMLInputElement>('Prefix').value).toBe('10.64.2.0/24');
  type('Prefix', '10.64.0.0/24', subnet);
  pressNamed('Add subnet', subnet);
  await within(subnet).findByText(/lies in 10.64.0.0\/24, which is used/);
  type('Prefix', '10.64.2.0/24', subnet);
  pressNamed('Add subnet', subnet);
  await waitFor(() => expect(held.steps()).toEqual(['Added the subnet spare-n1a to booking']));
  pressNamed('Routes');
  await screen.findByRole('grid', { name: 'Routes' });
  pressNamed('Add route');
  const route = await screen.findByRole('dialog', { name: 'Add route' });
  type('Destination', '10.9.0.0/33', route);
  pressNamed('Add route', route);
  await within(route).findByText(/10.9.0.0\/33/);
  type('Destination', '10.9.0.0/16', route);
  pressNamed('Add route', route);
  await waitFor(() => expect(held.steps().at(-1)).toBe('Added 10.9.0.0/16 through cl-door-1 to closed'));
  fireEvent.keyDown(route, { key: 'Escape' });
  pressNamed('Gateways');
  await screen.findByRole('grid', { name: 'Gateways' });
  pressNamed('Add gateway');
  const gateway = await screen.findByRole('dialog', { name: 'Add gateway' });
  type('Name', 'cl-line-1', gateway);
  pressNamed('Add gateway', gateway);
  await waitFor(() => expect(held.steps().at(-1)).toBe('Added the gateway cl-line-1 to booking'));
});

test('names: records of a zone are typed, wrong ones told, and a zone file is taken in by line', async () => {
  const held = await opened();
  pressNamed('booking');
  pressNamed('Names');
  await screen.findByRole('grid', { name: 'Records' });
  expect(screen.getAllByRole('gridcell', { name: '10.64.16.11' })).toHaveLength(1);
  const form = screen.getByRole('form', { name: 'Add a record to booking.msf.example' });
  type('Name', 'log', form);
  type('Value', '10.64.300.1', form);
  pressNamed('Add record', form);
  await within(form).findByText(/is not an IPv4 address/);
  type('Value', '10.64.16.50', form);
  pressNamed('Add record', form);
  await waitFor(() => expect(held.steps()).toEqual(['Added log A to booking.msf.example']));
  const file = new File(['new A 10.64.16.51\nbad A 10.64.16.999\n'], 'zone.txt', { type: 'text/plain' });
  Object.defineProperty(file, 'text', { value: async () => 'new A 10.64.16.51\nbad A 10.64.16.999\n' });
  fireEvent.change(screen.getByLabelText('Zone file'), { target: { files: [file] } });
  await screen.findByText(/^Line 2: the A of bad/);
  await waitFor(() => expect(held.steps().at(-1)).toBe('Took in 1 record of booking.msf.example'));
});
