import { LONGEST_SHOT_FRAMES } from '../../time/length.ts'
import { LIMITS, SAYINGS, type Remark, type Saying, type ShotDocument } from '../model/model.ts'
import { refusal, type Refusal } from '../model/refusal.ts'
import { find, has, type Table } from '../model/table.ts'
import { family } from './family.ts'
import { isId } from './ids.ts'
import { isFrame, PLAIN, type Handler } from './kinds.ts'

const isText = (text: string, most: number) => text !== '' && text.length <= most

/** What is said of a stretch. */
export const sayings = family('saying', {
  facts: PLAIN,
  refuse(_document, { kind, about, from, to }: Saying) {
    if (!Object.hasOwn(SAYINGS, kind)) return refusal('bad-value', 'what is said')
    if (!isFrame(from) || !isFrame(to) || to <= from || to > LONGEST_SHOT_FRAMES) {
      return refusal('bad-value', 'frames of what is said')
    }
    const { least, most } = SAYINGS[kind]
    const fits = about.length >= least && about.length <= most && new Set(about).size === about.length
    return fits ? null : refusal('bad-value', 'what it is said of')
  },
})

const isPlace = ({ x, y }: { readonly x: number; readonly y: number }) =>
  Math.abs(x) <= LIMITS.remarkPx && Math.abs(y) <= LIMITS.remarkPx

function refuseSketch(sketch: Remark['sketch']): Refusal | null {
  if (sketch.length > LIMITS.sketchLines) return refusal('too-many', 'lines of a sketch')
  const isLine = (line: Remark['sketch'][number]) =>
    line.length > 0 && line.length <= LIMITS.pointsPerLine && line.every(isPlace)
  return sketch.every(isLine) ? null : refusal('bad-value', 'line of a sketch')
}

/** What is remarked on the shot. */
export const remarks = family('remark', {
  facts: PLAIN,
  refuse(_document, { by, name, frame, at, sketch, text, answers }: Remark) {
    if (!isId(by) || !isText(name, LIMITS.remarkerLength)) return refusal('bad-value', 'who remarks it')
    if (!isFrame(frame) || frame >= LONGEST_SHOT_FRAMES) return refusal('bad-value', 'frame of a remark')
    if (at !== null && !isPlace(at)) return refusal('bad-value', 'place of a remark')
    if (text === '' && sketch.length === 0) return refusal('bad-value', 'text of a remark')
    if (text.length > LIMITS.noteLength) return refusal('bad-value', 'text of a remark')
    if (answers.length > LIMITS.answers) return refusal('too-many', 'answers')
    const isAnswer = (one: Remark['answers'][number]) =>
      isId(one.by) && isText(one.name, LIMITS.remarkerLength) && isText(one.text, LIMITS.noteLength)
    return answers.every(isAnswer) ? refuseSketch(sketch) : refusal('bad-value', 'answer')
  },
})

/** Puts entries into a table, and takes those out that are null. */
function withEntries(table: Table<string>, entries: Table<string | null>): Table<string> {
  const all = { ...table, ...entries }
  return Object.fromEntries(Object.entries(all).filter((entry): entry is [string, string] => entry[1] !== null))
}

const looksOf = (document: ShotDocument, by: string): Table<string> => find(document.looked, by) ?? {}

/** Drawings that somebody has looked at closely, each by its fingerprint then. */
export const lookedSet: Handler<'looked.set'> = {
  facts: PLAIN,
  joins: ({ by, drawings }) => `${by} ${Object.keys(drawings).sort().join()}`,
  refuse(document, { by, drawings }) {
    if (!isId(by) || !Object.keys(drawings).every(isId)) return refusal('bad-value', 'who looked at what')
    if (!Object.values(drawings).every(print => print === null || isText(print, LIMITS.aboutLength))) {
      return refusal('bad-value', 'fingerprint of a drawing')
    }
    if (!has(document.looked, by) && Object.keys(document.looked).length >= LIMITS.lookers) {
      return refusal('too-many', 'accounts that looked')
    }
    const now = Object.keys(withEntries(looksOf(document, by), drawings)).length
    return now > LIMITS.drawings ? refusal('too-many', 'drawings looked at') : null
  },
  apply(document, { by, drawings }, bench) {
    const mine = withEntries(looksOf(document, by), drawings)
    const looked =
      Object.keys(mine).length > 0 ? bench.put(document.looked, by, mine) : bench.without(document.looked, [by])
    return bench.set(document, { looked })
  },
  invert(before, { by, drawings }) {
    const mine = looksOf(before, by)
    const was = Object.fromEntries(Object.keys(drawings).map(id => [id, find(mine, id) ?? null]))
    return [{ kind: 'looked.set', by, drawings: was }]
  },
}

/** At which value a check begins to speak in this shot; null: as it comes. */
export const thresholdSet: Handler<'threshold.set'> = {
  facts: PLAIN,
  joins: ({ name }) => name,
  refuse(document, { name, value }) {
    if (!isId(name)) return refusal('bad-value', 'threshold')
    if (value !== null && !(Math.abs(value) <= LIMITS.threshold)) return refusal('bad-value', 'value of a threshold')
    const isNew = value !== null && !has(document.thresholds, name)
    return isNew && Object.keys(document.thresholds).length >= LIMITS.thresholds
      ? refusal('too-many', 'thresholds')
      : null
  },
  apply(document, { name, value }, bench) {
    const { thresholds: was } = document
    return bench.set(document, {
      thresholds: value === null ? bench.without(was, [name]) : bench.put(was, name, value),
    })
  },
  invert: (before, { name }) => [{ kind: 'threshold.set', name, value: find(before.thresholds, name) ?? null }],
}
