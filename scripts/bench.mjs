// `npm run bench`: the budgets of the desk as figures, beside a bare baseline from the same run.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { startCluster, temporaryFolder } from './postgres.mjs'
import { ensureBuilt, ensureDebianPackages, ensureNpmPackages, ROOT } from './prepare.mjs'
import { say, tell } from './say.mjs'
import { startServer } from './serve.mjs'

await tell(async () => {
  ensureDebianPackages({ browser: true })
  ensureNpmPackages()
  ensureBuilt()
  const cluster = await startCluster({ folder: temporaryFolder(), throwAway: true })
  let server = null
  try {
    cluster.createDatabase('bench')
    server = await startServer({
      DATABASE_URL: cluster.url('bench'),
      PORT: '0',
      SIGN_INS_PER_MINUTE: '10000',
      DEMO: '1',
    })
    say('Measuring, about three minutes.')
    const { status } = spawnSync(
      process.execPath,
      [join(ROOT, 'scripts/bench/measure.mjs'), `http://127.0.0.1:${server.port}`],
      {
        cwd: ROOT,
        stdio: 'inherit',
      },
    )
    if (status !== 0) process.exitCode = 1
  } finally {
    await server?.stop()
    cluster.stop()
    cluster.remove()
  }
})
