import { newLayer, FIRST, type Drawing, type Operation, type Role, type Swatch } from '@unhurried/core/document'
import type { Nib, Point } from '@unhurried/core/geometry'
import { Study, type Drawn } from './study.ts'
import { moth, type Flight } from './moth.ts'
import { curve, disc, type Mark } from './tilda.ts'

/** A lantern over the marsh at night: 54 frames at 24, three turns of a flame on threes. */
export const LANTERN = { width: 1280, height: 720, fps: 24, frames: 54, paper: '#26313b' }

const SWATCHES: readonly Swatch[] = [
  { id: 'mist-deep', name: 'deep green', colour: '#d3dccb', order: 21 },
  { id: 'night', name: 'night', colour: '#1d262e', order: 22 },
  { id: 'dusk', name: 'dusk', colour: '#304150', order: 23 },
  { id: 'iron', name: 'iron', colour: '#11161a', order: 24 },
  { id: 'glass', name: 'glass', colour: '#41535f', order: 25 },
  { id: 'flame', name: 'flame', colour: '#f2b03c', order: 26 },
  { id: 'flame-core', name: 'flame core', colour: '#fdf0bf', order: 27 },
  { id: 'flame-edge', name: 'flame edge', colour: '#d4702c', order: 28 },
  { id: 'glow', name: 'glow', colour: '#c98f3f', order: 29 },
]

/** Of the colours a shot comes with, the moth needs these; the others are put away. */
const KEPT = ['graphite', 'bark', 'mist', 'lamp']

/** Six drawings on threes make a turn of 18 frames; nine of the moth, on twos, as well. */
const FLAMES = 6
const FLAME_FRAMES = 3
const MOTHS: Flight = { round: { x: 640, y: 330 }, acrossPx: 235, upPx: 150, fromRad: -0.9, drawings: 9 }
const MOTH_FRAMES = 2

const WICK: Point = { x: 640, y: 432 }
const HEIGHT = 142
const TAPERED: Nib = { look: 'ink', ends: 'tapered', thinning: 0.5 }
const PENCIL: Nib = { look: 'pencil', ends: 'round', thinning: 0.5 }
const BRUSH: Nib = { look: 'brush', ends: 'round', thinning: 0.2 }

const shape = (swatch: string, points: readonly Point[]): Mark => ({ kind: 'shape', swatch, width: 1, points })
const line = (swatch: string, width: number, points: readonly Point[], nib?: Nib): Mark => ({
  kind: 'line',
  swatch,
  width,
  points,
  ...(nib && { nib }),
})
const pts = (...xy: number[]): Point[] =>
  Array.from({ length: xy.length / 2 }, (_, i) => ({ x: xy[2 * i] as number, y: xy[2 * i + 1] as number }))

/** A place on the flame: `u` up its height (0–1), `side` −1 to 1 across it, at the share `t` of its turn. */
function onFlame(t: number, u: number, side: number, size = 1): Point {
  // A wave that runs up the flame and grows on its way; the sides follow one another.
  const sway = 30 * u ** 1.4 * Math.sin(2 * Math.PI * (t - 0.75 * u + 0.06 * side))
  const swell = 1 + 0.14 * Math.sin(2 * Math.PI * (t - u) + 0.8 * side)
  const width = 50 * size * Math.sin(Math.PI * u ** 0.62) ** 0.85 * (1 - 0.3 * u) * swell
  const height = HEIGHT * size * (1 + 0.07 * Math.sin(2 * Math.PI * t + 1))
  return { x: WICK.x + sway * size + side * width, y: WICK.y - u * height }
}

function flameEdge(t: number, size: number): Point[] {
  const up = Array.from({ length: 15 }, (_, i) => onFlame(t, i / 14, -1, size))
  const down = Array.from({ length: 15 }, (_, i) => onFlame(t, 1 - i / 14, 1, size))
  return curve([...up, ...down.slice(1, -1)], true, 4)
}

/** A wisp that leaves the tip, thins and is gone before the next one leaves it. */
function wisp(t: number): Mark[] {
  const life = (t + 0.35) % 1
  if (life > 0.85) return []
  const tip = onFlame(t, 1, 0)
  const [r, rise] = [13 * (1 - life), 12 + 40 * life]
  const at = { x: tip.x + 10 * Math.sin(2 * Math.PI * (life - 0.3)), y: tip.y - rise }
  const drop = curve(
    [
      { x: at.x, y: at.y - r * 1.9 },
      { x: at.x + r * 0.7, y: at.y + r * 0.2 },
      { x: at.x, y: at.y + r },
      { x: at.x - r * 0.7, y: at.y + r * 0.2 },
    ],
    true,
    5,
  )
  return [shape('flame', drop), line('flame-edge', 1.8, drop)]
}

