import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { Refused, Unreachable } from '../api/ask.ts'
import * as calls from '../api/calls.ts'
import { sendPieces } from '../api/pieces.ts'
import type { StoredMedia } from '../local/database.ts'
import { dropMedia, keepMedia, mediaHere, mediaSent, unsentMedia } from '../local/media.ts'

/** Something on its way to the server: how much of it is there, in bytes, and why it cannot be taken, once that is known. */
export interface OnItsWay {
  readonly film: string
  readonly id: string
  readonly name: string
  readonly sent: number
  readonly of: number
  readonly refused: string | null
}

/** What nobody answers is tried again after this. */
const AGAIN_MS = 5000

/**
 * Recordings and clips of films, as bytes: kept on this machine first, sent on in pieces behind one's back, fetched when they are not here. One at a time
 * is sent; what was cut off goes on where it was.
 */
export const useMedia = defineStore('media', () => {
  const onTheirWay = shallowRef<readonly OnItsWay[]>([])
  const fetching = new Map<string, Promise<Uint8Array>>()
  let isSending = false
  let again: ReturnType<typeof setTimeout> | undefined
  let hasRead = false

  const key = (film: string, id: string) => `${film} ${id}`
  const set = (film: string, id: string, patch: Partial<OnItsWay>) =>
    (onTheirWay.value = onTheirWay.value.map(one => (one.film === film && one.id === id ? { ...one, ...patch } : one)))
  const find = (film: string, id: string) => onTheirWay.value.find(one => one.film === film && one.id === id)
  const drop = (film: string, id: string) =>
    (onTheirWay.value = onTheirWay.value.filter(one => one.film !== film || one.id !== id))

  function queue({ film, id, name, bytes }: StoredMedia): void {
    if (find(film, id)?.refused === null) return
    drop(film, id)
    onTheirWay.value = [...onTheirWay.value, { film, id, name, sent: 0, of: bytes.length, refused: null }]
  }

  /** Keeps something that was brought in, and sends it on; or answers in a sentence why there is no room for it, and nothing is done. */
  async function keep(film: string, id: string, name: string, bytes: Uint8Array): Promise<string | null> {
    const why = await noRoom(film, name, bytes.length)
    if (why !== null) return why
    const stored = { film, id, name, bytes, sent: false, at: Date.now() }
    try {
      await keepMedia(stored)
    } catch {
      return `This machine’s storage is full or closed: “${name}” cannot be kept.`
    }
    queue(stored)
    void send()
    return null
  }

  /** Why the server would not take so many bytes; null where it would, or nobody answers: then it is told when they are sent. */
  async function noRoom(film: string, name: string, bytes: number): Promise<string | null> {
    const room = await calls.media.room(film).catch(() => null)
    if (!room) return null
    if (bytes > room.oneBytes) {
      return `“${name}” has ${inMB(bytes)}; a recording or clip may have ${inMB(room.oneBytes)}.`
    }
    if (room.used + bytes <= room.filmBytes) return null
    return `“${name}” has ${inMB(bytes)}, and the film holds ${inMB(room.used)} of ${inMB(room.filmBytes)} of recordings, clips and pictures.`
  }

  /** The bytes of something, from here or from the server. Rejects when it is in neither place. */
  async function bytesOf(film: string, id: string, name: string): Promise<Uint8Array> {
    const here = await mediaHere(film, id).catch(() => undefined)
    if (here) return here.bytes
    const asked = fetching.get(key(film, id)) ?? calls.media.bytes(film, id)
    fetching.set(key(film, id), asked)
    try {
      const bytes = await asked
      await keepMedia({ film, id, name, bytes, sent: true, at: Date.now() }).catch(() => undefined)
      return bytes
    } finally {
      fetching.delete(key(film, id))
    }
  }

  /** Goes on with what an earlier evening left unsent. */
  async function goOn(): Promise<void> {
    if (!hasRead) {
      hasRead = true
      for (const left of await unsentMedia().catch(() => [])) queue(left)
    }
    await send()
  }

  async function send(): Promise<void> {
    if (isSending) return
    clearTimeout(again)
    isSending = true
    try {
      for (let next = waiting(); next; next = waiting()) await sendOne(next)
    } catch {
      again = setTimeout(() => void send(), AGAIN_MS)
    } finally {
      isSending = false
    }
  }
  const waiting = () => onTheirWay.value.find(one => one.refused === null)

  async function sendOne({ film, id }: OnItsWay): Promise<void> {
    const stored = await mediaHere(film, id)
    if (!stored) return void drop(film, id)
    const { bytes } = stored
    try {
      const isThere = await sendPieces(film, id, bytes, sent => {
        set(film, id, { sent })
        return find(film, id) !== undefined
      })
      // Nobody wants it any more.
      if (!isThere) return
      await mediaSent(film, id)
      drop(film, id)
    } catch (error) {
      // Signed out, or too much at the moment, is like nobody there.
      if (error instanceof Unreachable || !(error instanceof Refused) || PASSING.has(error.status)) throw error
      set(film, id, { refused: error.message })
    }
  }

  /** Sends something no more, and lets it go from here. */
  async function letGo(film: string, id: string): Promise<void> {
    drop(film, id)
    await dropMedia(film, id).catch(() => undefined)
  }

  globalThis.addEventListener?.('online', () => void send())

  return { onTheirWay, keep, bytesOf, goOn, letGo }
})

const inMB = (bytes: number): string => `${Math.ceil(bytes / 1024 / 1024)} MB`
const PASSING: ReadonlySet<number> = new Set([401, 429, 500, 503])
