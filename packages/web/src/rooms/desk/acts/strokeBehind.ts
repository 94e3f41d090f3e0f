import { lineOver, type Drawing, type Operation } from '@unhurried/core/document'
import { distance, type Point } from '@unhurried/core/geometry'
import { counted } from '@unhurried/core/time'
import { cutBehind } from '../../../strokes/edits.ts'
import { useKit } from '../../../stores/kit.ts'
import { useShot } from '../../../stores/shot.ts'
import type { Gathering } from './gathering.ts'

/** A line whose ends lie nearer to one another, px, goes round something. */
const CLOSED_PX = 12

/** Lines that run on behind what is gathered are cut there, on every drawing that changes go through. */
export function strokeBehind({ gathered }: Gathering) {
  const shot = useShot()
  const kit = useKit()

  /** The drawings whose lines may lie behind parts of a drawing: it, and where it is paint the lines it goes along with. */
  function linesWith(drawing: Drawing): Drawing[] {
    const over = shot.document && lineOver(shot.document, drawing)
    return over ? [drawing, over] : [drawing]
  }

  /** Painted parts and closed lines among what is gathered, as polygons. */
  const partsOf = (elements: ReturnType<typeof gathered>[number]['elements']): Point[][] =>
    elements.flatMap(element => {
      const placed = element.kind === 'picture' ? null : shot.book.placed(element)
      if (!placed || placed.samples.length < 3) return []
      const [first, last] = [placed.samples[0] as Point, placed.samples[placed.samples.length - 1] as Point]
      return element.kind === 'shape' || distance(first, last) < CLOSED_PX ? [[...placed.samples]] : []
    })

  /** What would be cut; null where nothing gathered could lie before anything. */
  function behind() {
    const all = gathered().map(({ drawing, elements }) => ({ drawing, parts: partsOf(elements) }))
    const fronts = all.filter(({ parts }) => parts.length > 0)
    if (fronts.length === 0) return null
    const cuts = fronts.flatMap(({ drawing, parts }) =>
      linesWith(drawing).map(lines => cutBehind(lines, shot.book, parts, kit.gathered)),
    )
    const touched = cuts.filter(cut => cut.lines > 0)
    const lines = touched.reduce((sum, cut) => sum + cut.lines, 0)
    return {
      lines,
      drawings: touched.length,
      ops: touched.flatMap((cut): Operation[] => cut.ops),
      samples: new Map(touched.flatMap(cut => [...cut.samples])),
    }
  }

  return {
    behind,
    cutBehind(): void {
      const found = behind()
      if (found && found.lines > 0)
        shot.commit(`cut ${counted(found.lines, 'line')} behind what is gathered`, found.ops, {
          samples: found.samples,
        })
    },
  }
}
