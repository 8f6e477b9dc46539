import type { CablingRules, SingleModeLoss } from '../model/kinds/sites/project.ts';
import { classOf, isFibre, type CableMedium } from '../model/network/plugs.ts';

/**
 * Greatest attenuation of single-mode fibre in dB/km: ITU-T G.652.D 0.4 from 1310 to 1625 nm and 0.3 from 1530 to
 * 1565 nm; TIA-568.3-D 1.0 in buildings and 0.5 outdoors at 1310, 1383 and 1550 nm.
 */
const singleModeDbPerKm: Record<SingleModeLoss, (wavelengthNm: number) => number> = {
  'ITU-T G.652.D': (wavelengthNm) => (wavelengthNm >= 1530 && wavelengthNm <= 1565 ? 0.3 : 0.4),
  'TIA-568.3-D indoor': () => 1,
  'TIA-568.3-D outdoor': () => 0.5,
};

/** Greatest attenuation of installed fibre in dB/km. Multimode: TIA-568.3-D, 3.0 at 850 nm, 1.5 at 1300 nm. */
export function attenuationDbPerKm(
  medium: CableMedium,
  wavelengthNm: number,
  singleModeLoss: SingleModeLoss = 'ITU-T G.652.D',
): number | null {
  if (!isFibre(medium)) return null;
  if (classOf(medium) === 'multimode') return wavelengthNm < 1000 ? 3 : 1.5;
  return singleModeDbPerKm[singleModeLoss](wavelengthNm);
}

export interface LightPath {
  fibres: readonly { medium: CableMedium; lengthM: number }[];
  /** Connector pairs mated on the way; those in the transceivers count as part of these. */
  matedPairs: number;
  splices: number;
  wavelengthNm: number;
  /** Least power sent and least power needed, dBm. */
  launchMinDbm: number;
  sensitivityDbm: number;
}
export interface LightBudget {
  lossDb: number;
  budgetDb: number;
  marginDb: number;
  /** "10.00 km × 0.4 dB/km = 4.00 dB". */
  lines: string[];
}

const two = (value: number): string => value.toFixed(2);

/**
 * The optical power budget in dB: least launch power less sensitivity, less the loss of fibre, mated connectors and
 * splices (TIA-568.3-D annex C: loss = length x attenuation + connectors + splices).
 */
export function lightBudget(
  path: LightPath,
  rules: Pick<CablingRules, 'connectorLossDb' | 'spliceLossDb'> &
    Partial<Pick<CablingRules, 'singleModeLoss'>>,
): LightBudget {
  const lines: string[] = [];
  let lossDb = 0;
  const perMedium = new Map<CableMedium, number>();
  for (const { medium, lengthM } of path.fibres)
    perMedium.set(medium, (perMedium.get(medium) ?? 0) + lengthM);
  for (const [medium, lengthM] of perMedium) {
    const perKm = attenuationDbPerKm(medium, path.wavelengthNm, rules.singleModeLoss) ?? 0;
    const loss = (lengthM / 1000) * perKm;
    lossDb += loss;
    lines.push(`${two(lengthM / 1000)} km ${medium} × ${perKm} dB/km = ${two(loss)} dB`);
  }
  const counted = (count: number, each: number, what: string): void => {
    if (count === 0) return;
    lossDb += count * each;
    lines.push(`${count} ${count === 1 ? what : `${what}s`} × ${each} dB = ${two(count * each)} dB`);
  };
  counted(path.matedPairs, rules.connectorLossDb, 'mated connector');
  counted(path.splices, rules.spliceLossDb, 'splice');
  const budgetDb = path.launchMinDbm - path.sensitivityDbm;
  return { lossDb, budgetDb, marginDb: budgetDb - lossDb, lines };
}
