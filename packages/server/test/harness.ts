import { FIRST, type Batch, type Stroke, type Operation } from '@unhurried/core/document'
import { packSamples } from '@unhurried/core/geometry'
import type { NewShot } from '@unhurried/contract'
import type Koa from 'koa'
import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { pino } from 'pino'
import request from 'supertest'
import { createApp, type Dependencies } from '../src/app.ts'
import { connect } from '../src/db/connect.ts'
import type { RequestState } from '../src/http/context.ts'
import { accountService } from '../src/services/accounts.ts'
import { announcer } from '../src/services/announcer.ts'

export const ORIGIN = 'http://desk.example'
export const PASSWORD = 'reed-and-lantern'
export const SHOT: NewShot = {
  name: 'Lantern',
  format: { width: 640, height: 360, fps: 24, paper: '#fdfaf3' },
  frames: 24,
}

/** An application on a database of its own in the throw-away cluster. */
export async function bench(patch: Partial<Dependencies> = {}) {
  const name = `t_${randomUUID().replaceAll('-', '')}`
  const clusterUrl = process.env.TEST_CLUSTER_URL as string
  const admin = new pg.Client({ connectionString: clusterUrl })
  await admin.connect()
  await admin.query(`CREATE DATABASE ${name}`)
  await admin.end()
  const url = clusterUrl.replace(/[^/]+$/, name)
  const source = await connect(url)
  const log = pino({ level: process.env.TEST_LOG ?? 'silent' })
  const word = announcer(url, log)
  await word.start()
  const deps: Dependencies = { source, announcer: word, log, publicOrigin: ORIGIN, signInsPerMinute: 1000, ...patch }
  const app = createApp(deps)
  return {
    url,
    source,
    app,
    /** another server process on the same database */
    another: () => createApp(deps),
    async account(label: string) {
      const email = `${label}@marsh-post.example`
      return accountService(source).create({ email, name: label, password: PASSWORD })
    },
    async close() {
      await word.stop()
      await source.destroy()
    },
  }
}

export type Bench = Awaited<ReturnType<typeof bench>>

/** An application with one account, `owner`, who sits at a desk. */
export async function benchWithOwner(patch: Partial<Dependencies> = {}) {
  const b = await bench(patch)
  await b.account('owner')
  return { b, agent: await visitor(b.app, 'owner') }
}

/** Someone at a desk: signs in and asks. */
export async function visitor(app: Koa<RequestState>, label: string) {
  const agent = request.agent(app.callback())
  const reply = await agent.post('/api/session').send({ email: `${label}@marsh-post.example`, password: PASSWORD })
  if (reply.status !== 200) throw new Error(`sign-in failed: ${reply.text}`)
  return agent
}

export type Visitor = Awaited<ReturnType<typeof visitor>>

export async function filmWithShot(agent: Visitor): Promise<{ film: string; shot: string }> {
  const film = (await agent.post('/api/films').send({ name: 'The Marsh Post' })).body.id as string
  const shot = (await agent.post(`/api/films/${film}/shots`).send(SHOT)).body.id as string
  return { film, shot }
}

export const sampleText = Buffer.from(packSamples([{ x: 1, y: 2, pressure: 0.5 }])).toString('base64')

export const element = (id: string): Stroke => ({
  id,
  kind: 'line',
  z: 1,
  samples: 's1',
  part: null,
  nib: { look: 'ink', ends: 'round', thinning: 0.62 },
  label: null,
  matrix: null,
  swatch: 'graphite',
  width: 4,
})

/** A picture of two pixels, as a browser writes it. */
export const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAIAAAABCAYAAAD0In+KAAAAEUlEQVR4nGOwyQr9vyFUqwEAEFsDqj8px6wAAAAASUVORK5CYII=',
  'base64',
)

/** A batch that lays a picture on a drawing. */
export const lyingPicture = (id: string, picture: string, more: object = {}): Batch =>
  batch(`lay-${id}`, {
    kind: 'elements.add',
    drawing: 'd1',
    elements: [
      {
        id,
        kind: 'picture',
        z: 1,
        matrix: null,
        picture,
        widthPx: 2,
        heightPx: 1,
        opacity: 1,
        cut: null,
        placeholder: false,
        ...more,
      },
    ],
  })

export const batch = (id: string, ...ops: Operation[]): Batch => ({ id, label: 'test', ops })

export const newDrawing = (id: string, number: number): Batch =>
  batch(`add-${id}`, {
    kind: 'drawing.add',
    drawing: { id, layer: FIRST.drawn, number, role: 'key', elements: {}, marks: {} },
  })

export const stroke = (id: string, drawing = 'd1'): Batch =>
  batch(`stroke-${id}`, { kind: 'elements.add', drawing, elements: [element(id)] })

export const post = (agent: Visitor, shot: string, batches: readonly unknown[], more: object = {}) =>
  agent.post(`/api/shots/${shot}/journal`).send({ since: 0, batches, samples: { s1: sampleText }, ...more })
