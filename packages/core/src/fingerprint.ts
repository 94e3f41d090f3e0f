/** A text as 53 bits, in base 36 (cyrb53: two multiplicative hashes over the same text). Not for secrets. */
export function fingerprint(text: string): string {
  let [a, b] = [0xdeadbeef, 0x41c6ce57]
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i)
    a = Math.imul(a ^ code, 2_654_435_761)
    b = Math.imul(b ^ code, 1_597_334_677)
  }
  a = Math.imul(a ^ (a >>> 16), 2_246_822_507) ^ Math.imul(b ^ (b >>> 13), 3_266_489_909)
  b = Math.imul(b ^ (b >>> 16), 2_246_822_507) ^ Math.imul(a ^ (a >>> 13), 3_266_489_909)
  return (4_294_967_296 * (2_097_151 & b) + (a >>> 0)).toString(36)
}
