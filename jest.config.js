const transform = {
  '^.+\\.tsx?$': [
    '@swc/jest',
    {
      jsc: {
        target: 'es2022',
        experimental: { keepImportAttributes: true },
        parser: { syntax: 'typescript', tsx: true },
        transform: { react: { runtime: 'automatic' } },
      },
      module: { type: 'es6' },
    },
  ],
};
const shared = {
  transform,
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  testEnvironmentOptions: { customExportConditions: ['visograph-src', 'node', 'node-addons'] },
  modulePathIgnorePatterns: ['/dist/', '<rootDir>/.visograph/'],
};

export default {
  // A whole section is shown and typed into within one test; beside other work that takes a while.
  testTimeout: 120_000,
  projects: [
    {
      // What of the web application is tried against the real server and database.
      ...shared,
      displayName: 'web with server',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/packages/web/src/**/*.live.test.ts'],
    },
    {
      ...shared,
      displayName: 'node',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/packages/{core,api,drawing,typeface,server,cli,field}/src/**/*.test.{ts,tsx}'],
    },
    {
      ...shared,
      displayName: 'web',
      testEnvironment: 'jsdom',
      testMatch: ['<rootDir>/packages/web/src/**/*.test.{ts,tsx}'],
      testPathIgnorePatterns: ['/node_modules/', '\\.live\\.test\\.ts$'],
      setupFiles: ['<rootDir>/packages/web/jest.setup.ts'],
      setupFilesAfterEnv: ['<rootDir>/packages/web/jest.patience.ts'],
      moduleNameMapper: { '\\.css$': '<rootDir>/packages/web/src/testing/noStyles.ts' },
      testEnvironmentOptions: { customExportConditions: ['visograph-src', 'browser'] },
    },
  ],
};
