import type { Accepted, ShotDocument } from '../document/model/model.ts'
import { find } from '../document/model/table.ts'
import type { Operation } from '../document/operations/index.ts'
import { fingerprint } from '../fingerprint.ts'
import type { Found } from './checks/table.ts'

/** Longer texts are told by their beginning and their fingerprint. */
const LONGEST = 300

/** Which finding it is, as a text: the same check about the same drawings and marks of a layer. */
export function aboutOf({ check, layer, drawings, marks, from }: Found): string {
  // What is about no drawing is about its frame.
  const what = drawings.length > 0 ? drawings.join('+') : `frame ${from}`
  const whole = [check, layer ?? 'picture', what, ...marks].join(' ')
  return whole.length > LONGEST ? `${whole.slice(0, LONGEST)} ${fingerprint(whole)}` : whole
}

/** What tells a finding from all others in a list of them, as a text. */
export const nameOf = (found: Found): string => `${aboutOf(found)} ${found.words} ${found.at?.x},${found.at?.y}`

/** What a finding is about as it is now: its drawings, with all that lies on them, and what is said of them. Of the same content it is the same text. */
export function printOf(document: ShotDocument, { drawings, words }: Found): string {
  const shown = drawings.map(id => {
    const drawing = find(document.drawings, id)
    return drawing ? [drawing.elements, drawing.marks] : null
  })
  return fingerprint(JSON.stringify([words, shown]))
}

/** Whether somebody has said that a finding is meant so, and what it is about has not changed since. */
export function acceptedOf(document: ShotDocument, found: Found): Accepted | null {
  const said = saidOf(document, aboutOf(found))
  // All that lies on its drawings is only gone through where something was said of it: this is asked after every stroke.
  if (said.length === 0) return null
  const print = printOf(document, found)
  return said.find(one => one.print === print) ?? null
}

/**
 * Says that a finding is meant so, and why; what was said of it before goes. `all`: what else is found: of the same drawing it is another question, and what was said of it stays.
 */
export function acceptFinding(
  document: ShotDocument,
  found: Found,
  all: readonly Found[],
  reason: string,
  id: string,
): Operation[] {
  const about = aboutOf(found)
  const print = printOf(document, found)
  const others = all.filter(one => aboutOf(one) === about).map(one => printOf(document, one))
  const old = saidOf(document, about).filter(one => one.print === print || !others.includes(one.print))
  return [...old.map(removed), { kind: 'accepted.add', accepted: { id, about, print, reason } }]
}

/** Nothing is said of a finding any more: it is told again. */
export function askAgain(document: ShotDocument, found: Found): Operation[] {
  const print = printOf(document, found)
  return saidOf(document, aboutOf(found))
    .filter(one => one.print === print)
    .map(removed)
}

const saidOf = ({ accepted }: ShotDocument, about: string): Accepted[] =>
  Object.values(accepted).filter(one => one.about === about)
const removed = ({ id }: Accepted): Operation => ({ kind: 'accepted.remove', id })
