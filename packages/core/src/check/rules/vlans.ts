import { placeOfDevice, placeChain } from '../../model/places.ts';
import type { Vlan } from '../../model/kinds/vlan.ts';
import type { Network } from '../../model/network.ts';
import { portTitle } from '../../model/ports.ts';
import { groupOfPort, vlanNumbered } from '../../switching/bridges.ts';
import { layer2Of, type Domain } from '../../switching/layer2.ts';
import { isUsed, leaks, reachOf } from '../../switching/reach.ts';
import type { Finding, Rule } from '../finding.ts';
import { tell } from '../tell.ts';

const vlans = (network: Network): Vlan[] => [...network.all('vlan')];
const titled = (vlan: Vlan): string => `VLAN ${vlan.vid} ${vlan.name}`;

/** Both ends of a trunk carry the same VLANs. */
export const vlanStops: Rule = {
  key: 'vlan-stops',
  title: 'VLANs that one end of a link carries and the other does not',
  find: (network) => {
    const layer2 = layer2Of(network);
    return vlans(network).flatMap((vlan) =>
      reachOf(layer2, vlan).stops.map(({ from, at, why, text }) =>
        tell(
          network,
          'vlan-stops',
          why === 'native' ? 'bad' : 'warn',
          [
            { kind: 'vlan', row: vlan },
            { kind: 'port', row: at.members[0] ?? at.port },
            { kind: 'port', row: from.members[0] ?? from.port },
          ],
          `${titled(vlan)} stops: ${text}. ${why === 'native' ? 'Let both ends use the same number for untagged frames.' : 'Carry it at both ends, or at neither.'}`,
        ),
      ),
    );
  },
};

/** Sites that a part of a VLAN is on. */
const sitesOf = (network: Network, part: Domain): Set<string> =>
  new Set(
    part.bridges.flatMap(({ bridge }) =>
      bridge.devices.flatMap((device) => placeChain(network, placeOfDevice(network, device))[0]?.id ?? []),
    ),
  );

/** Inside a site one number means one VLAN. Between sites the same number is routed. */
export const vlanIslands: Rule = {
  key: 'vlan-island',
  title: 'VLANs in parts that do not hear each other',
  find: (network) => {
    const layer2 = layer2Of(network);
    return vlans(network).flatMap((vlan): Finding[] => {
      if (vlan.unused) return [];
      const bySite = new Map<string, Domain[]>();
      for (const part of reachOf(layer2, vlan).islands.filter(isUsed))
        for (const site of sitesOf(network, part)) bySite.set(site, [...(bySite.get(site) ?? []), part]);
      return [...bySite].flatMap(([site, parts]): Finding[] => {
        if (parts.length < 2) return [];
        const names = parts.map((part) => part.bridges[0]?.bridge.name ?? '');
        return [
          tell(
            network,
            'vlan-island',
            'bad',
            [{ kind: 'vlan', row: vlan }],
            `${titled(vlan)} falls into ${parts.length} parts at ${network.get('place', site)?.name ?? ''}, around ${names.join(' and ')}: they do not hear each other. Carry it over the links between them.`,
          ),
        ];
      });
    });
  },
};

export const vlanUnused: Rule = {
  key: 'vlan-unused',
  title: 'VLANs carried and used by nobody',
  find: (network) => {
    const layer2 = layer2Of(network);
    return vlans(network).flatMap((vlan): Finding[] => {
      if (vlan.unused) return [];
      const { islands, ports } = reachOf(layer2, vlan);
      if (ports === 0 || islands.some(isUsed)) return [];
      return [
        tell(
          network,
          'vlan-unused',
          'warn',
          [{ kind: 'vlan', row: vlan }],
          `${titled(vlan)} is carried by ${ports} ports and used by none. Take it off the trunks, or mark it as parking.`,
        ),
      ];
    });
  },
};

/** A port carries numbers that its VLAN group knows. */
export const vlanUndefined: Rule = {
  key: 'vlan-undefined',
  title: 'Ports in VLANs that are not defined',
  find: (network) => {
    const findings: Finding[] = [];
    for (const port of network.all('port')) {
      if (port.mode === null && port.vid === null) continue;
      const groupId = groupOfPort(network, port);
      if (groupId === null) continue;
      const tagged = port.taggedVids === 'all' || port.taggedVids === null ? [] : port.taggedVids;
      const used = [port.untaggedVid, port.voiceVid, ...tagged, ...(port.form === 'vlan' ? [port.vid] : [])];
      const unknown = used.filter((vid) => vid !== null && vlanNumbered(network, groupId, vid) === null);
      if (unknown.length === 0) continue;
      const group = network.get('vlanGroup', groupId);
      findings.push(
        tell(
          network,
          'vlan-undefined',
          'warn',
          [{ kind: 'port', row: port }],
          `${portTitle(network, port.id)} is in ${unknown.length === 1 ? `VLAN ${unknown[0] ?? ''}, which is` : `VLANs ${unknown.join(', ')}, which are`} not in the group ${group?.name ?? ''}. Add them there, or correct the port.`,
        ),
      );
    }
    return findings;
  },
};

export const vlanLeak: Rule = {
  key: 'vlan-leak',
  title: 'VLANs that pass straight through a routed hand-off',
  find: (network) =>
    leaks(layer2Of(network)).map(({ domain, groups }) => {
      const names = groups.map((id) => network.get('vlanGroup', id)?.name ?? '');
      const ends = domain.bridges.filter(({ bridge }) => bridge.form === 'switch');
      const rows = groups.flatMap((id) => network.get('vlanGroup', id) ?? []);
      return tell(
        network,
        'vlan-leak',
        'bad',
        rows.map((row) => ({ kind: 'vlanGroup', row })),
        `VLAN ${[...new Set(ends.map((end) => end.vid))].join(' and ')} goes on as layer 2 between the groups ${names.join(' and ')}, over ${ends.map((end) => end.bridge.name).join(', ')}: it should be handed over by a router. Route it there, or make it one group.`,
      );
    }),
};

export const vlanRules: readonly Rule[] = [vlanStops, vlanIslands, vlanUnused, vlanUndefined, vlanLeak];
