import { incomingKind, INCOMING_LIMITS, incomingSize } from '@unhurried/core/assets'
import { packSamples, paintedPieces, type Box, type Matrix } from '@unhurried/core/geometry'
import { inkOutlines, type Grey } from '@unhurried/core/raster'
import {
  cutOut,
  evened,
  inkOf,
  inkThrough,
  insideSheet,
  levelsOf,
  marksOfSheet,
  paperOf,
  partsOf,
  registeredOn,
  smaller,
  withoutMarks,
  type Corners,
  type Levels,
  type SheetMark,
} from '@unhurried/core/sheets'
import { expose, transfer } from 'comlink'
import type { SheetPart, SheetsProtocol, SheetTaken, TakenSheet } from '../protocols/sheets.ts'
import { greyOf } from './grey.ts'
import { Fault } from './packing.ts'

/** Photographs are worked with no larger than this, and marks and drawings are looked for at this size. */
const KEPT_PX = 1800
const FOUND_PX = 1000
/** The rim of a sheet that is left out: its edge throws a shadow. */
const RIM_SHARE = 0.008
/** Ways of registration that a sheet itself asks for. */
const MARKED = ['peg holes', 'crosses'] as const

interface Kept {
  readonly even: Grey
  readonly corners: Corners | null
  /** the marks of registration that the sheet has, where it has some */
  readonly own: (typeof MARKED)[number] | null
  /** the ink of it, as it was made last, and a smaller one in which things are found; with marks, and without */
  levels: Levels | null
  ink: Grey
  small: ReturnType<typeof smaller>
  marks: readonly SheetMark[]
  drawn: Grey
}
const sheets = new Map<string, Kept>()

async function bitmapOf(file: Blob): Promise<ImageBitmap> {
  if (file.size === 0) throw new Fault('nothing-in-it')
  if (file.size > INCOMING_LIMITS.bytes) throw new Fault('too-many-bytes')
  const head = new Uint8Array(await file.arrayBuffer())
  const kind = incomingKind(head)
  if (!kind || kind === 'zip' || kind === 'svg') throw new Fault('unknown')
  const size = incomingSize(kind, head)
  if (!size) throw new Fault('broken')
  // It is asked before anything of it is decoded: a small file may hold a picture that fills the memory.
  if (size.widthPx * size.heightPx > INCOMING_LIMITS.pixels) throw new Fault('too-many-pixels')
  return createImageBitmap(new Blob([head], { type: `image/${kind}` })).catch(() => {
    throw new Fault('broken')
  })
}

async function read(id: string, file: Blob): Promise<TakenSheet> {
  const bitmap = await bitmapOf(file)
  const share = Math.min(1, KEPT_PX / Math.max(bitmap.width, bitmap.height))
  const [width, height] = [bitmap.width, bitmap.height].map(px => Math.max(1, Math.round(px * share))) as [
    number,
    number,
  ]
  const canvas = new OffscreenCanvas(width, height)
  const brush = canvas.getContext('2d', { willReadFrequently: true })
  if (!brush) throw new Fault('broken')
  brush.fillStyle = '#fff'
  brush.fillRect(0, 0, width, height)
  brush.imageSmoothingQuality = 'high'
  brush.drawImage(bitmap, 0, 0, width, height)
  bitmap.close()
  const photo = greyOf(brush)
  const corners = paperOf(photo)
  const even = evened(photo)
  // What counts as paper and ink is told by the sheet, and not by the table it lies on.
  const levels = levelsOf(corners ? middleOf(even, corners) : even)
  const found = smaller(
    corners ? insideSheet(inkOf(even, levels), corners, RIM_SHARE * width) : inkOf(even, levels),
    FOUND_PX,
  )
  const own = MARKED.find(how => marksOfSheet(found.grey, how).length >= 2) ?? null
  const blank = { ...even, data: new Uint8Array(0) }
  sheets.set(id, {
    even,
    corners,
    own,
    levels: null,
    ink: blank,
    small: { grey: blank, by: 1 },
    marks: [],
    drawn: blank,
  })
  return {
    widthPx: width,
    heightPx: height,
    corners,
    by: own ?? 'one another',
    levels,
    seen: canvas.transferToImageBitmap(),
  }
}

function middleOf(even: Grey, corners: Corners): Grey {
  const [xs, ys] = [corners.map(p => p.x).sort((a, b) => a - b), corners.map(p => p.y).sort((a, b) => a - b)]
  const [left, right, top, bottom] = [xs[1], xs[2], ys[1], ys[2]] as [number, number, number, number]
  return cutOut(even, { left, top, right: Math.max(left + 1, right), bottom: Math.max(top + 1, bottom) }, 0).grey
}

