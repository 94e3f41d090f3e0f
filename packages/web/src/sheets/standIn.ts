import { chance } from '@unhurried/core/motion'

/** Sheets of the sample world for a camera that is not there: a heron lifts its foot, drawing by drawing, on punched paper under a lamp. */
export const STAND_IN = { width: 1280, height: 960, sheets: 6 } as const

interface Place {
  readonly x: number
  readonly y: number
}

/** Chance from −1 to 1, the same for a sheet whenever it is photographed. */
function either(seed: number): () => number {
  const dice = chance(seed)
  return () => 2 * dice() - 1
}

/** The lines of the heron at a share of its movement, 0–1, in pixels of a sheet 1000 × 750; the hand is never quite the same. */
function heron(share: number, seed: number): Place[][] {
  const next = either(seed + 40)
  const p = (x: number, y: number): Place => ({ x: x + 2.2 * next(), y: y + 2.2 * next() })
  const lift = Math.sin(share * Math.PI) * 1
  const [nod, knee] = [26 * Math.sin(share * Math.PI * 2), 120 * lift]
  const body = Array.from({ length: 22 }, (_, i) => {
    const a = (i / 21) * 2 * Math.PI
    return p(470 + 125 * Math.cos(a) - 26 * Math.sin(a), 340 + 62 * Math.sin(a) + 20 * Math.cos(2 * a))
  })
  const neck = [p(572, 312), p(632, 258), p(600, 196), p(622, 148), p(668, 138 + nod * 0.4)]
  const beak = [
    p(664, 128 + nod * 0.4),
    p(708, 136 + nod),
    p(772, 158 + nod),
    p(700, 156 + nod),
    p(668, 150 + nod * 0.6),
  ]
  const crest = [p(664, 130 + nod * 0.4), p(630, 120), p(592, 128)]
  const planted = [p(440, 396), p(432, 480), p(446, 566), p(440, 622), p(474, 628), p(440, 622), p(414, 632)]
  const lifted = [
    p(500, 398),
    p(520 + knee * 0.5, 474 - knee * 0.2),
    p(506 + knee * 0.2, 560 - knee),
    p(504 + knee * 0.1, 618 - knee * 1.1),
    p(540 + knee * 0.1, 626 - knee * 0.9),
  ]
  const wing = [p(560, 318), p(480, 322), p(392, 356), p(336, 400), p(420, 392), p(500, 372)]
  const tail = [p(352, 330), p(300, 372), p(286, 396), p(344, 372)]
  const eye = Array.from({ length: 7 }, (_, i) => p(652 + 4 * Math.cos(i), 138 + nod * 0.4 + 4 * Math.sin(i)))
  return [[...body, body[0] as Place], neck, beak, crest, planted, lifted, wing, tail, eye]
}

/** A soft line through places. */
function trace(brush: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D, line: readonly Place[]): void {
  brush.beginPath()
  line.forEach((to, i) => {
    const from = line[i - 1]
    if (!from) return brush.moveTo(to.x, to.y)
    const after = line[i + 1] ?? to
    brush.quadraticCurveTo(to.x, to.y, (to.x + after.x) / 2, (to.y + after.y) / 2)
  })
  brush.stroke()
}

/** Paints what the camera sees of a sheet, from 0: paper on a table, a little turned each time, brighter at one side, noisy. `share` is that of the movement. */
export function paintStandIn(
  brush: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  sheet: number,
  share = (sheet % STAND_IN.sheets) / STAND_IN.sheets,
): void {
  const { width, height } = STAND_IN
  const next = either(sheet)
  brush.save()
  brush.fillStyle = '#54463a'
  brush.fillRect(0, 0, width, height)
  brush.translate(width / 2 + 22 * next(), height / 2 + 18 * next())
  brush.rotate(0.045 * next())
  const scale = 1.08 + 0.02 * next()
  brush.scale(scale, scale)
  brush.translate(-500, -375)
  brush.fillStyle = '#efeadf'
  brush.fillRect(0, 0, 1000, 750)
  brush.fillStyle = '#3a2f27'
  for (const [x, wide] of [
    [200, 40],
    [500, 13],
    [800, 40],
  ] as const) {
    brush.beginPath()
    brush.roundRect(x - wide, 704 - 13, 2 * wide, 26, 13)
    brush.fill()
  }
  brush.strokeStyle = '#4a4640'
  brush.lineWidth = 4
  brush.lineCap = brush.lineJoin = 'round'
  for (const line of heron(share, sheet)) trace(brush, line)
  brush.restore()
  // The lamp stands at the left, above.
  const light = brush.createRadialGradient(260, 180, 80, 420, 360, 1250)
  light.addColorStop(0, 'rgba(0,0,0,0)')
  light.addColorStop(1, 'rgba(20,12,4,0.62)')
  brush.fillStyle = light
  brush.fillRect(0, 0, width, height)
  const picture = brush.getImageData(0, 0, width, height)
  for (let i = 0; i < picture.data.length; i += 4) {
    const noise = 7 * next()
    for (let k = 0; k < 3; k++) picture.data[i + k] = (picture.data[i + k] as number) + noise
  }
  brush.putImageData(picture, 0, 0)
}
