export * from './capacity.ts';
export * from './commands/devices.ts';
export * from './commands/modules.ts';
export * from './commands/placeDevices.ts';
export * from './commands/racking.ts';
export * from './deviceNames.ts';
export {
  equipmentFieldLabel,
  equipmentFields,
  type EquipmentColumns,
  type EquipmentField,
} from './exchange/equipmentColumns.ts';
export type { EquipmentWish } from './exchange/equipmentReader.ts';
export * from './exchange/equipmentRows.ts';
export { type ModelAnswer, type UnknownModel } from './exchange/unknownModels.ts';
export * from './fit.ts';
export * from './occupancy.ts';
export * from './overLimit.ts';
export * from './placing.ts';
export * from './power.ts';
export * from './projection/elevation.ts';
export * from './projection/elevationCables.ts';
export * from './reports/capacity.ts';
export * from './slots.ts';
export * from './summary.ts';
export * from './whereFits.ts';
