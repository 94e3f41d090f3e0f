import { currentTake, type ShotDocument, type Take } from '@unhurried/core/document'
import { migrateDocument, type ShotCard } from '@unhurried/contract'
import { countDrawings, type DrawingCount } from '@unhurried/core/work'
import * as calls from '../api/calls.ts'
import { strokeBook } from '../desk/strokes.ts'
import { paintFrame, picturesOf } from '../send/pictures.ts'

/** A shot as a strip of small pictures, with what is to be said of it. */
export interface ContactSheet {
  readonly pictures: readonly { readonly canvas: OffscreenCanvas; readonly frames: number }[]
  readonly fps: number
  readonly frames: number
  readonly size: { readonly width: number; readonly height: number }
  readonly count: DrawingCount
}

const WIDTH_PX = 480
/** A thumbnail of a long shot moves by leaps. */
const MOST_PICTURES = 48

const known = new Map<string, Promise<ContactSheet>>()

/** Paints a shot small; the same state of a shot is painted once. */
export function contactSheet({ id, seq }: ShotCard): Promise<ContactSheet> {
  const key = `${id} ${seq}`
  const sheet = known.get(key) ?? paintSheet(id)
  known.set(key, sheet)
  sheet.catch(() => known.delete(key))
  return sheet
}

async function paintSheet(id: string): Promise<ContactSheet> {
  const [opened, strokes] = await Promise.all([calls.shot.open(id), calls.shot.samples(id)])
  const document = migrateDocument(opened.document)
  const take = currentTake(document)
  return {
    pictures: paintPictures(document, take, strokes),
    fps: document.format.fps,
    frames: take.length,
    size: { width: document.format.width, height: document.format.height },
    count: countDrawings(document, take),
  }
}

function paintPictures(document: ShotDocument, take: Take, strokes: Map<string, Uint8Array>) {
  const book = strokeBook({ bytes: sample => strokes.get(sample) })
  const range = take.loop ?? { from: 0, to: take.length }
  const all = picturesOf(document, take, range)
  const every = Math.ceil(all.length / MOST_PICTURES)
  const { width, height } = document.format
  const scale = Math.min(1, WIDTH_PX / width, WIDTH_PX / height)
  const size = {
    width: Math.max(1, Math.round(width * scale)),
    height: Math.max(1, Math.round(height * scale)),
    paper: true,
  }
  const pictures: { canvas: OffscreenCanvas; frames: number }[] = []
  for (let i = 0; i < all.length; i += every) {
    const group = all.slice(i, i + every)
    const canvas = new OffscreenCanvas(size.width, size.height)
    const brush = canvas.getContext('2d')
    if (brush && group[0]) paintFrame(brush, document, take, group[0].frame, book, size)
    pictures.push({ canvas, frames: group.reduce((sum, p) => sum + p.frames, 0) })
  }
  return pictures
}