function flame(t: number): Mark[] {
  const [edge, core] = [flameEdge(t, 1), flameEdge(t - 0.08, 0.55)]
  const lick = Array.from({ length: 9 }, (_, i) => onFlame(t - 0.12, 0.24 + 0.055 * i, 0.35, 0.92))
  return [
    shape('flame', edge),
    shape('flame-core', core),
    ...wisp(t),
    line('flame-edge', 3, edge),
    line('flame-edge', 2.4, lick, TAPERED),
  ]
}

/** The light round the flame, a little larger and smaller. */
function glow(i: number): Mark[] {
  const r = 46 + 7 * i
  const ring = disc({ x: 640 + 3 * (i - 1), y: 356 }, r, r, 40)
  return [line('glow', 300 + 14 * i, ring, BRUSH), line('glow', 150 + 8 * i, ring, BRUSH)]
}

/** What stands in front of the flame and is drawn once: the lantern's roof, its bars, foot and ring. */
function frame(): Mark[] {
  const roof = curve(pts(552, 246, 570, 222, 608, 196, 640, 184, 672, 196, 710, 222, 728, 246), false, 8)
  const foot = curve(pts(560, 470, 568, 494, 712, 494, 720, 470), false, 6)
  const bar = (x: number, lean: number) =>
    line('iron', 8, curve(pts(x, 246, x + lean, 360, x, 470)), { ...TAPERED, ends: 'round', thinning: 0.2 })
  return [
    shape('iron', [...roof, { x: 728, y: 254 }, { x: 552, y: 254 }]),
    shape('iron', [{ x: 554, y: 462 }, { x: 726, y: 462 }, ...foot.slice().reverse()]),
    bar(566, -7),
    bar(714, 7),
    line('iron', 7, disc({ x: 640, y: 168 }, 15, 17, 30)),
    line('glass', 2.2, curve(pts(580, 240, 606, 214, 634, 200)), TAPERED),
    line('glass', 2, curve(pts(576, 486, 640, 488, 700, 486)), TAPERED),
    line('glass', 3, curve(pts(584, 270, 579, 340, 584, 420)), TAPERED),
    line('iron', 4, curve(pts(640, 462, 641, 448, 640, 436))),
  ]
}

function reed(x: number, foot: number, height: number, lean: number): Mark[] {
  const stem = curve(pts(x, foot, x + lean * 0.3, foot - height * 0.5, x + lean, foot - height))
  const head = disc({ x: x + lean, y: foot - height - 12 }, 8, 27, 24)
  const leaf = curve(pts(x + 4, foot, x + 26 + lean * 0.4, foot - height * 0.35, x + 52 + lean, foot - height * 0.55))
  return [line('iron', 7, stem), shape('iron', head), line('iron', 9, leaf, TAPERED)]
}

/** The marsh behind: far bank, water with the lantern's light on it, reeds, and the post it hangs from. */
function marshAtNight(): Mark[] {
  const bank = curve(pts(-10, 548, 150, 516, 330, 534, 520, 524, 760, 540, 950, 518, 1120, 530, 1290, 508), false, 10)
  const post = pts(904, 720, 910, 110, 938, 110, 946, 720)
  const arm = curve(pts(922, 136, 820, 118, 720, 118, 648, 134), false, 10)
  const shore = (x: number, y: number, w: number) => line('glow', 3, pts(x - w, y, x + w, y), PENCIL)
  const hatch = Array.from({ length: 22 }, (_, i) => {
    const [x, y] = [40 + ((i * 211) % 1200), 566 + ((i * 67) % 140)]
    const w = 26 + ((i * 37) % 60)
    return line('dusk', 3.5, curve(pts(x - w, y, x, y + 2, x + w, y - 1)), PENCIL)
  })
  const stars = [
    [120, 90],
    [262, 168],
    [396, 66],
    [1030, 84],
    [1160, 190],
    [1088, 286],
    [204, 316],
  ].map(([x, y], i) => shape('glass', disc({ x: x as number, y: y as number }, 2 + (i % 2), 2 + (i % 2), 10)))
  return [
    shape('dusk', [...bank, { x: 1290, y: 560 }, { x: -10, y: 560 }]),
    shape('night', pts(-10, 552, 1290, 552, 1290, 730, -10, 730)),
    ...stars,
    ...hatch,
    shore(640, 590, 74),
    shore(646, 610, 52),
    shore(634, 634, 66),
    shore(644, 662, 38),
    shore(638, 690, 50),
    shape('iron', post),
    line('iron', 15, arm),
    line('iron', 9, curve(pts(920, 210, 880, 170, 846, 124))),
    line('iron', 5, pts(644, 134, 640, 152)),
    ...reed(86, 716, 236, -16),
    ...reed(150, 724, 170, 14),
    ...reed(1160, 722, 214, 20),
    ...reed(1222, 718, 150, -10),
  ]
}

