import { drawingAt } from '@unhurried/core/time'
import { columnOf, elementsInOrder, find, kindOf, type Drawing, type Element } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import type { Region } from '@unhurried/core/raster'
import { wrap, type Remote } from 'comlink'
import type { PaperPort } from '../hand.ts'
import type { FillProtocol } from './protocol.ts'

let remote: Remote<FillProtocol> | null = null
/** What the worker knows: the lines, the paper and the gap. */
let known: readonly unknown[] = []

function worker(): Remote<FillProtocol> {
  if (!remote) {
    const made = new Worker(new URL('./fill.worker.ts', import.meta.url), { type: 'module' })
    // A worker that dies would leave its callers waiting for ever: the next press gets a new one.
    made.onerror = () => {
      made.terminate()
      remote = null
      known = []
    }
    remote = wrap<FillProtocol>(made)
  }
  return remote
}

/** The drawings whose lines bound: the present one, and the one it lies under (or over) when its layer follows another. */
function boundingDrawings({ shot, desk }: Pick<PaperPort, 'shot' | 'desk'>): Drawing[] {
  const { document, take } = shot
  const timed = desk.layer?.follows
  const id = document && take && timed ? drawingAt(columnOf(take, timed), desk.frame) : null
  const other = document && id ? find(document.drawings, id) : null
  return [desk.drawing, other].flatMap(drawing => drawing ?? [])
}

/** The region round a place as the lines are now; what has not changed is not sent again. */
export async function regionAt(
  port: Pick<PaperPort, 'shot' | 'desk'>,
  at: Point,
  gapPx: number,
): Promise<Region | null> {
  const { shot } = port
  if (!shot.document) return null
  const { width, height } = shot.document.format
  const lines: Element[] = boundingDrawings(port).flatMap(d => elementsInOrder(d).filter(e => e.kind === 'line'))
  const wanted = [width, height, gapPx, ...lines]
  const filling = worker()
  if (wanted.length !== known.length || wanted.some((one, i) => one !== known[i])) {
    known = wanted
    const sent = lines.flatMap(line => kindOf(line).silhouette(line, shot.strokeBytes) ?? [])
    await filling.bound(sent, { width, height }, gapPx)
  }
  return filling.at(at)
}
