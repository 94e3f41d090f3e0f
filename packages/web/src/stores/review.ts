import {
  answerRemark,
  exposedDrawing,
  layersInOrder,
  LIMITS,
  lookAgain,
  lookAt,
  lookedState,
  printOfDrawing,
  remarksOn,
  stopsOf,
  type Drawing,
  type LookedState,
  type Operation,
  type Remark,
  type Stop,
} from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { newId } from '../local/ids.ts'
import { oneLine } from '../words/oneLine.ts'
import { useDesk } from './desk.ts'
import { useSession } from './session.ts'
import { useShot } from './shot.ts'

/** What somebody wants to remark: where in the picture, what, and with which lines over it. */
export interface Remarked {
  /** id of the drawing it is about, if it is about one */
  readonly drawing: string | null
  readonly at: Point | null
  readonly text: string
  readonly sketch: readonly (readonly Point[])[]
}

const isSameStop = (a: Stop, b: Stop): boolean =>
  a.drawings.length === b.drawings.length && a.drawings.every((drawing, i) => drawing === b.drawings[i])

/** Work on many drawings lets the page do other things after so long. */
const SLICE_MS = 8

/** Looking the shot through: which drawings whoever sits here has looked at, and what was remarked. */
export const useReview = defineStore('review', () => {
  const shot = useShot()
  const desk = useDesk()
  const session = useSession()
  const me = computed(() => session.account?.id ?? '')
  /** What has not changed stays the same: a remark, or a look, is no other stop. */
  const stops = computed<readonly Stop[]>(before => {
    const now = shot.document && shot.take ? stopsOf(shot.document, shot.take) : []
    const known = new Map(before?.map(stop => [stop.frame, stop]))
    const kept = now.map(stop => {
      const was = known.get(stop.frame)
      return was && isSameStop(was, stop) ? was : stop
    })
    return before && before.length === kept.length && kept.every((stop, i) => stop === before[i]) ? before : kept
  })

  /** Drawings by how they were looked at; null until all were asked about. Fingerprints of a long shot take their time. */
  const states = shallowRef<ReadonlyMap<Drawing, LookedState> | null>(null)
  let round = 0
  async function ask(): Promise<void> {
    const mine = ++round
    const { document } = shot
    if (!document || wanted.value === 0) return
    const looked = document.looked[me.value] ?? {}
    let began = performance.now()
    for (const { drawings } of stops.value) {
      for (const drawing of drawings) if (looked[drawing.id] !== undefined) printOfDrawing(drawing)
      if (performance.now() - began < SLICE_MS) continue
      await new Promise(done => setTimeout(done))
      if (mine !== round) return
      began = performance.now()
    }
    const all = stops.value.flatMap(stop => stop.drawings)
    states.value = new Map(all.map(drawing => [drawing, lookedState(document, me.value, drawing)]))
  }
  const wanted = shallowRef(0)
  // While no room wants to know, nothing is gone through: this is asked after every stroke.
  watch(
    () => (wanted.value > 0 ? [shot.document?.looked[me.value], stops.value, me.value] : null),
    now => now && void ask(),
  )
  watch(
    () => shot.id,
    () => (states.value = null),
  )
  const isLeft = (stop: Stop) => stop.drawings.some(drawing => states.value?.get(drawing) !== 'seen')
  const left = computed<readonly Stop[]>(() => (states.value ? stops.value.filter(isLeft) : stops.value))

  const remarks = computed(() => (shot.document && shot.take ? remarksOn(shot.document, shot.take) : []))
  const open = computed(() => remarks.value.filter(({ remark }) => !remark.closed))
  /** Those that are seen on the frame one is on: made on it, or about a drawing that is shown there. */
  const here = computed(() => {
    const { document, take } = shot
    if (!document || !take || remarks.value.length === 0) return []
    const shown = new Set(
      layersInOrder(document).flatMap(layer => exposedDrawing(document, take, layer.id, desk.frame)?.id ?? []),
    )
    return remarks.value.filter(
      ({ remark, frame }) => frame === desk.frame || (remark.drawing !== null && shown.has(remark.drawing)),
    )
  })

  return {
    me,
    stops,
    left,
    /** drawings that are not looked at as they are; null while that is not known */
    unseen: computed(() =>
      states.value ? [...states.value].filter(([, state]) => state !== 'seen').map(([drawing]) => drawing) : null,
    ),
    stateOf: (drawing: Drawing): LookedState | null => states.value?.get(drawing) ?? null,
    remarks,
    open,
    here,
    /** A room wants to know what was looked at, until it goes. */
    want(): () => void {
      wanted.value++
      return () => void wanted.value--
    },
    ...reviewActs(),
  }
})

/** What is done in looking through. Who only looks may do all of it. */
function reviewActs() {
  const shot = useShot()
  const desk = useDesk()
  const session = useSession()
  const commit = (label: string, ops: readonly Operation[], isAside = false) =>
    session.account !== null && shot.commit(label, ops, { isAside }) === null

  return {
    look: (drawings: readonly Drawing[]) =>
      shot.document &&
      session.account &&
      commit('looked at', lookAt(shot.document, session.account.id, drawings), true),
    again: (drawings: readonly Drawing[]) =>
      shot.document &&
      session.account &&
      commit('to be looked at again', lookAgain(shot.document, session.account.id, drawings), true),
    /** Puts a remark on the frame one is on. */
    remark({ drawing, at, text, sketch }: Remarked): boolean {
      const { account } = session
      if (!account || (text.trim() === '' && sketch.length === 0)) return false
      const said = { id: newId(), by: account.id, name: account.name, frame: desk.frame, drawing }
      const remark: Remark = { ...said, at, sketch, text: oneLine(text, LIMITS.noteLength), answers: [], closed: false }
      return commit('remark', [{ kind: 'remark.add', remark }])
    },
    answer(remark: Remark, text: string): void {
      const { account } = session
      if (!account || text.trim() === '') return
      commit(
        'answer',
        answerRemark(remark, { by: account.id, name: account.name, text: oneLine(text, LIMITS.noteLength) }),
      )
    },
    close: ({ id, closed }: Remark) =>
      commit(closed ? 'remark opened again' : 'remark closed', [
        { kind: 'remark.set', id, patch: { closed: !closed } },
      ]),
    /** one's own, and for who draws any */
    mayRemove: ({ by }: Remark) => shot.mayDraw || by === session.account?.id,
    remove: ({ id }: Remark) => commit('remark taken away', [{ kind: 'remark.remove', id }]),
  }
}
