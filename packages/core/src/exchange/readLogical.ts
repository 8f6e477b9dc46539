import { blankAddress } from '../model/kinds/logical/address.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import { blankPrefix } from '../model/kinds/logical/prefix.ts';
import { blankBgpSession, blankRedundancy, blankRoute } from '../model/kinds/logical/routing.ts';
import { blankVlan, type Vlan } from '../model/kinds/logical/vlan.ts';
import { blankVrf } from '../model/kinds/logical/vrf.ts';
import { newId } from '../model/values/ids.ts';
import type { DeviceEntry, ExchangeFile, PortEntry } from './format.ts';
import { given } from './given.ts';
import { ensurePlace } from '../places/exchange/readPlace.ts';
import type { Staging } from './staging.ts';

/** The id behind a name in the file; null where none is given, or where there is none, which is then told. */
function named(
  staging: Staging,
  index: 'vrfByName' | 'vlanNumberingByName',
  text: string | null | undefined,
  at: string,
): string | null {
  if (!text) return null;
  const found = staging.network.findOne(index, text.toLowerCase());
  if (found === null) {
    const [what, list] = index === 'vrfByName' ? ['VRF', 'vrfs'] : ['VLAN numbering', 'vlanNumberings'];
    staging.problem(at, `There is no ${what} “${text}”. Add it under ${list}, or correct the name.`);
  }
  return found?.id ?? null;
}
export const vrfNamed = (staging: Staging, text: string | null | undefined, at: string): string | null =>
  named(staging, 'vrfByName', text, at);
export const vlanNumberingNamed = (
  staging: Staging,
  text: string | null | undefined,
  at: string,
): string | null => named(staging, 'vlanNumberingByName', text, at);

/** The VLAN that `shore/20` names. */
export function vlanNamed(staging: Staging, text: string | null | undefined, at: string): Vlan | null {
  if (!text) return null;
  const slash = text.lastIndexOf('/');
  const numberingId = vlanNumberingNamed(staging, text.slice(0, slash), at);
  const vlan =
    numberingId === null
      ? null
      : staging.network.findOne('vlanByNumber', `${numberingId}/${text.slice(slash + 1)}`);
  if (numberingId !== null && vlan === null)
    staging.problem(
      at,
      `There is no VLAN ${text.slice(slash + 1)} in the numbering ${text.slice(0, slash)}.`,
    );
  return vlan;
}

/** VRFs, VLAN numberings with their VLANs, port profiles and site templates: what ports and prefixes refer to. */
export function readNumbering(staging: Staging, file: ExchangeFile): void {
  (file.vrfs ?? []).forEach((entry, index) => {
    const existing = staging.network.findOne('vrfByName', entry.name.toLowerCase());
    const colour = (staging.network.count('vrf') + 6) % 12;
    staging.put(
      'vrf',
      {
        ...blankVrf,
        colour,
        ...existing,
        ...given(entry, []),
        name: entry.name,
        id: existing?.id ?? newId(),
      },
      `$.vrfs[${index}]`,
    );
  });
  (file.vlanNumberings ?? []).forEach((entry, index) => {
    const at = `$.vlanNumberings[${index}]`;
    const existing = staging.network.findOne('vlanNumberingByName', entry.name.toLowerCase());
    const id = existing?.id ?? newId();
    staging.put(
      'vlanNumbering',
      { notes: null, ...existing, ...given(entry, ['vlans']), name: entry.name, id },
      at,
    );
    (entry.vlans ?? []).forEach((vlan, at2) => {
      const path = `${at}.vlans[${at2}]`;
      const known = staging.network.findOne('vlanByNumber', `${id}/${vlan.vid}`);
      staging.put(
        'vlan',
        {
          ...blankVlan,
          colour: at2 % 12,
          ...known,
          ...given(vlan, ['vrf']),
          ...(vlan.vrf === undefined ? {} : { vrfId: vrfNamed(staging, vlan.vrf, `${path}.vrf`) }),
          vid: vlan.vid,
          name: vlan.name,
          numberingId: id,
          id: known?.id ?? newId(),
        },
        path,
      );
    });
  });
  (file.portProfiles ?? []).forEach((entry, index) => {
    const existing = staging.network.findOne('portProfileByName', entry.name.toLowerCase());
    staging.put(
      'portProfile',
      {
        id: existing?.id ?? newId(),
        name: entry.name,
        mode: entry.mode,
        untaggedVid: entry.untagged ?? null,
        taggedVids: entry.tagged ?? null,
        voiceVid: entry.voice ?? null,
        notes: entry.notes ?? null,
      },
      `$.portProfiles[${index}]`,
    );
  });
  (file.siteTemplates ?? []).forEach((entry, index) => {
    const existing = staging.network.findOne('siteTemplateByName', entry.name.toLowerCase());
    staging.put(
      'siteTemplate',
      {
        notes: null,
        ...existing,
        ...given(entry, []),
        name: entry.name,
        parts: entry.parts,
        id: existing?.id ?? newId(),
      },
      `$.siteTemplates[${index}]`,
    );
  });
}

