import { frameOfNeighbour, type Drawing } from '@unhurried/core/document'
import { gathers, pushed, type Point, type Sample } from '@unhurried/core/geometry'
import { cutByLoop, reshapeEdit, touchedBy, trimmed, type Cut } from './edits.ts'
import { tenths } from './gathered.ts'
import type { Hand, Modifiers, PaperPort } from './hand.ts'
import { inked, paintInked } from './nibs.ts'
import { paintTrack, type RawSample } from './pen.ts'
import { toPaper } from './view.ts'

const RUB_COLOUR = 'rgba(164, 77, 36, 0.35)'
const LOOP_COLOUR = '#3c6a55'
/** The part of the track that is looked at again with every move. */
const RECENT = 6
const TRAIL = 12

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
    const touched = here ? touchedBy(here, shot.book, now.slice(-RECENT), width / 2, desk.takes) : []
    const lifted = paper.lifted()
    if (touched.some(id => !lifted.has(id))) paper.lift(new Set([...lifted, ...touched]))
  })
  return {
    move,
    finish() {
      const ops = desk.changed.flatMap(drawing => {
        const ids = touchedBy(drawing, shot.book, track, width / 2, desk.takes)
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
      commitCuts(
        paper,
        'trim',
        desk.changed.map(drawing => trimmed(drawing, shot.book, track, width / 2, desk.takes)),
      )
    },
  }
}

/** Commits cuts of drawings as one step. Whether they are done, or there was nothing to cut. */
function commitCuts({ shot, desk }: PaperPort, words: string, cuts: readonly Cut[]): boolean {
  const ops = cuts.flatMap(cut => cut.ops)
  const samples = new Map(cuts.flatMap(cut => [...cut.samples]))
  return ops.length === 0 || shot.commit(`${words} ${desk.changedWords}`, ops, { samples }) === null
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
        const cuts = desk.changed.map(drawing => cutByLoop(drawing, shot.book, loopOf(track)))
        if (!commitCuts(paper, 'cut', cuts)) return
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
