export * from './csv.ts';
export * from './format.ts';
export { countOf, type ListRow } from './listRows.ts';
export { changeNow, heldNow, namesNow } from './oldNames.ts';
export * from './read.ts';
export type { FileProblem } from './staging.ts';
export * from './write.ts';
