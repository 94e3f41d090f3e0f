import { MOST_PICTURE_PX } from '../../assets/picture.ts'
import type { Tick } from '../../chart/halves.ts'
import type { Wish } from '../../chart/wish.ts'
import type { Matrix } from '../../geometry/matrix.ts'
import type { Nib } from '../../geometry/nib.ts'
import type { Box, Point } from '../../geometry/point.ts'
import type { LayerPath } from '../../path/path.ts'
import type { RecipeName } from '../../motion/table.ts'
import type { ClipLaid } from '../../clip/laid.ts'
import type { Cycle } from '../../time/cycle.ts'
import type { Run } from '../../time/exposure.ts'
import type { Laid as LaidSound } from '../../sound/heard.ts'
import type { LoopRange } from '../../time/loop.ts'
import type { Table } from './table.ts'

/** The version of the stored form below. Older stored documents are brought up to it when they are read. */
export const DOCUMENT_SCHEMA = 13

/** The sheet the film is drawn on. */
export interface Format {
  /** size of the picture in pixels */
  readonly width: number
  readonly height: number
  /** delivery rate, whole frames a second */
  readonly fps: number
  /** paper colour, #rrggbb */
  readonly paper: string
}

/**
 * drawn: the animation. background: exposed and delivered like it but never counted as animation. reference: looked at
 * and traced, guide: construction; both are on the desk only and never delivered.
 */
export const LAYER_KINDS = ['drawn', 'background', 'reference', 'guide'] as const
export type LayerKind = (typeof LAYER_KINDS)[number]

/**
 * How the volume of what a layer shows is held against its first key: flat keeps the area (r·s by r/s), round the volume as
 * if it were as deep as it is wide (r·s by r/√s); off says nothing, where area means nothing (mist, blinking eyes).
 */
export const VOLUMES = ['flat', 'round', 'off'] as const
export type Volume = (typeof VOLUMES)[number]

/** A column of the exposure sheet. */
export interface Layer {
  readonly id: string
  readonly name: string
  readonly kind: LayerKind
  /** layers are painted from the lowest order up */
  readonly order: number
  /** protects against a slip of the hand: the desk does not draw on it or retime it */
  readonly locked: boolean
  /**
   * The layer in whose time this one is shown, or null: paint under lines, finished art over blocks. Its sheets carry the
   * numbers of the drawings they lie under or over and are exposed with them, in every take; it has no timing of its own.
   */
  readonly follows: string | null
  /** whether sheets of a layer that follows another are drawings to be drawn and counted (finished art is, paint is not) */
  readonly counted: boolean
  readonly volume: Volume
  /** an old pass that was left: for which layer, and why. It is kept to be looked at; it is not sent off and asks for nothing */
  readonly left: { readonly for: string; readonly why: string } | null
}

/** Whether a layer belongs to what is sent off. */
export const isDelivered = (layer: Layer): boolean =>
  layer.left === null && (layer.kind === 'drawn' || layer.kind === 'background')

/** Whether a layer carries the action: its drawings are planned and counted. Paint tied to another layer is not. */
export const isAnimated = (layer: Layer): boolean =>
  layer.kind === 'drawn' && layer.left === null && (layer.follows === null || layer.counted)

/** Key: tells the story. Breakdown: decides how two keys are connected. Inbetween: the rest. */
export const ROLES = ['key', 'breakdown', 'inbetween'] as const
export type Role = (typeof ROLES)[number]

/** What every element of a drawing has. */
interface OnPaper {
  readonly id: string
  /** painted from the lowest up within its kind: pictures lie under shapes, shapes under lines */
  readonly z: number
  readonly matrix: Matrix | null
}

/** One pen stroke: which stored samples, what part of them, moved how, and in which colour and width. */
export interface Stroke extends OnPaper {
  /** a line with thickness, or a painted shape bounded by the path */
  readonly kind: 'line' | 'shape'
  /** id of the stored samples; several elements may share them */
  readonly samples: string
  /** inclusive range of samples used, or null for all */
  readonly part: readonly [number, number] | null
  readonly swatch: string
  /** pixels at half of the full pressure, before the matrix */
  readonly width: number
  readonly nib: Nib
  /** which limb a line of a rough belongs to: shown in a working colour on the desk, sent off in its own */
  readonly label: Label | null
}

/** A picture that was brought in: which stored one, and how it lies on the paper. */
export interface Picture extends OnPaper {
  readonly kind: 'picture'
  /** id of the stored picture; several elements may share it */
  readonly picture: string
  /** its own size in its pixels, before the matrix */
  readonly widthPx: number
  readonly heightPx: number
  /** 0–1 */
  readonly opacity: number
  /** what of it is seen, in its own pixels; null: all */
  readonly cut: Box | null
  /** it only stands for something that is still to be drawn; the send-off says so */
  readonly placeholder: boolean
}

