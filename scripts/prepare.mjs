// Makes a fresh machine ready: Debian packages, npm packages, the build. Each step is skipped when it is done already.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { postgresPrograms } from './postgres.mjs'
import { PlainError, say } from './say.mjs'

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)))
const isRoot = process.getuid?.() === 0

function run(command, args, complaint, quiet = true) {
  const result = spawnSync(command, args, {
    cwd: ROOT,
    encoding: 'utf8',
    stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
  })
  if (result.status === 0) return
  const words = `${result.stdout ?? ''}${result.stderr ?? ''}`.trim().split('\n').slice(-8).join('\n  ')
  throw new PlainError(`${complaint}${words ? `:\n  ${words}` : '.'}`)
}

function aptInstall(packages, why) {
  say(`Installing ${packages.join(', ')} (${why}); this takes up to two minutes.`)
  const [command, front] = isRoot ? ['apt-get', []] : ['sudo', ['-n', 'apt-get']]
  const complaint = `${packages.join(' and ')} could not be installed; install ${packages.length > 1 ? 'them' : 'it'} with apt-get as an administrator and run this again`
  run(command, [...front, 'update', '-qq'], complaint)
  run(command, [...front, 'install', '-y', '-qq', '--no-install-recommends', ...packages], complaint)
}

export const CHROMIUM = '/usr/bin/chromium'

/** Debian packages: the database always, the browser and the decoder for tests. */
export function ensureDebianPackages({ browser = false } = {}) {
  const missing = []
  if (!postgresPrograms()) missing.push('postgresql')
  if (browser && !existsSync(CHROMIUM)) missing.push('chromium')
  if (missing.length) aptInstall(missing, 'needed once')
}

const fingerprint = file =>
  createHash('sha256')
    .update(readFileSync(join(ROOT, file)))
    .digest('hex')

/** npm packages, exactly as the lock file says; done again when it changes. */
export function ensureNpmPackages() {
  const stamp = join(ROOT, 'node_modules', '.installed-from')
  const wanted = fingerprint('package-lock.json')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  say('Installing npm packages; this takes about a minute.')
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], 'The npm packages could not be installed')
  writeFileSync(stamp, wanted)
}

function newest(folder) {
  let latest = 0
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.name === 'node_modules' || entry.name === 'dist') continue
    const path = join(folder, entry.name)
    latest = Math.max(latest, entry.isDirectory() ? newest(path) : statSync(path).mtimeMs)
  }
  return latest
}

/** The built client and server, made anew when any source is newer. */
export function ensureBuilt() {
  const stamp = join(ROOT, 'packages/server/dist/.built')
  if (existsSync(stamp) && statSync(stamp).mtimeMs >= newest(join(ROOT, 'packages'))) return
  say('Building; this takes about ten seconds.')
  run('npm', ['run', 'build', '--loglevel=error'], 'The build failed')
  mkdirSync(dirname(stamp), { recursive: true })
  writeFileSync(stamp, new Date().toISOString())
}
