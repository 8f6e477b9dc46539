import { z } from 'zod';
import { fieldNotes, type FieldNotes } from './field.ts';
import { addressSchema, blankAddress, type Address } from './kinds/address.ts';
import { blankCable, cableSchema, type Cable } from './kinds/cable.ts';
import { blankCircuit, circuitSchema, type Circuit } from './kinds/circuit.ts';
import { blankModel, modelSchema, type CatalogueModel } from './kinds/catalogueModel.ts';
import { blankDevice, deviceSchema, type Device } from './kinds/device.ts';
import { kitSchema, type Kit } from './kinds/kit.ts';
import { legSchema, type Leg } from './kinds/leg.ts';
import { moduleSchema, type Module } from './kinds/module.ts';
import { pathwaySchema, type Pathway } from './kinds/pathway.ts';
import { blankPlace, placeSchema, type Place } from './kinds/place.ts';
import { blankPort, portSchema, type Port } from './kinds/port.ts';
import { defaultCablingRules, projectSchema, type Project } from './kinds/project.ts';
import { blankPrefix, prefixSchema, type Prefix } from './kinds/prefix.ts';
import {
  bgpSessionSchema,
  blankBgpSession,
  blankRedundancy,
  blankRoute,
  redundancySchema,
  routeSchema,
  type BgpSession,
  type Redundancy,
  type Route,
} from './kinds/routing.ts';
import { siteTemplateSchema, type SiteTemplate } from './kinds/siteTemplate.ts';
import {
  blankVlan,
  portProfileSchema,
  vlanGroupSchema,
  vlanSchema,
  type PortProfile,
  type Vlan,
  type VlanGroup,
} from './kinds/vlan.ts';
import { blankVrf, vrfSchema, type Vrf } from './kinds/vrf.ts';
import { blankRack, rackSchema, type Rack } from './kinds/rack.ts';
import { blankMark, markSchema, type Mark } from './kinds/mark.ts';
import { blankSheet, sheetSchema, type Sheet } from './kinds/sheet.ts';
import { blankSheetItem, sheetItemSchema, type SheetItem } from './kinds/sheetItem.ts';
import { blankSheetLink, sheetLinkSchema, type SheetLink } from './kinds/sheetLink.ts';

/** Every kind of row the model holds, by its name in the journal, the API and the database. */
export interface Rows {
  project: Project;
  vlanGroup: VlanGroup;
  vrf: Vrf;
  vlan: Vlan;
  portProfile: PortProfile;
  place: Place;
  rack: Rack;
  model: CatalogueModel;
  device: Device;
  module: Module;
  port: Port;
  cable: Cable;
  leg: Leg;
  circuit: Circuit;
  pathway: Pathway;
  prefix: Prefix;
  address: Address;
  route: Route;
  bgpSession: BgpSession;
  redundancy: Redundancy;
  siteTemplate: SiteTemplate;
  sheet: Sheet;
  sheetItem: SheetItem;
  sheetLink: SheetLink;
  mark: Mark;
  kit: Kit;
}
export type Kind = keyof Rows;
export type Row<K extends Kind = Kind> = Rows[K];

interface KindDefinition<K extends Kind> {
  schema: z.ZodType<Rows[K]> & { shape: Record<string, z.ZodType> };
  one: string;
  many: string;
  /** Fields that hold the id of another row, and its kind. */
  refs: Partial<Record<keyof Rows[K] & string, Kind>>;
  /** What must be unique in the project: a readable key, compared without regard to case. */
  unique: {
    what: keyof Rows[K] & string;
    key: (row: Rows[K]) => string;
    /** Told where nobody chooses the key: somebody else made the same row at the same moment. */
    meanwhile?: (row: Rows[K], name: (kind: Kind, id: string | null) => string) => string;
  }[];
  nameOf: (row: Rows[K]) => string;
  /** What fields hold in a row written before they were there. */
  blank: Partial<Rows[K]>;
}

/** Maker and name together, as people say it and as files refer to it. */
export const modelTitle = (model: Pick<CatalogueModel, 'maker' | 'name'>): string =>
  model.maker === null ? model.name : `${model.maker} ${model.name}`;

