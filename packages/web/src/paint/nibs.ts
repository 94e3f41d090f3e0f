import {
  lengthOf,
  lineOutline,
  shapeOutline,
  stamper,
  type FlatPolygon,
  type Nib,
  type PlacedStroke,
  type Sample,
  type Stamp,
} from '@unhurried/core/geometry'

export type Brush = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D

/** What has to be painted for a stroke: outlines to fill, one inside the other, or touches of a soft brush. */
export type Inked =
  | { readonly look: 'ink'; readonly paths: readonly Path2D[] }
  | { readonly look: 'pencil'; readonly paths: readonly Path2D[] }
  | { readonly look: 'brush'; readonly stamps: readonly Stamp[] }

/**
 * A pencil is three outlines on the tooth of the paper: the whole width leaves graphite only on the highest grain, its
 * middle on most, its core on nearly all. A light hand leaves hardly any core; strokes over one another build up.
 */
const PENCIL = [
  { width: 1, moreThinning: 0, tooth: 0.7, alpha: 0.42 },
  { width: 0.76, moreThinning: 0.12, tooth: 0.45, alpha: 0.5 },
  { width: 0.48, moreThinning: 0.25, tooth: 0.2, alpha: 0.55 },
] as const

/** Resolves samples to what is painted. `finished` is false while the pen is still down. */
export function inked(
  samples: readonly Sample[],
  kind: PlacedStroke['kind'],
  width: number,
  nib: Nib,
  finished = true,
): Inked {
  if (kind === 'shape') return { look: 'ink', paths: [toPath(shapeOutline(samples))] }
  if (nib.look === 'brush') return { look: 'brush', stamps: stamper(width, nib, lengthOf(samples))(samples) }
  if (nib.look === 'ink') return { look: 'ink', paths: [toPath(lineOutline(samples, width, nib, finished))] }
  const paths = PENCIL.map(layer => {
    const thinning = Math.min(1, nib.thinning + layer.moreThinning)
    return toPath(lineOutline(samples, width * layer.width, { ...nib, thinning }, finished))
  })
  return { look: 'pencil', paths }
}

export function paintInked(brush: Brush, stroke: Inked, colour: string): void {
  if (stroke.look === 'brush') return paintStamps(brush, stroke.stamps, colour)
  stroke.paths.forEach((path, i) => {
    brush.fillStyle = stroke.look === 'ink' ? colour : graphite(colour, i)
    brush.fill(path)
  })
}

/** A closed path through a flat polygon, rounded through the middles of its sides so that a few points look smooth. */
export function toPath(flat: FlatPolygon): Path2D {
  const path = new Path2D()
  const n = flat.length / 2
  if (n < 2) return path
  const x = (i: number) => flat[2 * (i % n)] as number
  const y = (i: number) => flat[2 * (i % n) + 1] as number
  path.moveTo((x(0) + x(1)) / 2, (y(0) + y(1)) / 2)
  for (let i = 1; i <= n; i++) path.quadraticCurveTo(x(i), y(i), (x(i) + x(i + 1)) / 2, (y(i) + y(i + 1)) / 2)
  path.closePath()
  return path
}

/** How much of its colour one touch of a brush leaves at full pressure. */
const FLOW = 0.22

/** Touches of a soft brush. What is on the canvas stays: a stroke under way adds only what is new. */
export function paintStamps(brush: Brush, stamps: readonly Stamp[], colour: string): void {
  if (stamps.length === 0) return
  const tip = softTip(colour)
  const whole = brush.globalAlpha
  for (const { x, y, width, pressure } of stamps) {
    brush.globalAlpha = whole * FLOW * pressure
    brush.drawImage(tip, x - width / 2, y - width / 2, width, width)
  }
  brush.globalAlpha = whole
}

const TIP_PX = 96
const tips = new Map<string, OffscreenCanvas>()

