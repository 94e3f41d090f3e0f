import { plainColour } from '@unhurried/core/colour'
import { LIMITS } from '@unhurried/core/document'
import type { DrawnPath, DrawnText } from '../protocols/drawn.ts'
import { hrefOf, isTooMuch, linked, parsedText } from './harmless.ts'

/*
 * Drawn texts (SVG) read as paths: https://www.w3.org/TR/SVG2/. What is read is looked at and never shown, so nothing in it runs, and
 * nothing is fetched.
 */

/** The paper that a drawn text comes on. */
export interface Ground {
  readonly width: number
  readonly height: number
  readonly paper: string
}

/** What is said of how things look, handed down from what they lie in. */
const HANDED_DOWN = [
  'fill',
  'fill-rule',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-opacity',
  'color',
  'visibility',
]
/** What is said of one thing alone. */
const OWN = ['opacity', 'display', 'stop-color', 'stop-opacity']
const SAID = [...HANDED_DOWN, ...OWN]
type Look = Readonly<Record<string, string>>
const FRESH: Look = { fill: 'black', stroke: 'none', 'stroke-width': '1', color: 'black' }

/** What may hold others; what is only used by others is not gone into. */
const HOLDS = new Set(['svg', 'g', 'a', 'switch'])
const LEFT_OUT = new Set(['text', 'image', 'foreignObject'])
/** Shades that are taken from shades: deeper than that nobody means it. */
const DEEPEST = 24
/** Things in a text, each as often as it is drawn: groups and what is not seen come beside what is. */
const MOST_THINGS = 4 * LIMITS.elementsPerDrawing

/** A drawn text has more in it than a drawing holds. */
export class TooMuchDrawn extends Error {}

/**
 * Reads a drawn text as it lies on a paper: as large as there is room for it, in the middle, as its picture would lie. Throws where it is none; a TooMuchDrawn where it
 * holds more than a drawing does.
 */
export function readDrawnText(text: string, ground: Ground): DrawnText {
  const root = parsedText(text)
  if (isTooMuch(root, MOST_THINGS)) throw new TooMuchDrawn()
  const reading = new Reading(root, ground)
  reading.into(root, reading.laidOnPaper(), FRESH, 1)
  return { paths: reading.paths, leftOut: reading.leftOut }
}

class Reading {
  readonly paths: DrawnPath[] = []
  leftOut = 0
  private readonly sheets: ReadonlyMap<Element, Look>

  constructor(
    private readonly root: Element,
    private readonly ground: Ground,
  ) {
    this.sheets = saidInSheets(root)
  }

  /** From the coordinates of the whole to the paper. */
  laidOnPaper(): string {
    const { width, height } = this.ground
    const box = boxOf(this.root)
    const own = {
      width: lengthOf(this.root, 'width', NaN) || box?.width || width,
      height: lengthOf(this.root, 'height', NaN) || box?.height || height,
    }
    const share = Math.min(width / own.width, height / own.height)
    return `translate(${(width - own.width * share) / 2} ${(height - own.height * share) / 2}) scale(${share}) ${viewed(box, own, this.root)}`
  }

  /** Goes through what something holds. */
  into(parent: Element, transform: string, look: Look, opacity: number): void {
    const below = this.lookOf(parent, look)
    for (const child of parent.children) this.read(child, transform, below, opacity)
  }

