import { pngSize } from '@unhurried/core/assets'
import { FIRST, get, picturesOn, type BroughtIn, type Operation } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import { lowerLid, RECIPES, upperLid } from '@unhurried/core/motion'
import { readFileSync } from 'node:fs'
import { MARSH_SWATCHES } from './hop.ts'
import { Study, type Drawn } from './study.ts'
import { spoken } from './voice.ts'
import { curve, disc, line, type Mark, points, shape } from './tilda.ts'

/** The stamp: two seconds close up; she puffs her cheek, presses the stamp down, and winks. */
export const STAMP = { width: 1280, height: 720, fps: 24, frames: 48, paper: '#fdfaf3' }

const FACE: Point = { x: 560, y: 350 }
const CHEEK: Point = { x: 716, y: 420 }
const CHEEK_R = 74
const EYES = { x: 560, y: 214, apart: 236, wide: 66, high: 70 }

function table(): Mark[] {
  const edge = curve(points(-8, 610, 320, 600, 700, 604, 1288, 596), false, 16)
  const letter = points(820, 640, 1080, 622, 1100, 690, 836, 708)
  return [
    line(4.4, edge, 'bark'),
    shape('lamp', letter),
    line(3.6, [...letter, letter[0] as Point]),
    line(2.8, points(820, 640, 962, 676, 1080, 622)),
  ]
}

/** Her head from the front, one cheek as full as the plan has it; eyes lie on their own layer. */
function face(cheek: { at: Point; along: number; across: number; tiltRad: number }): Mark[] {
  const { x, y } = FACE
  const head = curve(
    points(
      x - 262,
      y + 66,
      x - 250,
      y - 44,
      x - 206,
      y - 130,
      x - 190,
      y - 214,
      x - 118,
      y - 228,
      x - 46,
      y - 196,
      x,
      y - 172,
      x + 46,
      y - 196,
      x + 118,
      y - 228,
      x + 190,
      y - 214,
      x + 206,
      y - 130,
      x + 250,
      y - 44,
      x + 262,
      y + 66,
      x + 170,
      y + 182,
      x,
      y + 222,
      x - 170,
      y + 182,
    ),
    true,
    10,
  )
  const puff = Array.from({ length: 41 }, (_, i) => {
    const a = (2 * Math.PI * i) / 40
    const [u, v] = [cheek.along * Math.cos(a), cheek.across * Math.sin(a)]
    return {
      x: cheek.at.x + u * Math.cos(cheek.tiltRad) - v * Math.sin(cheek.tiltRad),
      y: cheek.at.y + u * Math.sin(cheek.tiltRad) + v * Math.cos(cheek.tiltRad),
    }
  })
  const full = Math.max(0, Math.min(1.2, (cheek.at.x - CHEEK.x) / 96))
  const mouth = curve(points(x - 150, y + 62, x - 70, y + 102, x + 10, y + 104 - 14 * full, x + 96, y + 82 - 20 * full))
  const chin = curve(
    points(x - 128, y + 132, x - 40, y + 186, x + 60, y + 184, x + 130, y + 140, x + 20, y + 150),
    true,
  )
  return [
    shape('leaf', head),
    shape('straw', chin),
    shape('leaf', puff),
    line(6, head),
    line(5, puff.slice(26).concat(puff.slice(0, 17))),
    line(4.6, mouth),
    line(4, curve(points(x - 26, y + 8, x - 24, y + 14))),
    line(4, curve(points(x + 24, y + 8, x + 22, y + 14))),
    line(
      3,
      curve(
        points(cheek.at.x - 20, cheek.at.y - cheek.across * 0.55, cheek.at.x + 8, cheek.at.y - cheek.across * 0.66),
      ),
      'lamp',
    ),
  ]
}

/** One eye with its lids as far shut as they are. */
function eye(centre: Point, shut: number): Mark[] {
  const { wide, high } = EYES
  const edge = (middle: number) =>
    Array.from({ length: 25 }, (_, i) => {
      const a = (Math.PI * i) / 24
      return { x: centre.x - wide * Math.cos(a), y: centre.y - middle * high * Math.sin(a) }
    })
  const [up, low] = [upperLid(shut), lowerLid(shut)]
  const upper = edge(up)
  const lower = edge(low)
  const open = [...upper, ...[...lower].reverse()]
  const lid = [...edge(1), ...[...upper].reverse()]
  const isOpen = shut < 0.85
  return [
    ...(isOpen ? [shape('lamp', open)] : []),
    ...(shut < 0.6
      ? [
          shape(
            'graphite',
            disc({ x: centre.x + 10, y: centre.y + 8 - 6 * shut }, 17, Math.max(5, 24 * Math.min(1, (up - low) / 1.6))),
          ),
        ]
      : []),
    ...(shut > 0 ? [shape('moss', lid)] : []),
    line(5.6, upper),
    line(3.8, lower),
    ...(shut > 0 ? [line(3.4, edge(1))] : []),
  ]
}

