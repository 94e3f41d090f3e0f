import {
  alikeIn,
  get,
  has,
  isStroke,
  kindOf,
  layerIntoDrawings,
  partToLayer,
  sheetsUnder,
  swatchOf,
  type Element,
  type Operation,
  type PartWish,
  type Stroke,
  type Swatch,
} from '@unhurried/core/document'
import {
  after,
  centreOf,
  EMPTY_BOX,
  grown,
  isEmptyBox,
  joined,
  reflection,
  rotation,
  scaling,
  smoothed,
  translation,
  unite,
  type Box,
  type Matrix,
  type Nib,
  type Point,
} from '@unhurried/core/geometry'
import { packSamples } from '@unhurried/core/geometry'
import { shallowRef } from 'vue'
import { reshapeEdit } from '../../../strokes/edits.ts'
import { addedCopies, gatheredEdit, type Change } from '../../../strokes/gathered.ts'
import { useAsking } from '../../../stores/asking.ts'
import { useDesk } from '../../../stores/desk.ts'
import { useKit } from '../../../stores/kit.ts'
import { newId } from '../../../local/ids.ts'
import { useShot } from '../../../stores/shot.ts'

/** Strokes taken along, with all that makes them whole in another shot. */
interface StrokeClip {
  readonly shot: string
  readonly elements: readonly Element[]
  readonly swatches: readonly Swatch[]
  readonly samples: ReadonlyMap<string, Uint8Array>
}

/** What strokes are mirrored across: an upright or a level line, or one at so many degrees, rising to the right as seen. */
type Axis = 'upright' | 'level' | number

/** What was copied last; null when it was frames of the sheet. */
const clip = shallowRef<StrokeClip | null>(null)
/** the tool in the hand before all was gathered at once */
let toolBefore: string | null = null
export const forgetStrokes = () => (clip.value = null)

