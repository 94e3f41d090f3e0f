import { presetTicks, presetWish, valueOf } from '@unhurried/core/chart'
import {
  newLayer,
  copyTake,
  exposeSelection,
  FIRST,
  get,
  holdDrawing,
  type ChartTick,
  type Operation,
  type Role,
  type Swatch,
} from '@unhurried/core/document'
import { pointAlong, smoothPath, type Point } from '@unhurried/core/geometry'
import { measured } from './hand.ts'
import { marsh } from './marsh.ts'
import { moth, ROUND_THE_MOON } from './moth.ts'
import { Study, type Drawn } from './study.ts'
import { marksOn, tilda, type Mark, type Pose } from './tilda.ts'

/** The hop: 30 frames at 24, on twos, from the left pad to the right one. */
export const HOP = { width: 1280, height: 720, fps: 24, frames: 30, paper: '#fdfaf3' }

export const MARSH_SWATCHES: readonly Swatch[] = [
  { id: 'reed', name: 'reed', colour: '#b9b394', order: 21 },
  { id: 'haze', name: 'haze', colour: '#f2f2e4', order: 22 },
  { id: 'mist-deep', name: 'deep green', colour: '#d3dccb', order: 23 },
]

const LEFT_TOES = { x: 304, y: 604 }
const RIGHT_TOES = { x: 1010, y: 604 }
const SIZE = 1.42

const base: Omit<Pose, 'at' | 'foot' | 'hand'> = { tilt: 0, stretch: 1, size: SIZE, planted: true, drag: 0, lid: 0 }

interface Planned {
  readonly id: string
  readonly number: number
  readonly role: Role
  readonly frames: number
  readonly pose: Pose
  /** where the middle of the silhouette belongs; null leaves the pose where it is */
  readonly centre: Point | null
}

const from = (p: Point, dx: number, dy: number): Point => ({ x: p.x + dx, y: p.y + dy })

const CROUCH: Pose = {
  ...base,
  at: from(LEFT_TOES, 6, -50),
  tilt: -0.1,
  stretch: 0.93,
  foot: LEFT_TOES,
  hand: from(LEFT_TOES, 92, 2),
  drag: 0.06,
}
const LAND: Pose = {
  ...base,
  at: from(RIGHT_TOES, -10, -62),
  tilt: 0.3,
  stretch: 1.02,
  foot: RIGHT_TOES,
  hand: from(RIGHT_TOES, 84, 2),
  drag: -0.42,
}
const TOP: Pose = {
  ...base,
  at: { x: 660, y: 250 },
  tilt: -0.04,
  stretch: 1.1,
  planted: false,
  foot: { x: 410, y: 352 },
  hand: { x: 768, y: 306 },
  drag: -0.1,
}

/** How she flies at a share of the way: body along the path, legs trailing on the way up and reaching on the way down. */
function flying(t: number, at: Point): Pose {
  const u = (t - 0.5) * 2
  const rising = t < 0.5
  const tilt = rising ? -0.72 + 0.66 * (1 + u) : 0.12 + 0.5 * u
  const trail = rising ? from(at, -178 - 60 * u, 150 - 70 * (1 + u)) : from(at, -190 + 90 * u, 36 + 60 * u)
  return {
    ...base,
    at,
    tilt,
    stretch: rising ? 1.2 - 0.06 * (1 + u) : 1.06,
    planted: false,
    foot: trail,
    hand: rising ? from(at, 88 + 10 * u, 22 + 30 * (1 + u)) : from(at, 112, 76),
    drag: rising ? 0.5 + 0.3 * u : -0.35 * u - 0.1,
  }
}

/** The way from the crouch over the top to the landing, through the middles of the silhouettes. */
function way(): ReturnType<typeof smoothPath> {
  const middle = (pose: Pose) => measured(tilda(pose)).centroid as Point
  return smoothPath([middle(CROUCH), { x: 652, y: 262 }, middle(LAND)])
}

const TICKS = presetTicks('both', 5)
/** The third inbetween is drawn a little short of its tick: something for the rail to point out. */
const SHORT_OF_TICK: Record<number, number> = { 3: -0.055 }