/** Ink as a picture on transparency, in one colour. */
function inkedPicture({ width, height, data }: Grey, [r, g, b]: readonly [number, number, number]): OffscreenCanvas {
  const canvas = new OffscreenCanvas(width, height)
  const brush = canvas.getContext('2d')
  if (!brush) throw new Fault('broken')
  const picture = brush.createImageData(width, height)
  for (let i = 0; i < data.length; i++) {
    picture.data[4 * i] = r
    picture.data[4 * i + 1] = g
    picture.data[4 * i + 2] = b
    picture.data[4 * i + 3] = data[i] as number
  }
  brush.putImageData(picture, 0, 0)
  return canvas
}

const INK = [47, 44, 40] as const
const rgb = (colour: string) =>
  [1, 3, 5].map(i => parseInt(colour.slice(i, i + 2), 16) || 0) as unknown as readonly [number, number, number]
const times = ({ left, top, right, bottom }: Box, by: number): Box => ({
  left: left * by,
  top: top * by,
  right: (right + 1) * by - 1,
  bottom: (bottom + 1) * by - 1,
})

/** The ink of a drawing as it lies on the paper. */
function laidOn(
  { sheet, box, matrix: [a, b, c, d, e, f] }: SheetPart & { readonly matrix: Matrix },
  paper: { readonly width: number; readonly height: number },
): Grey {
  const kept = sheets.get(sheet)
  if (!kept) throw new Error('that photograph is gone')
  const { grey, at } = cutOut(kept.drawn, box, 2)
  return inkThrough(grey, [a, b, c, d, e + a * at.x + c * at.y, f + b * at.x + d * at.y], paper)
}

const protocol: SheetsProtocol = {
  async read(id, file): Promise<SheetTaken> {
    try {
      const sheet = await read(id, file)
      return transfer({ ok: true as const, sheet }, [sheet.seen])
    } catch (error) {
      return { ok: false, why: error instanceof Fault ? error.why : 'broken' }
    }
  },
  drop: id => void sheets.delete(id),
  ink(id, levels, how, by) {
    const sheet = sheets.get(id)
    if (!sheet) throw new Error('that photograph is gone')
    const { even, corners } = sheet
    if (sheet.levels?.white !== levels.white || sheet.levels.black !== levels.black) {
      const all = inkOf(even, levels)
      sheet.ink = corners ? insideSheet(all, corners, RIM_SHARE * Math.max(even.width, even.height)) : all
      sheet.small = smaller(sheet.ink, FOUND_PX)
      sheet.levels = levels
    }
    const { small } = sheet
    // By a region, holes are no part of the drawing either.
    const marks = marksOfSheet(small.grey, by === 'a region' ? (sheet.own ?? by) : by)
    sheet.marks = marks.map(({ x, y, reach }) => ({
      x: (x + 0.5) * small.by - 0.5,
      y: (y + 0.5) * small.by - 0.5,
      reach: reach * small.by,
    }))
    sheet.drawn = withoutMarks(sheet.ink, sheet.marks)
    const boxes = partsOf(withoutMarks(small.grey, marks), how).map(box => times(box, small.by))
    const ink = inkedPicture(sheet.drawn, INK).transferToImageBitmap()
    return transfer({ ink, boxes, marks: marks.length }, [ink])
  },
  register(parts, by, region) {
    const whole = parts.map(({ sheet, box }) => {
      const kept = sheets.get(sheet)
      if (!kept) throw new Error('that photograph is gone')
      return { ink: kept.drawn, box, corners: kept.corners, marks: kept.marks }
    })
    const [first] = whole
    return first ? whole.map(one => registeredOn(first, one, by, region)) : []
  },
  shapes: (parts, paper) =>
    parts.map(part => paintedPieces(inkOutlines(laidOn(part, paper))).map(samples => packSamples(samples))),
  async pictures(parts, paper, colour) {
    const tone = rgb(colour)
    const inked: { bytes: Uint8Array }[] = []
    for (const part of parts) {
      const blob = await inkedPicture(laidOn(part, paper), tone).convertToBlob({ type: 'image/png' })
      inked.push({ bytes: new Uint8Array(await blob.arrayBuffer()) })
    }
    return transfer(
      inked,
      inked.map(one => one.bytes.buffer as ArrayBuffer),
    )
  },
}
expose(protocol)
