export * from './labels.ts';
export * from './links.ts';
export * from './notePrinted.ts';
export * from './sizes.ts';
