import { useEventListener } from '@vueuse/core'
import { useAsking } from '../../../stores/asking.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useLamp } from '../../../stores/lamp.ts'
import { useShot } from '../../../stores/shot.ts'
import { useSight } from '../../../stores/sight.ts'
import { useBringing } from './bringing.ts'
import { drawingActs } from './drawingActs.ts'
import { useFlipping } from './flipping.ts'
import { useSheetActs } from './sheetActs.ts'
import { useStepping } from './stepping.ts'
import { forgetStrokes } from './strokeClip.ts'
import { useStrokeActs } from './strokeActs.ts'
import { toolActs } from './toolActs.ts'
import { useWalking } from './walking.ts'

/** What can be done at the desk with keys and buttons, on whatever drawing and frame one stands on. */
export function useActs() {
  const walking = useWalking()
  const drawings = drawingActs()
  const sheet = useSheetActs()
  const strokes = useStrokeActs()
  const bringing = useBringing()
  const either = useEither({ walking, drawings, sheet, strokes })
  return {
    ...useFlipping(),
    ...useStepping(),
    ...walking,
    ...drawings,
    ...toolActs(),
    ...either,
    ...usePasting(either.paste, bringing.bring),
    bringing,
    sheet,
    strokes,
  }
}

/** What was copied elsewhere before is not what is pasted next. */
const ownsClipboard = () => void navigator.clipboard?.writeText('copied at the desk').catch(() => undefined)

/** How long the browser may take to tell what is to be pasted. */
const TELLS_MS = 80

/** Pasting: files where the machine's clipboard has some, else what was copied here. */
function usePasting(paste: (how: 'share' | 'copy') => unknown, bring: (files: readonly File[]) => unknown) {
  let due: (() => void) | null = null
  useEventListener('paste', (event: ClipboardEvent) => {
    if (!due) return
    const files = [...(event.clipboardData?.files ?? [])]
    if (files.length === 0) return due()
    due = null
    void bring(files)
  })
  // What the hand does next is done to what was pasted, and not the other way round.
  useEventListener(['keydown', 'pointerdown'], () => due?.(), { capture: true })
  return {
    pasteAny(how: 'share' | 'copy'): void {
      const own = () => {
        if (due === own) due = null
        void paste(how)
      }
      due = own
      // With another key than the usual one the browser tells nothing.
      setTimeout(() => due === own && own(), TELLS_MS)
    },
  }
}

interface Parts {
  readonly walking: ReturnType<typeof useWalking>
  readonly drawings: ReturnType<typeof drawingActs>
  readonly sheet: ReturnType<typeof useSheetActs>
  readonly strokes: ReturnType<typeof useStrokeActs>
}

/** Acts that mean strokes while some are gathered, and else the sheet or the drawing. */
function useEither({ walking, drawings, sheet, strokes }: Parts) {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const sight = useSight()
  const lamp = useLamp()
  const asking = useAsking()

  function setLoop(edge: 'from' | 'to'): void {
    const { take } = shot
    if (!take) return
    if (desk.selection) return sheet.loopMarked()
    const now = take.loop ?? { from: 0, to: take.length }
    const loop =
      edge === 'from'
        ? { from: desk.frame, to: Math.max(now.to, desk.frame + 1) }
        : { from: Math.min(now.from, desk.frame), to: desk.frame + 1 }
    shot.commit('loop range', [{ kind: 'loop.set', take: take.id, loop }])
  }

  function arrow(dx: number, dy: number, far: boolean): void {
    const px = far ? 10 : 1
    if (kit.gathered.size) strokes.nudge(dx * px, dy * px)
    else if (far) sheet.extend(dy, dx)
    else if (dy) {
      desk.selection = null
      desk.goTo(desk.frame + dy)
    } else walking.changeLayer(dx as -1 | 1)
  }

  function showNumber(): void {
    const numbers = Object.values(shot.document?.drawings ?? {})
      .filter(d => d.layer === desk.layerId)
      .map(d => d.number)
    if (numbers.length === 0) return void (shot.notice = 'This layer has no drawings yet.')
    asking.askNumber(`show a drawing of ${desk.layer?.name ?? 'the layer'} here`, {
      words: 'number',
      least: Math.min(...numbers),
      most: Math.max(...numbers),
      now: desk.source?.number ?? (numbers[0] as number),
      take: sheet.showNumber,
    })
  }

  function deleteStrokes(): void {
    if (kit.gathered.size) strokes.remove()
    else drawings.clear()
  }

  function dropAll(): void {
    asking.drop()
    strokes.backToTool()
    kit.gather([])
    desk.selection = null
    lamp.parents = null
    sight.bare = false
    if (kit.tool === 'mark') kit.markId = null
  }

  return {
    setLoop,
    arrow,
    showNumber,
    deleteStrokes,
    dropAll,
    extendBySecond: (by: -1 | 1) => sheet.extend(by * walking.second(), 0),
    /** Copying and pasting mean strokes while some are gathered, or were copied last; else frames of the sheet. */
    async copy() {
      ownsClipboard()
      if (kit.gathered.size && strokes.copy()) return
      if (await sheet.copy()) forgetStrokes()
    },
    async cut() {
      ownsClipboard()
      if (kit.gathered.size && strokes.copy()) return strokes.remove()
      forgetStrokes()
      await sheet.cut()
    },
    paste: (how: 'share' | 'copy') => (strokes.canPaste() ? strokes.paste() : sheet.paste(how)),
  }
}
