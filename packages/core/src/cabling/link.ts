import { connectors, type Connector } from '../model/values/connectors.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { CablingRules } from '../model/kinds/sites/project.ts';
import type { Network } from '../model/network/network.ts';
import { endsOf } from '../model/network/ports.ts';
import { classOf, isCage, isFibre, plugsInto, type CableMedium } from '../model/network/plugs.ts';
import { portGroupOf } from '../catalogue/modelPorts.ts';
import { lightBudget, type LightBudget } from './light.ts';
import { poeDevice, poeSource } from './poe.ts';
import type { Fault, FaultAspect, FaultFacts, OpticsDisagree } from './fault.ts';
import { cablingRules } from './rules.ts';
import type { Run } from './trace.ts';

/** An active port at one end of a run, with what sits in its cage. */
export interface ActiveEnd {
  port: Port;
  transceiver: CatalogueModel | null;
  poeSource: number | null;
  poeDevice: number | null;
}
/** One cable of a run. */
export interface Span {
  /** Null where it is only proposed. */
  cableId: string | null;
  type: CatalogueModel | null;
  lengthM: number | null;
}
/** All that decides whether two active ports understand each other over a run. */
export interface Link {
  a: ActiveEnd | null;
  b: ActiveEnd | null;
  spans: readonly Span[];
  matedPairs: number;
  splices: number;
  /** Over a breakout the port at one side serves this many links. */
  lanes: { a: number; b: number };
}

export interface Judgement {
  /** What the link runs at; null where a speed is not known. */
  speedBps: number | null;
  lengthM: number;
  light: LightBudget | null;
  faults: Fault[];
}

/** Top speed of balanced copper over a channel, and how far (TIA-568.2-D; IEEE 802.3 clauses 40, 55, 126). */
const copperLimits: Partial<Record<CableMedium, { speedBps: number; reachM: number }[]>> = {
  'Cat 5e': [{ speedBps: 2.5e9, reachM: 100 }],
  'Cat 6': [
    { speedBps: 5e9, reachM: 100 },
    { speedBps: 1e10, reachM: 55 },
  ],
  'Cat 6A': [{ speedBps: 1e10, reachM: 100 }],
  'Cat 7': [{ speedBps: 1e10, reachM: 100 }],
};
/** Reach of a passive direct-attach cable by speed (IEEE 802.3 clauses 92, 110; 7 m at 10G is common practice). */
const twinaxReachM = (bps: number): number => (bps <= 1e10 ? 7 : bps === 4e10 ? 7 : 5);
/** What a plug form of direct-attach cable carries. */
const formSpeedBps: Partial<Record<Connector, number>> = {
  SFP: 1e9,
  'SFP+': 1e10,
  SFP28: 2.5e10,
  'QSFP+': 4e10,
  QSFP28: 1e11,
};

/** How far copper of this category carries a speed, in metres; null when it does not. */
export function copperReachM(medium: CableMedium, bps: number): number | null {
  const fitting = (copperLimits[medium] ?? []).filter((limit) => limit.speedBps >= bps);
  return fitting.length === 0 ? null : Math.max(...fitting.map((limit) => limit.reachM));
}

const isDirect = (span: Span): boolean => span.type?.ends?.some((plug) => isCage(plug)) === true;

/** The speed one end can do over these cables. */
function endSpeed(end: ActiveEnd, spans: readonly Span[], lanes: number): number | null {
  const plug = spans.find(isDirect)?.type?.ends;
  const forms = plug?.flatMap((one) => formSpeedBps[one] ?? []) ?? [];
  const own =
    end.transceiver?.optics?.speedBps ??
    (forms.length > 0 ? Math.min(end.port.speedBps ?? Infinity, Math.max(...forms)) : end.port.speedBps);
  return own === null || !Number.isFinite(own) ? null : own / lanes;
}

/** Two of a kind in an order of their own, so that it does not matter from which end they are seen. */
const pair = <T>(a: T, b: T): [T, T] => (JSON.stringify(a) <= JSON.stringify(b) ? [a, b] : [b, a]);

