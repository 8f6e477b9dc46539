export * from './contract.ts';
export * from './endpoint.ts';
export * from './limits.ts';
export * from './path.ts';
export * as schemas from './schemas.ts';
export * from './types.ts';
