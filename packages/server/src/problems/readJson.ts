import { Problem } from './problem.ts'

/** Nothing that is sent nests deeper, or holds more lists, things and members of them, than this. */
const DEEPEST = 16
const MOST_MEMBERS = 600_000

/** The value in a JSON text whose depth and size were looked at before it is built. Throws a Problem. */
export function readJson(bytes: Uint8Array): unknown {
  const fault = jsonFault(bytes)
  if (fault) throw new Problem(fault.code, fault.words)
  try {
    return JSON.parse(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('utf8'))
  } catch {
    throw new Problem('bad-request', 'The request is not valid JSON.')
  }
}

const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c]
const OPENS = new Set([0x5b, 0x7b])
const CLOSES = new Set([0x5d, 0x7d])

/** What is wrong with the shape of a JSON text, without building it; null for what may be read. */
export function jsonFault(bytes: Uint8Array): { code: 'too-large' | 'bad-request'; words: string } | null {
  let depth = 0
  let members = 0
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i] as number
    if (byte === QUOTE) {
      for (i++; i < bytes.length && bytes[i] !== QUOTE; i++) if (bytes[i] === BACKSLASH) i++
    } else if (byte === COMMA) members++
    else if (OPENS.has(byte)) {
      members++
      if (++depth > DEEPEST) return { code: 'bad-request', words: `The request nests deeper than ${DEEPEST} levels.` }
    } else if (CLOSES.has(byte)) depth--
    if (members > MOST_MEMBERS)
      return { code: 'too-large', words: `The request holds more than ${MOST_MEMBERS} things.` }
  }
  return null
}
