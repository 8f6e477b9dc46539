export * from './files.ts';
export * from './coverage.ts';
export * from './runs.ts';
export * from './svgText.ts';
export * from './embed.ts';
