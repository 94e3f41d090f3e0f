import config from './jest.config.mjs'

/** The tests of one folder of core, in one project. */
const { displayName: _, ...unit } = config.projects[0]
export default {
  ...unit,
  testMatch: [`<rootDir>/packages/core/src/${process.env.MUTANTS_OF ?? 'time'}/**/*.test.ts`],
  testTimeout: config.testTimeout,
}
