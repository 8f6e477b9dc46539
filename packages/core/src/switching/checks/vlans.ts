import type { Subject } from '../../change/removal.ts';
import { placeOfDevice, placeChain } from '../../model/network/places.ts';
import { create, update } from '../../change/change.ts';
import { judged } from '../../commands/attempt.ts';
import { blankVlan, type Vlan } from '../../model/kinds/logical/vlan.ts';
import { colourCount } from '../../model/kinds/logical/vrf.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { portTitle } from '../../model/network/ports.ts';
import { allOf } from '../../model/network/reads.ts';
import { bridgeName, numberingOfPort, setPort, vlanNumbered } from '../bridges.ts';
import { layer2Of, layer2Reads, type Domain } from '../layer2.ts';
import { isUsed, leaks, reachOf, seatOf, stopSaid } from '../reach.ts';
import { defineRule, type Rule } from '../../check/finding.ts';
import { idsOf, nameOf, portText } from '../../check/names.ts';
import { setMarks } from '../commands/vlanMarks.ts';
import { rowParts } from '../../check/rowParts.ts';

const vlans = (network: Network): Vlan[] => [...network.all('vlan')];
const vlanReads = allOf(layer2Reads, { vlan: ['numberingId', 'vid', 'unused'] });

function titled(network: Network, subject: Subject | undefined): string {
  const vlan = network.get('vlan', subject?.id ?? null);
  return vlan === null ? '' : `VLAN ${vlan.vid} ${vlan.name}`;
}

/** "a, b and c": names of bridges by their first devices. */
const bridgeNames = (network: Network, deviceIds: readonly string[]): string[] =>
  deviceIds.flatMap((id) => {
    const device = network.get('device', id);
    return device === null ? [] : [bridgeName(device)];
  });

/** Both ends of a trunk carry the same VLANs. */
export const vlanStops = defineRule({
  key: 'vlan-stops',
  title: 'VLANs that one end of a link carries and the other does not',
  why: 'Frames of the VLAN are dropped at the end that does not carry it, or fall into another VLAN there.',
  standard: 'IEEE 802.1Q, 8.6',
  reads: vlanReads,
  find: (network) => {
    const layer2 = layer2Of(network);
    return vlans(network).flatMap((vlan) =>
      reachOf(layer2, vlan).stops.map(({ from, at, why, other }) => ({
        severity: why === 'native' ? ('bad' as const) : ('warn' as const),
        subjects: [
          { kind: 'vlan' as const, id: vlan.id },
          { kind: 'port' as const, id: (at.members[0] ?? at.port).id },
          { kind: 'port' as const, id: (from.members[0] ?? from.port).id },
        ],
        facts: { vid: vlan.vid, why, other, from: seatOf(from), at: seatOf(at) },
      })),
    );
  },
  says: (stop, network, [vlan]) =>
    `${titled(network, vlan)} stops: ${stopSaid(network, stop.vid, stop)}. ${stop.why === 'native' ? 'Let both ends use the same number for untagged frames.' : 'Carry it at both ends, or at neither.'}`,
  mends: ({ vid, why, from, at }, network) => {
    const [carries, lacks] = [from, at].map(({ portId }) => network.get('port', portId));
    if (carries == null || lacks == null) return [];
    const [here, there] = [setPort(network, carries), setPort(network, lacks)];
    if (why === 'access') return [];
    if (why === 'native')
      return [
        {
          wish: `Let untagged frames be VLAN ${vid} at ${portText(network, there.id)} too`,
          way: 'Let untagged frames be the same VLAN at both ends',
          attempt: setMarks(
            network,
            [{ port: there, vid, mark: 'U' }],
            `Let untagged frames be VLAN ${vid} at ${portText(network, there.id)}, as at ${portText(network, here.id)}`,
          ),
        },
      ];
    return [
      {
        wish: `Carry VLAN ${vid} at ${portText(network, there.id)} too`,
        way: 'Carry the VLAN at both ends',
        attempt: setMarks(
          network,
          [{ port: there, vid, mark: 'T' }],
          `Carried VLAN ${vid} at ${portText(network, there.id)} as well`,
        ),
      },
      {
        wish: `Take VLAN ${vid} off ${portText(network, here.id)}`,
        way: 'Carry the VLAN at neither end',
        attempt: setMarks(
          network,
          [{ port: here, vid, mark: '-' }],
          `Took VLAN ${vid} off ${portText(network, here.id)}`,
        ),
      },
    ];
  },
});

