import { DOCUMENT_SCHEMA, layDownAgain, assetIds, type Drawing } from '@unhurried/core/document'
import { readSetAside } from '@unhurried/contract'
import { defineStore } from 'pinia'
import { fileOf, samplesOf } from '../strokes/setAside.ts'
import type { Parked } from '../local/database.ts'
import { oneLine } from '../words/oneLine.ts'
import { refusedInWords } from '../words/refusals.ts'
import { newId } from '../local/ids.ts'
import { useShot } from './shot.ts'

/** What the server did not take of the shot on the desk, and what can be done with it. */
export const useSetAside = defineStore('set aside', () => {
  const shot = useShot()

  /** Lays something down again: as it was, or its strokes on the drawing in the hand. Answers in one line what was done. */
  async function layDown(parked: Parked, drawing: Drawing | null): Promise<{ done: boolean; words: string }> {
    const { document } = shot
    if (!document || !shot.mayDraw) return { done: false, words: 'You may look at this shot, not draw on it.' }
    const laid = layDownAgain(document, parked.batch, drawing, id => parked.samples.has(id), newId)
    const { label } = parked.batch
    if (!laid.ok) return { done: false, words: `“${label}” cannot be laid down: ${refusedInWords(laid.refusal)}.` }
    const samples = new Map([...laid.renamed].map(([old, fresh]) => [fresh, parked.samples.get(old) as Uint8Array]))
    if (shot.commit(oneLine(`again: ${label}`), laid.ops, { samples })) return { done: false, words: '' }
    await shot.unpark(parked.key)
    const where = laid.how === 'as-it-was' ? 'as it was' : `on drawing ${drawing?.number ?? ''}, as strokes`
    return { done: true, words: `“${label}” is laid down ${where}.` }
  }

  /** Saves something as a file that can be opened here again. */
  function save(parked: Parked): void {
    const url = URL.createObjectURL(new Blob([fileOf(parked, DOCUMENT_SCHEMA)], { type: 'application/json' }))
    const link = Object.assign(document.createElement('a'), {
      href: url,
      download: `${nameFor(parked)}.set-aside.json`,
    })
    link.click()
    setTimeout(() => URL.revokeObjectURL(url), 60_000)
  }

  /** Opens such a file: what is in it lies set aside then. Answers with what is wrong, or nothing. */
  async function open(file: File): Promise<string> {
    const reading = readSetAside(await file.text(), newId())
    if (!reading.ok) return `${file.name} cannot be opened: ${reading.words}.`
    const { batch, file: read } = reading
    const samples = samplesOf(read)
    const missing = assetIds(batch.ops).filter(id => !samples.has(id) && !shot.strokeBytes(id))
    if (missing.length) return `${file.name} cannot be opened: the samples of ${missing.length} strokes are not in it.`
    await shot.setAside([{ batch, code: read.code, what: read.what }], id => samples.get(id) ?? shot.strokeBytes(id))
    return ''
  }

  return {
    layDown,
    save,
    open,
    letGo: (parked: Parked) => shot.unpark(parked.key),
    takeBack: ({ batch, code, what, samples }: Parked) => shot.setAside([{ batch, code, what }], id => samples.get(id)),
  }
})

const nameFor = ({ batch }: Parked) =>
  batch.label
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40) || 'change'
