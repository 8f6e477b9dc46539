export { type Attempt } from './attempt.ts';
export * from './deleteRow.ts';
export * from './edit.ts';
export * from './find.ts';
export * from './line.ts';
export * from './lineOption.ts';
