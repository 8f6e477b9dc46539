import { z } from 'zod';
import { fieldNotes, type FieldNotes } from './field.ts';
import { cableSchema, type Cable } from './kinds/cable.ts';
import { modelSchema, type CatalogueModel } from './kinds/catalogueModel.ts';
import { deviceSchema, type Device } from './kinds/device.ts';
import { kitSchema, type Kit } from './kinds/kit.ts';
import { moduleSchema, type Module } from './kinds/module.ts';
import { placeSchema, type Place } from './kinds/place.ts';
import { portSchema, type Port } from './kinds/port.ts';
import { projectSchema, type Project } from './kinds/project.ts';
import { rackSchema, type Rack } from './kinds/rack.ts';
import { sheetItemSchema, sheetSchema, type Sheet, type SheetItem } from './kinds/sheet.ts';

/** Every kind of row the model holds, by its name in the journal, the API and the database. */
export interface Rows {
  project: Project;
  place: Place;
  rack: Rack;
  model: CatalogueModel;
  device: Device;
  module: Module;
  port: Port;
  cable: Cable;
  sheet: Sheet;
  sheetItem: SheetItem;
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
  unique: { what: keyof Rows[K] & string; key: (row: Rows[K]) => string }[];
  nameOf: (row: Rows[K]) => string;
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
  },
  place: {
    schema: placeSchema,
    one: 'place',
    many: 'places',
    refs: { parentId: 'place' },
    unique: [
      { what: 'name', key: (row) => `${row.parentId ?? ''}/${row.name}` },
      { what: 'code', key: (row) => row.code ?? '' },
    ],
    nameOf: (row) => row.name,
  },
  rack: {
    schema: rackSchema,
    one: 'rack',
    many: 'racks',
    refs: { placeId: 'place' },
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
  },
  model: {
    schema: modelSchema,
    one: 'model',
    many: 'models',
    refs: {},
    unique: [{ what: 'name', key: (row) => modelTitle(row) }],
    nameOf: modelTitle,
  },
  device: {
    schema: deviceSchema,
    one: 'device',
    many: 'devices',
    refs: { modelId: 'model', placeId: 'place', rackId: 'rack' },
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
  },
  module: {
    schema: moduleSchema,
    one: 'module',
    many: 'modules',
    refs: { deviceId: 'device', modelId: 'model' },
    unique: [{ what: 'slot', key: (row) => `${row.deviceId}:${row.slot}` }],
    nameOf: (row) => row.slot,
  },
  port: {
    schema: portSchema,
    one: 'port',
    many: 'ports',
    refs: { deviceId: 'device', moduleId: 'module', passThroughId: 'port' },
    unique: [{ what: 'name', key: (row) => `${row.deviceId}:${row.name}` }],
    nameOf: (row) => row.name,
  },
  cable: {
    schema: cableSchema,
    one: 'cable',
    many: 'cables',
    refs: { typeId: 'model', aPortId: 'port', bPortId: 'port' },
    unique: [{ what: 'label', key: (row) => row.label }],
    nameOf: (row) => row.label,
  },
  sheet: {
    schema: sheetSchema,
    one: 'sheet',
    many: 'sheets',
    refs: { scopeId: 'place' },
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
  },
  sheetItem: {
    schema: sheetItemSchema,
    one: 'position on a sheet',
    many: 'positions on sheets',
    refs: { sheetId: 'sheet', deviceId: 'device' },
    unique: [{ what: 'deviceId', key: (row) => `${row.sheetId}/${row.deviceId}` }],
    nameOf: () => 'position',
  },
  kit: {
    schema: kitSchema,
    one: 'kit',
    many: 'kits',
    refs: {},
    unique: [{ what: 'name', key: (row) => row.name }],
    nameOf: (row) => row.name,
  },
};

const isKind = (name: string): name is Kind => name in kinds;
export const kindNames: readonly Kind[] = Object.keys(kinds).filter(isKind);

/** Label, unit and help of a field, or null where the kind has no such field. */
export function notesOf(kind: Kind, field: string): FieldNotes | null {
  const schema = kinds[kind].schema.shape[field];
  return schema === undefined ? null : (fieldNotes.get(schema) ?? { label: field });
}
