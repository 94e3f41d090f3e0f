declare module 'gifenc' {
  export type Palette = number[][]
  export interface FrameOptions {
    palette: Palette
    delay: number
    repeat: number
    transparent: boolean
    transparentIndex: number
    dispose: number
  }
  export function GIFEncoder(): {
    writeFrame(index: Uint8Array, width: number, height: number, options: FrameOptions): void
    finish(): void
    bytes(): Uint8Array
  }
  export function quantize(
    rgba: Uint8ClampedArray,
    colours: number,
    options: { format: string; oneBitAlpha: number | false },
  ): Palette
  export function applyPalette(rgba: Uint8ClampedArray, palette: Palette, format: string): Uint8Array
}