/** What two transceivers facing each other disagree on; null when they belong together. */
export function opticsDisagree(
  a: CatalogueModel,
  b: CatalogueModel,
  lanes: { a: number; b: number } = { a: 1, b: 1 },
): OpticsDisagree | null {
  const [left, right] = [a.optics, b.optics];
  if (left === null || right === null) return null;
  const both = pair({ modelId: a.id }, { modelId: b.id });
  const speeds = [left.speedBps / lanes.a, right.speedBps / lanes.b] as const;
  if (speeds[0] !== speeds[1])
    return {
      by: 'speed',
      optics: pair({ modelId: a.id, laneBps: speeds[0] }, { modelId: b.id, laneBps: speeds[1] }),
    };
  if (a.medium !== null && b.medium !== null && classOf(a.medium) !== classOf(b.medium))
    return {
      by: 'class',
      optics: pair({ modelId: a.id, made: classOf(a.medium) }, { modelId: b.id, made: classOf(b.medium) }),
    };
  // Bidirectional optics send and receive on one strand: each must send what the other receives.
  const paired = (optics: typeof left): boolean => optics.wavelengthsNm.length === 2;
  if (paired(left) || paired(right)) {
    const [sent, heard] = left.wavelengthsNm;
    if (paired(left) !== paired(right)) return { by: 'one is bidirectional', optics: both };
    if (right.wavelengthsNm[0] === heard && right.wavelengthsNm[1] === sent) return null;
    if (right.wavelengthsNm[0] === sent) return { by: 'both send alike', optics: both, nm: sent ?? null };
  }
  const same =
    !paired(left) &&
    left.wavelengthsNm.length === right.wavelengthsNm.length &&
    left.wavelengthsNm.every((wave, at) => Math.abs(wave - (right.wavelengthsNm[at] ?? 0)) <= 20);
  return same
    ? null
    : {
        by: 'wavelength',
        optics: pair({ modelId: a.id, nm: left.wavelengthsNm }, { modelId: b.id, nm: right.wavelengthsNm }),
      };
}

type Add = (severity: Fault['severity'], about: FaultAspect, facts: FaultFacts) => void;

function judgeOptics(link: Link, lengthM: number, rules: CablingRules, add: Add): LightBudget | null {
  const { a, b } = link;
  const cages = [a, b].filter((end): end is ActiveEnd => end !== null && isCage(end.port.connector));
  if (link.spans.some(isDirect)) {
    for (const { transceiver, port } of cages)
      if (transceiver !== null)
        add('bad', 'plug', { is: 'optic before direct cable', portId: port.id, modelId: transceiver.id });
    return null;
  }
  for (const end of cages)
    if (end.transceiver === null && link.spans.length > 0)
      add('warn', 'optics', { is: 'empty cage', portId: end.port.id });
  const left = a?.transceiver ?? null;
  const right = b?.transceiver ?? null;
  const about = left !== null && right !== null ? opticsDisagree(left, right, link.lanes) : null;
  if (about !== null) add('bad', 'optics', { is: 'optics disagree', about });
  for (const { port, transceiver } of cages) {
    const optics = transceiver?.optics ?? null;
    if (transceiver === null || optics === null) continue;
    const own = transceiver.medium;
    // The nearest to it, so that the same is told from whichever end the run is followed.
    const nearest = port === link.a?.port ? link.spans : link.spans.toReversed();
    const other = nearest.find(
      ({ type }) => type?.medium != null && own !== null && classOf(type.medium) !== classOf(own),
    );
    const at = { portId: port.id, modelId: transceiver.id };
    if (other?.type?.medium != null && own !== null)
      add('bad', 'medium', {
        is: 'optic for other medium',
        ...at,
        made: classOf(own),
        cableId: other.cableId,
        medium: other.type.medium,
      });
    if (optics.reachM < lengthM)
      add('bad', 'reach', { is: 'optic too short', ...at, reachM: optics.reachM, lengthM });
  }
  return judgeLight(link, add, rules);
}

function judgeLight(link: Link, add: Add, rules: CablingRules): LightBudget | null {
  const fibres = link.spans.flatMap(({ type, lengthM }) =>
    type?.medium != null && isFibre(type.medium) ? [{ medium: type.medium, lengthM: lengthM ?? 0 }] : [],
  );
  const sides = [
    [link.a, link.b],
    [link.b, link.a],
  ] as const;
  let worst: LightBudget | null = null;
  for (const [from, to] of sides) {
    const sent = from?.transceiver?.optics ?? null;
    const heard = to?.transceiver?.optics ?? null;
    const wavelengthNm = sent?.wavelengthsNm[0];
    if (sent === null || heard === null || wavelengthNm === undefined || fibres.length === 0) continue;
    if (sent.launchMinDbm === null || heard.sensitivityDbm === null) continue;
    const budget = lightBudget(
      {
        fibres,
        matedPairs: link.matedPairs,
        splices: link.splices,
        wavelengthNm,
        launchMinDbm: sent.launchMinDbm,
        sensitivityDbm: heard.sensitivityDbm,
      },
      rules,
    );
    if (worst === null || isWorse(budget, worst)) worst = budget;
  }
  if (worst !== null && worst.marginDb < 0)
    add('bad', 'light', {
      is: 'too little light',
      shortDb: Math.abs(worst.marginDb),
      lossDb: worst.lossDb,
      budgetDb: worst.budgetDb,
    });
  return worst;
}

