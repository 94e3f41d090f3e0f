// The project's own database for `demo` and `dev`: in the data folder, or wherever DATABASE_URL says.
import { mkdirSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { startCluster, stopLeftover, takeFolder, workableFolder } from './postgres.mjs'
import { ROOT } from './prepare.mjs'
import { say } from './say.mjs'

const wished = () => resolve(process.env.DATA_FOLDER ?? join(ROOT, 'data'), 'postgres')

/** Takes the data folder for this command alone, before anything else is done; of no concern with another database. */
export function takeOwnFolder() {
  if (!process.env.DATABASE_URL) takeFolder(wished())
}

/** Answers with the database's address, and how to stop what was started for it. */
export async function ownDatabase() {
  const url = process.env.DATABASE_URL
  if (url) return { url, stop: () => undefined }
  const folder = workableFolder(wished(), say)
  mkdirSync(dirname(folder), { recursive: true })
  say(`Starting the private database in ${folder}.`)
  stopLeftover(folder)
  const cluster = await startCluster({ folder })
  return { url: cluster.ownUrl(), stop: () => cluster.stop() }
}

/** Runs `end` once when the terminal, or whoever started this, wants it to stop. */
export function onStop(end) {
  let ending = null
  const once = () => (ending ??= Promise.resolve(end()))
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
    process.on(signal, () => {
      if (!ending) say('Stopping.')
      void once().then(() => process.exit(0))
    })
  }
  return { once, isEnding: () => ending !== null }
}
