import { describe, expect, test } from '@jest/globals'
import { map } from '@unhurried/core/geometry'
import { ref } from 'vue'
import type { useSight } from '../../../stores/sight.ts'
import { useFingers } from './useFingers.ts'
import { FLAT, paperToScreen, toPaper, type View } from '../../../paint/view.ts'

const screen = { width: 800, height: 600 }
const paper = { width: 1280, height: 720 }
function fingers(mirrored = false) {
  const sight = { view: { ...FLAT, mirrored } as View }
  const hand = useFingers(sight as ReturnType<typeof useSight>, ref(screen), () => ({ left: 0, top: 0 }))
  const at = (pointerId: number, clientX: number, clientY: number, timeStamp = 0) =>
    ({ pointerId, clientX, clientY, timeStamp }) as PointerEvent
  const onPaper = (x: number, y: number) => toPaper(paperToScreen(sight.view, screen, paper), { x, y })
  const onScreen = (p: { x: number; y: number }) => map(paperToScreen(sight.view, screen, paper), p)
  return { sight, hand, at, onPaper, onScreen }
}

describe('fingers on the paper', () => {
  test.each([false, true])('one finger takes the paper along (mirrored: %s)', mirrored => {
    const { hand, at, onPaper, onScreen } = fingers(mirrored)
    const held = onPaper(300, 200)
    hand.take(at(1, 300, 200))
    expect(hand.move(at(1, 340, 230))).toBe(true)
    expect(onScreen(held).x).toBeCloseTo(340, 0)
    expect(onScreen(held).y).toBeCloseTo(230, 0)
    hand.let(at(1, 340, 230))
    expect(hand.move(at(1, 400, 400))).toBe(false)
  })

  test.each([false, true])('two fingers keep what is under them, nearer and turned (mirrored: %s)', mirrored => {
    const { sight, hand, at, onPaper, onScreen } = fingers(mirrored)
    const [p, q] = [onPaper(300, 300), onPaper(500, 300)]
    hand.take(at(1, 300, 300))
    hand.take(at(2, 500, 300))
    // The second goes round the first in small steps, and away from it.
    for (let i = 1; i <= 40; i++) {
      const angle = (i / 40) * (Math.PI / 2)
      const r = 200 + (i / 40) * 100
      hand.move(at(2, 300 + r * Math.cos(angle), 300 + r * Math.sin(angle)))
    }
    expect(Math.hypot(onScreen(p).x - 300, onScreen(p).y - 300)).toBeLessThan(6)
    expect(Math.hypot(onScreen(q).x - 300, onScreen(q).y - 600)).toBeLessThan(6)
    expect(sight.view.zoom).toBeCloseTo(1.5, 1)
  })

  test('near a pen what touches the paper is a palm', () => {
    const { hand, at } = fingers()
    hand.take(at(1, 100, 100, 0))
    hand.penSeen(at(9, 0, 0, 1000))
    expect([hand.count(), hand.isPalm(at(2, 0, 0, 1300)), hand.isPalm(at(2, 0, 0, 1700))]).toEqual([0, true, false])
  })
})
