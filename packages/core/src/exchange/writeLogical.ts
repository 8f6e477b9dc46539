import type { Port } from '../model/kinds/lines/port.ts';
import { blankPrefix } from '../model/kinds/logical/prefix.ts';
import { blankBgpSession, blankRedundancy, blankRoute } from '../model/kinds/logical/routing.ts';
import { blankVlan } from '../model/kinds/logical/vlan.ts';
import { blankVrf } from '../model/kinds/logical/vrf.ts';
import { compareIp, parseInterface, parsePrefix } from '../model/values/ip.ts';
import type { Network } from '../model/network/network.ts';
import { byName, compareNames } from '../model/values/order.ts';
import { placePath } from '../model/network/places.ts';
import type { DeviceEntry, ExchangeFile, PortEntry } from './format.ts';
import { sparse } from './sparse.ts';

const vrfName = (network: Network, id: string | null): string | null => network.get('vrf', id)?.name ?? null;
const numberingName = (network: Network, id: string | null): string | null =>
  network.get('vlanNumbering', id)?.name ?? null;

/** `shore/20`, as files name a VLAN. */
export function vlanTitle(network: Network, id: string | null): string | null {
  const vlan = network.get('vlan', id);
  return vlan === null ? null : `${numberingName(network, vlan.numberingId) ?? ''}/${vlan.vid}`;
}

const byAddress = (a: { address: string }, b: { address: string }): number => {
  const [x, y] = [parseInterface(a.address), parseInterface(b.address)];
  return x === null || y === null ? 0 : compareIp(x.address, y.address);
};

/** What is configured on a port, without what reading assumes. */
export function logicalFields(network: Network, port: Port): Partial<PortEntry> {
  const addresses = network
    .find('addressesByPort', port.id)
    .sort((a, b) => Number(a.use !== 'interface') - Number(b.use !== 'interface') || byAddress(a, b))
    .map((one, index) => {
      const entry = sparse(
        {
          address: one.address,
          vrf: one.vrfId === port.vrfId ? undefined : vrfName(network, one.vrfId),
          use: one.use,
          dnsName: one.dnsName,
          notes: one.notes,
        },
        { vrf: undefined, use: index === 0 ? 'interface' : 'secondary' },
      );
      if (one.vrfId === null && port.vrfId !== null) return { ...entry, vrf: null };
      return Object.keys(entry).length === 1 ? one.address : entry;
    });
  const members = network
    .find('portsByAggregate', port.id)
    .sort((a, b) => a.ordinal - b.ordinal)
    .map((member) => member.name);
  const redundancy = network
    .find('redundanciesByPort', port.id)
    .sort((a, b) => a.group - b.group)
    .map(({ id: _id, portId: _port, ...one }) => sparse(one, blankRedundancy));
  return sparse<Partial<PortEntry>>(
    {
      form: port.form,
      mode: port.mode,
      untagged: port.untaggedVid,
      tagged: port.taggedVids === 'all' || port.taggedVids === null ? port.taggedVids : [...port.taggedVids],
      voice: port.voiceVid,
      vlanNumbering: numberingName(network, port.vlanNumberingId),
      members,
      lacp: port.lacp,
      over: network.get('port', port.parentId)?.name ?? null,
      vid: port.vid,
      innerVid: port.innerVid,
      vrf: vrfName(network, port.vrfId),
      farAddress: port.farAddress,
      ospf: port.ospf,
      spanningTree: port.spanningTree,
      addresses,
      redundancy,
    },
    { form: 'physical', members: [], addresses: [], redundancy: [] },
  );
}

export function routingFields(network: Network, deviceId: string): Pick<DeviceEntry, 'routes' | 'bgp'> {
  const routes = network
    .find('routesByDevice', deviceId)
    .sort((a, b) => compareNames(a.prefix, b.prefix) || compareNames(a.via ?? '', b.via ?? ''))
    .map(({ id: _id, deviceId: _device, vrfId, viaPortId, ...route }) =>
      sparse(
        { vrf: vrfName(network, vrfId), ...route, out: network.get('port', viaPortId)?.name ?? null },
        { distance: blankRoute.distance, discard: blankRoute.discard },
      ),
    );
  const bgp = network
    .find('bgpSessionsByDevice', deviceId)
    .sort((a, b) => compareNames(a.neighbour, b.neighbour))
    .map(({ id: _id, deviceId: _device, vrfId, ...session }) =>
      sparse(
        { vrf: vrfName(network, vrfId), ...session },
        { families: blankBgpSession.families, announces: [] },
      ),
    );
  return { ...(routes.length === 0 ? {} : { routes }), ...(bgp.length === 0 ? {} : { bgp }) };
}

type Logical = Pick<
  ExchangeFile,
  'vrfs' | 'vlanNumberings' | 'portProfiles' | 'prefixes' | 'reserved' | 'siteTemplates'
>;

/** Everything that is numbered: nothing of it where there is none. */
export function logicalEntries(network: Network): Logical {
  const lists: Logical = {
    vrfs: [...network.all('vrf')]
      .sort(byName)
      .map(({ id: _id, ...vrf }) => sparse(vrf, { ...blankVrf, colour: -1 })),
    vlanNumberings: [...network.all('vlanNumbering')].sort(byName).map((numbering) =>
      sparse({
        name: numbering.name,
        notes: numbering.notes,
        vlans: network
          .find('vlansByNumbering', numbering.id)
          .sort((a, b) => a.vid - b.vid)
          .map(({ id: _id, numberingId: _numbering, vrfId, ...vlan }) =>
            sparse({ ...vlan, vrf: vrfName(network, vrfId) }, { ...blankVlan, colour: -1 }),
          ),
      }),
    ),
    portProfiles: [...network.all('portProfile')].sort(byName).map((profile) =>
      sparse({
        name: profile.name,
        mode: profile.mode,
        untagged: profile.untaggedVid,
        tagged:
          profile.taggedVids === 'all' || profile.taggedVids === null
            ? profile.taggedVids
            : [...profile.taggedVids],
        voice: profile.voiceVid,
        notes: profile.notes,
      }),
    ),
    prefixes: [...network.all('prefix')]
      .map((row) => ({ row, at: parsePrefix(row.prefix) }))
      .sort(
        (a, b) =>
          compareNames(vrfName(network, a.row.vrfId) ?? '', vrfName(network, b.row.vrfId) ?? '') ||
          (a.at === null || b.at === null ? 0 : compareIp(a.at, b.at)),
      )
      .map(({ row: { id: _id, vrfId, vlanId, placeId, ...prefix } }) =>
        sparse(
          {
            ...prefix,
            vrf: vrfName(network, vrfId),
            vlan: vlanTitle(network, vlanId),
            place: placePath(network, placeId) || null,
          },
          { role: blankPrefix.role, status: blankPrefix.status, ranges: [] },
        ),
      ),
    reserved: [...network.all('address')]
      .filter((one) => one.portId === null)
      .sort(byAddress)
      .map((one) =>
        sparse({
          address: one.address,
          vrf: vrfName(network, one.vrfId),
          dnsName: one.dnsName,
          notes: one.notes,
        }),
      ),
    siteTemplates: [...network.all('siteTemplate')]
      .sort(byName)
      .map(({ id: _id, ...template }) => sparse(template)),
  };
  return Object.fromEntries(Object.entries(lists).filter(([, list]) => list.length > 0));
}
