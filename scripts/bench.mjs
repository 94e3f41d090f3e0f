// `npm run bench`: the budgets of the desk as figures, beside a bare baseline from the same run; `npm run bench media` one part of it.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { startCluster, temporaryFolder } from './postgres.mjs'
import { ensureBuilt, ensureDebianPackages, ensureNpmPackages, ROOT } from './prepare.mjs'
import { say, tell } from './say.mjs'
import { startServer } from './serve.mjs'
import { guideRows } from './bench/guides.mjs'
import { journalRows } from './bench/journal.mjs'
import { measuringRows } from './bench/measuring.mjs'
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
    const url = `http://127.0.0.1:${server.port}`
    const parts = {
      desk: () => {
        const { status } = spawnSync(process.execPath, [join(ROOT, 'scripts/bench/measure.mjs'), url], {
          cwd: ROOT,
          stdio: 'inherit',
        })
        if (status !== 0) process.exitCode = 1
      },
      guides: async () => print(await guideRows()),
      measuring: async () => print(await measuringRows()),
      media: async () => print(await mediaRows(url)),
      journal: async () => print(await journalRows(cluster, url)),
    }
    const wanted = process.argv.slice(2)
    const unknown = wanted.find(part => !Object.hasOwn(parts, part))
    if (unknown) throw new Error(`There is no part “${unknown}”: ${Object.keys(parts).join(', ')}.`)
    say(wanted.length > 0 ? `Measuring ${wanted.join(', ')}.` : 'Measuring, about seven minutes.')
    for (const part of wanted.length > 0 ? wanted : Object.keys(parts)) await parts[part]()
  } finally {
    await server?.stop()
    cluster.stop()
    cluster.remove()
  }
})