  private read(element: Element, transform: string, handed: Look, opacity: number): void {
    const look = this.lookOf(element, handed)
    if (look.display === 'none') return
    const seen = opacity * shareOf(look.opacity)
    const own = `${transform} ${element.getAttribute('transform') ?? ''}`
    const name = element.localName
    if (LEFT_OUT.has(name)) return void this.leftOut++
    if (name === 'use') return this.use(element, own, look, seen)
    if (HOLDS.has(name)) {
      const inner =
        name === 'svg' ? `${own} ${placed(element)} ${viewed(boxOf(element), sizeOf(element), element)}` : own
      return this.into(element, inner, handed, seen)
    }
    const d = pathOf(element)
    if (d === '' || look.visibility === 'hidden' || look.visibility === 'collapse') return
    const fill = this.colour(look.fill, look, seen * shareOf(look['fill-opacity']))
    const stroke = this.colour(look.stroke, look, seen * shareOf(look['stroke-opacity']))
    const width = lengthIn(look['stroke-width'] ?? '1', 1)
    if (fill === null && (stroke === null || !(width > 0))) return
    if (this.paths.length >= LIMITS.elementsPerDrawing) throw new TooMuchDrawn()
    const winding = look['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero'
    this.paths.push({ d, transform: own, fill, winding, stroke: width > 0 ? stroke : null, width })
  }

  /** Something that is drawn elsewhere, drawn here. */
  private use(element: Element, transform: string, look: Look, opacity: number): void {
    const used = linked(this.root, hrefOf(element))
    if (!used) return
    const there = `${transform} ${placed(element)}`
    if (used.localName !== 'symbol') return this.read(used, there, look, opacity)
    const box = boxOf(used)
    const size = {
      width: lengthOf(element, 'width', box?.width ?? 0),
      height: lengthOf(element, 'height', box?.height ?? 0),
    }
    this.into(used, `${there} ${viewed(box, size, used)}`, look, opacity)
  }

  /** How something looks: what it was handed, what sheets say of it, and what it says itself. */
  private lookOf(element: Element, handed: Look): Look {
    const look: Record<string, string> = {}
    for (const name of HANDED_DOWN) if (handed[name] !== undefined) look[name] = handed[name]
    const say = (name: string, value: string) => {
      if (value !== 'inherit') look[name] = value
    }
    for (const name of SAID) {
      const value = element.getAttribute(name)
      if (value !== null) say(name, value.trim())
    }
    for (const [name, value] of Object.entries(this.sheets.get(element) ?? {})) say(name, value)
    for (const part of (element.getAttribute('said') ?? '').split(';')) {
      const [name = '', value = ''] = part.split(':')
      if (SAID.includes(name.trim())) say(name.trim(), value.replace(/!important/i, '').trim())
    }
    return look
  }

  /** What a paint is as one colour on the paper; null where nothing is painted. */
  private colour(paint: string | undefined, look: Look, share: number): string | null {
    const { paper } = this.ground
    if (paint === undefined || paint === 'none') return null
    if (paint.startsWith('url(')) {
      const shades = this.shadesOf(paint)
      if (shades.length > 0) return plainColour(meanOf(shades, paper), share, paper)
      const instead = paint.replace(/^url\([^)]*\)\s*/, '')
      if (instead === '') this.leftOut++
      return instead === '' || instead === 'none' ? null : this.colour(instead, look, share)
    }
    const written = paint.toLowerCase() === 'currentcolor' ? (look.color ?? 'black') : paint
    return plainColour(written, share, paper)
  }

  /** The colours that one passes into the other, where a paint is such. */
  private shadesOf(paint: string): string[] {
    let gradient = linked(this.root, paint)
    for (let i = 0; gradient && i < DEEPEST; i++) {
      const stops = [...gradient.children].filter(child => child.localName === 'stop')
      if (stops.length > 0) {
        return stops.flatMap(stop => {
          const look = this.lookOf(stop, {})
          return plainColour(look['stop-color'] ?? 'black', shareOf(look['stop-opacity']), this.ground.paper) ?? []
        })
      }
      gradient = linked(this.root, hrefOf(gradient))
    }
    return []
  }
}

/** The middle of some colours (#rrggbb). */
function meanOf(colours: readonly string[], paper: string): string {
  return colours.reduce((mean, colour, i) => plainColour(colour, 1 / (i + 1), mean) ?? mean, colours[0] ?? paper)
}

/** What style sheets in a text say of its elements; later rules over earlier ones. */
function saidInSheets(root: Element): ReadonlyMap<Element, Look> {
  const said = new Map<Element, Record<string, string>>()
  for (const style of root.getElementsByTagName('sheet')) {
    const sheet = new CSSStyleSheet()
    try {
      sheet.replaceSync((style.textContent ?? '').replace(/@import\b[^;]*;?/gi, ''))
    } catch {
      continue
    }
    for (const rule of sheet.cssRules) {
      if (!(rule instanceof CSSStyleRule)) continue
      const tells = SAID.flatMap(name => {
        const value = rule.style.getPropertyValue(name)
        return value === '' ? [] : [[name, value] as const]
      })
      if (tells.length === 0) continue
      for (const element of matching(root, rule.selectorText)) {
        said.set(element, { ...said.get(element), ...Object.fromEntries(tells) })
      }
    }
  }
  return said
}

function matching(root: Element, selector: string): readonly Element[] {
  try {
    return [...(root.matches(selector) ? [root] : []), ...root.querySelectorAll(selector)]
  } catch {
    return []
  }
}

/** A share of 1, as a number or in hundredths. */
function shareOf(text: string | undefined): number {
  if (text === undefined) return 1
  const number = Number.parseFloat(text) / (text.trim().endsWith('%') ? 100 : 1)
  return Number.isFinite(number) ? Math.max(0, Math.min(1, number)) : 1
}

