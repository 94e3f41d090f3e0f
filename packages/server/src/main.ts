import { existsSync } from 'node:fs'
import { pino } from 'pino'
import { createApp } from './app.ts'
import { connect } from './db/connect.ts'
import { DEMO_ACCOUNT } from './demo/account.ts'
import { seedDemo } from './demo/seed.ts'
import { announcer } from './services/announcer.ts'
import { readSettings, type Settings } from './settings.ts'

async function start(settings: Settings): Promise<void> {
  const log = pino({
    level: settings.LOG_LEVEL,
    redact: [
      'req.headers.cookie',
      '*.password',
      '*.passwordHash',
      '*.token',
      'err.parameters',
      'err.driverError',
      'err.query',
    ],
  })
  const source = await connect(settings.DATABASE_URL)
  if (settings.DEMO) await seedDemo(source, log)
  const word = announcer(settings.DATABASE_URL, log)
  await word.start()
  const clientFolder = settings.CLIENT_FOLDER && existsSync(settings.CLIENT_FOLDER) ? settings.CLIENT_FOLDER : undefined
  const app = createApp({
    source,
    announcer: word,
    log,
    publicOrigin: settings.PUBLIC_ORIGIN,
    clientFolder,
    demo: settings.DEMO ? DEMO_ACCOUNT : null,
    signInsPerMinute: settings.SIGN_INS_PER_MINUTE,
  })
  const server = app.listen(settings.PORT, settings.HOST, () => {
    const address = server.address()
    const port = typeof address === 'object' && address ? address.port : settings.PORT
    log.info({ host: settings.HOST, port }, 'listening')
    process.send?.({ port })
  })
  server.on('error', error => fail(error))

  const stop = () => {
    server.closeAllConnections()
    server.close(() => {
      void Promise.allSettled([word.stop(), source.destroy()]).then(() => process.exit(0))
    })
  }
  process.once('SIGINT', stop)
  process.once('SIGTERM', stop)
  // Whoever started this process over a channel is gone: nobody is left to stop it.
  process.once('disconnect', stop)
}

function fail(error: unknown): void {
  const { code, message } = error as NodeJS.ErrnoException
  console.error(code === 'EADDRINUSE' ? 'The port is taken by another program; set PORT to a free one.' : message)
  process.exit(1)
}

start(readSettings(process.env)).catch(fail)
