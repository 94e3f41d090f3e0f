import { exposures, strokesOn, type Drawing } from '@unhurried/core/document'
import { bodyMap, inkAlong, proposePlace, type MarkedBeside, type ProposedPlace } from '@unhurried/core/measure'
import type { Matrix, Point } from '@unhurried/core/geometry'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import { useDesk } from './desk.ts'
import { useKit } from './kit.ts'
import { useMeasure } from './measure.ts'
import { useShot } from './shot.ts'

/** So far about a mark its surroundings are looked at: a share of the figure, px at least. */
const REACH_SHARE = 0.3
const LEAST_REACH_PX = 24
/** Ink is as dense as the cells it is held against. */
const APART_PX = 3

/** Where the mark that is being placed most likely lies on the drawing in the hand: the shape around it on the drawings beside it is found again. */
export const useProposedMark = defineStore('proposedMark', () => {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const measure = useMeasure()

  const inkOf = (drawing: Drawing): Point[] =>
    strokesOn(drawing).flatMap(stroke => inkAlong(shot.book.placed(stroke)?.samples ?? [], APART_PX))

  /** How the body of one drawing has moved to that of another. */
  function carriedTo(from: Drawing, to: Drawing): Matrix | null {
    const [a, b] = [measure.momentsOf(from), measure.momentsOf(to)]
    return a && b ? bodyMap(a, b) : null
  }

  const place = computed<ProposedPlace | null>(() => {
    const { take } = shot
    const { markId, tool } = kit
    const { drawing } = desk
    if (tool !== 'mark' || !markId || !drawing || !take || !desk.mayEdit || drawing.marks[markId]) return null
    const ids = [...new Set(exposures(take, drawing.layer).map(run => run.drawing as string))]
    const here = ids.indexOf(drawing.id)
    if (here < 0) return null
    const marked = (all: readonly string[]): { beside: MarkedBeside; steps: number } | null => {
      for (const [i, id] of all.entries()) {
        const one = shot.drawing(id)
        const at = one?.marks[markId]
        if (one && at) return { beside: { at, carried: carriedTo(one, drawing), ink: inkOf(one) }, steps: i + 1 }
      }
      return null
    }
    const [before, after] = [marked(ids.slice(0, here).reverse()), marked(ids.slice(here + 1))]
    const share = before && after ? before.steps / (before.steps + after.steps) : 0
    const area = measure.momentsOf(drawing)?.area ?? 0
    const reach = Math.max(LEAST_REACH_PX, REACH_SHARE * Math.sqrt(area))
    const beside = { before: before?.beside ?? null, after: after?.beside ?? null, share }
    return proposePlace(beside, inkOf(drawing), reach)
  })
  return { place }
})
