import { kindNames, kinds, type Kind } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { cableSchedule } from '../cabling/reports/cables.ts';
import { cableProof } from '../cabling/reports/proof.ts';
import {
  cableTypeSchedule,
  circuitSchedule,
  labelSchedule,
  missingLabelSchedule,
  patchList,
  poeSchedule,
  runSchedule,
} from '../cabling/reports/cabling.ts';
import { freePortSchedule, portSchedule, transceiverSchedule } from '../cabling/reports/ports.ts';
import { capacitySchedule, placeCapacitySchedule } from '../racks/reports/capacity.ts';
import { hardwareSchedule } from '../catalogue/reports/catalogue.ts';
import { addressSchedule, prefixSchedule } from '../addressing/reports/addresses.ts';
import { vlanSchedule } from '../switching/reports/vlans.ts';
import { deviceSchedule } from '../racks/reports/devices.ts';
import { inventorySchedule } from '../racks/reports/inventory.ts';
import { notPlacedSchedule } from '../racks/reports/notPlaced.ts';
import type { ForDevice } from './parts.ts';
import { dhcpSchedule } from '../addressing/reports/dhcp.ts';
import { routeSchedule } from '../routing/reports/routes.ts';
import {
  cloudGatewaySchedule,
  cloudInstanceSchedule,
  cloudRouteSchedule,
  cloudRuleSchedule,
  cloudSubnetSchedule,
} from '../cloud/reports/cloud.ts';
import { cloudPriceSchedule, publicAddressSchedule } from '../cloud/reports/paid.ts';
import { internetReachSchedule, zoneLossSchedule } from '../cloud/reports/reach.ts';
import { kindHeading, kindKey, kindSchedule } from './ofKind.ts';
import type { Table } from './table.ts';

export interface Report {
  key: string;
  title: string;
  what: string;
  /** The kind of the rows, so that a row leads to its record. */
  kind: Kind;
  make: (network: Network, scopeId: string | null, only?: ForDevice) => Table;
  /** It can be made for one device alone. */
  forDevice?: true;
  /** Columns that are called as a fact of the row is and yet are worked out: they cannot be typed in. */
  worked?: readonly string[];
}

