import { valueOf } from '@unhurried/core/chart'
import { exposures, marksOf } from '@unhurried/core/document'
import { EMPTY_BOX, mappedBox, pathLength, placeAlong, unite, type Box } from '@unhurried/core/geometry'
import { computed } from 'vue'
import { useCarried } from '../../../stores/carried.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useSight } from '../../../stores/sight.ts'
import { useLamp } from '../../../stores/lamp.ts'
import { useMeasure } from '../../../stores/measure.ts'
import { useProposedMark } from '../../../stores/proposedMark.ts'
import { useShot } from '../../../stores/shot.ts'
import type { GhostNumber, GuideMark, MarkSign } from '../../../paint/guides.ts'

const LONGEST_NAME = 9
const shortName = (name: string) => (name.length > LONGEST_NAME ? `${name.slice(0, LONGEST_NAME - 1)}…` : name)

/** Everything that is written over the drawings of the paper and is no part of them. */
export function useSigns(playing: () => boolean) {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const sight = useSight()
  const lamp = useLamp()
  const measure = useMeasure()
  const marking = useProposedMark()
  const carried = useCarried()

  /** Where the chart wants the middles of its drawings, and where the present one lies. */
  const marks = computed<GuideMark[]>(() => {
    const reading = measure.reading
    if (!reading?.path || playing() || sight.flippedTo) return []
    return reading.chart.ticks.map(tick => ({
      at: placeAlong(reading.path!, valueOf(tick.at) * pathLength(reading.path!)),
      present: tick.drawing !== null && tick.drawing === desk.drawing?.id,
    }))
  })

  /** Marks on the present drawing and on those that show through, and crosses where they belong. */
  const signs = computed<MarkSign[]>(() => {
    if (playing() || sight.flippedTo || !shot.document) return []
    const marks = marksOf(shot.document, desk.layerId)
    // A name is written once: where the mark belongs, or else where it lies.
    const crossed = new Set(lamp.lightTable.on ? measure.crosses.map(({ mark }) => mark.id) : [])
    const placedOn = (id: string | null, kind: MarkSign['kind'], frame = desk.frame) =>
      marks.flatMap((mark): MarkSign[] => {
        const at = shot.drawing(id)?.marks[mark.id]
        const name = crossed.has(mark.id) ? '' : shortName(mark.name)
        const seen = at && carried.seenFromHand(desk.layerId, frame, at)
        return seen ? [{ at: seen, name, kind, chosen: mark.id === kit.markId }] : []
      })
    const ghost = (id: string, kind: MarkSign['kind']) =>
      placedOn(id, kind, lamp.shownThrough.find(one => one.drawing === id)?.frame)
    /** Where the mark that is being placed would lie. */
    const proposed = (): MarkSign[] => {
      const mark = marks.find(one => one.id === kit.markId)
      if (!mark || !marking.place) return []
      const at = carried.seenFromHand(desk.layerId, desk.frame, marking.place.at)
      return [{ at, name: crossed.has(mark.id) ? '' : `${shortName(mark.name)}?`, kind: 'proposed', chosen: false }]
    }
    const crosses = measure.crosses.map(({ mark, at }): MarkSign => ({
      at,
      name: shortName(mark.name),
      kind: 'cross',
      chosen: mark.id === kit.markId,
    }))
    return [
      ...lamp.ghosts.past.slice(0, 1).flatMap(id => ghost(id, 'before')),
      ...lamp.ghosts.future.slice(0, 1).flatMap(id => ghost(id, 'after')),
      ...(lamp.lightTable.on ? crosses : []),
      ...placedOn(desk.drawing?.id ?? null, 'placed'),
      ...proposed(),
    ]
  })

  /** Numbers beside the drawings that show through, those from the other side of the loop marked. */
  const numbers = computed<GhostNumber[]>(() => {
    if (playing() || sight.flippedTo || !lamp.lightTable.on) return []
    const all = lamp.shownThrough.flatMap(({ drawing: id, side, frame }): GhostNumber[] => {
      const drawing = shot.drawing(id)
      if (!drawing) return []
      const box = shot.book.boxOf(drawing)
      const wraps = lamp.wrapped.has(id)
      // Drawings of another layer are told apart by its name.
      const of = drawing.layer === desk.layerId ? '' : `${shot.document?.layers[drawing.layer]?.name ?? ''} `
      const words = `${of}${drawing.number}${wraps ? ' ↻' : ''}`
      const top = { x: (box.left + box.right) / 2, y: box.top }
      return [{ at: carried.seenFromHand(drawing.layer, frame, top), words, side, wraps }]
    })
    return lamp.lightTable.numbers ? all : all.filter(number => number.wraps)
  })

  /** Where the present drawing ought to move, when it is the one that is most off. */
  const correction = computed(() => {
    const reading = measure.reading
    const tick = reading?.worst && reading.chart.ticks[reading.worst.index]
    return reading?.worst && tick?.drawing === desk.drawing?.id && desk.drawing ? reading.worst : null
  })

  /** What is found on the present drawing, where it has a place. */
  const found = computed(() => {
    if (playing() || sight.flippedTo || !sight.ringed) return []
    return measure.here.flatMap(({ at, isInPicture }, i) => {
      if (!at) return []
      const words = `${i + 1}`
      return [{ words, at: isInPicture ? carried.pictureFromHand(at) : at }]
    })
  })

  /** The box of all that is drawn on the layer, over the whole take. */
  const everything = computed<Box>(() => {
    const { document, take } = shot
    if (!document || !take || !sight.aids.room) return EMPTY_BOX
    return exposures(take, desk.layerId).reduce<Box>((all, { drawing: id, start, frames }) => {
      const drawing = shot.drawing(id)
      if (!drawing) return all
      const box = shot.book.boxOf(drawing)
      // Where the layer moves, the box goes along on every frame.
      const lies = carried.path ? Array.from({ length: frames }, (_, i) => carried.on(desk.layerId, start + i)) : [null]
      return lies.reduce<Box>((swept, matrix) => unite(swept, matrix ? mappedBox(matrix, box) : box), all)
    }, EMPTY_BOX)
  })

  return { marks, signs, numbers, correction, found, everything }
}
