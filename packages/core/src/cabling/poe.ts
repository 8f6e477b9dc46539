import { inForce } from '../lens/inForce.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { portsOf } from '../model/network/ports.ts';
import { classOf, type CableMedium } from '../model/network/plugs.ts';
import { portGroupOf } from '../catalogue/modelPorts.ts';
import { poeClasses, type PoeClass } from './poeClasses.ts';
import { traceRun, type Run } from './trace.ts';

const poeClass = (number: number): PoeClass | null => poeClasses[number === 0 ? 3 : number] ?? null;

/** Resistance of one conductor in ohms per metre at 20 °C: 24 AWG in Cat 5e, 23 AWG above (ASTM B258). */
const ohmsPerM = (medium: CableMedium | null): number =>
  medium === 'Cat 5e' || medium === null ? 0.0842 : 0.0668;

/**
 * Watts that leave the source for a device that takes `deviceW` at the end of copper this long. The current solves
 * V·I - R·I² = P (IEEE 802.3-2022 clause 145.3.8.2); R is the loop of the pairs used: two conductors out and two
 * back, or four and four. Infinite where the cable cannot carry it.
 */
export function sourceWatts(
  deviceW: number,
  lengthM: number,
  medium: CableMedium | null,
  number: number,
): number {
  const about = poeClass(number);
  if (about === null) return deviceW;
  const loop = ohmsPerM(medium) * lengthM * (about.fourPairs ? 0.5 : 1);
  if (loop === 0) return deviceW;
  const root = about.volts ** 2 - 4 * loop * deviceW;
  if (root < 0) return Infinity;
  return about.volts * ((about.volts - Math.sqrt(root)) / (2 * loop));
}

export interface PoweredPort {
  port: Port;
  device: Device;
  /** Class of the device, and the highest the port feeds. */
  class: number;
  sourceClass: number;
  lengthM: number;
  medium: CableMedium | null;
  /** What the switch sets aside for the class, and what the device draws at most, as it leaves the switch. */
  promisedW: number;
  drawnW: number;
}
export interface PoeLoad {
  budgetW: number | null;
  ports: PoweredPort[];
  promisedW: number;
  drawnW: number;
  /** Budget less what is promised; null without a stated budget. */
  leftW: number | null;
}

/** The highest class a port feeds; null where it feeds none. */
export const poeSource = (network: Network, port: Port): number | null =>
  portGroupOf(network, port)?.poeClass ?? null;

/** The class of a device as one that is fed; null when it needs none, or hangs on a supply of its own. */
export function poeDevice(network: Network, device: Device | null): number | null {
  const number = network.get('model', device?.modelId ?? null)?.poeClass ?? null;
  if (device === null || number === null) return null;
  const supplied = network
    .find('powerPortsByDevice', device.id)
    .some((port) => inForce(network).countOf('cablesByPort', port.id) > 0);
  return supplied ? null : number;
}

/** The weakest copper on a run, and whether all of it is copper. */
function copperOf(network: Network, run: Run): { medium: CableMedium | null; copper: boolean } {
  let medium: CableMedium | null = null;
  for (const hop of run.hops) {
    if ('circuit' in hop) return { medium, copper: false };
    if (!('cable' in hop)) continue;
    const found = network.get('model', network.get('cable', hop.cable)?.typeId ?? null)?.medium ?? null;
    if (found !== null && classOf(found) !== 'copper') return { medium, copper: false };
    if (medium === null || found === 'Cat 5e') medium = found;
  }
  return { medium, copper: true };
}

function poweredAt(network: Network, port: Port, sourceClass: number): PoweredPort | null {
  const run = traceRun(network, port.id);
  const far = network.get('port', run.to);
  const device = network.get('device', far?.deviceId ?? null);
  const number = poeDevice(network, device);
  if (device === null || number === null) return null;
  const { medium, copper } = copperOf(network, run);
  if (!copper) return null;
  // A source of a lower class gives what it can: the device then runs with less (clause 145.3.6).
  const given = Math.min(number === 0 ? 3 : number, sourceClass);
  const model = network.get('model', device.modelId);
  const most = poeClass(given)?.deviceW ?? 0;
  return {
    port,
    device,
    class: number,
    sourceClass,
    lengthM: run.lengthM,
    medium,
    promisedW: poeClass(given)?.sourceW ?? 0,
    drawnW: sourceWatts(Math.min(most, model?.maxPowerW ?? most), run.lengthM, medium, given),
  };
}

/** Every device a switch feeds, and how its budget stands. Null for what feeds nobody. */
export function poeLoad(whole: Network, device: Device): PoeLoad | null {
  const network = inForce(whole);
  const sources = portsOf(network, device.id).flatMap((port) => {
    const number = poeSource(network, port);
    return number === null ? [] : [{ port, number }];
  });
  if (sources.length === 0) return null;
  const budgetW = network.get('model', device.modelId)?.poeBudgetW ?? null;
  const ports = sources.flatMap(({ port, number }) => poweredAt(network, port, number) ?? []);
  const promisedW = ports.reduce((sum, one) => sum + one.promisedW, 0);
  const drawnW = ports.reduce((sum, one) => sum + one.drawnW, 0);
  return { budgetW, ports, promisedW, drawnW, leftW: budgetW === null ? null : budgetW - promisedW };
}
