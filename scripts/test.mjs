// `npm test`: types, rules, unit, integration and interface tests from a fresh machine, closing with one plain line.
// `npm run test:long`: the interface tests that take long for what they may find.
import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { startCluster, temporaryFolder } from './postgres.mjs'
import { ensureBuilt, ensureDebianPackages, ensureNpmPackages, ROOT } from './prepare.mjs'
import { PlainError, say, tell } from './say.mjs'

const bin = name => join(ROOT, 'node_modules/.bin', name)
const results = join(ROOT, 'test-results')
let passed = 0
let failed = 0
let interrupted = false

// Ctrl-C ends the step under way; what was started is stopped all the same.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => (interrupted = true))

async function step(words, command, args, env = {}) {
  say(words)
  const options = { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...env } }
  const { status } = spawnSync(command, args, options)
  // A signal that came meanwhile is only heard of once the event loop has turned.
  await new Promise(turned => setTimeout(turned, 10))
  if (interrupted) throw new PlainError('Stopped.')
  return status === 0
}

/** Checks that are one thing each, beside each other: each passes or fails as a whole. */
async function checks(words, scripts) {
  say(words)
  const options = { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] }
  const ends = scripts.map(script =>
    once(spawn('npm', ['run', script, '--silent', '--loglevel=error'], options), 'exit'),
  )
  for (const [code] of await Promise.all(ends)) {
    if (code === 0) passed++
    else failed++
  }
  if (interrupted) throw new PlainError('Stopped.')
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

const isLong = process.argv.includes('--long')

const report = name => JSON.parse(readFileSync(join(results, name), 'utf8'))

await tell(async () => {
  ensureDebianPackages({ browser: true })
  ensureNpmPackages()
  rmSync(results, { recursive: true, force: true })
  mkdirSync(results, { recursive: true })

  if (!isLong) await checks('Types, rules and layout of the code, about 30 seconds.', ['types', 'lint'])
  const cluster = await startCluster({ folder: temporaryFolder(), throwAway: true })
  try {
    const env = { TEST_CLUSTER_URL: cluster.url('postgres'), NODE_OPTIONS: '--experimental-vm-modules --no-warnings' }
    const jest = [
      '--json',
      '--outputFile=test-results/jest.json',
      `--maxWorkers=${Math.max(2, availableParallelism() - 1)}`,
    ]
    if (!isLong) {
      const units = await step('Unit and integration tests, about two minutes.', bin('jest'), jest, env)
      count(units, () => [report('jest.json').numPassedTests, report('jest.json').numFailedTests])
    }
    ensureBuilt()
    if (!isLong) {
      const isWhole = await step('A small share of the torture, under a minute.', process.execPath, [
        join(ROOT, 'scripts/torture.mjs'),
        '--small',
      ])
      count(isWhole, () => [isWhole ? 1 : 0, isWhole ? 0 : 1])
    }
    const words = `Interface tests in Chromium, about ${isLong ? 'five' : 'nine'} minutes.`
    const projects = isLong ? ['--project=long'] : ['--project=rooms', '--project=pace']
    const rooms = await step(words, bin('playwright'), ['test', ...projects], env)
    count(rooms, () => {
      const { expected, unexpected, flaky } = report('e2e.json').stats
      if (flaky > 0) say(`${flaky} of the interface tests passed only at the second try.`)
      return [expected + flaky, unexpected]
    })
  } finally {
    cluster.stop()
    cluster.remove()
  }
  console.log(`\n${passed} passed, ${failed} failed`)
  if (failed > 0) process.exitCode = 1
})
