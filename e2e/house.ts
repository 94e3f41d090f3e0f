import { fork, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { createServer } from 'node:net'
import { join } from 'node:path'
import pg from 'pg'

const ROOT = join(import.meta.dirname, '..')

function freePort(): Promise<number> {
  return new Promise(done => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address()
      server.close(() => done(typeof address === 'object' && address ? address.port : 0))
    })
  })
}

/** The database with the demo film in it, and the lock under which it is made and copied. */
const [DEMO_DRAWN, DEMO_LOCK] = ['e_demo_drawn', 19700]

/** The built application on a database of its own, which a test may kill and start again. */
export class World {
  private child: ChildProcess | null = null
  private constructor(
    readonly url: string,
    private readonly settings: Record<string, string>,
  ) {}

  get databaseUrl(): string {
    return this.settings.DATABASE_URL ?? ''
  }

  static async create(settings: Record<string, string> = {}): Promise<World> {
    const cluster = process.env.TEST_CLUSTER_URL
    if (!cluster) throw new Error('TEST_CLUSTER_URL is not set: run the tests with npm test')
    const name = `e_${randomUUID().replaceAll('-', '')}`
    const admin = new pg.Client({ connectionString: cluster })
    await admin.connect()
    try {
      if (settings.DEMO === '1') await World.drawDemoOnce(admin, cluster)
      await admin.query(`CREATE DATABASE ${name}${settings.DEMO === '1' ? ` TEMPLATE ${DEMO_DRAWN}` : ''}`)
    } finally {
      await admin.end()
    }
    return World.on(cluster, name, settings)
  }

  private static async on(cluster: string, database: string, settings: Record<string, string>): Promise<World> {
    const port = await freePort()
    const world = new World(`http://127.0.0.1:${port}`, {
      DATABASE_URL: cluster.replace(/[^/]+$/, database),
      PORT: String(port),
      SIGN_INS_PER_MINUTE: '1000',
      ...settings,
    })
    await world.start()
    return world
  }

  /** Drawing the demo film takes its time: the first who wants it draws it, all others copy it. */
  private static async drawDemoOnce(admin: pg.Client, cluster: string): Promise<void> {
    await admin.query('SELECT pg_advisory_lock($1)', [DEMO_LOCK])
    const { rowCount } = await admin.query('SELECT 1 FROM pg_database WHERE datname = $1', [DEMO_DRAWN])
    if (!rowCount) {
      const begun = `e_${randomUUID().replaceAll('-', '')}`
      await admin.query(`CREATE DATABASE ${begun}`)
      await (await World.on(cluster, begun, { DEMO: '1' })).stop()
      await admin.query(`ALTER DATABASE ${begun} RENAME TO ${DEMO_DRAWN}`)
    }
    // Two cannot copy it at once: the lock is held until this connection ends.
  }

  async start(): Promise<void> {
    const child = fork(join(ROOT, 'packages/server/dist/main.mjs'), {
      env: { ...process.env, CLIENT_FOLDER: join(ROOT, 'packages/web/dist'), LOG_LEVEL: 'error', ...this.settings },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    })
    this.child = child
    await new Promise((done, fail) => {
      child.once('message', done)
      child.once('exit', code => fail(new Error(`the server ended with ${code}`)))
    })
  }

  private async asKeeper(...statements: string[]): Promise<void> {
    const admin = new pg.Client({ connectionString: process.env.TEST_CLUSTER_URL })
    await admin.connect()
    for (const statement of statements) await admin.query(statement)
    await admin.end()
  }

  private get database(): string {
    return this.databaseUrl.replace(/^.*\//, '')
  }

  /** A copy of the database as it is, while the server is stopped. */
  keepCopy = () => this.asKeeper(`CREATE DATABASE ${this.database}_copy TEMPLATE ${this.database}`)

  /** The copy in place of the database, while the server is stopped. */
  putBack = () =>
    this.asKeeper(
      `DROP DATABASE ${this.database} WITH (FORCE)`,
      `ALTER DATABASE ${this.database}_copy RENAME TO ${this.database}`,
    )

  /** As a power cut would: no time to finish anything. */
  async kill(): Promise<void> {
    const child = this.child
    this.child = null
    if (!child) return
    const gone = new Promise(done => child.once('exit', done))
    child.kill('SIGKILL')
    await gone
  }

  async stop(): Promise<void> {
    const child = this.child
    this.child = null
    if (!child || child.exitCode !== null) return
    const gone = new Promise(done => child.once('exit', done))
    child.kill('SIGTERM')
    await gone
  }
}
