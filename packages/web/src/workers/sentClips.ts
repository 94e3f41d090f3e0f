import { momentUnder, pictureAt } from '@unhurried/core/clip'
import type { Matrix } from '@unhurried/core/geometry'
import type { FilmClip } from '@unhurried/core/document'
import type { Brush } from '../paint/nibs.ts'
import type { SentClip } from '../protocols/export.ts'
import { layClip, underKey } from '../send/pictures.ts'
import { openClip } from './openClip.ts'

/** One's own clips under the drawings of a film that is made. */
export async function sentClips(clips: readonly SentClip[], fps: number) {
  const opened = await Promise.all(clips.map(async ({ clip, bytes }) => pictured(clip, await openClip(bytes), fps)))
  return {
    /** What lies under a frame, as a text that tells it from other frames; empty where nothing does. */
    keyAt: (frame: number): string => underKey(opened.map(one => one.numberAt(frame))),
    /** Makes ready what lies under a frame, and answers with how it is painted, lowest first. */
    async at(frame: number): Promise<(brush: Brush, base: Matrix) => void> {
      for (const one of opened) await one.turnTo(frame)
      return (brush, base) => {
        for (const one of opened) one.paint(brush, base)
      }
    },
  }
}

/** A clip on one of its pictures at a time, each as large as it is. */
function pictured(clip: FilmClip, { sink, times }: Awaited<ReturnType<typeof openClip>>, fps: number) {
  const canvas = new OffscreenCanvas(clip.widthPx, clip.heightPx)
  const brush = canvas.getContext('2d')
  let on: number | null = null
  const numberAt = (frame: number): number | null => {
    const moment = momentUnder(clip, fps, frame)
    return moment === null ? null : pictureAt(times, moment)
  }
  return {
    numberAt,
    async turnTo(frame: number): Promise<void> {
      const number = numberAt(frame)
      if (number === on) return
      on = number
      const time = number === null ? undefined : times[number]
      if (time === undefined || !brush) return
      const sample = await sink.getSample(time + 1e-4)
      if (!sample) throw new Error(`picture ${(number as number) + 1} of “${clip.name}” cannot be read`)
      brush.clearRect(0, 0, canvas.width, canvas.height)
      sample.draw(brush, 0, 0, canvas.width, canvas.height)
      sample.close()
    },
    paint(to: Brush, base: Matrix): void {
      if (on !== null) layClip(to, base, clip, canvas)
    },
  }
}
