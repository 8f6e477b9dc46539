export * from './inForce.ts';
export * from './seenBy.ts';
export * from './without.ts';
export * from './withPlan.ts';
