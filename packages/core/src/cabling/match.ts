import { stockOf } from './stock.ts';
import { connectors, ratedAmps, strandsOf, type Connector } from '../model/values/connectors.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { filledBy, portsOf } from '../model/network/ports.ts';
import { classOf, fitsCage, isCage, plugsInto } from '../model/network/plugs.ts';
import { strandsBehind, strandsPerLeg } from '../model/network/strands.ts';
import { deviceWatts } from '../catalogue/figures.ts';
import { faultText } from './fault.ts';
import { judgeLink, activeEnd, pairing, partsOf, type Link, type ActiveEnd } from './link.ts';
import { speedText } from '../model/values/speed.ts';
import { cablingRules } from './rules.ts';
import { traceRun } from './trace.ts';

type Optics = NonNullable<CatalogueModel['optics']>;

/** Media in the order in which they are offered where several would do. */
const preference: readonly CatalogueModel['medium'][] = [
  'twinax',
  'Cat 6',
  'Cat 6A',
  'Cat 5e',
  'Cat 7',
  'active twinax',
  'OM4',
  'OS2',
  'OM5',
  'OM3',
  'active optical',
];

export const cableTypes = (network: Network): CatalogueModel[] =>
  [...network.all('model')].filter((model) => model.form === 'cable' && !model.retired);

const transceiversOf = (network: Network): CatalogueModel[] =>
  [...network.all('model')].filter(
    (model) => model.form === 'transceiver' && !model.retired && model.optics !== null,
  );

/** Where a plug can go: into the port itself, through an optic in its cage, or nowhere. */
function entry(plug: Connector, port: Pick<Port, 'connector'>): 'direct' | 'optic' | 'no' {
  if (port.connector === null || plugsInto(plug, port.connector)) return 'direct';
  if (!isCage(port.connector) || isCage(plug)) return 'no';
  return connectors[plug].family === 'fibre' || plug === 'RJ45' ? 'optic' : 'no';
}

/** The orientations in which a cable type plugs into two ports: which of its ends goes to the first. */
function orientations(type: CatalogueModel, a: Port, b: Port): ('ab' | 'ba')[] {
  const [left, right] = type.ends ?? [];
  if (left === undefined || right === undefined) return [];
  const found: ('ab' | 'ba')[] = [];
  if (entry(left, a) !== 'no' && entry(right, b) !== 'no') found.push('ab');
  const same = left === right && type.legsA === type.legsB;
  if (!same && entry(left, b) !== 'no' && entry(right, a) !== 'no') found.push('ba');
  return found;
}

/** Why no cable whatever joins two ports; null when one could. */
export function clash(a: Port, b: Port): string | null {
  if (a.id === b.id) return 'the same port';
  const power = [a.role, b.role].filter((role) => role === 'powerIn' || role === 'powerOut');
  if (power.length === 1) return 'power to data';
  if (power.length === 2 && a.role === b.role)
    return a.role === 'powerIn' ? 'both take power' : 'both give power';
  return null;
}

/** Why no cable of these types joins two ports, or null when one does. Does not look at whether they are free. */
export function mismatch(types: readonly CatalogueModel[], a: Port, b: Port): string | null {
  const never = clash(a, b);
  if (never !== null) return never;
  if (a.connector === null || b.connector === null) return null;
  if (types.some((type) => orientations(type, a, b).length > 0)) return null;
  return `no cable from ${connectors[a.connector].label} to ${connectors[b.connector].label}`;
}

export interface BEnd {
  port: Port;
  /** Why the port cannot be chosen; null when it can. */
  refused: string | null;
}

/** The ports of a device as B ends for a port: those that are free and match first in port order, with reasons for the rest. */
export function bEnds(network: Network, a: Port | null, ports: readonly Port[]): BEnd[] {
  const types = cableTypes(network);
  const known = new Map<string, string | null>();
  return ports.map((port) => {
    const filled = filledBy(network, port.id);
    if (filled !== null) return { port, refused: filled };
    if (port.reserved !== null) return { port, refused: `reserved: ${port.reserved}` };
    if (a === null) return { port, refused: null };
    if (port.id === a.id) return { port, refused: 'the same port' };
    const key = `${port.connector ?? ''}/${port.role}`;
    if (!known.has(key)) known.set(key, mismatch(types, a, port));
    return { port, refused: known.get(key) ?? null };
  });
}