/** In the order in which rows can be created: what a row refers to stands before it. */
export const kinds: { [K in Kind]: KindDefinition<K> } = {
  project: {
    schema: projectSchema,
    one: 'project',
    many: 'projects',
    refs: {},
    unique: [],
    nameOf: (row) => row.name,
    blank: { cabling: defaultCablingRules, symbols: {} },
  },
  vlanGroup: {
    schema: vlanGroupSchema,
    one: 'VLAN group',
    many: 'VLAN groups',
    refs: {},
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
    blank: {},
  },
  vrf: {
    schema: vrfSchema,
    one: 'VRF',
    many: 'VRFs',
    refs: {},
    unique: [
      { what: 'name', key: (row) => row.name },
      { what: 'routeDistinguisher', key: (row) => row.routeDistinguisher ?? '' },
    ],
    nameOf: (row) => row.name,
    blank: blankVrf,
  },
  vlan: {
    schema: vlanSchema,
    one: 'VLAN',
    many: 'VLANs',
    refs: { groupId: 'vlanGroup', vrfId: 'vrf' },
    unique: [
      { what: 'vid', key: (row) => `${row.groupId}/${row.vid}` },
      { what: 'name', key: (row) => `${row.groupId}/${row.name}` },
    ],
    nameOf: (row) => `${row.vid} ${row.name}`,
    blank: blankVlan,
  },
  portProfile: {
    schema: portProfileSchema,
    one: 'port profile',
    many: 'port profiles',
    refs: {},
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
    blank: {},
  },
  place: {
    schema: placeSchema,
    one: 'place',
    many: 'places',
    refs: { parentId: 'place', vlanGroupId: 'vlanGroup' },
    unique: [
      { what: 'name', key: (row) => `${row.parentId ?? ''}/${row.name}` },
      { what: 'code', key: (row) => row.code ?? '' },
    ],
    nameOf: (row) => row.name,
    blank: blankPlace,
  },
  rack: {
    schema: rackSchema,
    one: 'rack',
    many: 'racks',
    refs: { placeId: 'place' },
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
    blank: blankRack,
  },
  model: {
    schema: modelSchema,
    one: 'model',
    many: 'models',
    refs: {},
    unique: [{ what: 'name', key: (row) => modelTitle(row) }],
    nameOf: modelTitle,
    blank: blankModel,
  },
  device: {
    schema: deviceSchema,
    one: 'device',
    many: 'devices',
    refs: { modelId: 'model', placeId: 'place', rackId: 'rack' },
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
    blank: blankDevice,
  },
  module: {
    schema: moduleSchema,
    one: 'module',
    many: 'modules',
    refs: { deviceId: 'device', modelId: 'model' },
    unique: [{ what: 'slot', key: (row) => `${row.deviceId}:${row.slot}` }],
    nameOf: (row) => row.slot,
    blank: {},
  },
  port: {
    schema: portSchema,
    one: 'port',
    many: 'ports',
    refs: {
      deviceId: 'device',
      moduleId: 'module',
      passThroughId: 'port',
      transceiverId: 'model',
      vlanGroupId: 'vlanGroup',
      aggregateId: 'port',
      parentId: 'port',
      vrfId: 'vrf',
    },
    unique: [{ what: 'name', key: (row) => `${row.deviceId}:${row.name}` }],
    nameOf: (row) => row.name,
    blank: blankPort,
  },
  cable: {
    schema: cableSchema,
    one: 'cable',
    many: 'cables',
    refs: { typeId: 'model', aPortId: 'port', bPortId: 'port' },
    unique: [{ what: 'label', key: (row) => row.label }],
    nameOf: (row) => row.label,
    blank: blankCable,
  },
  leg: {
    schema: legSchema,
    one: 'leg',
    many: 'legs',
    refs: { cableId: 'cable', portId: 'port' },
    unique: [{ what: 'number', key: (row) => `${row.cableId}:${row.side}:${row.number}` }],
    nameOf: (row) => `leg ${row.number}`,
    blank: {},
  },
  circuit: {
    schema: circuitSchema,
    one: 'circuit',
    many: 'circuits',
    refs: { aPortId: 'port', bPortId: 'port' },
    unique: [{ what: 'number', key: (row) => row.number }],
    nameOf: (row) => row.number,
    blank: blankCircuit,
  },
  pathway: {
    schema: pathwaySchema,
    one: 'pathway',
    many: 'pathways',
    refs: { aPlaceId: 'place', bPlaceId: 'place' },
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
    blank: {},
  },
  prefix: {
    schema: prefixSchema,
    one: 'prefix',
    many: 'prefixes',
    refs: { vrfId: 'vrf', vlanId: 'vlan', placeId: 'place' },
    unique: [{ what: 'prefix', key: (row) => `${row.vrfId ?? ''} ${row.prefix}` }],
    nameOf: (row) => row.prefix,
    blank: blankPrefix,
  },
  address: {
    schema: addressSchema,
    one: 'address',
    many: 'addresses',
    refs: { vrfId: 'vrf', portId: 'port' },
    unique: [],
    nameOf: (row) => row.address,
    blank: blankAddress,
  },
  route: {
    schema: routeSchema,
    one: 'static route',
    many: 'static routes',
    refs: { deviceId: 'device', vrfId: 'vrf', viaPortId: 'port' },
    unique: [
      {
        what: 'prefix',
        key: (row) => `${row.deviceId} ${row.vrfId ?? ''} ${row.prefix} ${row.via ?? row.viaPortId ?? ''}`,
      },
    ],
    nameOf: (row) => row.prefix,
    blank: blankRoute,
  },
  bgpSession: {
    schema: bgpSessionSchema,
    one: 'BGP session',
    many: 'BGP sessions',
    refs: { deviceId: 'device', vrfId: 'vrf' },
    unique: [{ what: 'neighbour', key: (row) => `${row.deviceId} ${row.vrfId ?? ''} ${row.neighbour}` }],
    nameOf: (row) => row.neighbour,
    blank: blankBgpSession,
  },
  redundancy: {
    schema: redundancySchema,
    one: 'redundancy group',
    many: 'redundancy groups',
    refs: { portId: 'port' },
    unique: [{ what: 'group', key: (row) => `${row.portId} ${row.group} ${row.virtual}` }],
    nameOf: (row) => `group ${row.group}`,
    blank: blankRedundancy,
  },
  siteTemplate: {
    schema: siteTemplateSchema,
    one: 'site template',
    many: 'site templates',
    refs: {},
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
    blank: {},
  },
  sheet: {
    schema: sheetSchema,
    one: 'sheet',
    many: 'sheets',
    refs: { scopeId: 'place', vlanId: 'vlan', vrfId: 'vrf' },
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
    blank: blankSheet,
  },
  sheetItem: {
    schema: sheetItemSchema,
    one: 'position on a sheet',
    many: 'positions on sheets',
    refs: {
      sheetId: 'sheet',
      deviceId: 'device',
      placeId: 'place',
      circuitId: 'circuit',
      prefixId: 'prefix',
    },
    unique: [
      {
        what: 'deviceId',
        key: (row) => `${row.sheetId}/${row.deviceId ?? row.placeId ?? row.circuitId ?? row.prefixId ?? ''}`,
        meanwhile: (row, name) =>
          `${name('device', row.deviceId) || name('place', row.placeId) || name('circuit', row.circuitId) || name('prefix', row.prefixId)} was moved by somebody else on this sheet at the same moment. It stands where they put it; move it again.`,
      },
    ],
    nameOf: () => 'position',
    blank: blankSheetItem,
  },
  sheetLink: {
    schema: sheetLinkSchema,
    one: 'link on a sheet',
    many: 'links on sheets',
    refs: { sheetId: 'sheet', cableId: 'cable', circuitId: 'circuit', prefixId: 'prefix' },
    unique: [
      {
        what: 'cableId',
        key: (row) => `${row.sheetId}/${row.cableId ?? row.circuitId ?? row.prefixId ?? ''}`,
        meanwhile: (row, name) =>
          `${name('cable', row.cableId) || name('circuit', row.circuitId) || name('prefix', row.prefixId)} was changed by somebody else on this sheet at the same moment. Look at it and change it again.`,
      },
    ],
    nameOf: () => 'link',
    blank: blankSheetLink,
  },
  mark: {
    schema: markSchema,
    one: 'mark on a sheet',
    many: 'marks on sheets',
    refs: {
      sheetId: 'sheet',
      deviceId: 'device',
      aRackId: 'rack',
      bRackId: 'rack',
      linkSheetId: 'sheet',
    },
    unique: [],
    nameOf: (row) => row.form,
    blank: blankMark,
  },
  kit: {
    schema: kitSchema,
    one: 'kit',
    many: 'kits',
    refs: {},
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
    blank: {},
  },
};

const isKind = (name: string): name is Kind => name in kinds;
export const kindNames: readonly Kind[] = Object.keys(kinds).filter(isKind);

/** Label, unit and help of a field, or null where the kind has no such field. */
export function notesOf(kind: Kind, field: string): FieldNotes | null {
  const schema = kinds[kind].schema.shape[field];
  return schema === undefined ? null : (fieldNotes.get(schema) ?? { label: field });
}
