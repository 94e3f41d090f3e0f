import {
  doBatch,
  get,
  sheetChange,
  type Doable,
  type Manner,
  type NotDone,
  type Operation,
  type Room,
} from '@unhurried/core/document'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { answerInWords, NOTHING_CHANGED, roomInWords } from '../words/answers.ts'
import { whyNotInWords } from '../words/refusals.ts'
import { useDesk } from './desk.ts'
import { useShot, type CommitOptions } from './shot.ts'

/** One act on the sheet: what it is called, how it is worked out in a manner, and what follows when it was done. */
export interface SheetAct<Step extends Doable = Doable> {
  readonly label: string
  /** other words for why it cannot be done */
  readonly whyNot?: (refused: NotDone) => string | null
  attempt(manner: Manner): Step | NotDone
  done?(step: Step): void
  readonly more?: CommitOptions
}

/** A way out that is offered. */
export interface Choice {
  readonly words: string
  take(): void
}

/** A number to be typed. */
export interface NumberField {
  readonly words: string
  readonly least: number
  readonly most: number
  readonly now: number
  /** takes what was typed; false keeps the question */
  take(n: number): unknown
}

/** What has to be decided before something is done. */
export interface Question {
  readonly label: string
  readonly why: string
  readonly choices: readonly Choice[]
  readonly field?: NumberField
}

const WAYS_OUT: readonly Room[] = ['longer', 'shorter', 'all', 'cover']

/** The desk's answers to acts on the sheet, in a line each; and its questions where an act does not fit. */
export const useAsking = defineStore('asking', () => {
  const shot = useShot()
  const desk = useDesk()
  const answer = shallowRef('')
  const question = shallowRef<Question | null>(null)

  /** Does an act in the manner set; or asks how, where that does not fit. Answers whether it was done at once. */
  function act<Step extends Doable>(one: SheetAct<Step>): boolean {
    question.value = null
    const step = one.attempt(desk.following)
    if (step.ok) return carryOut(one, step)
    const choices = choicesFor(one, step)
    const why = one.whyNot?.(step) ?? whyNot(step)
    answer.value = `${one.label}: nothing was done`
    if (choices.length === 0) shot.notice = why
    else question.value = { label: one.label, why, choices }
    return false
  }

  function carryOut<Step extends Doable>(one: SheetAct<Step>, step: Step): boolean {
    const before = shot.document
    question.value = null
    if (!before) return false
    if (step.ops.length === 0) {
      answer.value = NOTHING_CHANGED(one.label)
      return true
    }
    if (shot.commit(one.label, step.ops, one.more)) return false
    if (shot.document) answer.value = answerInWords(one.label, sheetChange(before, shot.document))
    if (step.frame !== undefined) desk.goTo(step.frame)
    one.done?.(step)
    return true
  }

  /** The other manners in which an act can be done, each only when it leads to something of its own. */
  function choicesFor<Step extends Doable>(one: SheetAct<Step>, refused: NotDone): Choice[] {
    if (refused.code !== 'no-room' && refused.code !== 'would-cover') return []
    const { document } = shot
    if (!document) return []
    const covered = refused.code === 'would-cover' ? refused.drawings : []
    const manners: [Room | 'moves', Manner][] = WAYS_OUT.map(room => [room, { following: desk.following, room }])
    if (desk.following === 'stay') manners.push(['moves', { following: 'ripple', room: 'longer' }])
    const seen = new Set<string>()
    return manners.flatMap(([room, manner]): Choice[] => {
      const step = one.attempt(manner)
      if (!step.ok) return []
      const result = doBatch(document, step.ops)
      if (!result.ok) return []
      // Two ways that come to the same are one.
      const take = get(result.document.takes, result.document.current)
      const looks = JSON.stringify([take.length, take.columns])
      if (seen.has(looks)) return []
      seen.add(looks)
      const by = take.length - (shot.take?.length ?? 0)
      const numbers = covered.flatMap(id => document.drawings[id]?.number ?? [])
      return [{ words: roomInWords(room, by, take.length, numbers), take: () => void carryOut(one, step) }]
    })
  }

  function whyNot(refused: NotDone): string {
    if (refused.code !== 'would-cover') return whyNotInWords(refused)
    const numbers = refused.drawings.flatMap(id => shot.document?.drawings[id]?.number ?? [])
    return `${numbers.join(', ')} would no longer be shown.`
  }

  /** Asks before something is done that cannot be seen beforehand. */
  const ask = (next: Question) => (question.value = next)

  /** Asks for a number. */
  const askNumber = (label: string, field: NumberField) => ask({ label, why: '', choices: [], field })

  /** Does changes of the sheet that need no room, and tells what they did. */
  function commit(label: string, ops: readonly Operation[], done?: () => void): boolean {
    return carryOut({ label, attempt: () => ({ ok: true, ops }), ...(done && { done }) }, { ok: true, ops })
  }

  return {
    answer: computed(() => answer.value),
    question: computed(() => question.value),
    act,
    ask,
    askNumber,
    commit,
    tell: (words: string) => (answer.value = words),
    drop: () => (question.value = null),
    /** Forgets what was said in another shot. */
    reset() {
      answer.value = ''
      question.value = null
    },
  }
})

export type Asking = ReturnType<typeof useAsking>
