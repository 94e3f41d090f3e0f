// Starts the built server as a child process and waits until it listens.
import { fork } from 'node:child_process'
import { join } from 'node:path'
import { ROOT } from './prepare.mjs'
import { PlainError } from './say.mjs'

/** Answers with the port it listens on, and ways to end it. */
export function startServer(settings) {
  const child = fork(join(ROOT, 'packages/server/dist/main.mjs'), {
    cwd: ROOT,
    env: { ...process.env, CLIENT_FOLDER: join(ROOT, 'packages/web/dist'), LOG_LEVEL: 'warn', ...settings },
    stdio: ['ignore', 'inherit', 'pipe', 'ipc'],
    // Ctrl-C reaches the whole group; the child is ended by us, after its work is done.
    detached: true,
  })
  let words = ''
  child.stderr.on('data', part => (words += part))
  return new Promise((resolve, reject) => {
    child.once('message', ({ port }) => {
      // What it says once it runs is for whoever started it.
      child.stderr.pipe(process.stderr)
      resolve({
        port,
        process: child,
        stop: () =>
          new Promise(done => {
            if (child.exitCode !== null || child.signalCode !== null) return done()
            child.once('exit', done)
            child.kill('SIGTERM')
          }),
      })
    })
    child.once('exit', () =>
      reject(new PlainError(`The server did not start. ${words.trim().split('\n').slice(-3).join(' ')}`)),
    )
  })
}
