import { existsSync } from 'node:fs'
import { pino } from 'pino'
import { createApp, serverFor } from './app.ts'
import { connect, underHouseLock } from './db/connect.ts'
import { DEMO_ACCOUNT } from './demo/account.ts'
import { seedDemo } from './demo/seed.ts'
import { announcer } from './services/announcer.ts'
import { binService } from './services/bin.ts'
import { heavyRoom } from './services/heavyRoom.ts'
import { accessService } from './services/access.ts'
import { mediaService } from './services/media.ts'
import { telephoneService } from './services/telephones.ts'
import { tendHourly } from './services/tending.ts'
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
  const url = settings.DATABASE_URL
  const source = await connect(url)
  if (settings.DEMO) await underHouseLock(url, () => seedDemo(source, log))
  const word = announcer(url, log)
  await word.start()
  // Threads read built code only: from source all is done in this one.
  const heavy = import.meta.url.endsWith('.mjs') ? heavyRoom(url, log) : null
  const clientFolder = settings.CLIENT_FOLDER && existsSync(settings.CLIENT_FOLDER) ? settings.CLIENT_FOLDER : undefined
  const mediaBounds = { oneBytes: settings.MEDIA_MB * 1024 ** 2, filmBytes: settings.MEDIA_FILM_MB * 1024 ** 2 }
  const app = createApp({
    source,
    announcer: word,
    log,
    ...(heavy && { heavy: heavy.room }),
    publicOrigin: settings.PUBLIC_ORIGIN,
    allowedHosts: settings.ALLOWED_HOSTS,
    trustProxy: settings.TRUST_PROXY,
    clientFolder,
    demo: settings.DEMO ? DEMO_ACCOUNT : null,
    signInsPerMinute: settings.SIGN_INS_PER_MINUTE,
    binDays: settings.BIN_DAYS,
    mediaBounds,
  })
  const untend = tendHourly(
    log,
    ['bin-swept', () => binService(source, settings.BIN_DAYS).sweep()],
    ['media-swept', mediaService(source, mediaBounds).sweep],
    ['telephones-swept', telephoneService(source, accessService(source)).sweep],
  )
  const server = serverFor(app)
  server.listen(settings.PORT, settings.HOST, () => {
    const address = server.address()
    const port = typeof address === 'object' && address ? address.port : settings.PORT
    log.info({ host: settings.HOST, port }, 'listening')
    process.send?.({ port })
  })
  server.on('error', error => fail(error))

  // What fails where nobody waits for it is written down; those who are served are served on.
  process.on('unhandledRejection', error => log.error({ err: error }, 'something that nobody waited for failed'))

  const stop = () => {
    untend()
    server.closeAllConnections()
    server.close(() => {
      void Promise.allSettled([word.stop(), heavy?.stop(), source.destroy()]).then(() => process.exit(0))
    })
  }
  process.once('SIGINT', stop)
  process.once('SIGTERM', stop)
  // Whoever started this process over a channel is gone: nobody is left to stop it.
  process.once('disconnect', stop)
}

/** What keeps the server from starting, in one sentence. */
const WORDS: Readonly<Record<string, string>> = {
  EADDRINUSE: 'The port is taken by another program; set PORT to a free one.',
  EACCES: 'The port may not be used by this user; set PORT to one above 1023.',
  EADDRNOTAVAIL: 'HOST is no address of this machine.',
  ENOTFOUND: 'HOST or the host in DATABASE_URL is not known.',
  ECONNREFUSED: 'No database answers at DATABASE_URL.',
  '28P01': 'The database does not accept the name and password in DATABASE_URL.',
  '3D000': 'There is no such database as the one in DATABASE_URL.',
}

function fail(error: unknown): void {
  const { code, message } = error as NodeJS.ErrnoException
  console.error(WORDS[code ?? ''] ?? message)
  process.exit(1)
}

try {
  await start(readSettings(process.env))
} catch (error) {
  fail(error)
}