/** What can be done with gathered strokes, in every drawing that changes go through. */
export function useStrokeActs() {
  const shot = useShot()
  const desk = useDesk()
  const kit = useKit()
  const asking = useAsking()

  /** Gathered strokes by the drawing they lie on. */
  const gathered = () =>
    kit.changed.map(drawing => ({
      drawing,
      elements: Object.values(drawing.elements).filter(element => kit.gathered.has(element.id)),
    }))

  function box(): Box {
    return [...kit.gathered].reduce<Box>((all, id) => {
      const element = desk.drawing?.elements[id]
      const stroke = element && shot.book.placed(element)
      return stroke ? unite(all, stroke.box) : all
    }, EMPTY_BOX)
  }
  function pivot(): Point {
    const around = box()
    return kit.pivot ?? (isEmptyBox(around) ? { x: 0, y: 0 } : centreOf(around))
  }

  function rename(renamed: ReadonlyMap<string, string>): void {
    if (renamed.size) kit.gathered = new Set([...kit.gathered].map(id => renamed.get(id) ?? id))
  }

  /** Moves, scales, turns, skews, mirrors or bends what is gathered. */
  function change(label: string, how: Change, joins = false): boolean {
    if (!desk.mayEdit) return false
    const { document } = shot
    if (!document) return false
    const edit = gatheredEdit(kit.changed, shot.book, kit.gathered, how, line => sheetsUnder(document, line))
    if (shot.commit(`${label} ${kit.changedWords}`, edit.ops, { samples: edit.samples, joins })) return false
    rename(edit.renamed)
    return true
  }
  const mapBy = (label: string, by: Matrix) => change(label, { kind: 'map', by })

  function nudge(dx: number, dy: number): void {
    const done = change('nudge', { kind: 'map', by: translation(dx, dy) }, true)
    if (done) kit.nudged = { x: kit.nudged.x + dx, y: kit.nudged.y + dy }
  }

  /** Typed numbers: pixels, per cent, degrees (clockwise), in this order and about the pivot. */
  function byNumbers(n: { dx: number; dy: number; width: number; height: number; turn: number; skew: number }): void {
    const about = pivot()
    const skew = Math.tan((n.skew * Math.PI) / 180)
    const skewed: Matrix = [1, 0, -skew, 1, skew * about.y, 0]
    const scaled = after(scaling(n.width / 100, n.height / 100, about), skewed)
    const turned = after(scaled, rotation((n.turn * Math.PI) / 180, about))
    mapBy('by numbers', after(turned, translation(n.dx, n.dy)))
  }

  function mirrorMap(axis: Axis): Matrix {
    if (axis === 'upright') return scaling(-1, 1, pivot())
    return axis === 'level' ? scaling(1, -1, pivot()) : reflection((-axis * Math.PI) / 180, pivot())
  }

  function set(
    label: string,
    patchOf: (stroke: Stroke) => Partial<Pick<Stroke, 'swatch' | 'width' | 'nib' | 'label'>>,
  ) {
    const ops = gathered().flatMap(({ drawing, elements }): Operation[] => {
      const changes = elements.filter(isStroke).map(stroke => ({ id: stroke.id, patch: patchOf(stroke) }))
      return changes.length ? [{ kind: 'elements.set', drawing: drawing.id, changes }] : []
    })
    if (ops.length) shot.commit(`${label} ${kit.changedWords}`, ops)
  }

  /** The drawings of the layer on which the same strokes lie. */
  const alike = () => {
    const { document } = shot
    const here = desk.drawing
    return document && here && kit.gathered.size ? alikeIn(document, here.id, [...kit.gathered]) : null
  }

  /** Gives what is gathered a layer of its own, through all drawings where it is alike. */
  function toLayer(wish: PartWish): void {
    const { document } = shot
    const here = desk.drawing
    const touched = alike()
    if (!document || !here || !touched || !desk.mayEdit) return
    const before = new Set(Object.keys(document.layers))
    // Paint that lies within the part, and marks on it, go along.
    const around = grown(box(), 3)
    const within = (b: Box) =>
      b.left >= around.left && b.right <= around.right && b.top >= around.top && b.bottom <= around.bottom
    const paint = sheetsUnder(document, here).flatMap(sheet => {
      const elements = Object.values(sheet.elements).filter(element => {
        const stroke = shot.book.placed(element)
        return stroke !== null && within(stroke.box)
      })
      return elements.length ? [{ sheet: sheet.id, elements: elements.map(element => element.id) }] : []
    })
    const marks = Object.entries(here.marks)
      .filter(([, { x, y }]) => within({ left: x, right: x, top: y, bottom: y }))
      .map(([id]) => id)
    const ops = partToLayer(document, here.id, [...kit.gathered], { ...wish, paint, marks }, newId)
    if (shot.commit(`${wish.name} to a layer of its own`, ops)) return
    const fresh = Object.keys(shot.document?.layers ?? {}).find(id => !before.has(id))
    const where = touched.size === 1 ? `${here.number}` : `${touched.size} drawings`
    asking.tell(`${wish.name} has a layer of its own, ${wish.timing}: taken from ${where}`)
    if (fresh) desk.layerId = fresh
    backToTool()
  }

  /** Puts what the layer in the hand shows into the drawings of another layer; the layer goes. */
  function intoDrawings(layer: string): void {
    const { document, take } = shot
    const part = desk.layer
    if (!document || !take || !part) return
    const ops = layerIntoDrawings(document, take, part.id, layer, newId)
    if (!ops) {
      shot.notice = 'A layer with charts, marks, linked cycles or paint tied to it stays a layer.'
      return
    }
    const name = document.layers[layer]?.name ?? ''
    if (shot.commit(`${part.name} into the drawings of ${name}`, ops)) return
    desk.layerId = layer
    asking.tell(`${part.name} lies in the drawings of ${name} again`)
  }

  function smooth(): void {
    const edits = kit.changed.map(drawing =>
      reshapeEdit(drawing, shot.book, kit.gathered, samples => smoothed(samples)),
    )
    const samples = new Map(edits.flatMap(edit => [...edit.samples]))
    const ops = edits.flatMap(edit => edit.ops)
    if (!shot.commit(`smooth ${kit.changedWords}`, ops, { samples }))
      rename(new Map(edits.flatMap(edit => [...edit.renamed])))
  }

  const lines = () =>
    gathered()[0]
      ?.elements.filter(isStroke)
      .filter(stroke => stroke.kind === 'line') ?? []

  /** Joins the gathered lines of the present drawing into one, one after the other at their nearest ends. */
  function join(): void {
    const { drawing } = desk
    const all = lines()
    const placed = all.flatMap(element => shot.book.placed(element) ?? [])
    const [first] = all
    if (!drawing || !first || placed.length < 2) return
    const samples = placed.slice(1).reduce((path, stroke) => joined(path, stroke.samples), placed[0]!.samples)
    const [id, sampleId] = [newId(), newId()]
    const whole = { ...first, id, samples: sampleId, part: null, matrix: null, width: placed[0]!.width }
    const ops: Operation[] = [
      { kind: 'elements.remove', drawing: drawing.id, ids: all.map(element => element.id) },
      { kind: 'elements.add', drawing: drawing.id, elements: [whole] },
    ]
    if (
      !shot.commit(`join ${all.length} lines on ${drawing.number}`, ops, {
        samples: new Map([[sampleId, packSamples(samples)]]),
      })
    )
      kit.gather([id])
  }

  function remove(): void {
    const ops = gathered().flatMap(({ drawing, elements }): Operation[] =>
      elements.length
        ? [{ kind: 'elements.remove', drawing: drawing.id, ids: elements.map(element => element.id) }]
        : [],
    )
    kit.gather([])
    if (ops.length) shot.commit(`take strokes off ${kit.changedWords}`, ops)
  }

  function copy(): boolean {
    const { document } = shot
    const here = gathered()[0]
    if (!document || !here?.elements.length) return false
    const swatches = [...new Set(here.elements.flatMap(e => swatchOf(e) ?? []))].map(id => get(document.swatches, id))
    const samples = new Map(
      here.elements.flatMap(e => {
        const { id } = kindOf(e).asset(e)
        const bytes = shot.strokeBytes(id)
        return bytes ? [[id, bytes] as const] : []
      }),
    )
    clip.value = { shot: shot.id, elements: here.elements, swatches, samples }
    return true
  }

  /** Pastes in place, on the present drawing or on all that changes go through. */
  function paste(): void {
    const { document } = shot
    const held = clip.value
    if (!document || !held || kit.changed.length === 0) return
    const missing = held.swatches.filter(swatch => !has(document.swatches, swatch.id))
    const added = kit.changed.map(drawing => addedCopies(drawing, held.elements, null))
    const ops: Operation[] = [
      ...missing.map((swatch): Operation => ({ kind: 'swatch.add', swatch })),
      ...added.flatMap(one => one.ops),
    ]
    const samples = held.shot === shot.id ? {} : { samples: held.samples }
    if (shot.commit(`paste strokes ${kit.changedWords}`, ops, samples)) return
    kit.tool = 'gather'
    kit.gather(added.flatMap(one => one.ids))
  }

  function duplicateMirrored(axis: Axis): void {
    const by = mirrorMap(axis)
    const added = gathered().map(({ drawing, elements }) => addedCopies(drawing, elements, by))
    if (
      !shot.commit(
        `mirrored copy ${kit.changedWords}`,
        added.flatMap(one => one.ops),
      )
    )
      kit.gather(added.flatMap(one => one.ids))
  }

  /** What was gathered at once with a key is let go of: the tool from before is in the hand again. */
  function backToTool(): void {
    if (toolBefore && kit.tool === 'gather') kit.tool = toolBefore
    toolBefore = null
  }

  return {
    backToTool,
    alike,
    toLayer,
    intoDrawings,
    box,
    pivot,
    change,
    mapBy,
    nudge,
    byNumbers,
    mirror: (axis: Axis) => mapBy('mirror', mirrorMap(axis)),
    duplicateMirrored,
    smooth,
    join,
    canJoin: () => lines().length > 1,
    remove,
    copy,
    paste,
    canPaste: () => clip.value !== null,
    recolour: () => set('colour', () => ({ swatch: kit.swatch })),
    reweight: (factor: number) =>
      set('line weight', element => ({ width: Math.max(0.5, Math.round(element.width * factor * 10) / 10) })),
    renib: (nib: Nib) => set('line of another pen', () => ({ nib })),
    relabel: (label: Stroke['label']) => set(label ? `label ${label}` : 'no label', () => ({ label })),
    gatherAll: () => {
      if (kit.tool !== 'gather') toolBefore = kit.tool
      kit.tool = 'gather'
      kit.gather(kit.changed.flatMap(drawing => Object.keys(drawing.elements)))
    },
  }
}

export type StrokeActs = ReturnType<typeof useStrokeActs>
