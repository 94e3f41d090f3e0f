const LETTERS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz'
const LENGTH = 16

/** A new id: 16 letters and digits from the machine's own randomness (95 bits), never repeated in practice. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(LENGTH))
  return Array.from(bytes, byte => LETTERS[byte % LETTERS.length]).join('')
}