function softTip(colour: string): OffscreenCanvas {
  const known = tips.get(colour)
  if (known) return known
  const tip = new OffscreenCanvas(TIP_PX, TIP_PX)
  const pen = penOf(tip)
  const soft = pen.createRadialGradient(TIP_PX / 2, TIP_PX / 2, 0, TIP_PX / 2, TIP_PX / 2, TIP_PX / 2)
  for (let i = 0; i <= 8; i++) {
    // A raised cosine has neither a rim nor a point.
    const alpha = Math.round(((1 + Math.cos((Math.PI * i) / 8)) / 2) * 255)
    soft.addColorStop(i / 8, colour + alpha.toString(16).padStart(2, '0'))
  }
  pen.fillStyle = soft
  pen.fillRect(0, 0, TIP_PX, TIP_PX)
  tips.set(colour, tip)
  return tip
}

const TOOTH_PX = 256
/** How gradually graphite takes hold of the grain: 0 is black or white. */
const SOFT_TOOTH = 0.7
const patterns = new Map<string, CanvasPattern>()
let heights: Float32Array | null = null

/** The paper's tooth covered with graphite of a colour, as a pattern that lies still on the paper. */
function graphite(colour: string, layer: number): CanvasPattern | string {
  const key = `${colour} ${layer}`
  const known = patterns.get(key)
  if (known) return known
  const { tooth, alpha } = PENCIL[layer] as (typeof PENCIL)[number]
  heights ??= paperTooth()
  const tile = new OffscreenCanvas(TOOTH_PX, TOOTH_PX)
  const pen = penOf(tile)
  const picture = pen.createImageData(TOOTH_PX, TOOTH_PX)
  const rgb = Number.parseInt(colour.slice(1), 16)
  heights.forEach((height, i) => {
    const share = Math.max(0, Math.min(1, (height - tooth) / SOFT_TOOTH + 0.5))
    picture.data.set([rgb >> 16, (rgb >> 8) & 255, rgb & 255, share * alpha * 255], 4 * i)
  })
  pen.putImageData(picture, 0, 0)
  const pattern = pen.createPattern(tile, 'repeat')
  if (pattern) patterns.set(key, pattern)
  return pattern ?? colour
}

/** Heights of the paper from 0 to 1, evenly spread: noise of two grain sizes that repeats at the edges. */
function paperTooth(): Float32Array {
  const fine = noise(TOOTH_PX, 1)
  const coarse = noise(TOOTH_PX / 2, 7)
  const raw = new Float32Array(TOOTH_PX * TOOTH_PX)
  const wrap = (v: number, n: number) => ((v % n) + n) % n
  for (let y = 0; y < TOOTH_PX; y++) {
    for (let x = 0; x < TOOTH_PX; x++) {
      const near = (dx: number, dy: number) =>
        fine[wrap(y + dy, TOOTH_PX) * TOOTH_PX + wrap(x + dx, TOOTH_PX)] as number
      const soft = 0.4 * near(0, 0) + 0.15 * (near(1, 0) + near(-1, 0) + near(0, 1) + near(0, -1))
      const half = TOOTH_PX / 2
      raw[y * TOOTH_PX + x] = 0.8 * soft + 0.2 * (coarse[(y >> 1) * half + (x >> 1)] as number)
    }
  }
  // By rank, so that a tooth of 0.3 leaves three tenths of the paper bare.
  const order = [...raw.keys()].sort((a, b) => (raw[a] as number) - (raw[b] as number))
  const even = new Float32Array(raw.length)
  order.forEach((at, rank) => (even[at] = rank / raw.length))
  return even
}

/** Noise from 0 to 1 that is the same on every machine (mulberry32, public domain). */
function noise(size: number, seed: number): Float32Array {
  let state = seed
  return Float32Array.from({ length: size * size }, () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  })
}

function penOf(canvas: OffscreenCanvas): OffscreenCanvasRenderingContext2D {
  const pen = canvas.getContext('2d')
  if (!pen) throw new Error('This browser gives no canvas to draw on.')
  return pen
}
