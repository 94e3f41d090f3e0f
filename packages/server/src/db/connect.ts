import 'reflect-metadata'
import { DataSource } from 'typeorm'
import { ENTITIES } from './entities.ts'
import { First1764000000000 } from './firstMigration.ts'
import { Habits1764100000000 } from './habits.ts'
import { JournalSchema1764050000000 } from './journalSchema.ts'

/** Connects to the database and brings its tables up to date. */
export async function connect(url: string): Promise<DataSource> {
  const source = new DataSource({
    type: 'postgres',
    url,
    entities: ENTITIES,
    migrations: [First1764000000000, JournalSchema1764050000000, Habits1764100000000],
    migrationsRun: true,
    synchronize: false,
    extra: { max: 12, connectionTimeoutMillis: 10_000 },
  })
  return source.initialize()
}
