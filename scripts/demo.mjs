// `npm run demo`: from a fresh machine to the demo film on the desk.
import { mkdirSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { startCluster, stopLeftover, workableFolder } from './postgres.mjs'
import { ensureBuilt, ensureDebianPackages, ensureNpmPackages, ROOT } from './prepare.mjs'
import { PlainError, say, tell } from './say.mjs'
import { startServer } from './serve.mjs'

const DATABASE = 'unhurried'

await tell(async () => {
  const port = process.env.PORT ?? '4610'
  ensureDebianPackages()
  ensureNpmPackages()
  ensureBuilt()

  let cluster = null
  let server = null
  let ending = null
  const end = () =>
    (ending ??= (async () => {
      await server?.stop()
      cluster?.stop()
    })())
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
    process.on(signal, () => {
      say('Stopping.')
      void end().then(() => process.exit(0))
    })
  }

  try {
    let url = process.env.DATABASE_URL
    if (!url) {
      const wished = resolve(process.env.DATA_FOLDER ?? join(ROOT, 'data'), 'postgres')
      const folder = workableFolder(wished, say)
      mkdirSync(join(folder, '..'), { recursive: true })
      say(`Starting the private database in ${folder}.`)
      stopLeftover(folder)
      cluster = await startCluster({ folder })
      cluster.createDatabase(DATABASE)
      url = cluster.url(DATABASE)
    }
    say('Starting the server; the first time it draws the demo film, which takes a few seconds.')
    server = await startServer({ DATABASE_URL: url, PORT: port, DEMO: '1' })
    server.process.once('exit', () => {
      if (!ending) void end().then(() => process.exit(1))
    })
    console.log(`
  Unhurried Sketch is at   http://127.0.0.1:${server.port}
  The demo account         wilma@marsh-post.example  ·  lily-pad-lantern
  (filled in on the sign-in page; Ctrl-C stops everything)
`)
  } catch (error) {
    await end()
    throw error instanceof PlainError ? error : new PlainError(error.message)
  }
})
