import { zipSync } from 'fflate'
import { framesOf, type Encode } from '../format.ts'
import { soundFile } from '../heard.ts'

/** A picture file for every frame, numbered from 0001, in one archive; with what is heard beside them. */
export const encode: Encode = async film => {
  const files: Record<string, Uint8Array> = {}
  const count = framesOf(film.pictures)
  let number = 0
  for (const picture of film.pictures) {
    const blob = await (await film.paint(picture)).canvas.convertToBlob({ type: 'image/png' })
    const bytes = new Uint8Array(await blob.arrayBuffer())
    for (let i = 0; i < picture.frames; i++) files[`${String(++number).padStart(4, '0')}.png`] = bytes
    film.tell(number / count)
  }
  if (film.sound) files['sound.wav'] = await soundFile(film.sound)
  // PNGs are packed already; storing them is faster and no larger.
  return Uint8Array.from(zipSync(files, { level: 0 }))
}
