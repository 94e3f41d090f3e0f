import type { Matrix } from '@unhurried/core/geometry'
import { computed, shallowRef, watch, type Ref } from 'vue'
import { fitScale, toPaper, type Size } from '../../../paint/view.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSight } from '../../../stores/sight.ts'
import { changeGathered, type Change } from '../../../strokes/gathered.ts'
import type { Hover, PaperPort } from '../../../tools/hand.ts'
import { settingsNow, toolNamed, TOOLS } from '../../../tools/table.ts'

const NOTHING: ReadonlySet<string> = new Set()

/** The canvas over the paper, as tools have it: what is under way is painted there and nowhere else. */
export function useLivePaper(
  live: Ref<HTMLCanvasElement | null>,
  matrix: Ref<Matrix>,
  screen: Ref<Size>,
  density: Ref<number>,
) {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const sight = useSight()
  const lifted = shallowRef<ReadonlySet<string>>(NOTHING)
  /** a measure to be read beside the pointer */
  const said = shallowRef<{ x: number; y: number; words: string } | null>(null)
  let at = { x: 0, y: 0 }
  let hover: Hover | null = null

  const brush = () => live.value?.getContext('2d') ?? null
  const origin = () => live.value?.getBoundingClientRect() ?? { left: 0, top: 0 }
  const scale = computed(() => {
    const { document } = shot
    return document ? fitScale(screen.value, document.format) * sight.view.zoom : 1
  })
  /** Where a pointer is over the canvas, in screen pixels. */
  function placeOf(event: PointerEvent): { x: number; y: number } {
    const { left, top } = origin()
    return { x: event.clientX - left, y: event.clientY - top }
  }
  const onPaper = (event: PointerEvent) => toPaper(matrix.value, placeOf(event))

  function port(): PaperPort | null {
    const b = brush()
    return (
      b && {
        shot,
        desk,
        kit,
        sight,
        matrix: matrix.value,
        density: density.value,
        brush: b,
        px: px => px / scale.value,
        lift: ids => (lifted.value = ids),
        lifted: () => lifted.value,
        say: words => (said.value = words === null ? null : { ...at, words }),
        show(paint) {
          wipe()
          paint?.(b)
        },
      }
    )
  }

  function wipe(): void {
    const b = brush()
    if (!b) return
    b.setTransform(1, 0, 0, 1, 0, 0)
    b.clearRect(0, 0, b.canvas.width, b.canvas.height)
  }

  /** What the tool shows under a pointer that presses nothing; made anew whenever what it goes by is another. */
  function hoverAt(event: PointerEvent): void {
    const tool = TOOLS[toolNamed(kit.tool)]
    if (!tool.hover || !desk.mayEdit || event.pointerType === 'touch') return
    const paper = port()
    if (!paper) return
    hover ??= tool.hover(paper, settingsNow(toolNamed(kit.tool)))
    hover.at(onPaper(event))
  }
  function leave(): void {
    hover?.at(null)
    hover = null
  }
  watch(() => [kit.tool, kit.toolSettings, desk.drawing, desk.frame, desk.layerId, kit.swatch, matrix.value], leave)

  /** Paints gathered strokes where they are being moved to, while the hand has not let go. */
  function showMoved(change: Change | null): void {
    const { drawing } = desk
    wipe()
    const b = brush()
    if (!change || !drawing || !b) {
      lifted.value = NOTHING
      return
    }
    if (lifted.value !== kit.gathered) lifted.value = kit.gathered
    const [m, d] = [matrix.value, density.value]
    for (const { paint, by } of changeGathered(drawing, shot.book, kit.gathered, change)) {
      b.setTransform(m[0] * d, m[1] * d, m[2] * d, m[3] * d, m[4] * d, m[5] * d)
      if (by) b.transform(...by)
      paint(b, sight.colours)
    }
  }

  return {
    port,
    origin,
    onPaper,
    /** remembers where the pointer is, for what is said beside it */
    follow: (event: PointerEvent) => (at = placeOf(event)),
    hoverAt,
    leave,
    showMoved,
    lifted,
    said,
    /** Nothing is under way any more. */
    clear() {
      said.value = null
      lifted.value = NOTHING
      wipe()
    },
  }
}
