declare module 'upng-js' {
  const UPNG: {
    /** pictures as RGBA; 0 colours: all of them; delays in milliseconds */
    encode(rgba: ArrayBuffer[], width: number, height: number, colours: number, delays: number[]): ArrayBuffer
    decode(bytes: ArrayBuffer): {
      readonly width: number
      readonly height: number
      readonly frames: readonly { readonly delay: number }[]
      readonly tabs: { readonly acTL?: { readonly num_frames: number; readonly num_plays: number } }
    }
    toRGBA8(picture: ReturnType<typeof UPNG.decode>): ArrayBuffer[]
    readonly crc: { crc(bytes: Uint8Array, from: number, length: number): number }
  }
  export default UPNG
}
