import { expect, test } from '@jest/globals'
import { bounce } from './bounce/bounce.ts'
import { earthGravity, fallFrames } from './recipe.ts'

test('at 100 px a metre gravity is 981 px a second, a second: 1.703 px a frame, a frame at 24', () => {
  expect(earthGravity(100, 24)).toBeCloseTo(981 / 576, 12)
  expect(earthGravity(200, 12)).toBeCloseTo(8 * earthGravity(100, 24), 12)
})

test('a metre is fallen in 10.8 frames at 24, and four metres in twice as many', () => {
  expect(fallFrames(1, 24)).toBeCloseTo(10.84, 2)
  expect(fallFrames(4, 24)).toBeCloseTo(2 * fallFrames(1, 24), 12)
})

test('a bounce under it falls as long as the scale says', () => {
  const shot = { width: 1280, height: 720, fps: 24, exposure: 1, scale: 240 }
  const gravity = earthGravity(240, 24)
  const fall = { y: 100, ground: 360, radius: 20, gravity, exposure: 1 }
  const plan = bounce.plan({ ...bounce.defaults(shot), ...fall }, shot)
  // The centre falls 240 px, a metre: 10.8 frames, on ones 11.
  expect(plan.arcs[0]?.end).toBe(11)
})
