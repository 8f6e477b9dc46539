export { shapes, type TypedShape } from './grammar.ts';
export { takeOverTyped, typing, type TypedOutcome, type TypedResult } from './takeOver.ts';
export { writeTyped } from './written.ts';
