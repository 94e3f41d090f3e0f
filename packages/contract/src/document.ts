import { DOCUMENT_SCHEMA, LIMITS, type ShotDocument as CoreDocument } from '@unhurried/core/document'
import { z } from 'zod'
import { Chart } from './charts.ts'
import * as p from './pieces.ts'

export const ShotDocument = z
  .strictObject({
    schema: z.literal(DOCUMENT_SCHEMA),
    format: p.Format,
    layers: p.tableOf(p.Layer, LIMITS.layers),
    drawings: p.tableOf(p.Drawing, LIMITS.drawings),
    charts: p.tableOf(Chart, LIMITS.charts),
    takes: p.tableOf(p.Take, LIMITS.takes),
    current: p.Id,
    swatches: p.tableOf(p.Swatch, LIMITS.swatches),
    marks: p.tableOf(p.Mark, LIMITS.marks),
    beats: p.tableOf(p.Beat, LIMITS.beats),
    notes: p.tableOf(p.Note, LIMITS.notes),
    accepted: p.tableOf(p.Accepted, LIMITS.accepted),
    sayings: p.tableOf(p.Saying, LIMITS.sayings),
    remarks: p.tableOf(p.Remark, LIMITS.remarks),
    looked: p.tableOf(p.tableOf(p.AboutText, LIMITS.drawings), LIMITS.lookers),
    thresholds: p.tableOf(p.Threshold, LIMITS.thresholds),
    guides: p.tableOf(p.Guide, LIMITS.guides),
    sounds: p.tableOf(p.Sound, LIMITS.sounds),
    words: p.tableOf(p.SpokenWord, LIMITS.words),
    clips: p.tableOf(p.Clip, LIMITS.clips),
    points: p.tableOf(p.ClipPoint, LIMITS.points),
    way: p.Way,
    exposure: p.Exposure,
    scale: p.Scale,
    ceiling: p.Ceiling,
    study: p.Source,
    cuts: p.Cuts,
  })
  .readonly()

type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never
export const DOCUMENT_AGREES: Same<z.infer<typeof ShotDocument>, CoreDocument> = true