/** What she says, and on which frames (from 0, the last left out); each word's accent is a beat. */
const LINE = [
  { text: 'Mmm …', from: 2, to: 13, accent: 4 },
  { text: 'and', from: 14, to: 19, accent: 14 },
  { text: 'there!', from: 20, to: 33, accent: 20 },
] as const

/** A voice as she presses the stamp down, made up by figures: its words, and a beat on each that has none. */
function say(study: Study): void {
  const at = (frame: number) => frame / STAMP.fps
  const closed = { first: [260, 280], second: [900, 880] } as const
  const voice = spoken(STAMP.frames / STAMP.fps, [
    { at: at(2), long: at(11), hz: [176, 214], ...closed, loud: 0.5, breath: 0 },
    { at: at(14), long: at(5), hz: [236, 206], first: [640, 420], second: [1560, 1500], loud: 0.85, breath: 0.1 },
    { at: at(20), long: at(13), hz: [252, 164], first: [520, 610], second: [1820, 1180], loud: 1, breath: 0.7 },
  ])
  study.hear('voice', voice, 0)
  study.commit(
    'what she says',
    LINE.map(({ text, from, to }, i): Operation => ({ kind: 'word.add', word: { id: `said-${i}`, text, from, to } })),
  )
  // Where the guide has a beat already, the word falls on that one.
  const taken = new Set(Object.values(study.document.beats).map(beat => beat.frame))
  const fresh = LINE.filter(({ accent }) => !taken.has(accent))
  study.commit(
    'accents',
    fresh.map(({ text, accent }): Operation => ({
      kind: 'beat.add',
      beat: { id: `accent-${accent}`, name: text.replace(/[^\w]/g, ''), frame: accent },
    })),
  )
}

/** The stamp, all drawings done. */
export function stamp(): Drawn {
  const study = new Study('stamp', STAMP, 'face')
  study.commit(
    'colours of the marsh',
    MARSH_SWATCHES.map((swatch): Operation => ({ kind: 'swatch.add', swatch })),
  )
  study.still(FIRST.background, table())
  // What is painted lies under what is drawn on the same sheet.
  const bytes = new Uint8Array(readFileSync(new URL('./postOffice.png', import.meta.url)))
  const size = pngSize(bytes)
  if (!size) throw new Error('postOffice.png is no picture')
  const picture: BroughtIn = { id: 'stamp-post-office', ...size, was: size, frames: null }
  study.keep(picture.id, bytes)
  const behind = get(study.document.drawings, `${FIRST.background}-still`)
  study.commit('bring in the post office', picturesOn(study.document, behind, [picture], () => 'stamp-behind').ops)
  const puff = study.guide('anticipate', {
    x: CHEEK.x,
    y: CHEEK.y,
    toX: CHEEK.x + 96,
    toY: CHEEK.y - 6,
    bow: 0,
    frames: 10,
    exposure: 2,
    back: 0.2,
    backTime: 0.4,
    ease: 'both',
    past: 0.2,
    decay: 0.16,
    swing: 12,
    parts: 1,
    radius: CHEEK_R,
    stretch: 0.14,
  })
  const { anticipate } = RECIPES
  puff.drawings.forEach((id, i) => {
    const { marks, body } = anticipate.expect(puff.plan, i)
    if (!body || !marks.head) return
    study.draw(id, face({ at: marks.head, along: body.axes[0], across: body.axes[1], tiltRad: body.tiltRad }))
  })
  study.hold(FIRST.drawn)
  // Spacing is read from silhouettes, and hers is her head: the cheek is held against its guide.
  study.commit(
    'no chart',
    Object.keys(study.document.charts).map((id): Operation => ({ kind: 'chart.remove', id })),
  )
  const eyes = study.layer('layer-eyes', 'eyes', 1.5)
  const wink = study.guide(
    'blink',
    {
      ...EYES,
      tilt: 0,
      late: false,
      before: 14,
      after: 12,
      slower: 'down',
      slow: 3,
      quick: 2,
      shut: 4,
      exposure: 1,
      pattern: 'once',
      lashes: false,
    },
    eyes,
  )
  wink.drawings.forEach((id, i) => {
    const lids = wink.plan.lids[i]
    if (!lids) return
    // A wink: the far eye stays open, and only narrows a little.
    const [left, right] = [-1, 1].map(side => ({ x: EYES.x + (side * EYES.apart) / 2, y: EYES.y })) as [Point, Point]
    study.draw(id, [...eye(left, lids.first * 0.14), ...eye(right, lids.second)])
  })
  study.hold(eyes)
  say(study)
  return study.drawn
}
