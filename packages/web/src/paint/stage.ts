import { columnOf, laidOn, layersInOrder, type Drawing, type ShotDocument, type Take } from '@unhurried/core/document'
import { scaleOf, type Matrix } from '@unhurried/core/geometry'
import { drawingAt } from '@unhurried/core/time'
import { drawnIn, SILHOUETTE, type BitmapShelf, type Look } from './bitmaps.ts'
import type { Colours } from './colours.ts'
import { layDown } from './laid.ts'
import { colouredBy, lookOf, type Looks } from './looks.ts'
import type { Brush } from './nibs.ts'
import type { Size } from './view.ts'

/** What is to be seen on the paper. */
export interface Scene {
  readonly document: ShotDocument
  readonly take: Take
  readonly frame: number
  /** the layer being drawn on; only its drawing is the present one */
  readonly layer: string
  /** shown in place of the present drawing, while flipping */
  readonly instead: Drawing | null
  /** pictures of clips that lie under the paper, lowest first */
  readonly under: readonly UnderPaper[]
  /** drawings that show through, the nearest last */
  readonly ghosts: readonly SceneGhost[]
  /** shown-through drawings laid elsewhere */
  readonly shifts: ReadonlyMap<string, Matrix>
  /** layers dimmed, tinted or hidden for looking */
  readonly looks: Looks
  /** drawn layers are seen as shapes without anything inside */
  readonly silhouettes: boolean
  /** another drawing, seen left of `x` (screen pixels) instead of the present one */
  readonly wiped: { readonly drawing: Drawing; readonly x: number } | null
  /** what strokes are painted in */
  readonly colours: Colours
  /** strokes of the present drawing that are being moved or rubbed out and not painted with it */
  readonly lifted: ReadonlySet<string>
}

/** A picture that lies under the paper, from its pixels to those of the paper, with so much paper over it (0–1). */
export interface UnderPaper {
  readonly bitmap: ImageBitmap
  readonly matrix: Matrix
  readonly wash: number
}

/** A drawing that shows through. */
export interface SceneGhost {
  readonly drawing: Drawing
  /** frame whose place of its layer it is seen in, from 0 */
  readonly frame: number
  readonly look: Look
  /** 0–1 */
  readonly opacity: number
}

/** The canvases of the paper, lowest first. */
export interface Sheets {
  readonly ground: HTMLCanvasElement
  readonly table: HTMLCanvasElement
  readonly present: HTMLCanvasElement
}

/** Paints scenes onto the canvases of the paper. Every canvas is only touched when its own part of the scene changes. */
export function makeStage(sheets: Sheets, bitmaps: BitmapShelf) {
  const brushes = {
    ground: brushOf(sheets.ground),
    table: brushOf(sheets.table),
    present: brushOf(sheets.present),
  }
  const seen = { ground: '', table: '', present: '' }
  const names = new WeakMap<object, number>()
  let named = 0
  const nameOf = (thing: object | null): number => {
    if (!thing) return 0
    const name = names.get(thing) ?? ++named
    names.set(thing, name)
    return name
  }

  function ready(which: keyof Sheets, signature: string): Brush | null {
    if (seen[which] === signature) return null
    seen[which] = signature
    const { canvas } = brushes[which]
    brushes[which].setTransform(1, 0, 0, 1, 0, 0)
    brushes[which].clearRect(0, 0, canvas.width, canvas.height)
    return brushes[which]
  }

  /** Paints what has changed since the last time. `matrix` maps paper pixels to screen pixels, `density` screen to canvas. */
  function paint(scene: Scene, matrix: Matrix, density: number, screen: Size): void {
    for (const canvas of Object.values(sheets)) fitCanvas(canvas, screen, density)
    const m = matrix.map(v => v * density) as unknown as Matrix
    const scale = scaleOf(m)
    const where = `${m.join(' ')} ${screen.width}×${screen.height} ${bitmaps.painted.value}`
    const below: Drawing[] = []
    const above: Drawing[] = []
    let passed = false
    for (const { id } of layersInOrder(scene.document)) {
      if (id === scene.layer) passed = true
      else {
        const drawing = shown(scene, id)
        if (drawing) (passed ? above : below).push(drawing)
      }
    }
    const { format } = scene.document
    const present = scene.instead ?? shown(scene, scene.layer)
    const mapsOf = (drawing: Drawing, frame: number) =>
      laidOn(scene.document, scene.take, drawing.layer, frame, () => bitmaps.boxOf(drawing))
    /** a drawing and where it lies, as a text */
    const lies = (drawing: Drawing | null, frame = scene.frame) =>
      drawing ? `${nameOf(drawing)} ${mapsOf(drawing, frame)?.join(' ') ?? ''}` : ''
    const colours = nameOf(scene.colours)
    const looks = `${nameOf(scene.looks)} ${scene.silhouettes}`
    const lay = (brush: Brush, drawing: Drawing) => {
      const { opacity, tint } = lookOf(scene.looks, drawing.layer)
      brush.globalAlpha = opacity
      const look = scene.silhouettes ? SILHOUETTE : drawnIn(colouredBy(scene.colours, tint))
      layDown(brush, m, mapsOf(drawing, scene.frame), () => bitmaps.draw(brush, drawing, look, scale))
      brush.globalAlpha = 1
    }

    const ground = ready(
      'ground',
      `${where} ${colours} ${looks} ${format.paper} ${format.width} ${scene.under.map(one => `${nameOf(one.bitmap)} ${one.matrix.join(' ')} ${one.wash}`).join()} ${below.map(one => lies(one)).join()}`,
    )
    if (ground) {
      layPaper(ground, m, format)
      clipToPaper(ground, format)
      for (const one of scene.under) layUnder(ground, m, one, format)
      for (const drawing of below) lay(ground, drawing)
      ground.restore()
    }
    const ghosts = scene.instead ? [] : scene.ghosts
    const through = ghosts.map(g => `${lies(g.drawing, g.frame)} ${paintOf(g.look)} ${g.opacity}`).join()
    const table = ready('table', `${where} ${nameOf(scene.shifts)} ${through}`)
    if (table) {
      for (const { drawing, frame, look, opacity } of ghosts) {
        table.globalAlpha = opacity
        const shift = scene.shifts.get(drawing.id)
        layDown(table, m, mapsOf(drawing, frame), () => {
          if (shift) table.transform(...shift)
          bitmaps.draw(table, drawing, look, scale)
        })
      }
      table.globalAlpha = 1
    }
    const lifted = [...scene.lifted].sort().join()
    const top = ready(
      'present',
      `${where} ${colours} ${looks} ${lies(present)} ${nameOf(scene.wiped?.drawing ?? null)} ${scene.wiped?.x} ${lifted} ${above.map(one => lies(one)).join()}`,
    )
    if (top) {
      top.setTransform(...m)
      const here = present && (scene.lifted.size ? withoutLifted(present, scene.lifted) : present)
      if (scene.wiped) wipe(top, m, scene.wiped, here, density, lay)
      else if (here) lay(top, here)
      for (const drawing of above) lay(top, drawing)
      top.setTransform(...m)
    }
  }

  return { paint }
}

