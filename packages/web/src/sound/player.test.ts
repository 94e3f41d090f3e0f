import { describe, expect, test } from '@jest/globals'
import { clockOf } from './player.ts'

describe('the clock the picture goes by while something is heard', () => {
  test('is the one of the loudspeaker, also when that falls behind; when it stands still, the machine’s goes on from there', () => {
    let [heard, now] = [-60, 1000]
    const clock = clockOf(
      () => heard,
      () => now,
    )
    const after = (machine: number, speaker: number) => {
      now += machine
      heard += speaker
      return clock()
    }
    expect(after(20, 20)).toBe(-40)
    // Ten seconds in which it falls four behind.
    for (let i = 0; i < 100; i++) after(100, 60)
    expect(clock()).toBe(-40 + 6000)
    // A moment of standing still is waited for, and does not jump.
    expect([after(300, 0), after(390, 0)]).toEqual([5960, 5960])
    expect(after(20, 0)).toBe(5960 + 710)
    expect(after(40, 0)).toBe(5960 + 750)
    // Woken later, it is not jumped back to.
    expect(after(10, 3)).toBe(5960 + 760)
  })
})
