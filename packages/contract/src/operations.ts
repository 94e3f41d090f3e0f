import { LIMITS, type Batch as CoreBatch, type Operation as CoreOperation } from '@unhurried/core/document'
import { z } from 'zod'
import { Chart, Ticks } from './charts.ts'
import * as p from './pieces.ts'

/** The most operations in one batch and elements in one operation: all drawings of a long shot can be changed in one step. */
export const MOST_OPERATIONS = 2500
const MOST_ELEMENTS = 5000

const ElementPatch = z
  .strictObject({
    matrix: p.Matrix.nullable(),
    swatch: p.Id,
    width: p.LineWidth,
    nib: p.Nib,
    label: p.StrokeLabel.nullable(),
    z: z.number().min(-1e9).max(1e9),
    opacity: p.Opacity,
    cut: p.Cut.nullable(),
    placeholder: z.boolean(),
  })
  .partial()
  .readonly()

const Changes = z
  .array(z.strictObject({ id: p.Id, patch: ElementPatch }).readonly())
  .min(1)
  .max(MOST_ELEMENTS)
  .readonly()

const patch = <S extends z.ZodRawShape>(shape: S) => z.strictObject(shape).partial().readonly()
const Named = patch({ name: p.Name, order: z.number() })
const SoundPatch = p.Sound.unwrap().omit({ id: true, media: true, seconds: true }).partial().readonly()
const ClipPatch = p.Clip.unwrap()
  .omit({ id: true, media: true, seconds: true, widthPx: true, heightPx: true })
  .partial()
  .readonly()
const WordPatch = p.SpokenWord.unwrap().omit({ id: true }).partial().readonly()
const LayerPatch = p.Layer.unwrap().omit({ id: true }).partial().readonly()
const CyclePatch = patch({ from: p.Frame, to: p.FrameCount.nullable(), offset: p.Frame, pattern: p.Runs })

const ids = z.array(p.Id).min(1).max(MOST_ELEMENTS).readonly()
const op = <K extends CoreOperation['kind'], S extends z.ZodRawShape>(kind: K, shape: S) =>
  z.strictObject({ kind: z.literal(kind), ...shape }).readonly()

