import type { Subject } from '../../change/removal.ts';
import { ownerText } from '../../addressing/owner.ts';
import { prefixOf } from '../../addressing/plan.ts';
import { subnetText } from '../../addressing/subnet.ts';
import type { Address } from '../../model/kinds/logical/address.ts';
import { parseInterface } from '../../model/values/ip.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { allOf } from '../../model/network/reads.ts';
import { layer2Of, layer2Reads } from '../layer2.ts';
import { defineRule, type Rule } from '../../check/finding.ts';
import { idsOf } from '../../check/names.ts';

interface Given {
  row: Address;
  subnet: string;
}

const segmentReads = allOf(layer2Reads, { address: ['address', 'portId', 'vrfId'] });

/** Addresses of ports by the broadcast domain that their port is in; each in order of address and of who has it. */
function bySegment(network: Network): Map<string, Given[]> {
  const layer2 = layer2Of(network);
  const found = new Map<string, Given[]>();
  for (const row of network.all('address')) {
    const port = network.get('port', row.portId);
    const segment = port === null ? null : layer2.segmentOf(port);
    const subnet = subnetText(row);
    if (segment === null || subnet === null) continue;
    const here = found.get(segment);
    if (here === undefined) found.set(segment, [{ row, subnet }]);
    else here.push({ row, subnet });
  }
  for (const here of found.values()) if (here.length > 1) here.sort((a, b) => compareGiven(network, a, b));
  return found;
}

const compareGiven = (network: Network, a: Given, b: Given): number =>
  compareNames(ownerText(network, a.row), ownerText(network, b.row)) ||
  compareNames(a.row.address, b.row.address);

const subjectOf = ({ row }: Given): Subject => ({ kind: 'address', id: row.id });

/** "10.1.1.1/24 on kq-core-1:vlan10, 10.1.2.1/24 on kq-core-2:vlan10". */
const listed = (network: Network, subjects: readonly Subject[]): string =>
  idsOf(subjects, 'address')
    .flatMap((id) => network.get('address', id) ?? [])
    .map((row) => `${row.address} ${ownerText(network, row)}`)
    .join(', ');

const familyOf = ({ row }: Given): 4 | 6 | null => parseInterface(row.address)?.address.family ?? null;

/** The ends of one link speak to each other only inside one subnet. */
export const linkEndsDiffer = defineRule({
  key: 'link-ends-differ',
  title: 'Links whose ends are in different subnets',
  why: 'Two routed ends of a link that are in different subnets do not reach each other.',
  standard: 'RFC 1122, 3.3.1',
  reads: segmentReads,
  find: (network) =>
    [...bySegment(network)].flatMap(([segment, here]) => {
      if (!segment.startsWith('l')) return [];
      const [a, b] = [...new Set(here.map(({ row }) => row.portId))];
      if (a === undefined || b === undefined) return [];
      return ([4, 6] as const).flatMap((family) => {
        const of = (portId: string | null): Given[] =>
          here.filter((one) => one.row.portId === portId && familyOf(one) === family);
        const [x, y] = [of(a), of(b)];
        const [first, second] = [x[0], y[0]];
        if (first === undefined || second === undefined) return [];
        if (x.some((one) => y.some((other) => other.subnet === one.subnet))) return [];
        return [{ severity: 'bad' as const, subjects: [subjectOf(first), subjectOf(second)], facts: {} }];
      });
    }),
  says: (_facts, network, subjects) =>
    `The ends of one link are in different subnets: ${listed(network, subjects)}. Put both into one.`,
});

/** A subnet is one broadcast domain: hosts of it on two VLANs do not hear each other. */
export const prefixOnTwoVlans = defineRule({
  key: 'prefix-on-two-vlans',
  title: 'Prefixes on two VLANs',
  why: 'A subnet is one broadcast domain: its hosts on two VLANs do not hear each other’s requests for addresses.',
  standard: 'RFC 826',
  reads: allOf(segmentReads, { prefix: ['vrfId', 'prefix'] }),
  find: (network) => {
    const seen = new Map<string, Map<string, Given>>();
    for (const [segment, here] of bySegment(network))
      for (const one of here) {
        const key = `${one.row.vrfId ?? ''} ${one.subnet}`;
        const segments = seen.get(key) ?? new Map<string, Given>();
        if (!segments.has(segment)) segments.set(segment, one);
        seen.set(key, segments);
      }
    return [...seen.values()].flatMap((segments) => {
      const [first, second] = [...segments.values()].sort((a, b) => compareGiven(network, a, b));
      if (first === undefined || second === undefined) return [];
      const at = parseInterface(first.row.address);
      const prefix = at === null ? null : prefixOf(network, first.row.vrfId, at.address);
      const subjects: Subject[] = [subjectOf(first), subjectOf(second)];
      if (prefix !== null) subjects.unshift({ kind: 'prefix', id: prefix.id });
      return [{ severity: 'bad' as const, subjects, facts: { subnet: first.subnet, places: segments.size } }];
    });
  },
  says: ({ subnet, places }, network, subjects) =>
    `${subnet} is in ${places} places that do not hear each other: ${listed(network, subjects)}. Join their VLANs, or give one its own prefix.`,
});

export const segmentRules: readonly Rule[] = [linkEndsDiffer, prefixOnTwoVlans];