/** Which way has less light left; where both have the same, the one that loses more is told, from whichever end one looks. */
const isWorse = (one: LightBudget, other: LightBudget): boolean =>
  one.marginDb < other.marginDb || (one.marginDb === other.marginDb && one.lossDb > other.lossDb);

function judgeMedia(link: Link, lengthM: number, speedBps: number | null, add: Add): void {
  const kinds = new Set<string>(
    link.spans.flatMap(({ type }) => (type?.medium == null ? [] : [classOf(type.medium)])),
  );
  const media = ['single-mode', 'multimode', 'copper'].filter((one) => kinds.has(one));
  if (media.length > 1) add('bad', 'medium', { is: 'media differ', media });
  const copperM = link.spans.reduce(
    (sum, span) =>
      sum + (span.type?.medium != null && classOf(span.type.medium) === 'copper' ? (span.lengthM ?? 0) : 0),
    0,
  );
  for (const { type, cableId } of link.spans) {
    const medium = type?.medium ?? null;
    if (medium === null || speedBps === null) continue;
    if (classOf(medium) === 'copper') {
      const reachM = copperReachM(medium, speedBps);
      if (reachM === null) add('bad', 'speed', { is: 'copper too slow', cableId, medium, speedBps });
      else if (copperM > reachM)
        add('bad', 'reach', { is: 'copper too long', medium, speedBps, reachM, lengthM: copperM });
    } else if (medium === 'twinax' && lengthM > twinaxReachM(speedBps)) {
      add('bad', 'reach', { is: 'twinax too long', speedBps, reachM: twinaxReachM(speedBps), lengthM });
    }
  }
}

function judgePower(link: Link, add: Add): void {
  const sides = [
    [link.a, link.b],
    [link.b, link.a],
  ] as const;
  for (const [from, to] of sides) {
    if (to?.poeDevice == null || from === null || to.port.role === 'powerIn') continue;
    const wanted = to.poeDevice === 0 ? 3 : to.poeDevice;
    const gives = from.poeSource;
    if (gives === null || gives >= wanted) continue;
    add('warn', 'poe', { is: 'class too low', portId: to.port.id, wanted, sourceId: from.port.id, gives });
  }
}

/** What a link runs at, what is left of its light, and what is wrong with it, worst first. */
export function judgeLink(link: Link, rules: CablingRules): Judgement {
  const faults: Fault[] = [];
  const add: Add = (severity, about, facts) => void faults.push({ severity, about, facts });
  const lengthM = link.spans.reduce((sum, span) => sum + (span.lengthM ?? 0), 0);
  const speeds = [
    link.a === null ? null : endSpeed(link.a, link.spans, link.lanes.a),
    link.b === null ? null : endSpeed(link.b, link.spans, link.lanes.b),
  ].filter((speed) => speed !== null);
  const speedBps = speeds.length === 0 ? null : Math.min(...speeds);
  const light = judgeOptics(link, lengthM, rules, add);
  judgeMedia(link, lengthM, speedBps, add);
  judgePower(link, add);
  return {
    speedBps,
    lengthM,
    light,
    faults: faults.sort((a, b) => Number(a.severity === 'warn') - Number(b.severity === 'warn')),
  };
}

export function activeEnd(network: Network, port: Port): ActiveEnd {
  const device = network.get('device', port.deviceId);
  return {
    port,
    transceiver: network.get('model', port.transceiverId),
    poeSource: poeSource(network, port),
    poeDevice: poeDevice(network, device),
  };
}

/**
 * Connectors mated and splices passed inside a device, from one of its ports to the other: a plug on both sides of one
 * coupler is one mated pair, two different plugs are two with fibre between them, a pigtail is a plug and a splice.
 */
export function passing(a: Port | null, b: Port | null): { matedPairs: number; splices: number } {
  const fibre = (port: Port | null): boolean =>
    port?.connector != null && connectors[port.connector].family === 'fibre';
  if (!fibre(a) || !fibre(b)) return { matedPairs: 0, splices: 0 };
  const spliced = [a, b].filter((port) => port?.connector === 'splice').length;
  if (spliced > 0) return { matedPairs: 2 - spliced, splices: 1 };
  return { matedPairs: a?.connector === b?.connector ? 1 : 2, splices: 0 };
}

