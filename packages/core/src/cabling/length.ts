import type { Device } from '../model/kinds/device.ts';
import type { Network } from '../model/network.ts';
import { unitHeightMm } from '../racks/faceplate.ts';

/** Slack at each end, and the rise from the top of a rack to the tray above it, in metres. */
const slackPerEndM = 0.5;
const trayRiseM = 0.4;
const rackPitchM = 0.6;

export interface LengthEstimate {
  metres: number;
  /** The sum in words: "0.2 in the rack + 2 × 0.5 slack". */
  arithmetic: string;
}

const one = (value: number): string => value.toFixed(1);

/**
 * The length a cable needs between two racked devices: inside one rack along its side; between racks of one
 * place up to the tray, along it by 600 mm a rack, and down. Null where racks are in different places: there the
 * way is not known to the model.
 */
export function estimateLength(network: Network, a: Device, b: Device): LengthEstimate | null {
  const left = network.get('rack', a.rackId);
  const right = network.get('rack', b.rackId);
  if (left === null || right === null || left.placeId !== right.placeId) return null;
  const unit = unitHeightMm / 1000;
  const slack = 2 * slackPerEndM;
  if (left.id === right.id) {
    const inside = Math.abs((a.unit ?? 1) - (b.unit ?? 1)) * unit + 0.3;
    return { metres: inside + slack, arithmetic: `${one(inside)} in the rack + 2 × ${slackPerEndM} slack` };
  }
  const up = (left.units - (a.unit ?? 1)) * unit + trayRiseM;
  const down = (right.units - (b.unit ?? 1)) * unit + trayRiseM;
  const along = Math.max(1, Math.abs(left.position - right.position)) * rackPitchM;
  return {
    metres: up + along + down + slack,
    arithmetic: `${one(up)} up + ${one(along)} tray + ${one(down)} down + 2 × ${slackPerEndM} slack`,
  };
}
