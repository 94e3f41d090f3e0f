import { FIRST, recipeShot, type Operation } from '@unhurried/core/document'
import { rotation, map, type Point } from '@unhurried/core/geometry'
import { RECIPES, walkAs, walkerOn, type Leg, type Limb, type NumbersOf, type Walker } from '@unhurried/core/motion'
import { MARSH_SWATCHES } from './hop.ts'
import { Study, type Drawn } from './study.ts'
import { curve, disc, limb, line, type Mark, paint, type Part, points, shape } from './tilda.ts'

/** Marching home: four rounds of a walk on the spot at 24, eight drawings on twos. */
export const MARCHING = { width: 1280, height: 720, fps: 24, frames: 64, paper: '#fdfaf3' }

const GROUND = 604
const STRIDE = 108
const TORSO = 138
const HEAD = 60

/** Places given in a measure of their own (to the front, upwards) round a place, turned. */
function set(at: Point, unit: number, turn: number): (ps: readonly Point[]) => Point[] {
  const about = rotation(turn, at)
  return ps => ps.map(p => map(about, { x: at.x + p.x * unit, y: at.y - p.y * unit }))
}

function leg({ joints, ball }: Leg, tone: 'leaf' | 'moss', edge: number): Part {
  const [hip, knee, ankle] = joints as readonly [Point, Point, Point]
  const way = Math.atan2(ball.y - ankle.y, ball.x - ankle.x)
  const toes = [-0.5, 0, 0.4].map(a => {
    const reach = a === 0 ? 17 : 13
    return limb(
      ball,
      { x: ball.x + reach * Math.cos(way + a), y: Math.min(GROUND - 3, ball.y + reach * Math.sin(way + a)) },
      4,
      5.4,
    )
  })
  return {
    outlines: [limb(hip, knee, 27, 17), limb(knee, ankle, 15, 9), limb(ankle, ball, 9, 7), ...toes],
    swatch: tone,
    edge,
    inner: [],
  }
}

function arm({ joints }: Limb, tone: 'leaf' | 'moss', edge: number): Part {
  const [shoulder, elbow, hand] = joints as readonly [Point, Point, Point]
  const way = Math.atan2(hand.y - elbow.y, hand.x - elbow.x)
  const fingers = [-0.5, 0, 0.5].map(a =>
    limb(hand, { x: hand.x + 11 * Math.cos(way + a), y: hand.y + 11 * Math.sin(way + a) }, 3.4, 4.6),
  )
  return {
    outlines: [limb(shoulder, elbow, 12, 9), limb(elbow, hand, 9, 6.5), ...fingers],
    swatch: tone,
    edge,
    inner: [],
  }
}

function trunk({ hip, shoulder }: Walker): Part {
  const place = set(hip, TORSO, Math.atan2(shoulder.x - hip.x, hip.y - shoulder.y))
  const outline = place(
    curve(
      points(
        -0.27,
        -0.14,
        -0.34,
        0.22,
        -0.25,
        0.68,
        -0.15,
        1.02,
        0.13,
        1.04,
        0.24,
        0.72,
        0.37,
        0.3,
        0.32,
        -0.08,
        0.02,
        -0.22,
      ),
      true,
    ),
  )
  const belly = place(
    curve(points(0.09, 1.0, 0.21, 0.72, 0.34, 0.3, 0.28, -0.06, 0.06, -0.16, 0.13, 0.3, 0.07, 0.7), true),
  )
  return { outlines: [outline], swatch: 'leaf', edge: 5, inner: [], accents: [shape('straw', belly)] }
}

