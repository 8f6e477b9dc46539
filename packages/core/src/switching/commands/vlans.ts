import { create, update, type Change } from '../../change/change.ts';
import { removal } from '../../change/removal.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { PortSwitching, Vlan } from '../../model/kinds/logical/vlan.ts';
import { blankVlan } from '../../model/kinds/logical/vlan.ts';
import { colourCount } from '../../model/kinds/logical/vrf.ts';
import { formatVids, lastVid } from '../../model/values/vids.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { portTitle } from '../../model/network/ports.ts';
import { setPort } from '../bridges.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';

/** The first number of a numbering that no VLAN has, in steps of ten where that is how the numbering counts. */
export function firstFreeVid(network: Network, numberingId: string): number | null {
  const vids = new Set(network.find('vlansByNumbering', numberingId).map((vlan) => vlan.vid));
  const step = [...vids].filter((vid) => vid % 10 === 0).length * 2 > vids.size ? 10 : 1;
  for (let vid = step; vid <= lastVid; vid += step) if (!vids.has(vid)) return vid;
  for (let vid = 1; vid <= lastVid; vid++) if (!vids.has(vid)) return vid;
  return null;
}

interface VlanWish {
  /** An existing numbering, or null for a new one of the name given. */
  numberingId: string | null;
  numberingName: string;
  vid: number;
  name: string;
}

/** Adds a VLAN, with its numbering where that is new. The colours of a numbering are taken in turn. */
export function createVlan(
  network: Network,
  { numberingId, numberingName, vid, name }: VlanWish,
): { ok: false; why: string } | (Attempt & { ok: true; vlan: Vlan }) {
  if (name.trim() === '') return refuse('Give the VLAN a name.');
  const numbering = numberingId ?? newId();
  if (numberingId === null && numberingName.trim() === '') return refuse('Give the VLAN numbering a name.');
  const vlan: Vlan = {
    ...blankVlan,
    id: newId(),
    numberingId: numbering,
    vid,
    name: name.trim(),
    colour: network.countOf('vlansByNumbering', numbering) % colourCount,
  };
  const attempt = judged(
    network,
    [
      ...(numberingId === null
        ? [create('vlanNumbering', { id: numbering, name: numberingName.trim(), notes: null })]
        : []),
      create('vlan', vlan),
    ],
    `Added VLAN ${vid} ${vlan.name}`,
  );
  return attempt.ok ? { ...attempt, vlan } : attempt;
}

/** Removes a VLAN; its prefixes stay without one, and ports keep its number. With the last of a numbering that nothing names the numbering goes too. */
export function deleteVlan(network: Network, vlan: Vlan): Attempt {
  const prefixes = network.find('prefixesByVlan', vlan.id);
  const numbering = network.get('vlanNumbering', vlan.numberingId);
  const named =
    network.countOf('placesByVlanNumbering', vlan.numberingId) +
    network.countOf('portsByVlanNumbering', vlan.numberingId);
  const last = named === 0 && network.countOf('vlansByNumbering', vlan.numberingId) === 1;
  return judged(
    network,
    removal(network, [
      { kind: 'vlan', id: vlan.id },
      ...(last && numbering !== null ? [{ kind: 'vlanNumbering' as const, id: numbering.id }] : []),
    ]).changes,
    `Deleted VLAN ${vlan.vid} ${vlan.name}${prefixes.length === 0 ? '' : `; ${prefixes.length} ${prefixes.length === 1 ? 'prefix stays' : 'prefixes stay'} without a VLAN`}`,
  );
}

/** What of a setting is left where the mode changes: a trunk keeps what it can, an access port its one VLAN. */
function inMode(now: PortSwitching, mode: PortSwitching['mode']): PortSwitching {
  if (mode === 'trunk')
    return { mode, untaggedVid: now.untaggedVid, taggedVids: now.taggedVids ?? [], voiceVid: null };
  if (mode === 'access')
    return { mode, untaggedVid: now.untaggedVid, taggedVids: null, voiceVid: now.voiceVid };
  return { mode, untaggedVid: null, taggedVids: null, voiceVid: null };
}

/** `access, untagged 40`: how a port or profile is set, in words. */
export const settingText = ({ mode, untaggedVid, taggedVids, voiceVid }: PortSwitching): string =>
  mode === null
    ? 'not switched'
    : [
        mode,
        untaggedVid === null ? null : `untagged ${untaggedVid}`,
        taggedVids === null ? null : `tagged ${formatVids(taggedVids) || 'none'}`,
        voiceVid === null ? null : `voice ${voiceVid}`,
      ]
        .filter((part) => part !== null)
        .join(', ');

/**
 * Sets ports for VLANs: the fields given, the others kept as far as the mode allows. Of a member of an aggregate the
 * aggregate is set. What contradicts itself is refused with the port and the number.
 */
export function setSwitching(
  network: Network,
  ports: readonly Port[],
  fields: Partial<PortSwitching>,
): Attempt {
  const targets = new Map(ports.map((port) => setPort(network, port)).map((port) => [port.id, port]));
  const changes: (Change | null)[] = [];
  let last: PortSwitching | null = null;
  for (const port of targets.values()) {
    last = { ...inMode(port, fields.mode === undefined ? port.mode : fields.mode), ...fields };
    changes.push(update('port', port, last));
  }
  const [first] = targets.values();
  if (first === undefined || last === null) return refuse('There is no port to set.');
  const what = targets.size === 1 ? portTitle(network, first.id).replace(':', ' ') : `${targets.size} ports`;
  return judged(network, changes, `Set ${what} to ${settingText(last)}`);
}
