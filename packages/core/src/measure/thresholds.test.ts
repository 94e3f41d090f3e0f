import { describe, expect, test } from '@jest/globals'
import { CHECK_NAMES } from './checks/table.ts'
import { setThreshold, THRESHOLD_NAMES, THRESHOLDS, thresholdOf, thresholdsOf } from './thresholds.ts'

describe('thresholds', () => {
  test('each belongs to a check, says why it is as it comes, and lies within its bounds', () => {
    for (const name of THRESHOLD_NAMES) {
      const { check, why, is, least, most } = THRESHOLDS[name]
      expect(CHECK_NAMES as string[]).toContain(check)
      expect(why).not.toBe('')
      expect(least).toBeLessThan(is)
      expect(is).toBeLessThan(most)
    }
    expect(thresholdsOf('pace')).toEqual(['pop', 'stall'])
    expect([thresholdsOf('flashes'), thresholdsOf('weight')]).toEqual([['shown'], []])
  })

  test('in a shot they are as somebody set them, within their bounds, and else as they come', () => {
    expect(thresholdOf({ thresholds: {} }, 'volume')).toBe(0.08)
    expect(thresholdOf({ thresholds: { volume: 0.2 } }, 'volume')).toBe(0.2)
    expect(thresholdOf({ thresholds: { volume: 55 } }, 'volume')).toBe(1)
    expect(thresholdOf({ thresholds: { pop: -1 } }, 'pop')).toBe(1.2)
    const value = (n: number | null) => setThreshold('pop', n).map(op => op.kind === 'threshold.set' && op.value)
    expect([value(4), value(99), value(2.5), value(null)]).toEqual([[4], [10], [null], [null]])
  })
})