function planned(): Planned[] {
  const path = way()
  const flight = TICKS.map((tick, i): Planned => {
    const t = valueOf(tick.at)
    const centre = pointAlong(path, t + (SHORT_OF_TICK[i] ?? 0))
    const pose = i === 0 ? pushing(centre) : i === 4 ? reaching(centre) : t === 0.5 ? TOP : flying(t, centre)
    const number = 5 + 2 * i
    return {
      id: `tilda-${number}`,
      number,
      role: tick.depth === 0 ? 'breakdown' : 'inbetween',
      frames: 2,
      pose,
      centre,
    }
  })
  const rest = (number: number, role: Role, frames: number, pose: Pose): Planned => {
    return { id: `tilda-${number}`, number, role, frames, pose, centre: null }
  }
  return [
    rest(1, 'key', 4, CROUCH),
    ...flight,
    rest(15, 'key', 2, LAND),
    rest(17, 'breakdown', 2, { ...LAND, at: from(RIGHT_TOES, 2, -34), tilt: 0.02, stretch: 1.16, drag: 0.1, lid: 0.7 }),
    rest(19, 'inbetween', 2, { ...LAND, at: from(RIGHT_TOES, 4, -64), tilt: -0.2, stretch: 0.92, drag: 0.3, lid: 0.1 }),
    rest(21, 'inbetween', 2, { ...LAND, at: from(RIGHT_TOES, 5, -54), tilt: -0.13, stretch: 0.95, drag: -0.08 }),
    rest(23, 'key', 8, {
      ...CROUCH,
      at: from(RIGHT_TOES, 6, -54),
      foot: RIGHT_TOES,
      hand: from(RIGHT_TOES, 92, 2),
      tilt: -0.14,
      stretch: 0.95,
    }),
  ]
}

/** Just off: stretched along the leap, toes still on the pad. */
const pushing = (at: Point): Pose => ({
  ...base,
  at,
  tilt: -0.62,
  stretch: 1.16,
  foot: LEFT_TOES,
  hand: from(at, 92, -4),
  drag: 0.62,
})

/** Just before the pad: feet forward, hands out. */
const reaching = (at: Point): Pose => ({
  ...base,
  at,
  tilt: 0.46,
  stretch: 1.05,
  planted: false,
  foot: from(at, 34, 96),
  hand: from(at, 122, 96),
  drag: -0.6,
})

/**
 * Her lines in a pose, with the area of the first key and (when asked) the middle of the silhouette where it belongs.
 * Found by steps that get smaller: where a gap between leg and body closes, the area jumps, and full steps would go on
 * jumping to and fro. The best of all steps is taken.
 */
function settled(plan: Planned, area: number): { marks: Mark[]; pose: Pose } {
  let pose = plan.pose
  let best = { fault: Infinity, marks: tilda(pose), pose }
  for (let i = 0; i < 30 && best.fault > 0.004; i++) {
    const marks = tilda(pose)
    const now = measured(marks)
    const { x, y } = now.centroid as Point
    const dx = plan.centre ? plan.centre.x - x : 0
    const dy = plan.centre ? plan.centre.y - y : 0
    const growth = area / now.area
    const fault = Math.abs(growth - 1) + Math.hypot(dx, dy) / 400
    if (fault < best.fault) best = { fault, marks, pose }
    const step = 1 / (1 + i / 5)
    const moved = [dx * step, dy * step] as const
    const follow = pose.planted
      ? { foot: pose.foot, hand: pose.hand }
      : { foot: from(pose.foot, ...moved), hand: from(pose.hand, ...moved) }
    pose = { ...pose, ...follow, at: from(pose.at, ...moved), size: pose.size * growth ** (0.5 * step) }
  }
  return best
}

const round = (p: Point): Point => ({ x: Math.round(p.x * 10) / 10, y: Math.round(p.y * 10) / 10 })

/** The marsh with its pads, and its colours. */
function drawPads(study: Study): void {
  study.commit(
    'colours of the marsh',
    MARSH_SWATCHES.map((swatch): Operation => ({ kind: 'swatch.add', swatch })),
  )
  const pads = { id: 'pads', layer: FIRST.background, number: 1, role: 'key', elements: {}, marks: {} } as const
  study.commit('pads', [
    { kind: 'layer.set', id: FIRST.background, patch: { name: 'pads' } },
    { kind: 'drawing.add', drawing: pads },
    {
      kind: 'exposure.write',
      take: FIRST.take,
      layer: FIRST.background,
      from: 0,
      runs: [{ drawing: 'pads', frames: HOP.frames }],
    },
  ])
  study.draw('pads', marsh())
}

/** Her drawings, each with its marks. */
function drawTilda(study: Study): void {
  study.commit(
    'marks',
    ['nose', 'clasp', 'toes'].map((name, i): Operation => ({
      kind: 'mark.add',
      mark: { id: name, layer: FIRST.drawn, name, order: i, kind: 'point' },
    })),
  )
  const plans = planned()
  const reference = measured(tilda(CROUCH)).area
  let frame = 0
  for (const plan of plans) {
    const { id, number, role, frames } = plan
    study.commit(`new drawing ${number}`, [
      { kind: 'drawing.add', drawing: { id, layer: FIRST.drawn, number, role, elements: {}, marks: {} } },
      { kind: 'exposure.write', take: FIRST.take, layer: FIRST.drawn, from: frame, runs: [{ drawing: id, frames }] },
    ])
    frame += frames
    const { marks, pose } = settled(plan, reference)
    study.draw(id, marks)
    const places = Object.fromEntries(
      Object.entries(marksOn(pose)).map(([mark, at]) => [
        mark,
        { ...round(at), planted: mark === 'toes' && pose.planted },
      ]),
    )
    study.commit(`marks on ${number}`, [{ kind: 'marks.place', drawing: id, places }])
  }
}

