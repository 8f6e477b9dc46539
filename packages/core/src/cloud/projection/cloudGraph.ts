import type { CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { ownFold, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import type { Network } from '../../model/network/network.ts';
import { devicesIn, placeChain, placeOfDevice } from '../../model/network/places.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { mostDevices } from '../../sheets/graph/containers.ts';
import { sheetsByPlace, type Kept, type SheetReading } from '../../sheets/graph/reading.ts';
import type { GraphContainer } from '../../sheets/graph/sheetGraph.ts';
import {
  nothingTold,
  say,
  told,
  type ToldLink,
  type ToldNode,
  type ToldStub,
} from '../../sheets/graph/told.ts';
import { gatewayOf, seatsOfDevice, subnetsOf } from '../inventory.ts';
import { networkPicture, type NetworkPicture } from '../picture.ts';
import { attachmentsOf } from '../hubs.ts';
import { classesOf, lineBetween, routeArrows, ruleArrows } from './cloudArrows.ts';
import { hubLines, outwardLines, outwardOf } from './cloudLines.ts';
import {
  attachmentPlate,
  devicePlate,
  foldedPlate,
  gatewayPlate,
  internetId,
  internetPlate,
  peeringPlate,
  subnetPlate,
} from './cloudPlates.ts';
import { networksOn, outerBoxes, subjectOf, subnetBox, zoneBoxes } from './cloudScope.ts';

/** So many alike in one subnet are one plate. */
const leastFolded = 4;

/** A sheet of clouds while network after network is drawn. */
class Drawn {
  readonly nodes = new Map<string, ToldNode>();
  readonly links: ToldLink[] = [];
  readonly stubs: ToldStub[] = [];
  readonly containers: GraphContainer[] = [];
  readonly subnets: CloudSubnet[] = [];
  /** Devices with a plate that no fold holds, by device, and instances in folds. */
  readonly instances = new Map<string, Device>();
  readonly plates = new Map<string, string>();
  readonly away = new Map<string, { id: string; name: string; role: Device['role'] }>();

  constructor(
    readonly network: Network,
    readonly sheet: Sheet,
    readonly kept: Kept,
  ) {}

  leftOut(device: Device): boolean {
    if (this.kept.items.get(device.id)?.away !== true) return false;
    this.away.set(device.id, { id: device.id, name: device.name, role: device.role });
    return true;
  }

  add(node: ToldNode): void {
    if (this.nodes.has(node.id)) return;
    this.nodes.set(node.id, node);
    for (const id of node.deviceIds) this.plates.set(id, node.id);
  }

  /** Instances of one container: those that are alike as one plate, unless a person opened it. */
  addInstances(devices: readonly Device[], containerId: string | null): void {
    const here = devices.filter(
      (device) => device.status !== 'retired' && !this.plates.has(device.id) && !this.leftOut(device),
    );
    const classes = classesOf(this.network, here);
    const gathered = new Map(
      (this.sheet.reading.gathered ?? []).flatMap((ids, at) => ids.map((id) => [id, `own ${at}`])),
    );
    const alike = new Map<string, Device[]>();
    for (const device of here) {
      this.instances.set(device.id, device);
      const own = gathered.get(device.id);
      const key = own ?? `${device.role} ${device.status} ${classes.get(device.id)?.key ?? device.id}`;
      alike.set(key, [...(alike.get(key) ?? []), device]);
    }
    const { unfolded } = this.sheet.reading;
    const byHand = ({ id }: Device): boolean => this.kept.items.get(id)?.x != null;
    for (const [key, those] of alike) {
      const [first] = those.sort(byName);
      const own = key.startsWith('own ') && those.length > 1;
      const id = own
        ? `${ownFold}${first?.id ?? ''}`
        : `fold:cloud/${containerId ?? ''}/${first?.role ?? ''}/${first?.name ?? ''}`;
      const opened = unfolded === true || unfolded.includes(id) || those.filter(byHand).length > 1;
      if (own || (those.length >= leastFolded && !opened)) this.add(foldedPlate(id, those, containerId));
      else for (const device of those) this.add(devicePlate(this.network, device, containerId));
    }
  }

  /** A network with its zones, subnets, what stands in them and what stands on its border. */
  addNetwork(place: Place, picture: NetworkPicture, outer: string | null): void {
    const { network } = this;
    const away = (subnet: CloudSubnet): boolean => {
      const subject = subjectOf(network, subnet);
      if (subject === null || this.kept.items.get(subject)?.away !== true) return false;
      this.away.set(subject, { id: subject, name: subnet.name, role: 'XX' });
      return true;
    };
    const shown = picture.tiers.flatMap((tier, row) =>
      [...tier.zones.flat(), ...tier.regional].map((one) => ({ ...one, row })),
    );
    const here = shown.filter(({ subnet }) => !away(subnet));
    this.containers.push(
      ...zoneBoxes(network, place, new Set(here.flatMap(({ subnet }) => subnet.zoneId ?? []))),
      ...here.map(({ subnet, row }) => subnetBox(network, subnet, row)),
    );
    for (const { subnet, seated } of here) {
      this.subnets.push(subnet);
      this.add(subnetPlate(network, subnet));
      for (const { device, isGateway } of seated) {
        const found = isGateway ? gatewayOf(network, device.id) : null;
        if (found !== null && !this.plates.has(device.id) && !this.leftOut(device))
          this.add(gatewayPlate(network, found, subnet.id, null));
      }
      this.addInstances(
        seated.filter(({ isGateway }) => !isGateway).map(({ device }) => device),
        subnet.id,
      );
    }
    this.addInstances(picture.loose, place.id);
    const atBorder = (side: 'top' | 'right') => ({ of: place.id, side });
    for (const [gateways, side] of [
      [picture.outer, 'top'],
      [picture.between, 'right'],
    ] as const)
      for (const one of gateways)
        if (!this.leftOut(one.device)) this.add(gatewayPlate(network, one, outer, atBorder(side)));
    for (const attachment of network
      .find('hubAttachmentsByNetwork', place.id)
      .sort((a, b) => compareNames(a.name, b.name)))
      this.add(attachmentPlate(network, attachment, place.id, outer));
  }

  /** An instance that stands in a second subnet too is joined to what stands for that. */
  addOtherSeats(): void {
    for (const [id, device] of this.instances) {
      const plate = this.plates.get(id);
      const [first, ...others] = seatsOfDevice(this.network, id);
      const seen = new Set([first?.subnet.id]);
      if (plate !== device.id) continue;
      for (const { subnet, portId, row } of others) {
        const bar = `subnet:${subnet.id}`;
        if (seen.has(subnet.id) || !this.nodes.has(bar)) continue;
        seen.add(subnet.id);
        const port = this.network.get('port', portId);
        this.links.push(
          lineBetween(
            `seat:${portId}:${subnet.id}`,
            { kind: 'port', id: portId, label: port?.name ?? '' },
            plate,
            bar,
            {
              aPort: told(say(port?.name ?? '', 'portNames')),
              medium: 'seat',
              bPort: told(say(row.address.replace(/\/\d+$/, ''), 'addresses')),
            },
          ),
        );
      }
    }
  }

  /** Routers of the region, the premises at the far ends of tunnels, and what joins all of them. */
  addJoining(regions: ReadonlySet<string>): void {
    const { network } = this;
    const hubs = [...network.all('gateway')]
      .flatMap(({ deviceId }) => gatewayOf(network, deviceId) ?? [])
      .filter(
        ({ device, gateway }) =>
          gateway.networkId === null &&
          regions.has(placeOfDevice(network, device) ?? '') &&
          !this.leftOut(device),
      )
      .sort((a, b) => byName(a.device, b.device));
    for (const hub of hubs) this.add(gatewayPlate(network, hub, placeOfDevice(network, hub.device), null));
    const leading = [...this.nodes.values()].flatMap(({ deviceIds: [id], form }) => {
      const found = form === 'device' ? gatewayOf(network, id ?? null) : null;
      return found === null ? [] : [found.device];
    });
    for (const device of leading)
      for (const { far } of outwardOf(network, device)) {
        if (far === null || this.plates.has(far.device.id) || this.leftOut(far.device)) continue;
        const chain = placeChain(network, placeOfDevice(network, far.device));
        const site = chain.find(({ kind }) => kind === 'site') ?? chain[0] ?? null;
        if (site !== null && !this.containers.some(({ id }) => id === site.id))
          this.containers.push({
            id: site.id,
            form: 'place',
            title: site.name,
            parentId: null,
            sheetId: null,
          });
        this.add({
          ...devicePlate(network, far.device, site?.id ?? null, []),
          outside: true,
        });
      }
    const drawn = new Set(this.nodes.keys());
    for (const device of leading) {
      const { links, stubs } = outwardLines(network, device, drawn);
      this.links.push(...links);
      this.stubs.push(...stubs);
    }
    for (const { device } of hubs) {
      if (attachmentsOf(network, device.id).length === 0) continue;
      this.links.push(...hubLines(network, device, drawn));
    }
  }

  addPeerings(shown: readonly Place[], outerOf: (place: Place) => string | null): void {
    const { network } = this;
    const order = new Map(shown.map(({ id }, at) => [id, at]));
    const peerings = new Set(shown.flatMap(({ id }) => network.find('peeringsByNetwork', id)));
    for (const peering of [...peerings].sort(byName)) {
      const [a, b] = [order.get(peering.aNetworkId), order.get(peering.bNetworkId)];
      const ends = shown.filter(({ id }) => id === peering.aNetworkId || id === peering.bNetworkId);
      for (const place of ends) {
        const far = place.id === peering.aNetworkId ? b : a;
        const side = far === undefined || far > (order.get(place.id) ?? 0) ? 'right' : 'left';
        this.add(peeringPlate(network, peering, place, outerOf(place), side));
      }
      const of = { kind: 'peering', id: peering.id, label: peering.name } as const;
      const plate = (id: string): string => `peering:${peering.id}:${id}`;
      const [one, other] = ends;
      if (one !== undefined && other !== undefined)
        this.links.push(
          lineBetween(`peering:${peering.id}`, of, plate(one.id), plate(other.id), { medium: 'peering' }),
        );
    }
  }

  /** What faces the internet is joined to it. */
  addInternet(accounts: readonly string[]): void {
    const open = [...this.nodes.values()].filter(({ border }) => border?.side === 'top');
    const called = this.sheet.reading.arrows === 'rules' && this.links.some(({ a }) => a === internetId);
    if (open.length === 0 && !called) return;
    this.add(internetPlate(accounts));
    for (const { id } of open)
      this.links.push(
        lineBetween(
          `uplink:${id}`,
          { kind: 'gateway', id: this.network.findOne('gatewayByDevice', id)?.id ?? id, label: '' },
          internetId,
          id,
          { medium: 'uplink' },
        ),
      );
  }
}

/** A colour for nothing: natures are told by the line around a subnet, and by the word. */
const noShades = { shades: [], linkShades: [], waiting: [] };

/**
 * What a cloud sheet shows: accounts, regions, networks, zones and subnets inside each other, gateways on the border of
 * their network, instances in their subnets, what joins networks to each other and to the premises, and either routes
 * or who may call whom as arrows.
 */
export function cloudGraph(network: Network, sheet: Sheet, kept: Kept): SheetReading {
  const { shown, away } = networksOn(network, sheet.scopeId, kept);
  const drawn = new Drawn(network, sheet, kept);
  drawn.containers.push(...outerBoxes(network, sheet.scopeId, shown, sheetsByPlace(network, sheet.id)));
  const parents = new Map(drawn.containers.map(({ id, parentId }) => [id, parentId]));
  const outerOf = ({ id }: Place): string | null => parents.get(id) ?? null;
  const gone = away.map(({ id, name }) => ({ id, name, role: 'XX' as const }));
  const count = shown.reduce(
    (sum, { id }) => sum + subnetsOf(network, id).length + devicesIn(network, [id]).length,
    0,
  );
  if (count > mostDevices) return { ...noShades, graph: nothingTold(), away: gone, tooMany: count };
  for (const place of shown) drawn.addNetwork(place, networkPicture(network, place.id), outerOf(place));
  const around = shown.flatMap(({ id }) => placeChain(network, id).slice(0, -1));
  const regions = new Set(around.filter(({ kind }) => kind === 'region').map(({ id }) => id));
  for (const id of [...regions].filter((one) => parents.has(one)))
    drawn.addInstances(
      devicesIn(network, [id])
        .filter((device) => gatewayOf(network, device.id) === null)
        .sort(byName),
      id,
    );
  drawn.addJoining(regions);
  drawn.addPeerings(shown, outerOf);
  drawn.addOtherSeats();
  const { arrows = 'routes' } = sheet.reading;
  if (arrows === 'rules')
    drawn.links.push(
      ...ruleArrows(network, [...drawn.instances.values()], (id) => drawn.plates.get(id) ?? id),
    );
  const accounts = new Set(around.filter(({ kind }) => kind === 'account').map(({ id }) => id));
  drawn.addInternet([...accounts]);
  const ids = new Set(drawn.nodes.keys());
  if (arrows === 'routes') drawn.links.push(...routeArrows(network, drawn.subnets, ids));
  return {
    ...noShades,
    graph: {
      nodes: [...drawn.nodes.values()],
      links: drawn.links.filter(({ a, b }) => ids.has(a) && ids.has(b)),
      stubs: drawn.stubs,
      containers: drawn.containers,
    },
    away: [...gone, ...[...drawn.away.values()].sort(byName)],
    tooMany: null,
  };
}
