export * from './fontFiles.ts';
export * from './tokens.ts';
export * from './metrics/measure.ts';
export * from './Plate.tsx';
export * from './Link.tsx';
export * from './Diagram.tsx';
export * from './Elevation.tsx';
export * from './shade.ts';
