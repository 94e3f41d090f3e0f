import {
  commit as commitTo,
  done,
  doneJoining,
  EMPTY_HISTORY,
  EMPTY_OUTBOX,
  currentTake,
  drawnOnlyIn,
  find,
  redone,
  safeMark,
  assetIds,
  undone,
  type Batch,
  type Proposal,
  type History,
  type JournalEntry,
  type Operation,
  type Outbox,
  type Refusal,
  type Replica,
  type ShotDocument,
} from '@unhurried/core/document'
import { MOST_OPERATIONS, Word, type MemberRole, type PostBatches } from '@unhurried/contract'
import { defineStore } from 'pinia'
import { computed, markRaw, ref, shallowRef } from 'vue'
import * as calls from '../api/calls.ts'
import { keepEntries } from '../local/copies.ts'
import * as local from '../local/database.ts'
import { oneLine } from '../words/oneLine.ts'
import { EARLIER_COPY, whyNotInWords, refusedInWords, verdictInWords } from '../words/refusals.ts'
import { newId } from '../local/ids.ts'
import { makeLink, type GivenUp, type Knows, type Link } from './link.ts'
import { tellShot } from './opening.ts'
import { makeOwnStrokes } from './ownStrokes.ts'
import { makeParked } from './parked.ts'

/** The name of this tab: its history survives a reload and is not mixed with another tab's. */
function deskName(): string {
  const known = sessionStorage.getItem('desk')
  if (known) return known
  const fresh = newId()
  sessionStorage.setItem('desk', fresh)
  return fresh
}

/** When a shot has to be opened anew and nobody answers, it is tried again after this. */
const REOPEN_MS = 3000
/** When nobody may listen at the moment, it is asked for again after this. */
const LISTEN_AGAIN_MS = 5000

export interface CommitOptions {
  /** stroke samples that the operations bring along */
  readonly samples?: ReadonlyMap<string, Uint8Array>
  /** whether this belongs to the step before when it is of the same kind */
  readonly joins?: boolean
}

