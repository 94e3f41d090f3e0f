/** Mutation testing of one folder of core, held against that folder's own tests. See scripts/mutants.mjs. */
const folder = process.env.MUTANTS_OF ?? 'time'

export default {
  mutate: [
    `packages/core/src/${folder}/**/*.ts`,
    `!packages/core/src/${folder}/**/*.test.ts`,
    `!packages/core/src/${folder}/tests/**`,
    `!packages/core/src/${folder}/**/index.ts`,
  ],
  testRunner: 'jest',
  testRunnerNodeArgs: ['--experimental-vm-modules', '--no-warnings'],
  jest: { projectType: 'custom', configFile: 'jest.mutants.config.mjs', enableFindRelatedTests: false },
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  // What a thrown error or a refusal is called by is told by its type and code; its words are not held by tests.
  mutator: { excludedMutations: ['StringLiteral'] },
  concurrency: 2,
  timeoutMS: 20_000,
  reporters: ['progress-append-only', 'clear-text', 'json'],
  clearTextReporter: { allowColor: false, reportTests: false, logTests: false },
  jsonReporter: { fileName: `test-results/mutants-${folder}.json` },
  tempDirName: `test-results/mutants-${folder}`,
  ignorePatterns: [
    'data',
    'docs',
    'dist',
    'test-results',
    'playwright-report',
    'packages/web',
    'packages/server',
    'e2e',
  ],
}
