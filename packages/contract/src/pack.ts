/**
 * Many stroke samples in one answer. Layout, repeated to the end: byte length of the id, the id in ASCII, four bytes
 * length of the samples (big-endian), the samples.
 */
export function packStrokes(strokes: Iterable<readonly [id: string, bytes: Uint8Array]>): Uint8Array {
  const parts = [...strokes]
  const size = parts.reduce((sum, [id, bytes]) => sum + 5 + id.length + bytes.length, 0)
  const out = new Uint8Array(size)
  const view = new DataView(out.buffer)
  let at = 0
  for (const [id, bytes] of parts) {
    out[at++] = id.length
    for (let i = 0; i < id.length; i++) out[at++] = id.charCodeAt(i)
    view.setUint32(at, bytes.length)
    out.set(bytes, at + 4)
    at += 4 + bytes.length
  }
  return out
}

/** Takes such an answer apart. Throws a RangeError when it is cut short. */
export function unpackStrokes(packed: Uint8Array): Map<string, Uint8Array> {
  const view = new DataView(packed.buffer, packed.byteOffset, packed.byteLength)
  const strokes = new Map<string, Uint8Array>()
  let at = 0
  while (at < packed.length) {
    const idEnd = at + 1 + (packed[at] as number)
    const id = String.fromCharCode(...packed.subarray(at + 1, idEnd))
    const length = view.getUint32(idEnd)
    at = idEnd + 4 + length
    if (at > packed.length) throw new RangeError('the strokes are cut short')
    strokes.set(id, packed.slice(idEnd + 4, at))
  }
  return strokes
}
