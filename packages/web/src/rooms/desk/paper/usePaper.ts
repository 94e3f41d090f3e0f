import type { Matrix } from '@unhurried/core/geometry'
import { ref, type Ref } from 'vue'
import { rawSamples } from '../../../paint/pen.ts'
import type { Size } from '../../../paint/view.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useHands } from '../../../stores/hands.ts'
import { useKit } from '../../../stores/kit.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSight } from '../../../stores/sight.ts'
import type { Hand } from '../../../tools/hand.ts'
import { settingsNow, TOOLS } from '../../../tools/table.ts'
import { useLivePaper } from './livePaper.ts'
import { panning, rolling } from './moving.ts'
import { usePointerMeaning } from './pointerMeaning.ts'
import { stepAside } from './stepAside.ts'
import { useFingers } from './useFingers.ts'

const FINGER_DRAWS =
  'A finger draws, since no pen was seen here yet; two fingers move and turn the paper. The settings of the pen change that.'

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
  const hands = useHands()
  const paper = useLivePaper(live, matrix, screen, density)
  const { toolOf, movesPaper } = usePointerMeaning(holding.pan)
  const fingers = useFingers(sight, screen, paper.origin)
  const busy = ref(false)
  const notes = stepAside()
  let pointer: number | null = null
  let hand: Hand | null = null
  const pan = panning(sight)
  const roll = rolling(holding.roll, rollBy)

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
    paper.leave()
    if (hands.seen(event)) shot.notice = FINGER_DRAWS
    if (!shot.document || takenByFingers(event) || pointer !== null) return
    if (movesPaper(event)) {
      pan.take(event)
    } else {
      const name = toolOf(event)
      if (!name) return
      const tool = TOOLS[name]
      if (!desk.mayEdit) {
        if (shot.mayDraw) shot.notice = 'This layer is locked: unlock it in the layers.'
        return
      }
      tool.press?.({ shot, desk, kit }, paper.onPaper(event))
      const port = paper.port()
      if (!port || !tool.hand) return
      hand = tool.hand(port, settingsNow(name))
    }
    pointer = event.pointerId
    busy.value = true
    notes.begin()
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    event.preventDefault()
    if (hand) move(event)
  }

  function move(event: PointerEvent): void {
    if (roll(event)) return
    if (sight.wiped) sight.wiped = { ...sight.wiped, x: event.clientX - paper.origin().left }
    if (event.pointerType === 'pen') fingers.penSeen(event)
    if (fingers.move(event)) return
    if (pointer === null) return paper.hoverAt(event)
    if (event.pointerId !== pointer) return
    if (pan.move(event)) return
    notes.near({ x: event.clientX, y: event.clientY })
    paper.follow(event)
    hand?.move(rawSamples(event, paper.origin()), {
      shift: event.shiftKey || hands.held.shift,
      alt: event.altKey || hands.held.alt,
    })
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
    pan.let()
    busy.value = false
    notes.end()
    paper.clear()
  }

  /** A pointer that is lost: nothing half done stays. */
  function cancel(event: PointerEvent): void {
    fingers.let(event)
    if (event.pointerId === pointer) letGo()
  }

  const { leave, lifted, said, showMoved } = paper
  return { down, move, up, cancel, leave, lifted, said, busy, showMoved }
}
