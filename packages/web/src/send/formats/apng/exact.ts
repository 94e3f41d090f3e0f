/** Bytes of a chunk that are not its data: length, name, check sum. */
const [LENGTH, NAME, CHECK] = [4, 4, 4]
const SIGNATURE = 8
/** Places in an `fcTL` chunk's data: the delay as a fraction of a second. https://www.w3.org/TR/png-3/#fcTL-chunk */
const [DELAY_NUM, DELAY_DEN] = [20, 22]
/** Place in an `acTL` chunk's data: how often it is played, 0 for ever. */
const PLAYS = 4

/** CRC-32 as PNG uses it. */
type Crc = (bytes: Uint8Array, from: number, length: number) => number

/**
 * A moving PNG with its delays written as whole frames of a rate, which milliseconds cannot say, and with the number of
 * times it is played (null: for ever). `frames` has as many as there are pictures. Changes the bytes it is given.
 */
export function exactly(
  bytes: Uint8Array<ArrayBuffer>,
  frames: readonly number[],
  fps: number,
  turns: number | null,
  crc: Crc,
): Uint8Array<ArrayBuffer> {
  const view = new DataView(bytes.buffer)
  let picture = 0
  for (let at = SIGNATURE; at + LENGTH + NAME + CHECK <= bytes.length;) {
    const length = view.getUint32(at)
    const data = at + LENGTH + NAME
    const name = String.fromCharCode(...bytes.subarray(at + LENGTH, data))
    if (name === 'acTL') view.setUint32(data + PLAYS, turns ?? 0)
    if (name === 'fcTL') {
      view.setUint16(data + DELAY_NUM, frames[picture++] ?? 1)
      view.setUint16(data + DELAY_DEN, fps)
    }
    if (name === 'acTL' || name === 'fcTL') view.setUint32(data + length, crc(bytes, at + LENGTH, NAME + length))
    at = data + length + CHECK
  }
  return bytes
}
