import { nextTick } from 'vue'
import { frameOfNeighbour, type Drawing } from '@unhurried/core/document'
import { gathers, pushed, type Matrix, type Nib, type Point, type Sample } from '@unhurried/core/geometry'
import type { useDesk } from '../stores/desk.ts'
import type { useShot } from '../stores/shot.ts'
import { NO_LINE } from '../words/refusals.ts'
import { cutOps, reshapeEdit, strokesEdit, touchedBy, trimOps } from './edits.ts'
import { useLetters } from '../stores/letters.ts'
import { tenths } from './gathered.ts'
import { roundFigure, straightFigure, type Figure } from './figureHand.ts'
import { inked, paintInked } from './nibs.ts'
import { livePainter, paintTrack, strokeUnderWay, type RawSample } from './pen.ts'
import { toPaper } from './view.ts'

/** The paper under a hand. */
export interface PaperPort {
  readonly shot: ReturnType<typeof useShot>
  readonly desk: ReturnType<typeof useDesk>
  /** paper to screen */
  readonly matrix: Matrix
  readonly density: number
  readonly brush: CanvasRenderingContext2D
  /** screen pixels as paper pixels */
  px(screen: number): number
  /** strokes not painted with the drawing while the hand has them */
  lift(ids: ReadonlySet<string>): void
  lifted(): ReadonlySet<string>
  /** a measure to be read beside the pointer */
  say(words: string | null): void
}

export interface Modifiers {
  readonly shift: boolean
  readonly alt: boolean
}

/** What a tool does from pressing to letting go. Nothing is changed before `finish`; dropping a hand leaves no trace. */
export interface Hand {
  move(raws: readonly RawSample[], keys: Modifiers): void
  finish(): void
}

const RUB_COLOUR = 'rgba(164, 77, 36, 0.35)'
const LOOP_COLOUR = '#3c6a55'
/** The part of the track that is looked at again with every move. */
const RECENT = 6
const TRAIL = 12

function whereOn({ shot, desk }: PaperPort) {
  const { document, take } = shot
  if (!document || !take) return null
  return { document, take, layer: desk.layerId, frame: desk.frame, hold: desk.holdHere, drawing: desk.drawing }
}

/** Adds strokes as one step; answers with their ids, or null when they could not be. */
function addStrokes(
  paper: PaperPort,
  paths: readonly (readonly Sample[])[],
  kind: 'line' | 'shape',
  words: string,
  nib: Nib = paper.desk.pens[paper.desk.pen].nib,
): readonly string[] | null {
  const { shot, desk } = paper
  const where = whereOn(paper)
  if (!where) return null
  const { width } = desk.pens[desk.pen]
  const edit = strokesEdit(where, paths, { kind, swatch: desk.swatch, width, nib, label: desk.label })
  if (!edit) {
    shot.notice = NO_LINE
    return null
  }
  const label = `${words}${where.drawing ? ` on ${where.drawing.number}` : ' on a new drawing'}`
  if (shot.commit(label, edit.ops, { samples: edit.samples })) return null
  if (edit.frame !== null) desk.frame = edit.frame
  return edit.ids
}

const lookOf = ({ desk }: PaperPort, kind: 'line' | 'shape') => ({
  kind,
  width: desk.pens[desk.pen].width,
  nib: desk.pens[desk.pen].nib,
  colour: desk.colours({ swatch: desk.swatch, label: desk.label }),
})

/** Draws a line, or the edge of a painted shape. */
export function drawingHand(paper: PaperPort, kind: 'line' | 'shape'): Hand {
  const { desk } = paper
  const pen = desk.pens[desk.pen]
  const smoothing = kind === 'shape' ? desk.shapeSmoothing : pen.smoothing
  const stroke = strokeUnderWay(paper.matrix, { smoothing, bySpeed: pen.bySpeed, pressure: desk.pressure })
  const paint = livePainter(paper.matrix, paper.density, lookOf(paper, kind))
  return {
    move(raws) {
      stroke.add(raws)
      paint(paper.brush, stroke.samples)
    },
    finish() {
      const samples = stroke.finish()
      if (samples.length > (kind === 'shape' ? 2 : 0)) addStrokes(paper, [samples], kind, kind)
    },
  }
}

/** A round closes on itself: drawn-out ends would leave a gap. */
function nibOf({ desk }: PaperPort, which: 'straight' | 'round'): Nib {
  const { nib } = desk.pens[desk.pen]
  return which === 'round' ? { ...nib, ends: 'round' } : nib
}

