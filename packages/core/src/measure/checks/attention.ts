import type { Survey } from '../survey.ts'
import { leadsOf, stepsOf } from './followed.ts'
import type { Check, Series } from './check.ts'

/** Slower than this, px a frame, a drawing is seen as well as one that is held. */
const SLOW_PX = 1

/** A drawing, and how well it is seen. */
export interface Attention {
  readonly layer: string
  readonly drawing: string
  /** the frame on which it is seen first, and frames it is seen for over the take */
  readonly frame: number
  readonly frames: number
  /** how fast it goes when it appears, px a frame */
  readonly pxPerFrame: number
  /** frames × 1 / speed, as a share of all there is on its layer */
  readonly share: number
}

/** How long and how slowly every drawing is seen, the longest and slowest first: there work pays. */
export function attentionOf(survey: Survey): Attention[] {
  return leadsOf(survey)
    .flatMap(way => {
      const all = new Map<string, { frame: number; frames: number; speeds: number[] }>()
      const speeds = new Map(stepsOf(way).map(step => [`${step.to.drawing} ${step.to.start}`, step.pxPerFrame]))
      way.steps.forEach(({ drawing, start }, i) => {
        const frames = (way.steps[i + 1]?.start ?? survey.take.length) - start
        const speed = speeds.get(`${drawing} ${start}`)
        const one = all.get(drawing) ?? { frame: start, frames: 0, speeds: [] }
        all.set(drawing, {
          ...one,
          frames: one.frames + frames,
          speeds: speed === undefined ? one.speeds : [...one.speeds, speed],
        })
      })
      // What is there from the first frame on has come from nowhere: it goes as fast as it does later, or rests.
      const weights = [...all].map(([drawing, { frame, frames, speeds: of }]) => {
        const pxPerFrame = of.length > 0 ? Math.min(...of) : 0
        const weight = frames / Math.max(SLOW_PX, pxPerFrame)
        return { frame, frames, pxPerFrame, drawing, layer: way.layer.id, weight }
      })
      const whole = weights.reduce((sum, one) => sum + one.weight, 0)
      return weights.map(({ weight, ...one }) => ({ ...one, share: whole > 0 ? weight / whole : 0 }))
    })
    .sort((a, b) => b.share - a.share || a.frame - b.frame)
}

/** How long and how slowly each drawing is seen. It finds nothing: it says where eyes are. */
export const attention: Check = {
  words: 'how well it is seen',
  asks: 'Which drawings are seen longest and slowest, so that work on them pays?',
  needs: ['shapes'],
  view: 'ranked',
  inspect: () => [],
  series: survey => {
    const byLayer = new Map<string, Series>()
    for (const { layer, drawing, frame, share } of attentionOf(survey)) {
      const name = survey.document.layers[layer]?.name ?? ''
      const one = byLayer.get(layer) ?? { layer, mark: null, name, unit: '% of attention', values: [], planned: [] }
      byLayer.set(layer, { ...one, values: [...one.values, { frame, drawing, value: 100 * share }] })
    }
    return [...byLayer.values()].map(series => ({
      ...series,
      values: [...series.values].sort((a, b) => a.frame - b.frame),
    }))
  },
}
