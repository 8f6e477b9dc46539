export * from './builtIn/index.ts';
export * from './commands/changeModel.ts';
export * from './commands/kits.ts';
export * from './commands/models.ts';
export * from './faceplate.ts';
export * from './figures.ts';
export * from './modelPorts.ts';
export * from './projection/modelFace.ts';
