import { applyChanges } from '../../change/apply.ts';
import { update } from '../../change/change.ts';
import { diffOf } from '../../change/diff.ts';
import { joinDevices, type JoinAttempt, type JoinWish } from '../../cabling/commands/join.ts';
import { refuse } from '../../commands/attempt.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { PortProfile, PortSwitching } from '../../model/kinds/logical/vlan.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import type { Role } from '../../model/values/roles.ts';
import { bridgeKey, bridgingOf, setPort } from '../bridges.ts';

/** A line that takes VLANs as it is pulled: from which profile. */
export interface SwitchedWish {
  /** Undefined: what fits best; null: without a profile, as an unset port of 802.1Q is. */
  profileId?: string | null;
}

/**
 * What a port is while no profile says more: a trunk takes every VLAN, an access port VLAN 1 (the default PVID of
 * IEEE 802.1Q, table 9-2).
 */
const unset: Record<'trunk' | 'access', PortSwitching> = {
  trunk: { mode: 'trunk', untaggedVid: null, taggedVids: 'all', voiceVid: null },
  access: { mode: 'access', untaggedVid: 1, taggedVids: null, voiceVid: null },
};

/** Whether VLANs are set at the ports of a device: a switch, or what has such ports already. */
export const switches = (network: Network, device: Device): boolean =>
  device.role === 'SW' || bridgingOf(network).bridges.get(bridgeKey(network, device))?.form === 'switch';

const settingOf = ({ mode, untaggedVid, taggedVids, voiceVid }: PortSwitching): string =>
  JSON.stringify([mode, untaggedVid, taggedVids, voiceVid]);

/** How many ports of switches are set each way, among those at which something of a role hangs. */
function settingsTowards(network: Network, role: Role): Map<string, number> {
  const found = new Map<string, number>();
  const { ports, farOf } = bridgingOf(network);
  for (const { port, bridge, members } of ports) {
    if (bridge.form !== 'switch') continue;
    const towards = members.some((member) => {
      const far = network.get('port', farOf(member.id));
      return network.get('device', far?.deviceId ?? null)?.role === role;
    });
    const setting = settingOf(port);
    if (towards) found.set(setting, (found.get(setting) ?? 0) + 1);
  }
  return found;
}

/** Profiles for a line between two devices, and the one that is taken where nothing else is said. */
export interface FittingProfiles {
  /** Those that most ports to such a device are set to first, then those of the mode that is usual there. */
  all: PortProfile[];
  /** Null: no port is set as any says, and none is of the usual mode. */
  usual: PortProfile | null;
}
export function profilesFor(network: Network, a: Device, b: Device): FittingProfiles {
  const both = switches(network, a) && switches(network, b);
  const counts = settingsTowards(network, (switches(network, a) ? b : a).role);
  const ranked = [...network.all('portProfile')]
    .filter(({ mode }) => mode === 'trunk' || mode === 'access')
    .map((profile) => ({
      profile,
      count: counts.get(settingOf(profile)) ?? 0,
      other: profile.mode !== (both ? 'trunk' : 'access'),
    }))
    .sort(
      (x, y) =>
        y.count - x.count ||
        Number(x.other) - Number(y.other) ||
        compareNames(x.profile.name, y.profile.name),
    );
  const [first] = ranked;
  return {
    all: ranked.map(({ profile }) => profile),
    usual: first !== undefined && (first.count > 0 || !first.other) ? first.profile : null,
  };
}

/**
 * Joins two devices by a cable, or several, and sets the ports of the switches at its ends: between two switches both
 * as a trunk, towards anything else the one as an access port. Where neither is a switch nothing is set, and a port
 * that is set already stays as it is until a profile is named.
 */
export function switchedLine(network: Network, wish: JoinWish, { profileId }: SwitchedWish): JoinAttempt {
  const joined = joinDevices(network, wish);
  if (!joined.ok) return joined;
  const staged = joined.network;
  const [a, b] = [staged.get('device', wish.aDeviceId), staged.get('device', wish.bDeviceId)];
  if (a === null || b === null) return refuse('A device of this line is no longer there.');
  const both = switches(network, a) && switches(network, b);
  const chosen =
    profileId === undefined ? profilesFor(network, a, b).usual : network.get('portProfile', profileId);
  if (profileId != null && chosen === null) return refuse('This profile is no longer there. Choose another.');
  const { mode, untaggedVid, taggedVids, voiceVid } = chosen ?? unset[both ? 'trunk' : 'access'];
  const ends = joined.lines
    .flatMap((line) => [line.aPortId, line.bPortId])
    .flatMap((id) => staged.get('port', id) ?? [])
    .filter(
      (port) =>
        port.role !== 'management' &&
        [a, b].some((one) => one.id === port.deviceId && switches(network, one)),
    );
  const ports = new Map<string, Port>(
    ends.map((port) => setPort(staged, port)).map((port) => [port.id, port]),
  );
  const open = [...ports.values()].filter((port) => profileId !== undefined || port.mode === null);
  const changes = open.flatMap(
    (port) => update('port', port, { mode, untaggedVid, taggedVids, voiceVid }) ?? [],
  );
  const applied = applyChanges(staged, changes);
  if (!applied.ok) return refuse(applied.problems[0]?.message ?? 'The VLANs of this line cannot be set.');
  const all = diffOf(network, applied.network, [...joined.changes, ...changes]);
  const said = chosen === null || changes.length === 0 ? '' : ` as ${chosen.name}`;
  return { ...joined, changes: all, made: all, network: applied.network, sentence: joined.sentence + said };
}
