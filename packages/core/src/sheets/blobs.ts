import type { Box, Point } from '../geometry/point.ts'
import type { Grey } from '../raster/grey.ts'

/** Pixels that hang together. */
export interface Blob {
  /** how many they are */
  readonly area: number
  /** first and last pixels, both inside */
  readonly box: Box
  /** their middle, each counted as strongly as it is inked; pixels from the middle of the first one */
  readonly middle: Point
  /** its number among the labels: one for every pixel, 0 for none */
  readonly label: number
  readonly labels: Int32Array
}

const INKED = 96

/** Everything on a picture that is stronger than a bound and hangs together, by sides and corners; in the order of their first pixels. */
export function blobsOf({ width, height, data }: Grey, inked = INKED): Blob[] {
  const labels = new Int32Array(width * height)
  const blobs: Blob[] = []
  const stack: number[] = []
  for (let first = 0; first < labels.length; first++) {
    if (labels[first] !== 0 || (data[first] as number) < inked) continue
    const label = blobs.length + 1
    let [area, left, top, right, bottom, sx, sy, weight] = [0, width, height, -1, -1, 0, 0, 0]
    labels[first] = label
    stack.push(first)
    for (let i = stack.pop(); i !== undefined; i = stack.pop()) {
      const [x, y] = [i % width, (i / width) | 0]
      const ink = data[i] as number
      area++
      weight += ink
      sx += ink * x
      sy += ink * y
      if (x < left) left = x
      if (x > right) right = x
      if (y < top) top = y
      if (y > bottom) bottom = y
      for (let dy = -1; dy <= 1; dy++) {
        for (let dx = -1; dx <= 1; dx++) {
          const [u, v] = [x + dx, y + dy]
          if (u < 0 || v < 0 || u >= width || v >= height) continue
          const next = v * width + u
          if (labels[next] !== 0 || (data[next] as number) < inked) continue
          labels[next] = label
          stack.push(next)
        }
      }
    }
    blobs.push({ area, box: { left, top, right, bottom }, middle: { x: sx / weight, y: sy / weight }, label, labels })
  }
  return blobs
}