function face({ head, shoulder, hip }: Walker): Part {
  const lean = Math.atan2(shoulder.x - hip.x, hip.y - shoulder.y)
  // Frogs have no necks.
  const place = set({ x: head.x, y: head.y + HEAD * 0.5 }, HEAD, lean * 0.6)
  const outline = place(
    curve(
      points(
        -1.02,
        -0.12,
        -0.9,
        0.5,
        -0.36,
        0.76,
        -0.14,
        1.14,
        0.26,
        1.3,
        0.62,
        1.08,
        0.7,
        0.7,
        1.14,
        0.4,
        1.46,
        0,
        1.38,
        -0.4,
        0.9,
        -0.74,
        0.1,
        -0.9,
        -0.7,
        -0.68,
      ),
      true,
    ),
  )
  const eye = place(disc({ x: 0.26, y: 0.84 }, 0.3, 0.33))
  const pupil = place(disc({ x: 0.36, y: 0.84 }, 0.13, 0.17, 16))
  return {
    outlines: [outline],
    swatch: 'leaf',
    edge: 5.2,
    inner: [
      { points: place(curve(points(1.43, -0.14, 1.02, -0.32, 0.46, -0.38, 0.12, -0.24))), width: 3.6 },
      { points: place(curve(points(1.2, 0.2, 1.16, 0.15))), width: 3 },
    ],
    accents: [shape('lamp', eye), shape('graphite', pupil), line(3.6, eye)],
  }
}

/** The satchel at the end of its strap, turned as what it hangs on is. */
function satchel({ pack, shoulder }: Walker): Part {
  const [from, to] = [pack[pack.length - 2] as Point, pack[pack.length - 1] as Point]
  const place = set(to, 1, -Math.atan2(to.x - from.x, to.y - from.y))
  const bag = place(curve(points(-32, 20, 32, 20, 36, -8, 31, -30, -30, -30, -36, -6), true, 6))
  const letter = place(points(-16, 18, -11, 38, 13, 37, 17, 18))
  const strap = curve([
    shoulder,
    { x: (shoulder.x + to.x) / 2 + 8, y: (shoulder.y + to.y) / 2 },
    ...place(points(4, 20)),
  ])
  return {
    outlines: [bag],
    swatch: 'bark',
    edge: 4.6,
    inner: [
      { points: place(curve(points(-35, 4, -12, -12, 14, -12, 35, 4))), width: 3.2 },
      { points: strap, width: 4.6 },
    ],
    accents: [shape('lamp', letter), line(2.8, [...letter, letter[0] as Point])],
  }
}

/** Tilda upright on a moment of her walk, back to front. */
const tildaWalking = (walker: Walker): Mark[] =>
  paint([
    arm(walker.farArm, 'moss', 3.8),
    leg(walker.far, 'moss', 3.8),
    trunk(walker),
    face(walker),
    leg(walker.near, 'leaf', 4.8),
    satchel(walker),
    arm(walker.nearArm, 'leaf', 4.4),
  ])

/** The strip of ground closes after four rounds of the walk; that of the reeds, half as fast, after two: both with the shot. */
const ROUND = 2 * STRIDE
const GROUND_STRIP = 4 * ROUND
const REED_STRIP = 2 * ROUND

/** A strip of ground: grass and a stone for every round, no two alike. */
function ground(): Mark[] {
  const tufts = [
    { at: 8, tall: 1, stone: 118 },
    { at: 232, tall: 0.75, stone: 96 },
    { at: 420, tall: 1.15, stone: 150 },
    { at: 676, tall: 0.9, stone: 74 },
  ].flatMap(({ at, tall, stone: aside }, nth) => {
    const blade = (dx: number, lean: number, high: number) =>
      line(
        3.4,
        curve([
          { x: at + dx, y: GROUND + 12 },
          { x: at + dx + lean / 3, y: GROUND + 12 - high * tall * 0.6 },
          { x: at + dx + lean, y: GROUND + 12 - high * tall },
        ]),
        'moss',
      )
    const [x, y] = [at + aside, GROUND + 40 + 9 * (nth % 3)]
    const stone = curve(points(x, y, x + 10, y - 14 * tall, x + 34, y - 16 * tall, x + 48, y - 2), false, 6)
    return [
      blade(12, -14, 34),
      blade(20, 2, 44),
      blade(29, 16, 32),
      ...(nth % 2 ? [blade(38, 9, 26)] : []),
      shape('mist-deep', [...stone, { x, y }]),
      line(3, stone, 'reed'),
      line(2.6, curve(points(at + 52, y + 26, at + 76, y + 29, at + 96, y + 25)), 'reed'),
    ]
  })
  const edge = points(-4, GROUND + 8, 288, GROUND + 8, 576, GROUND + 8, GROUND_STRIP + 4, GROUND + 8)
  const earth = [...edge, { x: GROUND_STRIP + 4, y: 728 }, { x: -4, y: 728 }]
  return [shape('mist', earth), line(4, curve(edge), 'moss'), ...tufts]
}

