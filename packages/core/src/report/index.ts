export type { ForDevice } from './parts.ts';
export * from './keyFigures.ts';
export * from './registry.ts';
export * from './table.ts';