/** Draws a straight line or a round. */
export function figureHand(paper: PaperPort, which: 'straight' | 'round'): Hand {
  const { desk } = paper
  const kind = which === 'round' && desk.round.painted ? 'shape' : 'line'
  let from: Point | null = null
  let figure: Figure | null = null
  return {
    move(raws, keys) {
      const last = raws.at(-1)
      if (!last) return
      const to = toPaper(paper.matrix, last)
      from ??= to
      const drag = { from, to, even: keys.shift, fromMiddle: keys.alt }
      figure = which === 'straight' ? straightFigure(drag) : roundFigure(drag, desk.round)
      const look = { ...lookOf(paper, kind), nib: nibOf(paper, which) }
      livePainter(paper.matrix, paper.density, look)(paper.brush, figure?.samples ?? [])
      paper.say(figure?.said ?? null)
    },
    finish() {
      if (!figure || figure.samples.length < 3) return
      const words = which === 'straight' ? 'straight line' : 'round'
      addStrokes(paper, [figure.samples], kind, words, nibOf(paper, which))
      if (figure.radius !== null) desk.round = { ...desk.round, radius: Math.max(1, Math.round(figure.radius)) }
    },
  }
}

/** Lays letters from a typeface where the pointer is let go; they are gathered then, to be moved and scaled on. */
export function letteringHand(paper: PaperPort): Hand {
  const { shot, desk } = paper
  const letters = useLetters()
  const { shaped, settings } = letters
  const kind = settings.outlined ? 'line' : 'shape'
  const { width, nib, colour } = lookOf(paper, kind)
  const inks = (shaped?.paths ?? []).map(path => inked(path, kind, width, nib))
  let at: Point | null = null
  return {
    move(raws) {
      const last = raws.at(-1)
      if (!last) return
      at = toPaper(paper.matrix, last)
      const { brush, density: d, matrix: m } = paper
      brush.setTransform(1, 0, 0, 1, 0, 0)
      brush.clearRect(0, 0, brush.canvas.width, brush.canvas.height)
      brush.setTransform(m[0] * d, m[1] * d, m[2] * d, m[3] * d, m[4] * d, m[5] * d)
      brush.transform(1, 0, 0, 1, at.x, at.y)
      for (const ink of inks) paintInked(brush, ink, colour)
    },
    finish() {
      const place = at
      if (!shaped || letters.broken) shot.notice = 'The typeface is still on its way. Try again in a moment.'
      else if (shaped.paths.length === 0)
        shot.notice = 'There are no letters in the hand: write some in the settings of the tool.'
      if (!place || !shaped?.paths.length) return
      const paths = shaped.paths.map(path => path.map(s => ({ ...s, x: s.x + place.x, y: s.y + place.y })))
      const ids = addStrokes(paper, paths, kind, 'letters')
      if (!ids) return
      desk.tool = 'gather'
      // Where a drawing had to be begun, it comes up first.
      void nextTick(() => desk.gather(ids))
    },
  }
}

/** Follows the pointer with a track on the paper. */
function tracked(paper: PaperPort, follow: (track: readonly Point[]) => void) {
  const track: Point[] = []
  return {
    track,
    move(raws: readonly RawSample[]) {
      for (const raw of raws) track.push(toPaper(paper.matrix, raw))
      follow(track)
    },
  }
}

const rubStyle = (width: number) => ({ colour: RUB_COLOUR, width, dash: [], close: false })

/** Rubs whole strokes out, in every drawing that changes go through. */
export function rubbingHand(paper: PaperPort): Hand {
  const { shot, desk } = paper
  const width = desk.widthOf('rub-out') ?? 1
  const { track, move } = tracked(paper, now => {
    paintTrack(paper.brush, paper.matrix, paper.density, now.slice(-TRAIL), rubStyle(width))
    const here = desk.drawing
    const touched = here ? touchedBy(here, shot.book, now.slice(-RECENT), width / 2) : []
    const lifted = paper.lifted()
    if (touched.some(id => !lifted.has(id))) paper.lift(new Set([...lifted, ...touched]))
  })
  return {
    move,
    finish() {
      const ops = desk.changed.flatMap(drawing => {
        const ids = touchedBy(drawing, shot.book, track, width / 2)
        return ids.length ? [{ kind: 'elements.remove' as const, drawing: drawing.id, ids }] : []
      })
      if (ops.length) shot.commit(`rub out ${desk.changedWords}`, ops)
    },
  }
}

/** Rubs out only what it passes over. */
export function trimmingHand(paper: PaperPort): Hand {
  const { shot, desk } = paper
  const width = desk.widthOf('trim') ?? 1
  const { track, move } = tracked(paper, now =>
    paintTrack(paper.brush, paper.matrix, paper.density, now, rubStyle(width)),
  )
  return {
    move,
    finish() {
      const ops = desk.changed.flatMap(drawing => trimOps(drawing, shot.book, track, width / 2))
      if (ops.length) shot.commit(`trim ${desk.changedWords}`, ops)
    },
  }
}

const boxAs = (a: Point, b: Point): Point[] => [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }]

