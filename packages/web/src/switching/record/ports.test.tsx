import { beforeAll, describe, expect, test } from '@jest/globals';
import { waitFor, within } from '@testing-library/react';
import type { Device, Kind, Network } from '@visograph/core/model';
import { demoNetwork } from '../../../../core/src/testing/testDemo.ts';
import { access, switched, trunk } from '../../../../core/src/testing/testSwitching.ts';
import { portId } from '../../../../core/src/testing/testNetwork.ts';
import { Record } from '../../record/Record.tsx';
import { card, press, pressNamed, rowNamed, show, type, withSizes } from '../../testing/testScreen.tsx';

beforeAll(withSizes);
const network = switched(
  {
    a: { ports: [trunk('1', [10, 20], 999), access('2', 40)] },
    b: { ports: [trunk('1', [10], 999)] },
  },
  [['a:1', 'b:1']],
  { portProfiles: [{ name: 'Camera port', mode: 'access', untagged: 40 }] },
);
const open = (kind: Kind, id: string, role: 'owner' | 'reader' = 'owner') =>
  show(<Record />, { network, at: `places?sel=${kind}:${id}`, role });
const networkWith = (base: Network, row: Device): Network => {
  const draft = base.draft();
  draft.put('device', row);
  return draft.finish();
};
const vlans = (): HTMLElement => card('VLANs');
const field = (part: HTMLElement, name: string): HTMLInputElement =>
  within(part).getByRole<HTMLInputElement>('textbox', { name });

describe('the VLANs of a port', () => {
  const port = (title: string): string => portId(network, title);

  test('Keep stands there once something differs; numbers are read as lists and ranges', async () => {
    const held = await open('port', port('a:1'));
    expect(field(vlans(), 'Tagged VLANs').value).toBe('10,20');
    expect(within(vlans()).queryByRole('button', { name: 'Keep' })).toBeNull();
    type(field(vlans(), 'Tagged VLANs'), '10 20 50');
    pressNamed('Keep', vlans());
    await waitFor(() => expect(held.network().get('port', port('a:1'))?.taggedVids).toEqual([10, 20, 50]));
    await waitFor(() => expect(within(vlans()).queryByRole('button', { name: 'Keep' })).toBeNull());
    expect(field(vlans(), 'Tagged VLANs').value).toBe('10,20,50');
  });

  test('what is no number is told at its field, what contradicts itself below them; both stay as typed', async () => {
    const held = await open('port', port('a:1'));
    type(field(vlans(), 'Untagged VLAN'), '10,20');
    pressNamed('Keep', vlans());
    await waitFor(() => expect(vlans().textContent).toContain('Untagged VLAN: give one number.'));
    type(field(vlans(), 'Untagged VLAN'), '10');
    pressNamed('Keep', vlans());
    await waitFor(() =>
      expect(within(vlans()).getByRole('alert').textContent).toMatch(/hold 10, which goes untagged/),
    );
    expect(field(vlans(), 'Untagged VLAN').value).toBe('10');
    expect(held.steps()).toEqual([]);
  });

  test('both ends of a link are set alike when that is ticked', async () => {
    const held = await open('port', port('a:1'));
    press(within(vlans()).getByRole('checkbox', { name: 'Set the far end alike: b 1' }));
    type(field(vlans(), 'Tagged VLANs'), '10,40');
    pressNamed('Keep', vlans());
    await waitFor(() => expect(held.steps()).toEqual(['Set 2 ports to trunk, untagged 999, tagged 10,40']));
    expect(held.network().get('port', port('b:1'))?.taggedVids).toEqual([10, 40]);
  });

  test('an access port has no tagged ones; its voice VLAN is one number', async () => {
    const held = await open('port', port('a:2'));
    expect(within(vlans()).queryByRole('textbox', { name: 'Tagged VLANs' })).toBeNull();
    type(field(vlans(), 'Voice VLAN'), '50');
    pressNamed('Keep', vlans());
    await waitFor(() => expect(held.network().get('port', port('a:2'))?.voiceVid).toBe(50));
  });

  test('a reader reads them', async () => {
    await open('port', port('a:1'), 'reader');
    expect(field(vlans(), 'Tagged VLANs').readOnly).toBe(true);
    expect(within(vlans()).queryByRole('checkbox')).toBeNull();
  });
});

describe('spanning tree', () => {
  test('of a port: cost and priority as numbers, empty for what follows from the speed', async () => {
    const held = await open('port', portId(network, 'a:1'));
    const part = card('Spanning tree');
    type(field(part, 'Path cost'), 'cheap');
    pressNamed('Keep', part);
    await waitFor(() => expect(part.textContent).toContain('Path cost is not a number.'));
    type(field(part, 'Path cost'), '2000');
    pressNamed('Keep', part);
    await waitFor(() =>
      expect(held.network().get('port', portId(network, 'a:1'))?.spanningTree).toEqual({
        cost: 2000,
        priority: null,
        edge: false,
      }),
    );
    type(field(card('Spanning tree'), 'Path cost'), '');
    pressNamed('Keep', card('Spanning tree'));
    await waitFor(() => expect(held.network().get('port', portId(network, 'a:1'))?.spanningTree).toBeNull());
  });

  test('of a port: that an end device is behind it', async () => {
    const held = await open('port', portId(network, 'a:2'));
    press(within(card('Spanning tree')).getByRole('checkbox', { name: /^Edge port/ }));
    await waitFor(() =>
      expect(held.network().get('port', portId(network, 'a:2'))?.spanningTree?.edge).toBe(true),
    );
  });

  test('of a switch: instances as text, refused where a VLAN is in two', async () => {
    const demo = demoNetwork();
    const device = rowNamed(demo, 'device', 'kq-acc-3');
    const start = { ...device, spanningTree: { mode: 'instances' as const, region: null, parts: [] } };
    const changed = networkWith(demo, start);
    const held = await show(<Record />, { network: changed, at: `places?sel=device:${device.id}` });
    const part = card('Spanning tree');
    type(field(part, 'Instances'), 'one: 10');
    pressNamed('Keep', part);
    await waitFor(() => expect(part.textContent).toMatch(/“one: 10”|one/));
    expect(held.steps()).toEqual([]);
    type(field(part, 'Instances'), '1: 10,20 at 4096; 2: 20');
    pressNamed('Keep', part);
    await waitFor(() => expect(part.textContent).toContain('Spanning tree has VLAN 20 in two parts.'));
    type(field(part, 'Instances'), '1: 10,20 at 4096; 2: 30');
    type(field(part, 'Region'), 'quay');
    pressNamed('Keep', part);
    await waitFor(() =>
      expect(held.network().get('device', device.id)?.spanningTree).toMatchObject({
        region: 'quay',
        parts: [{ vids: [10, 20], priority: 4096 }, { vids: [30] }],
      }),
    );
  });
});
