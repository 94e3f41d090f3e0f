import { LIMITS } from '@unhurried/core/document'
import { distance, type Point } from '@unhurried/core/geometry'
import { ref, shallowRef } from 'vue'
import { useReview } from '../../stores/review.ts'
import type { Looking } from './useLooking.ts'

/** A line of a sketch has a place at every so many screen pixels. */
const STEP_PX = 3

/** A remark being made: its place, its lines over the picture, its words. */
export function useRemarking(looking: Looking) {
  const review = useReview()
  const isOn = ref(false)
  const at = shallowRef<Point | null>(null)
  const sketch = shallowRef<readonly (readonly Point[])[]>([])
  const text = ref('')
  let line: Point[] | null = null

  const round = ({ x, y }: Point): Point => ({ x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10 })
  function drop(): void {
    isOn.value = false
    at.value = null
    sketch.value = []
    text.value = ''
    line = null
  }

  return {
    isOn,
    at,
    sketch,
    text,
    drop,
    write: (words: string) => void (text.value = words),
    /** A remark on what is in the middle of the window, until the hand shows another place. */
    start(): void {
      drop()
      at.value = round(looking.centre.value)
      isOn.value = true
    },
    begin(place: Point): void {
      line = [round(place)]
    },
    /** The hand moves on: it draws. */
    go(place: Point): void {
      const last = line?.at(-1)
      if (!line || !last || distance(last, place) * looking.zoom.value < STEP_PX) return
      // A very long line goes on as another.
      if (line.length >= LIMITS.pointsPerLine) line = [last]
      if (line.length === 1 && sketch.value.length >= LIMITS.sketchLines) return
      const isNew = line.length === 1
      line.push(round(place))
      sketch.value = [...(isNew ? sketch.value : sketch.value.slice(0, -1)), [...line]]
    },
    /** A press without a line says where it is. */
    end(): void {
      if (line?.length === 1) at.value = line[0] ?? null
      line = null
    },
    /** Takes the last line back. */
    lineBack: () => void (sketch.value = sketch.value.slice(0, -1)),
    keep(): void {
      const drawing = looking.stop.value?.drawings.at(-1)?.id ?? null
      if (review.remark({ drawing, at: at.value, text: text.value, sketch: sketch.value })) drop()
    },
  }
}

export type Remarking = ReturnType<typeof useRemarking>
