/** Values of a picture row by row; those between pixels can be asked for. */
export interface Plane {
  readonly width: number
  readonly height: number
  readonly data: Uint8Array | Float32Array
}

/** A small grey picture: brightness 0–255, row by row. */
export interface Grey extends Plane {
  readonly data: Uint8Array
}

const { floor } = Math

/** The value at a place between pixels (bilinear), pixels from the middle of the first one; beyond the edge those of the edge. */
export function valueAt({ data, width, height }: Plane, x: number, y: number): number {
  const cx = x < 0 ? 0 : x > width - 1 ? width - 1 : x
  const cy = y < 0 ? 0 : y > height - 1 ? height - 1 : y
  const [x0, y0] = [floor(cx), floor(cy)]
  const [right, down] = [x0 < width - 1 ? 1 : 0, y0 < height - 1 ? width : 0]
  const at = y0 * width + x0
  const [fx, fy] = [cx - x0, cy - y0]
  const top = (data[at] as number) * (1 - fx) + (data[at + right] as number) * fx
  const low = (data[at + down] as number) * (1 - fx) + (data[at + down + right] as number) * fx
  return top * (1 - fy) + low * fy
}
