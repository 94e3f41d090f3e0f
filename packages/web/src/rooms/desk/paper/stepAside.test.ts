import { describe, expect, test } from '@jest/globals'
import { isNear } from './stepAside.ts'

describe('notes over the paper', () => {
  const box = { left: 100, right: 200, top: 50, bottom: 80 }
  test.each([
    ['in it', { x: 150, y: 60 }, true],
    ['just beside it', { x: 64.5, y: 60 }, true],
    ['as far as it steps', { x: 64, y: 60 }, false],
    ['beside its corner', { x: 220, y: 100 }, true],
    ['above it', { x: 150, y: 13 }, false],
    ['below it', { x: 150, y: 117 }, false],
    ['to its right', { x: 237, y: 60 }, false],
  ])('the hand %s', (_where, at, near) => {
    expect(isNear(box, at)).toBe(near)
  })
})
