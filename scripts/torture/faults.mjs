// What can go wrong around the house. Each fault is done while desks draw, and undone again.
import { rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const sleep = ms => new Promise(done => setTimeout(done, ms))
const some = (least, most) => least + Math.random() * (most - least)

/** By name: `act(house, one)` breaks something about a server (or all) and mends it. */
export const FAULTS = {
  'server killed': async (_house, server) => {
    await server.kill()
    await sleep(some(50, 300))
    await server.start()
  },
  'database crashed': async ({ cluster }) => {
    cluster.crash()
    await sleep(some(50, 400))
    cluster.startAgain()
  },
  'both killed': async ({ cluster, servers }) => {
    await Promise.all(servers.map(server => server.kill()))
    cluster.crash()
    cluster.startAgain()
    await Promise.all(servers.map(server => server.start()))
  },
  'network cut': async (_house, server) => {
    server.cut(true)
    await sleep(some(100, 700))
    server.cut(false)
  },
  'connections of the database ended': async ({ cluster }) => {
    cluster.ask('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE usename = $$app$$')
    await sleep(some(50, 300))
  },
  'process paused': async (_house, server, { pauseMs }) => {
    server.signal('SIGSTOP')
    await sleep(pauseMs)
    server.signal('SIGCONT')
  },
  'database read-only': async ({ cluster }) => {
    cluster.ask("ALTER DATABASE unhurried SET default_transaction_read_only = 'on'")
    cluster.ask('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE usename = $$app$$')
    await sleep(some(400, 900))
    cluster.ask('ALTER DATABASE unhurried RESET default_transaction_read_only')
    cluster.ask('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE usename = $$app$$')
  },
}

/** Fills the disk the database lies on, when it lies on a small one of its own, and makes room again. */
export async function fillDisk(folder) {
  const ballast = join(folder, 'ballast')
  try {
    for (let size = 64 * 1024 * 1024; size >= 4096; size /= 2) {
      try {
        for (;;) writeFileSync(ballast, Buffer.alloc(size), { flag: 'a' })
      } catch {
        // No room for so much any more; less may still go.
      }
    }
    await sleep(1500)
  } finally {
    rmSync(ballast, { force: true })
  }
}
