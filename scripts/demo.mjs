// `npm run demo`: from a fresh machine to the demo film on the desk.
import { createServer } from 'node:net'
import { onStop, ownDatabase, takeOwnFolder } from './database.mjs'
import { ensureBuilt, ensureDebianPackages, ensureNpmPackages } from './prepare.mjs'
import { PlainError, say, tell } from './say.mjs'
import { startServer } from './serve.mjs'

/** Told before anything slow is done, rather than after. */
function needFreePort(port) {
  if (!/^\d+$/.test(port) || Number(port) > 65_535) {
    throw new PlainError(`PORT must be a number up to 65535, not ${JSON.stringify(port)}.`)
  }
  return new Promise((done, fail) => {
    const probe = createServer()
    probe.once('error', () =>
      fail(new PlainError(`Port ${port} is taken by another program; choose one: PORT=4700 npm run demo`)),
    )
    probe.listen(Number(port), process.env.HOST ?? '127.0.0.1', () => probe.close(done))
  })
}

await tell(async () => {
  const port = process.env.PORT ?? '4610'
  takeOwnFolder()
  await needFreePort(port)
  ensureDebianPackages()
  ensureNpmPackages()
  ensureBuilt()

  let database = null
  let server = null
  const stop = onStop(async () => {
    await server?.stop()
    database?.stop()
  })
  try {
    database = await ownDatabase()
    say('Starting the server; the first time it draws the demo film, which takes about ten seconds.')
    server = await startServer({ DATABASE_URL: database.url, PORT: port, DEMO: '1' })
    server.process.once('exit', () => {
      if (!stop.isEnding()) void stop.once().then(() => process.exit(1))
    })
    console.log(`
  Unhurried Sketch is at   http://127.0.0.1:${server.port}
  The demo account         wilma@marsh-post.example  ·  lily-pad-lantern
  (filled in on the sign-in page; Ctrl-C stops everything)
`)
  } catch (error) {
    await stop.once()
    throw error instanceof PlainError ? error : new PlainError(error.message)
  }
})