/** A strip of reeds, some way behind. */
const reeds = (): Mark[] =>
  [
    [18, 236, 12],
    [62, 168, -10],
    [138, 204, 16],
    [196, 142, -6],
    [262, 220, -14],
    [300, 182, 10],
    [388, 246, 8],
  ].flatMap(([x = 0, high = 0, lean = 0]) => {
    const foot = { x, y: GROUND + 2 }
    const top = { x: foot.x + lean, y: foot.y - high }
    const stem = curve([foot, { x: foot.x + lean * 0.2, y: foot.y - high / 2 }, top], false, 12)
    return [line(4.4, stem, 'reed'), shape('reed', disc({ x: top.x, y: top.y + 18 }, 7.5, 24, 24))]
  })

const sky = (): Mark[] => [
  shape('lamp', disc({ x: 1040, y: 150 }, 52, 52, 48)),
  shape('haze', [
    ...curve(points(-8, 440, 180, 420, 420, 446, 700, 424, 980, 444, 1288, 418), false, 12),
    { x: 1288, y: 640 },
    { x: -8, y: 640 },
  ]),
  ...[
    [190, 210],
    [300, 330],
    [884, 300],
    [1140, 380],
  ].map(([x = 0, y = 0]) => shape('lamp', disc({ x, y }, 5, 5, 14))),
]

/** Marching home, all drawings done: Tilda, the ground that passes under her, and reeds that pass half as fast. */
export function marching(): Drawn {
  const study = new Study('marching', MARCHING, 'Tilda')
  study.commit(
    'colours of the marsh',
    MARSH_SWATCHES.map((swatch): Operation => ({ kind: 'swatch.add', swatch })),
  )
  study.still(FIRST.background, sky())
  const march = walkAs('march', RECIPES.walk.defaults(recipeShot(study.document)), recipeShot(study.document))
  const numbers: NumbersOf<'walk'> = {
    ...march,
    x: 600,
    ground: GROUND,
    leg: 176,
    hip: 146,
    stride: STRIDE,
    step: 8,
    exposure: 2,
    school: 'classical',
    lift: 46,
    bob: 14,
    foot: 34,
    torso: TORSO,
    arm: 118,
    head: HEAD,
    lean: 0.05,
    pack: 2,
    packLink: 44,
    packSwing: 0.22,
    packLag: 2,
  }
  // Limbs that cross have no area to be kept.
  study.commit('volume of Tilda', [{ kind: 'layer.set', id: FIRST.drawn, patch: { volume: 'off' } }])
  const { drawings } = study.guide('walk', numbers)
  drawings.forEach((id, i) => study.draw(id, tildaWalking(walkerOn(numbers, 2 * i))))
  // Both strips are drawn once; their layers go.
  const passing = { speed: -STRIDE / numbers.step, x: 0, y: MARCHING.height, exposure: 2 }
  const far = study.layer('layer-reeds', 'reeds', 0.3, 'background')
  study.still(far, reeds())
  study.guide('scroll', { ...passing, y: GROUND, share: 0.5, closes: REED_STRIP, height: 250 }, far)
  const near = study.layer('layer-ground', 'ground', 0.6, 'background')
  study.still(near, ground())
  study.guide('scroll', { ...passing, closes: GROUND_STRIP, height: 112 }, near)
  study.commit('loop the whole shot', [{ kind: 'loop.set', take: FIRST.take, loop: { from: 0, to: MARCHING.frames } }])
  return study.drawn
}
