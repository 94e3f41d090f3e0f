import { strokeBook } from '../paint/strokes.ts'
import type { ExportMessage, ExportOrder } from '../protocols/export.ts'
import type { Film } from '../send/formats/format.ts'
import { FORMAT_NAMES, FORMATS } from '../send/formats/table.ts'
import { paintFrame, picturesOf } from '../send/pictures.ts'
import { sentClips } from './sentClips.ts'

const tell = (message: ExportMessage) => postMessage(message)

/** The film of an order: its pictures, painted one after the other on one brush. */
async function filmOf(order: ExportOrder): Promise<Film> {
  const { document, take, range, width, height, paper, turns } = order
  const book = strokeBook({ bytes: id => order.samples.get(id) })
  await book.ready(Object.values(document.drawings))
  const under = order.clips.length > 0 ? await sentClips(order.clips, document.format.fps) : null
  const brush = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
  if (!brush) throw new Error('this browser gives no canvas to draw on')
  return {
    width,
    height,
    fps: document.format.fps,
    seeThrough: !paper,
    paper: document.format.paper,
    turns,
    sound: order.sound,
    pictures: picturesOf(document, take, range, under?.keyAt),
    async paint({ frame }) {
      paintFrame(brush, document, take, frame, book, order, await under?.at(frame))
      return brush
    },
    tell: share => tell({ kind: 'progress', share }),
  }
}

addEventListener('message', async ({ data: order }: MessageEvent<ExportOrder>) => {
  try {
    const name = FORMAT_NAMES.find(known => known === order.format)
    if (!name) throw new Error(`no format is called ${order.format}`)
    const encode = await FORMATS[name].encode()
    tell({ kind: 'done', bytes: await encode(await filmOf(order)) })
  } catch (error) {
    tell({ kind: 'failed', message: (error as Error).message })
  }
})
