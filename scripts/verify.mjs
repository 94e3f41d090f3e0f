// `npm run verify`: holds every stored shot against its journal. `-- --mend` makes anew what follows from the journal;
// `-- --restored`, after the database was put back from a copy, tells open desks to send what they have.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { ownDatabase, takeOwnFolder } from './database.mjs'
import { ensureBuilt, ensureDebianPackages, ensureNpmPackages, ROOT } from './prepare.mjs'
import { PlainError, tell } from './say.mjs'

const KNOWN = new Set(['--mend', '--restored'])

await tell(async () => {
  const flags = process.argv.slice(2)
  const unknown = flags.find(flag => !KNOWN.has(flag))
  if (unknown) throw new PlainError(`${unknown} is not known here; there are ${[...KNOWN].join(' and ')}.`)
  takeOwnFolder()
  ensureDebianPackages()
  ensureNpmPackages()
  ensureBuilt()
  const database = await ownDatabase()
  try {
    const { status } = spawnSync(process.execPath, [join(ROOT, 'packages/server/dist/verify.mjs'), ...flags], {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, DATABASE_URL: database.url },
    })
    process.exitCode = status ?? 1
  } finally {
    database.stop()
  }
})