/** Elements by the name of their kind. */
export interface ElementForms {
  readonly line: Stroke
  readonly shape: Stroke
  readonly picture: Picture
}
/** What lies on a drawing. */
export type Element = ElementForms[keyof ElementForms]

/** Whether an element is a pen stroke: a line or a painted shape. */
export const isStroke = (element: Element): element is Stroke => element.kind !== 'picture'

/** Working labels of strokes: the limb nearer to the viewer, and the one behind the body. */
export const LABELS = ['near', 'far'] as const
export type Label = (typeof LABELS)[number]

/** One sheet on one layer. */
export interface Drawing {
  readonly id: string
  readonly layer: string
  /** the number written on the sheet; not the frame and not the order of drawing */
  readonly number: number
  readonly role: Role
  readonly elements: Table<Element>
  /** where marks of the layer lie on this drawing, in paper pixels */
  readonly marks: Table<MarkPlace>
}

/** Where a mark lies on a drawing; planted, it rests on the ground there and must not slip while it stays planted. */
export interface MarkPlace extends Point {
  readonly planted: boolean
}

/** point: a point of the body (nose, heel). space: enclosed empty space that is not body (between an arm on the hip and it). */
export const MARK_KINDS = ['point', 'space'] as const

/** A named point of what a layer shows (nose, heel, tail tip), placed on its drawings. */
export interface Mark {
  readonly id: string
  readonly layer: string
  readonly name: string
  readonly order: number
  readonly kind: (typeof MARK_KINDS)[number]
}

/** A tick of a chart together with the drawing made for it, once there is one. */
export interface ChartTick extends Tick {
  readonly drawing: string | null
}

/** The spacing plan between two keys of a layer. */
export interface Chart {
  readonly id: string
  readonly layer: string
  /** the two keys: ids of drawings */
  readonly from: string
  readonly to: string
  /** the mark whose spacing it plans; null plans the drawings themselves */
  readonly part: string | null
  readonly wish: Wish
  readonly ticks: readonly ChartTick[]
}

/** One timing of the drawings: an exposure sheet with a column for every layer. */
export interface Take {
  readonly id: string
  readonly name: string
  readonly order: number
  /** frames */
  readonly length: number
  /** the length as it comes: the take ends with its last drawing, and grows while one draws ahead */
  readonly open: boolean
  readonly loop: LoopRange | null
  /** every layer has a column that covers exactly `length` frames */
  readonly columns: Table<readonly Run[]>
  /** linked cycles; the frames they cover always show their pattern */
  readonly cycles: Table<Cycle>
  /** keys pinned to beats: drawing id → beat id */
  readonly pins: Table<string>
  /** how layers move as a whole, by layer; one that has none lies where it was drawn. Tied layers go along with what they follow */
  readonly paths: Table<LayerPath>
}

/** A named accent of music or speech. */
export interface Beat {
  readonly id: string
  readonly name: string
  /** from 0 */
  readonly frame: number
}

/** What happens, in words, over frames `from` up to, but not with, `to`. */
export interface ActionNote {
  readonly id: string
  readonly from: number
  readonly to: number
  readonly text: string
}

/** A finding of a check that was looked at and is meant so; it is quiet until what it is about is another. */
export interface Accepted {
  readonly id: string
  /** which finding: its check, layer, drawings and marks, as a text */
  readonly about: string
  /** what it was about and what was found then, as a fingerprint */
  readonly print: string
  readonly reason: string
}

/**
 * What nobody can measure and the animator says of a stretch, with how many marks or swatches it is said of. still: nothing of a colour, or of
 * all the layer, changes. follows: the first mark goes along behind the second. touches: two marks lie on each other. goes: a colour comes and
 * goes. size: two marks stay as far from one another. large: a colour stays as large. reads: the pose is to be read.
 */
export const SAYINGS = {
  still: { of: 'swatches', least: 0, most: 1 },
  follows: { of: 'marks', least: 2, most: 2 },
  touches: { of: 'marks', least: 2, most: 2 },
  goes: { of: 'swatches', least: 1, most: 1 },
  size: { of: 'marks', least: 2, most: 2 },
  large: { of: 'swatches', least: 1, most: 1 },
  reads: { of: 'swatches', least: 0, most: 0 },
} as const
export type SayingKind = keyof typeof SAYINGS

