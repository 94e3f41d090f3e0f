import { addClip, BY_HAND, currentTake, exposures, get, tracingSetUp } from '@unhurried/core/document'
import type { Point } from '@unhurried/core/geometry'
import { readFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { WALTZ, WALTZ_POSES, reedLine } from './reeds.ts'
import { Study, type Drawn } from './study.ts'
import { curve, disc, line, shape } from './tilda.ts'

/** So many of the drawings are traced already; the others wait in the queue. */
const TRACED = 9
const SECONDS = WALTZ.frames / WALTZ.fps

/** Reed waltz: a made-up film of three reeds under the paper, read and traced by its poses, a third of it done. */
export function waltz(): Drawn {
  const study = new Study('waltz', WALTZ, 'rough')
  const bytes = readFileSync(new URL('./reedWaltz.webm', import.meta.url))
  const film = { id: createHash('sha256').update(bytes).digest('hex'), bytes, seconds: SECONDS }
  const { width, height } = WALTZ.film
  const known = { id: 'waltz-film', name: 'reeds at the lock', media: film.id, widthPx: width, heightPx: height }
  study.store(film)
  study.commit('bring in reeds at the lock', addClip(study.document, { ...known, seconds: SECONDS }, 0))
  const clip = get(study.document.clips, 'waltz-film')
  // The tips, as they are when they are followed from the first picture on.
  for (const [order, name] of ['left tip', 'middle tip', 'right tip'].entries()) {
    const places = WALTZ_POSES.map((pose, frame) => {
      const { x, y } = reedLine(pose, order).at(-1) as Point
      const s = Math.round((frame / WALTZ.fps) * 1e5) / 1e5
      return { s, x: Math.round(x * 100) / 100, y: Math.round(y * 100) / 100, sure: frame === 0 ? BY_HAND : 0.97 }
    })
    const point = { id: `waltz-tip-${order}`, clip: clip.id, name, order, places }
    study.commit(`follow ${name}`, [{ kind: 'point.add', point }])
  }
  let made = 0
  const named = { id: 'layer-traced', name: 'reeds traced', on: 2 }
  const step = tracingSetUp(study.document, currentTake(study.document), clip, named, () => `waltz-${++made}`)
  if (!step.ok) throw new Error(`the waltz cannot be traced: ${step.code}`)
  study.commit('trace reeds at the lock', step.ops)
  const scale = WALTZ.width / width
  for (const run of exposures(currentTake(study.document), 'layer-traced').slice(0, TRACED)) {
    const pose = WALTZ_POSES[run.start] ?? 0
    const reeds = [0, 1, 2].flatMap(reed => {
      const through = reedLine(pose, reed).map(({ x, y }): Point => ({ x: x * scale, y: y * scale }))
      const tip = through.at(-1) as Point
      return [
        line(reed === 1 ? 7 : 5.4, curve(through), reed === 1 ? 'moss' : 'leaf'),
        shape('bark', disc(tip, 7 * scale, 17 * scale)),
      ]
    })
    study.draw(run.drawing as string, reeds)
  }
  return study.drawn
}
