import { momentUnder, pictureAt } from '@unhurried/core/clip'
import { columnOf, find, noteAt, sheetsUnder } from '@unhurried/core/document'
import type { ModelSheet, ModelView } from '@unhurried/core/models'
import { drawingAt } from '@unhurried/core/time'
import type { Point } from '@unhurried/core/geometry'
import { drawnIn } from '../paint/bitmaps.ts'
import type { Brush } from '../paint/nibs.ts'
import { useClips } from '../stores/clips.ts'
import { useModels } from '../stores/models.ts'
import { useShelves } from '../stores/shelves.ts'
import { useShot } from '../stores/shot.ts'
import { useSight } from '../stores/sight.ts'
import type { Stand, StandKind } from '../paint/stand.ts'

/** What is seen in a stand: how large it is in its own pixels, and how it is painted in them. */
export interface Seen {
  readonly widthPx: number
  readonly heightPx: number
  paint(brush: Brush, scale: number): void
  /** the side of a model sheet that it is */
  readonly view?: { readonly model: ModelSheet; readonly view: ModelView; readonly card: string }
}

/** The colour (#rrggbb) of a place of what is seen, its own pixels; null where there is nothing. */
export function colourAt(seen: Seen, { x, y }: Point): string | null {
  const brush = new OffscreenCanvas(1, 1).getContext('2d', { willReadFrequently: true })
  if (!brush) return null
  brush.translate(-Math.floor(x), -Math.floor(y))
  seen.paint(brush, 1)
  const [r, g, b, a] = brush.getImageData(0, 0, 1, 1).data as unknown as [number, number, number, number]
  return a < 128 ? null : `#${[r, g, b].map(n => n.toString(16).padStart(2, '0')).join('')}`
}

/** Something that can stand beside the paper. */
export interface Source {
  /** what the stand is called, and what is told of it; null when there is nothing like it any more */
  words(stand: Stand, frame: number): { readonly title: string; readonly told: string } | null
  /** what is seen in it on a frame (from 0); null where nothing lies there, undefined while it is on its way */
  seen(stand: Stand, frame: number): Seen | null | undefined
}

const bitmapSeen = (bitmap: ImageBitmap, widthPx: number, heightPx: number): Seen => ({
  widthPx,
  heightPx,
  paint: brush => brush.drawImage(bitmap, 0, 0, widthPx, heightPx),
})

function modelSource(): Source {
  const models = useModels()
  const find = (stand: Stand) => {
    const card = models.all.find(one => one.id === stand.id)
    const view = card?.model.views.find(one => one.id === stand.side) ?? card?.model.views[0]
    return card ? { card, view } : null
  }
  return {
    words(stand) {
      const one = find(stand)
      return one && { title: one.card.model.name, told: one.view ? '' : 'It has no side yet.' }
    },
    seen(stand) {
      const one = find(stand)
      if (!one?.view) return null
      const { card, view } = one
      void models.come
      const bitmap = models.picture(view, `${card.model.name}, ${view.name}`)
      if (!bitmap) return undefined
      return { ...bitmapSeen(bitmap, view.widthPx, view.heightPx), view: { model: card.model, view, card: card.id } }
    },
  }
}

function layerSource(): Source {
  const shot = useShot()
  const sight = useSight()
  const shelves = useShelves()
  const drawingOn = ({ id }: Stand, frame: number) => {
    const runs = shot.take && columnOf(shot.take, id)
    return runs ? shot.drawing(drawingAt(runs, Math.max(0, frame))) : null
  }
  return {
    words(stand, frame) {
      const layer = shot.document && find(shot.document.layers, stand.id)
      if (!layer) return null
      const drawing = drawingOn(stand, frame)
      return { title: layer.name, told: drawing ? `drawing ${drawing.number}` : 'nothing is shown here' }
    },
    seen(stand, frame) {
      const { document } = shot
      const drawing = drawingOn(stand, frame)
      if (!document || !drawing) return null
      const { width: widthPx, height: heightPx, paper } = document.format
      return {
        widthPx,
        heightPx,
        paint(brush, scale) {
          void shelves.here.painted.value
          brush.fillStyle = paper
          brush.fillRect(0, 0, widthPx, heightPx)
          for (const one of [...sheetsUnder(document, drawing), drawing]) {
            shelves.here.draw(brush, one, drawnIn(sight.colours), scale)
          }
        },
      }
    },
  }
}

function clipSource(): Source {
  const shot = useShot()
  const clips = useClips()
  const numberOn = (stand: Stand, frame: number) => {
    const clip = clips.all.find(one => one.id === stand.id)
    const times = clip ? (clips.openedOf(clip)?.times.value ?? []) : []
    if (!clip) return null
    const fps = shot.document?.format.fps ?? 24
    const at = frame + stand.offset
    if (stand.step === 'frame') return { clip, number: at >= 0 && at < times.length ? at : null, times }
    const moment = stand.step === 'second' ? clip.inS + at / fps : momentUnder(clip, fps, at)
    return { clip, number: moment === null || moment < 0 ? null : pictureAt(times, moment), times }
  }
  return {
    words(stand, frame) {
      const on = numberOn(stand, frame)
      if (!on) return null
      const { clip, number, times } = on
      const told =
        times.length === 0
          ? 'It is being opened.'
          : number === null
            ? 'nothing of it on this frame'
            : `picture ${number + 1} of ${times.length}, ${(times[number] ?? 0).toFixed(2)} s`
      const noted = number === null ? '' : noteAt(clip, times[number] ?? -1)
      return { title: clip.name, told: noted ? `${told}: ${noted}` : told }
    },
    seen(stand, frame) {
      const on = numberOn(stand, frame)
      if (!on || on.number === null) return on?.times.length === 0 ? undefined : null
      void clips.come
      const bitmap = clips.openedOf(on.clip)?.picture(on.number) ?? null
      return bitmap ? bitmapSeen(bitmap, on.clip.widthPx, on.clip.heightPx) : undefined
    },
  }
}

/** How each kind is come by. */
export const SOURCES: Record<StandKind, () => Source> = { model: modelSource, layer: layerSource, clip: clipSource }
