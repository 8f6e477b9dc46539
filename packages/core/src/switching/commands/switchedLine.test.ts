import { describe, expect, test } from '@jest/globals';
import { lineOtherwise } from '../../cabling/commands/join.ts';
import { create } from '../../change/change.ts';
import type { PortProfile } from '../../model/kinds/logical/vlan.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { portsOf } from '../../model/network/ports.ts';
import { called, changed, drawn } from '../../testing/testDrawn.ts';
import { layer2Of } from '../layer2.ts';
import { switchedLinks } from '../projection/switchingLinks.ts';
import { profilesFor, switchedLine, type SwitchedWish } from './switchedLine.ts';
import { settingText } from './vlans.ts';

const profile = (name: string, rest: Partial<PortProfile>): PortProfile => ({
  id: newId(),
  name,
  mode: 'access',
  untaggedVid: null,
  taggedVids: null,
  voiceVid: null,
  notes: null,
  ...rest,
});
const desk = profile('Desk', { untaggedVid: 20, voiceVid: 30 });
const camera = profile('Camera', { untaggedVid: 40 });
const uplink = profile('Uplink', { mode: 'trunk', taggedVids: [20, 30, 40] });

const floor = (profiles: readonly PortProfile[] = []): Network =>
  changed(
    drawn({
      'sw-1': 'AX-2448P',
      'sw-2': 'AX-2448P',
      'cm-1': 'Generic camera',
      'cm-2': 'Generic camera',
      'cm-3': 'Generic camera',
      'pc-1': 'Generic workstation',
    }),
    profiles.map((row) => create('portProfile', row)),
  );
function pulled(network: Network, a: string, b: string, how: SwitchedWish = {}): Network {
  const wish = { aDeviceId: called(network, a).id, bDeviceId: called(network, b).id };
  const made = switchedLine(network, wish, how);
  if (!made.ok) throw new Error(made.why);
  return changed(network, made.changes);
}
/** Ports that something is set at, "sw-1 gi1/1 access, untagged 40". */
const set = (network: Network): string[] =>
  ['sw-1', 'sw-2', 'cm-1', 'pc-1'].flatMap((name) =>
    portsOf(network, called(network, name).id)
      .filter((port) => port.mode !== null)
      .map((port) => `${name} ${port.name} ${settingText(port)}`),
  );

describe('a line that takes VLANs as it is pulled', () => {
  test('without a profile: a trunk of all VLANs between switches, VLAN 1 towards what hangs on one', () => {
    const network = pulled(pulled(floor(), 'sw-1', 'sw-2'), 'cm-1', 'sw-1');
    expect(set(network)).toEqual([
      'sw-1 gi1/1 access, untagged 1',
      'sw-1 te1/49 trunk, tagged all',
      'sw-2 te1/49 trunk, tagged all',
    ]);
    expect(switchedLinks(network, layer2Of(network))).toHaveLength(2);
  });

  test('of a profile: that of a trunk between switches at both ends, that of access at the switch alone', () => {
    const start = floor([camera, uplink]);
    const network = pulled(pulled(start, 'sw-1', 'sw-2'), 'sw-1', 'cm-1');
    expect(set(network)).toEqual([
      'sw-1 gi1/1 access, untagged 40',
      'sw-1 te1/49 trunk, tagged 20,30,40',
      'sw-2 te1/49 trunk, tagged 20,30,40',
    ]);
  });

  test('the profile that most ports to such devices are set to comes first', () => {
    let network = floor([desk, camera]);
    const first = (): string | undefined =>
      profilesFor(network, called(network, 'sw-1'), called(network, 'cm-3')).usual?.name;
    expect(first()).toBe('Camera');
    network = pulled(network, 'cm-1', 'sw-1', { profileId: desk.id });
    network = pulled(network, 'cm-2', 'sw-1', { profileId: desk.id });
    expect(first()).toBe('Desk');
    expect(profilesFor(network, called(network, 'sw-1'), called(network, 'pc-1')).usual?.name).toBe('Camera');
  });

  test('a profile of the other mode is offered last, and taken where such ports are set so', () => {
    let network = floor([uplink]);
    const found = () => profilesFor(network, called(network, 'sw-1'), called(network, 'cm-3'));
    expect([found().usual, found().all.map(({ name }) => name)]).toEqual([null, ['Uplink']]);
    network = pulled(network, 'cm-1', 'sw-1', { profileId: uplink.id });
    expect(found().usual?.name).toBe('Uplink');
  });

  test('a port that is set stays as it is until a profile is named; null sets the usual', () => {
    const start = floor([camera]);
    const port = portsOf(start, called(start, 'sw-1').id)[0];
    if (port === undefined) throw new Error('no port');
    const before = changed(start, [
      {
        op: 'update',
        kind: 'port',
        id: port.id,
        before: { mode: null, untaggedVid: null },
        after: { mode: 'access', untaggedVid: 99 },
      },
    ]);
    expect(set(pulled(before, 'cm-1', 'sw-1'))).toEqual(['sw-1 gi1/1 access, untagged 99']);
    expect(set(pulled(before, 'cm-1', 'sw-1', { profileId: camera.id }))).toEqual([
      'sw-1 gi1/1 access, untagged 40',
    ]);
    expect(set(pulled(before, 'cm-1', 'sw-1', { profileId: null }))).toEqual([
      'sw-1 gi1/1 access, untagged 1',
    ]);
  });

  test('made otherwise, the ports of the first try are as they were', () => {
    const network = floor([desk, camera]);
    const wish = { aDeviceId: called(network, 'cm-1').id, bDeviceId: called(network, 'sw-1').id };
    const made = switchedLine(network, wish, {});
    if (!made.ok) throw new Error(made.why);
    const third = portsOf(network, called(network, 'sw-1').id)[2];
    const again = lineOtherwise(made.network, made.made, (without) =>
      switchedLine(without, { ...wish, bPortId: third?.id }, { profileId: desk.id }),
    );
    if (!again.ok) throw new Error(again.why);
    expect(set(again.network)).toEqual(['sw-1 gi1/3 access, untagged 20, voice 30']);
    expect(again.sentence).toContain('as Desk');
  });

  test('between two that are no switches nothing is set; a profile that is gone is refused', () => {
    const network = floor([camera]);
    expect(set(pulled(network, 'pc-1', 'cm-1'))).toEqual([]);
    const gone = switchedLine(
      network,
      { aDeviceId: called(network, 'cm-1').id, bDeviceId: called(network, 'sw-1').id },
      { profileId: newId() },
    );
    expect(gone).toMatchObject({ ok: false, why: 'This profile is no longer there. Choose another.' });
  });
});
