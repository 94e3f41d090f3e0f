// `npm test`: types, rules, unit, integration and interface tests from a fresh machine, closing with one plain line.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { startCluster, temporaryFolder } from './postgres.mjs'
import { ensureBuilt, ensureDebianPackages, ensureNpmPackages, ROOT } from './prepare.mjs'
import { say, tell } from './say.mjs'

const bin = name => join(ROOT, 'node_modules/.bin', name)
const results = join(ROOT, 'test-results')
let passed = 0
let failed = 0

function step(words, command, args, env = {}) {
  say(words)
  const { status } = spawnSync(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  })
  return status === 0
}

/** A check that is one thing: it passes or fails as a whole. */
function check(words, command, args) {
  if (step(words, command, args)) passed++
  else failed++
}

/** Counts from a report; a run that failed without a failed test (or left no report) counts as one failure. */
function count(ok, read) {
  try {
    const [p, f] = read()
    passed += p
    failed += f || (ok ? 0 : 1)
  } catch {
    failed++
  }
}

const report = name => JSON.parse(readFileSync(join(results, name), 'utf8'))

await tell(async () => {
  ensureDebianPackages({ browser: true })
  ensureNpmPackages()
  rmSync(results, { recursive: true, force: true })
  mkdirSync(results, { recursive: true })

  check('Types, about 25 seconds.', 'npm', ['run', 'types', '--silent', '--loglevel=error'])
  check('Rules and layout of the code, about 15 seconds.', 'npm', ['run', 'lint', '--silent', '--loglevel=error'])
  const jest = step('Unit and integration tests, about 40 seconds.', process.execPath, [
    '--experimental-vm-modules',
    '--no-warnings',
    bin('jest'),
    '--json',
    '--outputFile=test-results/jest.json',
  ])
  count(jest, () => [report('jest.json').numPassedTests, report('jest.json').numFailedTests])

  ensureBuilt()
  const cluster = await startCluster({ folder: temporaryFolder(), throwAway: true })
  try {
    const ok = step('Interface tests in Chromium, about two minutes.', bin('playwright'), ['test'], {
      TEST_CLUSTER_URL: cluster.url('postgres'),
      NODE_OPTIONS: '--no-warnings',
    })
    count(ok, () => [
      report('e2e.json').stats.expected,
      report('e2e.json').stats.unexpected + report('e2e.json').stats.flaky,
    ])
  } finally {
    cluster.stop()
    cluster.remove()
  }
  console.log(`\n${passed} passed, ${failed} failed`)
  if (failed > 0) process.exitCode = 1
})
