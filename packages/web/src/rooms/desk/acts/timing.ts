import {
  exposeSelection,
  holdDrawing,
  holdToNext,
  holdUpTo,
  retime,
  trim,
  type Manner,
  type Retiming,
} from '@unhurried/core/document'
import { useShot } from '../../../stores/shot.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useAsking } from '../../../stores/asking.ts'
import { onWords } from '../../../words/exposures.ts'
import type { Marking } from './marking.ts'

/** Exposures of what is marked, or of the drawing one stands on: on ones, held, reversed, repeated, cut short. */
export function timingActs({ timed, editable, act, edit }: Marking) {
  const shot = useShot()
  const desk = useDesk()
  const asking = useAsking()

  function exposeOn(n: number): void {
    act(onWords(n), (m, manner) => edit((doc, take) => exposeSelection(doc, take, m.layers, m.from, m.to, n, manner)))
  }

  /** The frames that drawings begun from now on get, in this shot. */
  function newDrawingsOn(n: number): void {
    if (!shot.document || n === shot.document.exposure) return
    if (!shot.commit(`new drawings ${onWords(n)}`, [{ kind: 'shot.set', patch: { exposure: n } }])) {
      asking.tell(`new drawings ${onWords(n)}: those that are there stay as they are`)
    }
  }

  function hold(by: number): void {
    const run = desk.run
    if (run && editable()) holdFor(desk.timedLayer, desk.frame, run.frames + by, run.frames)
  }

  function holdFor(layer: string, frame: number, frames: number, was: number): void {
    const label = frames > was ? 'hold longer' : 'hold shorter'
    asking.act({
      label,
      attempt: manner => edit((doc, take) => holdDrawing(doc, take, timed(layer), frame, frames, manner)),
    })
  }

  /** Holds each of the marked drawings up to the next one. */
  const holdNext = () =>
    act('hold to the next', m => edit((doc, take) => holdToNext(doc, take, m.layers, m.from, m.to)))

  /** Holds the last drawing up to the frame one stands on, or to the end of the shot. */
  function holdUp(where: 'here' | 'end'): void {
    if (!editable()) return
    const label = where === 'here' ? 'hold up to here' : 'hold to the end'
    const layer = desk.timedLayer
    const attempt = (manner: Manner) =>
      edit((doc, take) =>
        holdUpTo(doc, take, layer, desk.frame, where === 'here' ? desk.frame + 1 : take.length, manner),
      )
    asking.act({ label, attempt })
  }

  const LABELS: Record<Retiming['kind'], string> = {
    reverse: 'reverse',
    'there-and-back': 'there and back',
    repeat: 'repeat',
    stretch: 'stretch',
  }

  function retimeMarked(what: Retiming): void {
    act(LABELS[what.kind], (m, manner) => edit((doc, take) => retime(doc, take, m, what, manner)))
  }

  function trimAt(side: 'start' | 'end'): void {
    if (!editable()) return
    const label = side === 'end' ? 'let it end here' : 'let it begin here'
    asking.act({
      label,
      attempt: manner => edit((doc, take) => trim(doc, take, desk.timedLayer, desk.frame, side, manner)),
    })
  }

  return { exposeOn, newDrawingsOn, hold, holdFor, holdNext, holdUp, retimeMarked, trimAt }
}