/** Something said of frames `from` up to, but not with, `to` of a layer. What it names may be gone by now: then it says nothing. */
export interface Saying {
  readonly id: string
  readonly kind: SayingKind
  readonly layer: string
  /** ids of marks or swatches, as its kind wants them */
  readonly about: readonly string[]
  readonly from: number
  readonly to: number
}

/** What somebody wrote to a remark. */
export interface Answer {
  /** id and name of the account */
  readonly by: string
  readonly name: string
  readonly text: string
}

/** What somebody who looked at the shot remarks on a frame, with a place and a sketch over it; it is answered, and closed when it is dealt with. */
export interface Remark {
  readonly id: string
  /** id and name of the account */
  readonly by: string
  readonly name: string
  /** from 0, in the take it was made in, and the drawing that was seen there, if any: it is still about that drawing when the timing is another */
  readonly frame: number
  readonly drawing: string | null
  /** pixels of the picture */
  readonly at: Point | null
  /** lines drawn over the picture, in its pixels */
  readonly sketch: readonly (readonly Point[])[]
  /** may be empty beside a sketch */
  readonly text: string
  readonly answers: readonly Answer[]
  readonly closed: boolean
}

/**
 * A recording laid on the shot, in the time of every take: which part of which stored one is heard from which frame on. `from` is a
 * frame from 0, `skip` and `use` are seconds of the recording.
 */
export interface Sound extends LaidSound {
  readonly id: string
  readonly name: string
  /** SHA-256 of the stored recording, and how long all of it is in seconds */
  readonly media: string
  readonly seconds: number
  /** its place among the tracks */
  readonly order: number
  /** how loud, 1 is as it was recorded */
  readonly gain: number
  readonly muted: boolean
  /** one's own work, that may go out with the film; else it is for listening to only */
  readonly mine: boolean
  /** whose it is, where it is somebody else's; may be empty */
  readonly source: string
}

/**
 * A filmed or admired movement that lies under the paper, in the time of every take, to be drawn over and studied: which stretch of which stored one
 * lies from which frame on (`from` from 0, `inS` and `outS` seconds of it, `rate` seconds of it a second). It is sent
 * off only where it is one's own and wished.
 */
export interface FilmClip extends ClipLaid {
  readonly id: string
  readonly name: string
  /** SHA-256 of the stored clip, its size in its own pixels, and how long all of it is in seconds */
  readonly media: string
  readonly widthPx: number
  readonly heightPx: number
  readonly seconds: number
  /** from its pixels to those of the paper */
  readonly matrix: Matrix
  readonly shown: boolean
  /** how much paper lies over it, 0–1 */
  readonly wash: number
  /** said to be one's own, so that it may be sent off under the drawings; never beside a source */
  readonly mine: boolean
  /** whose work it is, where it is somebody else's and here for practice only */
  readonly source: string
  /** what was noted of its pictures, in the order of moments */
  readonly notes: readonly ClipNote[]
}

/** What was noted of a picture of a clip. */
export interface ClipNote {
  readonly id: string
  /** the moment of the clip, seconds */
  readonly s: number
  readonly text: string
}

/** Where something that is followed through a clip was seen. */
export interface SeenPlace extends Point {
  /** the moment of the clip, seconds; places are in pixels of the clip */
  readonly s: number
  /** how sure: the normalised correlation that it was found by, 0–1; above 1 where the hand put it */
  readonly sure: number
}

/** A named point that is followed through a clip, from picture to picture: a nose, a heel, the tip of a reed. */
export interface ClipPoint {
  readonly id: string
  /** id of the clip */
  readonly clip: string
  readonly name: string
  readonly order: number
  /** in the order of moments */
  readonly places: readonly SeenPlace[]
}

/** A spoken word over frames `from` up to, but not with, `to`. */
export interface SpokenWord {
  readonly id: string
  readonly text: string
  readonly from: number
  readonly to: number
}

/** Shapes a picture is cut to, by how many parts they are wide and high. */
export const CUTS = { wide: [16, 9], square: [1, 1], portrait: [4, 5], tall: [9, 16] } as const
export type CutName = keyof typeof CUTS
export const CUT_NAMES = Object.keys(CUTS) as CutName[]

/**
 * Keys first, then breakdowns and inbetweens; drawing one after the other; keys first and straight ahead between them; or from
 * where the leading part is fastest outwards.
 */
export const WAYS = ['pose-to-pose', 'straight-ahead', 'mixed', 'surest'] as const
export type WayOfWorking = (typeof WAYS)[number]

/** A labelled colour. */
export interface Swatch {
  readonly id: string
  readonly name: string
  /** #rrggbb */
  readonly colour: string
  /** its place on the palette strip; of equal ones the older comes first */
  readonly order: number
}

/** A number, a choice or a switch of a recipe. */
export type GuideNumber = number | string | boolean | null

