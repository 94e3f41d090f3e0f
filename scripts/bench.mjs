// `npm run bench`: the budgets of the desk as figures, beside a bare baseline from the same run.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { startCluster, temporaryFolder } from './postgres.mjs'
import { ensureBuilt, ensureDebianPackages, ensureNpmPackages, ROOT } from './prepare.mjs'
import { say, tell } from './say.mjs'
import { startServer } from './serve.mjs'
import { guideRows } from './bench/guides.mjs'
import { journalRows } from './bench/journal.mjs'
import { mediaRows } from './bench/media.mjs'
import { print } from './bench/rows.mjs'

await tell(async () => {
  ensureDebianPackages({ browser: true })
  ensureNpmPackages()
  ensureBuilt()
  // Commits are durable, as they are for those who draw.
  const cluster = await startCluster({ folder: temporaryFolder() })
  let server = null
  try {
    server = await startServer({
      DATABASE_URL: cluster.ownUrl(),
      PORT: '0',
      SIGN_INS_PER_MINUTE: '10000',
      DEMO: '1',
    })
    say('Measuring, about seven minutes.')
    const { status } = spawnSync(
      process.execPath,
      [join(ROOT, 'scripts/bench/measure.mjs'), `http://127.0.0.1:${server.port}`],
      {
        cwd: ROOT,
        stdio: 'inherit',
      },
    )
    if (status !== 0) process.exitCode = 1
    print(await guideRows())
    print(await mediaRows(`http://127.0.0.1:${server.port}`))
    print(await journalRows(cluster, `http://127.0.0.1:${server.port}`))
  } finally {
    await server?.stop()
    cluster.stop()
    cluster.remove()
  }
})
