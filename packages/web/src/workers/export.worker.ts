import { gifDelays } from '@unhurried/core/time'
import { zipSync } from 'fflate'
import { GIFEncoder, applyPalette, quantize } from 'gifenc'
import { strokeBook, type StrokeBook } from '../desk/strokes.ts'
import { paintFrame, picturesOf } from '../send/pictures.ts'
import type { ExportMessage, ExportOrder } from '../send/protocol.ts'

const tell = (message: ExportMessage) => postMessage(message)

function brushFor(width: number, height: number): OffscreenCanvasRenderingContext2D {
  const brush = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
  if (!brush) throw new Error('this browser gives no canvas to draw on')
  return brush
}

/** Fewer than half opaque is nothing: GIF knows no half-way. */
const OPAQUE = 128

function gif(order: ExportOrder, book: StrokeBook): Uint8Array<ArrayBuffer> {
  const { document, take, width, height } = order
  const pictures = picturesOf(document, take, order.range)
  const frames = gifDelays(
    pictures.map(p => p.frames),
    document.format.fps,
  )
  const brush = brushFor(width, height)
  const encoder = GIFEncoder()
  frames.forEach(({ picture, delayCs }, i) => {
    paintFrame(brush, document, take, pictures[picture]?.frame ?? 0, book, order)
    const { data } = brush.getImageData(0, 0, width, height)
    const transparent = !order.paper
    const format = transparent ? 'rgba4444' : 'rgb565'
    const palette = quantize(data, 256, { format, oneBitAlpha: transparent ? OPAQUE : false })
    const index = applyPalette(data, palette, format)
    const transparentIndex = palette.findIndex(colour => colour[3] === 0)
    encoder.writeFrame(index, width, height, {
      palette,
      // The encoder counts in milliseconds and writes hundredths.
      delay: delayCs * 10,
      repeat: 0,
      transparent: transparent && transparentIndex >= 0,
      transparentIndex: Math.max(0, transparentIndex),
      dispose: transparent ? 2 : 1,
    })
    tell({ kind: 'progress', share: (i + 1) / frames.length })
  })
  encoder.finish()
  return Uint8Array.from(encoder.bytes())
}

async function pngs(order: ExportOrder, book: StrokeBook): Promise<Uint8Array<ArrayBuffer>> {
  const { document, take, width, height, range } = order
  const brush = brushFor(width, height)
  const files: Record<string, Uint8Array> = {}
  const count = range.to - range.from
  for (const picture of picturesOf(document, take, range)) {
    paintFrame(brush, document, take, picture.frame, book, order)
    const blob = await brush.canvas.convertToBlob({ type: 'image/png' })
    const bytes = new Uint8Array(await blob.arrayBuffer())
    for (let f = picture.frame; f < picture.frame + picture.frames; f++) {
      files[`${String(f - range.from + 1).padStart(4, '0')}.png`] = bytes
    }
    tell({ kind: 'progress', share: (picture.frame + picture.frames - range.from) / count })
  }
  // PNGs are packed already; storing them is faster and no larger.
  return Uint8Array.from(zipSync(files, { level: 0 }))
}

addEventListener('message', async ({ data: order }: MessageEvent<ExportOrder>) => {
  try {
    const book = strokeBook({ bytes: id => order.samples.get(id) })
    const bytes = order.kind === 'gif' ? gif(order, book) : await pngs(order, book)
    tell({ kind: 'done', bytes })
  } catch (error) {
    tell({ kind: 'failed', message: (error as Error).message })
  }
})
