import { find, safeMark } from '@unhurried/core/document'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import type { GivenUp } from './open/link.ts'
import { makeOpening } from './open/opening.ts'
import { makeOwnStrokes } from './open/ownStrokes.ts'
import { makeParked } from './open/parked.ts'
import { openState } from './open/state.ts'
import { makeSteps } from './open/steps.ts'

export type { CommitOptions } from './open/steps.ts'

/** The shot on the desk: its document, and the one way to change it. */
export const useShot = defineStore('shot', () => {
  const state = openState()
  const strokes = makeOwnStrokes()
  const parked = makeParked()
  const { open, close, changed, stop } = makeOpening({ state, strokes, parked })
  const { empty: _empty, ...known } = state
  const { document, outbox } = known

  return {
    ...known,
    ...makeSteps(state, strokes, changed),
    open,
    close,
    stopSending: stop,
    parked: parked.entries,
    setAside: (given: readonly GivenUp[], bytes: (sampleId: string) => Uint8Array | undefined) =>
      parked.add(known.id.value, given, bytes),
    unpark: parked.remove,
    book: strokes.book,
    strokeBytes: strokes.bytes,
    safe: computed(() => safeMark(outbox.value)),
    drawing: (drawingId: string | null) =>
      (drawingId !== null && document.value && find(document.value.drawings, drawingId)) || null,
  }
})
