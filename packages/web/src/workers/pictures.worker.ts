import { currentTake, studyOf, find } from '@unhurried/core/document'
import { migrateDocument, unpackStrokes } from '@unhurried/contract'
import { countDrawings } from '@unhurried/core/work'
import { drawnIn, paintBitmap, type Look } from '../paint/bitmaps.ts'
import type { Colours } from '../paint/colours.ts'
import { strokeBook } from '../paint/strokes.ts'
import type { Said } from '../pictures/deadline.ts'
import type { DrawingOrder, PictureOrder, PicturePart, StripOrder } from '../protocols/pictures.ts'
import { paintFrame, picturesOf } from '../send/pictures.ts'

const say = (said: Said<PicturePart>, bitmap?: ImageBitmap) => postMessage(said, { transfer: bitmap ? [bitmap] : [] })

const WIDTH_PX = 480
/** A thumbnail of a long shot moves by leaps. */
const MOST_PICTURES = 48

async function strip({ opened, strokes }: StripOrder): Promise<void> {
  const document = migrateDocument(JSON.parse(new TextDecoder().decode(opened)).document)
  const take = currentTake(document)
  const { width, height, fps, paper } = document.format
  const facts = {
    fps,
    frames: take.length,
    size: { width, height },
    paper,
    count: countDrawings(document, take),
    study: studyOf(document),
  }
  say({ kind: 'part', part: { kind: 'facts', ...facts } })

  const samples = unpackStrokes(strokes)
  const book = strokeBook({ bytes: id => samples.get(id) })
  await book.ready(Object.values(document.drawings))
  const all = picturesOf(document, take, take.loop ?? { from: 0, to: take.length })
  const every = Math.ceil(all.length / MOST_PICTURES)
  const scale = Math.min(1, WIDTH_PX / width, WIDTH_PX / height)
  const size = {
    width: Math.max(1, Math.round(width * scale)),
    height: Math.max(1, Math.round(height * scale)),
    paper: true,
  }
  for (let i = 0; i < all.length; i += every) {
    const group = all.slice(i, i + every)
    const canvas = new OffscreenCanvas(size.width, size.height)
    const brush = canvas.getContext('2d')
    if (brush && group[0]) paintFrame(brush, document, take, group[0].frame, book, size)
    const bitmap = canvas.transferToImageBitmap()
    const frames = group.reduce((sum, p) => sum + p.frames, 0)
    say({ kind: 'part', part: { kind: 'picture', bitmap, frames } }, bitmap)
  }
}

/** Strokes this worker was sent, for as long as it lives. */
const known = new Map<string, Uint8Array>()
const book = strokeBook({ bytes: id => known.get(id) })

async function drawing({ drawing, look, scale, samples }: DrawingOrder): Promise<void> {
  for (const [id, bytes] of samples) known.set(id, bytes)
  await book.ready([drawing])
  const seen: Look = look.kind === 'drawn' ? drawnIn(coloursIn(drawing, look.colours)) : look
  // What is too large for one picture is painted smaller.
  for (let at = scale; ; at *= 0.7) {
    const painted = paintBitmap(drawing, seen, at, book)
    if (!painted) continue
    const bitmap = painted.canvas.transferToImageBitmap()
    const { left, top } = painted
    return say({ kind: 'part', part: { kind: 'drawn', bitmap, left, top, scale: painted.scale } }, bitmap)
  }
}

function coloursIn(drawing: DrawingOrder['drawing'], colours: Readonly<Record<string, string>>): Colours {
  const byStroke = new Map(
    Object.values(drawing.elements).map(element => [element as object, find(colours, element.id)]),
  )
  return stroke => byStroke.get(stroke) ?? '#2f2c28'
}

addEventListener('message', async ({ data }: MessageEvent<PictureOrder>) => {
  try {
    await (data.kind === 'strip' ? strip(data) : drawing(data))
    say({ kind: 'done' })
  } catch (error) {
    say({ kind: 'failed', message: (error as Error).message })
  }
})
