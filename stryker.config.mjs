/** Mutation testing of one folder of core, held against that folder's own tests. See scripts/mutants.mjs. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

const folder = process.env.MUTANTS_OF ?? 'time'
const every = Number(process.env.MUTANTS_EVERY ?? 1)

const files = readdirSync(`packages/core/src/${folder}`, { recursive: true })
  .filter(name => /\.ts$/.test(name) && !/\.test\.ts$|^tests\/|^index\.ts$/.test(name))
  .map(name => join('packages/core/src', folder, name))

/** Whole files; or single lines, evenly drawn from all of them as if they were one. */
const mutate = []
let line = 0
for (const file of files) {
  if (every === 1) mutate.push(file)
  else
    readFileSync(file, 'utf8')
      .split('\n')
      .forEach((_, i) => line++ % every === 0 && mutate.push(`${file}:${i + 1}-${i + 1}`))
}

export default {
  mutate,
  testRunner: 'jest',
  testRunnerNodeArgs: ['--experimental-vm-modules', '--no-warnings'],
  jest: { projectType: 'custom', configFile: 'jest.mutants.config.mjs', enableFindRelatedTests: false },
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  // What a thrown error or a refusal is called by is told by its type and code; its words are not held by tests.
  mutator: { excludedMutations: ['StringLiteral'] },
  concurrency: Number(process.env.MUTANTS_WORKERS ?? 2),
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
