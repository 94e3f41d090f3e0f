import type { Grey } from '../raster/grey.ts'

/** A picture no wider or higher than so many pixels, each the mean of those it stands for; and how many of the old make one of the new. */
export function smaller(picture: Grey, mostPx: number): { readonly grey: Grey; readonly by: number } {
  const by = Math.max(1, Math.max(picture.width, picture.height) / mostPx)
  if (by === 1) return { grey: picture, by }
  const width = Math.max(1, Math.floor(picture.width / by))
  const height = Math.max(1, Math.floor(picture.height / by))
  const data = new Uint8Array(width * height)
  for (let y = 0; y < height; y++) {
    const [top, bottom] = [Math.floor(y * by), Math.min(picture.height, Math.ceil((y + 1) * by))]
    for (let x = 0; x < width; x++) {
      const [left, right] = [Math.floor(x * by), Math.min(picture.width, Math.ceil((x + 1) * by))]
      let [sum, weight] = [0, 0]
      for (let v = top; v < bottom; v++) {
        const down = Math.min(v + 1, (y + 1) * by) - Math.max(v, y * by)
        for (let u = left; u < right; u++) {
          const share = down * (Math.min(u + 1, (x + 1) * by) - Math.max(u, x * by))
          sum += share * (picture.data[v * picture.width + u] as number)
          weight += share
        }
      }
      data[y * width + x] = Math.round(sum / weight)
    }
  }
  return { grey: { width, height, data }, by }
}
