import { MEDIA_CHUNK_BYTES, mediaChunkBytes } from '@unhurried/core/assets'
import * as calls from './calls.ts'

/**
 * Sends bytes to where a film keeps media, in pieces; what is there already is not sent again. `goesOn` hears how many bytes are there and
 * says whether the rest is still wanted. Whether all of it is there. Throws Refused or Unreachable.
 */
export async function sendPieces(
  film: string,
  id: string,
  bytes: Uint8Array,
  goesOn: (sentBytes: number) => boolean,
): Promise<boolean> {
  const { whole, missing } = await calls.media.begin(film, id, bytes.length)
  let left = missing.reduce((sum, place) => sum + mediaChunkBytes(bytes.length, place), 0)
  for (const place of missing) {
    if (!goesOn(bytes.length - left)) return false
    const from = place * MEDIA_CHUNK_BYTES
    await calls.media.piece(film, id, place, bytes.subarray(from, from + MEDIA_CHUNK_BYTES))
    left -= mediaChunkBytes(bytes.length, place)
  }
  if (!whole) await calls.media.whole(film, id)
  return goesOn(bytes.length)
}
