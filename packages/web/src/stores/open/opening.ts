import { drawnOnlyIn, EMPTY_HISTORY, find, type Batch, type ShotDocument } from '@unhurried/core/document'
import { markRaw } from 'vue'
import * as local from '../../local/database.ts'
import { newId } from '../../local/ids.ts'
import { EARLIER_COPY } from '../../words/refusals.ts'
import { makeLink, type GivenUp, type Link } from './link.ts'
import { listenTo, type Listening } from './listening.ts'
import { portOf, type OpenParts } from './port.ts'
import { deskName } from './state.ts'
import { tellShot } from './told.ts'

/** When a shot has to be opened anew and nobody answers, it is tried again after this. */
const REOPEN_MS = 3000

/** What only this desk has of a shot whose server went back to an earlier copy, as steps that can be set aside. */
function onlyHere(seen: ShotDocument, document: ShotDocument): GivenUp[] {
  return drawnOnlyIn(seen, document).map(op => {
    const id = op.kind === 'drawing.add' ? op.drawing.id : op.kind === 'elements.add' ? op.drawing : ''
    const label = `drawing ${find(seen.drawings, id)?.number ?? ''}`
    return { batch: { id: newId(), label, ops: [op] }, code: EARLIER_COPY, what: '' }
  })
}

/** Lays shots on the desk and puts them away: one at a time, linked to the server as long as it lies there. */
export function makeOpening(parts: OpenParts) {
  const { state, strokes, parked } = parts
  const { replica, notice } = state
  let openings = 0
  /** the shot that is to lie on the desk, also while it cannot be opened */
  let wanted = ''
  let link: Link | null = null
  let words: Listening | null = null

  /** Opens a shot. When another is asked for meanwhile, the earlier answer is dropped. */
  async function open(shotId: string, mayBeCopy = true): Promise<void> {
    putAway()
    wanted = shotId
    const mine = ++openings
    const [told, left, past] = await Promise.all([
      tellShot(shotId, mayBeCopy),
      local.leftover(shotId),
      local.readHistory(shotId, deskName()),
    ])
    if (mine !== openings) return
    await parked.read(shotId)
    if (mine !== openings) return
    strokes.take(told.samples)
    strokes.make(left.samples)
    state.id.value = shotId
    state.name.value = told.name
    state.film.value = told.film
    state.filmName.value = told.filmName
    state.filmStudy.value = told.filmStudy
    state.role.value = told.role
    state.history.value = past ?? EMPTY_HISTORY
    // What the document has already was stored before this desk heard of it.
    const known = new Set(told.recent)
    const pending = left.batches.filter(batch => !known.has(batch.id))
    if (pending.length < left.batches.length) void local.forget(shotId, known, [])
    replica.value = markRaw(told.replica(pending))
    if (told.isCopy) notice.value = 'The server does not answer: this is the shot as it was last seen on this machine.'
    const port = portOf(
      parts,
      shotId,
      () => mine === openings,
      heard => void openAnew(shotId, heard),
    )
    const linked = makeLink(port, { epoch: told.epoch, last: told.recent[0] ?? null })
    link = linked
    linked.pendingChanged()
    words = listenTo(shotId, linked.heard, linked.retry)
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
        // What was drawn before this desk heard of anything, and is gone from the server's copy, is still here.
        const now = state.document.value
        if (seen && now) void parked.add(shotId, onlyHere(seen, now), id => bytes.get(id))
        notice.value = 'The server’s copy of this shot is an earlier one. What this desk has of it is sent once more.'
        return
      } catch {
        // Nobody answers now; what there is, is kept.
        await new Promise(later => setTimeout(later, REOPEN_MS))
      }
    }
  }

  function putAway(): void {
    link?.close()
    words?.close()
    link = null
    words = null
    state.empty()
    parked.forget()
    openings++
    strokes.forget()
  }

  return {
    open,
    close(): void {
      wanted = ''
      putAway()
    },
    /** there is something to be sent */
    changed: () => link?.pendingChanged(),
    /** sends the pictures that are on their way no more */
    stop: () => link?.stop(),
  }
}
