import { carriedOn, isDelivered, type Drawing, type Stop } from '@unhurried/core/document'
import { EMPTY_BOX, isEmptyBox, mappedBox, unite, type Box, type Point } from '@unhurried/core/geometry'
import { useDevicePixelRatio } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'
import { drawnIn } from '../../paint/bitmaps.ts'
import { seenAt, type Seeing } from '../../shared/frames.ts'
import { useDesk } from '../../stores/desk.ts'
import { useReview } from '../../stores/review.ts'
import { useShelves } from '../../stores/shelves.ts'
import { useShot } from '../../stores/shot.ts'
import { useSight } from '../../stores/sight.ts'
import { partsOf } from './parts.ts'

/** What is on the screen for less than this has not been looked at. */
const GLANCE_MS = 250
export const NEAREST = 8

/** What is to be seen on the frame one is on: since which stop, in which parts, and whether all of it is painted. */
function whatIsSeen(
  window: { readonly width: Ref<number>; readonly height: Ref<number> },
  zoom: Readonly<Ref<number>>,
) {
  const shot = useShot()
  const desk = useDesk()
  const review = useReview()
  const bitmaps = useShelves().remote
  const sight = useSight()
  const { pixelRatio } = useDevicePixelRatio()
  /** What goes out is looked at, and nothing that is there to help. */
  const seeing = computed<Seeing>(() => {
    const away = Object.values(shot.document?.layers ?? {}).filter(layer => !isDelivered(layer))
    return { only: 'all', layer: null, silhouettes: false, hidden: new Set(away.map(({ id }) => id)) }
  })
  const stop = computed<Stop | null>(() => review.stops.filter(one => one.frame <= desk.frame).at(-1) ?? null)
  /** screen pixels, as many as there are, a pixel of the picture */
  const scale = computed(() => zoom.value * pixelRatio.value)
  const boxOf = (drawing: Drawing): Box => {
    const { document, take } = shot
    const box = bitmaps.boxOf(drawing)
    const through = document && take && carriedOn(document, take, drawing.layer, desk.frame)
    return through ? mappedBox(through, box) : box
  }
  /** Whether all that is seen is painted as it is looked at, or cannot be: what is seen is then what there is. */
  const isThere = computed(() => {
    const { document, take } = shot
    void bitmaps.painted.value
    if (!document || !take || !stop.value) return false
    return seenAt(document, take, desk.frame, seeing.value).every(({ drawing }) =>
      bitmaps.isReady(drawing, drawnIn(sight.colours), scale.value),
    )
  })
  /** The middles of what is to be looked at one after the other, in pixels of the picture: all of it, where it is not known how far something reaches. */
  const parts = computed<readonly Point[]>(() => {
    void bitmaps.painted.value
    const { width = 1, height = 1 } = shot.document?.format ?? {}
    const boxes = (stop.value?.drawings ?? []).map(boxOf)
    const drawn = boxes.length === 0 || boxes.some(isEmptyBox) ? null : boxes.reduce(unite, EMPTY_BOX)
    const view = { width: window.width.value / zoom.value, height: window.height.value / zoom.value }
    return partsOf(drawn, { width, height }, view)
  })
  return { scale, seeing, stop, isThere, parts }
}

/** Going from stop to stop, and over each in parts that fit the window at 100 % or nearer, so that nothing is left out. */
export function useLooking(window: { readonly width: Ref<number>; readonly height: Ref<number> }) {
  const shot = useShot()
  const desk = useDesk()
  const review = useReview()
  /** screen pixels a pixel of the picture: never fewer than one */
  const zoom = ref(1)
  /** what lies in the middle of the window, where the hand has moved it; null: the part that is to be looked at */
  const moved = ref<Point | null>(null)
  const part = ref(0)
  /** parts of the stop that were looked at, and whether one went by too quickly */
  const seen = ref<ReadonlySet<number>>(new Set())
  const hurried = ref(false)
  let shownAt = 0

  const { scale, seeing, stop, isThere, parts } = whatIsSeen(window, zoom)
  const at = computed(() => (stop.value ? review.stops.indexOf(stop.value) : -1))
  /** What lies in the middle of the window: as the hand has moved it, or the part; where the picture is larger than the window, that shows nothing beside it. */
  const centre = computed<Point>(() => {
    if (moved.value) return moved.value
    const { width = 1, height = 1 } = shot.document?.format ?? {}
    const { x, y } = parts.value[Math.min(part.value, parts.value.length - 1)] ?? { x: width / 2, y: height / 2 }
    const inside = (at: number, most: number, view: number) =>
      most <= view ? most / 2 : Math.min(most - view / 2, Math.max(view / 2, at))
    return {
      x: inside(x, width, window.width.value / zoom.value),
      y: inside(y, height, window.height.value / zoom.value),
    }
  })

  watch([stop, zoom], () => {
    part.value = 0
    moved.value = null
    seen.value = new Set()
    hurried.value = false
  })
  watch([stop, part, zoom, isThere], () => (shownAt = performance.now()), { immediate: true })

  function goTo(next: Stop | undefined): void {
    if (next) desk.goTo(next.frame)
  }
  /** The next stop that is left behind this one, or the first of all; null when none is. */
  function nextLeft(): Stop | null {
    const here = stop.value?.frame ?? -1
    return review.left.find(one => one.frame > here) ?? review.left.find(one => one.frame < here) ?? null
  }

  /** This part has been looked at; on to the next one, or to the next stop that is left. */
  function onwards(): void {
    const here = stop.value
    if (!here) return
    const isSeen = isThere.value && performance.now() - shownAt >= GLANCE_MS
    hurried.value = !isSeen
    if (isSeen) seen.value = new Set([...seen.value, part.value])
    const todo = parts.value.findIndex((_, i) => !seen.value.has(i))
    moved.value = null
    if (todo >= 0 && isSeen) return void (part.value = todo)
    if (todo < 0) review.look(here.drawings)
    if (isSeen) goTo(nextLeft() ?? undefined)
  }

  return {
    zoom,
    centre,
    parts,
    part,
    seen,
    hurried,
    stop,
    at,
    scale,
    seeing,
    onwards,
    backwards(): void {
      moved.value = null
      if (part.value > 0) part.value--
      else goTo(review.stops[at.value - 1])
    },
    goTo,
    nearer: () => void (zoom.value = Math.min(NEAREST, zoom.value * 2)),
    farther: () => void (zoom.value = Math.max(1, zoom.value / 2)),
    /** moves what is seen by screen pixels */
    move(dx: number, dy: number): void {
      const { x, y } = centre.value
      const { width = 1, height = 1 } = shot.document?.format ?? {}
      const within = (value: number, most: number) => Math.min(most, Math.max(0, value))
      moved.value = { x: within(x + dx / zoom.value, width), y: within(y + dy / zoom.value, height) }
    },
  }
}

export type Looking = ReturnType<typeof useLooking>