/** Gathers strokes with a loop, a box or a tap; with Shift added to what is gathered, with Alt taken from it. */
export function gatheringHand(paper: PaperPort): Hand {
  const { shot, desk } = paper
  let keys: Modifiers = { shift: false, alt: false }
  const loopOf = (track: readonly Point[]) =>
    desk.gathering.by === 'box' && track[0] ? boxAs(track[0], track.at(-1) as Point) : track
  const style = { colour: LOOP_COLOUR, width: paper.px(1.4), dash: [paper.px(5), paper.px(4)], close: true }
  const { track, move } = tracked(paper, now =>
    paintTrack(paper.brush, paper.matrix, paper.density, loopOf(now), style),
  )

  function gatheredBy(drawing: Drawing, isTap: boolean): string[] {
    if (isTap) return touchedBy(drawing, shot.book, track.slice(0, 1), paper.px(5)).slice(-1)
    const loop = loopOf(track)
    return Object.values(drawing.elements)
      .filter(element => {
        const placed = shot.book.placed(element)
        return placed && gathers(loop, placed)
      })
      .map(element => element.id)
  }

  return {
    move(raws, now) {
      keys = now
      move(raws)
    },
    finish() {
      const first = track[0]
      if (!first) return
      const isTap = track.every(p => Math.hypot(p.x - first.x, p.y - first.y) < paper.px(4))
      let ids: string[]
      if (desk.gathering.parts && !isTap && !keys.alt) {
        const cuts = desk.changed.map(drawing => cutOps(drawing, shot.book, loopOf(track)))
        const ops = cuts.flatMap(cut => cut.ops)
        if (ops.length && shot.commit(`cut ${desk.changedWords}`, ops)) return
        ids = cuts.flatMap(cut => cut.inside)
      } else ids = desk.changed.flatMap(drawing => gatheredBy(drawing, isTap))
      const before = keys.shift || keys.alt ? desk.gathered : new Set<string>()
      const taken = new Set(ids)
      desk.gather(keys.alt ? [...before].filter(id => !taken.has(id)) : [...before, ...ids])
    },
  }
}

/** Pushes lines along under a round tip; their weight stays. Pushes only what is gathered, when something is. */
export function pushingHand(paper: PaperPort): Hand {
  const { shot, desk } = paper
  const radius = (desk.widthOf('push') ?? 1) / 2
  const now = new Map<string, readonly Sample[]>()
  const { drawing } = desk
  for (const element of Object.values(drawing?.elements ?? {})) {
    const placed = shot.book.placed(element)
    if (placed && (desk.gathered.size === 0 || desk.gathered.has(element.id))) now.set(element.id, placed.samples)
  }
  const moved = new Set<string>()
  let last: Point | null = null

  function paint(at: Point): void {
    const { brush, matrix: m, density: d } = paper
    paintTrack(brush, m, d, [at, at], { colour: 'rgba(60, 106, 85, 0.14)', width: radius * 2, dash: [], close: false })
    brush.setTransform(m[0] * d, m[1] * d, m[2] * d, m[3] * d, m[4] * d, m[5] * d)
    for (const id of moved) {
      const element = drawing?.elements[id]
      const placed = element && shot.book.placed(element)
      if (!element || !placed) continue
      const ink = inked(now.get(id) ?? [], placed.kind, placed.width, placed.nib)
      paintInked(brush, ink, desk.colours(element))
    }
  }
  return {
    move(raws) {
      for (const raw of raws) {
        const at = toPaper(paper.matrix, raw)
        const by = { x: at.x - (last?.x ?? at.x), y: at.y - (last?.y ?? at.y) }
        for (const [id, samples] of last ? now : []) {
          const next = pushed(samples, last as Point, by, radius)
          if (next === samples) continue
          now.set(id, next)
          moved.add(id)
        }
        last = at
      }
      if (moved.size > paper.lifted().size) paper.lift(new Set(moved))
      if (last) paint(last)
    },
    finish() {
      if (!drawing || moved.size === 0) return
      const edit = reshapeEdit(drawing, shot.book, moved, (samples, id) => now.get(id) ?? samples)
      shot.commit(`push on ${drawing.number}`, edit.ops, { samples: edit.samples })
      if (desk.gathered.size) desk.gather([...desk.gathered].map(id => edit.renamed.get(id) ?? id))
    },
  }
}

/** One click a drawing: the mark is placed, and the next drawing comes up. */
export function placeMark(paper: Pick<PaperPort, 'shot' | 'desk'>, at: Point): void {
  const { shot, desk } = paper
  const { drawing, markId } = desk
  if (!markId) {
    shot.notice = 'Name a mark in the margin first (nose, heel, tail tip …), then click where it lies.'
    return
  }
  if (!drawing || !shot.take) return
  const name = shot.document?.marks[markId]?.name ?? 'mark'
  const place = { ...tenths(at), planted: desk.plants }
  const ops = [{ kind: 'marks.place' as const, drawing: drawing.id, places: { [markId]: place } }]
  if (shot.commit(`${name} on ${drawing.number}`, ops)) return
  const next = frameOfNeighbour(shot.take, desk.layerId, desk.frame, 1)
  if (next !== null) desk.goTo(next)
}
