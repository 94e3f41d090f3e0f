/** Whether bytes hold a text of plain letters at a place. */
export const ascii = (bytes: Uint8Array, at: number, text: string): boolean =>
  at + text.length <= bytes.length && [...text].every((letter, i) => bytes[at + i] === letter.charCodeAt(0))