/** Sites that a part of a VLAN is on. */
const sitesOf = (network: Network, part: Domain): Set<string> =>
  new Set(
    part.bridges.flatMap(({ bridge }) =>
      bridge.devices.flatMap((device) => placeChain(network, placeOfDevice(network, device))[0]?.id ?? []),
    ),
  );

/** Inside a site one number means one VLAN. Between sites the same number is routed. */
export const vlanIslands = defineRule({
  key: 'vlan-island',
  title: 'VLANs in parts that do not hear each other',
  why: 'Hosts of one VLAN are taken to hear each other; in two parts they do not, and nothing says so.',
  standard: 'IEEE 802.1Q',
  reads: vlanReads,
  find: (network) => {
    const layer2 = layer2Of(network);
    return vlans(network).flatMap((vlan) => {
      if (vlan.unused) return [];
      const bySite = new Map<string, Domain[]>();
      for (const part of reachOf(layer2, vlan).islands.filter(isUsed))
        for (const site of sitesOf(network, part)) bySite.set(site, [...(bySite.get(site) ?? []), part]);
      return [...bySite]
        .filter(([, parts]) => parts.length > 1)
        .map(([siteId, parts]) => ({
          severity: 'bad' as const,
          subjects: [{ kind: 'vlan' as const, id: vlan.id }],
          facts: {
            siteId,
            around: parts.flatMap((part) => part.bridges[0]?.bridge.devices[0]?.id ?? []),
          },
        }));
    });
  },
  says: ({ siteId, around }, network, [vlan]) =>
    `${titled(network, vlan)} falls into ${around.length} parts at ${nameOf(network, 'place', siteId)}, around ${bridgeNames(network, around).join(' and ')}: they do not hear each other. Carry it over the links between them.`,
});

export const vlanUnused = defineRule({
  key: 'vlan-unused',
  title: 'VLANs carried and used by nobody',
  why: 'Every switch floods broadcasts of a VLAN that it carries, for nobody, and whoever plugs in there is in it.',
  reads: vlanReads,
  find: (network) => {
    const layer2 = layer2Of(network);
    return vlans(network).flatMap((vlan) => {
      if (vlan.unused) return [];
      const { islands, ports } = reachOf(layer2, vlan);
      if (ports === 0 || islands.some(isUsed)) return [];
      return [
        {
          severity: 'warn' as const,
          subjects: [{ kind: 'vlan' as const, id: vlan.id }],
          facts: { ports },
        },
      ];
    });
  },
  says: ({ ports }, network, [vlan]) =>
    `${titled(network, vlan)} is carried by ${ports} ports and used by none. Take it off the trunks, or mark it as parking.`,
  mends: (_facts, network, subjects) =>
    idsOf(subjects, 'vlan').flatMap((id) => {
      const vlan = network.get('vlan', id);
      if (vlan === null) return [];
      return [
        {
          wish: `Mark VLAN ${vlan.vid} as parking`,
          way: 'Mark the VLAN as parking',
          attempt: judged(
            network,
            [update('vlan', vlan, { unused: true })],
            `Marked VLAN ${vlan.vid} as parking`,
          ),
        },
      ];
    }),
});

