export * from './drift.ts';
export * from './openapi.ts';
export * from './simulatedAccount.ts';