/** Prefixes, and the addresses that no port has. */
export function readPrefixes(staging: Staging, file: ExchangeFile): void {
  const known = new Map(
    [...staging.network.all('prefix')].map((one) => [`${one.vrfId ?? ''} ${one.prefix}`, one]),
  );
  (file.prefixes ?? []).forEach((entry, index) => {
    const at = `$.prefixes[${index}]`;
    const vrfId = vrfNamed(staging, entry.vrf, `${at}.vrf`);
    const existing = known.get(`${vrfId ?? ''} ${entry.prefix}`);
    staging.put(
      'prefix',
      {
        ...blankPrefix,
        ...existing,
        ...given(entry, ['vrf', 'vlan', 'place']),
        ...(entry.vlan === undefined
          ? {}
          : { vlanId: vlanNamed(staging, entry.vlan, `${at}.vlan`)?.id ?? null }),
        ...(entry.place === undefined
          ? {}
          : { placeId: entry.place === null ? null : ensurePlace(staging, entry.place, `${at}.place`) }),
        vrfId,
        prefix: entry.prefix,
        id: existing?.id ?? newId(),
      },
      at,
    );
  });
  (file.reserved ?? []).forEach((entry, index) => {
    const at = `$.reserved[${index}]`;
    const vrfId = vrfNamed(staging, entry.vrf, `${at}.vrf`);
    const existing = staging.network
      .find('addressesByHost', entry.address.split('/')[0] ?? '')
      .find((one) => one.portId === null && one.vrfId === vrfId && one.address === entry.address);
    staging.put(
      'address',
      {
        ...blankAddress,
        use: 'reserved',
        ...existing,
        ...given(entry, ['vrf']),
        address: entry.address,
        vrfId,
        id: existing?.id ?? newId(),
      },
      at,
    );
  });
}

/** What an entry says of the configuration of its port. Members and parents are named: given once all are known. */
export function setLogicalFields(staging: Staging, port: Port, entry: PortEntry, at: string): void {
  if (entry.form !== undefined) port.form = entry.form;
  if (entry.mode !== undefined) port.mode = entry.mode;
  if (entry.untagged !== undefined) port.untaggedVid = entry.untagged;
  if (entry.tagged !== undefined) port.taggedVids = entry.tagged;
  if (entry.voice !== undefined) port.voiceVid = entry.voice;
  if (entry.lacp !== undefined) port.lacp = entry.lacp;
  if (entry.vid !== undefined) port.vid = entry.vid;
  if (entry.innerVid !== undefined) port.innerVid = entry.innerVid;
  if (entry.farAddress !== undefined) port.farAddress = entry.farAddress;
  if (entry.ospf !== undefined) port.ospf = entry.ospf;
  if (entry.spanningTree !== undefined) port.spanningTree = entry.spanningTree;
  if (entry.vrf !== undefined) port.vrfId = vrfNamed(staging, entry.vrf, `${at}.vrf`);
  if (entry.vlanNumbering !== undefined)
    port.vlanNumberingId = vlanNumberingNamed(staging, entry.vlanNumbering, `${at}.vlanNumbering`);
}

