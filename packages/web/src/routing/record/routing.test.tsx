import { beforeAll, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { Kind, Network } from '@visograph/core/model';
import { deviceNamed, portId } from '../../../../core/src/testing/testNetwork.ts';
import { switched } from '../../../../core/src/testing/testSwitching.ts';
import { Record } from '../../record/Record.tsx';
import { card, press, pressNamed, show, type, withSizes } from '../../testing/testScreen.tsx';

beforeAll(withSizes);
const network = switched(
  {
    r: {
      role: 'RT',
      ports: [
        {
          name: 'e1',
          connector: 'RJ45',
          speedBps: 1e9,
          vrf: 'ops',
          addresses: ['10.1.0.1/24'],
          mode: 'routed',
        },
        { name: 'e2', connector: 'RJ45', speedBps: 1e9 },
        { name: 'lo0', form: 'loopback', vrf: 'ops', addresses: ['10.9.0.1/32'] },
      ],
    },
  },
  [],
  { prefixes: [{ prefix: '10.1.0.0/24', vrf: 'ops', vlan: 'shore/20' }] },
);
const open = (kind: Kind, id: string, role: 'owner' | 'reader' = 'owner') =>
  show(<Record />, { network, at: `places?sel=${kind}:${id}`, role });
const e1 = portId(network, 'r:e1');
const field = (part: HTMLElement, name: string | RegExp): HTMLInputElement =>
  within(part).getByRole<HTMLInputElement>('textbox', { name });
const ospf = (of: Network) => of.get('port', e1)?.ospf;

describe('OSPF of a port', () => {
  const routing = (): HTMLElement => card('Routing');

  test('an area makes it speak, none makes it silent; what is no area or cost is told', async () => {
    const held = await open('port', e1);
    type(field(routing(), 'OSPF area'), 'x');
    pressNamed('Keep', routing());
    await screen.findByText('Area “x” is neither a number nor like 0.0.0.1.');
    type(field(routing(), 'OSPF area'), '0.0.0.1');
    type(field(routing(), /^Cost/), '70000');
    pressNamed('Keep', routing());
    await screen.findByText('Cost is above 65535.');
    type(field(routing(), /^Cost/), '10');
    pressNamed('Keep', routing());
    await waitFor(() =>
      expect(ospf(held.network())).toMatchObject({ area: '0.0.0.1', cost: 10, passive: false }),
    );
    press(within(routing()).getByRole('checkbox', { name: /^Passive/ }));
    await waitFor(() => expect(ospf(held.network())?.passive).toBe(true));
    type(field(routing(), 'OSPF area'), '');
    pressNamed('Keep', routing());
    await waitFor(() => expect(ospf(held.network())).toBeNull());
  });

  test('a group with a shared address is joined and left; a number that is none is told', async () => {
    const held = await open('port', e1);
    const form = screen.getByRole('form', { name: 'Join a group' });
    type(field(form, 'VRRP group'), '300');
    type(field(form, 'Shared address'), '10.1.0.254');
    pressNamed('Add to group', form);
    await screen.findByText('VRRP group is above 255.');
    type(field(form, 'VRRP group'), '7');
    pressNamed('Add to group', form);
    await waitFor(() => expect(held.network().count('redundancy')).toBe(1));
    await screen.findByText(/shared, group 7, priority 100/);
    pressNamed('Leave group 7');
    await waitFor(() => expect(held.network().count('redundancy')).toBe(0));
  });

  test('an address that is outside of the subnet is refused by the command', async () => {
    const held = await open('port', e1);
    const form = screen.getByRole('form', { name: 'Join a group' });
    type(field(form, 'VRRP group'), '7');
    type(field(form, 'Shared address'), '10.7.0.254');
    pressNamed('Add to group', form);
    await waitFor(() => expect(within(form).getByRole('alert').textContent).toContain('10.7.0.254'));
    expect(held.steps()).toEqual([]);
  });

  test('a reader sees them', async () => {
    await open('port', e1, 'reader');
    expect(field(routing(), 'OSPF area').readOnly).toBe(true);
    expect(screen.queryByRole('form', { name: 'Join a group' })).toBeNull();
  });
});

describe('configured ports of a device', () => {
  const ports = (): HTMLElement => card('Configured ports');
  const device = deviceNamed(network, 'r').id;

  test('a VLAN interface needs its number, which is there once', async () => {
    const held = await open('device', device);
    type(field(ports(), 'VLAN'), '4095');
    pressNamed('Add port', ports());
    await screen.findByText(/^VLAN is above 4094/);
    type(field(ports(), 'VLAN'), '20');
    pressNamed('Add port', ports());
    await waitFor(() => expect(held.steps()).toHaveLength(1));
    await within(ports()).findByRole('button', { name: 'Take out vlan20' });
    type(field(ports(), 'VLAN'), '20');
    pressNamed('Add port', ports());
    await waitFor(() => expect(within(ports()).getByRole('alert').textContent).toMatch(/20/));
    expect(held.steps()).toHaveLength(1);
  });

  test('one is taken out again', async () => {
    const held = await open('device', device);
    pressNamed('Take out lo0', ports());
    await waitFor(() => expect(held.network().count('port')).toBe(network.count('port') - 1));
  });
});
