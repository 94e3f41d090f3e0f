import { parentPort, workerData, type MessagePort } from 'node:worker_threads'
import { attach } from './db/connect.ts'
import { coded, type Answer, type Call } from './services/heavyRoom.ts'
import { journalRoom, type JournalRoom } from './services/journalRoom.ts'

/** Connections of the thread: what is heavy is not done by many at a time. */
const CONNECTIONS = 4

const port = parentPort as MessagePort
const room = attach((workerData as { url: string }).url, CONNECTIONS).then(journalRoom)

type AnyMethod = (...args: readonly unknown[]) => Promise<Uint8Array>

port.on('message', async ({ id, method, args }: Call) => {
  let answer: Answer
  try {
    const bytes = await ((await room) as unknown as Record<keyof JournalRoom, AnyMethod>)[method](...args)
    // A copy of exactly these bytes can be handed over; small buffers share their memory with others.
    answer = { id, ok: true, bytes: Uint8Array.from(bytes) }
  } catch (error) {
    answer = coded(id, error)
  }
  port.postMessage(answer, answer.ok ? [answer.bytes.buffer as ArrayBuffer] : [])
})