/** One way to join two ports. */
export interface Way {
  type: CatalogueModel;
  /** The stock length proposed, in metres; null when the way is not known. */
  lengthM: number | null;
  /** Transceivers to be put into cages for it; those that sit in one already are not listed. */
  optics: { port: Port; model: CatalogueModel }[];
  /** Further ports that its further plugs go to, at either end. */
  aLegs: Port[];
  bLegs: Port[];
  /** Cable and new transceivers, in minor units; null where a price is missing. */
  priceMinor: number | null;
  currency: string | null;
  speedBps: number | null;
  marginDb: number | null;
  reason: string;
  warnings: string[];
}
export interface NoWay {
  type: CatalogueModel;
  reason: string;
}
export interface Ways {
  fits: Way[];
  doesNotFit: NoWay[];
}

/** What lies behind a port that is picked: for a panel the run at its other face, up to the active port there. */
interface Behind extends Pick<Link, 'spans' | 'matedPairs' | 'splices'> {
  end: ActiveEnd | null;
  lengthM: number;
}

function behind(network: Network, port: Port): Behind {
  if (port.role !== 'panel')
    return { end: activeEnd(network, port), spans: [], matedPairs: 0, splices: 0, lengthM: 0 };
  const run = traceRun(network, port.id);
  const far = network.get('port', run.to);
  const parts = partsOf(network, run);
  return {
    ...parts,
    end: far === null || far.role === 'panel' ? null : activeEnd(network, far),
    lengthM: run.lengthM,
  };
}

/** Free ports like this one, in order after it, for the further plugs of a breakout or a trunk. */
function furtherPorts(network: Network, port: Port, count: number): Port[] {
  if (count === 0) return [];
  const alike = portsOf(network, port.deviceId).filter(
    (other) =>
      other.connector === port.connector &&
      other.role === port.role &&
      other.face === port.face &&
      other.ordinal > port.ordinal &&
      other.reserved === null &&
      filledBy(network, other.id) === null,
  );
  return alike.slice(0, count);
}

interface Try {
  network: Network;
  a: Port;
  b: Port;
  left: Behind;
  right: Behind;
  neededM: number | null;
  transceivers: readonly CatalogueModel[];
}

/** The transceivers an end may have: the one in its cage, or all that would go in and take the plug. */
function candidates(
  end: ActiveEnd | null,
  plug: Connector,
  list: readonly CatalogueModel[],
): (CatalogueModel | null)[] {
  if (end === null || !isCage(end.port.connector)) return [null];
  if (end.transceiver !== null || isCage(plug)) return [end.transceiver];
  const speed = end.port.speedBps ?? Infinity;
  const takes = (optics: Optics): boolean =>
    optics.connector === plug && optics.speedBps <= speed && fitsCage(optics.formFactor, end.port.connector);
  return list.filter((model) => model.optics !== null && takes(model.optics));
}

const withOptic = (end: ActiveEnd | null, transceiver: CatalogueModel | null): ActiveEnd | null =>
  end === null ? null : { ...end, transceiver };

interface Chosen {
  link: Link;
  judged: ReturnType<typeof judgeLink>;
  newOptics: { port: Port; model: CatalogueModel }[];
  price: number;
}

const priceOf = (models: readonly CatalogueModel[]): number =>
  models.reduce((sum, model) => sum + (model.priceMinor ?? 0), 0);

/** The best pair of transceivers for a run over this type: fastest, then cheapest; or why there is none. */
function chooseOptics(
  ask: Try,
  type: CatalogueModel,
  plugs: [Connector, Connector],
  lanes: { a: number; b: number },
  lengthM: number | null,
): Chosen | string {
  const { left, right } = ask;
  const rules = cablingRules(ask.network);
  const spans = [...left.spans.slice().reverse(), { cableId: null, type, lengthM }, ...right.spans];
  const matedPairs = left.matedPairs + right.matedPairs;
  const splices = left.splices + right.splices;
  // Behind a panel the optic takes the plug of the cable that hangs on it, not of the one being laid.
  const plugAt = (side: Behind, own: Connector): Connector =>
    side.spans.at(-1)?.type?.ends?.find((plug) => !isCage(plug) && plug !== 'splice') ?? own;
  const forA = candidates(left.end, plugAt(left, plugs[0]), ask.transceivers);
  const forB = candidates(right.end, plugAt(right, plugs[1]), ask.transceivers);
  let best: Chosen | null = null;
  let why = 'there is no transceiver that fits';
  for (const one of forA) {
    for (const other of forB) {
      const link: Link = {
        a: withOptic(left.end, one),
        b: withOptic(right.end, other),
        spans,
        matedPairs,
        splices,
        lanes,
      };
      const judged = judgeLink(link, rules);
      const bad = judged.faults.find((fault) => fault.severity === 'bad');
      if (bad !== undefined) {
        if (forA.length * forB.length === 1 || bad.about !== 'optics') why = faultText(ask.network, bad);
        continue;
      }
      const newOptics: Chosen['newOptics'] = [];
      if (one !== null && left.end?.transceiver === null) newOptics.push({ port: left.end.port, model: one });
      if (other !== null && right.end?.transceiver === null)
        newOptics.push({ port: right.end.port, model: other });
      const chosen = { link, judged, newOptics, price: priceOf(newOptics.map(({ model }) => model)) };
      const faster = (judged.speedBps ?? 0) - (best?.judged.speedBps ?? 0);
      if (best === null || faster > 0 || (faster === 0 && chosen.price < best.price)) best = chosen;
    }
  }
  return best ?? why;
}