/** The cables, connectors and splices of a run or a part of one. */
export function partsOf(
  network: Network,
  run: Pick<Run, 'hops'>,
): Pick<Link, 'spans' | 'matedPairs' | 'splices'> {
  const spans: Span[] = [];
  let matedPairs = 0;
  let splices = 0;
  run.hops.forEach((hop, at) => {
    if ('cable' in hop) {
      const cable = network.get('cable', hop.cable);
      if (cable === null) return;
      spans.push({ cableId: cable.id, type: network.get('model', cable.typeId), lengthM: cable.lengthM });
      splices += cable.splices;
    }
    const before = run.hops[at - 1];
    if (before === undefined || !('port' in before) || !('port' in hop)) return;
    const inside = passing(network.get('port', before.port), network.get('port', hop.port));
    matedPairs += inside.matedPairs;
    splices += inside.splices;
  });
  return { spans, matedPairs, splices };
}

/** How many links the port at each side of a run's cables serves: more than one before a breakout. */
function lanesOf(network: Network, run: Run): { a: number; b: number } {
  const lanes = { a: 1, b: 1 };
  run.hops.forEach((hop, at) => {
    if (!('cable' in hop)) return;
    const cable = network.get('cable', hop.cable);
    if (cable === null) return;
    const [a, b] = [endsOf(network, cable, 'a').length, endsOf(network, cable, 'b').length];
    if (a === b) return;
    const before = run.hops[at - 1];
    const type = network.get('model', cable.typeId);
    // Fanned out to duplex plugs a trunk only changes its shape; a breakout divides the port at its single plug.
    if (type === null || (at > 1 && at < run.hops.length - 2)) return;
    const enters =
      before !== undefined && 'port' in before && endsOf(network, cable, 'a').includes(before.port);
    const single = a === 1 ? 'a' : 'b';
    lanes[(single === 'a') === enters ? 'a' : 'b'] = Math.max(a, b);
  });
  return lanes;
}

/** The link a traced run makes between its two ends; an end that is a panel or open is null. */
export function linkOf(network: Network, run: Run): Link {
  const first = run.hops[0];
  const last = run.hops.at(-1);
  const end = (hop: typeof first): ActiveEnd | null => {
    const port = hop !== undefined && 'port' in hop ? network.get('port', hop.port) : null;
    return port === null || port.role === 'panel' ? null : activeEnd(network, port);
  };
  return {
    a: end(first),
    b: run.hops.length > 1 ? end(last) : null,
    ...partsOf(network, run),
    lanes: lanesOf(network, run),
  };
}

/** What is wrong with how cables are plugged into ports: a plug that does not go into its port. */
function plugFaults(network: Network, run: Run): Fault[] {
  return run.hops.flatMap((hop): Fault[] => {
    const cable = 'cable' in hop ? network.get('cable', hop.cable) : null;
    const type = network.get('model', cable?.typeId ?? null);
    const plugs = type?.ends ?? null;
    if (cable === null || type === null || plugs === null) return [];
    const fits = (plug: Connector | undefined, portId: string | null): boolean => {
      const port = network.get('port', portId);
      if (plug === undefined || port?.connector == null) return true;
      if (plugsInto(plug, port.connector)) return true;
      if (!isCage(port.connector) || isCage(plug)) return false;
      const optics = network.get('model', port.transceiverId)?.optics ?? null;
      return optics === null || optics.connector === plug;
    };
    const either = [
      [plugs[0], plugs[1]],
      [plugs[1], plugs[0]],
    ].some(([left, right]) => fits(left, cable.aPortId) && fits(right, cable.bPortId));
    if (either) return [];
    const portIds = [cable.aPortId, cable.bPortId].filter((id) => id !== null);
    return [
      {
        severity: 'bad',
        about: 'plug',
        facts: { is: 'wrong plug', cableId: cable.id, typeId: type.id, portIds },
      },
    ];
  });
}

/** A traced run judged: speed, length, light left, and what is wrong. */
export function judgeRun(network: Network, run: Run): Judgement {
  const judged = judgeLink(linkOf(network, run), cablingRules(network));
  const stopped: Fault[] =
    run.stop === null ? [] : [{ severity: 'bad', about: 'strand', facts: { is: 'stopped', stop: run.stop } }];
  return { ...judged, faults: [...stopped, ...plugFaults(network, run), ...judged.faults] };
}

/** Straight or crossed copper between two ports of fixed wiring; either where one of them crosses by itself. */
export function pairing(network: Network, a: Port, b: Port): 'straight' | 'crossed' | 'either' {
  const [left, right] = [portGroupOf(network, a)?.mdi ?? 'auto', portGroupOf(network, b)?.mdi ?? 'auto'];
  if (left === 'auto' || right === 'auto') return 'either';
  return left === right ? 'crossed' : 'straight';
}
