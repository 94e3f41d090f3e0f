// `npm run dev`: server and client from source, both starting anew when a file changes. The client is at port 4611.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { onStop, ownDatabase, takeOwnFolder } from './database.mjs'
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './prepare.mjs'
import { tell } from './say.mjs'

const bin = name => join(ROOT, 'node_modules/.bin', name)

await tell(async () => {
  takeOwnFolder()
  ensureDebianPackages()
  ensureNpmPackages()
  const database = await ownDatabase()
  const children = []
  const stop = onStop(async () => {
    for (const child of children) child.kill('SIGTERM')
    await Promise.all(children.map(child => child.exitCode ?? new Promise(done => child.once('exit', done))))
    database.stop()
  })
  const start = (command, args, folder, env = {}) => {
    const child = spawn(command, args, {
      cwd: join(ROOT, folder),
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    })
    child.once('exit', () => void stop.once().then(() => process.exit()))
    children.push(child)
  }
  // The browser's pages come from the client's own server, so changes are asked for from there.
  const pages = { PUBLIC_ORIGIN: 'http://127.0.0.1:4611', ALLOWED_HOSTS: 'localhost:4611' }
  const settings = { DATABASE_URL: database.url, DEMO: '1', PORT: '4610', ...pages }
  start(bin('tsx'), ['watch', '--tsconfig', 'tsconfig.json', 'src/main.ts'], 'packages/server', settings)
  start(bin('vite'), [], 'packages/web')
})
