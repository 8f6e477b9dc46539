export * from './finding.ts';
export * from './mend.ts';
export * from './registry.ts';
export * from './sinceThen.ts';