const ROLES: readonly Role[] = ['key', 'inbetween', 'inbetween', 'breakdown', 'inbetween', 'inbetween']

/** Lantern: a flame cycle on threes, its glow, and a moth that goes round it in the same time. */
export function lantern(): Drawn {
  const study = new Study('lantern', LANTERN, 'flame')
  const sheet = (
    layer: string,
    id: string,
    number: number,
    role: Role,
    marks: readonly Mark[],
    places: Drawing['marks'] = {},
  ) => {
    const drawing = { id, layer, number, role, elements: {}, marks: places }
    study.commit(`new drawing ${number}`, [{ kind: 'drawing.add', drawing }])
    study.draw(id, marks)
  }
  const layer = (id: string, name: string, order: number, follows: string | null = null) =>
    study.commit(`layer ${name}`, [{ kind: 'layer.add', layer: newLayer(id, name, order, { follows, volume: 'off' }) }])
  const shown = (on: string, drawing: string) =>
    study.commit('expose', [
      { kind: 'exposure.write', take: FIRST.take, layer: on, from: 0, runs: [{ drawing, frames: LANTERN.frames }] },
    ])
  const cycle = (id: string, on: string, drawings: readonly string[], frames: number) =>
    study.commit('link as a cycle', [
      {
        kind: 'cycle.add',
        take: FIRST.take,
        cycle: { id, layer: on, from: 0, to: null, offset: 0, pattern: drawings.map(drawing => ({ drawing, frames })) },
      },
    ])
  const round = (p: Point): Point => ({ x: Math.round(p.x * 10) / 10, y: Math.round(p.y * 10) / 10 })

  study.commit('colours of the night', [
    ...Object.keys(study.document.swatches)
      .filter(id => !KEPT.includes(id))
      .map((id): Operation => ({ kind: 'swatch.remove', id })),
    ...SWATCHES.map((swatch): Operation => ({ kind: 'swatch.add', swatch })),
  ])
  study.commit('name marsh', [{ kind: 'layer.set', id: FIRST.background, patch: { name: 'marsh' } }])
  sheet(FIRST.background, 'marsh-at-night', 1, 'key', marshAtNight())
  shown(FIRST.background, 'marsh-at-night')

  // Flames, their glow and beating wings have no area to be kept.
  study.commit('volume', [{ kind: 'layer.set', id: FIRST.drawn, patch: { volume: 'off' } }])
  layer('layer-glow', 'glow', 0.4)
  const glows = [0, 1, 2].map(i => `glow-${i + 1}`)
  glows.forEach((id, i) => sheet('layer-glow', id, 1 + 6 * i, i === 0 ? 'key' : 'inbetween', glow(i)))
  cycle('glow-cycle', 'layer-glow', [...glows, glows[1] as string], FLAME_FRAMES)

  study.commit('mark tip', [
    { kind: 'mark.add', mark: { id: 'tip', layer: FIRST.drawn, name: 'tip', order: 0, kind: 'point' } },
  ])
  const flames = ROLES.map((_, i) => `flame-${i + 1}`)
  flames.forEach((id, i) => {
    const t = i / FLAMES
    sheet(FIRST.drawn, id, 1 + FLAME_FRAMES * i, ROLES[i] as Role, flame(t), {
      tip: { ...round(onFlame(t, 1, 0)), planted: false },
    })
  })
  cycle('flame-cycle', FIRST.drawn, flames, FLAME_FRAMES)

  layer('layer-frame', 'lantern', 1.3)
  sheet('layer-frame', 'lantern-frame', 1, 'key', frame())
  shown('layer-frame', 'lantern-frame')

  // Lines on one layer, their paint on another that is timed with it.
  layer('layer-moth', 'moth', 1.6)
  layer('layer-moth-paint', 'moth paint', 1.5, 'layer-moth')
  for (const { id, number, marks } of moth(MOTHS)) {
    const role = number === 1 ? 'key' : 'inbetween'
    const [lines, paint] = [marks.filter(mark => mark.kind === 'line'), marks.filter(mark => mark.kind === 'shape')]
    sheet('layer-moth', id, number, role, lines)
    sheet('layer-moth-paint', `${id}-paint`, number, role, paint)
  }
  const moths = moth(MOTHS).map(({ id }) => id)
  cycle('moth-cycle', 'layer-moth', moths, MOTH_FRAMES)

  study.commit('loop and notes', [
    { kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: FLAMES * FLAME_FRAMES } },
    {
      kind: 'note.add',
      note: { id: 'note-1', from: 0, to: 18, text: 'The flame leans with the draught; a wisp leaves it.' },
    },
    {
      kind: 'note.add',
      note: { id: 'note-2', from: 18, to: 54, text: 'Twice more. The moth goes round once to each turn.' },
    },
  ])
  return study.drawn
}