/** A recipe laid on a shot: motion worked out, to be drawn over. It is computed whenever it is shown, and never sent off. */
export interface Guide {
  readonly id: string
  readonly recipe: RecipeName
  /** by the recipe's own names; places in paper pixels */
  readonly numbers: Readonly<Record<string, GuideNumber>>
  /** the take whose time it is in, the layer it serves, and the frame it starts on (from 0) */
  readonly take: string
  readonly layer: string
  readonly from: number
  /** whether it is shown on the paper, and only faintly */
  readonly shown: boolean
  readonly dimmed: boolean
  /** its numbers and its place are left as they are */
  readonly locked: boolean
  /** what was made for it on the sheet, in the order of its plan; some of it may be gone */
  readonly laid: Laid
}

/** Ids of what was made for a guide: its drawings, and its beats. */
export interface Laid {
  readonly drawings: readonly string[]
  readonly beats: readonly string[]
}

/** Everything about one shot: a plain value, replaced as a whole, never changed in place. */
export interface ShotDocument {
  readonly schema: typeof DOCUMENT_SCHEMA
  readonly format: Format
  readonly layers: Table<Layer>
  readonly drawings: Table<Drawing>
  readonly charts: Table<Chart>
  readonly takes: Table<Take>
  /** the take that is worked on and delivered */
  readonly current: string
  readonly swatches: Table<Swatch>
  readonly marks: Table<Mark>
  readonly beats: Table<Beat>
  readonly notes: Table<ActionNote>
  /** findings that are meant so */
  readonly accepted: Table<Accepted>
  readonly sayings: Table<Saying>
  readonly remarks: Table<Remark>
  /** by account: the drawings it has looked at closely, each by its fingerprint then */
  readonly looked: Table<Table<string>>
  /** by name: at which value a check begins to speak, where that is not as it comes */
  readonly thresholds: Table<number>
  readonly guides: Table<Guide>
  readonly sounds: Table<Sound>
  readonly words: Table<SpokenWord>
  readonly clips: Table<FilmClip>
  readonly points: Table<ClipPoint>
  readonly way: WayOfWorking
  /** frames that a new drawing gets */
  readonly exposure: number
  /** paper pixels of a metre, once somebody has said how tall something is */
  readonly scale: number | null
  /** paper pixels a frame that nothing is to go beyond, taken from a movement that was studied; null: none */
  readonly ceiling: number | null
  /** whose work it is redrawn from, where all of it is a study of somebody else's; empty where it is one's own */
  readonly study: string
  /** the shapes it is shown in besides its own, cut from the middle of the picture; each once */
  readonly cuts: readonly CutName[]
}

/** Bounds of what a document may hold; operations that would pass them are refused. */
export const LIMITS = {
  layers: 40,
  drawings: 6000,
  elementsPerDrawing: 5000,
  /** over the whole shot, so that the largest one still opens within seconds */
  elementsPerShot: 120_000,
  placesPerShot: 200_000,
  /** exposures over all layers and takes, and those of patterns */
  runsPerShot: 400_000,
  charts: 2000,
  takes: 24,
  cycles: 200,
  swatches: 500,
  marks: 200,
  beats: 2000,
  notes: 500,
  noteLength: 500,
  accepted: 1000,
  sayings: 500,
  remarks: 1000,
  /** of one remark */
  answers: 50,
  sketchLines: 60,
  pointsPerLine: 400,
  remarkerLength: 200,
  /** a place of a remark, in pixels of the picture */
  remarkPx: 20_000,
  /** accounts that have looked at drawings */
  lookers: 60,
  thresholds: 100,
  threshold: 1e6,
  /** characters that say which finding is meant */
  aboutLength: 400,
  guides: 60,
  sounds: 24,
  /** seconds of a recording */
  soundSeconds: 600,
  gain: 4,
  words: 2000,
  clips: 8,
  /** seconds of a clip, and how many of them may pass in one */
  clipSeconds: 600,
  clipRate: 8,
  /** notes of one clip */
  clipNotes: 200,
  /** points that are followed through clips, and places of one of them */
  points: 24,
  placesPerPoint: 1500,
  sourceLength: 200,
  wordLength: 80,
  /** places of all paths of all takes */
  pathKeysPerShot: 20_000,
  sizePx: 8192,
  fps: 120,
  lineWidthPx: 600,
  /** a side of a picture, in its own pixels */
  picturePx: MOST_PICTURE_PX,
  exposure: 200,
  /** paper pixels a metre */
  scale: 100_000,
  /** paper pixels a frame */
  ceiling: 10_000,
  reasonLength: 200,
} as const
