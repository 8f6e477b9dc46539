import type { Cable } from '../../model/kinds/lines/cable.ts';
import type { Leg } from '../../model/kinds/lines/leg.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Network } from '../../model/network/network.ts';
import { cableAt, endsOf, placeOnCable } from '../../model/network/ports.ts';
import { fannedFrom, portStrands, strandsPerLeg } from '../../model/network/strands.ts';
import { defineRule } from '../../check/finding.ts';
import { nameOf } from '../../check/names.ts';
import { bothOf, rowParts } from '../../check/rowParts.ts';

/** "F7 to F12", "F3". */
const span = (names: readonly string[]): string =>
  names.length > 1 ? `${names[0] ?? ''} to ${names.at(-1) ?? ''}` : (names[0] ?? '');

function judge(network: Network, port: Port) {
  const fanned = fannedFrom(network, port);
  const cable = fanned.length === 0 ? null : cableAt(network, port.id);
  const type = network.get('model', cable?.typeId ?? null);
  if (cable === null || type === null) return null;
  const own = endsOf(network, cable, placeOnCable(network, cable, port.id).side);
  const has = strandsPerLeg(type, own.length);
  if (has === null) return null;
  const without = fanned.filter((one) => (one.leadsToStrand ?? 1) > has);
  const [first] = without;
  if (first === undefined) return null;
  const last = without.at(-1) ?? first;
  return {
    severity: 'warn' as const,
    subjects: [
      { kind: 'port' as const, id: port.id },
      { kind: 'cable' as const, id: cable.id },
    ],
    facts: {
      portIds: without.map(({ id }) => id),
      cableId: cable.id,
      has,
      from: first.leadsToStrand ?? 0,
      to: (last.leadsToStrand ?? 1) + portStrands(last) - 1,
    },
  };
}

/** Ports of a cassette whose strands the trunk behind it does not have: they lead nowhere, cabled or not. */
export const strandsMissing = defineRule({
  key: 'strand-missing',
  title: 'Ports of a cassette without a strand in its trunk',
  why: 'A port of the cassette has no fibre behind it: what is patched there stays dark.',
  standard: 'TIA-568.3',
  reads: {
    port: ['role', 'connector', 'leadsToId', 'leadsToStrand'],
    cable: ['typeId', 'aPortId', 'bPortId'],
    leg: 'all',
    model: 'all',
  },
  find: {
    ...rowParts(
      'port',
      judge,
      undefined,
      (network) =>
        new Set(
          network.find('cassettePorts', 'all').flatMap((one) => network.get('port', one.leadsToId) ?? []),
        ),
    ),
    concerned: (network, touched) => {
      if (touched.kind === 'model') return null;
      const cables = [
        ...bothOf(touched, 'cable'),
        ...bothOf(touched, 'leg').flatMap((leg: Leg) => network.get('cable', leg.cableId) ?? []),
      ];
      return [
        ...bothOf(touched, 'port').flatMap((port) => [port.id, port.leadsToId]),
        ...bothOf(touched, 'leg').map((leg) => leg.portId),
        ...cables.flatMap((cable: Cable) => endIds(network, cable)),
      ].filter((id) => id !== null);
    },
  },
  says: ({ portIds, cableId, has, from, to }, network, [common]) => {
    const port = network.get('port', common?.id ?? null);
    const names = portIds.map((id) => nameOf(network, 'port', id));
    return `${nameOf(network, 'device', port?.deviceId ?? null)} ${span(names)} ${names.length === 1 ? 'has' : 'have'} no strand: ${nameOf(network, 'cable', cableId)} at ${port?.name ?? ''} has ${has}, they need ${from} to ${to}. Lay a trunk with more strands, or leave those ports empty.`;
  },
});

const endIds = (network: Network, cable: Cable): (string | null)[] => [
  ...endsOf(network, cable, 'a'),
  ...endsOf(network, cable, 'b'),
];