/** The shot on the desk: its document, and the one way to change it. */
export const useShot = defineStore('shot', () => {
  const id = ref('')
  const name = ref('')
  const filmName = ref('')
  const role = ref<MemberRole>('reviewer')
  const replica = shallowRef<Replica | null>(null)
  const history = shallowRef<History>(EMPTY_HISTORY)
  const outbox = shallowRef<Outbox>(EMPTY_OUTBOX)
  const notice = ref('')
  const signedOut = ref(false)
  /** why what is done here is not taken over there at the moment, in words */
  const waiting = ref('')
  const parked = makeParked()

  const strokes = makeOwnStrokes()
  const desk = deskName()
  let openings = 0
  /** the shot that is to lie on the desk, also while it cannot be opened */
  let wanted = ''
  let link: Link | null = null
  let words: EventSource | null = null
  let historyTimer: ReturnType<typeof setTimeout> | undefined

  const document = computed<ShotDocument | null>(() => replica.value?.document ?? null)
  const take = computed(() => (document.value ? currentTake(document.value) : null))
  const mayDraw = computed(() => role.value !== 'reviewer')

  /** Opens a shot. When another is asked for meanwhile, the earlier answer is dropped. */
  async function open(shotId: string, mayBeCopy = true): Promise<void> {
    putAway()
    wanted = shotId
    const mine = ++openings
    const [told, left, past] = await Promise.all([
      tellShot(shotId, mayBeCopy),
      local.leftover(shotId),
      local.readHistory(shotId, desk),
    ])
    if (mine !== openings) return
    await parked.read(shotId)
    if (mine !== openings) return
    strokes.take(told.samples)
    strokes.make(left.samples)
    id.value = shotId
    name.value = told.name
    filmName.value = told.filmName
    role.value = told.role
    history.value = past ?? EMPTY_HISTORY
    // What the document has already was stored before this desk heard of it.
    const known = new Set(told.recent)
    const pending = left.batches.filter(batch => !known.has(batch.id))
    if (pending.length < left.batches.length) void local.forget(shotId, known, [])
    replica.value = markRaw(told.replica(pending))
    if (told.isCopy) notice.value = 'The server does not answer: this is the shot as it was last seen on this machine.'
    link = connect(shotId, { epoch: told.epoch, last: told.recent[0] ?? null })
    link.pendingChanged()
    listen(shotId)
  }

  /** A link to one shot. Whatever it is answered after the desk has gone on, it touches nothing here any more. */
  function connect(shotId: string, opened: { readonly epoch: string; readonly last: string | null }): Link {
    const mine = openings
    const port = {
      replica: () => replica.value as Replica,
      setReplica: (next: Replica) => void (replica.value = markRaw(next)),
      setOutbox: (next: Outbox) => void (outbox.value = next),
      unsent: strokes.unsent,
      async fetchStrokes(ids: readonly string[]) {
        const missing = strokes.missing(ids)
        if (missing.length === 0) return
        const fetched = await calls.strokesNamed(shotId, missing)
        if (mine === openings) strokes.take(fetched)
      },
      post: (request: PostBatches) => calls.shot.post(shotId, request),
      journal: (knows: Knows) => calls.shot.journal(shotId, knows),
      took: (entries: readonly JournalEntry[]) =>
        void keepEntries(shotId, entries, strokes.bytes).catch(() => undefined),
      forget(batchIds: ReadonlySet<string>) {
        void local.forget(shotId, batchIds, strokes.onlyFor(replica.value?.pending ?? []))
      },
      park(given: readonly GivenUp[]) {
        const [first] = given
        if (!first) return
        const what = given.length === 1 ? `“${first.batch.label}” is` : `${given.length} changes are`
        notice.value = `${what} set aside: ${verdictInWords(first.code, first.what)}. Nothing is lost; see “set aside” above.`
        parked
          .add(shotId, given, strokes.bytes)
          .catch(() => (notice.value = 'This machine’s storage is full or closed: save what is set aside as a file.'))
      },
      movedOn: (heard: readonly Batch[]) => void openAnew(shotId, heard),
      waits: (words: string | null) => void (waiting.value = words ?? ''),
      signedOut: () => void (signedOut.value = true),
    }
    return makeLink(port, opened)
  }

  /**
   * The journal is not the one this desk knows: the database was put back to an earlier copy. All that this desk has seen
   * of it, and what it has not sent yet, is kept, the shot opened anew, and sent once more; what is there already is known
   * by its name.
   */
  async function openAnew(shotId: string, heard: readonly Batch[]): Promise<void> {
    const mine = openings
    const pending = replica.value?.pending ?? []
    const seen = replica.value?.document
    const bytes = strokes.copy()
    const waits = new Set(pending.map(batch => batch.id))
    const batches = [...heard.filter(batch => !waits.has(batch.id)), ...pending]
    await local.keepInstead(shotId, batches, strokes.brought(batches)).catch(() => undefined)
    for (let isFirst = true; wanted === shotId && (isFirst ? mine === openings : !replica.value); isFirst = false) {
      try {
        await open(shotId, false)
        if (seen) void setAsideWhatOnly(seen, bytes)
        notice.value = 'The server’s copy of this shot is an earlier one. What this desk has of it is sent once more.'
        return
      } catch {
        // Nobody answers now; what there is, is kept.
        await new Promise(later => setTimeout(later, REOPEN_MS))
      }
    }
  }

  /** What was drawn before this desk heard of anything, and is gone from the server's copy, is set aside: it is still here. */
  async function setAsideWhatOnly(seen: ShotDocument, bytes: ReadonlyMap<string, Uint8Array>): Promise<void> {
    if (!document.value) return
    const given = drawnOnlyIn(seen, document.value).map((op): GivenUp => {
      const id = op.kind === 'drawing.add' ? op.drawing.id : op.kind === 'elements.add' ? op.drawing : ''
      const label = `drawing ${find(seen.drawings, id)?.number ?? ''}`
      return { batch: { id: newId(), label, ops: [op] }, code: EARLIER_COPY, what: '' }
    })
    await parked.add(id.value, given, i => bytes.get(i))
  }

  function listen(shotId: string): void {
    const stream = new EventSource(`/api/shots/${shotId}/events`)
    words = stream
    let isFirst = false
    stream.onopen = () => (isFirst = true)
    // A lost connection is made again by the browser; after a refusal nobody but us asks once more.
    stream.onerror = () => {
      if (stream.readyState !== EventSource.CLOSED) return
      setTimeout(() => words === stream && listen(shotId), LISTEN_AGAIN_MS)
    }
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      link?.retry()
      link?.heard(Word.parse(JSON.parse(data)), isFirst)
      isFirst = false
    }
    addEventListener('online', retry)
  }

  const retry = () => link?.retry()

  function close(): void {
    wanted = ''
    putAway()
  }

  function putAway(): void {
    link?.close()
    words?.close()
    removeEventListener('online', retry)
    link = null
    words = null
    replica.value = null
    history.value = EMPTY_HISTORY
    outbox.value = EMPTY_OUTBOX
    notice.value = ''
    signedOut.value = false
    waiting.value = ''
    parked.forget()
    openings++
    strokes.forget()
  }

  function perform(label: string, ops: readonly Operation[]): { inverse: readonly Operation[] } | Refusal {
    const before = replica.value
    if (!before) throw new Error('no shot is open')
    // Labels hold names that people typed, and are stored like them.
    const batch = { id: newId(), label: oneLine(label), ops }
    const result = commitTo(before, batch)
    if (!result.ok) return result.refusal
    replica.value = markRaw(result.replica)
    void local.keep(id.value, batch, strokes.unsent(assetIds(ops))).catch(() => {
      notice.value = 'This machine’s storage is full or closed: changes are only safe once the server has them.'
    })
    link?.pendingChanged()
    return { inverse: result.inverse }
  }

  /** The one way to change the shot: at once here, kept on this machine, sent on. Answers with a refusal or null. */
  function commit(label: string, ops: readonly Operation[], more: CommitOptions = {}): Refusal | null {
    if (ops.length === 0) return null
    if (ops.length > MOST_OPERATIONS) {
      // The server would not take it in, and everything done afterwards would wait behind it.
      notice.value = `That is ${ops.length} changes at once; at most ${MOST_OPERATIONS} can be one step. Do it in parts.`
      return { code: 'too-many', what: 'changes at once' }
    }
    if (more.samples) strokes.make(more.samples)
    const result = perform(label, ops)
    if ('code' in result) {
      notice.value = `That cannot be done: ${refusedInWords(result)}.`
      return result
    }
    setHistory((more.joins ? doneJoining : done)(history.value, { label, ops: result.inverse }))
    return null
  }

  /** Commits an edit of the sheet, or tells why it cannot be done. Answers whether it was done. */
  function carryOut(label: string, step: Proposal, more: CommitOptions = {}): boolean {
    if (step.ok) return commit(label, step.ops, more) === null
    notice.value = whyNotInWords(step)
    return false
  }

  function setHistory(next: History): void {
    history.value = next
    clearTimeout(historyTimer)
    const shotId = id.value
    historyTimer = setTimeout(() => void local.keepHistory(shotId, desk, next), 150)
  }

  /** Undoes the newest step and answers with its ops, or null when there was nothing to undo. */
  function undo(): readonly Operation[] | null {
    return step('undo', undone)
  }
  function redo(): readonly Operation[] | null {
    return step('redo', redone)
  }

  function step(which: 'undo' | 'redo', move: (h: History, inverse: readonly Operation[]) => History) {
    const stack = history.value[which]
    const top = stack[stack.length - 1]
    if (!top) return null
    const result = perform(`${which}: ${top.label}`, top.ops)
    if ('code' in result) {
      notice.value = `“${top.label}” cannot be ${which === 'undo' ? 'undone' : 'redone'} any more: what it touched has changed since.`
      setHistory({ ...history.value, [which]: stack.slice(0, -1) })
      return null
    }
    setHistory(move(history.value, result.inverse))
    return top.ops
  }

  return {
    id,
    name,
    filmName,
    role,
    replica,
    document,
    take,
    history,
    outbox,
    notice,
    signedOut,
    waiting,
    parked: parked.entries,
    setAside: (given: readonly GivenUp[], bytes: (sampleId: string) => Uint8Array | undefined) =>
      parked.add(id.value, given, bytes),
    unpark: parked.remove,
    mayDraw,
    book: strokes.book,
    safe: computed(() => safeMark(outbox.value)),
    strokeBytes: strokes.bytes,
    drawing: (drawingId: string | null) =>
      (drawingId !== null && document.value && find(document.value.drawings, drawingId)) || null,
    open,
    close,
    commit,
    carryOut,
    undo,
    redo,
  }
})
