import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { chmodSync, chownSync, mkdirSync, mkdtempSync, readFileSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import pg from 'pg'
import { postgresPrograms, startCluster, type Cluster } from '../../../scripts/postgres.mjs'

const isRoot = process.getuid?.() === 0
let folder: string
let cluster: Cluster

/** A cluster as it was made before there were passwords: everybody comes in, as one who may do everything. */
beforeAll(async () => {
  const programs = postgresPrograms() as string
  const base = mkdtempSync(join(tmpdir(), 'unhurried-old-'))
  chmodSync(base, 0o755)
  folder = join(base, 'postgres')
  mkdirSync(folder)
  if (isRoot) {
    const [uid, gid] = ['-u', '-g'].map(flag => Number(execFileSync('id', [flag, 'postgres']).toString()))
    chownSync(folder, uid as number, gid as number)
  }
  const run = (program: string, args: string[], input?: string) => {
    const all = [join(programs, program), ...args]
    const [command, ...rest] = isRoot ? ['runuser', '-u', 'postgres', '--', ...all] : all
    const result = spawnSync(command as string, rest, {
      cwd: '/',
      encoding: 'utf8',
      input,
      stdio: ['pipe', 'ignore', 'pipe'],
    })
    if (result.status !== 0) throw new Error(result.stderr)
  }
  run('initdb', ['-D', `${folder}/data`, '-U', 'app', '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8', '--no-sync'])
  const options = `-p 5432 -c listen_addresses='' -c unix_socket_directories='${folder}'`
  run('pg_ctl', ['-D', `${folder}/data`, '-l', `${folder}/log`, '-w', '-o', options, 'start'])
  const psql = (database: string, sql: string) =>
    run('psql', ['-h', folder, '-p', '5432', '-U', 'app', '-q', database], sql)
  psql('postgres', 'CREATE DATABASE unhurried')
  psql('unhurried', "CREATE TABLE drawn (id serial PRIMARY KEY, what text); INSERT INTO drawn (what) VALUES ('kept')")
  run('pg_ctl', ['-D', `${folder}/data`, '-m', 'fast', '-w', 'stop'])
  cluster = await startCluster({ folder })
}, 60_000)
afterAll(() => {
  cluster?.stop()
  cluster?.remove()
})

async function asked(url: string, sql: string): Promise<unknown[]> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  try {
    return (await client.query(sql)).rows
  } finally {
    await client.end()
  }
}

test('an older private database is brought over with all that is in it, and only its owner comes in', async () => {
  const url = cluster.ownUrl()
  expect(await asked(url, 'SELECT what FROM drawn')).toEqual([{ what: 'kept' }])
  expect(await asked(url, "INSERT INTO drawn (what) VALUES ('more') RETURNING id")).toEqual([{ id: 2 }])
  expect(await asked(url, 'SHOW data_checksums')).toEqual([{ data_checksums: 'on' }])
  expect(await asked(url, 'SELECT rolsuper FROM pg_roles WHERE rolname = current_user')).toEqual([{ rolsuper: false }])
  const bare = `127.0.0.1:${cluster.port}`
  for (const way of [
    `postgres://app@${bare}/unhurried`,
    `postgres://app:guessed@${bare}/unhurried`,
    `postgres://postgres@${bare}/postgres`,
    `postgres://founder:x@${bare}/postgres`,
    url.replace(/unhurried$/, 'postgres'),
  ]) {
    await expect(asked(way, 'SELECT 1')).rejects.toThrow()
  }
  for (const wish of [
    'CREATE ROLE other',
    'CREATE DATABASE other',
    "COPY drawn TO '/tmp/stolen'",
    'SELECT pg_read_file($$/etc/passwd$$)',
  ]) {
    await expect(asked(url, wish)).rejects.toThrow(/permission denied|must be/i)
  }
  expect(statSync(join(folder, 'keys.json')).mode & 0o077).toBe(0)
  expect(readFileSync(join(folder, 'data/pg_hba.conf'), 'utf8')).not.toMatch(/trust/)
})

test('a folder that another command has is left alone, and said to be; it is free again when that one is killed', async () => {
  const script = `import(${JSON.stringify(resolve('scripts/postgres.mjs'))}).then(m => { m.takeFolder(${JSON.stringify(folder)}); console.log('taken'); setInterval(() => {}, 1000) }).catch(e => { console.log(e.message); process.exit(3) })`
  const first = spawn(process.execPath, ['-e', script], { stdio: ['ignore', 'pipe', 'inherit'] })
  await new Promise(done => first.stdout.once('data', done))
  const second = spawnSync(process.execPath, ['-e', script], { encoding: 'utf8' })
  expect([second.status, second.stdout]).toEqual([
    3,
    expect.stringContaining(`in use by another command (process ${first.pid})`),
  ])
  const gone = new Promise(done => first.once('exit', done))
  first.kill('SIGKILL')
  await gone
  const third = spawn(process.execPath, ['-e', script], { stdio: ['ignore', 'pipe', 'inherit'] })
  const words = await new Promise<string>(done => third.stdout.once('data', (part: Buffer) => done(part.toString())))
  third.kill('SIGKILL')
  expect(words.trim()).toBe('taken')
}, 30_000)
