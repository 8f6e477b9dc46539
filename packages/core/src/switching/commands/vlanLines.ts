import type { Network } from '../../model/network/network.ts';
import { readVids } from '../../model/values/vids.ts';
import { wayText } from '../vlanMatrix.ts';
import type { LineOption } from '../../commands/lineOption.ts';
import { deviceRange } from '../../cabling/commands/portRange.ts';
import { applyProfile, bridgeNamed, carryVlan, type CarryStep } from './vlanMarks.ts';
import { settingText } from './vlans.ts';

const refuse = (title: string, detail: string): LineOption[] => [{ does: 'refuse', title, detail }];

/** `kq-acc-3 te1/50 and kq-core te1/3`: the ends that a step changes. */
const changedEnds = (steps: readonly CarryStep[]): string =>
  steps
    .flatMap(({ ends }) => ends.filter(({ wish }) => wish !== null).map(({ at }) => wayText(at)))
    .join(', ');

/** `carry VLAN 40 from kq-acc-3 to kq-core`. */
export function carryLine(network: Network, what: string, from: string, to: string): LineOption[] {
  const read = readVids(what);
  const [vid, ...more] = read.ok && read.vids !== 'all' ? read.vids : [];
  if (!read.ok) return refuse('Carry', `${read.reason}.`);
  if (vid === undefined || more.length > 0) return refuse('Carry', 'Write one VLAN number, such as 40.');
  const [a, b] = [bridgeNamed(network, from), bridgeNamed(network, to)];
  if (a === null || b === null)
    return refuse('Carry', `There is no switch or pair ${(a === null ? from : to).trim()}.`);
  const carry = carryVlan(network, a, b, vid);
  const title = `Carry VLAN ${vid}`;
  if (!carry.ok) return refuse(title, carry.why);
  if (!carry.attempt.ok) return refuse(title, carry.attempt.why);
  const way = carry.way.map((bridge) => bridge.name).join(' – ');
  return [
    {
      does: 'change',
      title: `${title}: ${way}`,
      detail: `adds it at ${changedEnds(carry.steps)}`,
      set: carry.attempt.set,
    },
  ];
}

/** `set kq-acc-5 gi1/3-10 as Camera port`. */
export function profileLine(network: Network, ports: string, profileName: string): LineOption[] {
  const wanted = profileName.trim().toLowerCase();
  const profiles = [...network.all('portProfile')];
  const fitting = profiles.filter((profile) => profile.name.toLowerCase().includes(wanted));
  const exact = fitting.filter((profile) => profile.name.toLowerCase() === wanted);
  const chosen = exact.length > 0 ? exact : fitting;
  if (chosen.length === 0)
    return refuse(
      'Set ports',
      profiles.length === 0
        ? 'There is no port profile yet. Add one in VLANs, under Profiles.'
        : `There is no port profile “${profileName.trim()}”. There are: ${profiles.map((one) => one.name).join(', ')}.`,
    );
  const range = deviceRange(network, ports);
  if (!range.ok) return refuse('Set ports', range.why);
  return chosen.map((profile): LineOption => {
    const attempt = applyProfile(network, range.ports, profile);
    const title = `Set ${range.ports.length === 1 ? ports.trim() : `${range.ports.length} ports`} as ${profile.name}`;
    return attempt.ok
      ? { does: 'change', title, detail: settingText(profile), set: attempt.set }
      : { does: 'refuse', title, detail: attempt.why };
  });
}
