import { applyChanges } from '../../change/apply.ts';
import type { Change } from '../../change/change.ts';
import type { Subject } from '../../change/removal.ts';
import { judged } from '../../commands/attempt.ts';
import { inForce } from '../../lens/inForce.ts';
import type { CatalogueModel } from '../../model/kinds/equipment/catalogueModel.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { modelTitle } from '../../model/kinds.ts';
import { fitsCage, isCage } from '../../model/network/plugs.ts';
import type { Offer } from '../../check/mend.ts';
import { setTransceiver } from '../commands/cables.ts';
import { faultText, type Fault, type FaultAspect } from '../fault.ts';
import { runBookOf, runReads, wrongRuns, type JudgedRun, type RunBook } from '../runBook.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { defineRule, findingKey, type Evidence, type Rule } from '../../check/finding.ts';
import { idsOf, nameOf, portText } from '../../check/names.ts';
import { keysOf } from '../../model/values/words.ts';

type LinkFound = Evidence<{ fault: Fault['facts'] }>;

const subjectsOf = (network: Network, { from, to, carriers }: JudgedRun): Subject[] => {
  const ends = [from, ...(to === null ? [] : [to])].sort();
  const devices = new Set(ends.flatMap((end) => network.get('port', end)?.deviceId ?? []));
  return [
    ...ends.map((id) => ({ kind: 'port' as const, id })),
    ...[...devices].map((id) => ({ kind: 'device' as const, id })),
    ...carriers
      .filter((id) => network.get('cable', id) !== null)
      .sort()
      .map((id) => ({ kind: 'cable' as const, id })),
  ];
};

/** What is wrong with the runs of a book, by where to look; what is seen from both ends of a run is there once. */
function faultsOf(network: Network, book: RunBook): Map<FaultAspect, LinkFound[]> {
  const found = new Map<FaultAspect, Map<string, LinkFound>>();
  for (const run of wrongRuns(book)) {
    const subjects = subjectsOf(network, run);
    for (const { about, severity, facts } of run.faults) {
      const one: LinkFound = { severity, subjects, facts: { fault: facts } };
      const list = found.get(about) ?? new Map<string, LinkFound>();
      found.set(about, list.set(findingKey({ rule: about, ...one }), one));
    }
  }
  return new Map([...found].map(([about, list]) => [about, [...list.values()]]));
}

const known = new WeakMap<RunBook, Map<FaultAspect, LinkFound[]>>();
function faultsAt(network: Network, about: FaultAspect): readonly LinkFound[] {
  const book = runBookOf(network);
  const faults = known.get(book) ?? faultsOf(network, book);
  known.set(book, faults);
  return faults.get(about) ?? [];
}

const titles: Readonly<Record<FaultAspect, string>> = {
  optics: 'Transceivers that do not belong together',
  light: 'Too little light at the far end',
  reach: 'Run that is longer than it may be',
  medium: 'Cable of another kind than what it joins',
  plug: 'Plug that does not go into its port',
  poe: 'Less power over Ethernet than asked for',
  speed: 'Cable that does not carry the speed',
  strand: 'Run that ends because a strand leads nowhere',
};

/** Why each matters, and what it stands on. */
const grounds: Readonly<Record<FaultAspect, { why: string; standard: string }>> = {
  optics: { why: 'Two ends of different wavelength, speed or standard stay dark.', standard: 'IEEE 802.3' },
  light: {
    why: 'Below its sensitivity a receiver loses frames or the link: loss of fibre, plugs and splices is added up.',
    standard: 'IEC 61280-4; TIA-568.3',
  },
  reach: {
    why: 'Beyond its reach a signal is not what the standard promises: errors come with heat and age.',
    standard: 'IEEE 802.3',
  },
  medium: {
    why: 'Multi-mode and single-mode, or fibre and copper, do not go into each other.',
    standard: 'ISO/IEC 11801',
  },
  plug: {
    why: 'What does not fit is not plugged in: the record or the order is wrong.',
    standard: 'IEC 61754; IEC 60603',
  },
  poe: {
    why: 'What gets a lower class than it asks for starts with less or not at all.',
    standard: 'IEEE 802.3, clauses 33 and 145',
  },
  speed: {
    why: 'A cable below the category of its speed gives errors or falls back to a lower speed.',
    standard: 'ISO/IEC 11801',
  },
  strand: {
    why: 'A run that leads to no strand ends in the middle: its far end stays dark.',
    standard: 'TIA-568.3',
  },
};

const named = (network: Network, subjects: readonly Subject[], kind: 'device' | 'cable'): string[] =>
  idsOf(subjects, kind)
    .map((id) => nameOf(network, kind, id))
    .sort(compareNames)
    .map((name) => `${kind} ${name}`);