/** A port carries numbers that its VLAN numbering knows. */
export const vlanUndefined = defineRule({
  key: 'vlan-undefined',
  title: 'Ports in VLANs that are not defined',
  why: 'A number without a name in its numbering may be a slip, or somebody else’s VLAN.',
  standard: 'IEEE 802.1Q',
  reads: {
    port: ['deviceId', 'form', 'mode', 'untaggedVid', 'taggedVids', 'voiceVid', 'vid', 'vlanNumberingId'],
    vlan: ['numberingId', 'vid'],
    device: ['placeId', 'rackId'],
    rack: ['placeId'],
    place: ['parentId', 'vlanNumberingId'],
  },
  find: rowParts(
    'port',
    (network, port) => {
      if (port.mode === null && port.vid === null) return null;
      const numberingId = numberingOfPort(network, port);
      if (numberingId === null) return null;
      const tagged = port.taggedVids === 'all' || port.taggedVids === null ? [] : port.taggedVids;
      const used = [port.untaggedVid, port.voiceVid, ...tagged, ...(port.form === 'vlan' ? [port.vid] : [])];
      const vids = used.flatMap((vid) =>
        vid !== null && vlanNumbered(network, numberingId, vid) === null ? [vid] : [],
      );
      if (vids.length === 0) return null;
      return { severity: 'warn', subjects: [{ kind: 'port', id: port.id }], facts: { vids, numberingId } };
    },
    undefined,
    (network) => network.find('vlanPorts', 'all'),
  ),
  says: ({ vids, numberingId }, network, [port]) =>
    `${portTitle(network, port?.id ?? null)} is in ${vids.length === 1 ? `VLAN ${vids[0] ?? ''}, which is` : `VLANs ${vids.join(', ')}, which are`} not in the numbering ${nameOf(network, 'vlanNumbering', numberingId)}. Add them there, or correct the port.`,
  mends: ({ vids, numberingId }, network) => {
    const first = network.countOf('vlansByNumbering', numberingId);
    const rows = [...new Set(vids)].map((vid, at) => ({
      ...blankVlan,
      id: newId(),
      numberingId,
      vid,
      name: `VLAN ${vid}`,
      colour: (first + at) % colourCount,
    }));
    const what = vids.length === 1 ? `VLAN ${vids[0] ?? ''}` : `VLANs ${vids.join(', ')}`;
    return [
      {
        wish: `Add ${what} to ${nameOf(network, 'vlanNumbering', numberingId)}`,
        way: 'Add the VLANs to their numbering',
        attempt: judged(
          network,
          rows.map((row) => create('vlan', row)),
          `Added ${what} to ${nameOf(network, 'vlanNumbering', numberingId)}`,
        ),
      },
    ];
  },
});

export const vlanLeak = defineRule({
  key: 'vlan-leak',
  title: 'VLANs that pass straight through a routed hand-off',
  why: 'A routed hand-off parts two layer-2 networks; a VLAN that passes it joins them again.',
  standard: 'IEEE 802.1Q',
  reads: layer2Reads,
  find: (network) =>
    leaks(layer2Of(network)).map(({ domain, numberings }) => {
      const ends = domain.bridges.filter(({ bridge }) => bridge.form === 'switch');
      return {
        severity: 'bad' as const,
        subjects: numberings.map((id) => ({ kind: 'vlanNumbering' as const, id })),
        facts: {
          vids: [...new Set(ends.map((end) => end.vid))],
          over: ends.flatMap((end) => end.bridge.devices[0]?.id ?? []),
        },
      };
    }),
  says: ({ vids, over }, network, subjects) => {
    const names = idsOf(subjects, 'vlanNumbering').map((id) => nameOf(network, 'vlanNumbering', id));
    return `VLAN ${vids.join(' and ')} goes on as layer 2 between the numberings ${names.join(' and ')}, over ${bridgeNames(network, over).join(', ')}: it should be handed over by a router. Route it there, or make it one group.`;
  },
});

export const vlanRules: readonly Rule[] = [vlanStops, vlanIslands, vlanUnused, vlanUndefined, vlanLeak];
