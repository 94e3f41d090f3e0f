import {
  broughtLine,
  broughtShape,
  LIMITS,
  picturesInTurn,
  swatchesFor,
  topZ,
  type Drawing,
  type Manner,
  type Operation,
  type Stroke,
} from '@unhurried/core/document'
import { counted } from '@unhurried/core/time'
import { newId } from '../../../local/ids.ts'
import { readDrawnText, TooMuchDrawn } from '../../../pictures/drawnText.ts'
import type { Brought } from '../../../protocols/bring.ts'
import type { DrawnPiece, DrawnProtocol } from '../../../protocols/drawn.ts'
import { useAsking, type Choice } from '../../../stores/asking.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { useShot } from '../../../stores/shot.ts'
import { inWorker, Unanswered } from '../../../workers/once.ts'

const DEADLINE_MS = 30_000
/** Colours that one drawn text brings to the palette; what has more takes the nearest. */
const MOST_COLOURS = 48

const tracer = () => new Worker(new URL('../../../workers/drawn.worker.ts', import.meta.url), { type: 'module' })

/** What a drawn text becomes as strokes and shapes, ready to be laid. */
interface Traced {
  readonly colours: Operation[]
  readonly samples: ReadonlyMap<string, Uint8Array>
  readonly leftOut: number
  elements(above: number): Stroke[]
}

/** Drawn texts (SVG) as strokes and painted shapes, which are drawn on, recoloured, cut and measured like any other. */
export function useDrawn() {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const asking = useAsking()

  function asDrawn(pictures: readonly Brought[]): Choice[] {
    const [first] = pictures
    if (pictures.length !== 1 || first?.text === undefined) return []
    const { text, name } = first
    const { drawing } = desk
    const onto: Choice[] =
      drawing && desk.mayEdit
        ? [{ words: `as strokes and shapes on ${drawing.number}`, take: () => void lay(name, text, drawing) }]
        : []
    const own: Choice[] =
      desk.mayEdit && desk.timedLayer === desk.layerId
        ? [{ words: 'as strokes and shapes, a drawing of its own here', take: () => void lay(name, text, null) }]
        : []
    return [...onto, ...own]
  }

  /** Reads and lays it, on a drawing or as one of its own; says why where it cannot be. */
  async function lay(name: string, text: string, drawing: Drawing | null): Promise<void> {
    const { id } = shot
    asking.drop()
    asking.tell(`making strokes and shapes of ${name} …`)
    const traced = await trace(text).catch((error: unknown) => {
      asking.tell('nothing was brought in')
      shot.notice = `“${name}” ${whyNot(error)}`
      return null
    })
    if (!traced || shot.id !== id) return
    if (drawing) onto(name, traced, drawing)
    else inTurn(name, traced)
    if (traced.leftOut > 0) {
      shot.notice = `${counted(traced.leftOut, 'thing')} of “${name}” ${traced.leftOut === 1 ? 'is' : 'are'} left out: letters, pictures and patterns are no strokes. As a picture it is whole.`
    }
  }

  async function trace(text: string): Promise<Traced> {
    const { document } = shot
    if (!document) throw new Error('no shot')
    const { paths, leftOut } = readDrawnText(text, document.format)
    const pieces = await inWorker<DrawnProtocol, DrawnPiece[]>(tracer(), DEADLINE_MS, async remote =>
      remote.pieces(paths),
    )
    if (pieces.length === 0) throw new NothingDrawn()
    if (pieces.length > LIMITS.elementsPerDrawing) throw new TooMuchDrawn()
    const { ops, swatchOf } = swatchesFor(
      document,
      pieces.map(piece => piece.colour),
      MOST_COLOURS,
      newId,
    )
    const samples = new Map(pieces.map(piece => [newId(), piece.samples]))
    const stored = [...samples.keys()]
    return {
      colours: ops,
      samples,
      leftOut,
      elements: above =>
        pieces.map(({ kind, colour, widthPx }, i) => {
          const what = [newId(), stored[i] as string, swatchOf.get(colour) as string, above + i] as const
          return kind === 'shape' ? broughtShape(...what) : broughtLine(...what, widthPx)
        }),
    }
  }

  function onto(name: string, { colours, samples, elements }: Traced, { id, number }: Drawing): void {
    const drawing = shot.document?.drawings[id]
    if (!drawing) return
    const made = elements(topZ(drawing))
    const ops: Operation[] = [...colours, { kind: 'elements.add', drawing: id, elements: made }]
    // What hinders it is told by whoever refuses it.
    if (shot.commit(`${name} on ${number}`, ops, { samples })) return
    asking.tell(`${counted(made.length, 'stroke or shape', 'strokes and shapes')} on ${number}`)
    kit.tool = 'gather'
    kit.gather(made.map(element => element.id))
  }

  function inTurn(name: string, { colours, samples, elements }: Traced): void {
    const { document, take } = shot
    if (!document || !take) return
    const from = { layer: desk.layerId, frame: desk.frame, holdFrames: desk.holdHere, role: desk.roleOfNew() }
    const all = [{ elements: elements(0), frames: null }]
    const attempt = (manner: Manner) => {
      const step = picturesInTurn(document, take, from, all, manner, newId)
      return step.ok ? { ...step, ops: [...colours, ...step.ops] } : step
    }
    asking.act({ label: name, attempt, more: { samples } })
  }

  return { asDrawn }
}

/** Nothing of it can be a stroke or a shape. */
class NothingDrawn extends Error {}

function whyNot(error: unknown): string {
  if (error instanceof TooMuchDrawn)
    return `has more in it than a drawing holds: ${LIMITS.elementsPerDrawing} strokes and shapes. As a picture it can be laid.`
  if (error instanceof NothingDrawn)
    return 'has nothing in it that can be a stroke or a shape. As a picture it can be laid.'
  if (error instanceof Unanswered && error.why === 'too-long')
    return 'takes too long to be made into strokes. As a picture it can be laid.'
  return 'cannot be read as strokes and shapes. As a picture it can be laid.'
}