const oneDecimal = (value: number): string => (Math.round(value * 10) / 10).toString();

/** The shortest stock length that reaches; the length itself where none is stated; why not when none does. */
function stockLength(type: CatalogueModel, neededM: number | null): { lengthM: number | null } | string {
  if (neededM === null) return { lengthM: null };
  if (type.stockLengthsM.length === 0) return { lengthM: Math.ceil(neededM * 10) / 10 };
  const fitting = type.stockLengthsM.filter((length) => length >= neededM);
  if (fitting.length > 0) return { lengthM: Math.min(...fitting) };
  return `the longest is ${oneDecimal(Math.max(...type.stockLengthsM))} m, the run is ${oneDecimal(neededM)} m`;
}

function cablePrice(type: CatalogueModel, lengthM: number | null): number | null {
  const stock = stockOf(type, lengthM);
  return stock?.in === true ? stock.priceMinor : null;
}

/** A cord above what its connectors are made for (IEC 60320-1: 10 A for C13, 16 A for C19), at 230 V. */
function powerWarnings({ network, a, b }: Try, type: CatalogueModel): string[] {
  const inlet = a.role === 'powerIn' ? a : b;
  const device = network.get('device', inlet.deviceId);
  if (device === null || type.ends === null) return [];
  const amps = Math.min(...type.ends.map((plug) => ratedAmps[plug] ?? Infinity));
  const watts = deviceWatts(network, device).maxW;
  return watts / 230 > amps
    ? [`${device.name} draws up to ${oneDecimal(watts / 230)} A, the cord is made for ${amps} A`]
    : [];
}

const strandText = (type: CatalogueModel, port: Port, legs: number, network: Network): string | null => {
  const each = strandsPerLeg(type, legs);
  const room =
    strandsBehind(network, port) ?? (port.connector === null ? null : strandsOf[port.connector]) ?? null;
  return each !== null && room !== null && each > room
    ? `it brings ${each} strands to ${port.name}, which connects ${room}`
    : null;
};

function reasonOf(ask: Try, type: CatalogueModel, chosen: Chosen, legs: number): string {
  const { speedBps, light } = chosen.judged;
  const speed = speedBps === null ? '' : speedText(speedBps);
  const names = [chosen.link.a, chosen.link.b].flatMap((end) =>
    end?.transceiver == null ? [] : [end.transceiver.name],
  );
  const parts: string[] = [];
  if (legs > 1) parts.push(`${legs} legs`);
  if (speed !== '') parts.push(legs > 1 ? `${speed} each` : speed);
  if (names.length > 0) {
    const kept = 2 - chosen.newOptics.length;
    const both =
      names.length === 2 && names[0] === names[1] ? `${names[0] ?? ''} at both ends` : names.join(' and ');
    parts.push(
      kept >= names.length && names.length > 0 && chosen.newOptics.length === 0 ? `${both}, in place` : both,
    );
  } else if (type.ends?.some((plug) => isCage(plug)) === true) parts.push('no transceiver needed');
  if (light !== null) parts.push(`${light.marginDb.toFixed(1)} dB to spare`);
  if (type.medium !== null && classOf(type.medium) === 'copper') {
    const wiring = pairing(ask.network, ask.a, ask.b);
    if (wiring !== 'either') parts.push(`${wiring}, as the ports are wired`);
  }
  return parts.length === 0 ? 'plugs into both ports' : parts.join(', ');
}

