import { modelTitle } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import { portTitle } from '../model/network/ports.ts';
import { speedText } from '../model/values/speed.ts';
import { poeClasses } from './poeClasses.ts';
import { stopText, type RunStop } from './trace.ts';
import { metresText } from '../model/values/numbers.ts';

/** A cable of a run by its id; null stands for the one that is only proposed. */
type CableId = string | null;

/** What is wrong with a link, as figures and ids: lengths in metres, light in dB, speeds in bit/s, waves in nm. */
export type FaultFacts =
  | { is: 'stopped'; stop: RunStop }
  | { is: 'wrong plug'; cableId: string; typeId: string; portIds: readonly string[] }
  | { is: 'optic before direct cable'; portId: string; modelId: string }
  | { is: 'empty cage'; portId: string }
  | {
      is: 'optic for other medium';
      portId: string;
      modelId: string;
      made: string;
      cableId: CableId;
      medium: string;
    }
  | { is: 'optic too short'; portId: string; modelId: string; reachM: number; lengthM: number }
  | { is: 'optics disagree'; about: OpticsDisagree }
  | { is: 'too little light'; shortDb: number; lossDb: number; budgetDb: number }
  | { is: 'media differ'; media: readonly string[] }
  | { is: 'copper too slow'; cableId: CableId; medium: string; speedBps: number }
  | { is: 'copper too long'; medium: string; speedBps: number; reachM: number; lengthM: number }
  | { is: 'twinax too long'; speedBps: number; reachM: number; lengthM: number }
  | { is: 'class too low'; portId: string; wanted: number; sourceId: string; gives: number };

/** How two transceivers that face each other do not belong together; each with what it has of that. */
export type OpticsDisagree =
  | { by: 'speed'; optics: readonly { modelId: string; laneBps: number }[] }
  | { by: 'class'; optics: readonly { modelId: string; made: string }[] }
  | { by: 'one is bidirectional'; optics: readonly { modelId: string }[] }
  | { by: 'both send alike'; optics: readonly { modelId: string }[]; nm: number | null }
  | { by: 'wavelength'; optics: readonly { modelId: string; nm: readonly number[] }[] };

export type FaultAspect = 'optics' | 'light' | 'reach' | 'medium' | 'plug' | 'poe' | 'speed' | 'strand';

/** Something wrong with a link: how bad, where to look, and what it is. */
export interface Fault {
  severity: 'bad' | 'warn';
  about: FaultAspect;
  facts: FaultFacts;
}

const metres = (value: number): string => metresText(Math.round(value * 10) / 10);

function opticsText(network: Network, about: OpticsDisagree): string {
  const titled = <T extends { modelId: string }>(optics: readonly T[]): (T & { title: string })[] =>
    optics
      .map((one) => ({ ...one, title: modelText(network, one.modelId) }))
      .sort((a, b) => compareNames(a.title, b.title));
  switch (about.by) {
    case 'speed': {
      const [a, b] = titled(about.optics);
      return `${a?.title ?? ''} runs at ${speedText(a?.laneBps ?? 0)} a lane, ${b?.title ?? ''} at ${speedText(b?.laneBps ?? 0)}`;
    }
    case 'class': {
      const [a, b] = titled(about.optics);
      return `${a?.title ?? ''} is made for ${a?.made ?? ''}, ${b?.title ?? ''} for ${b?.made ?? ''}`;
    }
    case 'one is bidirectional':
      return `${titles(titled(about.optics))}: only one of them is bidirectional`;
    case 'both send alike':
      return `${titles(titled(about.optics))} both send on ${about.nm ?? ''} nm: one of the pair must be the opposite kind`;
    case 'wavelength': {
      const [a, b] = titled(about.optics);
      return `${a?.title ?? ''} sends on ${a?.nm.join(', ') ?? ''} nm, ${b?.title ?? ''} on ${b?.nm.join(', ') ?? ''} nm`;
    }
  }
}
const titles = (optics: readonly { title: string }[]): string =>
  optics.map(({ title }) => title).join(' and ');

const modelText = (network: Network, id: string): string => {
  const model = network.get('model', id);
  return model === null ? '' : modelTitle(model);
};

/** A fault in words, in a network that knows the things it names. */
export function faultText(network: Network, { facts }: Pick<Fault, 'facts'>): string {
  const port = (id: string): string => portTitle(network, id).replace(':', ' ');
  const model = (id: string): string => modelText(network, id);
  const cable = (id: CableId): string =>
    id === null ? 'the cable' : (network.get('cable', id)?.label ?? '');
  switch (facts.is) {
    case 'stopped':
      return stopText(network, facts.stop);
    case 'wrong plug':
      return `${cable(facts.cableId)} is a ${model(facts.typeId)}, which does not plug into ${facts.portIds
        .map(port)
        .filter((title) => title !== '')
        .join(' and ')}`;
    case 'optic before direct cable':
      return `${port(facts.portId)} holds ${model(facts.modelId)}, but the cable plugs into the cage itself`;
    case 'empty cage':
      return `${port(facts.portId)} has no transceiver in its cage`;
    case 'optic for other medium':
      return `${model(facts.modelId)} at ${port(facts.portId)} is made for ${facts.made}; ${cable(facts.cableId)} is ${facts.medium}`;
    case 'optic too short':
      return `${model(facts.modelId)} at ${port(facts.portId)} reaches ${metres(facts.reachM)}, the run is ${metres(facts.lengthM)}`;
    case 'optics disagree':
      return opticsText(network, facts.about);
    case 'too little light':
      return `the light is ${facts.shortDb.toFixed(1)} dB short: ${facts.lossDb.toFixed(1)} dB are lost of a budget of ${facts.budgetDb.toFixed(1)} dB`;
    case 'media differ':
      return `the run changes from ${facts.media.join(' to ')}`;
    case 'copper too slow':
      return `${cable(facts.cableId)} is ${facts.medium}, which does not carry ${speedText(facts.speedBps)}`;
    case 'copper too long':
      return `${facts.medium} carries ${speedText(facts.speedBps)} over ${metres(facts.reachM)}, the run is ${metres(facts.lengthM)}`;
    case 'twinax too long':
      return `passive twinax reaches ${facts.reachM} m at ${speedText(facts.speedBps)}, the run is ${metres(facts.lengthM)}`;
    case 'class too low':
      return `${port(facts.portId)} asks for PoE class ${facts.wanted} (${poeClasses[facts.wanted]?.deviceW ?? 0} W), ${port(facts.sourceId)} gives class ${facts.gives} (${poeClasses[facts.gives]?.deviceW ?? 0} W): it runs with less`;
  }
}

/** The worst of some faults in words; null where there is none. */
export const firstFault = (network: Network, [first]: readonly Fault[]): string | null =>
  first === undefined ? null : faultText(network, first);