/** The chart of her hop, and the loop. */
function chartIt(study: Study): void {
  const ticks: ChartTick[] = TICKS.map((tick, i) => ({ ...tick, drawing: `tilda-${5 + 2 * i}` }))
  const chart = { layer: FIRST.drawn, from: 'tilda-1', to: 'tilda-15', wish: presetWish('both'), ticks }
  study.commit('chart', [
    { kind: 'chart.add', chart: { id: 'hop-chart', part: null, ...chart } },
    { kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: HOP.frames } },
  ])
}

/** The moth that goes round the moon. */
function drawMoth(study: Study): void {
  study.commit('moth', [
    {
      kind: 'layer.add',
      // Wings that open and close have no area to be kept.
      layer: newLayer('layer-moth', 'moth', 0.5, { volume: 'off' }),
    },
    ...moth(ROUND_THE_MOON).map(({ id, number }): Operation => ({
      kind: 'drawing.add',
      drawing: { id, layer: 'layer-moth', number, role: number === 1 ? 'key' : 'inbetween', elements: {}, marks: {} },
    })),
  ])
  for (const { id, marks } of moth(ROUND_THE_MOON)) study.draw(id, marks)
  const pattern = moth(ROUND_THE_MOON).map(({ id }) => ({ drawing: id, frames: 2 }))
  study.commit('link as a cycle', [
    {
      kind: 'cycle.add',
      take: FIRST.take,
      cycle: { id: 'moth-cycle', layer: 'layer-moth', from: 0, to: null, offset: 0, pattern },
    },
  ])
}

/** Beats and notes of what happens. */
function noteIt(study: Study): void {
  study.commit('beats', [
    { kind: 'beat.add', beat: { id: 'off', name: 'off', frame: 4 } },
    { kind: 'beat.add', beat: { id: 'lands', name: 'lands', frame: 14 } },
    { kind: 'pin.set', take: FIRST.take, drawing: 'tilda-15', beat: 'lands' },
  ])
  const notes = [
    [0, 4, 'Crouches and looks over to the far pad.'],
    [4, 14, 'Off, long and thin; floats a little at the top.'],
    [14, 22, 'Lands soft, squashed; the satchel swings past her.'],
    [22, 30, 'Settles.'],
  ] as const
  study.commit(
    'action notes',
    notes.map(([start, to, text], i): Operation => ({
      kind: 'note.add',
      note: { id: `note-${i + 1}`, from: start, to, text },
    })),
  )
}

/** The same drawings under other timings. */
function takesOfIt(study: Study): void {
  study.commit(
    'a take that floats',
    copyTake(study.document, FIRST.take, 'floats', 'floats at the top', () => 'floats-guide'),
  )
  const slower = holdDrawing(study.document, get(study.document.takes, 'floats'), FIRST.drawn, 8, 5, {
    following: 'ripple',
    room: 'longer',
  })
  if (!slower.ok) throw new Error(slower.code)
  study.commit('hold longer', slower.ops)
  study.commit(
    'a snappy take',
    copyTake(study.document, FIRST.take, 'snappy', 'snappy', () => 'snappy-guide'),
  )
  const quick = exposeSelection(study.document, get(study.document.takes, 'snappy'), [FIRST.drawn], 4, 14, 1)
  if (!quick.ok) throw new Error(quick.code)
  study.commit('on ones', quick.ops)
  const rest = holdDrawing(study.document, get(study.document.takes, 'snappy'), FIRST.drawn, 20, 13, 'stay')
  if (!rest.ok) throw new Error(rest.code)
  study.commit('hold longer', rest.ops)
}

/** What somebody who looked it through has remarked. */
function remarkOnIt(study: Study): void {
  // Where the satchel would come down later than she does.
  const swing = Array.from({ length: 18 }, (_, i) => ({ x: 872 + 5 * i, y: 470 + Math.round(0.34 * (i - 4) ** 2) }))
  study.commit('remark', [
    {
      kind: 'remark.add',
      remark: {
        ...{ id: 'remark-satchel', by: 'heron', name: 'Heron', frame: 16, drawing: 'tilda-17' },
        at: { x: 884, y: 452 },
        sketch: [swing],
        text: 'She and the satchel land on the same drawing. Let it come down one later.',
        answers: [{ by: 'moth', name: 'Moth', text: 'On 19, then, and up again on 21?' }],
        closed: false,
      },
    },
  ])
}

/** Hop between lily pads, all drawings done. */
export function hop(): Drawn {
  const study = new Study('hop', HOP, 'Tilda')
  drawPads(study)
  drawTilda(study)
  chartIt(study)
  drawMoth(study)
  noteIt(study)
  remarkOnIt(study)
  takesOfIt(study)
  return study.drawn
}
