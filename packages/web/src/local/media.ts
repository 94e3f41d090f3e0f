import { database, type StoredMedia } from './database.ts'

/** What was fetched is kept here up to so many bytes; what is not sent yet is kept in any case. */
const MOST_FETCHED_BYTES = 400 * 1024 * 1024

/** Keeps a recording or clip here. */
export async function keepMedia(media: StoredMedia): Promise<void> {
  const db = await database()
  await db.put('media', media)
  if (media.sent) await letGo()
}

/** Changes what is known of one, in one go: nobody else's change comes in between and is lost. Answers it as it is then. */
async function changed(film: string, id: string, patch: Partial<StoredMedia>): Promise<StoredMedia | undefined> {
  const tx = (await database()).transaction('media', 'readwrite')
  const found = await tx.store.get([film, id])
  const now = found && { ...found, ...patch }
  if (now) await tx.store.put(now)
  await tx.done
  return now
}

/** A recording or clip that is kept here; it counts as wanted now. */
export async function mediaHere(film: string, id: string): Promise<StoredMedia | undefined> {
  return changed(film, id, { at: Date.now() })
}

/** Those that the server does not have yet. */
export async function unsentMedia(): Promise<StoredMedia[]> {
  const db = await database()
  const found: StoredMedia[] = []
  for (let at = await db.transaction('media').store.openCursor(); at; at = await at.continue()) {
    if (!at.value.sent) found.push(at.value)
  }
  return found
}

/** The server has it. */
export async function mediaSent(film: string, id: string): Promise<void> {
  await changed(film, id, { sent: true })
}

/** Lets one go: nobody wants it sent any more. */
export const dropMedia = async (film: string, id: string): Promise<void> =>
  (await database()).delete('media', [film, id])

/** Nothing that was fetched stays here; what the server does not have yet does. */
export async function forgetSentMedia(): Promise<void> {
  const tx = (await database()).transaction('media', 'readwrite')
  for (let at = await tx.store.openCursor(); at; at = await at.continue()) if (at.value.sent) await at.delete()
  await tx.done
}

/** Of what was fetched the longest unwanted go, when it is too much. */
async function letGo(): Promise<void> {
  const db = await database()
  const fetched: { key: [string, string]; at: number; bytes: number }[] = []
  for (let at = await db.transaction('media').store.openCursor(); at; at = await at.continue()) {
    const { film, id, bytes, sent } = at.value
    if (sent) fetched.push({ key: [film, id], at: at.value.at, bytes: bytes.length })
  }
  let sum = fetched.reduce((all, { bytes }) => all + bytes, 0)
  for (const { key, bytes } of fetched.sort((a, b) => a.at - b.at)) {
    if (sum <= MOST_FETCHED_BYTES) return
    await db.delete('media', key)
    sum -= bytes
  }
}
