import {
  acceptFinding,
  askAgain,
  CHECK_NAMES,
  CHECKS,
  nameOf,
  type CheckName,
  type Fix,
  type Found,
} from '@unhurried/core/measure'
import { counted } from '@unhurried/core/time'
import { computed, ref, watch, type ComputedRef } from 'vue'
import { newId } from '../../local/ids.ts'
import { useDelivered } from '../../stores/delivered.ts'
import { useDesk } from '../../stores/desk.ts'
import { useFlip } from '../../stores/flip.ts'
import { useMeasure } from '../../stores/measure.ts'
import { useShot } from '../../stores/shot.ts'
import { oneLine } from '../../words/oneLine.ts'

/** What a check is at: it cannot be asked yet, is not asked of this shot, has found nothing, or something. */
export interface CheckState {
  readonly name: CheckName
  readonly words: string
  readonly asks: string
  readonly count: number
  readonly meant: number
  /** whether the shot has anything it could be asked of */
  readonly isAsked: boolean
  /** why it says nothing; empty where it was asked */
  readonly silent: string
}

/** The findings of a shot gone through: which check, which finding, and what is done about it. */
export function useMeasuring() {
  const shot = useShot()
  const desk = useDesk()
  const measure = useMeasure()
  const delivered = useDelivered()
  /** null: all checks together */
  const check = ref<CheckName | null>(null)
  /** findings that are meant so are seen too */
  const withMeant = ref(false)
  const at = ref(0)

  function silence(name: CheckName): string {
    const { document } = shot
    const { needs } = CHECKS[name]
    if (!document) return ''
    if (needs.includes('frames') && !delivered.seen) {
      const { progress, broken } = delivered
      return (
        broken ||
        (progress
          ? `${progress.done} of ${counted(progress.of, 'picture')} looked at`
          : 'the frames are being looked at')
      )
    }
    const marks = Object.values(document.marks).some(mark => mark.kind === 'point')
    if (needs.length === 1 && needs[0] === 'marks' && !marks) return 'needs marks on the drawings'
    if (!needs.includes('charts') || Object.keys(document.charts).length > 0) return ''
    // Either will do.
    if (needs.includes('marks')) return marks ? '' : 'needs a chart or marks'
    return 'needs a chart'
  }
  const states = computed<CheckState[]>(() =>
    CHECK_NAMES.map(name => {
      const found = measure.found.filter(one => one.check === name)
      const meant = found.filter(one => measure.meant.has(one)).length
      const { words, asks, isAsked } = CHECKS[name]
      const counts = { count: found.length - meant, meant }
      const can = !isAsked || !measure.about || isAsked(measure.about)
      return { name, words, asks, ...counts, isAsked: can, silent: can ? silence(name) : 'not asked of this shot' }
    }),
  )

  const list = computed<readonly Found[]>(() =>
    measure.found.filter(
      one => (check.value === null || one.check === check.value) && (withMeant.value || !measure.meant.has(one)),
    ),
  )
  /** the first one is there before one has gone to it */
  let isThere = false
  watch([check, withMeant], () => {
    at.value = 0
    isThere = false
  })
  // Found anew, it is the same one that is looked at, wherever it is told now.
  watch(list, (now, before) => {
    const looked = isThere ? before[Math.min(at.value, before.length - 1)] : undefined
    const there = looked ? now.findIndex(found => nameOf(found) === nameOf(looked)) : -1
    if (there >= 0) at.value = there
  })
  const one = computed<Found | null>(() => list.value[Math.min(at.value, list.value.length - 1)] ?? null)

  function show(found: Found): void {
    isThere = true
    at.value = Math.max(0, list.value.indexOf(found))
    if (found.layer !== null) desk.layerId = found.layer
    desk.goTo(found.from)
  }
  function step(by: 1 | -1): void {
    const { length } = list.value
    if (length === 0) return
    const from = Math.min(at.value, length - 1)
    const next = list.value[isThere ? (from + by + length) % length : from]
    if (next) show(next)
  }

  const fixing = useFixing(list, one)

  return {
    check,
    withMeant,
    states,
    /** those with something to go by in this shot, and those with nothing */
    asked: computed(() => states.value.filter(one => one.isAsked)),
    unasked: computed(() => states.value.filter(one => !one.isAsked)),
    list,
    one,
    at,
    choose: (name: CheckName | null) => void (check.value = name),
    seeMeant: () => void (withMeant.value = !withMeant.value),
    show,
    step,
    ...fixing,
    /** Says that the finding is meant so; the next one is then looked at. */
    accept(reason: string): void {
      const { document } = shot
      const found = one.value
      if (!document || !found || !shot.mayDraw) return
      shot.commit('meant so', acceptFinding(document, found, measure.found, oneLine(reason), newId()))
    },
    ask(found: Found): void {
      const { document } = shot
      if (document && shot.mayDraw) shot.commit('asked again', askAgain(document, found))
    },
  }
}

export type Measuring = ReturnType<typeof useMeasuring>

/** What of the findings can be put right in one step each. */
function useFixing(list: ComputedRef<readonly Found[]>, one: ComputedRef<Found | null>) {
  const shot = useShot()
  const measure = useMeasure()
  const flip = useFlip()
  const fixOf = (found: Found | null): Fix | null => {
    const { survey } = measure
    return found && survey && shot.mayDraw ? (CHECKS[found.check].fix?.(survey, found, newId) ?? null) : null
  }
  const fix = computed(() => fixOf(one.value))
  /** another way to put it right */
  const other = computed<Fix | null>(() => {
    const { survey } = measure
    const found = one.value
    return found && survey && shot.mayDraw ? (CHECKS[found.check].otherFix?.(survey, found, newId) ?? null) : null
  })
  /** What can be put right of all that is listed: of every drawing what is found first, for the rest may look otherwise then. */
  const fixes = computed<Fix[]>(() => {
    const seen = new Set<string>()
    return list.value.flatMap(found => {
      const of = `${found.check} ${found.drawings[0] ?? found.from} ${CHECKS[found.check].fixesApart ? `${found.at?.x} ${found.at?.y}` : ''}`
      const step = seen.has(of) ? null : fixOf(found)
      seen.add(of)
      return step ? [step] : []
    })
  })
  function carryOut(words: string, steps: readonly Fix[]): void {
    const ops = steps.flatMap(step => step.ops)
    const samples = new Map(steps.flatMap(step => [...(step.samples ?? [])]))
    if (ops.length === 0 || shot.commit(words, ops, { samples })) return
    const made = ops.flatMap(op => (op.kind === 'take.add' ? op.take : []))[0]
    if (!made || !shot.take) return
    // A take is there to be looked at beside the one that is worked on.
    flip.takes = [shot.take.id, made.id]
    shot.notice = `“${made.name}” is a take of its own now: Flip shows both. Work on it, or take it away, there or in the plan.`
  }

  return {
    fix,
    doFix: () => fix.value && carryOut(fix.value.words, [fix.value]),
    other,
    doOther: () => other.value && carryOut(other.value.words, [other.value]),
    fixes,
    /** All that is listed and can be put right, in one step. */
    doAll: () => carryOut(`put ${fixes.value.length} right`, fixes.value),
  }
}
