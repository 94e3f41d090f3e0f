import { EASES, MOST_CURVE_POINTS } from '@unhurried/core/chart'
import { FARTHEST_PX, MOST_SAMPLES, NIB_ENDS, NIB_LOOKS } from '@unhurried/core/geometry'
import {
  ID_FORM,
  LABELS,
  LAYER_KINDS,
  LIMITS,
  MARK_KINDS,
  ROLES,
  SAYINGS,
  VOLUMES,
  CUT_NAMES,
  WAYS,
  type SayingKind,
} from '@unhurried/core/document'
import { PATH_LIMITS, PATH_USES } from '@unhurried/core/path'
import { RECIPE_NAMES } from '@unhurried/core/motion'
import { LONGEST_SHOT_FRAMES } from '@unhurried/core/time'
import { z } from 'zod'

/** An id made by a desk: letters, digits, - and _, never starting with one of the last two. */
export const Id = z.string().regex(ID_FORM, 'must be an id of up to 40 letters, digits, - and _')

/** The id of a row made by the server. */
export const RowId = z.uuid()

export const Name = z
  .string()
  .trim()
  .min(1, 'must not be empty')
  .max(80, 'must be at most 80 characters')
  .regex(/^\P{Cc}*$/u, 'must not hold control characters')
export const Colour = z.string().regex(/^#[0-9a-f]{6}$/, 'must be a colour like #fdfaf3')
export const Frame = z.number().int().min(0).max(LONGEST_SHOT_FRAMES)
export const FrameCount = z.number().int().min(1).max(LONGEST_SHOT_FRAMES)

const Coordinate = z.number().min(-FARTHEST_PX).max(FARTHEST_PX)
const Factor = z.number().min(-10_000).max(10_000)
export const Matrix = z.tuple([Factor, Factor, Factor, Factor, Coordinate, Coordinate]).readonly()

export const Format = z
  .strictObject({
    width: z.number().int().min(1).max(LIMITS.sizePx),
    height: z.number().int().min(1).max(LIMITS.sizePx),
    fps: z.number().int().min(1).max(LIMITS.fps),
    paper: Colour,
  })
  .readonly()

export const Layer = z
  .strictObject({
    id: Id,
    name: Name,
    kind: z.enum(LAYER_KINDS),
    order: z.number(),
    locked: z.boolean(),
    follows: Id.nullable(),
    counted: z.boolean(),
    volume: z.enum(VOLUMES),
    left: z
      .strictObject({ for: Id, why: z.string().max(LIMITS.reasonLength) })
      .readonly()
      .nullable(),
  })
  .readonly()

export const Role = z.enum(ROLES)

const sampleIndex = z
  .number()
  .int()
  .min(0)
  .max(MOST_SAMPLES - 1)
export const LineWidth = z.number().positive().max(LIMITS.lineWidthPx)

export const Nib = z
  .strictObject({ look: z.enum(NIB_LOOKS), ends: z.enum(NIB_ENDS), thinning: z.number().min(0).max(1) })
  .readonly()
export const StrokeLabel = z.enum(LABELS)

const onPaper = { id: Id, z: z.number().min(-1e9).max(1e9), matrix: Matrix.nullable() }

const Stroke = z
  .strictObject({
    ...onPaper,
    kind: z.enum(['line', 'shape']),
    samples: Id,
    part: z.tuple([sampleIndex, sampleIndex]).readonly().nullable(),
    swatch: Id,
    width: LineWidth,
    nib: Nib,
    label: StrokeLabel.nullable(),
  })
  .readonly()

const PictureSide = z.number().int().min(1).max(LIMITS.picturePx)
const CutSide = z.number().min(0).max(LIMITS.picturePx)
export const Cut = z.strictObject({ left: CutSide, top: CutSide, right: CutSide, bottom: CutSide }).readonly()
export const Opacity = z.number().min(0).max(1)
const Picture = z
  .strictObject({
    ...onPaper,
    kind: z.literal('picture'),
    picture: Id,
    widthPx: PictureSide,
    heightPx: PictureSide,
    opacity: Opacity,
    cut: Cut.nullable(),
    placeholder: z.boolean(),
  })
  .readonly()

export const Element = z.discriminatedUnion('kind', [Stroke, Picture])

/** A table of things by id, of bounded size. */
export function tableOf<T extends z.ZodType>(thing: T, most: number) {
  return z
    .record(Id, thing)
    .refine(table => Object.keys(table).length <= most, `must hold at most ${most}`)
    .readonly()
}

export const Place = z.strictObject({ x: Coordinate, y: Coordinate, planted: z.boolean() }).readonly()
export const Mark = z
  .strictObject({ id: Id, layer: Id, name: Name, order: z.number(), kind: z.enum(MARK_KINDS) })
  .readonly()
export const Swatch = z.strictObject({ id: Id, name: Name, colour: Colour, order: z.number() }).readonly()
export const Beat = z.strictObject({ id: Id, name: Name, frame: Frame }).readonly()
export const NoteText = z.string().trim().min(1, 'must not be empty').max(LIMITS.noteLength)
export const Note = z.strictObject({ id: Id, from: Frame, to: FrameCount, text: NoteText }).readonly()
/** Numbers of a recipe: which, and within which bounds, is for the recipe to say. */
export const GuideNumbers = z
  .record(z.string().min(1).max(40), z.union([z.number(), z.string().max(81), z.boolean(), z.null()]))
  .refine(numbers => Object.keys(numbers).length <= 80, 'must hold at most 80')
  .readonly()
/** What was made for a guide on the sheet. */
export const Laid = z
  .strictObject({
    drawings: z.array(Id).max(LIMITS.drawings).readonly(),
    beats: z.array(Id).max(LIMITS.beats).readonly(),
  })
  .readonly()
export const Guide = z
  .strictObject({
    id: Id,
    recipe: z.enum(RECIPE_NAMES),
    numbers: GuideNumbers,
    take: Id,
    layer: Id,
    from: Frame,
    shown: z.boolean(),
    dimmed: z.boolean(),
    locked: z.boolean(),
    laid: Laid,
  })
  .readonly()
export const AboutText = z
  .string()
  .min(1)
  .max(LIMITS.aboutLength)
  .regex(/^\P{Cc}*$/u, 'must not hold control characters')
export const Reason = z.string().trim().max(LIMITS.noteLength)
/** A finding that is meant so. */
export const Accepted = z.strictObject({ id: Id, about: AboutText, print: AboutText, reason: Reason }).readonly()
/** What is said of a stretch. */
export const Saying = z
  .strictObject({
    id: Id,
    kind: z.enum(Object.keys(SAYINGS) as [SayingKind, ...SayingKind[]]),
    layer: Id,
    about: z.array(Id).max(2).readonly(),
    from: Frame,
    to: FrameCount,
  })
  .readonly()
const Remarker = z
  .string()
  .min(1)
  .max(LIMITS.remarkerLength)
  .regex(/^\P{Cc}*$/u, 'must not hold control characters')
const RemarkPx = z.number().min(-LIMITS.remarkPx).max(LIMITS.remarkPx)
const RemarkPlace = z.strictObject({ x: RemarkPx, y: RemarkPx }).readonly()
const Answer = z.strictObject({ by: Id, name: Remarker, text: Reason.min(1) }).readonly()
/** What is remarked on a frame. */
export const Remark = z
  .strictObject({
    id: Id,
    by: Id,
    name: Remarker,
    frame: Frame,
    drawing: Id.nullable(),
    at: RemarkPlace.nullable(),
    sketch: z
      .array(z.array(RemarkPlace).min(1).max(LIMITS.pointsPerLine).readonly())
      .max(LIMITS.sketchLines)
      .readonly(),
    text: Reason,
    answers: z.array(Answer).max(LIMITS.answers).readonly(),
    closed: z.boolean(),
  })
  .readonly()
export const Threshold = z.number().min(-LIMITS.threshold).max(LIMITS.threshold)
/** Stored media by the SHA-256 of their bytes. */
export const MediaId = z.string().regex(/^[0-9a-f]{64}$/, 'must be 64 hexadecimal digits')
const Seconds = z.number().min(0).max(LIMITS.soundSeconds)
/** Whose work something is. */
export const Source = z
  .string()
  .max(LIMITS.sourceLength)
  .regex(/^\P{Cc}*$/u, 'must not hold control characters')
export const Sound = z
  .strictObject({
    id: Id,
    name: Name,
    media: MediaId,
    seconds: Seconds,
    order: z.number(),
    from: Frame,
    skip: Seconds,
    use: Seconds,
    gain: z.number().min(0).max(LIMITS.gain),
    muted: z.boolean(),
    mine: z.boolean(),
    source: Source,
  })
  .readonly()
export const Clip = z
  .strictObject({
    id: Id,
    name: Name,
    media: MediaId,
    widthPx: PictureSide,
    heightPx: PictureSide,
    seconds: z.number().min(0).max(LIMITS.clipSeconds),
    from: Frame,
    inS: z.number().min(0).max(LIMITS.clipSeconds),
    outS: z.number().min(0).max(LIMITS.clipSeconds),
    rate: z.number().positive().max(LIMITS.clipRate),
    matrix: Matrix,
    shown: z.boolean(),
    wash: z.number().min(0).max(1),
    mine: z.boolean(),
    source: Source,
    notes: z
      .array(z.strictObject({ id: Id, s: z.number().min(0).max(LIMITS.clipSeconds), text: NoteText }).readonly())
      .max(LIMITS.clipNotes)
      .readonly(),
  })
  .readonly()
const InClip = z.number().min(-LIMITS.picturePx).max(LIMITS.picturePx)
export const SeenPlaces = z
  .array(
    z
      .strictObject({
        s: z.number().min(0).max(LIMITS.clipSeconds),
        x: InClip,
        y: InClip,
        sure: z.number().min(0).max(2),
      })
      .readonly(),
  )
  .max(LIMITS.placesPerPoint)
  .readonly()
export const ClipPoint = z
  .strictObject({ id: Id, clip: Id, name: Name, order: z.number(), places: SeenPlaces })
  .readonly()
export const SpokenWord = z
  .strictObject({
    id: Id,
    text: z
      .string()
      .min(1)
      .max(LIMITS.wordLength)
      .regex(/^\P{Cc}*$/u, 'must not hold control characters'),
    from: Frame,
    to: FrameCount,
  })
  .readonly()
export const Way = z.enum(WAYS)
/** Shapes the picture is also cut to, each once. */
export const Cuts = z
  .array(z.enum(CUT_NAMES))
  .max(CUT_NAMES.length)
  .refine(cuts => new Set(cuts).size === cuts.length, 'must name each shape once')
  .readonly()
/** Paper pixels of a metre. */
export const Ceiling = z.number().gt(0).max(LIMITS.ceiling).nullable()
export const Scale = z.number().gt(0).max(LIMITS.scale).nullable()
export const Exposure = z.number().int().min(1).max(LIMITS.exposure)

export const SheetNumber = z.number().int().min(1).max(99_999)

export const Drawing = z
  .strictObject({
    id: Id,
    layer: Id,
    number: SheetNumber,
    role: Role,
    elements: tableOf(Element, LIMITS.elementsPerDrawing),
    marks: tableOf(Place, LIMITS.marks),
  })
  .readonly()

export const Run = z.strictObject({ drawing: Id.nullable(), frames: FrameCount }).readonly()
export const Runs = z.array(Run).min(1).max(LONGEST_SHOT_FRAMES).readonly()
export const Loop = z.strictObject({ from: Frame, to: Frame }).readonly().nullable()

export const Cycle = z
  .strictObject({ id: Id, layer: Id, from: Frame, to: FrameCount.nullable(), offset: Frame, pattern: Runs })
  .readonly()

export const Wish = z
  .strictObject({
    ease: z.enum(EASES),
    strength: z.number().min(0).max(1),
    thirds: z.boolean(),
    points: z.array(z.number().min(0).max(1)).max(MOST_CURVE_POINTS).readonly(),
  })
  .readonly()

const PathKey = z
  .strictObject({
    frame: Frame,
    x: Coordinate,
    y: Coordinate,
    turnRad: z.number().min(-PATH_LIMITS.turnRad).max(PATH_LIMITS.turnRad),
    wish: Wish,
    halves: z.boolean(),
  })
  .readonly()
const Pixels = z.strictObject({ x: Coordinate, y: Coordinate }).readonly()
export const LayerPath = z
  .strictObject({
    keys: z.array(PathKey).min(1).max(PATH_LIMITS.keys).readonly(),
    speed: Pixels,
    pivot: Pixels,
    whole: z.boolean(),
    on: z.number().int().min(1).max(PATH_LIMITS.on),
    closes: z.number().min(PATH_LIMITS.leastStripPx).max(PATH_LIMITS.px).nullable(),
    use: z.enum(PATH_USES),
  })
  .readonly()

export const Take = z
  .strictObject({
    id: Id,
    name: Name,
    order: z.number(),
    length: FrameCount,
    open: z.boolean(),
    loop: Loop,
    columns: tableOf(z.array(Run).max(LONGEST_SHOT_FRAMES).readonly(), LIMITS.layers),
    cycles: tableOf(Cycle, LIMITS.cycles),
    pins: tableOf(Id, LIMITS.drawings),
    paths: tableOf(LayerPath, LIMITS.layers),
  })
  .readonly()