const written: readonly Report[] = [
  {
    key: 'cables',
    title: 'Cable schedule',
    what: 'Every cable with both ends',
    kind: 'cable',
    make: cableSchedule,
  },
  {
    key: 'patch-list',
    title: 'Patch list',
    what: 'From, to, label, length and colour in walking order',
    kind: 'cable',
    make: patchList,
  },
  {
    key: 'runs',
    title: 'Runs',
    what: 'Every run between two active ports, with length, speed and light left',
    kind: 'port',
    make: runSchedule,
  },
  {
    key: 'cable-types',
    title: 'Cables by type',
    what: 'How many of each type, their metres and price',
    kind: 'model',
    make: cableTypeSchedule,
  },
  {
    key: 'labels',
    title: 'Cable labels',
    what: 'The text for both ends of every cable',
    kind: 'cable',
    make: labelSchedule,
  },
  {
    key: 'missing-labels',
    title: 'Missing labels',
    what: 'Numbers that no cable of a sequence has',
    kind: 'cable',
    make: missingLabelSchedule,
    worked: ['label'],
  },
  {
    key: 'cable-proof',
    title: 'Fibre and cable proof',
    what: 'Every cable with both ends in their rooms, strands patched and free; what is wrong first',
    kind: 'cable',
    make: cableProof,
    worked: ['label', 'lengthM'],
  },
  {
    key: 'circuits',
    title: 'Circuits',
    what: 'Provider circuits and radio hops with their ends',
    kind: 'circuit',
    make: circuitSchedule,
  },
  {
    key: 'ports',
    title: 'Port map',
    what: 'Every port, what is in it and where its run ends',
    kind: 'port',
    make: portSchedule,
  },
  {
    key: 'free-ports',
    title: 'Free ports',
    what: 'Ports that are neither filled nor reserved',
    kind: 'port',
    make: freePortSchedule,
  },
  {
    key: 'transceivers',
    title: 'Transceivers',
    what: 'What sits in cages, what faces it, light left',
    kind: 'port',
    make: transceiverSchedule,
  },
  {
    key: 'poe',
    title: 'Power over Ethernet',
    what: 'Budget, promised, drawn and left of every switch that feeds others',
    kind: 'device',
    make: poeSchedule,
  },
  {
    key: 'vlans',
    title: 'VLANs',
    what: 'Every VLAN, what carries it, who uses it, and in how many parts it is',
    kind: 'vlan',
    make: vlanSchedule,
    forDevice: true,
  },
  {
    key: 'prefixes',
    title: 'Prefixes',
    what: 'Every prefix with its VLAN, gateway and use',
    kind: 'prefix',
    make: prefixSchedule,
    forDevice: true,
  },
  {
    key: 'addresses',
    title: 'Addresses',
    what: 'Every address with its prefix and who has it',
    kind: 'address',
    make: addressSchedule,
    forDevice: true,
  },
  {
    key: 'dhcp',
    title: 'DHCP ranges',
    what: 'Every range that DHCP hands out, with mask and gateway',
    kind: 'prefix',
    make: dhcpSchedule,
  },
  {
    key: 'routes',
    title: 'Route tables',
    what: 'Every route of every router: connected, static and OSPF, and where it comes from',
    kind: 'device',
    make: routeSchedule,
    forDevice: true,
  },
  {
    key: 'cloud-subnets',
    title: 'Cloud subnets',
    what: 'Every cloud subnet with what it is to the internet',
    kind: 'cloudSubnet',
    make: cloudSubnetSchedule,
  },
  {
    key: 'cloud-routes',
    title: 'Routes of clouds',
    what: 'Every route table as it works: local, written, learned, and what leads nowhere',
    kind: 'routeTable',
    make: cloudRouteSchedule,
  },
  {
    key: 'cloud-rules',
    title: 'Rules of clouds',
    what: 'Every rule in the order in which it is read',
    kind: 'trafficRule',
    make: cloudRuleSchedule,
  },
  {
    key: 'cloud-instances',
    title: 'Instances',
    what: 'What runs in clouds: where it stands and how it goes out',
    kind: 'device',
    make: cloudInstanceSchedule,
    worked: ['role'],
  },
  {
    key: 'cloud-gateways',
    title: 'Gateways',
    what: 'Every gateway of a cloud and how it is set',
    kind: 'device',
    make: cloudGatewaySchedule,
  },
  {
    key: 'cloud-reach',
    title: 'Called from the internet',
    what: 'What of clouds the internet may call, by routes, public addresses and rules',
    kind: 'device',
    make: internetReachSchedule,
  },
  {
    key: 'cloud-zones',
    title: 'Lost zones',
    what: 'What fails with each zone of each virtual network, and what nothing else does',
    kind: 'device',
    make: zoneLossSchedule,
    worked: ['name'],
  },
  {
    key: 'cloud-public-addresses',
    title: 'Public addresses',
    what: 'Every public address of clouds: what it stands for, and how long it stays',
    kind: 'publicAddress',
    make: publicAddressSchedule,
  },
  {
    key: 'cloud-prices',
    title: 'Prices of clouds',
    what: 'Every price of every provider; taken in again as it is written',
    kind: 'cloudPrice',
    make: cloudPriceSchedule,
    worked: ['of'],
  },
  {
    key: 'devices',
    title: 'Device schedule',
    what: 'Every device, where it is, ports used',
    kind: 'device',
    make: deviceSchedule,
    worked: ['role'],
  },
  {
    key: 'inventory',
    title: 'Inventory',
    what: 'Every device with serial, asset number, purchase, warranty, support, software and who answers for it',
    kind: 'device',
    make: inventorySchedule,
  },
  {
    key: 'not-placed',
    title: 'Devices not placed yet',
    what: 'Devices that are drawn but stand in no place: what they are and what they are joined to',
    kind: 'device',
    make: notPlacedSchedule,
  },
  {
    key: 'capacity',
    title: 'Rack capacity',
    what: 'Units, mass, power, heat and free ports of every rack',
    kind: 'rack',
    make: capacitySchedule,
  },
  {
    key: 'place-capacity',
    title: 'Place capacity',
    what: 'The same, summed over every site, building, floor, room and row',
    kind: 'place',
    make: placeCapacitySchedule,
  },
  {
    key: 'hardware',
    title: 'Hardware in use',
    what: 'Every model with its count and figures',
    kind: 'model',
    make: hardwareSchedule,
    worked: ['role'],
  },
];

/** Kinds of the network that no schedule above is about: their rows as they are. */
const ofKinds: readonly Report[] = kindNames
  .filter((kind) => kind !== 'project' && kinds[kind].paper !== true && kinds[kind].uncounted !== true)
  .filter((kind) => written.every((report) => report.kind !== kind))
  .map((kind) => ({
    key: kindKey(kind),
    title: kindHeading(kind),
    what: `Every ${kinds[kind].one} with its facts`,
    kind,
    make: (network, scopeId) => kindSchedule(network, kind, scopeId),
  }));

/** Every schedule there is; a new one is one file and one line above. */
export const reports: readonly Report[] = [...written, ...ofKinds];

export const findReport = (key: string): Report | null =>
  reports.find((report) => report.key === key) ?? null;
