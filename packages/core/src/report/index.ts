export type { ForDevice } from './parts.ts';
export * from './registry.ts';
export * from './table.ts';
