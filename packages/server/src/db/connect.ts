import 'reflect-metadata'
import pg from 'pg'
import { DataSource } from 'typeorm'
import { Ahead1764900000000 } from './ahead.ts'
import { Assets1764600000000 } from './assets.ts'
import { ENTITIES } from './entities.ts'
import { First1764000000000 } from './firstMigration.ts'
import { Habits1764100000000 } from './habits.ts'
import { JournalSchema1764050000000 } from './journalSchema.ts'
import { Media1765000000000 } from './media.ts'
import { Models1765100000000 } from './models.ts'
import { Named1765400000000 } from './named.ts'
import { Pictures1765300000000 } from './pictures.ts'
import { Telephones1765200000000 } from './telephones.ts'
import { Keeping1764200000000 } from './keeping.ts'

/** How long the database is waited for. Another process that was paused in the middle must not stop this one. */
export const PATIENCE = {
  /** for a connection to be made, or one of the pool to be free */
  connectMs: 8_000,
  /** for a row that another process has locked */
  lockMs: 4_000,
  /** for one statement; answering of the largest legal shot takes far less */
  statementMs: 30_000,
  /** after this the database ends a transaction whose process does nothing, and gives its locks back */
  idleInTransactionMs: 8_000,
} as const

/** Settings of every connection: what is dead is noticed, and nothing is waited for endlessly. */
export const CONNECTION = {
  connectionTimeoutMillis: PATIENCE.connectMs,
  keepAlive: true,
  keepAliveInitialDelayMillis: 5_000,
  statement_timeout: PATIENCE.statementMs,
  lock_timeout: PATIENCE.lockMs,
  idle_in_transaction_session_timeout: PATIENCE.idleInTransactionMs,
} as const

/** Two numbers that name the lock under which tables are brought up to date and the demo is drawn. */
const HOUSE_LOCK = [1970, 4610] as const

const sourceFor = (url: string, connections: number): DataSource =>
  new DataSource({
    type: 'postgres',
    url,
    entities: ENTITIES,
    migrations: [
      First1764000000000,
      JournalSchema1764050000000,
      Habits1764100000000,
      Keeping1764200000000,
      Assets1764600000000,
      Ahead1764900000000,
      Media1765000000000,
      Models1765100000000,
      Telephones1765200000000,
      Pictures1765300000000,
      Named1765400000000,
    ],
    synchronize: false,
    extra: { max: connections, ...CONNECTION },
  })

/** Connects to a database whose tables are up to date. `connections` bounds how many are open at a time. */
export const attach = (url: string, connections: number): Promise<DataSource> =>
  sourceFor(url, connections).initialize()

/** Connects to the database and brings its tables up to date. */
export async function connect(url: string, connections = 12): Promise<DataSource> {
  const source = sourceFor(url, connections)
  await underHouseLock(url, async () => {
    await source.initialize()
    await source.runMigrations()
  })
  return source
}

/** Does something that two servers starting at the same moment must not both do: one after the other. */
export async function underHouseLock<T>(url: string, doing: () => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: PATIENCE.connectMs, keepAlive: true })
  client.on('error', () => undefined)
  await client.connect()
  try {
    await client.query('SELECT pg_advisory_lock($1, $2)', [...HOUSE_LOCK])
    return await doing()
  } finally {
    // Ending the connection gives the lock back, whatever happened.
    await client.end().catch(() => undefined)
  }
}
