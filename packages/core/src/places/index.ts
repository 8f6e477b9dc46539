export * from './checks/placeStates.ts';
export * from './commands/places.ts';
export * from './commands/placeTree.ts';
export * from './exchange/placeRows.ts';