/** What another transceiver may set right. */
const byOptics: ReadonlySet<FaultAspect> = new Set(['optics', 'light', 'reach', 'medium']);
const mostSwaps = 3;

/** Whether a run between these ports works as cabled once the changes are made. */
function worksThen(network: Network, ports: readonly Port[], changes: readonly Change[]): boolean {
  const applied = applyChanges(network, changes);
  if (!applied.ok) return false;
  const then = inForce(applied.network);
  return keysOf<FaultAspect>(titles).every((about) =>
    faultsAt(then, about).every(
      ({ subjects }) => !subjects.some(({ id }) => ports.some((port) => port.id === id)),
    ),
  );
}

/**
 * Transceivers that set a run right, each tried on the network: another in one of its ends, then the same in both. Of
 * the speed that is there, and in the order of their names.
 */
function swaps(network: Network, subjects: readonly Subject[]): Offer[] {
  const cages = idsOf(subjects, 'port')
    .flatMap((id) => network.get('port', id) ?? [])
    .filter((port) => isCage(port.connector) && port.transceiverId !== null)
    .sort((a, b) => compareNames(portText(network, a.id), portText(network, b.id)));
  const speeds = new Set(
    cages.map((port) => network.get('model', port.transceiverId)?.optics?.speedBps ?? null),
  );
  const models = [...network.all('model')]
    .filter(
      ({ form, retired, optics }) =>
        form === 'transceiver' && !retired && optics !== null && speeds.has(optics.speedBps),
    )
    .sort((a, b) => compareNames(modelTitle(a), modelTitle(b)));
  const into = (ports: readonly Port[], model: CatalogueModel): Offer[] => {
    const other = ports.filter(({ transceiverId }) => transceiverId !== model.id);
    if (
      other.length < ports.length ||
      !ports.every((port) => fitsCage(model.optics?.formFactor ?? 'LC', port.connector))
    )
      return [];
    const changes = ports.flatMap((port) => setTransceiver(network, port, model.id).changes);
    if (!worksThen(network, cages, changes)) return [];
    const where = ports.map((port) => portText(network, port.id)).join(' and ');
    return [
      {
        wish: `Put ${modelTitle(model)} into ${where}`,
        way: 'Swap transceivers for ones that work over the run',
        attempt: judged(network, changes, `Put ${modelTitle(model)} into ${where}`),
      },
    ];
  };
  const single = cages.flatMap((port) => models.flatMap((model) => into([port], model)));
  if (single.length > 0 || cages.length < 2) return single.slice(0, mostSwaps);
  return models.flatMap((model) => into(cages, model)).slice(0, mostSwaps);
}

/**
 * Every run once: what it carries must work as cabled (optics that belong together, light enough, reach, category,
 * plugs, power class).
 */
const faultRules = keysOf<FaultAspect>(titles).map((about) =>
  defineRule({
    key: `link-${about}`,
    title: titles[about],
    ...grounds[about],
    reads: runReads,
    find: (network) => faultsAt(network, about),
    says: ({ fault }, network, subjects) =>
      `${idsOf(subjects, 'port')
        .map((id) => portText(network, id))
        .sort(compareNames)
        .join(' to ')}: ${faultText(network, { facts: fault })}.`,
    about: (_facts, network, subjects) => [
      ...named(network, subjects, 'device'),
      ...named(network, subjects, 'cable'),
    ],
    ...(byOptics.has(about)
      ? {
          mends: (_facts: unknown, network: Network, subjects: readonly Subject[]) =>
            swaps(network, subjects),
        }
      : {}),
  }),
);

/** A run through panels must not come back to itself. */
const runLoop = defineRule({
  key: 'run-loop',
  title: 'Run that comes back to itself',
  why: 'Such a run joins nothing: a patch leads back to where it came from.',
  reads: runReads,
  find: (network) =>
    wrongRuns(runBookOf(network))
      .filter(({ ends, passive }) => passive && ends === 'loop')
      .map(({ carriers }) => ({
        severity: 'bad' as const,
        subjects: [...new Set(carriers)].sort().map((id) => ({ kind: 'cable' as const, id })),
        facts: {},
      })),
  says: (_facts, network, subjects) => {
    const cables = idsOf(subjects, 'cable').flatMap((id) => network.get('cable', id) ?? []);
    const [first] = cables.sort((a, b) => compareNames(a.label, b.label));
    return `The run through ${portText(network, first?.aPortId ?? null)} comes back to itself over ${cables.length} cables and joins nothing. Pull one of them.`;
  },
  about: (_facts, network, subjects) => named(network, subjects, 'cable'),
});

export const linkRules: readonly Rule[] = [...faultRules, runLoop];
