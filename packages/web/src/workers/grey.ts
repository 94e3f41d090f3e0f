import type { Grey } from '@unhurried/core/raster'

/** What is painted on a canvas, as bright as people see it (Rec. 709). */
export function greyOf(brush: OffscreenCanvasRenderingContext2D): Grey {
  const { width, height } = brush.canvas
  const { data } = brush.getImageData(0, 0, width, height)
  const grey = new Uint8Array(width * height)
  for (let i = 0; i < grey.length; i++) {
    const at = 4 * i
    grey[i] = 0.2126 * (data[at] as number) + 0.7152 * (data[at + 1] as number) + 0.0722 * (data[at + 2] as number)
  }
  return { width, height, data: grey }
}