function judgeType(ask: Try, type: CatalogueModel): (Way & { rank: number }) | NoWay | null {
  const no = (reason: string): NoWay => ({ type, reason });
  let refused: NoWay | null = null;
  for (const way of orientations(type, ask.a, ask.b)) {
    const [left, right] = way === 'ab' ? (type.ends ?? []) : [...(type.ends ?? [])].reverse();
    if (left === undefined || right === undefined) continue;
    const legs = way === 'ab' ? { a: type.legsA, b: type.legsB } : { a: type.legsB, b: type.legsA };
    if (type.crossed || (type.medium !== null && classOf(type.medium) === 'copper')) {
      const wiring = pairing(ask.network, ask.a, ask.b);
      if (wiring !== 'either' && (wiring === 'crossed') !== type.crossed)
        return no(`the ports need a ${wiring} cable`);
    }
    // Trunks with several plugs at both ends are laid between the backs of panels.
    if (legs.a > 1 && legs.b > 1 && (ask.a.role !== 'panel' || ask.b.role !== 'panel')) return null;
    const strands =
      strandText(type, ask.a, legs.a, ask.network) ?? strandText(type, ask.b, legs.b, ask.network);
    if (strands !== null) {
      refused = no(strands);
      continue;
    }
    const stock = stockLength(type, ask.neededM);
    if (typeof stock === 'string') {
      refused = no(stock);
      continue;
    }
    const lanes = legs.a === legs.b ? { a: 1, b: 1 } : { a: legs.b, b: legs.a };
    const chosen = chooseOptics(ask, type, [left, right], lanes, stock.lengthM ?? ask.neededM);
    if (typeof chosen === 'string') {
      refused = no(chosen);
      continue;
    }
    const aLegs = furtherPorts(ask.network, ask.a, legs.a - 1);
    const bLegs = furtherPorts(ask.network, ask.b, legs.b - 1);
    const loose = legs.a - 1 - aLegs.length + (legs.b - 1 - bLegs.length);
    const cable = cablePrice(type, stock.lengthM);
    const optics = chosen.newOptics;
    for (const leg of legs.a > legs.b ? aLegs : bLegs) {
      const model = (legs.a > legs.b ? chosen.link.a : chosen.link.b)?.transceiver ?? null;
      if (model !== null && isCage(leg.connector) && leg.transceiverId === null)
        optics.push({ port: leg, model });
    }
    const priced = [type, ...optics.map(({ model }) => model)].filter((model) => model.currency !== null);
    const priceMinor = cable === null ? null : cable + priceOf(optics.map(({ model }) => model));
    const warnings = [
      ...chosen.judged.faults.map((fault) => faultText(ask.network, fault)),
      ...(ask.a.role === 'powerIn' || ask.b.role === 'powerIn' ? powerWarnings(ask, type) : []),
      ...(loose > 0
        ? [`${loose} ${loose === 1 ? 'leg hangs' : 'legs hang'} loose: no free port for it`]
        : []),
    ];
    const can = Math.min(ask.a.speedBps ?? Infinity, ask.b.speedBps ?? Infinity);
    const { speedBps, light } = chosen.judged;
    if (speedBps !== null && Number.isFinite(can) && speedBps < can && legs.a === legs.b)
      warnings.push(`runs at ${speedText(speedBps)}; the ports could do ${speedText(can)}`);
    const place = preference.indexOf(type.medium);
    const slower = speedBps !== null && Number.isFinite(can) && speedBps < can && legs.a === legs.b;
    return {
      type,
      lengthM: stock.lengthM,
      optics,
      aLegs,
      bLegs,
      priceMinor,
      currency: priced[0]?.currency ?? null,
      speedBps,
      marginDb: light?.marginDb ?? null,
      reason: reasonOf(ask, type, chosen, Math.max(legs.a, legs.b)),
      warnings,
      rank:
        (slower ? 1000 : 0) +
        (warnings.length > 0 ? 200 : 0) +
        (legs.a > 1 && legs.b > 1 ? 150 : 0) +
        (type.crossed && pairing(ask.network, ask.a, ask.b) === 'either' ? 40 : 0) +
        // Copper between cages wants hot and dear transceivers: fibre comes first.
        (optics.length === 0 ? 0 : type.medium !== null && classOf(type.medium) === 'copper' ? 80 : 50) +
        (place < 0 ? preference.length : place),
    };
  }
  return refused;
}

/**
 * The ways to join two ports, best first, each with its reason; and what does not fit though its plugs do, with the
 * reason. `neededM` picks the stock length. Transceivers that sit in a cage are used; missing ones are proposed in
 * matched pairs, at the far ends of panels as well.
 */
export function waysToJoin(network: Network, a: Port, b: Port, neededM: number | null): Ways {
  const types = cableTypes(network);
  if (mismatch(types, a, b) !== null) return { fits: [], doesNotFit: [] };
  const ask: Try = {
    network,
    a,
    b,
    left: behind(network, a),
    right: behind(network, b),
    neededM,
    transceivers: transceiversOf(network),
  };
  const fits: (Way & { rank: number })[] = [];
  const doesNotFit: NoWay[] = [];
  for (const type of types) {
    const result = judgeType(ask, type);
    if (result === null) continue;
    if ('rank' in result) fits.push(result);
    else doesNotFit.push(result);
  }
  return {
    fits: fits
      .sort((x, y) => x.rank - y.rank || (modelTitle(x.type) < modelTitle(y.type) ? -1 : 1))
      .map(({ rank: _rank, ...way }) => way),
    doesNotFit,
  };
}
