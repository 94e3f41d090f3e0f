import config from './jest.config.mjs'

/** The tests of one folder of core, in one project. Long proofs are cut short, and what only fills a shot to its bounds is left out. */
const { displayName: _, ...unit } = config.projects[0]
export default {
  ...unit,
  testMatch: [`<rootDir>/packages/core/src/${process.env.MUTANTS_OF ?? 'time'}/**/*.test.ts`],
  testPathIgnorePatterns: ['/node_modules/', '/bounds\\.test\\.ts$'],
  setupFiles: ['<rootDir>/scripts/short-proofs.mjs'],
  testTimeout: config.testTimeout,
}
