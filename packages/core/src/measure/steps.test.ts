import { expect, test } from '@jest/globals'
import type { FollowedStep } from '../document/model/followed.ts'
import { mostTelling, movedSteps } from './steps.ts'

const at = (drawing: string, start: number, x: number | null): FollowedStep => ({
  drawing,
  start,
  at: x === null ? null : { x, y: 0 },
})

test('steps are told in pixels, and in pixels a frame by how long each is shown', () => {
  expect(movedSteps([at('a', 0, 0), at('b', 2, 10), at('c', 5, 40)], null)).toEqual([
    { from: 'a', to: 'b', frames: 2, px: 10, pxPerFrame: 5 },
    { from: 'b', to: 'c', frames: 3, px: 30, pxPerFrame: 10 },
  ])
})

test('round a loop the last leads to the first; what is held is one step; what is not known is not told', () => {
  const round = movedSteps([at('a', 4, 0), at('a', 6, 0), at('b', 8, 12), at('c', 10, null)], { from: 4, to: 12 })
  expect(round).toEqual([
    { from: 'a', to: 'b', frames: 4, px: 12, pxPerFrame: 3 },
    { from: 'b', to: 'c', frames: 2, px: null, pxPerFrame: null },
    { from: 'c', to: 'a', frames: 2, px: null, pxPerFrame: null },
  ])
  expect(movedSteps([at('a', 0, 3)], { from: 0, to: 4 })).toEqual([])
  expect(movedSteps([at('a', 0, 3), at('b', 2, 6), at('a', 4, 3)], { from: 0, to: 6 })).toHaveLength(2)
})

test('told of is what is known on most drawings, and of equal ones the first that moves', () => {
  const way = (name: string, ...xs: (number | null)[]) => ({ name, steps: xs.map((x, i) => at(`${i}`, 2 * i, x)) })
  const middle = way('middle', 0, null, 4)
  const [root, tip, nose] = [way('root', 5, 5, 5), way('tip', 0, 9, 4), way('nose', 0, 50, 90)]
  expect(mostTelling([middle, root, tip, nose], null)?.name).toBe('tip')
  expect(mostTelling([middle, root], null)?.name).toBe('root')
  expect(mostTelling([way('middle', 0, 2, 4), tip], null)?.name).toBe('middle')
  expect(mostTelling([], null)).toBeUndefined()
})
