import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { Matrix } from '@unhurried/core/geometry'
import { useHabits } from '../../../stores/habits.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useSight } from '../../../stores/sight.ts'
import { useHands } from '../../../stores/hands.ts'
import { useShot } from '../../../stores/shot.ts'
import { changeGathered, type Change } from '../../../strokes/gathered.ts'
import type { Hand, Hover, PaperPort } from '../../../tools/hand.ts'
import { settingsNow, toolNamed, TOOLS, type ToolName } from '../../../tools/table.ts'
import { rawSamples } from '../../../paint/pen.ts'
import { useFingers } from './useFingers.ts'
import { fitScale, toPaper, type Size } from '../../../paint/view.ts'

const FINGER_DRAWS =
  'A finger draws, since no pen was seen here yet; two fingers move and turn the paper. The settings of the pen change that.'
const NOTHING: ReadonlySet<string> = new Set()
/** A finger slides this far, in screen pixels, to roll to the next drawing. */
const ROLL_STEP_PX = 48
/** Buttons of a pointer event: the eraser end of a pen. */
const ERASER_BUTTON = 5
/** The side button of a pen: as the button pressed, or among those held when the tip comes down. */
const SIDE_BUTTON = 2
const SIDE_HELD = 2

/** The paper under the hand: what pointers do with the tool in use. One stroke at a time; a lost pointer leaves nothing half done. */
export function usePaper(
  live: Ref<HTMLCanvasElement | null>,
  matrix: Ref<Matrix>,
  screen: Ref<Size>,
  density: Ref<number>,
  holding: { pan: Ref<boolean>; roll: Ref<boolean> },
  rollBy: (steps: number) => void,
) {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const sight = useSight()
  const lifted = shallowRef<ReadonlySet<string>>(NOTHING)
  /** a measure to be read beside the pointer */
  const said = shallowRef<{ x: number; y: number; words: string } | null>(null)
  const busy = ref(false)
  const habits = useHabits()
  const hands = useHands()
  let pointer: number | null = null
  let hand: Hand | null = null
  let panFrom: { x: number; y: number; panX: number; panY: number } | null = null
  let rollFrom: number | null = null
  let at = { x: 0, y: 0 }

  const brush = () => live.value?.getContext('2d') ?? null
  const origin = () => live.value?.getBoundingClientRect() ?? { left: 0, top: 0 }
  const fingers = useFingers(sight, screen, origin)
  const scale = computed(() => {
    const { document } = shot
    return document ? fitScale(screen.value, document.format) * sight.view.zoom : 1
  })

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

  let hover: Hover | null = null
  /** What the tool shows under a pointer that presses nothing; made anew whenever what it goes by is another. */
  function hoverAt(event: PointerEvent): void {
    const tool = TOOLS[toolNamed(kit.tool)]
    if (!tool.hover || !desk.mayEdit || event.pointerType === 'touch') return
    const paper = port()
    if (!paper) return
    hover ??= tool.hover(paper, settingsNow(toolNamed(kit.tool)))
    const { left, top } = origin()
    hover.at(toPaper(matrix.value, { x: event.clientX - left, y: event.clientY - top }))
  }
  function leave(): void {
    hover?.at(null)
    hover = null
  }
  watch(() => [kit.tool, kit.toolSettings, desk.drawing, desk.frame, desk.layerId, kit.swatch, matrix.value], leave)

  /** What the pointer takes in the hand: the tool in use, a rubber at the other end of the pen, or what its button is for. */
  function toolOf(event: PointerEvent): ToolName | null {
    if (event.pointerType === 'pen' && event.button === ERASER_BUTTON) return 'rub-out'
    if (withSideButton(event) && habits.sideButton !== 'nothing') {
      return habits.sideButton === 'paper' ? null : habits.sideButton
    }
    return event.button === 0 || withSideButton(event) ? toolNamed(kit.tool) : null
  }

  const withSideButton = ({ pointerType, button, buttons }: PointerEvent) =>
    pointerType === 'pen' && (button === SIDE_BUTTON || (button === 0 && (buttons & SIDE_HELD) !== 0))
  const movesPaper = (event: PointerEvent) =>
    holding.pan.value || event.button === 1 || (withSideButton(event) && habits.sideButton === 'paper')

  /** Whether a touch is for moving the paper (or a palm, and for nothing) rather than for drawing. */
  function takenByFingers(event: PointerEvent): boolean {
    if (event.pointerType === 'pen') fingers.penSeen(event)
    if (event.pointerType !== 'touch') return false
    if (fingers.isPalm(event)) return true
    if (hands.fingerDraws && pointer === null && fingers.count() === 0) return false
    // A second finger beside one that draws: it was not meant as a line.
    if (pointer !== null && !hands.fingerDraws) return true
    if (pointer !== null) letGo()
    fingers.take(event)
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    return true
  }

  function down(event: PointerEvent): void {
    leave()
    if (hands.seen(event)) shot.notice = FINGER_DRAWS
    if (!shot.document || takenByFingers(event) || pointer !== null) return
    if (movesPaper(event)) {
      panFrom = { x: event.clientX, y: event.clientY, panX: sight.view.panX, panY: sight.view.panY }
    } else {
      const name = toolOf(event)
      if (!name) return
      const tool = TOOLS[name]
      if (!desk.mayEdit) {
        if (shot.mayDraw) shot.notice = 'This layer is locked: unlock it in the layers.'
        return
      }
      const { left, top } = origin()
      tool.press?.({ shot, desk, kit }, toPaper(matrix.value, { x: event.clientX - left, y: event.clientY - top }))
      const paper = port()
      if (!paper || !tool.hand) return
      hand = tool.hand(paper, settingsNow(name))
    }
    pointer = event.pointerId
    busy.value = true
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    event.preventDefault()
    if (!panFrom) move(event)
  }

  function move(event: PointerEvent): void {
    if (holding.roll.value) return roll(event)
    rollFrom = null
    if (sight.wiped) sight.wiped = { ...sight.wiped, x: event.clientX - origin().left }
    if (event.pointerType === 'pen') fingers.penSeen(event)
    if (fingers.move(event)) return
    if (pointer === null) return hoverAt(event)
    if (event.pointerId !== pointer) return
    if (panFrom) {
      sight.view = {
        ...sight.view,
        panX: panFrom.panX + (sight.view.mirrored ? -1 : 1) * (event.clientX - panFrom.x),
        panY: panFrom.panY + event.clientY - panFrom.y,
      }
      return
    }
    const { left, top } = origin()
    at = { x: event.clientX - left, y: event.clientY - top }
    hand?.move(rawSamples(event, { left, top }), {
      shift: event.shiftKey || hands.held.shift,
      alt: event.altKey || hands.held.alt,
    })
  }

  function roll(event: PointerEvent): void {
    rollFrom ??= event.clientX
    rollBy(Math.round((event.clientX - rollFrom) / ROLL_STEP_PX))
  }

  function up(event: PointerEvent): void {
    fingers.let(event)
    if (event.pointerId !== pointer) return
    hand?.finish()
    letGo()
  }

  function letGo(): void {
    pointer = null
    hand = null
    panFrom = null
    said.value = null
    busy.value = false
    lifted.value = NOTHING
    wipe()
  }

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

  /** A pointer that is lost: nothing half done stays. */
  function cancel(event: PointerEvent): void {
    fingers.let(event)
    if (event.pointerId === pointer) letGo()
  }

  return { down, move, up, cancel, leave, lifted, said, busy, showMoved }
}
