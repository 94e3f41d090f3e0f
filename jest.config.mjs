const swc = [
  '@swc/jest',
  {
    jsc: {
      target: 'es2022',
      parser: { syntax: 'typescript', decorators: true },
      transform: { legacyDecorator: true, decoratorMetadata: true },
      keepClassNames: true,
    },
    module: { type: 'es6' },
    sourceMaps: 'inline',
  },
]

const common = {
  extensionsToTreatAsEsm: ['.ts'],
  transform: { '^.+\\.ts$': swc },
  // The workspaces are TypeScript source reached through node_modules links; only real packages are left alone.
  transformIgnorePatterns: ['/node_modules/(?!@unhurried/)'],
  testEnvironment: 'node',
  // Copies that are made for planting faults lie there.
  modulePathIgnorePatterns: ['<rootDir>/test-results/'],
}

export default {
  // A shared machine may be busy; a test that hangs is still told.
  testTimeout: 30_000,
  projects: [
    { ...common, displayName: 'unit', testMatch: ['<rootDir>/packages/*/src/**/*.test.ts'] },
    {
      ...common,
      displayName: 'integration',
      testMatch: ['<rootDir>/packages/server/test/**/*.test.ts'],
      globalSetup: '<rootDir>/scripts/jest-postgres-up.mjs',
      globalTeardown: '<rootDir>/scripts/jest-postgres-down.mjs',
    },
  ],
}
