import { presetWish, valueOf } from '@unhurried/core/chart'
import { FIRST, AS_IT_COMES, get, keysAround, makeDrawings, recipeShot, type Operation } from '@unhurried/core/document'
import { bounce } from '@unhurried/core/motion'
import { rotation, map, type Point } from '@unhurried/core/geometry'
import { Study, type Drawn } from './study.ts'
import { curve, disc, type Mark } from './tilda.ts'

/** The exercise: 18 frames at 24, on twos; the acorn leaves the branch slowly and hits the ground fast. */
export const ACORN = { width: 720, height: 720, fps: 24, frames: 18, paper: '#fdfaf3' }

const TOP: Point = { x: 360, y: 130 }
const GROUND: Point = { x: 360, y: 590 }
/** of the ball it is worked out as, in pixels */
const RADIUS = 56

/** An acorn, cap up, turned a little further the further it has fallen. */
function acorn(t: number): Mark[] {
  const at = { x: TOP.x, y: TOP.y + (GROUND.y - TOP.y) * t }
  const turn = rotation(0.16 + t * 0.7, at)
  const place = (ps: readonly Point[]) => ps.map(p => map(turn, { x: at.x + p.x, y: at.y + p.y }))
  const p = (...xy: number[]) =>
    Array.from({ length: xy.length / 2 }, (_, i) => ({ x: xy[2 * i] as number, y: xy[2 * i + 1] as number }))
  const nut = place(curve(p(-36, -12, -38, 14, -22, 42, 0, 58, 22, 42, 38, 14, 36, -12, 0, -18), true))
  const cap = place(curve(p(-46, -10, -44, -30, -20, -46, 20, -46, 44, -30, 46, -10, 0, -2), true))
  const stalk = place(curve(p(-2, -46, 2, -58, 12, -68)))
  const line = (points: readonly Point[], width: number): Mark => ({ kind: 'line', swatch: 'graphite', width, points })
  const hatch = [-26, -8, 10, 28].map(x => line(place(curve(p(x - 6, -12, x, -26, x + 8, -38))), 2.4))
  return [
    { kind: 'shape', swatch: 'straw', width: 1, points: nut },
    { kind: 'shape', swatch: 'bark', width: 1, points: cap },
    line(nut, 5),
    line(cap, 5),
    line(stalk, 6),
    ...hatch,
  ]
}

function ground(): Mark[] {
  const p = (...xy: number[]) =>
    Array.from({ length: xy.length / 2 }, (_, i) => ({ x: xy[2 * i] as number, y: xy[2 * i + 1] as number }))
  const earth = curve(p(-6, 666, 200, 650, 360, 656, 540, 648, 726, 664), false, 14)
  const branch = curve(p(170, 20, 280, 44, 372, 58, 470, 50, 600, 66), false, 14)
  const leaf = (x: number, y: number): Mark => ({
    kind: 'shape',
    swatch: 'lily',
    width: 1,
    points: disc({ x, y }, 34, 15),
  })
  return [
    { kind: 'shape', swatch: 'mist', width: 1, points: [...earth, { x: 726, y: 726 }, { x: -6, y: 726 }] },
    leaf(250, 66),
    leaf(520, 84),
    { kind: 'line', swatch: 'bark', width: 12, points: branch },
    { kind: 'line', swatch: 'moss', width: 4, points: earth },
  ]
}

/** An exercise half done: both keys, the chart and its sheets are there, the breakdown is drawn, the halves wait. */
export function acornExercise(): Drawn {
  const study = new Study('acorn', ACORN, 'acorn')
  const sheet = (layer: string, id: string, number: number, from: number, frames: number): Operation[] => [
    { kind: 'drawing.add', drawing: { id, layer, number, role: 'key', elements: {}, marks: {} } },
    { kind: 'exposure.write', take: FIRST.take, layer, from, runs: [{ drawing: id, frames }] },
  ]
  study.commit('ground', sheet(FIRST.background, 'ground', 1, 0, ACORN.frames))
  study.draw('ground', ground())
  study.commit('keys', [...sheet(FIRST.drawn, 'acorn-a', 1, 0, 2), ...sheet(FIRST.drawn, 'acorn-b', 13, 12, 6)])
  study.draw('acorn-a', acorn(0))
  study.draw('acorn-b', acorn(1))

  const take = get(study.document.takes, FIRST.take)
  const pair = keysAround(study.document, take, FIRST.drawn, 0)
  if (!pair) throw new Error('the exercise has no keys')
  // What it was worked out by: half a second from rest, straight down, on twos; it lies where it lands.
  const fall = {
    x: TOP.x,
    y: TOP.y,
    ground: GROUND.y + RADIUS,
    radius: RADIUS,
    gravity: (2 * (GROUND.y - TOP.y)) / 12 ** 2,
  }
  const rest = { forward: 0, bounces: 0, squash: 0, stretch: 0, exposure: 2 }
  const numbers = { ...bounce.defaults(recipeShot(study.document)), ...fall, ...rest }
  study.commit('guide: bounce', [
    {
      kind: 'guide.add',
      guide: {
        id: 'acorn-falls',
        recipe: 'bounce',
        numbers,
        take: FIRST.take,
        layer: FIRST.drawn,
        from: 0,
        ...AS_IT_COMES,
      },
    },
  ])
  let made = 0
  const making = makeDrawings(study.document, take, pair, presetWish('slow-out'), 5, 2, () => `acorn-i${++made}`)
  if (!making.ok) throw new Error(making.code)
  study.commit('drawings of the chart', making.ops)
  const breakdown = Object.values(study.document.charts)[0]?.ticks.find(tick => tick.depth === 0)
  if (breakdown?.drawing) study.draw(breakdown.drawing, acorn(valueOf(breakdown.at)))
  return study.drawn
}
