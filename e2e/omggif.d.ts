declare module 'omggif' {
  export class GifReader {
    constructor(bytes: Uint8Array)
    readonly width: number
    readonly height: number
    numFrames(): number
    loopCount(): number | null
    frameInfo(frame: number): { delay: number; disposal: number; transparent_index: number | null }
    decodeAndBlitFrameRGBA(frame: number, pixels: Uint8Array): void
  }
}
