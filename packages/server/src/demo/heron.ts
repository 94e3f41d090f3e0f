import { boilOrder } from '@unhurried/core/motion'
import { pngSize } from '@unhurried/core/assets'
import { currentTake, FIRST, picturesInTurn, type BroughtIn } from '@unhurried/core/document'
import { readFileSync } from 'node:fs'
import { Study, type StudyPaper, type Whole } from './study.ts'

const PAPER: StudyPaper = { width: 1280, height: 720, fps: 24, frames: 48, paper: '#fdfaf3' }

/** Photographed sheets as they were inked, one after the other from the first frame on, in an order. */
function photographed(name: string, count: number, hold: number, order: readonly number[]): Whole {
  const study = new Study(`heron-${name}`, PAPER, 'pencil')
  let made = 0
  const newId = () => `heron-${name}-${++made}`
  const all = Array.from({ length: count }, (_, i): BroughtIn => {
    const bytes = new Uint8Array(readFileSync(new URL(`./heron/${name}${i + 1}.png`, import.meta.url)))
    const size = pngSize(bytes)
    if (!size) throw new Error(`heron/${name}${i + 1}.png is no picture`)
    const id = newId()
    study.keep(id, bytes)
    return { id, ...size, was: size, frames: null }
  })
  const from = { layer: FIRST.drawn, frame: 0, holdFrames: hold, role: 'key' as const, order }
  const step = picturesInTurn(study.document, currentTake(study.document), from, all, 'stay', newId)
  if (!step.ok) throw new Error(`the heron cannot be laid: ${step.code}`)
  study.commit(`${count} photographed drawings`, step.ops)
  return study.whole
}

/** A pencil test: six punched sheets, registered by their holes, twice round on fours. */
export const heronLifts = (): Whole =>
  photographed(
    'lifts',
    6,
    4,
    Array.from({ length: 12 }, (_, i) => i % 6),
  )

/** The same drawing four times, laid on one another and held a sixth of a second each, never twice running. */
export const heronShivers = (): Whole => photographed('shivers', 4, 4, boilOrder(4, 12, 3))
