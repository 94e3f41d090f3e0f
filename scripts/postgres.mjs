// A private PostgreSQL cluster on loopback: made on first use, run as a user that is not root, stopped by whoever started it.
import { execFileSync, spawnSync } from 'node:child_process'
import { chmodSync, chownSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { PlainError } from './say.mjs'

const isRoot = process.getuid?.() === 0
/** Unix socket paths longer than this are refused by the system. */
const LONGEST_SOCKET_PATH = 107

/** Folder of the newest installed PostgreSQL server programs, or null. */
export function postgresPrograms() {
  const home = '/usr/lib/postgresql'
  if (!existsSync(home)) return null
  const versions = readdirSync(home).filter(v => existsSync(join(home, v, 'bin', 'initdb')))
  versions.sort((a, b) => Number(b) - Number(a))
  return versions[0] ? join(home, versions[0], 'bin') : null
}

export function freePort() {
  return new Promise((done, fail) => {
    const server = createServer().once('error', fail)
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address()
      server.close(() => done(port))
    })
  })
}

function postgresUser() {
  const [uid, gid] = ['-u', '-g'].map(flag => Number(execFileSync('id', [flag, 'postgres']).toString()))
  return { uid, gid }
}

function run(program, args) {
  const [command, all] = isRoot ? ['runuser', ['-u', 'postgres', '--', program, ...args]] : [program, args]
  // The working directory must be one that the postgres user may enter.
  const result = spawnSync(command, all, { cwd: '/', encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] })
  if (result.error) throw result.error
  return result
}

/** Whether the postgres user can reach a folder: every parent must let it through. */
function reachable(folder) {
  for (let at = resolve(folder); ; at = dirname(at)) {
    if (existsSync(at) && isRoot) {
      const probe = spawnSync('runuser', ['-u', 'postgres', '--', 'test', '-x', at], { cwd: '/' })
      if (probe.status !== 0) return false
    }
    if (at === dirname(at)) return true
  }
}

/** The wished-for data folder, or one that works when the database user cannot reach it (a clone under a closed folder). */
export function workableFolder(wished, say) {
  if (!isRoot || reachable(dirname(wished))) return wished
  const name = resolve(wished)
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
  const folder = join('/var/lib', 'unhurried-sketch', name)
  say(`The database user cannot reach ${wished}; the data is kept in ${folder} instead.`)
  return folder
}

/**
 * Starts the cluster in `folder` (made first when it is not there) and answers with its address and a way to stop it.
 * A throw-away cluster trades safety against power cuts for speed.
 */
export async function startCluster({ folder, throwAway = false }) {
  const programs = postgresPrograms()
  if (!programs) throw new PlainError('PostgreSQL is not installed: apt-get install postgresql')
  const data = join(folder, 'data')
  mkdirSync(folder, { recursive: true })
  if (isRoot) {
    const { uid, gid } = postgresUser()
    chownSync(folder, uid, gid)
  }
  chmodSync(folder, 0o700)
  if (!existsSync(join(data, 'PG_VERSION'))) {
    need(
      run(join(programs, 'initdb'), [
        '-D',
        data,
        '-U',
        'app',
        '-A',
        'trust',
        '-E',
        'UTF8',
        '--locale=C.UTF-8',
        ...(throwAway ? ['--no-sync'] : []),
      ]),
      'the database could not be created',
    )
  }
  const port = await freePort()
  const socket = join(folder, `.s.PGSQL.${port}`).length > LONGEST_SOCKET_PATH ? '' : folder
  const settings = [
    `-p ${port}`,
    '-c listen_addresses=127.0.0.1',
    `-c unix_socket_directories='${socket}'`,
    '-c max_connections=60',
  ]
  if (throwAway) settings.push('-c fsync=off', '-c synchronous_commit=off', '-c full_page_writes=off')
  const log = join(folder, 'log')
  need(
    run(join(programs, 'pg_ctl'), ['-D', data, '-l', log, '-w', '-o', settings.join(' '), 'start']),
    `the database did not start (see ${log})`,
  )
  return {
    port,
    url: name => `postgres://app@127.0.0.1:${port}/${name}`,
    createDatabase(name) {
      const made = run(join(programs, 'createdb'), ['-h', '127.0.0.1', '-p', String(port), '-U', 'app', name])
      if (made.status !== 0 && !made.stderr.includes('already exists')) need(made, 'the database could not be created')
    },
    stop() {
      run(join(programs, 'pg_ctl'), ['-D', data, '-m', 'fast', '-w', 'stop'])
    },
    remove() {
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

function need(result, complaint) {
  if (result.status === 0) return
  const words = `${result.stderr}${result.stdout}`.trim().split('\n').slice(-2).join(' ')
  const full = /No space left/i.test(words) ? 'the disk is full' : words
  throw new PlainError(`${complaint}: ${full}`)
}

/** A cluster left running by a process that was killed: stopped before it is started again. */
export function stopLeftover(folder) {
  const programs = postgresPrograms()
  const data = join(folder, 'data')
  if (!programs || !existsSync(join(data, 'postmaster.pid'))) return
  run(join(programs, 'pg_ctl'), ['-D', data, '-m', 'fast', '-w', 'stop'])
}

/** A new folder in the temporary folder, for a throw-away cluster. */
export const temporaryFolder = () => mkdtempSync(join(tmpdir(), 'unhurried-test-'))
