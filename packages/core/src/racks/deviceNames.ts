import type { Device } from '../model/kinds/equipment/device.ts';
import type { Role } from '../model/values/roles.ts';
import type { Network } from '../model/network/network.ts';
import { devicesIn, devicesNotPlaced, placeChain, placesWithin, siteCode } from '../model/network/places.ts';

const numbered = /^(.*?)(\d+)$/;

/** The part of the names before the number that most of these devices share. */
function commonStem(devices: readonly Device[]): string | null {
  const counts = new Map<string, number>();
  for (const device of devices) {
    const stem = numbered.exec(device.name)?.[1];
    if (stem !== undefined) counts.set(stem, (counts.get(stem) ?? 0) + 1);
  }
  let best: string | null = null;
  for (const [stem, count] of counts) if (best === null || count > (counts.get(best) ?? 0)) best = stem;
  return best;
}

/**
 * The next name by the site's own pattern: the stem most used at the site for this model, otherwise for this
 * role, otherwise `<site code>-<role code>-`; then the number after the highest one in use. What is not placed yet has
 * no site: `rt-1`, and counts on from others like it.
 */
export function nextDeviceName(
  network: Network,
  placeId: string | null,
  role: Role,
  modelId: string | null,
): string {
  const site = placeChain(network, placeId)[0];
  const here =
    site === undefined ? devicesNotPlaced(network) : devicesIn(network, placesWithin(network, site.id));
  const code = siteCode(network, placeId);
  const ofRole = here.filter((device) => device.role === role);
  const stem =
    commonStem(ofRole.filter((device) => device.modelId === modelId)) ??
    commonStem(ofRole) ??
    `${code === null ? '' : `${code.toLowerCase()}-`}${role.toLowerCase()}-`;
  let number = 1;
  for (const device of here) {
    const match = numbered.exec(device.name);
    if (match?.[1]?.toLowerCase() === stem.toLowerCase()) number = Math.max(number, Number(match[2]) + 1);
  }
  while (network.findOne('deviceByName', `${stem}${number}`.toLowerCase()) !== null) number++;
  return `${stem}${number}`;
}
