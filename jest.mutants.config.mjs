import config from './jest.config.mjs'

/** The tests of one folder of core, as one file that is made for it. Long proofs are cut short. */
const { displayName: _, ...unit } = config.projects[0]
export default {
  ...unit,
  testMatch: [`<rootDir>/packages/core/src/${process.env.MUTANTS_OF ?? 'time'}/together.test.ts`],
  setupFiles: ['<rootDir>/scripts/short-proofs.mjs'],
  testTimeout: config.testTimeout,
}
