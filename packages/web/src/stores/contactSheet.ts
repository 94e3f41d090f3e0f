import type { ShotCard } from '@unhurried/contract'
import { LRUCache } from 'lru-cache'
import { TooSlow, withDeadline } from '../pictures/deadline.ts'
import type { PictureOrder, PicturePart, StripFacts } from '../protocols/pictures.ts'
import { pictureWorker } from '../pictures/workers.ts'
import { wholeShot } from './stored.ts'

/** A shot as a strip of small pictures, with what is to be said of it. */
export interface ContactSheet extends Omit<StripFacts, 'kind'> {
  readonly pictures: readonly { readonly bitmap: ImageBitmap; readonly frames: number }[]
  /** whether all is painted; or it took too long, and there are fewer pictures than there should be, or none */
  readonly state: 'painting' | 'whole' | 'too much'
}

/** Painting the strip of a shot takes tens of milliseconds. */
const DEADLINE_MS = 4000

/** Strips kept: more than a shelf shows at a time. A shot that has changed is another strip, so older ones fall out. */
const MOST_STRIPS = 60
const known = new LRUCache<string, Promise<ContactSheet>>({ max: MOST_STRIPS })
const line = withDeadline<PictureOrder, PicturePart>(pictureWorker, DEADLINE_MS)

/** Paints a shot small; the same state of a shot is painted once. `soFar` hears what there is before it is whole. */
export function contactSheet({ id, seq }: ShotCard, soFar: (sheet: ContactSheet) => void): Promise<ContactSheet> {
  const key = `${id} ${seq}`
  const sheet = known.get(key) ?? paintSheet(id, soFar)
  known.set(key, sheet)
  sheet.catch(() => known.delete(key))
  return sheet
}

async function paintSheet(id: string, soFar: (sheet: ContactSheet) => void): Promise<ContactSheet> {
  const { opened, packed: strokes } = await wholeShot(id)
  let facts: StripFacts | null = null
  const pictures: { bitmap: ImageBitmap; frames: number }[] = []
  let state: ContactSheet['state'] = 'whole'
  const now = () => ({ ...(facts as unknown as StripFacts), pictures: [...pictures], state })
  try {
    await line.run(
      () => ({ kind: 'strip', opened, strokes }),
      part => {
        if (part.kind === 'facts') facts = part
        else if (part.kind === 'picture') pictures.push({ bitmap: part.bitmap, frames: part.frames })
        if (pictures.length < 2) soFar({ ...now(), state: 'painting' })
      },
    )
  } catch (error) {
    if (!(error instanceof TooSlow) || !facts) throw error
    state = 'too much'
  }
  return now()
}