/** CSS pixels of a unit (https://www.w3.org/TR/css-values-4/#absolute-lengths). */
const UNIT_PX: Readonly<Record<string, number>> = {
  '': 1,
  px: 1,
  pt: 96 / 72,
  pc: 16,
  in: 96,
  cm: 96 / 2.54,
  mm: 96 / 25.4,
  em: 16,
  rem: 16,
}
/** A length in pixels; what is not said in a known way is taken as told. */
function lengthIn(text: string, otherwise: number): number {
  const [, number, unit = ''] = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*([a-z]*)\s*$/i.exec(text) ?? []
  const px = UNIT_PX[unit.toLowerCase()]
  return number === undefined || px === undefined ? otherwise : Number(number) * px
}
const lengthOf = (element: Element, name: string, otherwise = 0): number =>
  lengthIn(element.getAttribute(name) ?? '', otherwise)

interface Size {
  readonly width: number
  readonly height: number
}
interface ViewBox extends Size {
  readonly x: number
  readonly y: number
}

const numbersIn = (text: string): number[] => (text.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? []).map(Number)

function boxOf(element: Element): ViewBox | null {
  const [x, y, width, height] = numbersIn(element.getAttribute('viewBox') ?? '')
  return x !== undefined && y !== undefined && width && height && width > 0 && height > 0
    ? { x, y, width, height }
    : null
}

const sizeOf = (element: Element): Size => ({
  width: lengthOf(element, 'width', boxOf(element)?.width ?? 0),
  height: lengthOf(element, 'height', boxOf(element)?.height ?? 0),
})

const placed = (element: Element): string => `translate(${lengthOf(element, 'x')} ${lengthOf(element, 'y')})`

/** From a view box to the room it has: whole and in the middle unless said to fill it (SVG 2, 8.6). */
function viewed(box: ViewBox | null, { width, height }: Size, element: Element): string {
  if (!box || !(width > 0 && height > 0)) return ''
  const [across, down] = [width / box.width, height / box.height]
  const how = element.getAttribute('preserveAspectRatio') ?? ''
  const scale = how.includes('slice') ? Math.max(across, down) : Math.min(across, down)
  if (how.startsWith('none')) return `scale(${across} ${down}) translate(${-box.x} ${-box.y})`
  const [dx, dy] = [(width - box.width * scale) / 2, (height - box.height * scale) / 2]
  return `translate(${dx} ${dy}) scale(${scale}) translate(${-box.x} ${-box.y})`
}

/** How a rounded corner is drawn: an arc to the next side. */
const cornered = (rx: number, ry: number, x: number, y: number) => (rx > 0 ? `A${rx} ${ry} 0 0 1 ${x} ${y}` : '')

/** The path of a figure; empty where it is none. */
function pathOf(element: Element): string {
  const of = (name: string, otherwise = 0) => lengthOf(element, name, otherwise)
  switch (element.localName) {
    case 'path':
      return element.getAttribute('d') ?? ''
    case 'line':
      return `M${of('x1')} ${of('y1')}L${of('x2')} ${of('y2')}`
    case 'polyline':
    case 'polygon': {
      const numbers = numbersIn(element.getAttribute('points') ?? '')
      const points = numbers.slice(0, numbers.length - (numbers.length % 2)).join(' ')
      return points === '' ? '' : `M${points}${element.localName === 'polygon' ? 'Z' : ''}`
    }
    case 'rect': {
      const [x, y, w, h] = [of('x'), of('y'), of('width'), of('height')]
      if (!(w > 0 && h > 0)) return ''
      const [rx, ry] = [Math.min(w / 2, of('rx', of('ry'))), Math.min(h / 2, of('ry', of('rx')))]
      if (!(rx > 0 && ry > 0)) return `M${x} ${y}h${w}v${h}h${-w}Z`
      return [
        `M${x + rx} ${y}H${x + w - rx}${cornered(rx, ry, x + w, y + ry)}V${y + h - ry}${cornered(rx, ry, x + w - rx, y + h)}`,
        `H${x + rx}${cornered(rx, ry, x, y + h - ry)}V${y + ry}${cornered(rx, ry, x + rx, y)}Z`,
      ].join('')
    }
    case 'circle':
    case 'ellipse': {
      const [cx, cy] = [of('cx'), of('cy')]
      const [rx, ry] = [of('rx', of('r', of('ry'))), of('ry', of('r', of('rx')))]
      if (!(rx > 0 && ry > 0)) return ''
      return `M${cx - rx} ${cy}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}Z`
    }
    default:
      return ''
  }
}
