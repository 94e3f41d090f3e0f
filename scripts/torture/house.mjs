// The house that is tortured: a private database with durable commits, and two server processes on it.
import { spawnSync } from 'node:child_process'
import { createServer, connect } from 'node:net'
import { join } from 'node:path'
import { freePort, startCluster, temporaryFolder } from '../postgres.mjs'
import { ROOT } from '../prepare.mjs'
import { startServer } from '../serve.mjs'

/** One server process at a port that stays, behind a wire that can be cut. */
async function makeServer(url) {
  const port = await freePort()
  let running = null
  const sockets = new Set()
  let isCut = false
  const wire = createServer(desk => {
    if (isCut) return desk.destroy()
    const house = connect(port, '127.0.0.1')
    for (const [one, other] of [
      [desk, house],
      [house, desk],
    ]) {
      sockets.add(one)
      one.on('error', () => undefined)
      one.on('close', () => (sockets.delete(one), other.destroy()))
    }
    desk.pipe(house)
    house.pipe(desk)
  })
  await new Promise(done => wire.listen(0, '127.0.0.1', done))
  const start = async () => {
    running = await startServer({
      DATABASE_URL: url,
      PORT: String(port),
      DEMO: '0',
      SIGN_INS_PER_MINUTE: '100000',
      LOG_LEVEL: 'silent',
      PUBLIC_ORIGIN: `http://127.0.0.1:${wire.address().port}`,
    })
  }
  await start()
  return {
    url: `http://127.0.0.1:${wire.address().port}`,
    direct: `http://127.0.0.1:${port}`,
    get pid() {
      return running.process.pid
    },
    async kill() {
      const gone = new Promise(done => running.process.once('exit', done))
      running.process.kill('SIGKILL')
      await gone
    },
    start,
    signal: name => process.kill(running.process.pid, name),
    /** every connection ends at once, in the middle of whatever it carries; new ones are not taken while it is cut */
    cut(state) {
      isCut = state
      if (state) for (const socket of sockets) socket.destroy()
    },
    async stop() {
      wire.close()
      await running.stop()
    },
  }
}

export async function makeHouse(folder = temporaryFolder()) {
  const cluster = await startCluster({ folder })
  const url = cluster.ownUrl()
  const servers = [await makeServer(url), await makeServer(url)]
  return {
    cluster,
    servers,
    /** holds all shots against their journals; answers with the last line, and whether all is in order */
    verify() {
      const result = spawnSync(process.execPath, [join(ROOT, 'packages/server/dist/verify.mjs')], {
        cwd: ROOT,
        encoding: 'utf8',
        env: { ...process.env, DATABASE_URL: url },
      })
      const lines = `${result.stdout}${result.stderr}`.trim().split('\n')
      return { ok: result.status === 0, lines }
    },
    async stop() {
      for (const server of servers) await server.stop()
      cluster.stop()
      cluster.remove()
    },
  }
}