export type Stage = ReturnType<typeof makeStage>

function brushOf(canvas: HTMLCanvasElement): CanvasRenderingContext2D {
  const brush = canvas.getContext('2d')
  if (!brush) throw new Error('This browser gives no canvas to draw on.')
  return brush
}

/** Gives a canvas the pixels of its place on the screen; setting a size empties it, so only when it differs. */
export function fitCanvas(canvas: HTMLCanvasElement, screen: Size, density: number): void {
  const [width, height] = [
    Math.max(1, Math.round(screen.width * density)),
    Math.max(1, Math.round(screen.height * density)),
  ]
  if (canvas.width !== width) canvas.width = width
  if (canvas.height !== height) canvas.height = height
}

const paintOf = (look: Look) => `${look.kind} ${look.kind === 'drawn' ? '' : look.colour}`

function shown(scene: Scene, layer: string): Drawing | null {
  if (lookOf(scene.looks, layer).hidden) return null
  const id = drawingAt(columnOf(scene.take, layer), scene.frame)
  return id === null ? null : (scene.document.drawings[id] ?? null)
}

function layPaper(brush: Brush, m: Matrix, { width, height, paper }: ShotDocument['format']): void {
  brush.setTransform(...m)
  brush.save()
  brush.shadowColor = 'rgba(90, 74, 48, 0.20)'
  brush.shadowBlur = 14
  brush.shadowOffsetY = 3
  brush.fillStyle = paper
  brush.fillRect(0, 0, width, height)
  brush.restore()
}

/** A picture under the paper, and the paper over it. */
function layUnder(
  brush: Brush,
  m: Matrix,
  { bitmap, matrix, wash }: UnderPaper,
  { width, height, paper }: ShotDocument['format'],
): void {
  brush.setTransform(...m)
  brush.transform(...matrix)
  brush.drawImage(bitmap, 0, 0)
  brush.setTransform(...m)
  brush.globalAlpha = wash
  brush.fillStyle = paper
  brush.fillRect(0, 0, width, height)
  brush.globalAlpha = 1
}

function clipToPaper(brush: Brush, { width, height }: ShotDocument['format']): void {
  brush.save()
  brush.beginPath()
  brush.rect(0, 0, width, height)
  brush.clip()
}

const WIPE_LINE = '#a44d24'

/** The other drawing to the left of a line, the present one to its right. */
function wipe(
  brush: Brush,
  m: Matrix,
  wiped: { readonly drawing: Drawing; readonly x: number },
  present: Drawing | null,
  density: number,
  lay: (brush: Brush, drawing: Drawing) => void,
): void {
  const { width, height } = brush.canvas
  const x = wiped.x * density
  const side = (left: number, right: number, drawing: Drawing | null) => {
    if (!drawing) return
    brush.save()
    brush.setTransform(1, 0, 0, 1, 0, 0)
    brush.beginPath()
    brush.rect(left, 0, right - left, height)
    brush.clip()
    brush.setTransform(...m)
    lay(brush, drawing)
    brush.restore()
  }
  side(0, x, wiped.drawing)
  side(x, width, present)
  brush.setTransform(1, 0, 0, 1, 0, 0)
  brush.fillStyle = WIPE_LINE
  brush.fillRect(x - 0.5, 0, 1, height)
  brush.setTransform(...m)
}

const partial = new WeakMap<Drawing, { key: string; drawing: Drawing }>()

/** The drawing without some strokes, the same value as long as they are the same, so that it stays painted. */
function withoutLifted(drawing: Drawing, lifted: ReadonlySet<string>): Drawing {
  const key = [...lifted].sort().join()
  const known = partial.get(drawing)
  if (known?.key === key) return known.drawing
  const elements = Object.fromEntries(Object.entries(drawing.elements).filter(([id]) => !lifted.has(id)))
  const rest = { ...drawing, elements }
  partial.set(drawing, { key, drawing: rest })
  return rest
}