/** Addresses and redundancy groups of a port, as the file lists them: those listed are added or changed. */
export function readPortAddresses(staging: Staging, port: Port, entry: PortEntry, at: string): void {
  (entry.addresses ?? []).forEach((listed, index) => {
    const path = `${at}.addresses[${index}]`;
    const { address, vrf, ...own } =
      typeof listed === 'string' ? { address: listed, vrf: undefined } : listed;
    const vrfId = vrf === undefined ? port.vrfId : vrfNamed(staging, vrf, `${path}.vrf`);
    const existing = staging.network.find('addressesByPort', port.id).find((one) => one.address === address);
    staging.put(
      'address',
      {
        ...blankAddress,
        use: index === 0 ? 'interface' : 'secondary',
        ...existing,
        ...given(own, []),
        address,
        vrfId,
        portId: port.id,
        id: existing?.id ?? newId(),
      },
      path,
    );
  });
  (entry.redundancy ?? []).forEach((listed, index) => {
    const existing = staging.network
      .find('redundanciesByPort', port.id)
      .find((one) => one.group === listed.group && one.virtual === listed.virtual);
    staging.put(
      'redundancy',
      {
        ...blankRedundancy,
        ...existing,
        ...given(listed, []),
        ...listed,
        priority: listed.priority ?? existing?.priority ?? blankRedundancy.priority,
        portId: port.id,
        id: existing?.id ?? newId(),
      },
      `${at}.redundancy[${index}]`,
    );
  });
}

/** Static routes and BGP sessions of a device. */
export function readDeviceRouting(staging: Staging, device: Device, entry: DeviceEntry, at: string): void {
  (entry.routes ?? []).forEach((listed, index) => {
    const path = `${at}.routes[${index}]`;
    const vrfId = vrfNamed(staging, listed.vrf, `${path}.vrf`);
    const out = listed.out
      ? staging.network.findOne('portByName', `${device.id}:${listed.out.toLowerCase()}`)
      : null;
    if (listed.out && out === null)
      staging.problem(
        `${path}.out`,
        `${device.name} has no port “${listed.out}”. Add it, or correct the name.`,
      );
    const existing = staging.network
      .find('routesByDevice', device.id)
      .find(
        (one) =>
          one.vrfId === vrfId &&
          one.prefix === listed.prefix &&
          one.via === (listed.via ?? null) &&
          one.viaPortId === (out?.id ?? null),
      );
    staging.put(
      'route',
      {
        ...blankRoute,
        ...existing,
        ...given(listed, ['vrf', 'out']),
        prefix: listed.prefix,
        vrfId,
        viaPortId: out?.id ?? null,
        deviceId: device.id,
        id: existing?.id ?? newId(),
      },
      path,
    );
  });
  (entry.bgp ?? []).forEach((listed, index) => {
    const path = `${at}.bgp[${index}]`;
    const vrfId = vrfNamed(staging, listed.vrf, `${path}.vrf`);
    const existing = staging.network
      .find('bgpSessionsByDevice', device.id)
      .find((one) => one.vrfId === vrfId && one.neighbour === listed.neighbour);
    staging.put(
      'bgpSession',
      {
        ...blankBgpSession,
        ...existing,
        ...given(listed, ['vrf']),
        neighbour: listed.neighbour,
        remoteAs: listed.remoteAs,
        vrfId,
        deviceId: device.id,
        id: existing?.id ?? newId(),
      },
      path,
    );
  });
}
