import { frameAt, wrapFrame, type LoopRange } from '@unhurried/core/time'
import { ref } from 'vue'

/** What playback needs: how to show a frame, and a clock and ticker that tests can replace. */
export interface PlaybackPort {
  show(frame: number): void
  now?: () => number
  nextTick?: (call: () => void) => number
  cancelTick?: (handle: number) => void
}

/** How a run of playback went. */
export interface PlaybackReport {
  shown: number
  dropped: number
}

/** Plays frames against a clock: at every tick the frame that is due, so that a slow machine drops frames and keeps time. */
export function makePlayback(port: PlaybackPort) {
  const now = port.now ?? (() => performance.now())
  const nextTick = port.nextTick ?? requestAnimationFrame
  const cancelTick = port.cancelTick ?? cancelAnimationFrame
  const playing = ref(false)
  const report = ref<PlaybackReport>({ shown: 0, dropped: 0 })
  let handle = 0

  /** Plays from a frame on; by another clock (ms since the first frame, below 0 before it) where one is given. */
  function start(from: number, fps: number, range: LoopRange, round: boolean, clock?: () => number): void {
    stop()
    playing.value = true
    report.value = { shown: 0, dropped: 0 }
    const first = from >= range.from && from < range.to - (round ? 0 : 1) ? from : range.from
    const began = now()
    const elapsed = clock ?? (() => now() - began)
    let last = -1
    const tick = () => {
      const due = frameAt(elapsed(), fps)
      if (due !== last) {
        const dropped = last < 0 ? 0 : due - last - 1
        report.value = { shown: report.value.shown + 1, dropped: report.value.dropped + dropped }
        last = due
        const frame = first + due
        if (!round && frame >= range.to) {
          port.show(range.to - 1)
          playing.value = false
          return
        }
        port.show(round ? wrapFrame(frame, range) : frame)
      }
      handle = nextTick(tick)
    }
    tick()
  }

  function stop(): void {
    cancelTick(handle)
    playing.value = false
  }

  return { playing, report, start, stop }
}