export const Operation = z.discriminatedUnion('kind', [
  op('format.set', { patch: p.Format.unwrap().partial().readonly() }),
  op('layer.add', { layer: p.Layer }),
  op('layer.set', { id: p.Id, patch: LayerPatch }),
  op('layer.remove', { id: p.Id }),
  op('drawing.add', { drawing: p.Drawing }),
  op('drawing.set', { id: p.Id, patch: z.strictObject({ number: p.SheetNumber, role: p.Role }).partial().readonly() }),
  op('drawing.remove', { id: p.Id }),
  op('elements.add', { drawing: p.Id, elements: z.array(p.Element).min(1).max(MOST_ELEMENTS).readonly() }),
  op('elements.set', { drawing: p.Id, changes: Changes }),
  op('elements.remove', { drawing: p.Id, ids }),
  op('chart.add', { chart: Chart }),
  op('chart.set', { id: p.Id, patch: z.strictObject({ wish: p.Wish, ticks: Ticks }).partial().readonly() }),
  op('chart.remove', { id: p.Id }),
  op('exposure.write', { take: p.Id, layer: p.Id, from: p.Frame, runs: p.Runs }),
  op('frames.insert', { take: p.Id, at: p.Frame, count: p.FrameCount, fill: p.tableOf(p.Runs, 40) }),
  op('frames.remove', { take: p.Id, at: p.Frame, count: p.FrameCount }),
  op('loop.set', { take: p.Id, loop: p.Loop }),
  op('shot.set', {
    patch: patch({
      way: p.Way,
      current: p.Id,
      exposure: p.Exposure,
      scale: p.Scale,
      ceiling: p.Ceiling,
      study: p.Source,
      cuts: p.Cuts,
    }),
  }),
  op('cycle.add', { take: p.Id, cycle: p.Cycle }),
  op('cycle.set', { take: p.Id, id: p.Id, patch: CyclePatch }),
  op('cycle.remove', { take: p.Id, id: p.Id }),
  op('take.add', { take: p.Take }),
  op('take.set', { id: p.Id, patch: patch({ name: p.Name, order: z.number(), open: z.boolean() }) }),
  op('take.remove', { id: p.Id }),
  op('swatch.add', { swatch: p.Swatch }),
  op('swatch.set', { id: p.Id, patch: patch({ name: p.Name, colour: p.Colour, order: z.number() }) }),
  op('swatch.remove', { id: p.Id }),
  op('mark.add', { mark: p.Mark }),
  op('mark.set', { id: p.Id, patch: Named }),
  op('mark.remove', { id: p.Id }),
  op('marks.place', { drawing: p.Id, places: p.tableOf(p.Place.nullable(), 200) }),
  op('beat.add', { beat: p.Beat }),
  op('beat.set', { id: p.Id, patch: patch({ name: p.Name, frame: p.Frame }) }),
  op('beat.remove', { id: p.Id }),
  op('pin.set', { take: p.Id, drawing: p.Id, beat: p.Id.nullable() }),
  op('path.set', { take: p.Id, layer: p.Id, path: p.LayerPath.nullable() }),
  op('note.add', { note: p.Note }),
  op('note.set', { id: p.Id, patch: patch({ from: p.Frame, to: p.FrameCount, text: p.NoteText }) }),
  op('note.remove', { id: p.Id }),
  op('accepted.add', { accepted: p.Accepted }),
  op('accepted.set', { id: p.Id, patch: patch({ about: p.AboutText, print: p.AboutText, reason: p.Reason }) }),
  op('accepted.remove', { id: p.Id }),
  op('saying.add', { saying: p.Saying }),
  op('saying.set', { id: p.Id, patch: patch({ from: p.Frame, to: p.FrameCount }) }),
  op('saying.remove', { id: p.Id }),
  op('remark.add', { remark: p.Remark }),
  op('remark.set', {
    id: p.Id,
    patch: p.Remark.unwrap().omit({ id: true, by: true, name: true }).partial().readonly(),
  }),
  op('remark.remove', { id: p.Id }),
  op('looked.set', { by: p.Id, drawings: p.tableOf(p.AboutText.nullable(), LIMITS.drawings) }),
  op('threshold.set', { name: p.Id, value: p.Threshold.nullable() }),
  op('guide.add', { guide: p.Guide }),
  op('guide.set', {
    id: p.Id,
    patch: patch({
      numbers: p.GuideNumbers,
      from: p.Frame,
      shown: z.boolean(),
      dimmed: z.boolean(),
      locked: z.boolean(),
      laid: p.Laid,
    }),
  }),
  op('guide.remove', { id: p.Id }),
  op('sound.add', { sound: p.Sound }),
  op('sound.set', { id: p.Id, patch: SoundPatch }),
  op('sound.remove', { id: p.Id }),
  op('clip.add', { clip: p.Clip }),
  op('clip.set', { id: p.Id, patch: ClipPatch }),
  op('clip.remove', { id: p.Id }),
  op('point.add', { point: p.ClipPoint }),
  op('point.set', { id: p.Id, patch: patch({ name: p.Name, order: z.number(), places: p.SeenPlaces }) }),
  op('point.remove', { id: p.Id }),
  op('word.add', { word: p.SpokenWord }),
  op('word.set', { id: p.Id, patch: WordPatch }),
  op('word.remove', { id: p.Id }),
])

export const Batch = z
  .strictObject({
    id: p.Id,
    label: p.Name,
    ops: z.array(Operation).min(1).max(MOST_OPERATIONS).readonly(),
  })
  .readonly()

type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never

/** The schemas and core's types describe the same values; a difference does not compile. */
export const OPERATION_AGREES: Same<z.infer<typeof Operation>, CoreOperation> = true
export const BATCH_AGREES: Same<z.infer<typeof Batch>, CoreBatch> = true
